package schedule

import (
	"context"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// spring makes a problem of n tasks as the reference has them: surfaces with a preparation and
// coats, day windows without rainy days, recoat windows of which half may be sanded open.
func spring(n, crews int, seed uint64) Problem {
	r := rand.New(rand.NewPCG(seed, 0))
	p := Problem{Horizon: 24 * (20 + 5*n/(2*crews))}
	rain := make([]bool, p.Horizon/24)
	for d := range rain {
		rain[d] = r.IntN(5) == 0
	}
	days := func(first, last int, dry bool) (out []Range) {
		for d := range rain {
			if !dry || !rain[d] {
				out = append(out, Range{24*d + first, 24*d + last})
			}
		}
		return out
	}
	for len(p.Tasks) < n {
		before := -1
		for k := range min(3+r.IntN(4), n-len(p.Tasks)) {
			t := Task{Name: fmt.Sprintf("surface %d, %d", len(p.Tasks), k), Duration: 2 + r.IntN(4),
				Needs: []int{1 + r.IntN(5)/4}}
			t.Allowed = days(7, 19-t.Duration, false)
			if k > 0 {
				t.Allowed = days(9, 17-t.Duration, true)
			}
			p.Tasks = append(p.Tasks, t)
			i := len(p.Tasks) - 1
			if before >= 0 {
				l := Link{From: before, To: i, Opens: After(2 + r.IntN(14)), Closes: After(-1), Reopened: After(-1)}
				if r.IntN(2) == 0 {
					most := 24 + r.IntN(60)
					l.Closes, l.Reopened = After(most), After(most)
					ds := 1 + r.IntN(4)
					l.Sanding = &Task{Name: "sanding", Duration: ds, Allowed: days(7, 19-ds, false), Needs: []int{1}}
				}
				p.Links = append(p.Links, l)
			}
			before = i
		}
	}
	hours := make([]int, p.Horizon)
	for h := range hours {
		hours[h] = crews
	}
	p.Capacity = [][]int{hours}
	return p
}

// atLeast is an end before which no plan can be: the work of all tasks that start late in every
// plan, and of all coats, must fit into the hours that there are for it.
func atLeast(p Problem) int {
	best := 0
	for _, coats := range []bool{false, true} {
		work := 0
		good := make([]bool, p.Horizon)
		for i, t := range p.Tasks {
			if coats && t.Allowed[0].First != 9 {
				continue
			}
			work += t.Duration * p.Tasks[i].Needs[0]
			for _, a := range t.Allowed {
				for h := a.First; h < a.Last+t.Duration; h++ {
					good[h] = true
				}
			}
		}
		for h := range good {
			if good[h] {
				work -= p.Capacity[0][h]
			}
			if work <= 0 {
				best = max(best, h+1)
				break
			}
		}
	}
	return best
}

// What a constraint solver (CP-SAT, two workers) found in a minute; of 1,000 tasks it found no
// plan in that time.
func TestSerialComesNearASolver(t *testing.T) {
	for _, c := range []struct{ tasks, crews, rounds, solver int }{{50, 2, 3000, 371}, {200, 4, 1500, 733}} {
		p := spring(c.tasks, c.crews, 1)
		got := Serial(t.Context(), p, 1, c.rounds, nil)
		require.True(t, got.Found)
		require.Empty(t, p.Check(got.Plan))
		assert.LessOrEqual(t, float64(got.Plan.Makespan), 1.03*float64(c.solver), "%d tasks", c.tasks)
	}
}

// Plans of the reference's kind, and how much later they end than no plan could before.
func BenchmarkSerial(b *testing.B) {
	for _, c := range []struct{ tasks, crews, rounds int }{{50, 2, 3000}, {200, 4, 1500}, {1000, 8, 1000}} {
		b.Run(fmt.Sprint(c.tasks), func(b *testing.B) {
			p := spring(c.tasks, c.crews, 1)
			bound := atLeast(p)
			var got, first Result
			for b.Loop() {
				first = Serial(context.Background(), p, 1, 0, nil)
				got = Serial(context.Background(), p, 1, c.rounds, nil)
			}
			require.True(b, got.Found)
			require.Empty(b, p.Check(got.Plan))
			b.ReportMetric(float64(first.Plan.Makespan), "first_h")
			b.ReportMetric(float64(got.Plan.Makespan), "end_h")
			b.ReportMetric(float64(bound), "bound_h")
			b.ReportMetric(100*(float64(got.Plan.Makespan)/float64(bound)-1), "%over")
		})
	}
}
