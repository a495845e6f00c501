package practice

import (
	"fmt"
	"math"
	"math/rand/v2"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/finish/fair"
)

// Side is a length of side with a hollow in it that is not seen, and an edge to find it with.
type Side struct {
	Seed     uint64  `json:"seed"`
	LengthM  float64 `json:"lengthM"`
	EdgeM    float64 `json:"edgeM"`
	SpacingM float64 `json:"spacingM"`
}

// Read is what an edge showed on a side where it was laid, what that tells, and, once all of it is
// read, what was there.
type Read struct {
	Side
	Placements []fair.Placement `json:"placements"`
	// Heights are those that the readings tell, Truth those of the side, mm, empty until all is read.
	HeightsMM []float64        `json:"heightsMM"`
	TruthMM   []float64        `json:"truthMM"`
	LitresM   float64          `json:"litresM"` // for a metre of width, by the readings
	TrueM     float64          `json:"trueM"`
	Done      bool             `json:"done"`
	Right     bool             `json:"right"`
	Says      message.Sentence `json:"says"`
}

// The side: so long, read so closely, with a gap that may stay.
const (
	sideM   = 4.0
	sideGap = 0.5
	wedgeMM = 0.25
)

// DealSide makes the side of a seed.
func DealSide(seed uint64) Side { return Side{seed, sideM, 1, 0.1} }

// heights are of the side, mm outward: one long hollow, and a dent.
func (s Side) heights() []float64 {
	r := rand.New(rand.NewPCG(s.Seed, 91))
	middle, half, deep := 1.6+0.8*r.Float64(), 1.1+0.4*r.Float64(), 7+4*r.Float64()
	dent := 0.4 + 3.2*r.Float64()
	out := make([]float64, int(math.Round(s.LengthM/s.SpacingM))+1)
	for i := range out {
		x := float64(i) * s.SpacingM
		if u := (x - middle) / half; math.Abs(u) < 1 {
			out[i] -= deep * (1 - u*u)
		}
		out[i] -= 2 * math.Exp(-math.Pow((x-dent)/0.12, 2))
	}
	return out
}

// Lay lays the edge at places along the side and tells what it shows, to a quarter of a millimetre.
func (s Side) Lay(starts []float64) (Read, error) {
	out := Read{Side: s, Placements: []fair.Placement{}, HeightsMM: []float64{}, TruthMM: []float64{}}
	h, n := s.heights(), int(math.Round(s.EdgeM/s.SpacingM))
	var bad fielderr.Errors
	reached := make([]bool, len(h))
	for k, start := range starts {
		at := int(math.Round(start / s.SpacingM))
		if at < 0 || at+n >= len(h) || k > 60 {
			bad.Add(fmt.Sprintf("starts[%d]", k), "the edge must lie on the side")
			continue
		}
		p := fair.Placement{StartM: float64(at) * s.SpacingM}
		for i, g := range fair.Lay(h[at : at+n+1]) {
			g = math.Round(g/wedgeMM) * wedgeMM
			p.GapsMM = append(p.GapsMM, &g)
			reached[at+i] = true
		}
		out.Placements = append(out.Placements, p)
	}
	if bad != nil || len(starts) == 0 {
		out.Says = message.Of("Lay the edge at the beginning.")
		return out, bad.Err()
	}
	got, err := fair.Straightedge(s.request(out.Placements))
	if err != nil {
		return out, err
	}
	out.HeightsMM, out.LitresM = got.HeightsMM, got.LitresPerM
	for _, ok := range reached {
		if !ok {
			out.Says = message.Of("Go on to the end of the side: what is not read is not known.")
			return out, nil
		}
	}
	var laid []fair.Placement // everywhere, and read exactly
	for at := 0; at+n < len(h); at++ {
		p := fair.Placement{StartM: float64(at) * s.SpacingM}
		for _, g := range fair.Lay(h[at : at+n+1]) {
			p.GapsMM = append(p.GapsMM, &g)
		}
		laid = append(laid, p)
	}
	truth, err := fair.Straightedge(s.request(laid))
	if err != nil {
		return out, err
	}
	out.Done, out.TruthMM, out.TrueM = true, truth.HeightsMM, truth.LitresPerM
	out.Right = math.Abs(out.LitresM-out.TrueM) <= 0.2*out.TrueM
	switch {
	case got.TiltsNotObserved > 0:
		out.Says = message.Of(
			"End to end the edge does not tell how it tilts from one place to the next: %.1f L a metre by your readings, from %.1f L to %.1f L as the joints may lie, and %.1f L are needed. Overlap by half, and it tells.",
			out.LitresM, got.LitresPerMLow, got.LitresPerMHigh, out.TrueM)
	case out.Right:
		out.Says = message.Of(
			"Found: %.1f L a metre by your readings, and %.1f L are needed. Overlapping told how the edge tilted from place to place.", out.LitresM, out.TrueM)
	default:
		out.Says = message.Of(
			"%.1f L a metre by your readings, and %.1f L are needed: a quarter of a millimetre adds up along the line. Overlap more.", out.LitresM, out.TrueM)
	}
	return out, nil
}

func (s Side) request(p []fair.Placement) fair.EdgeRequest {
	return fair.EdgeRequest{EdgeM: s.EdgeM, SpacingM: s.SpacingM, GapLimitMM: sideGap, ReadingErrorMM: wedgeMM,
		Placements: p}
}
