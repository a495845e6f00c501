package climate

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "What a model is off by", figures.Rows{
		"without readings": {modelK}, "with readings": {probedK}, "and stays so for": {modelMemoryH},
		"a coat that fails costs": {failCents},
	})
}
