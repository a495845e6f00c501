// Package product describes coatings as their data sheets do.
package product

import (
	"allcoats/core/base/message"
	"allcoats/core/physics/cure"
)

// Binder is what a product cures or dries to.
type Binder string

// Binders.
const (
	Epoxy        Binder = "epoxy"
	Polyester    Binder = "polyester"
	VinylEster   Binder = "vinylester"
	Polyurethane Binder = "polyurethane"
	Alkyd        Binder = "alkyd"
	Acrylic      Binder = "acrylic"
	Oil          Binder = "oil"
	Vinyl        Binder = "vinyl"
	Rosin        Binder = "rosin"
	Silicone     Binder = "silicone"
)

// Binders lists the binders.
var Binders = []Binder{"", Epoxy, Polyester, VinylEster, Polyurethane, Alkyd, Acrylic, Oil, Vinyl, Rosin, Silicone}

// Film is a range of dry film thickness for one coat, µm.
type Film struct {
	MinUm     float64 `json:"minUm"`
	TypicalUm float64 `json:"typicalUm"`
	MaxUm     float64 `json:"maxUm"`
}

// Ratio is parts of base to parts of hardener. Zero means one-part.
type Ratio struct {
	Base     float64 `json:"base"`
	Hardener float64 `json:"hardener"`
}

// Corner is a corner of a printed temperature × humidity field.
type Corner struct {
	TempC float64 `json:"tempC"`
	RHPct float64 `json:"rhPct"`
}

// Limits is the field in which the product may be applied and held. A nil
// limit is one that the sheet does not set.
type Limits struct {
	AirMinC     *float64 `json:"airMinC,omitempty"`
	AirMaxC     *float64 `json:"airMaxC,omitempty"`
	SurfaceMinC *float64 `json:"surfaceMinC,omitempty"`
	SurfaceMaxC *float64 `json:"surfaceMaxC,omitempty"`
	RHMaxPct    *float64 `json:"rhMaxPct,omitempty"`
	// SpreadMinK is the least surface temperature above the dew point; ISO
	// 8502-4 asks for 3 K and that is used if the sheet is silent.
	SpreadMinK *float64 `json:"spreadMinK,omitempty"`
	// WindMaxMS holds while spraying.
	WindMaxMS *float64 `json:"windMaxMS,omitempty"`
	// Polygon, if given, must contain air temperature and humidity.
	Polygon []Corner `json:"polygon,omitempty"`
	// HoldH is how long temperature, humidity and spread must hold after
	// application, RainFreeH how long it must stay dry.
	HoldH     float64 `json:"holdH"`
	RainFreeH float64 `json:"rainFreeH"`
}

// Recoat is the overcoating window by what goes over it. Over is a Kind or
// "any". An empty Max with NeverCloses means that no maximum is stated.
type Recoat struct {
	Over        Kind       `json:"over"`
	Min         cure.Table `json:"min"`
	Max         cure.Table `json:"max,omitempty"`
	NeverCloses bool       `json:"neverCloses,omitempty"`
}

// Parts of a two-part product that are sold alone.
const (
	BasePart     = "base"
	HardenerPart = "hardener"
)

// Tin is a pack as sold: litres of mixed product, or of one part alone; price
// in cents of the user's currency (0: not known).
type Tin struct {
	Name       string  `json:"name"`
	Litres     float64 `json:"litres"`
	PriceCents int     `json:"priceCents"`
	Part       string  `json:"part,omitempty" enum:",base,hardener"`
	// Supplier and PartNo are who sells it and under which number, if known.
	Supplier string `json:"supplier,omitempty"`
	PartNo   string `json:"partNo,omitempty"`
}

// MaxTins is the most sizes that a sheet may list.
const MaxTins = 40

// Grade is a hardener with limits and tables of its own. A table that it leaves out is
// not known for it: the standard one's does not stand in.
type Grade struct {
	Name     string  `json:"name"`
	MinCureC float64 `json:"minCureC"`
	// AirMinC and SurfaceMinC are the least temperatures of its field; without them
	// MinCureC counts.
	AirMinC     *float64   `json:"airMinC,omitempty"`
	SurfaceMinC *float64   `json:"surfaceMinC,omitempty"`
	PotLife     cure.Table `json:"potLife,omitempty"`
	TouchDry    cure.Table `json:"touchDry,omitempty"`
	TackFree    cure.Table `json:"tackFree,omitempty"`
	Sandable    cure.Table `json:"sandable,omitempty"`
	ThroughDry  cure.Table `json:"throughDry,omitempty"`
	Immersion   cure.Table `json:"immersion,omitempty"`
	Recoat      []Recoat   `json:"recoat,omitempty"`
}

// Dose is the catalyst at a temperature, per cent by weight of the resin.
type Dose struct {
	TempC float64 `json:"tempC"`
	Pct   float64 `json:"pct"`
}

// Sheet is a product's data sheet.
type Sheet struct {
	Name      string `json:"name"`
	Kind      Kind   `json:"kind"`
	Chemistry string `json:"chemistry"`
	// Binder is the chemistry as the rules of compatibility know it.
	Binder Binder `json:"binder,omitempty"`
	Colour string `json:"colour"`
	// Example marks invented figures, to be replaced by the data sheet of the
	// tin in hand.
	Example bool   `json:"example"`
	Source  string `json:"source"`
	Edition string `json:"edition,omitempty"`
	// SheetDate is a day such as 2026-02-01, or empty.
	SheetDate string `json:"sheetDate,omitempty"`

	// HidingUm is the dry film of this colour that hides a contrast, 0 if not
	// stated or clear.
	HidingUm float64 `json:"hidingUm,omitempty"`
	// SagUprightUm and SagOverheadUm are the wet films above which it sags, 0 if
	// not stated.
	SagUprightUm  float64 `json:"sagUprightUm,omitempty"`
	SagOverheadUm float64 `json:"sagOverheadUm,omitempty"`
	// ShrinkagePct and MaxPassMM are of fillers.
	ShrinkagePct float64 `json:"shrinkagePct,omitempty"`
	MaxPassMM    float64 `json:"maxPassMM,omitempty"`
	// LossPct overrides the usual loss of a method, by its key.
	LossPct map[string]float64 `json:"lossPct,omitempty"`
	// Grades are further hardeners; Doses the catalyst by temperature.
	Grades      []Grade `json:"grades,omitempty"`
	Doses       []Dose  `json:"doses,omitempty"`
	ThinnerName string  `json:"thinnerName,omitempty"`
	CleanerName string  `json:"cleanerName,omitempty"`
	ToolsSuit   string  `json:"toolsSuit,omitempty"`
	ToolsSpoil  string  `json:"toolsSpoil,omitempty"`
	// Humidity bears on waterborne and moisture-cured products only.
	Humidity cure.Humidity `json:"humidity,omitempty" enum:",waterborne,moisture-cured"`
	// StrongSolvent lifts one-part coatings below it. Copper is in it as metal
	// or oxide, Zinc as the metal that goes before steel does. Blushes: amine
	// comes out on the surface while it cures. Porous films drink and must be
	// sealed. AirInhibited surfaces stay tacky without wax or a film over them;
	// Waxed holds the wax.
	StrongSolvent bool `json:"strongSolvent,omitempty"`
	Copper        bool `json:"copper,omitempty"`
	Zinc          bool `json:"zinc,omitempty"`
	Blushes       bool `json:"blushes,omitempty"`
	Porous        bool `json:"porous,omitempty"`
	AirInhibited  bool `json:"airInhibited,omitempty"`
	Waxed         bool `json:"waxed,omitempty"`
	// NoSolventWipe: the sheet forbids wiping it with solvent.
	NoSolventWipe bool `json:"noSolventWipe,omitempty"`
	// NeedsCover: sun harms it, it must be covered. Underwater: it may stand
	// under water for good.
	NeedsCover bool `json:"needsCover,omitempty"`
	Underwater bool `json:"underwater,omitempty"`
	// UVPerUm is the absorbance of a micrometre of dry film for ultraviolet
	// light (base e), of clear coats.
	UVPerUm float64 `json:"uvPerUm,omitempty"`
	// Decks is made for decks, soles and bilges: it is trodden on.
	Decks bool `json:"decks,omitempty"`
	// LeastTotalUm is the total film that it protects from, such as a barrier's.
	LeastTotalUm float64 `json:"leastTotalUm,omitempty"`
	// LaunchMaxH is the longest time out of the water after the last coat, 0
	// without limit.
	LaunchMaxH float64 `json:"launchMaxH,omitempty"`
	// PolishUmYear is the film that wears away in a year afloat, PolishUm1000NM
	// what goes for each 1000 nautical miles.
	PolishUmYear    float64 `json:"polishUmYear,omitempty"`
	PolishUm1000NM  float64 `json:"polishUm1000NM,omitempty"`
	ShelfLifeMonths float64 `json:"shelfLifeMonths,omitempty"`
	// PotMassKg is the mass that the pot life is for, 0 if not stated.
	PotMassKg float64 `json:"potMassKg,omitempty"`

	// VolumeSolidsPct is the share of the mixed product that stays as film
	// (ISO 3233).
	VolumeSolidsPct float64  `json:"volumeSolidsPct"`
	Film            Film     `json:"film"`
	RatioByVolume   Ratio    `json:"ratioByVolume"`
	RatioByWeight   Ratio    `json:"ratioByWeight"`
	BaseKgL         float64  `json:"baseKgL"`
	HardenerKgL     float64  `json:"hardenerKgL"`
	InductionMin    float64  `json:"inductionMin"`
	ThinnerMaxPct   float64  `json:"thinnerMaxPct"`
	Methods         []string `json:"methods"`

	// MinCureC is the temperature below which it does not cure.
	MinCureC float64 `json:"minCureC"`
	Limits   Limits  `json:"limits"`

	// OnePointTables accepts tables of one point with cure.GuessedEnergy.
	OnePointTables bool       `json:"onePointTables,omitempty"`
	PotLife        cure.Table `json:"potLife,omitempty"`
	TouchDry       cure.Table `json:"touchDry,omitempty"`
	TackFree       cure.Table `json:"tackFree,omitempty"`
	Sandable       cure.Table `json:"sandable,omitempty"`
	ThroughDry     cure.Table `json:"throughDry,omitempty"`
	Immersion      cure.Table `json:"immersion,omitempty"`
	Recoat         []Recoat   `json:"recoat,omitempty"`

	Tins     []Tin    `json:"tins"`
	Cautions []string `json:"cautions"`
	Notes    string   `json:"notes"`
	// SlowerBy is by how much its least times were made longer, 0 as printed.
	SlowerBy float64 `json:"-"`
}

// RecoatOver returns the window for a coat of kind over this product, and
// whether the sheet has one.
func (s Sheet) RecoatOver(kind Kind) (Recoat, bool) {
	for _, want := range []Kind{kind, AnyKind} {
		for _, r := range s.Recoat {
			if r.Over == want {
				return r, true
			}
		}
	}
	return Recoat{}, false
}

// IsCoat reports whether the product leaves a film.
func (s Sheet) IsCoat() bool { return s.Kind.Info().Coat }

// BaseShare is the share of base in the mixed volume, 1 for a one-part product and
// for one that is catalysed by dose: its hardener is the catalyst, poured once. A
// ratio by weight alone is turned by the densities.
func (s Sheet) BaseShare() float64 {
	if len(s.Doses) > 0 {
		return 1
	}
	r := s.RatioByVolume
	if r == (Ratio{}) && s.BaseKgL > 0 && s.HardenerKgL > 0 {
		r = Ratio{s.RatioByWeight.Base / s.BaseKgL, s.RatioByWeight.Hardener / s.HardenerKgL}
	}
	if r.Base <= 0 {
		return 1
	}
	return r.Base / (r.Base + r.Hardener)
}

// Isocyanate reports a product whose hardener, or the product itself, holds isocyanate: a
// polyurethane of two parts, or one that cures with the moisture of the air.
func (s Sheet) Isocyanate() bool {
	return s.Binder == Polyurethane && (s.BaseShare() < 1 || s.Humidity == cure.MoistureCured)
}

// openPores is the share of an open, porous filler that takes up water: a rule of thumb.
const openPores = 0.05

// SoakMM is the water that a film of um µm takes up, mm or kg/m²; 0 if it is not porous.
func (s Sheet) SoakMM(um float64) float64 {
	if !s.Porous {
		return 0
	}
	return openPores * um / 1000
}

// SpreadMinK returns the dew-point spread asked for, 3 K if the sheet is silent.
func (l Limits) SpreadK() float64 {
	if l.SpreadMinK == nil {
		return 3
	}
	return *l.SpreadMinK
}

// With returns the sheet with the limits and tables of a hardener grade; the standard
// one has no name.
func (s Sheet) With(grade string) (Sheet, bool) {
	if grade == "" {
		return s, true
	}
	for _, g := range s.Grades {
		if g.Name != grade {
			continue
		}
		s.MinCureC, s.Limits = g.MinCureC, s.Limits.with(g)
		s.PotLife, s.TouchDry, s.TackFree, s.Sandable = g.PotLife, g.TouchDry, g.TackFree, g.Sandable
		s.ThroughDry, s.Immersion, s.Recoat = g.ThroughDry, g.Immersion, g.Recoat
		return s, true
	}
	return s, false
}

// with are the limits with a grade: its least temperatures, and of a printed field,
// which is the standard hardener's, only the humidity.
func (l Limits) with(g Grade) Limits {
	least := func(own *float64) *float64 {
		if own != nil {
			return own
		}
		return &g.MinCureC
	}
	l.AirMinC, l.SurfaceMinC = least(g.AirMinC), least(g.SurfaceMinC)
	if len(l.Polygon) > 0 {
		most := 0.0
		for _, c := range l.Polygon {
			most = max(most, c.RHPct)
		}
		if l.RHMaxPct == nil {
			l.RHMaxPct = &most
		}
		l.Polygon = nil
	}
	return l
}

// DosePct returns the catalyst at tempC, straight between the sheet's points and
// held beyond them; ok is false without a table.
func (s Sheet) DosePct(tempC float64) (pct float64, ok bool) {
	d := s.Doses
	if len(d) == 0 {
		return 0, false
	}
	if tempC <= d[0].TempC {
		return d[0].Pct, true
	}
	for i := 1; i < len(d); i++ {
		if tempC <= d[i].TempC {
			return d[i-1].Pct + (tempC-d[i-1].TempC)/(d[i].TempC-d[i-1].TempC)*(d[i].Pct-d[i-1].Pct), true
		}
	}
	return d[len(d)-1].Pct, true
}

// Doubts are figures that are possible but seldom right: minimum times that are the
// same as it gets warmer. The user is asked, not refused.
func (s Sheet) Doubts() []message.Sentence {
	out := []message.Sentence{}
	check := func(name string, t cure.Table) {
		for i := 1; i < len(t); i++ {
			if t[i].Hours == t[i-1].Hours {
				out = append(out, message.Of(
					"%s: %g h at %g °C is not shorter than %g h at %g °C. Is it so on the sheet?", name, t[i].Hours,
					t[i].TempC, t[i-1].Hours, t[i-1].TempC))
			}
		}
	}
	for _, t := range s.tables() {
		check(t.path, t.table)
	}
	for _, r := range s.Recoat {
		check("recoat minimum over "+r.Over.Name(), r.Min) // a maximum may be the same at all temperatures
	}
	return out
}
