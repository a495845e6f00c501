package app

import (
	"fmt"

	"allcoats/core/base/say"
)

// says decides for a survey: what to measure or mend first, else what comes next.
func (s Survey) says() (says, detail say.Sentence) {
	if len(s.Surfaces) == 0 {
		return say.Of("Add her first surface: nothing can be reckoned before."), say.Of("Take a hull type's surfaces, or add them one by one.")
	}
	var apart []string
	var rough *Surface
	roughs := 0
	total, hours, defects := 0.0, 0.0, 0
	var first Defect
	for i := range s.Surfaces {
		f := &s.Surfaces[i]
		total += f.Area.AreaM2
		switch f.Measuring {
		case Good:
		case Disagree:
			apart = append(apart, f.Name)
		case Rough:
			roughs++
			if rough == nil || doubtM2(*f) > doubtM2(*rough) {
				rough = f
			}
		}
	}
	for _, d := range s.Defects {
		if d.Repair.Open {
			if defects == 0 || d.Repair.Hours > first.Repair.Hours {
				first = d
			}
			defects, hours = defects+1, hours+d.Repair.Hours
		}
	}
	switch {
	case len(apart) > 0:
		says = say.Of("%v again before you buy: measurements differ by more than their ±.", say.Strong("Tape "+named(apart)))
	case rough != nil:
		says = say.Of("%v first: %v of doubt lie there.", say.Strong("Measure "+rough.Name), say.Val(doubtM2(*rough), "m²"))
	case defects > 0:
		says = say.Of("The areas are good. %v", counted(defects, "%v waits: mend it before you coat.", "%v wait: mend them before you coat.", say.Strong("One defect"), say.Strong(fmt.Sprintf("%d defects", defects))))
	default:
		says = say.Of("All is measured and nothing waits to be mended: choose what goes on, in Build-up.")
	}
	detail = say.Of("%v to coat in all, on %v", say.Val(total, "m²"), counted(len(s.Surfaces), "%v.", "%v.", say.Text("one surface"), say.Text("%d surfaces", len(s.Surfaces))))
	if roughs > 0 {
		detail = say.Of("%v%v", detail, counted(roughs, " %v is only measured roughly.", " %v are only measured roughly.", say.Text("One"), say.Text("%d", roughs)))
	}
	if defects > 0 {
		detail = say.Of("%v%v", detail, counted(defects, " %v waits, about ", " %v wait, about ", say.Text("One defect"), say.Text("%d defects", defects)))
		detail = say.Of("%v%v of work.", detail, say.Val(hours, "h"))
	}
	return says, detail
}

// doubtM2 is half of the range of a surface's area, m².
func doubtM2(f Surface) float64 { return f.Area.AreaM2 * f.Area.UncertaintyPct / 100 }

// counted fills the template for one or for many.
func counted(n int, one, many string, ofOne, ofMany say.Span) say.Sentence {
	if n == 1 {
		return say.Of(one, ofOne)
	}
	return say.Of(many, ofMany)
}

// listed joins names as one says them.
func named(names []string) string {
	out := names[0]
	for i, n := range names[1:] {
		if i == len(names)-2 {
			out += " and " + n
		} else {
			out += ", " + n
		}
	}
	return out
}
