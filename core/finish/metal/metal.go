// Package metal plans bare metal: the clock from blasting to priming, salt washed off
// before every coat, feathered edges, pits, the correction of film readings for the
// profile, isolation of unlike metals, and slopes that drain round posts.
package metal

import (
	"fmt"
	"math"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
)

// Profile is how rough blasting left it, with what a gauge reads too much on it, µm:
// ISO 19840.
type Profile struct {
	Key          string  `json:"key"`
	Name         string  `json:"name"`
	CorrectionUm float64 `json:"correctionUm"`
}

// Profiles lists them.
var Profiles = []Profile{{"none", "not blasted", 0}, {"fine", "fine", 10}, {"medium", "medium", 25},
	{"coarse", "coarse", 40}}

// Work is metal to be coated.
type Work struct {
	BlastedAt *time.Time `json:"blastedAt,omitempty"`
	Profile   string     `json:"profile"`
	AreaM2    float64    `json:"areaM2"` // bared
	Coats     int        `json:"coats"`
	// WashedAt are the fresh-water washes since, one before each coat.
	WashedAt   []time.Time `json:"washedAt"`
	EdgeM      float64     `json:"edgeM"`     // of sound old coating round the bared patches
	OldUm      float64     `json:"oldUm"`     // its film
	Pits       int         `json:"pits"`      // a dm², where it is pitted
	PitMM      float64     `json:"pitMM"`     // deepest
	PitM2      float64     `json:"pitM2"`     // pitted area
	NominalUm  float64     `json:"nominalUm"` // film wanted
	ReadingsUm []float64   `json:"readingsUm"`
	Pairs      []Pair      `json:"pairs"`
	Posts      []Post      `json:"posts"`
}

// Usual is metal to begin with.
func Usual(areaM2 float64) Work {
	return Work{Profile: "none", AreaM2: math.Max(0.01, areaM2), Coats: 2, WashedAt: []time.Time{}, OldUm: 250,
		NominalUm: 150, ReadingsUm: []float64{}, Pairs: []Pair{}, Posts: []Post{}}
}

// Hour is the air at the surface: humidity there, per cent.
type Hour struct {
	At time.Time
	RH float64
}

// Case is the surface.
type Case struct {
	Substrate survey.Substrate
	// AreaM2 is the surface's; Primer and Filler are what is laid on it, nil without a
	// product.
	AreaM2         float64
	Primer, Filler *product.Sheet
	Air            []Hour
	Now            time.Time
	// WashDryH is how long a wash now takes to dry, h, 0 not within the weather known.
	WashDryH float64
	// Logged are the coats laid since it was bared, in order.
	Logged []time.Time
}

// Result is the plan.
type Result struct {
	craft.Plan
	// PrimeBy is when bare metal is no longer fit to be primed; nil is not within the
	// weather known. UsedPct is how much of that time has gone.
	PrimeBy  *time.Time             `json:"primeBy,omitempty"`
	UsedPct  float64                `json:"usedPct"`
	Washes   []Wash                 `json:"washes"`
	BandMM   float64                `json:"bandMM"`
	BandM2   float64                `json:"bandM2"`
	PitL     float64                `json:"pitL"`
	Accepted *film.AcceptanceResult `json:"accepted,omitempty"`
	Pairs    []Eaten                `json:"pairs"`
	CollarL  float64                `json:"collarL"`
}

// Wash is a coat and the wash before it.
type Wash struct {
	Coat int              `json:"coat"`
	At   *time.Time       `json:"at,omitempty"`
	Says message.Sentence `json:"says"`
}

// Validate reports what cannot be.
func (w Work) Validate() error {
	var bad fielderr.Errors
	if w.profile().Key == "" {
		bad.Add("profile", "must be none, fine, medium or coarse")
	}
	bad.Above("areaM2", w.AreaM2, 0, 5000, "m²")
	bad.Range("coats", float64(w.Coats), 1, 20, "coats")
	bad.Range("edgeM", w.EdgeM, 0, 5000, "m")
	bad.Range("oldUm", w.OldUm, 0, 5000, "µm")
	bad.Range("pits", float64(w.Pits), 0, 500, "pits")
	bad.Range("pitMM", w.PitMM, 0, 30, "mm")
	bad.Range("pitM2", w.PitM2, 0, w.AreaM2, "m²")
	bad.Above("nominalUm", w.NominalUm, 0, 5000, "µm")
	for i, v := range w.ReadingsUm {
		bad.Range(fmt.Sprintf("readingsUm[%d]", i), v, 0, 20000, "µm")
	}
	for i, p := range w.Pairs {
		for at, v := range map[string]string{".a": p.A, ".b": p.B} {
			if _, ok := volts(v); !ok {
				bad.Add(fmt.Sprintf("pairs[%d]%s", i, at), "is no metal of the list")
			}
		}
	}
	for i, p := range w.Posts {
		at := fmt.Sprintf("posts[%d].", i)
		bad.Above(at+"acrossMM", p.AcrossMM, 0, 2000, "mm")
		bad.Above(at+"collarMM", p.CollarMM, 0, 500, "mm")
		bad.Range(at+"riseMM", p.RiseMM, 0, 200, "mm")
	}
	return bad.Err()
}

func (w Work) profile() Profile {
	for _, p := range Profiles {
		if p.Key == w.Profile {
			return p
		}
	}
	return Profile{}
}

// BareH is how long bared metal stays fit to be primed at a humidity, h: bright steel
// rusts the sooner the damper it is, aluminium grows its oxide in any air. Rules of
// thumb; 0 for metals without such a clock.
func BareH(s survey.Substrate, rh float64) float64 {
	switch s {
	case survey.Aluminium:
		return 8
	case survey.Steel, survey.CastIron:
		switch {
		case rh < 50:
			return 24
		case rh < 60:
			return 12
		case rh < 70:
			return 8
		case rh < 85:
			return 4
		}
		return 1
	default:
		return 0
	}
}

// Plan plans w on c.
func (w Work) Plan(c Case) (Result, error) {
	out := Result{Plan: craft.New(
		"Blasting: supplied air, nobody near; old lead, chromate or zinc dust is licensed work.",
		"Spark, solvent and closed tanks do not go together: air first, a watcher outside."), Washes: []Wash{},
		Pairs: []Eaten{}}
	if err := w.Validate(); err != nil {
		return out, err
	}
	out.clock(w, c)
	out.washes(w, c)
	out.surface(w)
	if err := out.readings(w); err != nil {
		return out, err
	}
	out.pairs(w)
	out.posts(w)
	out.steps(w, c)
	return out, nil
}

// clock runs from the blasting along the air: every hour takes 1 / BareH of the time.
func (r *Result) clock(w Work, c Case) {
	if w.BlastedAt == nil {
		return
	}
	if BareH(c.Substrate, 60) == 0 {
		r.Find(false, "This metal has no clock after blasting: prime it clean and dry.")
		return
	}
	used := 0.0
	primed := len(c.Logged) > 0 && !c.Logged[0].Before(*w.BlastedAt)
	for i, h := range c.Air {
		end := h.At.Add(time.Hour)
		if i+1 < len(c.Air) {
			end = c.Air[i+1].At
		}
		from := h.At
		if from.Before(*w.BlastedAt) {
			from = *w.BlastedAt
		}
		if !end.After(from) {
			continue
		}
		share := end.Sub(from).Hours() / BareH(c.Substrate, h.RH)
		if r.PrimeBy == nil && used+share >= 1 {
			at := from.Add(time.Duration((1 - used) / share * float64(end.Sub(from))))
			r.PrimeBy = &at
		}
		if from.Before(c.Now) {
			part := math.Min(1, c.Now.Sub(from).Hours()/end.Sub(from).Hours())
			r.UsedPct += 100 * share * part
		}
		used += share
	}
	r.UsedPct = math.Min(100, r.UsedPct)
	r.Working.Step("Of the time to prime gone", "Σ hours / what the humidity at the surface allows", r.UsedPct, "%",
		"24 h below 50 %, 12 below 60, 8 below 70, 4 below 85, else 1; aluminium 8: rules of thumb")
	switch {
	case primed && r.PrimeBy != nil && c.Logged[0].After(*r.PrimeBy):
		r.Find(false, "The first coat went on after the metal had turned: look for rust under it.")
	case !primed && r.PrimeBy != nil && !r.PrimeBy.After(c.Now):
		r.Find(true, "It was bared too long ago: sweep-blast or abrade it again the morning it is primed.")
	}
}

// washes pairs coats with the wash before each.
func (r *Result) washes(w Work, c Case) {
	last := time.Time{}
	if w.BlastedAt != nil {
		last = *w.BlastedAt
	}
	missed := 0
	for n := range max(w.Coats, len(c.Logged)) {
		out := Wash{Coat: n + 1}
		until := c.Now
		if n < len(c.Logged) {
			until = c.Logged[n]
		}
		for i, t := range w.WashedAt {
			if t.After(last) && !t.After(until) {
				out.At = &w.WashedAt[i]
			}
		}
		switch {
		case out.At != nil:
			out.Says = message.Of("washed")
		case n < len(c.Logged):
			out.Says = message.Of("went on without a wash that was noted")
			missed++
		case n == len(c.Logged):
			out.Says = message.Of("wash with fresh water first, and let it dry")
		default:
			out.Says = message.Of("to come")
		}
		if n < len(c.Logged) {
			last = c.Logged[n]
		} else if n == len(c.Logged) {
			last = c.Now
		}
		r.Washes = append(r.Washes, out)
	}
	if missed > 0 {
		r.Find(false,
			"%d of the coats went on without a wash: salt under a coat draws water through it and lifts it in blisters.", missed)
	}
}

// steps are the work on the metal: bared, its edges feathered, washed before every coat,
// its pits and collars filled after the first.
func (r *Result) steps(w Work, c Case) {
	where := craft.Part("bared", w.AreaM2, c.AreaM2)
	if w.BlastedAt == nil && w.Profile != "none" {
		r.Do(craft.Work("blast", "blast to bright metal, "+w.profile().Name+" profile",
			message.Of("then blow and vacuum it clean: no water from here to the primer on steel"), w.AreaM2/1.5, 0).As(
			step.Strip).At(where))
	}
	if w.EdgeM > 0 {
		r.Do(craft.Work("feather", "feather the edges",
			message.Of("back till every old layer shows as a ring of its own width; 80, then 120; no loose lip left"),
			w.EdgeM/6, 0).With(120, 0).
			At(&step.Where{Name: "feathered band",
				Patches: []step.Patch{{Name: "feathered band", AreaM2: r.BandM2}}}).Of(r.BandM2, "m²"))
	}
	roller, _ := film.MethodByKey("roller")
	blade, _ := film.MethodByKey("blade")
	bareSteel := w.BlastedAt == nil && w.Profile != "none" && c.Substrate != survey.Aluminium
	for n := range w.Coats {
		if n > 0 || !bareSteel {
			r.Do(craft.Work(fmt.Sprintf("wash-%d", n+1), "wash off salt",
				message.Of(
					"fresh water, top down, before every coat; what a test kit reads in µg/cm² tells whether it was enough"), w.AreaM2/20, 0).As(step.Wash).At(where))
		}
		if c.Primer != nil {
			r.Do(craft.Coats(fmt.Sprintf("coat-%d", n+1), "main", 1, w.NominalUm/float64(w.Coats), roller, 0,
				message.Of("stripe welds, edges and corners by brush first")).At(where))
		}
		if n > 0 {
			continue
		}
		if r.PitL > 0 && c.Filler != nil {
			fill := craft.Coats("pits", "filler", 1,
				1000*r.PitL*(1-blade.LossPct/100)*c.Filler.VolumeSolidsPct/100/w.PitM2, blade, w.PitM2*1.5,
				message.Of(
					"bright to the bottom, one coat of primer, epoxy filler pressed in with a stiff blade, skim and board off")).
				At(&step.Where{Name: "pits", Patches: []step.Patch{{Name: "pits", AreaM2: w.PitM2}}}).Of(r.PitL*1000,
				"mL")
			fill.Work = step.Fill
			r.Do(fill)
		}
		if r.CollarL > 0 && c.Filler != nil {
			at := &step.Where{Name: "collars"}
			for i, p := range w.Posts {
				out := (p.AcrossMM/2 + p.CollarMM) / 1000
				in := p.AcrossMM / 2000
				at.Patches = append(at.Patches, step.Patch{Name: fmt.Sprintf("%s, %d", p.Name, i+1),
					AreaM2: math.Pi * (out*out - in*in)})
			}
			fill := craft.Coats("collars", "filler", 1,
				1000*r.CollarL*(1-blade.LossPct/100)*c.Filler.VolumeSolidsPct/100/at.AreaM2(0), blade,
				0.3*float64(len(w.Posts)),
				message.Of("epoxy filler, high at the post, feathered out to nothing; smooth it with a wet glove")).At(
				at).Of(r.CollarL*1000, "mL")
			fill.Work = step.Fill
			r.Do(fill)
		}
	}
	if (r.PitL > 0 || r.CollarL > 0) && c.Filler == nil {
		r.Find(false, "The library has no epoxy filler: pits and collars are reckoned, and not put into the build-up.")
	}
}

// Rules of thumb: the band over which 100 µm of old film are feathered, the share of a
// pit's box that is pit, a pit's width to its depth.
const (
	bandPer100Um = 25.0
	pitShape     = 0.5
	pitWidth     = 2.5
)

// surface plans feathered edges and the filling of pits.
func (r *Result) surface(w Work) {
	wk := &r.Working
	if w.EdgeM > 0 {
		r.BandMM = wk.Step("Feathered band", "25 mm for every 100 µm of old film", w.OldUm/100*bandPer100Um, "mm",
			"rule of thumb: a finger feels no step")
		r.BandM2 = wk.Step("Its area", "edge · band", w.EdgeM*r.BandMM/1000, "m²", "")
	}
	if w.PitM2 > 0 && w.PitMM > 0 {
		each := pitShape * w.PitMM * math.Pow(pitWidth*w.PitMM, 2) / 1e6 // L
		r.PitL = r.Take("Pit filler", "area · pits a dm² · ½ · depth · (2.5 · depth)² · 1.3",
			1.3*w.PitM2*100*float64(w.Pits)*each, "L", "rule of thumb, a third more for the skim between")
	}
}

// readings corrects film readings for the profile and judges them.
func (r *Result) readings(w Work) error {
	if len(w.ReadingsUm) == 0 {
		return nil
	}
	off := w.profile().CorrectionUm
	net := make([]float64, len(w.ReadingsUm))
	for i, v := range w.ReadingsUm {
		net[i] = math.Max(0, v-off)
	}
	a, err := film.Accept(film.AcceptanceRequest{NominalUm: w.NominalUm, ReadingsUm: net, AreaM2: w.AreaM2})
	if err != nil {
		return err
	}
	r.Accepted = &a
	r.Working.Step("Correction for the profile", w.profile().Name, off, "µm", "ISO 19840")
	return nil
}

// farApart is the step in the series from which two metals that touch under water eat
// one another fast: a rule of thumb, V.
const farApart = 0.2

// Left are the steps that come when so many coats are on.
func (r Result) Left(coats int) []craft.Step {
	for i, s := range r.Steps {
		if s.Work == step.Coat {
			coats--
		}
		if coats < 0 {
			// What prepares for the coat comes with it.
			for i > 0 && r.Steps[i-1].Work != step.Coat && r.Steps[i-1].Work != step.Fill {
				i--
			}
			return r.Steps[i:]
		}
	}
	return []craft.Step{}
}
