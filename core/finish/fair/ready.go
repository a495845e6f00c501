package fair

import (
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/physics/cure"
)

// Pass is one pass of filler: what is laid, within which field, and how long it takes with boarding
// the one before.
type Pass struct {
	Sheet product.Sheet
	Job   field.Job
	WorkH float64
}

// onceH is how much of a pass is laid without a break at most, h: the field must hold so long, a rule of
// thumb.
const onceH = 2

// Laid lists the passes of a job in their order, hard ones first; within gives the field of each product.
func (j Job) Laid(sheet product.Sheet, hard *product.Sheet,
	within func(product.Sheet) (field.Job, error)) ([]Pass, error) {
	var out []Pass
	add := func(n int, hours float64, s product.Sheet) error {
		job, err := within(s)
		if err != nil || n == 0 {
			return err
		}
		each := hours / float64(n)
		job.Apply = time.Duration(min(onceH, each) * float64(time.Hour))
		for range n {
			out = append(out, Pass{Sheet: s, Job: job, WorkH: each})
		}
		return nil
	}
	if j.Under != nil && hard != nil {
		if err := add(j.Under.Passes, j.Under.Hours, *hard); err != nil {
			return nil, err
		}
	}
	err := add(j.Passes, j.Hours, sheet)
	return out, err
}

// Ready is when the last of passes may be sanded: each begins at the next whole hour that the field
// and the week allow, is worked on in the hours of the week, and waits for its clock. nil where the
// weather known does not reach.
func Ready(passes []Pass, w field.Weather, week calendar.Week, loc *time.Location, now time.Time) *time.Time {
	if week == (calendar.Week{}) {
		week = calendar.Daily(8, 17)
	}
	times := make([]time.Time, len(w.Air))
	for i, h := range w.Air {
		times[i] = h.At
	}
	at := now
	var starts []bool
	for k, p := range passes {
		if len(p.Sheet.Sandable) == 0 {
			return nil
		}
		if k == 0 || p.Sheet.Name != passes[k-1].Sheet.Name {
			starts = p.Job.Starts(w, p.Job.Free(times))
		}
		begun := false
		for i, ok := range starts {
			if ok && !times[i].Before(at) && week.At(times[i], loc) {
				at, begun = times[i], true
				break
			}
		}
		if !begun {
			return nil
		}
		at = week.Done(at, p.WorkH, loc)
		ready := cure.Clock{Table: p.Sheet.Sandable, FloorC: p.Sheet.MinCureC}.Run(w.Path(p.Sheet.Humidity), at,
			1).Reached
		if ready == nil {
			return nil
		}
		at = *ready
	}
	return &at
}
