package scheme

import (
	"fmt"
	"strings"
	"testing"

	"allcoats/core/base/figures"
	"allcoats/core/film/step"
)

// The usual sequences are those of docs/figures.md, step by step.
func TestFigures(t *testing.T) {
	rows := map[string]string{}
	for _, s := range Schemes() {
		var told []string
		for _, st := range s.Steps {
			told = append(told, said(st))
		}
		rows[s.Key] = strings.Join(told, ", ")
	}
	figures.CheckWords(t, "Usual sequences", rows)
}

func said(s Step) string {
	out := s.Work.Kind().Name
	switch {
	case s.Work == step.Sand:
		out = fmt.Sprintf("sand P%d", s.Grit)
		if s.Wet {
			out = "wet " + out
		}
	case s.Kind != "":
		out = fmt.Sprintf("%d × %s", s.Coats, s.Kind.Name())
	}
	if s.ThinnerPct > 0 {
		out += fmt.Sprintf(" thinned %g %%", s.ThinnerPct)
	}
	if s.Where != nil && s.Where.SharePct > 0 {
		out += fmt.Sprintf(" on %g %%", s.Where.SharePct)
	}
	return out
}
