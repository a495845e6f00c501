package formats

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestLettersHaveTheirHoles(t *testing.T) {
	for text, want := range map[string][2]int{"A": {1, 1}, "B8": {2, 4}, "IL": {2, 0}, "i": {2, 0}, "O O": {2, 2}} {
		got, err := Letters(text)
		require.NoError(t, err, text)
		holes := 0
		for _, p := range got {
			require.NoError(t, p.Validate(), text)
			holes += len(p.Holes)
		}
		assert.Equal(t, want, [2]int{len(got), holes}, text)
	}
	h, err := Letters("H")
	require.NoError(t, err)
	lo, hi := h.Bounds()
	assert.InDelta(t, 0, lo.Y, 1e-3, "it stands on the line")
	assert.InDelta(t, 0.72, hi.Y, 0.02, "capitals are about 0.72 of an em high")
	two, err := Letters("HH")
	require.NoError(t, err)
	_, end := two.Bounds()
	assert.Greater(t, end.X-hi.X, hi.X-lo.X, "side by side")
	_, err = Letters("A\U0001F600")
	assert.ErrorContains(t, err, "cannot be drawn")
	none, err := Letters(" ")
	require.NoError(t, err)
	assert.Empty(t, none)
}
