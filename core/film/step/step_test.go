package step

import (
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/catalog/product"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func coats() Step {
	return Step{Work: Coat, Coats: 2, DFTUm: 50, Method: "roller", LossPct: 10,
		Sheet: product.Sheet{Name: "primer", Kind: product.HighBuild, VolumeSolidsPct: 50}}
}

func sanding() Step { return Step{Work: Sand, Grit: 180} }

// Each figure of a step may lie on its bounds and not past them; what is refused is named by its field.
func TestBoundsOfAStep(t *testing.T) {
	for _, c := range []struct {
		path     string
		of       func() Step
		in, past float64
		set      func(s *Step, v float64)
	}{
		{"coats", coats, 50, 51, func(s *Step, v float64) { s.Coats = int(v) }},
		{"coats", coats, 1, 0, func(s *Step, v float64) { s.Coats = int(v) }},
		{"dftUm", coats, 50000, 50001, func(s *Step, v float64) { s.DFTUm = v }},
		{"dftUm", coats, 0.1, 0, func(s *Step, v float64) { s.DFTUm = v }},
		{"lossPct", coats, 90, 91, func(s *Step, v float64) { s.LossPct = v }},
		{"thinnerPct", coats, 50, 51, func(s *Step, v float64) { s.ThinnerPct = v }},
		{"grit", sanding, 16, 15, func(s *Step, v float64) { s.Grit = int(v) }},
		{"grit", sanding, 5000, 5001, func(s *Step, v float64) { s.Grit = int(v) }},
		{"removedUm", sanding, 20000, 20001, func(s *Step, v float64) { s.RemovedUm = v }},
		{"coats", sanding, 0, 1, func(s *Step, v float64) { s.Coats = int(v) }},
		{"hours", coats, 1000, 1001, func(s *Step, v float64) { s.Hours = v }},
		{"waitH", coats, 8760, 8761, func(s *Step, v float64) { s.WaitH = v }},
		{"crew", coats, 20, 21, func(s *Step, v float64) { s.Crew = int(v) }},
		{"keyGrit", coats, 16, 15, func(s *Step, v float64) { s.KeyGrit = int(v) }},
		{"keyGrit", coats, 5000, 5001, func(s *Step, v float64) { s.KeyGrit = int(v) }},
		{"tapeM", coats, 5000, 5001, func(s *Step, v float64) { s.TapeM = v }},
		{"tapeH", coats, 8760, 8761, func(s *Step, v float64) { s.TapeH = v }},
		{"where.sharePct", coats, 100, 101, func(s *Step, v float64) { s.Where = &Where{Name: "waterline", SharePct: v} }},
		{"where.sharePct", coats, 0.1, 0, func(s *Step, v float64) { s.Where = &Where{Name: "waterline", SharePct: v} }},
		{"where.patches[0].areaM2", coats, 5000, 5001, func(s *Step, v float64) {
			s.Where = &Where{Name: "patches", Patches: []Patch{{"one", v}}}
		}},
	} {
		s := c.of()
		c.set(&s, c.in)
		assert.NoError(t, s.Validate(), "%s of %g", c.path, c.in)
		c.set(&s, c.past)
		var bad fielderr.Errors
		require.ErrorAs(t, s.Validate(), &bad, "%s of %g", c.path, c.past)
		assert.Equal(t, c.path, bad[0].Path, "%s of %g", c.path, c.past)
	}
}

// What is not there or does not go is refused by name.
func TestWhatAStepLacks(t *testing.T) {
	for path, s := range map[string]func() Step{
		"work":      func() Step { return Step{Work: "polish the moon"} },
		"method":    func() Step { s := coats(); s.Method = "mop"; return s },
		"productId": func() Step { s := coats(); s.Sheet.Kind = product.Thinner; return s },
		"grade":     func() Step { s := coats(); s.Grade = "arctic"; return s },
		"name":      func() Step { return Step{Work: Other} },
		"pull":      func() Step { s := coats(); s.Pull = "yesterday"; return s },
		"where.name": func() Step {
			s := coats()
			s.Where = &Where{SharePct: 5}
			return s
		},
		"where.patches[1].name": func() Step {
			s := coats()
			s.Where = &Where{Name: "patches", Patches: []Patch{{"one", 1}, {"one", 1}}}
			return s
		},
	} {
		var bad fielderr.Errors
		require.ErrorAs(t, s().Validate(), &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

// A third of 12 m², or its patches of 1 and 2 m² in their place: the named one is a third of them.
func TestPartsOfASurface(t *testing.T) {
	var whole *Where
	share, patches := &Where{SharePct: 25}, &Where{SharePct: 25, Patches: []Patch{{"bow", 1}, {"stern", 2}}}
	assert.Equal(t, []float64{12, 3, 3}, []float64{whole.AreaM2(12), share.AreaM2(12), patches.AreaM2(12)})
	assert.InDelta(t, 1.0/3, patches.Part([]string{"bow", "keel"}), 1e-12)
	assert.InDelta(t, 1, patches.Part([]string{"bow", "stern", "bow"}), 1e-12)
	assert.Zero(t, share.Part([]string{"bow"}))
	assert.Zero(t, whole.Part([]string{"bow"}))
}

// 50 µm dry of 50 % solids, thinned by a tenth, are 110 µm wet.
func TestWetFilmOfAStep(t *testing.T) {
	s := coats()
	s.ThinnerPct = 10
	assert.InDelta(t, 110, s.WetUm(), 1e-9)
	assert.True(t, s.Films())
	assert.False(t, sanding().Films())
	assert.Equal(t, "sand with 180", sanding().Words().String())
	assert.Equal(t, "one coat", Ordinal(1, 1).String())
	assert.Equal(t, "coat 2 of 3", Ordinal(2, 3).String())
}
