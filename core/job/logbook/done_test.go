package logbook

import (
	"testing"

	"allcoats/core/film/step"

	"github.com/stretchr/testify/assert"
)

func TestDoneAndUndone(t *testing.T) {
	steps := []step.Step{{Work: step.Wash}, {Work: step.Sand, Grit: 80}, {Work: step.Wash}, {Work: step.Coat, Coats: 2}, {Work: step.Inspect}, {Work: step.Sand, Grit: 240}, {Work: step.Coat, Coats: 1}}
	ids := []string{"w", "s", "w2", "a", "i", "s2", "b"}
	of := func(kind step.Work, stepID string) Logged { return Logged{Entry: Entry{Kind: kind, StepID: stepID}} }
	for name, c := range map[string]struct {
		log  []Logged
		done []int
		next int
		want []string
	}{
		"nothing told":            {nil, []int{0, 0, 0, 0, 0, 0, 0}, 3, []string{"wash", "sand with 80", "wash"}},
		"one wash is one":         {[]Logged{of(step.Wash, "")}, []int{0, 0, 0, 0, 0, 0, 0}, 3, []string{"sand with 80", "wash"}},
		"in any order":            {[]Logged{of(step.Sand, ""), of(step.Wash, ""), of(step.Wash, "")}, []int{0, 0, 0, 0, 0, 0, 0}, 3, nil},
		"a second coat of a step": {[]Logged{of(step.Coat, "a")}, []int{0, 0, 0, 1, 0, 0, 0}, 3, nil},
		"what was told before a coat counts no more": {[]Logged{of(step.Sand, ""), of(step.Coat, "a"), of(step.Coat, "a")}, []int{0, 0, 0, 2, 0, 0, 0}, 6, []string{"sand with 240"}},
		"told since":        {[]Logged{of(step.Coat, "a"), of(step.Coat, "a"), of(step.Sand, "")}, []int{0, 0, 0, 2, 0, 0, 0}, 6, nil},
		"a coat of no step": {[]Logged{of(step.Coat, ""), of(step.Wash, "a")}, []int{0, 0, 0, 0, 0, 0, 0}, 3, []string{"sand with 80", "wash"}},
	} {
		assert.Equal(t, c.done, Done(c.log, ids), name)
		var got []string
		for _, st := range Undone(c.log, steps, c.done, c.next) {
			got = append(got, st.Words())
		}
		assert.Equal(t, c.want, got, name)
	}
}
