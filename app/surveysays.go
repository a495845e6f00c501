package app

import (
	"fmt"

	"allcoats/core/base/message"
)

// says decides for a survey: what to measure or mend first, else what comes next.
func (s Survey) says() (says, detail message.Sentence) {
	if len(s.Surfaces) == 0 {
		return message.Of("Add her first surface: nothing can be reckoned before."),
			message.Of("Take a hull type's surfaces, or add them one by one.")
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
		says = message.Of("%v again before you buy: measurements differ by more than their ±.",
			message.Strong("Tape "+named(apart)))
	case rough != nil:
		says = message.Of("%v first: %v of doubt lie there.", message.Strong("Measure "+rough.Name),
			message.Val(doubtM2(*rough), "m²"))
	case defects > 0:
		says = message.Of("The areas are good. %v", counted(defects, "%v waits: mend it before you coat.",
			"%v wait: mend them before you coat.", message.Strong("One defect"),
			message.Strong(fmt.Sprintf("%d defects", defects))))
	default:
		says = message.Of("All is measured and nothing waits to be mended: choose what goes on, in Build-up.")
	}
	detail = message.Of("%v to coat in all, on %v", message.Val(total, "m²"), counted(len(s.Surfaces), "%v.", "%v.",
		message.Text("one surface"), message.Text("%d surfaces", len(s.Surfaces))))
	if roughs > 0 {
		detail = message.Of("%v%v", detail, counted(roughs, " %v is only measured roughly.",
			" %v are only measured roughly.", message.Text("One"), message.Text("%d", roughs)))
	}
	if defects > 0 {
		detail = message.Of("%v%v", detail, counted(defects, " %v waits, about ", " %v wait, about ",
			message.Text("One defect"), message.Text("%d defects", defects)))
		detail = message.Of("%v%v of work.", detail, message.Val(hours, "h"))
	}
	return says, detail
}

// doubtM2 is half of the range of a surface's area, m².
func doubtM2(f Surface) float64 { return f.Area.AreaM2 * f.Area.UncertaintyPct / 100 }

// counted fills the template for one or for many.
func counted(n int, one, many string, ofOne, ofMany message.Span) message.Sentence {
	if n == 1 {
		return message.Of(one, ofOne)
	}
	return message.Of(many, ofMany)
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
