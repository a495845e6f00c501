package plan

import (
	"testing"
	"time"

	"allcoats/core/boat/area"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Three coats of a litre each: one is there, one comes in ten days, the third in twenty.
func TestCoatsWaitForDeliveries(t *testing.T) {
	y := yard(60, surface("Deck", area.Deck, fair(60, nil), 3, 2))
	tasks := y.Boats[0].Surfaces[0].Tasks
	for i := range tasks {
		tasks[i].ProductID, tasks[i].Litres = "paint", 1
	}
	day := func(n int) time.Time { return y.Now.AddDate(0, 0, n) }
	for name, c := range map[string]struct {
		supply Supply
		after  [3]int // the day before which a coat may not begin
	}{
		"as ordered":             {Supply{1, []Delivery{{day(10), 1}, {day(20), 1}}}, [3]int{0, 10, 20}},
		"one comes with another": {Supply{1, []Delivery{{day(10), 0.5}, {day(20), 2}}}, [3]int{0, 20, 20}},
		"none there":             {Supply{0, []Delivery{{day(10), 2}}}, [3]int{10, 10, 10}},
		"enough there":           {Supply{3, []Delivery{{day(40), 5}}}, [3]int{}},
	} {
		t.Run(name, func(t *testing.T) {
			w := y
			w.Supplies = map[string]Supply{"paint": c.supply, "varnish": {0, []Delivery{{day(50), 9}}}}
			_, p, _ := make_(t, w, nil)
			n := 0
			for _, it := range p.Items {
				if !it.Coat {
					continue
				}
				at := it.Start
				assert.False(t, at.Before(day(c.after[n])), "coat %d at %v", n+1, at)
				if n++; n == 3 { // the others may be held back for their windows
					assert.Less(t, at.Sub(day(c.after[2])).Hours(), 60.0, "at %v: no longer than it must", at)
				}
				if name == "as ordered" && n == 3 {
					assert.Contains(t, it.Why.String(), "the delivery of")
				}
			}
			require.Equal(t, 3, n)
		})
	}
}

// One in four is late, by four days on the mean, and the same one in a future whenever it is asked.
func TestDeliveriesComeLate(t *testing.T) {
	y := yard(60, surface("Deck", area.Deck, fair(60, nil), 1, 2))
	y.Boats[0].Surfaces[0].Tasks[0].ProductID, y.Boats[0].Surfaces[0].Tasks[0].Litres = "paint", 1
	y.Supplies = map[string]Supply{"paint": {0, []Delivery{{y.Now.AddDate(0, 0, 10), 2}}}}
	m, err := y.Model()
	require.NoError(t, err)
	on := m.Slot(y.Now.AddDate(0, 0, 10))
	opens := func(k uint64) (at int) {
		for i, l := range m.Unsure(1, k).Problem.Links {
			if m.causes[i].late != "" {
				at = l.Opens(0)
			}
		}
		return at
	}
	late, days := 0, 0.0
	for k := range uint64(2000) {
		if more := opens(k) - on; more > 0 {
			late++
			days += float64(more) / (24 * perHour)
		}
		require.GreaterOrEqual(t, opens(k), on, "never early")
	}
	assert.InDelta(t, 0.25, float64(late)/2000, 0.03)
	assert.InDelta(t, 4, days/float64(late), 0.5)
	assert.Equal(t, opens(7), opens(7))
}

func TestWhatComesOnADay(t *testing.T) {
	loc, err := time.LoadLocation("Europe/London")
	require.NoError(t, err)
	now := time.Date(2026, 5, 11, 11, 0, 0, 0, time.UTC) // noon there
	assert.Equal(t, time.Date(2026, 5, 12, 11, 0, 0, 0, time.UTC), Comes("2026-05-12", now, loc).UTC(),
		"by noon, of summer time")
	assert.Equal(t, time.Date(2026, 5, 11, 11, 0, 0, 0, time.UTC), Comes("2026-05-11", now.Add(-time.Second), loc).UTC())
	for _, past := range []string{"2026-05-11", "2026-05-01", "soon"} {
		assert.Equal(t, now.AddDate(0, 0, 1), Comes(past, now, loc), past)
	}
}
