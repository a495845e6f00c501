package fair

import (
	"encoding/json"
	"math"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The reference placements: profiles by least squares (numpy), the least filling by linear
// programming (HiGHS).
func TestReferenceStraightedges(t *testing.T) {
	raw, err := os.ReadFile("testdata/straightedge.json")
	require.NoError(t, err)
	type span struct {
		Least float64 `json:"at_least"`
		Most  float64 `json:"at_most"`
	}
	var file struct {
		Cases []struct {
			Name  string
			Input struct {
				Edge    float64     `json:"edge_length_m"`
				Spacing float64     `json:"reading_spacing_m"`
				Step    float64     `json:"step_between_placements_m"`
				Limit   float64     `json:"gap_limit_mm"`
				Error   float64     `json:"reading_error_mm"`
				Gaps    [][]float64 `json:"gaps_mm"`
			}
			Expect struct {
				Tilts   int       `json:"relative_tilts_not_observed"`
				Litres  span      `json:"litres_per_m_width"`
				Deepest span      `json:"deepest_fill_mm"`
				Profile []float64 `json:"profile_mm"`
				Favour  *float64  `json:"litres_per_m_width_if_joints_favour"`
				Through *float64  `json:"litres_per_m_width_if_carried_through"`
			}
		}
	}
	require.NoError(t, json.Unmarshal(raw, &file))
	require.Len(t, file.Cases, 10)
	for _, c := range file.Cases {
		r := EdgeRequest{EdgeM: c.Input.Edge, SpacingM: c.Input.Spacing, GapLimitMM: c.Input.Limit,
			ReadingErrorMM: c.Input.Error}
		for k, gaps := range c.Input.Gaps {
			p := Placement{StartM: float64(k) * c.Input.Step}
			for _, g := range gaps {
				g = math.Abs(g) // −0
				p.GapsMM = append(p.GapsMM, &g)
			}
			r.Placements = append(r.Placements, p)
		}
		got, err := Straightedge(r)
		require.NoError(t, err, c.Name)
		assert.Equal(t, c.Expect.Tilts, got.TiltsNotObserved, c.Name)
		require.Len(t, got.HeightsMM, len(c.Expect.Profile), c.Name)
		assert.InDeltaSlice(t, c.Expect.Profile, got.HeightsMM, 0.05, c.Name)
		assert.GreaterOrEqual(t, got.LitresPerM, c.Expect.Litres.Least, c.Name)
		assert.LessOrEqual(t, got.LitresPerM, c.Expect.Litres.Most, c.Name)
		assert.GreaterOrEqual(t, got.DeepestMM, c.Expect.Deepest.Least, c.Name)
		assert.LessOrEqual(t, got.DeepestMM, c.Expect.Deepest.Most, c.Name)
		if c.Expect.Favour != nil {
			assert.InDelta(t, *c.Expect.Favour, got.LitresPerMLow, 1e-3, c.Name)
			assert.InDelta(t, max(*c.Expect.Favour, *c.Expect.Through), got.LitresPerMHigh, 0.01, c.Name)
			assert.NotEmpty(t, got.Notes, c.Name)
		}
	}
}

func under1(mm ...float64) []*float64 {
	out := make([]*float64, len(mm))
	for i := range mm {
		out[i] = &mm[i]
	}
	return out
}

// A hollow is not the gaps of every placement added up: 9 mm deep and 3 m wide it takes 13.5 L for
// each metre if it is filled flush, and a straightedge of 2 m laid end to end shows 2.5 mm of it.
func TestAWideHollowIsNotLost(t *testing.T) {
	depth := func(x float64) float64 { // 9 mm in a parabola over 3 m, in a line of 7 m
		if u := (x - 3.5) / 1.5; u > -1 && u < 1 {
			return 9 * (1 - u*u)
		}
		return 0
	}
	gaps := func(from float64) Placement { // resting on the two corners of the envelope about its middle
		p := Placement{StartM: from}
		var h []float64
		for i := range 21 {
			h = append(h, -depth(from+0.1*float64(i)))
		}
		a, z := 0, 0
		for i := range 11 {
			for k := 10; k < len(h); k++ {
				over := func(n int) float64 { return h[i] + (h[k]-h[i])*float64(n-i)/float64(k-i) - h[n] }
				ok := k > i
				for n := range h {
					ok = ok && over(n) > -1e-9
				}
				if ok && k-i > z-a {
					a, z = i, k
				}
			}
		}
		for n := range h {
			g := math.Max(0, h[a]+(h[z]-h[a])*float64(n-a)/float64(z-a)-h[n])
			p.GapsMM = append(p.GapsMM, &g)
		}
		return p
	}
	r := EdgeRequest{EdgeM: 2, SpacingM: 0.1, GapLimitMM: 0.1}
	for k := range 6 {
		r.Placements = append(r.Placements, gaps(float64(k)))
	}
	got, err := Straightedge(r)
	require.NoError(t, err)
	assert.Zero(t, got.TiltsNotObserved)
	assert.InDelta(t, 9, -minOf(got.HeightsMM), 0.05)
	assert.Greater(t, got.LitresPerM, 13.5, "9 mm · 3 m · ⅔ = 18 L/m flush, less what the limit lets stand")
	assert.LessOrEqual(t, got.AfterMM, 0.1+1e-6)
	assert.Greater(t, got.BeforeMM, 3.0)
}

func minOf(v []float64) float64 {
	least := v[0]
	for _, x := range v {
		least = min(least, x)
	}
	return least
}

// Readings that are out by less than they can be read are no filler; a real low beside is one
// patch, with its place.
func TestReadingNoiseIsNotFilled(t *testing.T) {
	noise := Placement{GapsMM: under1(0.2, 0, 0.2, 0.1, 0, 0.2, 0, 0.1, 0.2, 0, 0.1)}
	low := Placement{GapsMM: under1(0, 0, 0, 2, 4, 5, 4, 2, 0, 0, 0)}
	got, err := Walk(WalkRequest{Lines: []Line{{Way: "along", WidthM: 0.4, Placements: []Placement{noise}},
		{Way: "along", WidthM: 0.4, Placements: []Placement{low}},
		{Way: "along", WidthM: 0.4, Placements: []Placement{low}}},
		EdgeM: 1, SpacingM: 0.1, LimitMM: 0.1, ErrorMM: 0.25})
	require.NoError(t, err)
	require.Len(t, got.Patches, 1, "the low runs over two lines")
	assert.Equal(t, "line 2, patch 1", got.Patches[0].Name)
	assert.InDelta(t, 0.3, got.Patches[0].FromM, 1e-9)
	assert.InDelta(t, 0.7, got.Patches[0].ToM, 1e-9)
	assert.InDelta(t, 2*0.4*0.5, got.Patches[0].AreaM2, 1e-9)
	assert.InDelta(t, 2*0.4*0.1*(17-0.5), got.Patches[0].Litres, 0.02, "gaps of 17 mm in all less a tenth left at each")
	assert.Equal(t, got.Need.FillL, got.Patches[0].Litres)
	_, err = Walk(WalkRequest{Lines: []Line{{Way: "along", WidthM: 0, Placements: []Placement{{GapsMM: under1(1, 2)}}}},
		EdgeM: 1, SpacingM: 0.1, LimitMM: 1})
	assert.ErrorContains(t, err, "lines[0].widthM")
	assert.ErrorContains(t, err, "lines[0].placements[0].gapsMM")
}

// A knuckle in the line is not filled across.
func TestBreaksAreNotSpanned(t *testing.T) {
	v := Placement{GapsMM: under1(0, 2, 4, 6, 8, 10, 8, 6, 4, 2, 0)}
	r := EdgeRequest{EdgeM: 1, SpacingM: 0.1, GapLimitMM: 0.5, Placements: []Placement{v}}
	whole, err := Straightedge(r)
	require.NoError(t, err)
	assert.Greater(t, whole.LitresPerM, 1.0)
	r.Breaks = []int{5}
	bent, err := Straightedge(r)
	require.NoError(t, err)
	assert.InDelta(t, 0, bent.LitresPerM, 1e-9)
}
