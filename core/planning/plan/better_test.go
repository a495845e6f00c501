package plan

import (
	"testing"

	"allcoats/core/planning/schedule"

	"github.com/stretchr/testify/assert"
)

// Two boats, the first wanted by slot 100; a day is 96 slots of a quarter of an hour. Another plan is taken when a late boat, or all together,
// come a whole day forward and no boat is later for it, or when it leaves less out.
func TestAPlanIsLeftForADay(t *testing.T) {
	link := schedule.Link{From: 0, To: 1, Hard: true, Sanding: &schedule.Task{Duration: 2}}
	m := Model{Problem: schedule.Problem{Horizon: 1000, Tasks: []schedule.Task{{Duration: 4}, {Duration: 4}},
		Group: []int{0, 1}, Due: []int{100, 900}, Links: []schedule.Link{link}}}
	for _, c := range []struct {
		old, other         [2]int
		oldMends, newMends int
		taken              bool
		why                string
	}{
		{[2]int{196, 300}, [2]int{100, 300}, -1, -1, true, "a day less late"},
		{[2]int{196, 300}, [2]int{101, 300}, -1, -1, false, "a quarter of an hour less than a day"},
		{[2]int{50, 300}, [2]int{50, 204}, -1, -1, true, "all are done a day sooner"},
		{[2]int{50, 300}, [2]int{50, 205}, -1, -1, false, "not quite"},
		{[2]int{96, 300}, [2]int{97, 100}, -1, -1, false, "but one is late for it"},
		{[2]int{50, -1}, [2]int{50, 300}, -1, -1, true, "less is left out"},
		{[2]int{196, 300}, [2]int{50, -1}, -1, -1, false, "more is left out"},
		{[2]int{50, 300}, [2]int{50, 300}, 10, -1, true, "no last resort"},
		{[2]int{196, 300}, [2]int{50, 300}, -1, 10, false, "a last resort more"},
	} {
		old := schedule.Plan{Start: c.old[:], Sanding: []int{c.oldMends}}
		other := schedule.Plan{Start: c.other[:], Sanding: []int{c.newMends}}
		want := old
		if c.taken {
			want = other
		}
		assert.Equal(t, want, m.better(old, other), c.why)
	}
}
