package logbook

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	d := Detail{Round: &Round{N: 1, By: FoundBy[0], Verdict: Verdicts[0]},
		Dry: &Dry{NominalUm: 100, ReadingsUm: []float64{90}}}
	bounds.Try(t, d, Detail.Validate, map[string]bounds.Bound{
		"baseG": bounds.From(0, 1000000), "hardenerG": bounds.From(0, 1000000), "round.n": bounds.From(1, 100),
		"round.lows": bounds.From(0, 100000), "round.pinholes": bounds.From(0, 1000000), "sharePct": bounds.From(0, 100),
		"dry.nominalUm": bounds.Above(0, 50000), "dry.maximumUm": bounds.From(0, 200000),
		"dry.profileUm": bounds.From(0, 200), "dry.readingsUm[0]": bounds.From(0, 200000)})
}
