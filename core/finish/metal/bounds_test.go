package metal

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	work := Usual(6)
	work.ReadingsUm, work.Posts = []float64{150}, []Post{{AcrossMM: 60, CollarMM: 20}}
	bounds.Try(t, work, Work.Validate, map[string]bounds.Bound{
		"areaM2": bounds.Above(0, 5000), "coats": bounds.From(1, 20), "edgeM": bounds.From(0, 5000),
		"oldUm": bounds.From(0, 5000), "pits": bounds.From(0, 500), "pitMM": bounds.From(0, 30), "pitM2": bounds.From(0, 6),
		"nominalUm": bounds.Above(0, 5000), "readingsUm[0]": bounds.From(0, 20000),
		"posts[0].acrossMM": bounds.Above(0, 2000), "posts[0].collarMM": bounds.Above(0, 500),
		"posts[0].riseMM": bounds.From(0, 200),
	})
}
