package nonskid

import (
	"math"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
)

// Tool spreads textured paint.
type Tool string

// Tools. A notched trowel lays a volume that its notches set; a roller as much as the
// texture wants.
const (
	Roller Tool = "roller"
	Square Tool = "square-notch"
	Vee    Tool = "v-notch"
)

// Grade is a coarseness with what it takes: litres of textured paint a m² by roller in
// all its coats, and kilograms of grit a m². Rules of thumb.
type Grade struct {
	Key     string  `json:"key"`
	Name    string  `json:"name"`
	LitreM2 float64 `json:"litreM2"`
	KgM2    float64 `json:"kgM2"`
}

// Grades lists them.
var Grades = []Grade{
	{"fine", "fine: bare feet, seats", 0.25, 0.3},
	{"medium", "medium: side decks", 0.4, 0.6},
	{"coarse", "coarse: foredeck, work boats", 0.6, 1.0},
}

// Texture is how much is laid.
type Texture struct {
	Tool     Tool    `json:"tool" enum:"roller,square-notch,v-notch"`
	Grade    string  `json:"grade" enum:"fine,medium,coarse"`
	WidthMM  float64 `json:"widthMM"` // of a notch
	PitchMM  float64 `json:"pitchMM"` // from notch to notch
	DepthMM  float64 `json:"depthMM"`
	WastePct float64 `json:"wastePct"` // of what is mixed, left in pot and tool
}

func (t Texture) validate(s School) error {
	var bad fielderr.Errors
	fielderr.OneOf(&bad, "tool", t.Tool, []Tool{Roller, Square, Vee})
	if t.grade().Key == "" {
		bad.Add("grade", "must be fine, medium or coarse")
	}
	bad.Range("wastePct", t.WastePct, 0, 60, "%")
	if s == Paint && t.Tool != Roller {
		bad.Above("depthMM", t.DepthMM, 0, 20, "mm")
		bad.Above("widthMM", t.WidthMM, 0, 50, "mm")
		bad.Above("pitchMM", t.PitchMM, 0, 100, "mm")
		if t.WidthMM > t.PitchMM {
			bad.Add("pitchMM", "must not be less than the notch")
		}
	}
	return bad.Err()
}

func (t Texture) grade() Grade {
	for _, g := range Grades {
		if g.Key == t.Grade {
			return g
		}
	}
	return Grade{}
}

// NotchLitreM2 is what a notched trowel lays on a m², L: depth · width / pitch, half
// of it through V notches.
func (t Texture) NotchLitreM2() float64 {
	v := t.DepthMM * t.WidthMM / t.PitchMM
	if t.Tool == Vee {
		v /= 2
	}
	return v
}

// perM2 is litres of paint or kilograms of grit on a m².
func (t Texture) perM2(s School) float64 {
	switch {
	case s == Grit:
		return t.grade().KgM2
	case s == Paint && t.Tool != Roller:
		return t.NotchLitreM2()
	case s == Paint:
		return t.grade().LitreM2
	}
	return 0
}

// Takes is what a deck takes in all.
type Takes struct {
	Litres float64          `json:"litres"`          // of textured paint, what stays in the pot with it
	Coats  int              `json:"coats,omitempty"` // of it
	GritKg float64          `json:"gritKg"`
	PerM2  float64          `json:"perM2"`
	Unit   string           `json:"unit"`
	TapeM  float64          `json:"tapeM"`
	Spread message.Sentence `json:"spread,omitempty"` // how it comes out even
}

// spare is the tape bought over what the edges want: a rule of thumb.
const spare = 1.15

func (l *Layout) takes(w Work) {
	t := w.Texture
	l.Takes = Takes{PerM2: t.perM2(w.School), Unit: "L", TapeM: spare * (l.MaskM + l.TwiceM)}
	wk := &l.Working
	switch w.School {
	case Paint:
		if t.Tool == Roller {
			wk.Step("Laid on it", t.grade().Name, l.Takes.PerM2, "L/m²",
				"rule of thumb; your own first panel corrects it")
			l.Takes.Spread = message.Of(
				"Weigh out %.2g L/m² and use it all: roll it on, then draw the texture up in one direction, and do not go back.", l.Takes.PerM2)
		} else {
			wk.Step("Laid on it", "depth · width / pitch, half through V notches", l.Takes.PerM2, "L/m²",
				"what the notches let through")
			l.Takes.Spread = message.Of(
				"The notches meter it: trowel upright, then roll the ridges into texture within minutes.")
		}
		l.Takes.Litres = wk.Step("To mix", "area · laid on it / (1 − left in pot and tool)",
			l.AreaM2*l.Takes.PerM2/(1-t.WastePct/100), "L", "")
	case Grit:
		l.Takes.Unit = "kg"
		// What falls beside and is swept up again is not bought twice.
		l.Takes.GritKg = wk.Step("Grit", "area · sown on it · twice over, what does not stick is swept up",
			2*l.AreaM2*l.Takes.PerM2, "kg", "rule of thumb: sow until no wet paint is seen")
		l.Takes.Spread = message.Of(
			"Sow from shoulder height until it looks dry all over; sweep when it is hard, seal with the next coat.")
	case Mats:
		l.Takes.Spread = message.Of(
			"Dry-fit each mat, mark its middle line, roll from the middle out; seal the edge the same day.")
	case Moulded:
		l.Takes.Spread = message.Of(
			"Bond from the middle out on an even, notched bed; weight it, and no bubbles under a heel.")
	}
}

// Even is how a laid panel compares with the others.
type Even struct {
	Panel   string  `json:"panel"`
	Planned float64 `json:"planned"`
	Laid    float64 `json:"laid"`
	PerM2   float64 `json:"perM2"`
	// OffPct is against the middle one of all that were laid.
	OffPct float64 `json:"offPct"`
	Says   string  `json:"says"`
}

// evenPct is how far panels may differ before one sees and feels it: a rule of thumb.
const evenPct = 10

// evenness compares what was laid, panel by panel, and says what the rest takes.
func (l *Layout) evenness(w Work) {
	var per []float64
	for _, p := range l.Panels {
		if v, ok := w.Laid[p.Name]; ok && p.AreaM2 > 0 {
			l.Even = append(l.Even, Even{Panel: p.Name, Planned: p.Amount, Laid: v, PerM2: v / p.AreaM2})
			per = append(per, v/p.AreaM2)
		}
	}
	if len(per) == 0 {
		return
	}
	slices.Sort(per)
	mid := (per[(len(per)-1)/2] + per[len(per)/2]) / 2
	for i := range l.Even {
		e := &l.Even[i]
		e.OffPct = 100 * (e.PerM2/mid - 1)
		switch {
		case mid == 0:
			e.OffPct, e.Says = 0, "nothing was laid"
		case math.Abs(e.OffPct) <= evenPct:
			e.Says = "even with the others"
		case e.OffPct > 0:
			e.Says = "coarser than the others: it has more on it"
		default:
			e.Says = "thinner than the others: roll more on while it is wet"
		}
	}
}
