package fair

import (
	"math"

	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
	"allcoats/core/film/sand"
)

// School is a way of filling: how thick a pass is, how proud the last one is left for the board, how
// fast is laid and boarded, and what it risks. Rules of thumb.
type School struct {
	Key      string  `json:"key"`
	Name     string  `json:"name"`
	Why      string  `json:"why"`
	Risk     string  `json:"risk"`
	PassMM   float64 `json:"passMM"`   // at most, 0 for the sheet's
	ProudMM  float64 `json:"proudMM"`  // sanded off again
	LayLH    float64 `json:"layLH"`    // litres laid in an hour
	BoardM2H float64 `json:"boardM2H"` // of the last pass boarded fair in an hour
}

// Schools lists both.
var Schools = []School{
	{"heavy", "few heavy coats", "fewer waits for the cure",
		"more to sand; thick filler slumps, drags under the board, and shrinks back after the paint is on", 0, 0.6, 3,
		1.2},
	{"skims", "many thin skims", "little to sand and no slumps",
		"each skim waits for its cure and for weather, and what is left on between them must be boarded and wiped", 1.5,
		0.2, 2, 3},
}

// Job is a fill by one school. Under is the hard filler that goes in first where it is deep.
type Job struct {
	School  School          `json:"school"`
	Passes  int             `json:"passes"`
	PassMM  float64         `json:"passMM"`  // the thickest
	Litres  float64         `json:"litres"`  // to mix
	LossPct float64         `json:"lossPct"` // of what is mixed, sanded off again
	Kg      float64         `json:"kg"`
	LayH    float64         `json:"layH"`  // laying, and boarding the last pass
	Hours   float64         `json:"hours"` // with keying and boarding between
	Under   *Under          `json:"under,omitempty"`
	Working working.Working `json:"working"`
}

// Under is the hard filler under the light one.
type Under struct {
	ProductID string  `json:"productId"`
	Passes    int     `json:"passes"`
	PassMM    float64 `json:"passMM"`
	Litres    float64 `json:"litres"` // to mix
	Kg        float64 `json:"kg"`
	LayH      float64 `json:"layH"`
	Hours     float64 `json:"hours"`
	AreaM2    float64 `json:"areaM2"`
}

// Face is what is filled: its tilt, degrees, and how many times the hours of a flat one it takes.
type Face struct{ TiltDeg, Access float64 }

// BoardGrit is what is boarded with before the first pass and between passes.
const BoardGrit = 60

// Fill reckons what a need takes of a product by a school on a face; hard, if not nil, goes under
// where it is deep.
func (s School) Fill(n Need, sheet product.Sheet, hard *product.Sheet, on Face) Job {
	w := working.New()
	j := Job{School: s, PassMM: s.pass(sheet, on.TiltDeg, &w)}
	board := func(passes int, areaM2 float64) float64 {
		return w.Step("Keying before a pass and boarding between them",
			"passes · area / rate of 60 grit on filler · access", float64(passes)*sand.Hours(BoardGrit, areaM2,
				on.Access, true), "h", "rule of thumb of sanding")
	}
	deepest, litres := n.DeepestMM, n.FillL
	w.In("Filler on the surface", n.FillL, "L")
	w.In("Deepest", n.DeepestMM, "mm")
	w.In("Shrinkage", sheet.ShrinkagePct, "%")
	if hard != nil && n.DeepL > 0 {
		u := Under{AreaM2: n.DeepM2, PassMM: School{}.pass(*hard, on.TiltDeg, &w)}
		u.Passes = passes(n.DeepestMM-topMM, u.PassMM, *hard)
		w.In("Lows deeper than this are built up hard first", DeepMM, "mm")
		u.Litres = w.Step("Hard filler to mix", "what lies more than 3 mm deep in them / (1 − shrinkage)",
			n.DeepL/(1-hard.ShrinkagePct/100), "L", "rule of thumb: hard under, light on top")
		u.Kg = u.Litres * density(*hard)
		u.LayH = w.Step("Laying it, rough", "litres / rate", u.Litres/s.LayLH, "h", "rule of thumb")
		u.Hours = u.LayH + board(u.Passes, n.DeepM2)
		j.Under = &u
		litres -= n.DeepL
		deepest = DeepMM
	}
	shrunk := 1 - sheet.ShrinkagePct/100
	w.Step("Laid proud, deepest", "(deepest + proud) / (1 − shrinkage)", (deepest+s.ProudMM)/shrunk, "mm",
		"the sheet's shrinkage; proud for the board: rule of thumb")
	j.Passes = passes(deepest, j.PassMM, sheet)
	w.Step("Passes", "deepest / (1 − shrinkage) / greatest thickness of a pass, rounded up", float64(j.Passes), "",
		"data sheet, or the school's skim")
	j.Litres = w.Step("To mix", "(on the surface + area · proud) / (1 − shrinkage)", (litres+n.FillM2*s.ProudMM)/shrunk,
		"L", "proud for the board, sanded off again: rule of thumb")
	if j.Litres > 0 {
		j.LossPct = 100 * (1 - litres/shrunk/j.Litres)
	}
	j.Kg = w.Step("Weight", "litres · density", j.Litres*density(sheet), "kg", "densities of the sheet")
	lay := w.Step("Laying", "litres / rate", j.Litres/s.LayLH, "h", "rule of thumb")
	last := w.Step("Boarding the last pass fair", "filled area / rate", n.FillM2/s.BoardM2H, "h", "rule of thumb")
	j.LayH = lay + last
	j.Hours = j.LayH + board(j.Passes, n.FillM2)
	j.Working = w
	return j
}

// pass is how thick a pass may be on a face, mm: what the school lays, the sheet takes, and does not
// sag.
func (s School) pass(sheet product.Sheet, tiltDeg float64, w *working.Working) float64 {
	pass := s.PassMM
	if sheet.MaxPassMM > 0 && (pass == 0 || pass > sheet.MaxPassMM) {
		pass = sheet.MaxPassMM
	}
	sag, how := sheet.SagUprightUm/1000, "upright"
	if tiltDeg > 120 {
		sag, how = sheet.SagOverheadUm/1000, "overhead"
	}
	if tiltDeg >= 45 && sag > 0 && (pass == 0 || pass > sag) {
		pass = sag
		w.Warn("On a face that is %s a pass sags above %.3g mm.", how, sag)
	}
	if pass == 0 {
		pass = usualPassMM
		w.Warn("The sheet gives no greatest thickness of a pass: 6 mm is taken.")
	}
	return pass
}

// GoesUnder reports whether a filler is a hard one that goes under a light one where it is deep: heavier,
// and laid thicker. A rule of thumb.
func GoesUnder(s, light product.Sheet) bool {
	return s.Kind.Info().Filler && s.MaxPassMM > light.MaxPassMM && s.BaseKgL > light.BaseKgL
}

func density(s product.Sheet) float64 {
	return s.BaseKgL*s.BaseShare() + s.HardenerKgL*(1-s.BaseShare())
}

func passes(mm, passMM float64, sheet product.Sheet) int {
	return max(0, int(math.Ceil(mm/(1-sheet.ShrinkagePct/100)/passMM-1e-9)))
}

// PassesTo is how many passes of a job a low of a depth takes, mm, shrinkage counted in; hard ones
// under it too.
func (j Job) PassesTo(deepestMM float64, sheet product.Sheet, hard *product.Sheet) int {
	if j.Under == nil || deepestMM <= DeepMM {
		return passes(deepestMM, j.PassMM, sheet)
	}
	return passes(deepestMM-topMM, j.Under.PassMM, *hard) + passes(topMM, j.PassMM, sheet)
}

// usualPassMM is the thickness of a pass where the sheet is silent.
const usualPassMM = 6
