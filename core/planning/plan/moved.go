package plan

import (
	"sort"
	"time"

	"allcoats/core/base/message"
)

// Moved is a task that a plan puts elsewhere than the one before.
type Moved struct {
	TaskID string           `json:"taskId"`
	Name   message.Sentence `json:"name"`
	From   *time.Time       `json:"from,omitempty"`
	To     *time.Time       `json:"to,omitempty"`
	Why    message.Sentence `json:"why"`
}

// Changes lists what moved from one plan to the next, what came and what went, with the
// reason of the new one.
func Changes(before Starts, after Plan) []Moved {
	out := []Moved{}
	there := map[string]bool{}
	for _, l := range after.Left {
		there[l.TaskID] = true
		if old, ok := before[l.TaskID]; ok {
			out = append(out, Moved{l.TaskID, l.Name, &old, nil, l.Why})
		}
	}
	for _, it := range after.Items {
		if it.Launch || it.Rekey {
			continue
		}
		there[it.TaskID] = true
		at := it.Start
		old, ok := before[it.TaskID]
		switch {
		case !ok:
			out = append(out, Moved{it.TaskID, it.Named(), nil, &at, it.Why})
		case !old.Equal(at):
			out = append(out, Moved{it.TaskID, it.Named(), &old, &at, it.Why})
		}
	}
	for id, at := range before {
		if !there[id] && !isMend(id) && !isLaunch(id) {
			out = append(out, Moved{TaskID: id, Name: message.Of("done or left out"), From: &at,
				Why: message.Sentence{}})
		}
	}
	sort.SliceStable(out, func(a, b int) bool {
		at := func(m Moved) time.Time {
			if m.To != nil {
				return *m.To
			}
			return *m.From
		}
		return at(out[a]).Before(at(out[b])) || at(out[a]).Equal(at(out[b])) && out[a].TaskID < out[b].TaskID
	})
	return out
}
