package quote

import (
	"testing"

	"allcoats/core/job/task"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func one(id string, films bool, state task.State, hours float64) task.Task {
	return task.Task{ID: id, Films: films, State: state, LeftH: hours, LeftL: hours / 4}
}

var deck = task.Chain{SurfaceID: "deck", Tasks: []task.Task{one("sand", false, task.Done, 0),
	one("wash", false, task.ToDo, 2), one("coat 1", true, task.ToDo, 4), one("key", false, task.ToDo, 1),
	one("coat 2", true, task.ToDo, 4), one("unmask", false, task.ToDo, 1)}}

func ids(tasks []task.Task) (out []string) {
	for _, t := range tasks {
		out = append(out, t.ID)
	}
	return out
}

func TestWhatTheShopTakes(t *testing.T) {
	for name, c := range map[string]struct {
		quote Quote
		chain task.Chain
		want  []string
	}{
		"all that is left": {Quote{}, deck, []string{"wash", "coat 1", "key", "coat 2", "unmask"}},
		"the coats":        {Quote{Coats: true}, deck, []string{"coat 1", "key", "coat 2"}},
		"of this surface":  {Quote{Surfaces: []string{"deck"}, Coats: true}, deck, []string{"coat 1", "key", "coat 2"}},
		"of another":       {Quote{Surfaces: []string{"hull"}}, deck, nil},
		"no coats left":    {Quote{Coats: true}, task.Chain{SurfaceID: "deck", Tasks: deck.Tasks[:2]}, nil},
	} {
		assert.Equal(t, c.want, ids(c.quote.Takes(c.chain)), name)
	}
}

// 9 h at 25.00 and 2.25 L at 40.00 a litre are 225 and 90; a shop at 540 saves an hour for (540 − 90) / 9.
func TestAgainstDoingItOneself(t *testing.T) {
	q := Quote{Who: "the spray shop", Cents: 54_000, Coats: true}
	require.NoError(t, q.Validate())
	o := OwnOf(q.Takes(deck), func(t task.Task) float64 { return 4000 * t.LeftL }, 2500)
	assert.InDelta(t, 9, o.Hours, 1e-9)
	assert.InDelta(t, 9000, o.Material, 1e-9)
	assert.InDelta(t, 22500, o.Labour, 1e-9)
	assert.InDelta(t, 31500, o.Cents(), 1e-9)
	assert.True(t, o.LowH < 9 && 9 < o.HighH)
	cents, ok := q.SavedHour(o)
	assert.True(t, ok)
	assert.InDelta(t, 5000, cents, 1e-9)
	_, ok = q.SavedHour(Own{})
	assert.False(t, ok)
}

func TestBadQuotes(t *testing.T) {
	for path, q := range map[string]Quote{
		"quotes[0].who":        {Cents: 1},
		"quotes[0].cents":      {Who: "a", Cents: 0},
		"quotes[0].readyOn":    {Who: "a", Cents: 1, ReadyOn: "soon"},
		"quotes[0].lastsYears": {Who: "a", Cents: 1, LastsYears: -1},
	} {
		assert.ErrorContains(t, ValidateAll([]Quote{q}), path)
	}
}
