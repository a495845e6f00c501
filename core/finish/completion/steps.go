package completion

import (
	"allcoats/core/base/message"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/physics/cure"
)

// Hours of a fitting: rules of thumb.
const (
	drillH   = 0.4 // its holes drilled, over size, filled and drilled again
	bedH     = 0.5
	tightenH = 0.15
	fillSetH = 16
	// thirdH is when compounds have settled for good, h after the second tightening.
	thirdH = 21 * 24
)

// advice is how the holes of a fitting are made, and what goes behind it.
func (h Hardware) advice() []message.Sentence {
	out := []message.Sentence{}
	add := func(words string) { out = append(out, message.Lit(words)) }
	switch h.Core {
	case Balsa, Foam, Plywood:
		add(
			"Cored there: drill over size through the upper skin and the core, rake the core out beyond it, fill with thickened epoxy, drill again when it is hard. Water in a core is found years later.")
	case Solid:
		add("Solid there: seal the walls of the hole with epoxy or the compound itself.")
	case NotAsked:
		add("Say what lies between the skins there: a core must be closed off before anything is bolted through it.")
	}
	if h.EndGrain {
		add(
			"End grain drinks: three coats of thin epoxy into the holes, the last thickened, and a longer screw; no screw in end grain carries a load.")
	}
	switch {
	case h.Through && h.Backed:
		add(
			"Bolted through with a plate behind: bed the plate too, washers under the nuts, turn the nut and hold the bolt.")
	case h.Through:
		add(
			"Bolted through with nothing behind: a plate or large washers at least three times the bolt, or it pulls through.")
	case h.Backed:
		add("A plate behind wants bolts through to it.")
	}
	return out
}

// Steps are the work of a refit on each surface: holes drilled and sealed before the coats,
// fittings bedded when they are hard, tightened the second and, weeks later, the third time.
func (w Work) Steps(c Case) map[string][]craft.Step {
	out := map[string][]craft.Step{}
	for _, h := range w.Hardware {
		if h.SurfaceID == "" {
			continue
		}
		plan := craft.New()
		k := compound(h.Compound)
		snug, _ := k.snug.TauH(c.TempC, cure.Minimum)
		if !h.Sealed {
			plan.Do(craft.Work("drill-"+h.Name, "drill and seal for "+h.Name, message.Join(h.advice(), " "), drillH,
				fillSetH).First())
		}
		if h.BeddedAt == nil {
			plan.Do(craft.Work("bed-"+h.Name, "bed "+h.Name+" in "+k.Name,
				message.Of("compound on, screws in, tightened till it weeps out all round, no more"), bedH, snug).As(
				step.Bed))
		}
		if h.SnuggedAt == nil {
			plan.Do(craft.Work("second-"+h.Name, "tighten "+h.Name+" the second time",
				message.Of("by the nut, the screw held still, or the seal is torn"), tightenH, thirdH).As(step.Tighten))
		}
		plan.Do(craft.Work("third-"+h.Name, "tighten "+h.Name+" the third time",
			message.Of("weeks later, when the compound has settled; a nut that turns is looked at again"), tightenH,
			0).As(step.Tighten))
		out[h.SurfaceID] = append(out[h.SurfaceID], plan.Steps...)
	}
	for _, l := range w.Lines {
		if l.SurfaceID == "" || l.Off || l.MaskedAt != nil || l.LengthM == 0 {
			continue
		}
		m := l.LengthM * map[bool]float64{true: 2, false: 1}[l.Twice]
		one := craft.Work("line-"+l.Name, "mask "+l.Name, message.Of("edges pressed down, the day that it is coated"),
			0, 0).As(step.Mask).Of(m, "m")
		one.TapeM, one.Tape, one.TapeH, one.Pull = m, l.Tape, tape(l.Tape).StayH, l.Pull
		plan := craft.New()
		plan.Do(one)
		out[l.SurfaceID] = append(out[l.SurfaceID], plan.Steps...)
	}
	return out
}
