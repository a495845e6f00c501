package brightwork

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	work := Usual()
	work.Now = 6
	work.Seams = &Seam{SpacingMM: 40, LineMM: 4, LengthM: 3, WidthM: 1}
	bounds.Try(t, work, Work.Validate, map[string]bounds.Bound{
		"reachM": bounds.From(0.1, 2), "veneerMM": bounds.From(0, 30), "leaveMM": bounds.From(0, 10),
		"bungs": bounds.From(0, 5000), "now": bounds.From(1, 20), "later": bounds.From(0, 20),
		"aboveDewH": bounds.From(1, 48), "seams.spacingMM": bounds.From(10, 500), "seams.lengthM": bounds.Above(0, 50),
		"seams.widthM": bounds.Above(0, 20), "seams.after": bounds.From(0, 6),
	})
	work.Seams.SpacingMM = 500
	bounds.Try(t, work, Work.Validate, map[string]bounds.Bound{"seams.lineMM": bounds.From(1, 50)})
}
