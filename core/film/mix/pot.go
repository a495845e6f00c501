package mix

import (
	"fmt"
	"math"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
)

// PotRequest is a pot to be mixed. Litres are of the mixed product before thinner
// and filler. Strokes are counted with PumpBaseML and PumpHardenerML a stroke, mL.
// TempC is for the catalyst, CatalystKgL 0 is usualCatalystKgL.
type PotRequest struct {
	Sheet          product.Sheet
	Litres         float64
	ThinnerPct     float64
	TareG          float64
	TempC          float64
	CatalystKgL    float64
	Filler         string
	Stiffness      Stiffness
	PumpBaseML     float64
	PumpHardenerML float64
}

// Target is one thing to pour: how much, what the scale then shows with the pot on
// it, and the mark that it comes to in a graduated cup. Weights are missing without
// a density.
type Target struct {
	What    string   `json:"what"`
	Part    string   `json:"part"` // base · hardener · catalyst · thinner · filler
	AddG    *float64 `json:"addG,omitempty"`
	ScaleG  *float64 `json:"scaleG,omitempty"`
	AddML   float64  `json:"addML"`
	MarkML  float64  `json:"markML"`
	Strokes *float64 `json:"strokes,omitempty"`
}

// Pot is what to pour, in this order. PotL is its volume, PotG its weight, 0 if a
// density is missing. CuredKgL and Sanding are of a filled mix.
type Pot struct {
	Targets  []Target        `json:"targets"`
	PotL     float64         `json:"potL"`
	PotG     float64         `json:"potG"`
	CuredKgL float64         `json:"curedKgL"`
	Sanding  string          `json:"sanding"`
	Working  working.Working `json:"working"`
}

// usualCatalystKgL is the density of peroxide catalysts, kg/L: they lie between
// 1.10 and 1.18.
const usualCatalystKgL = 1.15

// usualThinnerKgL is the density of thinners, kg/L: a rule of thumb.
const usualThinnerKgL = 0.87

// check names the impossible fields.
func (r PotRequest) check() error {
	var bad fielderr.Errors
	bad.Above("litres", r.Litres, 0, 200, "L")
	bad.Range("thinnerPct", r.ThinnerPct, 0, max(50, r.Sheet.ThinnerMaxPct), "%")
	bad.Range("tareG", r.TareG, 0, 50e3, "g")
	bad.Range("pumpBaseML", r.PumpBaseML, 0, 1000, "mL")
	bad.Range("pumpHardenerML", r.PumpHardenerML, 0, 1000, "mL")
	_, filled := FillerByKey(r.Filler)
	if r.Filler != "" && !filled {
		bad.Add("filler", "is no filler")
	}
	if filled {
		fielderr.OneOf(&bad, "stiffness", r.Stiffness, Stiffnesses)
	}
	return bad.Err()
}

// Fill returns what to pour for r.
func Fill(r PotRequest) (Pot, error) {
	s := r.Sheet
	filler, filled := FillerByKey(r.Filler)
	if err := r.check(); err != nil {
		return Pot{}, err
	}
	out := Pot{Targets: []Target{}, Working: working.New()}
	w := &out.Working
	w.In("Mixed product", r.Litres, "L")
	scale, weighed := r.TareG, true
	add := func(what, part string, litres, kgL, strokeML float64) {
		out.PotL += litres
		t := Target{What: what, Part: part, AddML: 1000 * litres, MarkML: 1000 * out.PotL}
		if kgL > 0 {
			g := 1000 * litres * kgL
			t.AddG = &g
			scale += g
			out.PotG += g
		}
		if weighed = weighed && kgL > 0; weighed {
			at := scale
			t.ScaleG = &at
		}
		if strokeML > 0 {
			n := 1000 * litres / strokeML
			t.Strokes = &n
		}
		out.Targets = append(out.Targets, t)
		w.Step(what, "its share of the mix", 1000*litres, "mL", "the sheet's ratio")
	}
	share := s.BaseShare()
	w.In("Share of the base by volume", 100*share, "%")
	add(baseName(s), product.BasePart, r.Litres*share, s.BaseKgL, r.PumpBaseML)
	if share < 1 {
		add("hardener", product.HardenerPart, r.Litres*(1-share), s.HardenerKgL, r.PumpHardenerML)
	}
	if pct, ok := s.DosePct(r.TempC); ok && s.BaseKgL > 0 {
		kgL := r.CatalystKgL
		if kgL == 0 {
			kgL = usualCatalystKgL
		}
		w.In("At", r.TempC, "°C")
		w.Step("Catalyst", "by weight of the resin, straight between the sheet's temperatures", pct, "%", "data sheet")
		add(fmt.Sprintf("catalyst, %.2g %%", pct), "catalyst", r.Litres*s.BaseKgL*pct/100/kgL, kgL, 0)
		if lo, hi := s.Doses[0].TempC, s.Doses[len(s.Doses)-1].TempC; r.TempC < lo || r.TempC > hi {
			w.Warn("The sheet doses from %g °C to %g °C: at %.0f °C it says nothing.", lo, hi, r.TempC)
		}
	}
	if r.ThinnerPct > 0 {
		name := s.ThinnerName
		if name == "" {
			name = "thinner"
		}
		add(fmt.Sprintf("%s, %.3g %%", name, r.ThinnerPct), "thinner", r.Litres*r.ThinnerPct/100, usualThinnerKgL, 0)
		if r.ThinnerPct > s.ThinnerMaxPct {
			w.Warn("The sheet allows %.3g %% thinner.", s.ThinnerMaxPct)
		}
	}
	if filled && r.Stiffness != Pourable {
		out.thicken(filler, r, scale, weighed)
	}
	return out, nil
}

// thicken adds a filler to what weighs scale with its pot, if all of that was weighed.
func (p *Pot) thicken(filler Filler, r PotRequest, scale float64, weighed bool) {
	bulk := filler.Parts[r.Stiffness] * r.Litres
	g := 1000 * bulk * filler.BulkKgL
	solid := g / 1000 / filler.TrueKgL
	resinG := p.PotG
	p.PotL += solid
	p.PotG += g
	scale += g
	t := Target{What: filler.Name, Part: "filler", AddG: &g, AddML: 1000 * bulk, MarkML: 1000 * p.PotL}
	if weighed {
		t.ScaleG = &scale
	}
	p.Targets = append(p.Targets, t)
	p.Working.Step(filler.Name, "parts by loose volume to one of resin", filler.Parts[r.Stiffness], "",
		"rule of thumb; stir in till it stands as wanted")
	if resinG > 0 {
		p.CuredKgL = p.Working.Step("Density, cured", "(resin + filler) / (their volumes, the filler without its air)",
			p.PotG/1000/p.PotL, "kg/L", "volumes add up")
	}
	p.Sanding = filler.Sanding
}

func baseName(s product.Sheet) string {
	switch {
	case s.BaseShare() < 1:
		return "base"
	case len(s.Doses) > 0:
		return "resin"
	}
	return "product"
}

// Stiffness is how a filled resin stands.
type Stiffness string

// Stiffnesses, from what pours to what stands.
const (
	Pourable     Stiffness = "pourable"
	Syrup        Stiffness = "syrup"
	Mayonnaise   Stiffness = "mayonnaise"
	PeanutButter Stiffness = "peanut butter"
	Putty        Stiffness = "putty"
)

// Stiffnesses lists them; on upright and overhead faces only the last two stay.
var Stiffnesses = []Stiffness{Pourable, Syrup, Mayonnaise, PeanutButter, Putty}

// upright is the slope in degrees from which a soft mix runs off: a rule of thumb.
const upright = 30

// Stands says which stiffness a face of so many degrees (0 level, 90 upright, 180
// overhead) wants.
func Stands(tiltDeg float64) string {
	if tiltDeg > upright {
		return "Upright or overhead: only peanut butter or putty stays on it"
	}
	return "A flat face takes any stiffness"
}

// Filler is a powder stirred into resin. Structural ones glue and fillet, the
// others fair. Parts are volumes of loose powder to one of resin; TrueKgL is the
// density of its grains. All rules of thumb.
type Filler struct {
	Key        string                `json:"key"`
	Name       string                `json:"name"`
	Structural bool                  `json:"structural"`
	Sanding    string                `json:"sanding"`
	BulkKgL    float64               `json:"bulkKgL"`
	TrueKgL    float64               `json:"trueKgL"`
	Parts      map[Stiffness]float64 `json:"parts"`
}

func parts(syrup, mayonnaise, peanut, putty float64) map[Stiffness]float64 {
	return map[Stiffness]float64{Pourable: 0, Syrup: syrup, Mayonnaise: mayonnaise, PeanutButter: peanut, Putty: putty}
}

// Fillers lists them, structural ones first.
var Fillers = []Filler{
	{"silica", "colloidal silica", true, "hard: a file rather than paper", 0.05, 2.2, parts(0.5, 1.1, 2, 2.8)},
	{"fibre", "cotton fibre", true, "hard, and it clogs", 0.18, 1.5, parts(0.35, 0.7, 1.2, 1.6)},
	{"wood", "wood flour", true, "fair", 0.25, 1.4, parts(0.4, 0.8, 1.4, 1.9)},
	{"chalk", "talc", false, "fair", 0.4, 2.75, parts(0.3, 0.6, 0.9, 1.3)},
	{"glass", "glass bubbles", false, "easy", 0.09, 0.15, parts(0.8, 1.4, 2.1, 2.8)},
	{"phenolic", "phenolic microballoons", false, "very easy", 0.1, 0.21, parts(0.9, 1.5, 2.2, 2.9)},
}

// FillerByKey returns the filler of that key.
func FillerByKey(key string) (Filler, bool) {
	i := slices.IndexFunc(Fillers, func(f Filler) bool { return f.Key == key })
	if i < 0 {
		return Filler{}, false
	}
	return Fillers[i], true
}

// Tolerance is how far the hardener may be off by weight, %, where the sheet says
// nothing: a rule of thumb for epoxies.
const Tolerance = 5.0

// Deviation is how far a pot is off its ratio: OffPct is hardener too much (+) or too
// little. AddBaseG or AddHardenerG mends it.
type Deviation struct {
	OffPct       float64 `json:"offPct"`
	TolerancePct float64 `json:"tolerancePct"`
	Within       bool    `json:"within"`
	AddBaseG     float64 `json:"addBaseG"`
	AddHardenerG float64 `json:"addHardenerG"`
	Means        string  `json:"means"`
}

// Off judges what was weighed of a two-part product; ok is false for one that has no
// ratio by weight, or is catalysed by dose.
func Off(s product.Sheet, baseG, hardenerG float64) (d Deviation, ok bool) {
	if len(s.Doses) > 0 {
		return d, false
	}
	want := 0.0 // grams of hardener to one of base
	switch r, share := s.RatioByWeight, s.BaseShare(); {
	case r.Base > 0:
		want = r.Hardener / r.Base
	case share < 1 && s.BaseKgL > 0 && s.HardenerKgL > 0:
		want = (1 - share) * s.HardenerKgL / (share * s.BaseKgL)
	}
	if want == 0 || baseG <= 0 {
		return d, false
	}
	d = Deviation{OffPct: 100 * (hardenerG/baseG/want - 1), TolerancePct: Tolerance}
	d.Within = math.Abs(d.OffPct) <= d.TolerancePct
	if d.OffPct > 0 {
		d.AddBaseG = hardenerG/want - baseG
	} else {
		d.AddHardenerG = baseG*want - hardenerG
	}
	d.Means = "it cures as the sheet says"
	switch {
	case d.Within:
	case d.OffPct > 0:
		d.Means = "too much hardener stays in as a softener and comes out as a greasy skin; it sets no faster"
	default:
		d.Means = "too little hardener leaves resin that never cures: soft, and it takes up water"
	}
	return d, true
}
