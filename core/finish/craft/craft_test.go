package craft

import (
	"allcoats/core/film/film"
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAPlanAddsUp(t *testing.T) {
	p := New("mind the fumes")
	p.Do(Work("s", "sand", nil, 2, 0.5))
	p.Do(Coats("c", "main", 2, 60, film.Methods[0], 0.5, nil))
	assert.InDelta(t, 3, p.WorkH(), 1e-12)
	assert.Empty(t, p.Stopped())
	p.Find(false, "thin at %s", "the edge")
	assert.Empty(t, p.Stopped(), "a warning stops nothing")
	p.Find(true, "too cold by %d", 4)
	p.Find(true, "too wet")
	assert.Equal(t, "too cold by 4", p.Stopped().String(), "the first that stops it")
	assert.InDelta(t, 0.4, p.Take("paint", "area · film", 0.4, "L", "sheet"), 1e-12)
	require.Len(t, p.Takes, 1)
	assert.Equal(t, "area · film", p.Working.Steps[0].Formula.String())
	raw, err := json.Marshal(New())
	require.NoError(t, err)
	assert.NotContains(t, string(raw), "null", "lists are never null")
}
