package outline

import (
	"math"
	"testing"

	"allcoats/core/boat/area"
	"allcoats/core/geometry/mesh"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var yawl = area.Dimensions{HullForm: area.Medium, LOAM: 8, LWLM: 6.5, BeamM: 2.5, DraughtM: 1, FreeboardM: 0.9,
	HousesM2: 4}

// every has a surface of every part on both sides.
func every() []Surface {
	out := make([]Surface, len(area.Parts))
	for i, p := range area.Parts {
		out[i] = Surface{ID: string(p.Part), Part: p.Part, Side: area.Both, AreaM2: 2}
	}
	return out
}

func byName(views []View) map[string]View {
	out := map[string]View{}
	for _, v := range views {
		out[v.Name] = v
	}
	return out
}

func TestDrawingHasTheBoatsMeasure(t *testing.T) {
	for _, form := range area.HullForms {
		d := yawl
		d.HullForm, d.DraughtM = form, 1.1
		views := byName(Map(FromDimensions(d), nil))
		require.Len(t, views, 4)
		plan, side := views[Plan], views[PortSide]
		assert.InDelta(t, 8, plan.Max.X-plan.Min.X, 1e-9, "%s: length", form)
		assert.InDelta(t, 2.5, plan.Max.Y-plan.Min.Y, 0.03, "%s: beam", form)
		assert.InDelta(t, -1.1, side.Min.Y, 0.02, "%s: draught", form)
		sum := 0.0
		for i := range 1000 {
			sum += sheer(d, d.LOAM*(float64(i)+0.5)/1000)
		}
		assert.InDelta(t, 0.9, sum/1000, 0.09, "%s: mean freeboard", form)
	}
}

func TestEverySurfaceHasAPlace(t *testing.T) {
	for _, form := range area.HullForms {
		d := yawl
		d.HullForm = form
		found := map[string]bool{}
		for _, v := range Map(FromDimensions(d), every()) {
			for _, s := range v.Shapes {
				found[s.SurfaceID] = true
				for _, p := range append(s.Points, s.Label) {
					require.False(t, math.IsNaN(p.X+p.Y), "%s on %s", s.SurfaceID, v.Name)
					assert.True(t, p.X >= v.Min.X && p.X <= v.Max.X && p.Y >= v.Min.Y && p.Y <= v.Max.Y)
				}
			}
		}
		assert.Len(t, found, len(area.Parts), "%s", form)
	}
}

func TestSidesAndSharedPlaces(t *testing.T) {
	views := byName(Map(FromDimensions(yawl), []Surface{
		{"port", area.Topsides, area.Port, 9}, {"fore", area.Topsides, area.Starboard, 4},
		{"aft", area.Topsides, area.Starboard, 5}, {"mast", area.Spars, area.Both, 1},
	}))
	ids := func(v View) (out []string) {
		for _, s := range v.Shapes {
			out = append(out, s.SurfaceID)
		}
		return out
	}
	assert.Equal(t, []string{"port"}, ids(views[PortSide]))
	assert.Equal(t, []string{"fore", "aft"}, ids(views[StarboardSide]), "two share the side")
	s := views[StarboardSide].Shapes
	assert.Less(t, s[0].Label.X, s[1].Label.X)
	for _, p := range s[0].Points {
		assert.LessOrEqual(t, p.X, 4+1e-9)
	}
	assert.Equal(t, []string{"mast"}, ids(views[Apart]))
	assert.True(t, views[PortSide].Mirror, "the bow of the port side points left")
	assert.NotEmpty(t, views[Under].Lines, "a bottom that is no surface is drawn as a line")
}

func TestDrawnFromStations(t *testing.T) {
	st := []mesh.Station{{XM: 0, KeelM: -0.2, SheerM: 1, HalfM: 1, WaterHalfM: 0.9},
		{XM: 5, KeelM: -0.6, SheerM: 1.1, HalfM: 1.4, WaterHalfM: 1.3}, {XM: 10, KeelM: 0.1, SheerM: 1.4, HalfM: 0.1}}
	views := byName(Map(FromStations(st, yawl), every()))
	assert.InDelta(t, -0.6, views[Under].Min.Y+0.7, 1e-9, "half-breadth 1.3 at the waterline")
	assert.InDelta(t, 2.8, 2*views[Plan].Max.Y, 1e-9)
}

// BenchmarkMap draws a boat with a surface of every part.
func BenchmarkMap(b *testing.B) {
	p, s := FromDimensions(yawl), every()
	for b.Loop() {
		Map(p, s)
	}
}
