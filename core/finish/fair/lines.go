package fair

import (
	"fmt"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/boat/outline"
	"allcoats/core/boat/survey"
)

// Line is where a straightedge was walked: along, across or diagonally, and the width that it
// stands for. On is its place on the map, nil where it was not marked.
type Line struct {
	Name       string      `json:"name"`
	Way        string      `json:"way" enum:"along,across,diagonal"`
	WidthM     float64     `json:"widthM"`
	Placements []Placement `json:"placements"`
	Breaks     []int       `json:"breaks,omitempty"`
	On         *Track      `json:"on,omitempty"`
}

// WalkRequest are lines read with one edge, and lows circled beside them. What is shallower than a
// reading may be out is not filled; hard lines of the surface are not spanned.
type WalkRequest struct {
	Lines    []Line
	Lows     []Low
	Hard     []survey.HardLine
	EdgeM    float64
	SpacingM float64
	LimitMM  float64
	ErrorMM  float64
}

// Walked is what lines and lows of one set come to. Low to High is the range where tilts between
// placements were not observed, or depths were guessed.
type Walked struct {
	Lines            []EdgeResult
	Need             Need
	LowL, HighL      float64
	AreaM2           float64
	BeforeMM         float64
	AfterMM          float64
	TiltsNotObserved int
	Patches          []Patch
	Notes            []message.Sentence
	Chart            Chart
}

// Walk works lines out, each for itself, and joins what is to be filled into patches.
func Walk(r WalkRequest) (Walked, error) {
	out := Walked{Notes: []message.Sentence{}}
	var bad fielderr.Errors
	if len(r.Lines) > 100 || len(r.Lows) > 200 {
		bad.Add("lines", "at most 100 lines and 200 lows are taken")
	}
	strips := []strip{}
	downM := 0.0 // where the next line without a place lies on a drawing of its own
	for k, l := range r.Lines {
		at := fmt.Sprintf("lines[%d]", k)
		bad.Above(at+".widthM", l.WidthM, 0, 20, "m")
		if l.On != nil {
			bad.Under(at+".on", l.On.validate())
		}
		breaks := l.Breaks
		if l.On != nil {
			breaks = append(slices.Clone(breaks), l.On.crossed(r.Hard, l.points(r.SpacingM))...)
		}
		got, err := Straightedge(EdgeRequest{EdgeM: r.EdgeM, SpacingM: r.SpacingM, GapLimitMM: r.LimitMM,
			ReadingErrorMM: r.ErrorMM, Placements: l.Placements, Breaks: breaks})
		if err != nil {
			bad.Under(at, err)
			continue
		}
		out.Lines = append(out.Lines, got)
		out.TiltsNotObserved += got.TiltsNotObserved
		out.BeforeMM, out.AfterMM = max(out.BeforeMM, got.BeforeMM), max(out.AfterMM, got.AfterMM)
		for _, n := range got.Notes {
			out.Notes = append(out.Notes, message.Of("%s: %v", l.named(k), n))
		}
		s, told := r.strip(k, got, &downM)
		out.Notes = append(out.Notes, told...)
		strips = append(strips, s)
	}
	for k, l := range r.Lows {
		bad.Under(fmt.Sprintf("lows[%d]", k), l.validate())
	}
	if err := bad.Err(); err != nil {
		return out, err
	}
	out.Chart = newChart(strips, nil)
	for k, l := range r.Lows {
		if out.Chart.covered(l.middle(), l.View, len(strips)) {
			out.Notes = append(out.Notes, message.Of("%s was read with the edge: what was read counts, not the guess.",
				l.patch(k).Name))
			continue
		}
		out.Chart.lows = append(out.Chart.lows, l)
	}
	out.Patches = out.Chart.patch(max(seenMM, r.ErrorMM))
	out.Need, out.AreaM2 = out.Chart.need(out.Patches), out.Chart.areaM2()
	out.LowL, out.HighL = out.Need.FillL, out.Need.FillL
	for k, l := range out.Lines { // the joints' doubt in the share of what is filled
		if l.LitresPerM > 0 && l.TiltsNotObserved > 0 {
			share := litres(l.FillMM, r.SpacingM) / l.LitresPerM * r.Lines[k].WidthM
			out.LowL += (l.LitresPerMLow - l.LitresPerM) * share
			out.HighL += (l.LitresPerMHigh - l.LitresPerM) * share
		}
	}
	for _, p := range out.Patches {
		out.LowL, out.HighL = out.LowL-p.SpreadL, out.HighL+p.SpreadL
	}
	return out, nil
}

// strip is where a line lies that was read, on the boat or, without a place there, below the lines
// before it on a drawing of its own, whose depth is downM.
func (r WalkRequest) strip(k int, got EdgeResult, downM *float64) (s strip, told []message.Sentence) {
	l, long := r.Lines[k], got.AtM[len(got.AtM)-1]
	s = strip{name: l.named(k), way: l.Way, line: k, widthM: l.WidthM, spacing: r.SpacingM, depth: got.FillMM}
	if l.On == nil {
		*downM += l.WidthM / 2
		s.on = Track{From: outline.Point{Y: -*downM}, To: outline.Point{X: long, Y: -*downM}}
		*downM += l.WidthM / 2
		return s, nil
	}
	s.on = *l.On
	if mapM := s.on.lengthM(); mapM > 1.15*long {
		told = append(told, message.Of(
			"%s is %.2g m long as read and %.2g m on the map: mark again where it begins and ends.",
			l.named(k), long, mapM))
	}
	return s, told
}

// FitChart lays the fair surface of a grid out by its place, with lows circled beside it, and joins
// what is to be filled into patches; what is shallower than a reading may be out is left.
func FitChart(g Grid, r Result, on *Track, lows []Low, errorMM float64) (Chart, []Patch, error) {
	var bad fielderr.Errors
	if on != nil {
		bad.Under("on", on.validate())
	}
	for k, l := range lows {
		bad.Under(fmt.Sprintf("lows[%d]", k), l.validate())
	}
	if bad != nil {
		return Chart{}, nil, bad
	}
	c := chartOf(g, slices.Clone(r.Depth), on)
	for _, l := range lows {
		if !c.covered(l.middle(), l.View, len(c.strips)) {
			c.lows = append(c.lows, l)
		}
	}
	return c, c.patch(max(seenMM, errorMM)), nil
}

// Hardened adds the columns and rows of a grid that hard lines cross to its breaks.
func (g Grid) Hardened(on *Track, hard []survey.HardLine) Grid {
	if on == nil || len(hard) == 0 {
		return g
	}
	rows, columns := make([][]int, g.NX), make([][]int, g.NY)
	down := *on
	down.To = on.below(float64(g.NY-1) * g.DY).From
	for y := range g.NY {
		columns[y] = on.below(float64(y)*g.DY).crossed(hard, g.NX)
	}
	if g.NY > 2 {
		dx, dy := on.To.X-on.From.X, on.To.Y-on.From.Y
		for x := range g.NX {
			u := float64(x) / float64(g.NX-1)
			t := down
			t.From.X, t.From.Y, t.To.X, t.To.Y = t.From.X+u*dx, t.From.Y+u*dy, t.To.X+u*dx, t.To.Y+u*dy
			rows[x] = t.crossed(hard, g.NY)
		}
	}
	g.Breaks = append(slices.Clone(g.Breaks), most(columns)...)
	g.RowBreaks = append(slices.Clone(g.RowBreaks), most(rows)...)
	return g
}

// most is the middle of the crossings, if at least half of the lines are crossed.
func most(crossings [][]int) []int {
	var all []int
	n := 0
	for _, c := range crossings {
		if len(c) > 0 {
			n++
		}
		all = append(all, c...)
	}
	if 2*n < len(crossings) || n == 0 {
		return nil
	}
	slices.Sort(all)
	return []int{all[len(all)/2]}
}

func (l Line) points(spacingM float64) int {
	n := 0
	for _, p := range l.Placements {
		n = max(n, EdgeRequest{SpacingM: spacingM}.start(p)+len(p.GapsMM))
	}
	return n
}

func (l Line) named(k int) string {
	if l.Name != "" {
		return l.Name
	}
	return fmt.Sprintf("line %d", k+1)
}
