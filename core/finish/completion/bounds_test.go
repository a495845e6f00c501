package completion

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
	"allcoats/core/film/step"
)

func TestBounds(t *testing.T) {
	bounds.Try(t, Work{Lines: []Line{{Name: "boot top", Tape: "crepe", Pull: step.Hard}}}, Work.Validate,
		map[string]bounds.Bound{"lines[0].lengthM": bounds.From(0, 2000)})
}
