package product

import (
	"slices"

	"allcoats/core/physics/cure"
)

// Slower is the sheet with its least times longer by a factor, as coats of it were found to take. It
// shortens none: below 1 the sheet's times stand, and its greatest times always do.
func (s Sheet) Slower(factor float64) Sheet {
	if factor <= 1 {
		return s
	}
	s.SlowerBy = factor
	times := func(t cure.Table) cure.Table {
		t = slices.Clone(t)
		for i := range t {
			t[i].Hours *= factor
		}
		return t
	}
	recoat := func(all []Recoat) []Recoat {
		all = slices.Clone(all)
		for i := range all {
			all[i].Min = times(all[i].Min)
		}
		return all
	}
	s.TouchDry, s.TackFree, s.Sandable, s.ThroughDry, s.Immersion, s.Recoat = times(s.TouchDry), times(s.TackFree),
		times(s.Sandable), times(s.ThroughDry), times(s.Immersion), recoat(s.Recoat)
	s.Grades = slices.Clone(s.Grades)
	for i := range s.Grades {
		g := &s.Grades[i]
		g.TouchDry, g.TackFree, g.Sandable, g.ThroughDry, g.Immersion, g.Recoat = times(g.TouchDry), times(g.TackFree),
			times(g.Sandable), times(g.ThroughDry), times(g.Immersion), recoat(g.Recoat)
	}
	return s
}
