package app

import (
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/job/rules"
	"allcoats/core/job/task"
)

// stops are what the rules, and the benches that were set up for a surface, say against the next
// coat on it, nil if none does.
func (o boatState) stops(surfaceID string, next *task.Task) message.Sentence {
	if next == nil {
		return nil
	}
	steps := o.steps[surfaceID]
	for _, x := range o.warned(o.surface(surfaceID), steps) {
		if x.Severity == rules.Stop && x.Step >= 0 && steps[x.Step].ID == next.StepID {
			return x.Says
		}
	}
	for _, b := range benches {
		_, kept := o.finishes[[2]string{surfaceID, b.key}]
		from := next.Step.Origin != nil && next.Step.Origin.Bench == b.key
		if kept && (from || next.Step.Origin == nil && slices.Contains(b.owns, next.Step.Sheet.Kind)) {
			if stop := b.stop(o, surfaceID); len(stop) > 0 {
				return stop
			}
		}
	}
	return nil
}

// benchOf is what Today asks of a bench.
type benchOf struct {
	key  string
	owns []product.Kind
	stop func(o boatState, surfaceID string) message.Sentence
}

// stopOf asks the bench of a craft with the work that is kept.
func stopOf[W, R any](c *Craft[W, R], owns []product.Kind, head func(R) Finish) benchOf {
	return benchOf{c.Key, owns, func(o boatState, surfaceID string) message.Sentence {
		f := o.surface(surfaceID)
		h := Finish{BoatID: o.survey.Boat.ID, Place: o.survey.Place, Surface: &f, Trouble: []fielderr.Field{}}
		w, err := c.kept(o, &h)
		if err != nil {
			return nil
		}
		out, err := c.answer(o, h, w)
		if err != nil {
			return nil // what is wrong with it is shown at the bench
		}
		for _, one := range head(out).Handovers {
			if len(one.Stop) > 0 {
				return one.Stop
			}
		}
		return nil
	}}
}

var benches []benchOf

func init() { // here, since benches ask for stops of none
	benches = []benchOf{
		stopOf(&NonSkidBench, nonskidKinds, func(r NonSkid) Finish { return r.Finish }),
		stopOf(&GelcoatBench, []product.Kind{product.Gelcoat}, func(r Gelcoated) Finish { return r.Finish }),
		stopOf(&BrightBench, brightKinds, func(r Bright) Finish { return r.Finish }),
		stopOf(&AntifoulBench, antifoulKinds, func(r Antifouled) Finish { return r.Finish }),
		stopOf(&MetalBench, []product.Kind{product.MetalPrimer}, func(r Metalled) Finish { return r.Finish }),
		stopOf(&MouldBench, nil, func(r Moulded) Finish { return r.Finish }),
	}
}
