package fair

import (
	"testing"

	try "allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	gap := func(mm float64) *float64 { return &mm }
	edge := EdgeRequest{EdgeM: 2, SpacingM: 0.005, GapLimitMM: 1,
		Placements: []Placement{{GapsMM: []*float64{gap(0), gap(1), gap(0)}}}}
	try.Try(t, edge, EdgeRequest.validate, map[string]try.Bound{"edgeM": try.From(0.1, 20),
		"gapLimitMM": try.From(0.05, 50), "readingErrorMM": try.From(0, 10),
		"placements[0].startM": try.From(0, 200), "placements[0].gapsMM[1]": try.From(0, 300)})
	edge.EdgeM = 20
	try.Try(t, edge, EdgeRequest.validate, map[string]try.Bound{"spacingM": try.From(0.005, 5)})
	try.Try(t, Limits{MaxFillMM: 3, MaxGrindMM: 1, StiffnessM: 0.5}, Limits.Validate, map[string]try.Bound{
		"maxFillMM": try.From(0, 200), "maxGrindMM": try.From(0, 50), "stiffnessM": try.Above(0, 50)})
}
