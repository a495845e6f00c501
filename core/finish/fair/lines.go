package fair

import (
	"fmt"
	"math"
	"slices"

	"allcoats/core/base/fault"
	"allcoats/core/base/say"
)

// Line is where a straightedge was walked: along, across or diagonally, and the width that it
// stands for.
type Line struct {
	Name       string      `json:"name"`
	Way        string      `json:"way" enum:"along,across,diagonal"`
	WidthM     float64     `json:"widthM"`
	Placements []Placement `json:"placements"`
	Breaks     []int       `json:"breaks,omitempty"`
}

// Patch is a low to be filled: readings of one line, or of neighbouring ones side by side.
type Patch struct {
	Name string `json:"name"`
	// FromM to ToM is where it lies along its first line.
	FromM     float64 `json:"fromM"`
	ToM       float64 `json:"toM"`
	AreaM2    float64 `json:"areaM2"`
	Litres    float64 `json:"litres"` // on the surface, without loss
	DeepestMM float64 `json:"deepestMM"`
}

// Walked is what lines of one set come to. Low to High is the range where tilts between placements
// were not observed. What is shallower than a reading may be out is not filled.
type Walked struct {
	Lines            []EdgeResult
	FillL, LowL      float64
	HighL            float64
	FillM2, AreaM2   float64
	DeepestMM        float64
	BeforeMM         float64
	AfterMM          float64
	TiltsNotObserved int
	Patches          []Patch
	Notes            []say.Sentence
}

// Walk works lines out that were read with an edge at a spacing, each for itself.
func Walk(lines []Line, edgeM, spacingM, limitMM, errorMM float64) (Walked, error) {
	out := Walked{Patches: []Patch{}, Notes: []say.Sentence{}}
	var bad fault.Errors
	if len(lines) > 100 {
		bad.Add("lines", "at most 100 lines are taken")
	}
	for k, l := range lines {
		at := fmt.Sprintf("lines[%d]", k)
		bad.Above(at+".widthM", l.WidthM, 0, 20, "m")
		r, err := Straightedge(EdgeRequest{EdgeM: edgeM, SpacingM: spacingM, GapLimitMM: limitMM, ReadingErrorMM: errorMM, Placements: l.Placements, Breaks: l.Breaks})
		if err != nil {
			bad.Under(at, err)
			continue
		}
		out.Lines = append(out.Lines, r)
		out.TiltsNotObserved += r.TiltsNotObserved
		out.AreaM2 += r.AtM[len(r.AtM)-1] * l.WidthM
		out.BeforeMM, out.AfterMM = max(out.BeforeMM, r.BeforeMM), max(out.AfterMM, r.AfterMM)
		for _, n := range r.Notes {
			out.Notes = append(out.Notes, say.Of("%s: %v", l.named(k), n))
		}
	}
	if err := bad.Err(); err != nil {
		return out, err
	}
	out.patch(lines, spacingM, max(seenMM, errorMM))
	for k, r := range out.Lines {
		if r.LitresPerM > 0 { // the joints' doubt in the share of what is filled
			share := litres(r.FillMM, spacingM) / r.LitresPerM
			out.LowL += r.LitresPerMLow * share * lines[k].WidthM
			out.HighL += r.LitresPerMHigh * share * lines[k].WidthM
		}
	}
	return out, nil
}

func (l Line) named(k int) string {
	if l.Name != "" {
		return l.Name
	}
	return fmt.Sprintf("line %d", k+1)
}

// run is a stretch of a line that wants filling.
type run struct{ line, from, to, patch int }

// patch joins stretches deeper than least on neighbouring lines into patches, and takes what is
// shallower out of the fill.
func (w *Walked) patch(lines []Line, spacing, least float64) {
	var runs []run
	for k, r := range w.Lines {
		for i := 0; i < len(r.FillMM); {
			if r.FillMM[i] <= 1e-6 {
				i++
				continue
			}
			from := i
			for i < len(r.FillMM) && r.FillMM[i] > 1e-6 {
				i++
			}
			if slices.Max(r.FillMM[from:i]) < least {
				clear(r.FillMM[from:i])
				continue
			}
			runs = append(runs, run{k, from, i - 1, len(runs)})
		}
	}
	for i := range runs {
		for j := range i {
			a, b := runs[j], runs[i]
			if a.line != b.line-1 || lines[a.line].Way != lines[b.line].Way || a.from > b.to || b.from > a.to {
				continue
			}
			from, to := max(a.patch, b.patch), min(a.patch, b.patch)
			for n := range runs {
				if runs[n].patch == from {
					runs[n].patch = to
				}
			}
		}
	}
	for first := range runs {
		var p Patch
		for _, r := range runs {
			if r.patch != first {
				continue
			}
			if p.Name == "" {
				p.Name = fmt.Sprintf("%s, patch %d", lines[r.line].named(r.line), len(w.Patches)+1)
				p.FromM, p.ToM = float64(r.from)*spacing, float64(r.to)*spacing
			}
			width := lines[r.line].WidthM
			p.AreaM2 += float64(r.to-r.from+1) * spacing * width
			for _, mm := range w.Lines[r.line].FillMM[r.from : r.to+1] {
				p.Litres += mm * spacing * width
				p.DeepestMM = math.Max(p.DeepestMM, mm)
			}
		}
		if p.Name != "" {
			w.Patches = append(w.Patches, p)
			w.FillL, w.FillM2, w.DeepestMM = w.FillL+p.Litres, w.FillM2+p.AreaM2, max(w.DeepestMM, p.DeepestMM)
		}
	}
}
