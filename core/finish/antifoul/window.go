package antifoul

import (
	"fmt"
	"math"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/conditions/clock"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/physics/cure"
)

// tie tells the window of the coat below, while it is tacky.
func (r *Result) tie(c Case) {
	if c.Tie == nil {
		return
	}
	o, ok := c.Tie.RecoatOver(c.Sheet.Kind)
	if !ok {
		r.Tie = message.Of("%s does not say when antifouling may follow: ask its maker.", c.Tie.Name)
		r.Find(false, "%s", r.Tie)
		return
	}
	l := clock.Laid{Sheet: *c.Tie, Started: c.Now}
	if c.TieLaid != nil {
		l, r.TieLaid = *c.TieLaid, true
	}
	k := clock.Run(l, c.Sheet.Kind, c.Weather, c.Now)
	opens := k.Event(clock.RecoatOpens)
	r.TieOpens, r.TieCloses = opens.At, k.Event(clock.RecoatCloses).At
	if r.TieLaid {
		r.TieState = k.State
	}
	if opens.At == nil && opens.Progress == 0 {
		r.TieCloses = nil
		r.Tie = message.Of("%s does not cure in the weather ahead: it asks for %.0f °C.", c.Tie.Name, c.Tie.MinCureC)
		r.Find(true, "%s", r.Tie)
		return
	}
	r.Working.Step("Tie window opens after", "its recoat clock over the surface's temperature, as on Today",
		hoursTo(l.Started, opens.At), "h", "data sheet")
	if len(o.Max) > 0 {
		r.Working.Step("Tie window closes after", "its maximum clock, which never stands in the cold",
			hoursTo(l.Started, r.TieCloses), "h", "data sheet")
	}
	r.Tie = message.Of(
		"Ready when a thumb leaves a print and takes no colour with it; too late when it leaves none: then sand to 120 and tie again.")
	switch {
	case k.State == clock.Closed && r.TieLaid:
		r.Find(true, "The tie window has closed: sand to 120 and tie again.")
	case k.State == clock.Unknown && r.TieLaid:
		r.Find(true, "It is not known whether the tie window is still open: sand to 120 and tie again.")
	case k.State == clock.Damaged && r.TieLaid:
		r.Find(true, "The tie coat was hit by water or frost while it was wet: inspect it first.")
	}
}

// hoursTo is the time until an instant, h; −1 if the weather known does not reach it.
func hoursTo(from time.Time, to *time.Time) float64 {
	if to == nil {
		return -1
	}
	return to.Sub(from).Hours()
}

// launch works out between when the last coat must go on.
func (r *Result) launch(c Case) {
	for _, t := range clock.Hardening(c.Sheet, true) {
		if h, _ := t.TauH(c.TempC, cure.Minimum); !math.IsInf(h, 1) {
			r.DryH = max(r.DryH, h)
		}
	}
	if r.DryH == 0 {
		r.Find(false, "The sheet does not say when she may be launched: ask its maker before a day is fixed.")
	}
	r.MaxH = c.Sheet.LaunchMaxH
	r.Working.Step("Dry before launch",
		"the slower of the sheet's immersion and through-dry times at the surface's temperature", r.DryH, "h",
		"data sheet")
	if c.Launch == nil || r.DryH == 0 {
		return
	}
	last := c.Launch.Add(-time.Duration(r.DryH * float64(time.Hour)))
	r.LastTo = &last
	if r.MaxH > 0 {
		from := c.Launch.Add(-time.Duration(r.MaxH * float64(time.Hour)))
		r.LastFrom = &from
	}
	if last.Before(c.Now) {
		r.Find(true, "It is too late to be dry for the launch: the last coat had to be on by %v.", message.On(last))
	}
}

func (r *Result) steps(w Work, in Case) {
	prep := map[string]string{
		"primed":   "within the tie window nothing; after it scuff to 120 to 180, dust off",
		"soft":     "pressure-wash, catch the water, scrape what is loose; no dry sanding",
		"hard":     "wet-scuff with 80 to 120 to bring up what is left in it; catch the slurry",
		"silicone": "have it taken off",
		"unknown":  "wash, wet-scuff, tie coat on a trial patch first: three days, then a knife",
		"flaking":  "off, wet or by licensed blasting",
	}[w.Old]
	m, _ := film.MethodByKey("roller")
	ready := craft.Work("ready", "get it ready", message.Lit(prep), in.AreaM2/4, 0)
	switch w.Old {
	case "soft", "hard", "unknown":
		ready = craft.Work("ready", "wet-scuff and wash off", message.Lit(prep), in.AreaM2/4, 0).As(step.Wash)
	case "silicone", "flaking":
		ready = craft.Work("ready", "take the old antifouling off, wet", message.Lit(prep), in.AreaM2/1.5, 0).As(
			step.Strip)
	}
	if w.Old == "primed" {
		ready = ready.Stays() // a missed window is keyed by the plan
	}
	r.Do(ready)
	mask := craft.Work("mask", "mask waterline and fittings",
		message.Of(
			"waterline, anodes, transducers, shaft and prop: antifouling spoils the first three and does nothing for the last"), 1.5, 0).As(step.Mask)
	mask.Pull = step.WhileWet
	r.Do(mask)
	if in.Tie != nil && in.TieLaid == nil && w.Old != "primed" {
		r.Do(craft.Coats("tie", "tie", 1, in.Tie.Film.TypicalUm, m, 0, r.Tie).Of(in.litres(in.AreaM2, *in.Tie), "L"))
	}
	um := in.Sheet.Film.TypicalUm
	lay := func(key string, where *step.Where, areaM2 float64, colours []string, how string) {
		for i := 0; i < len(colours); {
			n := 1
			for i+n < len(colours) && colours[i+n] == colours[i] {
				n++
			}
			one := craft.Coats(fmt.Sprintf("%s-%d", key, i+1), "main", n, um, m, 0,
				message.Of("%s; stir from the bottom, the biocide sinks", how)).At(where).
				Of(float64(n)*in.litres(areaM2, in.Sheet), "L")
			one.Colour = colours[i]
			one.WorkH = float64(n) * areaM2 / m.RateM2H
			r.Do(one)
			i += n
		}
	}
	for _, z := range r.Zones { // extra coats go on first, the coats of all over them
		if z.Extra > 0 && z.Extra <= len(z.Colours) {
			lay("extra-"+z.Name, &step.Where{Name: z.Name, Patches: []step.Patch{{Name: z.Name, AreaM2: z.AreaM2}}},
				z.AreaM2, z.Colours[:z.Extra], "only where water wears it")
		}
	}
	if len(r.Zones) > 0 {
		z := r.Zones[0]
		lay("all", nil, in.AreaM2, z.Colours[z.Extra:], "all over")
	}
	r.Do(craft.Work("launch", "launch", message.Of("%s; dab the pads where props stood while she hangs",
		map[bool]string{true: fmt.Sprintf("within %.0f days of the last coat", r.MaxH/24),
			false: "no latest day by the sheet"}[r.MaxH > 0]), 0, 0).Stays())
}
