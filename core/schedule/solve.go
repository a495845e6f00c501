package schedule

// Result is the best plan found. Proven says that none is better; without a plan
// it says that there is none.
type Result struct {
	Plan   Plan
	Found  bool
	Proven bool
}

// Exact solves a small problem by a complete search of at most nodes nodes: the
// earliest end, then the fewest sandings at it. stop, if not nil, is asked now
// and then and ends the search. The same problem gives the same plan.
func Exact(p Problem, nodes int, stop func() bool) Result {
	if p.Cycle() != nil {
		return Result{Proven: true}
	}
	e := newExact(p, nodes, stop)
	complete := e.run(p.Horizon, len(p.Links), false)
	if !e.found || !complete {
		return Result{e.best, e.found, complete}
	}
	complete = e.run(e.best.Makespan, e.best.Sandings()-1, true)
	return Result{e.best, true, complete}
}

// Solve solves p exactly if it is small, else by Serial; what the exact search has
// found when its nodes are used up is improved on.
func Solve(p Problem, seed uint64, nodes, rounds int, stop func() bool) Result {
	tell := func(float64) bool { return stop != nil && stop() }
	if len(p.Tasks) > exactTasks {
		return Serial(p, seed, rounds, tell)
	}
	got := Exact(p, nodes, stop)
	if got.Proven {
		return got
	}
	return Improve(p, got.Plan, seed, rounds, tell)
}

// exactTasks is the most tasks that are searched completely.
const exactTasks = 40
