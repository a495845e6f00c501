package mesh

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	bounds.Try(t, Placing{Unit: "m", Up: "+z", Forward: "+x"}, Placing.Validate, map[string]bounds.Bound{
		"waterlineM": bounds.From(-20, 20), "bootTopM": bounds.From(0, 5)})
}
