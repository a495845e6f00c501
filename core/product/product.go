// Package product describes coatings as their data sheets do.
package product

import (
	"fmt"

	"allcoats/core/cure"
	"allcoats/core/fault"
)

// Kind is what a product is for.
type Kind string

// The kinds of product that boats are refinished with.
const (
	Fairing      Kind = "fairing-compound"
	TieCoat      Kind = "tie-coat"
	Barrier      Kind = "barrier"
	MetalPrimer  Kind = "metal-primer"
	HighBuild    Kind = "high-build-primer"
	Undercoat    Kind = "undercoat"
	TopcoatOne   Kind = "topcoat-one-part"
	TopcoatTwo   Kind = "topcoat-two-part"
	Gelcoat      Kind = "gelcoat"
	WoodSealer   Kind = "wood-sealer"
	Varnish      Kind = "varnish"
	NonSkidPaint Kind = "non-skid-paint"
	NonSkidGrit  Kind = "non-skid-grit"
	SoftAntifoul Kind = "antifouling-soft"
	HardAntifoul Kind = "antifouling-hard"
	Thinner      Kind = "thinner"
)

// KindName is a kind with its name in words.
type KindName struct {
	Kind Kind   `json:"kind"`
	Name string `json:"name"`
}

// Kinds lists every kind in the order of the work.
var Kinds = []KindName{
	{Fairing, "fairing compound"}, {TieCoat, "tie coat"}, {Barrier, "barrier coat"}, {MetalPrimer, "metal primer"},
	{HighBuild, "high-build primer"}, {Undercoat, "undercoat"}, {TopcoatOne, "one-part topcoat"},
	{TopcoatTwo, "two-part topcoat"}, {Gelcoat, "gelcoat"}, {WoodSealer, "wood sealer"}, {Varnish, "varnish"},
	{NonSkidPaint, "textured non-skid"}, {NonSkidGrit, "broadcast grit system"},
	{SoftAntifoul, "soft antifouling"}, {HardAntifoul, "hard antifouling"}, {Thinner, "thinner"},
}

// Name returns the kind in words.
func (k Kind) Name() string {
	for _, n := range Kinds {
		if n.Kind == k {
			return n.Name
		}
	}
	return string(k)
}

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

// AnyKind is the Over of a window that holds for every kind not listed.
const AnyKind Kind = "any"

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
}

// Sheet is a product's data sheet.
type Sheet struct {
	Name      string `json:"name"`
	Kind      Kind   `json:"kind"`
	Chemistry string `json:"chemistry"`
	Colour    string `json:"colour"`
	// Example marks invented figures, to be replaced by the data sheet of the
	// tin in hand.
	Example bool   `json:"example"`
	Source  string `json:"source"`

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
func (s Sheet) IsCoat() bool { return s.Kind != Thinner }

// BaseShare is the share of base in the mixed volume, 1 for a one-part product.
// A ratio by weight alone is turned by the densities.
func (s Sheet) BaseShare() float64 {
	r := s.RatioByVolume
	if r == (Ratio{}) && s.BaseKgL > 0 && s.HardenerKgL > 0 {
		r = Ratio{s.RatioByWeight.Base / s.BaseKgL, s.RatioByWeight.Hardener / s.HardenerKgL}
	}
	if r.Base <= 0 {
		return 1
	}
	return r.Base / (r.Base + r.Hardener)
}

// SpreadMinK returns the dew-point spread asked for, 3 K if the sheet is silent.
func (l Limits) SpreadK() float64 {
	if l.SpreadMinK == nil {
		return 3
	}
	return *l.SpreadMinK
}

// Validate reports every impossible or contradictory figure with its path in
// the sheet's JSON.
func (s Sheet) Validate() error {
	var bad fault.Errors
	if s.Name == "" {
		bad.Add("name", "give the product a name")
	}
	kinds := make([]Kind, len(Kinds))
	for i, k := range Kinds {
		kinds[i] = k.Kind
	}
	fault.OneOf(&bad, "kind", s.Kind, kinds)
	if s.IsCoat() {
		bad.Above("volumeSolidsPct", s.VolumeSolidsPct, 0, 100, "%")
		bad.Above("film.typicalUm", s.Film.TypicalUm, 0, 50e3, "µm")
		if s.Film.MinUm <= 0 || s.Film.MinUm > s.Film.TypicalUm {
			bad.Add("film.minUm", "must be more than 0 and not more than the typical film")
		}
		if s.Film.MaxUm < s.Film.TypicalUm {
			bad.Add("film.maxUm", "must not be less than the typical film")
		}
		bad.Range("minCureC", s.MinCureC, -30, 40, "°C")
	}
	s.RatioByVolume.validate(&bad, "ratioByVolume")
	s.RatioByWeight.validate(&bad, "ratioByWeight")
	bad.Range("baseKgL", s.BaseKgL, 0, 5, "kg/L")
	bad.Range("hardenerKgL", s.HardenerKgL, 0, 5, "kg/L")
	bad.Range("inductionMin", s.InductionMin, 0, 240, "min")
	bad.Range("thinnerMaxPct", s.ThinnerMaxPct, 0, 50, "%")
	bad.Under("limits", s.Limits.Validate())
	for _, t := range s.tables() {
		bad.Under(t.path, t.table.Validate(s.OnePointTables))
	}
	for i, r := range s.Recoat {
		path := fmt.Sprintf("recoat[%d]", i)
		fault.OneOf(&bad, path+".over", r.Over, append(kinds, AnyKind))
		bad.Under(path, r.Validate(s.OnePointTables))
	}
	for i, t := range s.Tins {
		bad.Above(fmt.Sprintf("tins[%d].litres", i), t.Litres, 0, 1000, "L")
		bad.Range(fmt.Sprintf("tins[%d].priceCents", i), float64(t.PriceCents), 0, 1e8, "cents")
		if t.Part != "" && s.BaseShare() == 1 {
			bad.Add(fmt.Sprintf("tins[%d].part", i), "a one-part product has no parts to be sold alone")
		}
	}
	return bad.Err()
}

type namedTable struct {
	path  string
	table cure.Table
}

func (s Sheet) tables() []namedTable {
	return []namedTable{
		{"potLife", s.PotLife}, {"touchDry", s.TouchDry}, {"tackFree", s.TackFree},
		{"sandable", s.Sandable}, {"throughDry", s.ThroughDry}, {"immersion", s.Immersion},
	}
}

func (r Ratio) validate(bad *fault.Errors, path string) {
	if r == (Ratio{}) {
		return
	}
	bad.Above(path+".base", r.Base, 0, 1000, "parts")
	bad.Above(path+".hardener", r.Hardener, 0, 1000, "parts")
}

// Validate reports crossed or impossible limits.
func (l Limits) Validate() error {
	var bad fault.Errors
	between := func(path string, v *float64, lo, hi float64, unit string) {
		if v != nil {
			bad.Range(path, *v, lo, hi, unit)
		}
	}
	between("airMinC", l.AirMinC, -30, 60, "°C")
	between("airMaxC", l.AirMaxC, -30, 60, "°C")
	between("surfaceMinC", l.SurfaceMinC, -30, 90, "°C")
	between("surfaceMaxC", l.SurfaceMaxC, -30, 90, "°C")
	between("rhMaxPct", l.RHMaxPct, 1, 100, "%")
	between("spreadMinK", l.SpreadMinK, 0, 20, "K")
	between("windMaxMS", l.WindMaxMS, 0, 40, "m/s")
	bad.Range("holdH", l.HoldH, 0, 720, "h")
	bad.Range("rainFreeH", l.RainFreeH, 0, 720, "h")
	crossed := func(path string, lo, hi *float64) {
		if lo != nil && hi != nil && *lo >= *hi {
			bad.Add(path, "the maximum must be above the minimum")
		}
	}
	crossed("airMaxC", l.AirMinC, l.AirMaxC)
	crossed("surfaceMaxC", l.SurfaceMinC, l.SurfaceMaxC)
	if n := len(l.Polygon); n > 0 && n < 3 {
		bad.Add("polygon", "a field needs at least three corners")
	}
	for i, c := range l.Polygon {
		bad.Range(fmt.Sprintf("polygon[%d].tempC", i), c.TempC, -30, 60, "°C")
		bad.Range(fmt.Sprintf("polygon[%d].rhPct", i), c.RHPct, 0, 100, "%")
	}
	return bad.Err()
}

// Validate reports bad tables, a missing minimum, a maximum that is neither
// given nor denied, and temperatures at which the maximum is not above the
// minimum.
func (r Recoat) Validate(guess bool) error {
	var bad fault.Errors
	if len(r.Min) == 0 {
		bad.Add("min", "give the minimum interval at two or more temperatures")
	}
	bad.Under("min", r.Min.Validate(guess))
	bad.Under("max", r.Max.Validate(guess))
	if len(r.Max) == 0 && !r.NeverCloses {
		bad.Add("max", "give the maximum interval, or say that there is none")
	}
	if bad.Err() != nil || len(r.Max) == 0 {
		return bad.Err()
	}
	for i, p := range r.Max {
		if lo, _ := r.Min.TauH(p.TempC, cure.Minimum); lo >= p.Hours {
			bad.Add(fmt.Sprintf("max[%d].hours", i), "must be more than the minimum at %g °C, %.3g h", p.TempC, lo)
		}
	}
	return bad.Err()
}
