// Package gelcoat plans gelcoat on a surface: sprayed, rolled or as a thickened repair;
// its catalyst and gel time, wet passes, the seal from the air, and the way to gloss.
package gelcoat

import (
	"fmt"
	"math"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/mix"
	"allcoats/core/film/sand"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/job/application"
	"allcoats/core/physics/cure"
)

// Way is how it goes on.
type Way string

// Ways.
const (
	Spray  Way = "spray"
	Roll   Way = "roll"
	Repair Way = "repair"
)

// Seal is what keeps the air from the last coat.
type Seal string

// Seals.
const (
	Wax  Seal = "wax"
	PVA  Seal = "pva"
	Film Seal = "film"
)

// Patch is a try at the colour: what was mixed, and how it compares when cured.
type Patch struct {
	On     string `json:"on"` // a day
	Recipe string `json:"recipe"`
	Judged string `json:"judged" enum:",match,too light,too dark,too warm,too cold,not yet"`
	Note   string `json:"note"`
}

// Gouge is a place to be filled.
type Gouge struct {
	LengthMM float64 `json:"lengthMM"`
	WidthMM  float64 `json:"widthMM"`
	DepthMM  float64 `json:"depthMM"`
	Count    int     `json:"count"`
}

// Work is a gelcoat to be laid.
type Work struct {
	Way       Way     `json:"way" enum:"spray,roll,repair"`
	ProductID string  `json:"productId"`
	AreaM2    float64 `json:"areaM2"`
	FilmUm    float64 `json:"filmUm"` // wet, in all passes
	PassUm    float64 `json:"passUm"` // one wet pass
	Gouges    []Gouge `json:"gouges"`
	TempC     float64 `json:"tempC"`
	Pct       float64 `json:"pct"` // of catalyst, 0 as the sheet doses
	Seal      Seal    `json:"seal" enum:"wax,pva,film"`
	FromGrit  int     `json:"fromGrit"`
	ToGrit    int     `json:"toGrit"`
	LeastUm   float64 `json:"leastUm"` // that must be left after sanding
	Patches   []Patch `json:"patches"`
}

// Usual is a gelcoat to begin with.
func Usual(areaM2 float64) Work {
	return Work{Way: Roll, AreaM2: math.Max(0.01, areaM2), FilmUm: 600, PassUm: 300, Gouges: []Gouge{}, TempC: 20,
		Seal: Wax, FromGrit: 320, ToGrit: 1500, LeastUm: 350, Patches: []Patch{}}
}

// Rules of thumb.
const (
	proud     = 1.15 // a fill shrinks and is sanded down
	layerMM   = 3.0  // a thicker fill heats and cracks
	waxPct    = 5.0  // wax solution in the last coat
	pvaLM2    = 0.06
	potL      = 0.5 // the largest pot of gelcoat that one lays in its time
	rollUm    = 350 // what a roller leaves wet at most
	sprayUm   = 250 // a wet pass of the gun
	polishH   = 0.5 // h/m² of compound and polish
	sealDryH  = 0.5
	orangeUm  = 60 // that a rolled or sprayed face is uneven by
	repairH   = 0.3
	minPatchH = 24.0
)

// Result is how it is laid.
type Result struct {
	craft.Plan
	Passes  int              `json:"passes"`
	Litres  float64          `json:"litres"`
	Pots    int              `json:"pots"`
	Dose    mix.Dose         `json:"dose"` // of one pot
	PotL    float64          `json:"potL"`
	GelMin  float64          `json:"gelMin"`
	TackMin float64          `json:"tackMin"` // till the next pass
	SandH   float64          `json:"sandH"`   // till it can be sanded
	LeftUm  float64          `json:"leftUm"`
	Ladder  []sand.Step      `json:"ladder"`
	Comb    application.Comb `json:"comb"`
	Match   string           `json:"match"` // what the patches say
}

// Validate reports what cannot be laid.
func (w Work) Validate() error {
	var bad fielderr.Errors
	fielderr.OneOf(&bad, "way", w.Way, []Way{Spray, Roll, Repair})
	fielderr.OneOf(&bad, "seal", w.Seal, []Seal{Wax, PVA, Film})
	bad.Range("tempC", w.TempC, 0, 45, "°C")
	if w.Way == Repair {
		if len(w.Gouges) == 0 {
			bad.Add("gouges", "say what is to be filled")
		}
		for i, g := range w.Gouges {
			at := fmt.Sprintf("gouges[%d].", i)
			bad.Above(at+"lengthMM", g.LengthMM, 0, 5000, "mm")
			bad.Above(at+"widthMM", g.WidthMM, 0, 5000, "mm")
			bad.Above(at+"depthMM", g.DepthMM, 0, 30, "mm")
			bad.Range(at+"count", float64(g.Count), 1, 500, "pieces")
		}
	} else {
		bad.Above("areaM2", w.AreaM2, 0, 1000, "m²")
		bad.Range("filmUm", w.FilmUm, 200, 2000, "µm")
		bad.Range("passUm", w.PassUm, 50, 1000, "µm")
		bad.Range("leastUm", w.LeastUm, 0, 1500, "µm")
	}
	bad.Range("fromGrit", float64(w.FromGrit), 40, 3000, "grit")
	bad.Range("toGrit", float64(w.ToGrit), 40, 5000, "grit")
	if bad == nil && w.ToGrit < w.FromGrit {
		bad.Add("toGrit", "is coarser than the first")
	}
	for i, p := range w.Patches {
		if _, err := time.Parse(time.DateOnly, p.On); err != nil {
			bad.Add(fmt.Sprintf("patches[%d].on", i), "%q is not a day such as 2026-05-09", p.On)
		}
		if p.Recipe == "" {
			bad.Add(fmt.Sprintf("patches[%d].recipe", i), "say what was mixed")
		}
	}
	return bad.Err()
}

// Plan plans w with the sheet of the gelcoat on a surface of areaM2.
func (w Work) Plan(s product.Sheet, areaM2 float64) (Result, error) {
	out := Result{Plan: craft.New(
		"Peroxide: goggles before the bottle is opened; it and cobalt never meet, nor acetone. Eyewash at hand.",
		"Styrene: moving air, an organic-vapour mask; no flame."), Ladder: []sand.Step{}}
	if err := w.Validate(); err != nil {
		return out, err
	}
	wk := &out.Working
	if w.Way == Repair {
		for _, g := range w.Gouges {
			out.Litres += proud * float64(g.Count) * g.LengthMM * g.WidthMM * g.DepthMM / 1e6
			out.Passes = max(out.Passes, int(math.Ceil(g.DepthMM/layerMM)))
		}
		out.Litres = wk.Step("Thickened gelcoat", "Σ pieces · length · width · depth · 1.15", out.Litres, "L",
			"proud by 15 %: rule of thumb")
	} else {
		method, _ := film.MethodByKey(map[Way]string{Spray: "spray", Roll: "roller"}[w.Way])
		out.Passes = int(math.Ceil(w.FilmUm/w.PassUm - 1e-9))
		wk.In("Area", w.AreaM2, "m²")
		wk.In("Wet film in all", w.FilmUm, "µm")
		wk.Step("Passes", "wet film / a pass", float64(out.Passes), "", "what you set")
		out.Litres = wk.StepOf("Gelcoat", message.Of("area · wet film / (1 − %g %%)", method.LossPct),
			w.AreaM2*w.FilmUm/1000/(1-method.LossPct/100), "L", message.Lit("usual loss of the method"))
		out.Comb = application.OnComb(w.PassUm)
		if most := map[Way]float64{Spray: sprayUm, Roll: rollUm}[w.Way]; w.PassUm > most {
			out.Find(false, "A wet pass of %.0f µm runs on anything but a level face: %.0f µm is the most by %s.",
				w.PassUm, most, method.Name)
		}
	}
	out.Pots = max(1, int(math.Ceil(out.Litres/potL)))
	out.PotL = out.Litres / float64(out.Pots)
	var err error
	if out.Dose, err = mix.Catalyse(s, w.TempC, w.Pct, math.Max(1e-4, out.PotL)); err != nil {
		return out, err
	}
	out.Findings = append(out.Findings, out.Dose.Findings...)
	wk.In("At", w.TempC, "°C")
	wk.StepOf("Catalyst of a pot", message.Of("%.3g L · density · %.2g %%", out.PotL, out.Dose.Pct), out.Dose.G, "g",
		message.Lit("the sheet's table by temperature"))
	out.GelMin = wk.Step("Gels in", "the sheet's pot life, shorter for a large pot and more catalyst", 60*out.Dose.GelH,
		"min", "sheet; with mass^0.3 and the inverse of the dose: rules of thumb")
	if w.TempC < s.MinCureC {
		out.Find(true, "At %.0f °C it stays soft: the sheet asks for %.0f °C.", w.TempC, s.MinCureC)
	}
	tack, _ := s.TackFree.TauH(w.TempC, cure.Minimum)
	out.SandH, _ = s.Sandable.TauH(w.TempC, cure.Minimum)
	if math.IsInf(tack, 1) || math.IsInf(out.SandH, 1) {
		tack, out.SandH = 0, 0
	}
	out.TackMin = 60 * tack
	if err := out.gloss(w); err != nil {
		return out, err
	}
	out.steps(w, s, areaM2)
	out.Match = match(w.Patches)
	return out, nil
}

// face is the area that is worked on, m²: of repairs a hand's breadth round each.
func (w Work) face() float64 {
	if w.Way != Repair {
		return w.AreaM2
	}
	area := 0.0
	for _, g := range w.Gouges {
		area += float64(g.Count) * (g.LengthMM + 100) * (g.WidthMM + 100) / 1e6
	}
	return area
}

// gloss plans the ladder from the first grit to polish, and what film it leaves.
func (r *Result) gloss(w Work) error {
	p, err := sand.Make(sand.Request{From: w.FromGrit, To: w.ToGrit, AreaM2: w.face(), Access: 1, Wet: true,
		Next: product.Gelcoat})
	if err != nil {
		return err
	}
	r.Ladder = p.Steps
	if w.Way == Repair {
		return nil
	}
	r.LeftUm = r.Working.StepOf("Left after sanding", message.Of("wet film − %d µm of unevenness − what the grits take",
		orangeUm), w.FilmUm-orangeUm-p.RemovedUm, "µm", message.Lit("unevenness is a rule of thumb: the gauge tells"))
	if r.LeftUm < w.LeastUm {
		r.Find(true,
			"Sanded flat only %.0f µm are left and %.0f µm must stay: lay another pass, or begin with a finer grit.",
			math.Max(0, r.LeftUm), w.LeastUm)
	}
	return nil
}

// where is the part of the surface that it is laid on, nil all of areaM2.
func (w Work) where(areaM2 float64) *step.Where {
	if w.Way == Repair {
		out := &step.Where{Name: "gouges"}
		for i, g := range w.Gouges {
			out.Patches = append(out.Patches, step.Patch{Name: fmt.Sprintf("%d × %.0f mm deep, %d", g.Count, g.DepthMM,
				i+1), AreaM2: float64(g.Count) * g.LengthMM * g.WidthMM / 1e6})
		}
		return out
	}
	return craft.Part("gelcoat", w.AreaM2, areaM2)
}

func (r *Result) steps(w Work, s product.Sheet, areaM2 float64) {
	where := w.where(areaM2)
	m, _ := film.MethodByKey(map[Way]string{Spray: "spray", Roll: "roller", Repair: "blade"}[w.Way])
	face := w.face()
	laid := where.AreaM2(areaM2)
	um := r.Litres * (1 - m.LossPct/100) * 10 * s.VolumeSolidsPct / math.Max(1e-6, laid) / float64(max(1, r.Passes))
	gap := float64(r.Passes-1) * r.TackMin / 60
	if w.Way == Repair {
		r.Do(craft.Work("key", "open and key",
			message.Of("to sound material with a V, feather with 80, wipe with acetone and let it go off"),
			repairH*float64(len(w.Gouges)), 0).With(80, 0).At(where))
		fill := craft.Coats("fill", "main", r.Passes, um, m, repairH,
			message.Of(
				"silica until it stands, colour first; press it in, no air; at most 3 mm a layer, the last one proud")).At(where).Of(r.Litres*1000, "mL")
		fill.Work = step.Fill
		r.Do(fill)
	} else {
		how := message.Of("in one direction, the next pass across it, while the last still takes a print")
		if w.Way == Spray {
			how = message.Of(
				"wet passes without stopping, 400 mm off, a large nozzle; thin only with what the sheet names")
		}
		rate := map[Way]float64{Spray: 20, Roll: 8}[w.Way]
		r.Do(craft.Work("key", "key and clean",
			message.Of("80 to 120, dust off, acetone and let it go off: gelcoat holds on by the key"), w.AreaM2/6,
			0).With(120, 20).At(where))
		r.Do(craft.Coats("passes", "main", r.Passes, um, m, w.AreaM2/rate, message.Of("%.0f µm wet each, %v", w.PassUm,
			how)).At(where).Of(r.Litres, "L"))
	}
	wait := r.SandH
	switch w.Seal {
	case Wax:
		if s.Waxed {
			r.Do(craft.Work("wax", "wax is in it",
				message.Of(
					"this gelcoat holds wax: it comes up while it cures. Nothing goes over it unless it is sanded"), 0,
				0).Stays())
		} else {
			last := r.Litres / float64(max(1, r.Passes))
			r.Do(craft.Work("wax", "wax in the last pass",
				message.Of("stir in, only in the last: nothing sticks to it after"), 0, 0).Of(last*waxPct*10,
				"mL").Stays())
		}
	case PVA:
		r.Do(craft.Work("seal", "seal with PVA",
			message.Of("spray or sponge a closed film over it as soon as it has gelled; water takes it off"),
			0.1+face/20, sealDryH+wait).Of(face*pvaLM2*1000, "mL").At(where))
	case Film:
		r.Do(craft.Work("seal", "seal with film",
			message.Of("clear film pressed on while wet, no bubbles, taped round: for small places"), 0.1, wait).At(
			where))
		if w.Way != Repair && w.AreaM2 > 1 {
			r.Find(false, "Film over %.1f m² will wrinkle: wax or PVA suit a whole face.", w.AreaM2)
		}
	}
	if w.Seal == Wax && w.Way != Repair {
		r.Working.Step("Passes follow one another in", "tack-free time · (passes − 1)", gap, "h", "the sheet")
	}
	for _, st := range r.Ladder {
		r.Do(craft.Work(fmt.Sprintf("sand-%d", st.Grit), "",
			message.Of("wet, on a block, across the last till its scratches are gone; fresh water"), st.Hours, 0).With(
			st.Grit, st.RemovedUm).At(where))
	}
	r.Do(craft.Work("polish", "compound and polish", message.Of("slow machine, keep it cool: gelcoat burns"),
		math.Max(0.2, polishH*face), 0).At(where))
}

// match says what the patches come to.
func match(ps []Patch) string {
	if len(ps) == 0 {
		return "No patch yet: make three small ones on the boat, of last year's gloss, and judge them cured, wet and dry, by daylight."
	}
	for i := len(ps) - 1; i >= 0; i-- {
		if ps[i].Judged == "match" {
			return "It matched with: " + ps[i].Recipe + "."
		}
	}
	return fmt.Sprintf("%d tried and none matches yet. A cured patch tells after %.0f h; a wet one never.", len(ps),
		minPatchH)
}
