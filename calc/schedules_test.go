package calc

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestScheduleAgainstProvenOptima(t *testing.T) {
	for _, r := range references(t, "schedule.json") {
		t.Run(r.Name, func(t *testing.T) {
			got := run(t, "schedule", r.Input) // the input exactly as in the file
			require.Equal(t, r.Expect["feasible"], got["feasible"])
			assert.Equal(t, true, got["proven"])
			if got["feasible"] == true {
				assert.Equal(t, r.Expect["optimal_makespan_h"], got["makespan_h"])
				assert.Len(t, got["sandings"], int(r.Expect["least_sandings_at_that_makespan"].(float64)))
				keepsTheFilesRules(t, r.Input, got)
			}
		})
	}
}

// keepsTheFilesRules checks a plan by the model written in the reference, apart
// from the program's own check.
func keepsTheFilesRules(t *testing.T, in, got map[string]any) {
	num := func(m any, key string) int { return int(m.(map[string]any)[key].(float64)) }
	starts := got["start_h"].(map[string]any)
	start := func(id any) int { return int(starts[id.(string)].(float64)) }
	held := map[int]int{}
	allowed := func(m any, s int) bool {
		for _, r := range m.(map[string]any)["allowed_start_h"].([]any) {
			if p := r.([]any); s >= int(p[0].(float64)) && s <= int(p[1].(float64)) {
				return true
			}
		}
		return false
	}
	length := map[string]int{}
	for _, task := range in["tasks"].([]any) {
		id := task.(map[string]any)["id"].(string)
		length[id] = num(task, "duration_h")
		require.True(t, allowed(task, start(id)), id)
		for h := start(id); h < start(id)+length[id]; h++ {
			held[h] += num(task, "crews")
		}
	}
	sanded := map[string]int{}
	for _, s := range got["sandings"].([]any) {
		m := s.(map[string]any)
		sanded[m["from"].(string)+">"+m["to"].(string)] = num(s, "start_h")
	}
	for _, link := range in["links"].([]any) {
		l := link.(map[string]any)
		end, to := start(l["from"])+length[l["from"].(string)], start(l["to"])
		require.GreaterOrEqual(t, to, end+num(link, "min_lag_h"))
		s, done := sanded[l["from"].(string)+">"+l["to"].(string)]
		if done {
			d := num(l["sanding"], "duration_h")
			require.True(t, allowed(l["sanding"], s))
			require.GreaterOrEqual(t, s, end+num(link, "min_lag_h"))
			require.LessOrEqual(t, s+d, to)
			for h := s; h < s+d; h++ {
				held[h]++
			}
			end = s + d
		}
		if l["max_lag_h"] != nil {
			require.LessOrEqual(t, to, end+num(link, "max_lag_h"))
		}
	}
	for h, n := range held {
		require.LessOrEqual(t, n, num(any(in), "crews"), "hour %d", h)
	}
}
