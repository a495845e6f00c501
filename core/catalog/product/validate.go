package product

import (
	"fmt"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/cure"
)

// Validate reports every impossible or contradictory figure with its path in
// the sheet's JSON.
func (s Sheet) Validate() error {
	var bad fielderr.Errors
	if s.Name == "" {
		bad.Add("name", "give the product a name")
	}
	kinds := make([]Kind, len(Kinds))
	for i, k := range Kinds {
		kinds[i] = k.Kind
	}
	fielderr.OneOf(&bad, "kind", s.Kind, kinds)
	if s.IsCoat() {
		bad.Pct("volumeSolidsPct", s.VolumeSolidsPct)
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
		fielderr.OneOf(&bad, path+".over", r.Over, append(kinds, AnyKind))
		bad.Under(path, r.Validate(s.OnePointTables))
	}
	s.validateMore(&bad)
	if bad.Err() == nil {
		s.together(&bad)
	}
	if len(s.Tins) > MaxTins {
		bad.Add("tins", "at most %d sizes are taken", MaxTins)
	}
	for i, t := range s.Tins {
		bad.Above(fmt.Sprintf("tins[%d].litres", i), t.Litres, 0, 1000, "L")
		bad.Range(fmt.Sprintf("tins[%d].priceCents", i), float64(t.PriceCents), 0, 1e8, "cents")
		for field, text := range map[string]string{"supplier": t.Supplier, "partNo": t.PartNo} {
			if len(text) > 80 || strings.ContainsAny(text, ";[]") {
				bad.Add(fmt.Sprintf("tins[%d].%s", i, field), "at most 80 letters, without ; [ and ]")
			}
		}
		if t.Part != "" && s.BaseShare() == 1 {
			bad.Add(fmt.Sprintf("tins[%d].part", i), "a one-part product has no parts to be sold alone")
		}
	}
	return bad.Err()
}

func (s Sheet) validateMore(bad *fielderr.Errors) {
	fielderr.OneOf(bad, "binder", s.Binder, Binders)
	fielderr.OneOf(bad, "humidity", s.Humidity, []cure.Humidity{cure.Indifferent, cure.Waterborne, cure.MoistureCured})
	if _, err := time.Parse(time.DateOnly, s.SheetDate); err != nil && s.SheetDate != "" {
		bad.Add("sheetDate", "%q is not a day such as 2026-02-01", s.SheetDate)
	}
	for _, f := range []struct {
		path string
		v    float64
		hi   float64
		unit string
	}{
		{"hidingUm", s.HidingUm, 2000, "µm"}, {"sagUprightUm", s.SagUprightUm, 50e3, "µm"},
		{"sagOverheadUm", s.SagOverheadUm, 50e3, "µm"},
		{"shrinkagePct", s.ShrinkagePct, 60, "%"}, {"maxPassMM", s.MaxPassMM, 100, "mm"},
		{"uvPerUm", s.UVPerUm, 1, "per µm"},
		{"leastTotalUm", s.LeastTotalUm, 10e3, "µm"}, {"launchMaxH", s.LaunchMaxH, 20000, "h"},
		{"polishUmYear", s.PolishUmYear, 2000, "µm"},
		{"polishUm1000NM", s.PolishUm1000NM, 2000, "µm"}, {"shelfLifeMonths", s.ShelfLifeMonths, 240, "months"},
		{"potMassKg", s.PotMassKg, 50, "kg"},
	} {
		bad.Range(f.path, f.v, 0, f.hi, f.unit)
	}
	for key, v := range s.LossPct {
		bad.Range("lossPct."+key, v, 0, 90, "%")
	}
	for i, d := range s.Doses {
		path := fmt.Sprintf("doses[%d]", i)
		bad.Range(path+".tempC", d.TempC, -10, 50, "°C")
		bad.Above(path+".pct", d.Pct, 0, 10, "%")
		if i > 0 && d.TempC <= s.Doses[i-1].TempC {
			bad.Add(path+".tempC", "temperatures must rise")
		}
	}
	for _, r := range []struct {
		path  string
		ratio Ratio
	}{{"ratioByVolume", s.RatioByVolume}, {"ratioByWeight", s.RatioByWeight}} {
		if len(s.Doses) > 0 && r.ratio != (Ratio{}) {
			bad.Add(r.path,
				"give the catalyst as a dose by temperature or as a ratio, not as both: it would be poured twice")
		}
	}
	for i, g := range s.Grades {
		path := fmt.Sprintf("grades[%d]", i)
		if g.Name == "" {
			bad.Add(path+".name", "give the hardener a name")
		}
		bad.Range(path+".minCureC", g.MinCureC, -30, 40, "°C")
		for k, v := range map[string]*float64{"airMinC": g.AirMinC, "surfaceMinC": g.SurfaceMinC} {
			if v != nil {
				bad.Range(path+"."+k, *v, -30, 60, "°C")
			}
		}
		for _, t := range g.tables() {
			bad.Under(path+"."+t.path, t.table.Validate(s.OnePointTables))
		}
		for k, r := range g.Recoat {
			bad.Under(fmt.Sprintf("%s.recoat[%d]", path, k), r.Validate(s.OnePointTables))
		}
	}
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

func (g Grade) tables() []namedTable {
	return []namedTable{
		{"potLife", g.PotLife}, {"touchDry", g.TouchDry}, {"tackFree", g.TackFree},
		{"sandable", g.Sandable}, {"throughDry", g.ThroughDry}, {"immersion", g.Immersion},
	}
}

func (r Ratio) validate(bad *fielderr.Errors, path string) {
	if r == (Ratio{}) {
		return
	}
	bad.Above(path+".base", r.Base, 0, 1000, "parts")
	bad.Above(path+".hardener", r.Hardener, 0, 1000, "parts")
}

// Validate reports crossed or impossible limits.
func (l Limits) Validate() error {
	var bad fielderr.Errors
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
	if a, b, crossed := Crossing(l.Polygon); crossed {
		bad.Add("polygon",
			"the side from corner %d crosses the side from corner %d: enter the corners in order round the field", a+1,
			b+1)
	} else if len(l.Polygon) >= 3 && fieldArea(l.Polygon) == 0 {
		bad.Add("polygon", "the corners lie on one line, the field is empty")
	}
	return bad.Err()
}

// Validate reports bad tables, a missing minimum, a maximum that is neither
// given nor denied, and temperatures at which the maximum is not above the
// minimum.
func (r Recoat) Validate(guess bool) error {
	var bad fielderr.Errors
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
