package working

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestWorking(t *testing.T) {
	w := New()
	w.In("Area", 4, "m²")
	assert.Equal(t, 8.0, w.Step("Twice", "2 · area", 8, "m²", "arithmetic"))
	assert.Equal(t, []Quantity{{"Area", 4, "m²"}}, w.Inputs)
	assert.Equal(t, "Twice", w.Steps[0].Label)
	assert.Equal(t, "2 · area", w.Steps[0].Formula.String())
}

// Under one per cent a share may be meant; nothing, and one per cent, are as they stand.
func TestShare(t *testing.T) {
	for pct, told := range map[float64]bool{0: false, 0.01: true, 0.99: true, 1: false, 5: false} {
		w := New()
		w.Share("Loss", pct)
		assert.Equal(t, told, len(w.Warnings) > 0, pct)
	}
	w := New()
	w.Share("Loss", 0.15)
	assert.Contains(t, w.Warnings[0].String(), "Is 15 meant?")
}
