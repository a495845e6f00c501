package task

import (
	"testing"

	"allcoats/core/catalog/product"

	"github.com/stretchr/testify/assert"
)

// Of three hardeners the one for 0 °C is taken; coats that are laid stay as they are, and so does a sheet without
// grades.
func TestCoatsForTheCold(t *testing.T) {
	graded := product.Sheet{MinCureC: 10, Grades: []product.Grade{{Name: "fast", MinCureC: 5},
		{Name: "low-temperature", MinCureC: 0}, {Name: "slow", MinCureC: 15}}}
	coat := func(sheet product.Sheet, s State) Task {
		t := Task{Films: true, State: s}
		t.Step.Sheet = sheet
		return t
	}
	got, any := ForTheCold([]Task{coat(graded, ToDo), coat(graded, Done), coat(product.Sheet{MinCureC: 10}, ToDo)})
	assert.True(t, any)
	assert.Equal(t, "low-temperature", got[0].Step.Grade)
	assert.Zero(t, got[0].Step.Sheet.MinCureC)
	assert.Empty(t, got[1].Step.Grade, "it is laid")
	assert.Equal(t, 10.0, got[2].Step.Sheet.MinCureC)
	_, any = ForTheCold(got[1:])
	assert.False(t, any)
}

// Of four coats the last is left out; of three none, and none that is laid.
func TestACoatFewer(t *testing.T) {
	coats := func(n, laid int) (out []Task) {
		for i := range n {
			t := Task{Films: true, N: i + 1, Of: n, State: ToDo}
			if i < laid {
				t.State = Done
			}
			out = append(out, t)
		}
		return out
	}
	for _, c := range []struct{ of, laid, left int }{{4, 0, 3}, {5, 3, 4}, {3, 0, 3}, {4, 4, 4}} {
		got, any := OneFewer(coats(c.of, c.laid))
		assert.Len(t, got, c.left, "%d of %d laid", c.laid, c.of)
		assert.Equal(t, c.left < c.of, any)
	}
	wash, any := OneFewer([]Task{{N: 4, Of: 4, State: ToDo}})
	assert.Len(t, wash, 1, "no coat")
	assert.False(t, any)
}
