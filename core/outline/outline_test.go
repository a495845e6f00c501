package outline

import (
	"testing"

	"allcoats/core/area"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestDrawingHasTheBoatsMeasure(t *testing.T) {
	for _, form := range area.HullForms {
		d := area.Dimensions{HullForm: form, LOAM: 8, LWLM: 7, BeamM: 2.5, DraughtM: 1.1, FreeboardM: 0.9, HousesM2: 4}
		views := map[string]View{}
		for _, v := range Views(d) {
			views[v.Name] = v
		}
		require.Len(t, views, 4)
		plan, side := views["plan"], views["port side"]
		assert.InDelta(t, 8, plan.Max.X-plan.Min.X, 1e-9, "%s: length", form)
		assert.InDelta(t, 2.5, plan.Max.Y-plan.Min.Y, 0.03, "%s: beam", form)
		assert.InDelta(t, -1.1, side.Min.Y, 0.02, "%s: draught", form)
		assert.InDelta(t, 0.9, meanSheer(d), 0.09, "%s: mean freeboard", form)
	}
}

func meanSheer(d area.Dimensions) float64 {
	sum := 0.0
	for i := range 1000 {
		sum += sheer(d, d.LOAM*(float64(i)+0.5)/1000)
	}
	return sum / 1000
}

func TestBowsPointAwayFromEachOther(t *testing.T) {
	d := area.Dimensions{HullForm: area.Medium, LOAM: 8, LWLM: 6.5, BeamM: 2.5, DraughtM: 1, FreeboardM: 0.9}
	bow := func(v View) Point { // the highest point of the sheer is the stem head
		best := v.Shapes[0].Points[0]
		for _, p := range v.Shapes[0].Points {
			if p.Y > best.Y {
				best = p
			}
		}
		return best
	}
	views := Views(d)
	assert.Zero(t, bow(views[0]).X, "port side: bow to the left")
	assert.Equal(t, 8.0, bow(views[1]).X, "starboard side: bow to the right")
	assert.Equal(t, area.Port, views[0].Shapes[0].Side)
}
