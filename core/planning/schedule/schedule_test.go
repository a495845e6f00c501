package schedule

import (
	"encoding/json"
	"math/rand/v2"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

type reference struct {
	Name   string
	Input  Request
	Expect struct {
		Feasible bool `json:"feasible"`
		Makespan int  `json:"optimal_makespan_h"`
	}
}

func references(t testing.TB) []reference {
	raw, err := os.ReadFile("../../../calc/testdata/schedule.json")
	require.NoError(t, err)
	var doc struct{ Cases []reference }
	require.NoError(t, json.Unmarshal(raw, &doc))
	require.NotEmpty(t, doc.Cases)
	return doc.Cases
}

// Without the complete search the plans still come near the proven optima.
func TestSerialComesNearTheOptima(t *testing.T) {
	gap, n := 0.0, 0
	for _, c := range references(t) {
		p, err := c.Input.problem()
		require.NoError(t, err)
		got := Serial(t.Context(), p, 1, 2000, nil)
		if !c.Expect.Feasible {
			assert.False(t, got.Found, c.Name)
			continue
		}
		require.True(t, got.Found, c.Name)
		assert.Empty(t, p.Check(got.Plan), c.Name)
		g := float64(got.Plan.Makespan)/float64(c.Expect.Makespan) - 1
		assert.LessOrEqual(t, g, 0.05, "%s: %d for %d", c.Name, got.Plan.Makespan, c.Expect.Makespan)
		gap, n = gap+g, n+1
		assert.Equal(t, got, Serial(t.Context(), p, 1, 2000, nil), "same seed, same plan")
	}
	assert.LessOrEqual(t, gap/float64(n), 0.01)
}

// random makes a small problem as the reference has them: surfaces with coats,
// day windows, some sandings.
func random(r *rand.Rand, crews int) Problem {
	p := Problem{Horizon: 24 * (6 + r.IntN(4))}
	days := func(first, last int) []Range {
		var out []Range
		for d := 0; d < p.Horizon; d += 24 {
			if r.IntN(5) > 0 {
				out = append(out, Range{d + first, d + last})
			}
		}
		return out
	}
	for range 3 {
		before := -1
		for range 2 + r.IntN(2) {
			d := 2 + r.IntN(4)
			p.Tasks = append(p.Tasks, Task{Name: "t", Duration: d, Allowed: days(8, 18-d), Needs: []int{1}})
			i := len(p.Tasks) - 1
			if before >= 0 {
				l := Link{From: before, To: i, Opens: After(2 + r.IntN(14)), Closes: After(-1), Reopened: After(-1)}
				if r.IntN(2) == 0 {
					most := 24 + r.IntN(40)
					l.Closes, l.Reopened = After(most), After(most)
					if r.IntN(2) == 0 {
						ds := 1 + r.IntN(4)
						l.Sanding = &Task{Name: "sanding", Duration: ds, Allowed: days(7, 19-ds), Needs: []int{1}}
					}
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

// No plan breaks a rule; none of the quick ones is better than the proven ones;
// another pair of hands never makes the proven end later.
func TestPlansKeepTheRules(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	solved := 0
	for k := range 60 {
		p := random(r, 1)
		one := Exact(t.Context(), p, 200_000)
		quick := Serial(t.Context(), p, uint64(k), 300, nil)
		if quick.Found {
			require.Empty(t, p.Check(quick.Plan))
		}
		if !one.Proven {
			continue
		}
		if !one.Found {
			require.False(t, quick.Found, "what is proven impossible is not planned")
			continue
		}
		solved++
		require.Empty(t, p.Check(one.Plan))
		if quick.Found {
			require.LessOrEqual(t, one.Plan.Makespan, quick.Plan.Makespan)
		}
		for h := range p.Capacity[0] {
			p.Capacity[0][h]++
		}
		two := Exact(t.Context(), p, 200_000)
		if two.Proven {
			require.True(t, two.Found)
			require.LessOrEqual(t, two.Plan.Makespan, one.Plan.Makespan)
		}
	}
	assert.Greater(t, solved, 20)
}

func TestCheckNamesWhatIsBroken(t *testing.T) {
	p := Problem{Horizon: 48, Capacity: [][]int{make([]int, 48)},
		Tasks: []Task{{Name: "a", Duration: 2, Allowed: []Range{{0, 40}}, Needs: []int{1}},
			{Name: "b", Duration: 2, Allowed: []Range{{4, 40}}, Needs: []int{1}}},
		Links: []Link{{From: 0, To: 1, Opens: After(3), Closes: After(10), Reopened: After(10),
			Sanding: &Task{Name: "s", Duration: 1, Allowed: []Range{{0, 40}}, Needs: []int{1}}}}}
	for h := range p.Capacity[0] {
		p.Capacity[0][h] = 1
	}
	for _, c := range []struct {
		start [2]int
		sand  int
		want  string
	}{
		{[2]int{0, 5}, -1, ""}, {[2]int{0, 3}, -1, "starts where it must not"}, {[2]int{0, 4}, -1, "too early"},
		{[2]int{0, 13}, -1, "too late"},
		{[2]int{0, 13}, 8, ""}, {[2]int{0, 13}, 2, "out of place"}, {[2]int{0, 30}, 8, "out of place"},
		{[2]int{5, 6}, -1, "too few hands"},
	} {
		got := p.Check(Plan{Start: c.start[:], Sanding: []int{c.sand}})
		if c.want == "" {
			assert.Empty(t, got)
		} else {
			assert.Contains(t, got, c.want)
		}
	}
}

// Two people; the first knows how, works till slot 19 and again from 24, and takes two slots from one site to the other. The coat is wet till
// five slots after its end.
func TestCheckNamesWhoIsMissing(t *testing.T) {
	day := make([]int, 48)
	for h := range day {
		day[h] = h / 24
	}
	free := []Range{{0, 47}}
	p := Problem{Horizon: 48, Travel: 2, Zones: 1, Day: day, Apart: [][2]int{{0, 2}},
		Hands: []Hand{{Works: []Range{{0, 19}, {24, 43}}}, {Works: free}},
		Tasks: []Task{{Name: "coat", Duration: 4, Allowed: free, Crew: 1, Able: []int{0}, Site: 1, Wets: 1, Dry: After(5)},
			{Name: "next", Duration: 4, Allowed: free, Crew: 1, Site: 1},
			{Name: "far", Duration: 4, Allowed: free, Crew: 2, Able: []int{0}, Site: 2, Dusts: []int{0}}}}
	for _, c := range []struct {
		start [3]int
		crew  [3][]int
		want  string
	}{
		{[3]int{16, -1, -1}, [3][]int{{0}}, ""},
		{[3]int{17, -1, -1}, [3][]int{{0}}, "outside working hours"},
		{[3]int{23, -1, -1}, [3][]int{{0}}, "outside working hours"},
		{[3]int{24, -1, -1}, [3][]int{{0}}, ""},
		{[3]int{0, -1, -1}, [3][]int{{1}}, "has not the crew"},
		{[3]int{0, -1, -1}, [3][]int{{}}, "has not the crew"},
		{[3]int{0, -1, -1}, [3][]int{{0, 1}}, "has not the crew"},
		{[3]int{45, -1, -1}, [3][]int{{0}}, "beyond the horizon"},
		{[3]int{0, 4, -1}, [3][]int{{0}, {0}}, ""},
		{[3]int{0, 3, -1}, [3][]int{{0}, {0}}, "takes hand 0 from another place"},
		{[3]int{0, 3, -1}, [3][]int{{0}, {1}}, ""},
		{[3]int{-1, 24, 30}, [3][]int{nil, {0}, {0, 1}}, ""},
		{[3]int{-1, 24, 29}, [3][]int{nil, {0}, {0, 1}}, "takes hand 0 from another place"},
		{[3]int{0, -1, 24}, [3][]int{{0}, nil, {0, 1}}, ""},
		{[3]int{0, -1, 10}, [3][]int{{0}, nil, {0, 1}}, "start on the same day"},
		{[3]int{16, -1, 24}, [3][]int{{0}, nil, {1, 0}}, "dust at 24 lies on what is wet from 16 to 25"},
		{[3]int{16, -1, 25}, [3][]int{{0}, nil, {1, 0}}, ""},
	} {
		got := p.Check(Plan{Start: c.start[:], Crew: c.crew[:]})
		if c.want == "" {
			assert.Empty(t, got, "%v", c)
		} else {
			assert.Contains(t, got, c.want, "%v", c)
		}
	}
}

func TestComputeRefusesNonsense(t *testing.T) {
	most := 1
	_, err := Compute(t.Context(),
		Request{HorizonH: 0, Crews: 0,
			Tasks: []TaskRequest{{ID: "a"}, {ID: "a", DurationH: 1, AllowedStartH: [][2]int{{5, 3}}}},
			Links: []LinkRequest{{From: "a", To: "z", MinLagH: 2, MaxLagH: &most}}})
	for _, path := range []string{"horizon_h", "crews", "tasks[0].duration_h", "tasks[1].id",
		"tasks[1].allowed_start_h[0]", "links[0].to", "links[0].max_lag_h"} {
		assert.ErrorContains(t, err, path)
	}
	loop := Request{HorizonH: 10, Crews: 1, Tasks: []TaskRequest{{ID: "a", DurationH: 1}, {ID: "b", DurationH: 1}},
		Links: []LinkRequest{{From: "a", To: "b"}, {From: "b", To: "a"}}}
	_, err = Compute(t.Context(), loop)
	assert.ErrorContains(t, err, "wait for one another: a, b")
	for n, tooMany := range map[int]bool{0: true, 2000: false, 2001: true} {
		r := Request{HorizonH: 10, Crews: 1001, Tasks: make([]TaskRequest, n)}
		_, err = Compute(t.Context(), r) // crews are always too many, so that nothing is solved
		assert.Equal(t, tooMany, strings.Contains(err.Error(), "tasks: give 1 to 2000"), "%d", n)
	}
}

// What begins in the first slot of all binds like any other: b follows a, which ends after 2, by 3 to 10.
func TestWhatBindsATask(t *testing.T) {
	p := Problem{Horizon: 48, Capacity: [][]int{make([]int, 48)},
		Tasks: []Task{{Name: "a", Duration: 2, Allowed: []Range{{0, 40}}, Needs: []int{1}},
			{Name: "b", Duration: 2, Allowed: []Range{{0, 40}}, Needs: []int{1}}},
		Links: []Link{{From: 0, To: 1, Opens: After(3), Closes: After(10), Reopened: After(-1)}}}
	for h := range p.Capacity[0] {
		p.Capacity[0][h] = 1
	}
	placed := On(&p, Plan{Start: []int{0, 6}, Sanding: []int{-1}})
	assert.Empty(t, placed.Closed(1, 12))
	assert.Equal(t, []int{0}, placed.Closed(1, 13))
	assert.Equal(t, -1, placed.Holds(0, 4), "6 is in time for what ends at 6")
	assert.Equal(t, 5, placed.opens(1, Ask{}))
	assert.Equal(t, 0, placed.opens(1, Ask{Links: true}))
	late := On(&p, Plan{Start: []int{0, 14}, Sanding: []int{-1}})
	assert.Equal(t, 0, late.Holds(0, 1), "14 is too late for what ends at 3")
	assert.Equal(t, -1, late.Holds(0, 2))
	open := On(&p, Plan{Start: []int{-1, 14}, Sanding: []int{-1}})
	assert.Equal(t, Never, open.opens(1, Ask{}), "what comes before it has no place")
	assert.Empty(t, open.Closed(1, 40))
}
