// Package application says how a coat is laid: the wet film on the comb, stripes with a wet
// edge, which piece first, what to check before the tin is opened, and what to wear.
package application

import (
	"math"
	"slices"

	"allcoats/core/base/message"
	"allcoats/core/boat/area"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/job/logbook"
)

// Teeth are the steps of a wet-film comb, µm.
var Teeth = []float64{25, 50, 75, 100, 125, 150, 175, 200, 225, 250, 275, 300, 350, 400, 450, 500, 600, 700, 800, 900,
	1000, 1200, 1400, 1600, 1800, 2000, 2500, 3000}

// Comb is a wet film on a comb: the last tooth that is wetted and the first that
// stays dry, 0 if the comb ends before.
type Comb struct {
	WetUm float64 `json:"wetUm"`
	DryUm float64 `json:"dryUm"`
}

// OnComb returns the teeth on both sides of a wet film.
func OnComb(wftUm float64) Comb {
	i, _ := slices.BinarySearch(Teeth, wftUm)
	if i < len(Teeth) && Teeth[i] == wftUm {
		i++
	}
	var c Comb
	if i > 0 {
		c.WetUm = Teeth[i-1]
	}
	if i < len(Teeth) {
		c.DryUm = Teeth[i]
	}
	return c
}

// Stripes cut a surface so that each is met by the next while its edge is wet.
type Stripes struct {
	N    int              `json:"n"`
	M2   float64          `json:"m2"`
	Min  float64          `json:"min"`
	Each message.Sentence `json:"each"`
}

// Cut cuts areaM2 laid at rateM2H into stripes that take at most half of the wet
// edge, h; 0 is not known, and nothing is cut.
func Cut(areaM2, rateM2H, wetEdgeH float64) Stripes {
	n := 1
	if wetEdgeH > 0 {
		n = int(math.Ceil(areaM2/rateM2H/(wetEdgeH/2) - 1e-9))
	}
	s := Stripes{N: max(1, n)}
	s.M2 = areaM2 / float64(s.N)
	s.Min = 60 * s.M2 / rateM2H
	s.Each = message.Of("%d stripes of %.2g m², %.0f min each: begin each at the wet edge of the last", s.N, s.M2,
		s.Min)
	if s.N == 1 {
		s.Each = message.Of("in one go, without a break")
	}
	return s
}

// Piece is a surface that the same product goes on. SurfaceC is its mean over the
// next hours.
type Piece struct {
	ID       string           `json:"id"`
	Name     string           `json:"name"`
	AreaM2   float64          `json:"areaM2"`
	SurfaceC float64          `json:"surfaceC"`
	Why      message.Sentence `json:"why"`
}

// Order puts pieces into the order to lay them: where practice matters the
// smallest first, else the coolest, in the shade.
func Order(pieces []Piece, kind product.Kind) []Piece {
	out := slices.Clone(pieces)
	small := kind.Info().Practice
	slices.SortStableFunc(out, func(a, b Piece) int {
		x, y := a.SurfaceC, b.SurfaceC
		if small {
			x, y = a.AreaM2, b.AreaM2
		}
		switch {
		case x < y:
			return -1
		case x > y:
			return 1
		}
		return 0
	})
	for i := range out {
		switch {
		case len(out) == 1:
			out[i].Why = message.Of("the only one")
		case small && i == 0:
			out[i].Why = message.Of("the smallest first: texture takes practice")
		case small:
			out[i].Why = message.Of("larger")
		case i == 0:
			out[i].Why = message.Of("the coolest first: in the shade it keeps its wet edge")
		default:
			out[i].Why = message.Of("%.0f K warmer", out[i].SurfaceC-out[0].SurfaceC)
		}
	}
	return out
}

// State is how a point of the checklist stands.
type State string

// States: known to be right, known to be wrong, or only to be seen at the boat.
const (
	OK  State = "ok"
	No  State = "no"
	Ask State = "ask"
)

// Check is a point of the list before the tin is opened.
type Check struct {
	Key   string           `json:"key"`
	State State            `json:"state"`
	Text  message.Sentence `json:"text"`
	// Short is what is wrong inside a sentence, empty unless State is No.
	Short message.Sentence `json:"short,omitempty"`
}

// Before is what is known before a coat. FieldWhy says what forbids laying now,
// HoldWhy what spoils the hold; empty they stand. ShelfL is nil if the shelf is not
// noted; Expired is the day that the tin's life ended.
type Before struct {
	Sheet    product.Sheet
	Part     area.Part
	Litres   float64
	First    message.Sentence // work that must be done before and is not logged, empty without
	FieldWhy message.Sentence
	HoldWhy  message.Sentence
	Wet      bool
	Clock    *clock.Clock
	Cleaned  message.Sentence // when and how, empty if not logged since the last coat
	ShelfL   *float64
	Expired  string
	// Changed is what is new in the sheet since the last coat of it, empty without.
	Changed message.Sentence
	// Again are causes of blemishes that came more than once.
	Again []logbook.Repeat
}

// List checks what is known and asks for the rest.
func (b Before) List() []Check {
	out := []Check{}
	add := func(key string, bad bool, right, wrong message.Sentence) {
		if bad {
			out = append(out, Check{key, No, wrong, wrong.Lower()})
		} else {
			out = append(out, Check{Key: key, State: OK, Text: right})
		}
	}
	ask := func(key string, text message.Sentence) { out = append(out, Check{Key: key, State: Ask, Text: text}) }
	if len(b.First) > 0 {
		add("first", true, nil, message.Of("Not logged since the last coat: %v", b.First))
	}
	for _, r := range b.Again {
		ask("again "+r.Text, message.Of("%d coats had %v, each time with this in their record: %s. This time: %s",
			r.Times, message.Join(lits(r.Blemishes), "; "), r.Text, r.Next))
	}
	add("field", b.FieldWhy != nil, message.Of("The air and the surface allow laying now"),
		message.Of("Not now: %v", b.FieldWhy))
	if b.FieldWhy != nil {
		out[len(out)-1].Short = b.FieldWhy
	}
	add("hold", b.HoldWhy != nil, message.Of("It holds for the %.3g h after laying", b.Sheet.Limits.HoldH), b.HoldWhy)
	add("dry", b.Wet, message.Lit("No dew or rain on it by the reckoning: feel it with the back of a hand"),
		message.Lit("It is wet with dew or rain: wipe it and let it dry"))
	out = append(out, b.key())
	switch {
	case b.Clock != nil && b.Clock.Blush != nil:
		add("clean", true, nil, message.Of("Wash it with warm water: it was near the dew point before it was tack-free, and amine blush is likely"))
	case b.Cleaned != nil && b.Sheet.NoSolventWipe:
		add("clean", false, message.Of("Cleaned: %v. No solvent on this one", b.Cleaned), nil)
	case b.Cleaned != nil:
		add("clean", false, message.Of("Cleaned: %v", b.Cleaned), nil)
	case b.Sheet.NoSolventWipe:
		ask("clean", message.Of("Washed with water and dried: the sheet forbids solvent"))
	default:
		ask("clean", message.Of("Cleaned your way: detergent and water, or two rags with solvent, one wet, one dry"))
	}
	ask("mask", message.Of("Masked, edges pressed down, the second tape where one comes off early"))
	if b.Sheet.ToolsSuit != "" || b.Sheet.ToolsSpoil != "" {
		text := message.Of("Tools that suit: %s", b.Sheet.ToolsSuit)
		if b.Sheet.ToolsSpoil != "" {
			text = message.Of("%v. Spoiled by it: %s", text, b.Sheet.ToolsSpoil)
		}
		out = append(out, Check{Key: "tools", State: Ask, Text: text})
	}
	if b.Changed != nil {
		out = append(out, Check{Key: "edition", State: Ask, Text: b.Changed})
	}
	if b.ShelfL != nil {
		add("shelf", *b.ShelfL < b.Litres, message.Of("%.3g L on the shelf for the %.3g L it takes", *b.ShelfL,
			b.Litres), message.Of("The shelf has %.3g L and it takes %.3g L: it cannot be finished", *b.ShelfL,
			b.Litres))
	}
	if b.Expired != "" {
		add("life", true, nil, message.Of("The tin's life ended on %s: try it on a board first", b.Expired))
	}
	return out
}

// key tells whether the coat below takes the next one.
func (b Before) key() Check {
	no := func(text message.Sentence) Check {
		return Check{"key", No, text, text.Lower()}
	}
	ok := func(text message.Sentence) Check { return Check{"key", OK, text, nil} }
	switch c := b.Clock; {
	case c == nil:
		return Check{"key", Ask, message.Of("Sanded to a dull, even key, edges by hand"), nil}
	case c.State == clock.Damaged:
		return no(
			message.Lit("The last coat was hit by water or frost while it was wet: inspect it, log what you find"))
	case c.State == clock.Unknown:
		return no(message.Lit("It is not known whether the last coat still takes another: sand it first"))
	case c.Abraded:
		return ok(message.Lit("Sanded since the last coat"))
	case c.State == clock.Closed:
		return no(message.Lit("The recoat window has closed: sand it first"))
	case c.State == clock.Wet || c.State == clock.Tacking:
		return no(message.Lit("The last coat is not ready for the next"))
	}
	return ok(message.Lit("Within the recoat window of the last coat"))
}

func lits(texts []string) (out []message.Sentence) {
	for _, t := range texts {
		out = append(out, message.Lit(t))
	}
	return out
}
