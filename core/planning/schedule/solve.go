package schedule

import "context"

// Result is the best plan found. Proven says that none is better; without a plan
// it says that there is none.
type Result struct {
	Plan   Plan
	Found  bool
	Proven bool
}

// Exact solves a small problem by a complete search of at most nodes nodes, below what
// Serial finds: the earliest end, then the fewest sandings at it. When ctx ends the search
// does, with what was found. The same problem gives the same plan.
func Exact(ctx context.Context, p Problem, nodes int) Result {
	if p.Cycle() != nil {
		return Result{Proven: true}
	}
	e := newExact(ctx, p, nodes)
	bound := p.Horizon
	if quick := Serial(ctx, p, 1, boundRounds, nil); quick.Found && p.Check(quick.Plan) == "" {
		e.best, e.found, bound = quick.Plan, true, quick.Plan.Makespan-1
	}
	complete := e.run(bound, len(p.Links), false)
	if !e.found || !complete {
		return Result{e.best, e.found, complete}
	}
	complete = e.run(e.best.Makespan, e.best.Sandings()-1, true)
	return Result{e.best, true, complete}
}

// Solve solves p exactly if it is small, else by Serial; what the exact search has
// found when its nodes are used up is improved on.
func Solve(ctx context.Context, p Problem, seed uint64, nodes, rounds int) Result {
	if len(p.Tasks) > exactTasks {
		return Serial(ctx, p, seed, rounds, nil)
	}
	got := Exact(ctx, p, nodes)
	if got.Proven {
		return got
	}
	return Improve(ctx, p, got.Plan, p.latestStarts(), seed, rounds, nil)
}

// boundRounds are the rounds of Serial that bound the complete search.
const boundRounds = 200

// exactTasks is the most tasks that are searched completely.
const exactTasks = 40
