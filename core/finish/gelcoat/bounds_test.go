package gelcoat

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	laid := Usual(3)
	bounds.Try(t, laid, Work.Validate, map[string]bounds.Bound{
		"tempC": bounds.From(0, 45), "areaM2": bounds.Above(0, 1000), "filmUm": bounds.From(200, 2000),
		"passUm": bounds.From(50, 1000), "leastUm": bounds.From(0, 1500), "fromGrit": bounds.From(40, 3000),
	})
	laid.FromGrit = 40
	bounds.Try(t, laid, Work.Validate, map[string]bounds.Bound{"toGrit": bounds.From(40, 5000)})
	mended := Usual(3)
	mended.Way, mended.Gouges = Repair, []Gouge{{LengthMM: 50, WidthMM: 20, DepthMM: 2, Count: 1}}
	bounds.Try(t, mended, Work.Validate, map[string]bounds.Bound{
		"gouges[0].lengthMM": bounds.Above(0, 5000), "gouges[0].widthMM": bounds.Above(0, 5000),
		"gouges[0].depthMM": bounds.Above(0, 30), "gouges[0].count": bounds.From(1, 500),
	})
}
