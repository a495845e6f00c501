package fair

import (
	"fmt"
	"math"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
)

// Placement is a straightedge laid once, from StartM along the line on, with the gaps under it at
// every reading from its beginning to its end, mm; nil where none was read.
type Placement struct {
	StartM float64    `json:"startM"`
	GapsMM []*float64 `json:"gapsMM"`
}

// EdgeRequest is the input of the straightedge calculator: placements of one straightedge along a
// line. GapLimitMM is what may stay under it anywhere, ReadingErrorMM what a reading may be out.
type EdgeRequest struct {
	EdgeM          float64     `json:"edgeM"`
	SpacingM       float64     `json:"spacingM"`
	GapLimitMM     float64     `json:"gapLimitMM"`
	ReadingErrorMM float64     `json:"readingErrorMM,omitempty"`
	Placements     []Placement `json:"placements"`
	// Breaks are readings, counted from the first of the line, at which a knuckle lets it turn.
	Breaks []int `json:"breaks,omitempty"`
}

// EdgeResult is the surface along the line. HeightsMM are outward, less the line through the first
// and the last, and FillMM what is laid on them, at the places AtM. Where tilts between placements
// were not observed, the litres lie between Low, if the joints favour one, and High, if what was
// read is carried fairly through.
type EdgeResult struct {
	AtM              []float64 `json:"atM"`
	HeightsMM        []float64 `json:"heightsMM"`
	FillMM           []float64 `json:"fillMM"`
	LitresPerM       float64   `json:"litresPerMWidth"`
	LitresPerMLow    float64   `json:"litresPerMWidthLow"`
	LitresPerMHigh   float64   `json:"litresPerMWidthHigh"`
	DeepestMM        float64   `json:"deepestFillMM"`
	TiltsNotObserved int       `json:"relativeTiltsNotObserved"`
	// BeforeMM and AfterMM are the greatest gaps under the edge.
	BeforeMM float64            `json:"beforeMM"`
	AfterMM  float64            `json:"afterMM"`
	Notes    []message.Sentence `json:"notes"`
	Working  working.Working    `json:"working"`
}

// Most of what is taken: readings along a line, and placements.
const (
	mostLine       = 1000
	mostPlacements = 100
)

func (r EdgeRequest) validate() error {
	var bad fielderr.Errors
	bad.Range("edgeM", r.EdgeM, 0.1, 20, "m")
	bad.Range("spacingM", r.SpacingM, 0.005, 5, "m")
	bad.Range("gapLimitMM", r.GapLimitMM, 0.05, 50, "mm")
	bad.Range("readingErrorMM", r.ReadingErrorMM, 0, 10, "mm")
	if len(r.Placements) == 0 || len(r.Placements) > mostPlacements {
		bad.Add("placements", "give 1 to %d placements", mostPlacements)
	}
	if bad != nil {
		return bad
	}
	for k, p := range r.Placements {
		at := func(field string) string { return fmt.Sprintf("placements[%d].%s", k, field) }
		bad.Range(at("startM"), p.StartM, 0, 200, "m")
		if n := p.StartM / r.SpacingM; math.Abs(n-math.Round(n)) > 0.01 {
			bad.Add(at("startM"), "must be so many spacings of %.3g m from the first", r.SpacingM)
		}
		read := 0
		for i, g := range p.GapsMM {
			if g == nil {
				continue
			}
			read++
			bad.Range(fmt.Sprintf("placements[%d].gapsMM[%d]", k, i), *g, 0, mostGapMM, "mm")
		}
		if read < 3 {
			bad.Add(at("gapsMM"), "a placement needs at least three readings")
		}
		if float64(len(p.GapsMM)-1)*r.SpacingM > r.EdgeM*1.001 {
			bad.Add(at("gapsMM"), "%d readings reach beyond the edge", len(p.GapsMM))
		}
		if k > 0 && p.StartM < r.Placements[k-1].StartM {
			bad.Add(at("startM"), "placements come in their order along the line")
		}
		if end := p.StartM/r.SpacingM + float64(len(p.GapsMM)); end > mostLine {
			bad.Add(at("gapsMM"), "at most %d readings along a line are taken", mostLine)
		}
	}
	return bad.Err()
}

// body is placements whose lines are known to one another: heights where they read, NaN elsewhere.
type body struct {
	first, last int // readings
	height      []float64
	placements  []int
}

// Straightedge fits heights to gaps with a line of its own for every placement, fills them until
// no edge of the length or shorter shows more than the limit, and tells what stays unknown.
func Straightedge(r EdgeRequest) (EdgeResult, error) {
	if err := r.validate(); err != nil {
		return EdgeResult{}, err
	}
	points := 0
	for _, p := range r.Placements {
		points = max(points, r.start(p)+len(p.GapsMM))
	}
	bodies := r.bodies(points)
	out := EdgeResult{Notes: []message.Sentence{}, TiltsNotObserved: len(bodies) - 1}
	heights := r.joined(bodies, points, &out)
	m := int(math.Round(r.EdgeM / r.SpacingM))
	whole := r.filled(heights, m)
	for _, b := range bodies { // if every joint favoured one, each would be filled for itself
		alone := slices.Clone(b.height)
		out.LitresPerMLow += litres(fillOf(alone, r.filled(alone, m)), r.SpacingM)
	}
	level(heights, whole)
	out.HeightsMM, out.FillMM = heights, fillOf(heights, whole)
	for i := range heights {
		out.AtM = append(out.AtM, float64(i)*r.SpacingM)
	}
	out.LitresPerM = litres(out.FillMM, r.SpacingM)
	out.LitresPerMHigh = max(out.LitresPerM, out.LitresPerMLow)
	out.LitresPerMLow = min(out.LitresPerM, out.LitresPerMLow)
	out.DeepestMM = slices.Max(out.FillMM)
	out.BeforeMM, out.AfterMM = r.unfair(heights, m), r.unfair(whole, m)
	r.explain(&out)
	return out, nil
}

func (r EdgeRequest) explain(out *EdgeResult) {
	out.Working = working.New()
	w := &out.Working
	w.In("Edge", r.EdgeM, "m")
	w.In("Readings every", r.SpacingM, "m")
	w.In("Placements", float64(len(r.Placements)), "")
	w.In("Gap allowed", r.GapLimitMM, "mm")
	w.In("A reading may be out", r.ReadingErrorMM, "mm")
	w.Step("Tilts not observed", "placements that share fewer than two readings with those before",
		float64(out.TiltsNotObserved), "", "each placement has a line of its own")
	w.Step("Deepest fill", "least surface that shows no edge of the length more than is allowed", out.DeepestMM, "mm",
		"raised from below until nothing moves")
	w.Step("Filler for a metre of width", "∫ fill", out.LitresPerM, "L", "1 mm on 1 m² is 1 L")
	if out.TiltsNotObserved > 0 {
		w.Step("If the joints favour it", "every placement filled for itself", out.LitresPerMLow, "L",
			"no tilt of the joints needs less")
		out.Notes = append(out.Notes,
			message.Of(
				"The edge was laid end to end %d times: how the placements tilt against each other is not known, and between %.2g L and %.2g L a metre are needed. Lay it again overlapping by half, and it is.",
				out.TiltsNotObserved, out.LitresPerMLow, out.LitresPerMHigh))
	}
	if r.GapLimitMM < r.ReadingErrorMM {
		out.Notes = append(out.Notes,
			message.Of(
				"A gap of %.2g mm cannot be read to %.2g mm: what is filled below that is the reading, not the hull.",
				r.GapLimitMM, r.ReadingErrorMM))
	}
}
