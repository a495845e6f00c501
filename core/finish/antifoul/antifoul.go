// Package antifoul plans antifouling by zones: coats and litres, what may go over what,
// the tie window, the order of colours, the launch window, and the seasons it lasts.
package antifoul

import (
	"cmp"
	"fmt"
	"math"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/job/rules"
	"allcoats/core/job/upkeep"
)

// Zone is a part of the bottom with coats of its own beside the Coats of all.
type Zone struct {
	Name   string  `json:"name"`
	AreaM2 float64 `json:"areaM2"`
	Extra  int     `json:"extra"`
}

// Old is what is under it.
type Old struct {
	Key  string `json:"key"`
	Name string `json:"name"`
}

// Olds lists what is found.
var Olds = []Old{{"primed", "barrier or primer, no antifouling yet"}, {"soft", "soft, wearing away"},
	{"hard", "hard matrix"}, {"silicone", "silicone, foul-release"}, {"unknown", "not known"},
	{"flaking", "thick and flaking"}}

// Work is a bottom to be antifouled.
type Work struct {
	ProductID string `json:"productId"`
	Coats     int    `json:"coats"`
	Zones     []Zone `json:"zones"`
	Old       string `json:"old"`
	OldCopper bool   `json:"oldCopper"`
	TieID     string `json:"tieId"` // the tie coat or barrier that it goes on while tacky
	// First and Second are the colours: the one under shows when the one over is worn.
	First  string  `json:"first"`
	Second string  `json:"second"`
	Habit  float64 `json:"habit"` // seasons that a hard one has lasted her before, 0 not known
	NM     float64 `json:"nm"`    // a season
	// WearUm overrides the sheet's film a year.
	WearUm  *float64 `json:"wearUm,omitempty"`
	Seasons float64  `json:"seasons"` // wanted
	Brass   bool     `json:"brass"`   // bronze or copper fittings under water
}

// Case is the bottom.
type Case struct {
	Substrate survey.Substrate
	// AreaM2 is the bottom as surveyed.
	AreaM2 float64
	Sheet  product.Sheet
	Tie    *product.Sheet
	TempC  float64 // mean at the surface over the next days
	// Weather is at the surface; TieLaid is the tie coat if it is the last coat on, and
	// without it the window is told as if it went on now.
	Weather field.Weather
	TieLaid *clock.Laid
	Launch  *time.Time
	Now     time.Time
	// OwnFactor is what coats take of you against the reckoning; 0 is 1.
	OwnFactor float64
	// MonthsAfloat are those of a year, 0 the usual ones; NM is how far she goes in one where the bench
	// does not say.
	MonthsAfloat, NM float64
}

// litres of a coat of s on an area, to expect.
func (c Case) litres(areaM2 float64, s product.Sheet) float64 {
	m, _ := film.MethodByKey("roller")
	factor := c.OwnFactor
	if factor == 0 {
		factor = 1
	}
	return factor * film.Litres(areaM2, s.Film.TypicalUm, s.VolumeSolidsPct, m.LossPct)
}

// Usual divides a bottom into zones: rules of thumb from its length on the waterline.
func Usual(bottomM2, lwlM float64) Work {
	edge := math.Round(10*0.15*lwlM) / 10
	line := math.Round(10*2*0.2*lwlM) / 10
	flat := math.Max(0.1, math.Round(10*(bottomM2-edge-line))/10)
	return Work{Coats: 2, Old: "primed", Seasons: 1,
		Zones: []Zone{{"flats", flat, 0}, {"waterline", math.Max(0.1, line), 1},
			{"leading edges and keel foot", math.Max(0.1, edge), 1}}}
}

// ZoneCoats is a zone with what goes on it.
type ZoneCoats struct {
	Zone
	Coats   int      `json:"coats"`
	DFTUm   float64  `json:"dftUm"`
	Litres  float64  `json:"litres"`
	Seasons float64  `json:"seasons"`
	Colours []string `json:"colours"` // from the first coat up
}

// Result is the plan.
type Result struct {
	craft.Plan
	Zones   []ZoneCoats      `json:"zones"`
	AreaM2  float64          `json:"areaM2"`
	Litres  float64          `json:"litres"`
	Seasons float64          `json:"seasons"` // of the zone that goes first
	First   string           `json:"first"`   // its name
	Need    int              `json:"need"`    // coats that the seasons wanted ask for, 0 not to be told
	Tie     message.Sentence `json:"tie,omitempty"`
	// TieOpens and TieCloses are by the tie coat's clock, nil not within the weather
	// known; TieLaid says that it is on, else they are as if it went on now.
	TieLaid   bool        `json:"tieLaid"`
	TieState  clock.State `json:"tieState,omitempty"`
	TieOpens  *time.Time  `json:"tieOpens,omitempty"`
	TieCloses *time.Time  `json:"tieCloses,omitempty"`
	DryH      float64     `json:"dryH"`
	MaxH      float64     `json:"maxH"` // out of the water after the last coat, 0 without limit
	// LastFrom and LastTo are between when the last coat must go on for the launch day.
	LastFrom *time.Time `json:"lastFrom,omitempty"`
	LastTo   *time.Time `json:"lastTo,omitempty"`
	Wear     string     `json:"wear"` // the signal of the colours
}

// Validate reports what cannot be planned.
func (w Work) Validate() error {
	var bad fielderr.Errors
	bad.Range("coats", float64(w.Coats), 1, 10, "coats")
	keys := make([]string, len(Olds))
	for i, o := range Olds {
		keys[i] = o.Key
	}
	fielderr.OneOf(&bad, "old", w.Old, keys)
	if len(w.Zones) == 0 {
		bad.Add("zones", "there is nothing to coat")
	}
	for i, z := range w.Zones {
		at := fmt.Sprintf("zones[%d].", i)
		if z.Name == "" {
			bad.Add(at+"name", "name the zone")
		}
		bad.Above(at+"areaM2", z.AreaM2, 0, 2000, "m²")
		bad.Range(at+"extra", float64(z.Extra), 0, 8, "coats")
	}
	bad.Range("habit", w.Habit, 0, 10, "seasons")
	bad.Range("nm", w.NM, 0, 50000, "nautical miles")
	bad.Range("seasons", w.Seasons, 0.5, 10, "seasons")
	if w.WearUm != nil {
		bad.Range("wearUm", *w.WearUm, 0, 2000, "µm")
	}
	return bad.Err()
}

// Plan plans w on c.
func (w Work) Plan(c Case) (Result, error) {
	out := Result{Plan: craft.New(
		"Dust and wash water are toxic: wet only, everything caught, P3 mask and coverall; nothing into the drain or the water.",
		"Which biocides may be used, by whom and where they are washed off is ruled by the place: ask the harbour and read the tin."), Zones: []ZoneCoats{}}
	if err := w.Validate(); err != nil {
		return out, err
	}
	w.NM = cmp.Or(w.NM, c.NM)
	wear, err := out.wears(w, c.Sheet, cmp.Or(c.MonthsAfloat, upkeep.UsualMonths))
	if err != nil {
		return out, err
	}
	out.compatible(w, c)
	out.zones(w, c, wear)
	out.tie(c)
	out.launch(c)
	out.steps(w, c)
	return out, nil
}

// wears is the film that goes in a season, 0 for a hard matrix.
func (r *Result) wears(w Work, s product.Sheet, months float64) (float64, error) {
	if s.Kind != product.SoftAntifoul {
		return 0, nil
	}
	year := s.PolishUmYear
	if w.WearUm != nil {
		if year = *w.WearUm; year == 0 && s.PolishUm1000NM*w.NM == 0 {
			return 0, fielderr.At("wearUm",
				"0 says that it never wears, and this one lasts by wearing: take the sheet's figure, or choose a hard one")
		}
	}
	wear := r.Working.Step("Film that goes in a season",
		"film a year · months afloat / 12 + film for 1000 miles · miles / 1000", upkeep.WearUm(year, s.PolishUm1000NM,
			months, w.NM), "µm", "the sheet's wear")
	if wear == 0 {
		r.Find(false, "The sheet gives no wear: how many seasons it lasts cannot be told from its film. One is taken.")
	}
	return wear, nil
}

// layer is what is under it, as the rules know it; nil where it is a fresh primer.
func (w Work) layer() []survey.Layer {
	l := survey.Layer{Kind: survey.OldAntifouling, Soundness: survey.Sound, Note: w.Old}
	switch w.Old {
	case "primed":
		l = survey.Layer{Kind: survey.OldEpoxy, Soundness: survey.Sound}
	case "unknown":
		l.Kind = survey.OldUnknown
	case "flaking":
		l.Soundness = survey.Loose
	}
	return []survey.Layer{l}
}

// compatible says what the rules have to say of what goes over what is there, washed and sanded
// wet, and what they do not know of a bottom.
func (r *Result) compatible(w Work, c Case) {
	lay := func(s product.Sheet) rules.Step {
		return rules.Step{Step: step.Step{Work: step.Coat, Coats: 1, DFTUm: s.Film.TypicalUm, Sheet: s}}
	}
	ready := step.Step{Work: step.Sand, Grit: 80}
	ready.Wet = true
	steps := []rules.Step{{Step: step.Step{Work: step.Wash}}, {Step: ready}}
	if c.Tie != nil && rules.ClassOf(*c.Tie) == rules.ReleaseTie {
		steps = append(steps, lay(*c.Tie))
	}
	asked := rules.Case{Part: area.Bottom, Substrate: c.Substrate, Findings: survey.Findings{Layers: w.layer()},
		Steps: append(steps, lay(c.Sheet))}
	for _, f := range rules.Check(asked) {
		if rules.Between(f.Rule) && f.Severity != rules.Note {
			r.Find(f.Severity == rules.Stop || w.Old != "unknown", "%v %s", f.Says, f.Fix)
		}
	}
	if w.Old == "hard" && c.Sheet.Kind == product.SoftAntifoul {
		r.Find(false, "Soft over hard holds if the hard one is scuffed wet and its spent skin washed off.")
	}
	if c.Substrate == survey.Aluminium && w.OldCopper {
		r.Find(true, "Old copper antifouling on aluminium comes off, or is sealed by 300 µm of barrier without a gap.")
	}
	if w.Brass && c.Sheet.Copper {
		r.Find(false, "Keep it 50 mm off anodes and aluminium legs; bronze takes it over a primer, anodes never.")
	}
}

// zones gives every zone its coats, its colours and its seasons.
func (r *Result) zones(w Work, in Case, wear float64) {
	s := in.Sheet
	um := s.Film.TypicalUm
	first := w.First
	if first == "" {
		first = s.Colour
	}
	second := w.Second
	if second == "" {
		second = first
	}
	extra := 0.0
	r.Seasons = math.Inf(1)
	r.Working.In("Dry film of a coat", um, "µm")
	for _, z := range w.Zones {
		c := ZoneCoats{Zone: z, Coats: w.Coats + z.Extra, Colours: []string{}}
		c.DFTUm = float64(c.Coats) * um
		c.Litres = float64(c.Coats) * in.litres(z.AreaM2, s)
		for i := range c.Coats { // the last is of the second colour, and every other below it
			c.Colours = append(c.Colours, map[bool]string{true: second, false: first}[(c.Coats-1-i)%2 == 0])
		}
		switch {
		case s.Kind != product.SoftAntifoul && w.Habit > 0:
			c.Seasons = w.Habit
		case s.Kind != product.SoftAntifoul:
			c.Seasons = upkeep.HardSeasons
		case wear > 0 && z.Extra == 0:
			c.Seasons = c.DFTUm / wear
		case wear > 0:
			c.Seasons = c.DFTUm / (wear * upkeep.WornFactor)
		default:
			c.Seasons = 1
		}
		r.AreaM2 += z.AreaM2
		extra += float64(z.Extra) * in.litres(z.AreaM2, s)
		if c.Seasons < r.Seasons {
			r.Seasons, r.First = c.Seasons, z.Name
		}
		r.Zones = append(r.Zones, c)
	}
	r.Working.Step("Seasons, the zone that goes first",
		map[bool]string{true: "film / wear in a season, half as much again where water wears it",
			false: "a hard matrix is spent by habit, not by film"}[s.Kind == product.SoftAntifoul], r.Seasons,
		"seasons", "rule of thumb for worn zones")
	if off := 100 * (r.AreaM2/in.AreaM2 - 1); math.Abs(off) > zonesOffPct {
		r.Find(false,
			"The zones add up to %.3g m² and the bottom has %.3g m²: the coats of all are reckoned for the bottom, extra coats for their zones.", r.AreaM2, in.AreaM2)
	}
	r.Litres = float64(w.Coats)*in.litres(in.AreaM2, s) + extra
	r.Take("Antifouling",
		"(coats · bottom + Σ extra coats · zone) · film / (10 · solids) / (1 − loss) · what your coats took of it",
		r.Litres, "L", "the sheet")
	if wear > 0 {
		r.Need = int(math.Ceil(w.Seasons*wear/um - 1e-9))
		if r.Need > w.Coats {
			r.Find(false, "%.3g seasons want %d coats all over, and %d are planned.", w.Seasons, r.Need, w.Coats)
		}
	} else if s.Kind != product.SoftAntifoul && r.Seasons < w.Seasons {
		r.Find(false,
			"By habit it lasts %.3g seasons, and %.3g are wanted: more film does not help a hard one, scrubbing and a new coat do.", r.Seasons, w.Seasons)
	}
	r.Wear = fmt.Sprintf(
		"When %s shows through %s, the coat above is gone there: note where, that zone wants one more next time.",
		first, second)
	if first == second {
		r.Wear = "Both coats are of one colour: wear will not show. Tint the one below, or take another colour."
		r.Find(false, "%s", r.Wear)
	}
}

// zonesOffPct is how far the zones may be off the bottom before it is said.
const zonesOffPct = 5
