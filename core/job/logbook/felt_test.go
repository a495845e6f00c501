package logbook

import (
	"math"
	"testing"
	"time"

	"allcoats/core/film/step"

	"github.com/stretchr/testify/assert"
)

func felt(s FeltState, progress float64) Logged {
	return Logged{Entry: Entry{Detail: Detail{Felt: &Felt{State: s, ProductID: "varnish", Progress: progress}}}}
}

// Two coats of the sheet's own time weigh with what was felt: four at 1.5 times give exp(4 ln 1.5 / 6).
func TestDryingTimesAreLearned(t *testing.T) {
	for name, c := range map[string]struct {
		log  []Logged
		n    int
		want float64
	}{
		"nothing felt":          {[]Logged{{}}, 0, 0},
		"once, as on the sheet": {[]Logged{felt(TouchDry, 1)}, 1, 1},
		"four times, half as long again": {[]Logged{felt(TouchDry, 1.5), felt(Sandable, 1.5), felt(TouchDry, 1.5),
			felt(TouchDry, 1.5)}, 4, math.Pow(1.5, 4.0/6)},
		"sticky before its time": {[]Logged{felt(Sticky, 0.8), felt(Sticky, 1)}, 0, 0},
		"sticky after its time":  {[]Logged{felt(Sticky, 2)}, 1, math.Cbrt(2)},
		"felt after a week":      {[]Logged{felt(TouchDry, 40)}, 1, math.Cbrt(4)},
		"felt at once":           {[]Logged{felt(TouchDry, 0.01)}, 1, math.Cbrt(0.3)},
	} {
		got := Dryings(c.log)["varnish"]
		assert.Equal(t, c.n, got.Felt, name)
		assert.InDelta(t, c.want, got.Factor, 1e-9, name)
	}
	// Of 1.2 and 1.2 about a mean of ln 1.2 / 2: (2 · 0.15² + 2 · (ln 1.2 / 2)²) / 4.
	two := Dryings([]Logged{felt(TouchDry, 1.2), felt(TouchDry, 1.2)})["varnish"]
	half := math.Log(1.2) / 2
	assert.InDelta(t, math.Sqrt((2*0.0225+2*half*half)/4), two.SDLog, 1e-9)
}

func TestGradesGoFromNothingToGone(t *testing.T) {
	now := time.Date(2026, 5, 1, 12, 0, 0, 0, time.UTC)
	e := Entry{SurfaceID: "s", Kind: step.Grade, StartedAt: now}
	assert.ErrorContains(t, e.Validate(now), "held")
	for _, bad := range []Held{{"gloss": 5}, {"gloss": -1}, {"smell": 1}} {
		e.Held = bad
		assert.ErrorContains(t, e.Validate(now), "held.", bad)
	}
	e.Held = Held{"gloss": 1, "cracks": 4, "worn": 0}
	assert.NoError(t, e.Validate(now))
	assert.Equal(t, 4, e.Held.Worst())
	assert.Zero(t, Held{}.Worst(), "nothing wrong")
}

func TestAnExpenseHasASumAndAKind(t *testing.T) {
	now := time.Date(2026, 5, 1, 12, 0, 0, 0, time.UTC)
	e := Entry{BoatID: "b", Kind: step.Spend, StartedAt: now}
	assert.ErrorContains(t, e.Validate(now), "spent.cents")
	for path, bad := range map[string]Spent{"spent.on": {"beer", 400}, "spent.cents": {"hire", 0}} {
		e.Spent = &bad
		assert.ErrorContains(t, e.Validate(now), path)
	}
	e.Spent = &Spent{"hire", 12_50}
	assert.NoError(t, e.Validate(now))
}

func TestWhatWasFeltIsSaid(t *testing.T) {
	now := time.Date(2026, 5, 1, 12, 0, 0, 0, time.UTC)
	e := Entry{SurfaceID: "s", Kind: step.Feel, StartedAt: now}
	assert.ErrorContains(t, e.Validate(now), "felt.state")
	e.Felt = &Felt{State: "gooey"}
	assert.ErrorContains(t, e.Validate(now), "felt.state")
	e.Felt.State = Sticky
	assert.NoError(t, e.Validate(now))
}
