// Package tent computes the air under a tent or in a shed with heaters and a
// dehumidifier: one well-mixed volume coupled to the surfaces in it.
package tent

import (
	"fmt"
	"math"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
)

// HeatKind is a kind of heater.
type HeatKind string

// Kinds of heater.
const (
	Electric HeatKind = "electric"
	Vented   HeatKind = "vented"   // burns paraffin, its fumes go outside
	Gas      HeatKind = "gas"      // unvented propane
	Paraffin HeatKind = "paraffin" // unvented paraffin
)

// HeatKinds lists them: name, fuel and its heating value in MJ/kg (0 for
// electricity), and the water that a kilogram burned gives to the air, kg, by
// stoichiometry.
var HeatKinds = []struct {
	Kind    HeatKind `json:"kind"`
	Name    string   `json:"name"`
	MJKg    float64  `json:"mjKg"`
	WaterKg float64  `json:"waterKg"`
}{
	{Electric, "electric heater", 0, 0}, {Vented, "burner with a flue", 43, 0},
	{Gas, "gas burner without a flue", 46.4, 1.63}, {Paraffin, "paraffin burner without a flue", 43, 1.25},
}

// Heater is a heater of PowerKW.
type Heater struct {
	Kind    HeatKind `json:"kind"`
	PowerKW float64  `json:"powerKW"`
}

// Thermostat heats to SetC between two hours of the local day; FromH after ToH
// is over midnight, both alike all day.
type Thermostat struct {
	SetC  float64 `json:"setC"`
	FromH float64 `json:"fromH"`
	ToH   float64 `json:"toH"`
}

// on reports whether it heats at an hour of the day.
func (t Thermostat) on(h float64) bool {
	if t.FromH <= t.ToH {
		return t.FromH == t.ToH || h >= t.FromH && h < t.ToH
	}
	return h >= t.FromH || h < t.ToH
}

// Prices are in cents of the user's currency.
type Prices struct {
	KWhCents    float64 `json:"kWhCents"`
	FuelKgCents float64 `json:"fuelKgCents"`
	// DayCents is what a day on the hard costs, HardenerCents what the
	// low-temperature hardener for the coat costs more than the standard one.
	DayCents      float64 `json:"dayCents"`
	HardenerCents float64 `json:"hardenerCents"`
}

// What a tent costs that does not stand yet, cents: a layer of film a m², and a frame a metre, a hoop
// every hoopM with three rails along. Rules of thumb.
const (
	filmM2Cents = 120
	frameMCents = 100
	hoopM       = 1.5
)

// BuildCents is what film and frame cost.
func (t Tent) BuildCents() float64 {
	hoops := math.Ceil(t.LengthM/hoopM) + 1
	return filmM2Cents*t.FilmM2()*float64(t.Layers) + frameMCents*(hoops*(2*t.HeightM+t.WidthM)+3*t.LengthM)
}

// doorFlow is the air that wind drives through an opening on one side, of its area and speed (Warren 1977).
const doorFlow = 0.025

// mostChanges are the most air changes that are reckoned with, an hour.
const mostChanges = 100

// changes of the air in an hour in a wind, m/s.
func (t Tent) changes(windMS float64) float64 {
	return min(mostChanges, t.AirChanges+doorFlow*t.DoorM2*max(0, windMS)*3600/t.VolumeM3())
}

// leastOpenC is the lowest temperature that ends are opened above, °C.
const leastOpenC = 10

// openChanges is what open ends add to the air changes of an hour at most, usualOpenC the temperature at
// which people open them: rules of thumb.
const openChanges, usualOpenC = 30, 25

// A booth is a tent with so many air changes an hour; its filter lets the air through at faceMS at most: rules of
// thumb.
const boothChanges, faceMS = 10, 0.5

// Booth says what a fan and its filter have to move where a tent is a booth, nil where it is none. lossPct
// of what is sprayed does not stay on the work.
func (t Tent) Booth(lossPct float64) message.Sentence {
	if t.AirChanges < boothChanges {
		return nil
	}
	flow := t.AirChanges * t.VolumeM3()
	return message.Of(
		"The fan moves %.0f m³ an hour, through a filter of %.1f m² at least, so that the air crosses it at %.1f m/s or less. About %.0f %% of what is sprayed ends in it: change it when the flow drops, and let it dry in the open.",
		flow, flow/3600/faceMS, faceMS, lossPct)
}

// Tent is a box of film with what stands in it.
type Tent struct {
	LengthM float64 `json:"lengthM"`
	WidthM  float64 `json:"widthM"`
	HeightM float64 `json:"heightM"`
	// Layers of film, 1 or 2.
	Layers int `json:"layers"`
	// AirChanges of the whole volume in an hour; a booth with a fan has up to a hundred.
	AirChanges float64 `json:"airChanges"`
	// DoorM2 is an opening that stands open to one side, m².
	DoorM2 float64 `json:"doorM2,omitempty"`
	// OpenC is the temperature in it, °C, above which its ends are opened; 0 if they never are.
	OpenC float64 `json:"openC,omitempty"`
	// BareGround says that earth or grass under it is not covered, and gives its water to the air.
	BareGround bool     `json:"bareGround,omitempty"`
	Heaters    []Heater `json:"heaters"`
	// DryL is what the dehumidifier takes in a day at 20 °C and 60 %, litres; 0
	// for none.
	DryL       float64    `json:"dryL"`
	Thermostat Thermostat `json:"thermostat"`
	Prices     Prices     `json:"prices"`
}

// Usual is a tent around a boat of that length and beam in m, as people make
// them of film over scrap timber.
func Usual(loaM, beamM float64) Tent {
	return Tent{
		LengthM: math.Ceil(loaM + 1.5), WidthM: math.Ceil(beamM + 1.6), HeightM: 3, Layers: 1, AirChanges: 1.5,
		OpenC:   usualOpenC,
		Heaters: []Heater{{Electric, 3}}, Thermostat: Thermostat{14, 6, 22},
		Prices: Prices{KWhCents: 30, FuelKgCents: 220, DayCents: 1200, HardenerCents: 2500},
	}
}

// Validate reports what cannot be.
func (t Tent) Validate() error {
	var bad fielderr.Errors
	bad.Range("lengthM", t.LengthM, 1, 100, "m")
	bad.Range("widthM", t.WidthM, 1, 40, "m")
	bad.Range("heightM", t.HeightM, 0.5, 30, "m")
	if t.Layers != 1 && t.Layers != 2 {
		bad.Add("layers", "must be 1 or 2")
	}
	bad.Range("airChanges", t.AirChanges, 0.1, mostChanges, "/h")
	bad.Range("doorM2", t.DoorM2, 0, 60, "m²")
	if t.OpenC != 0 {
		bad.Range("openC", t.OpenC, leastOpenC, 45, "°C")
	}
	for i, h := range t.Heaters {
		path := fmt.Sprintf("heaters[%d]", i)
		if _, ok := h.Kind.info(); !ok {
			bad.Add(path+".kind", "must be electric, vented, gas or paraffin")
		}
		bad.Range(path+".powerKW", h.PowerKW, 0.1, 200, "kW")
	}
	bad.Range("dryL", t.DryL, 0, 200, "L")
	bad.Range("thermostat.setC", t.Thermostat.SetC, -5, 40, "°C")
	bad.Range("thermostat.fromH", t.Thermostat.FromH, 0, 24, "h")
	bad.Range("thermostat.toH", t.Thermostat.ToH, 0, 24, "h")
	bad.Range("prices.kWhCents", t.Prices.KWhCents, 0, 1e5, "cents")
	bad.Range("prices.fuelKgCents", t.Prices.FuelKgCents, 0, 1e5, "cents")
	bad.Range("prices.dayCents", t.Prices.DayCents, 0, 1e7, "cents")
	bad.Range("prices.hardenerCents", t.Prices.HardenerCents, 0, 1e8, "cents")
	return bad.Err()
}

func (k HeatKind) info() (i struct {
	MJKg, WaterKg float64
	Name          string
}, ok bool) {
	for _, h := range HeatKinds {
		if h.Kind == k {
			i.MJKg, i.WaterKg, i.Name = h.MJKg, h.WaterKg, h.Name
			return i, true
		}
	}
	return i, false
}

// VolumeM3 is the volume of the box, FilmM2 the film of its sides and top.
func (t Tent) VolumeM3() float64 { return t.LengthM * t.WidthM * t.HeightM }

// FilmM2 is the film of its sides and top.
func (t Tent) FilmM2() float64 {
	return t.LengthM*t.WidthM + 2*t.HeightM*(t.LengthM+t.WidthM)
}

// PowerKW is the heat of all heaters together.
func (t Tent) PowerKW() float64 {
	sum := 0.0
	for _, h := range t.Heaters {
		sum += h.PowerKW
	}
	return sum
}

// Unvented reports whether a burner gives its fumes and water to the tent.
func (t Tent) Unvented() bool {
	for _, h := range t.Heaters {
		if h.Kind == Gas || h.Kind == Paraffin {
			return true
		}
	}
	return false
}

// perKWh is what an hour at a kilowatt of all heaters together burns and gives:
// electricity in kWh, fuel in kg, water in kg.
func (t Tent) perKWh() (electric, fuel, water float64) {
	total := t.PowerKW()
	if total == 0 {
		return 0, 0, 0
	}
	for _, h := range t.Heaters {
		i, _ := h.Kind.info()
		share := h.PowerKW / total
		if i.MJKg == 0 {
			electric += share
			continue
		}
		fuel += share * 3.6 / i.MJKg
		water += share * 3.6 / i.MJKg * i.WaterKg
	}
	return electric, fuel, water
}

// Cautions are what is said where somebody sets up heat in a tent.
func (t Tent) Cautions() []string {
	out := []string{
		"Solvent vapour and heat: no flame, glowing element or sparking switch while solvent is in the air, and air the tent before lighting again.",
		"A closed tent collects vapour and fumes: air it, wear the mask of the data sheet, never sleep in it, keep a second way out.",
	}
	if t.Unvented() {
		out = append(out,
			"A burner without a flue eats the air you breathe and gives carbon monoxide: never with people inside without a working alarm and an opening. Each kilogram burned gives over a kilogram of water, which raises the dew point.")
	}
	if len(t.Heaters) > 0 {
		out = append(out,
			"Keep heaters a metre from film and timber, on a level stand, and do not leave a flame unwatched. Local rules and the maker's manual come first.")
	}
	return out
}

// hourOf is the hour of the local day with its fraction.
func hourOf(at time.Time, loc *time.Location) float64 {
	l := at.In(loc)
	return float64(l.Hour()) + float64(l.Minute())/60
}
