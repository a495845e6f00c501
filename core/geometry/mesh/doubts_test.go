package mesh

import (
	"testing"

	"allcoats/core/base/fielderr"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A boat of 9.8 m by 3.2 m, files of her placed rightly and wrongly.
func TestDoubtsAboutASizeAndAxes(t *testing.T) {
	for name, c := range map[string]struct {
		x, y, z     float64
		unit        string
		whole       bool
		path, words string
	}{
		"right":                 {9.7, 3.1, 2.2, "m", true, "", ""},
		"feet taken for metres": {32.15, 10.5, 7.2, "m", true, "unit", "In ft it would be 9.8 m"},
		"millimetres as metres": {98, 32, 22, "cm", true, "unit", "In mm it would be 9.8 m"},
		"another boat":          {6.4, 2.3, 1.5, "m", true, "unit", "say that it is right"},
		"a part of her":         {2.5, 1, 1, "m", false, "", ""},
		"a part too long":       {25, 1, 1, "m", false, "unit", ""},
		"sideways":              {3.2, 9.8, 2.2, "m", true, "forward", "is forward another axis"},
		"y up":                  {9.8, 2.2, 3.2, "m", true, "up", "is up another axis"},
	} {
		err := Report{SizeXM: c.x, SizeYM: c.y, SizeZM: c.z}.Doubts(Placing{Unit: c.unit}, 9.8, 3.2, c.whole)
		if c.path == "" {
			assert.NoError(t, err, name)
			continue
		}
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, name)
		assert.Equal(t, c.path, bad[0].Path, name)
		assert.Contains(t, bad[0].Message, c.words, name)
	}
}
