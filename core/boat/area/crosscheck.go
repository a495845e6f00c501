package area

import (
	"math"
	"strings"

	"allcoats/core/base/message"
	"allcoats/core/base/working"
)

// Check is a wetted surface by a naval architect's formula.
type Check struct {
	Name    string          `json:"name"`
	AreaM2  float64         `json:"areaM2"`
	Working working.Working `json:"working"`
}

// CrossCheck sets the area chosen for the bottom against formulas for the
// wetted surface. Text says in a sentence what to make of it.
type CrossCheck struct {
	Checks    []Check          `json:"checks"`
	ChosenM2  float64          `json:"chosenM2"`
	LowM2     float64          `json:"lowM2"`
	HighM2    float64          `json:"highM2"`
	Text      message.Sentence `json:"text"`
	Plausible bool             `json:"plausible"`
}

// WettedSurface returns Mumford's S = LWL (1.7 T + CB B) and Holtrop's
// statistical formula (1984, without bulb and appendages) for a boat, with
// DisplacementT, t, for the block coefficient if it is known, else with a usual
// one for her form.
func WettedSurface(d Dimensions, displacementT float64) []Check {
	form := d.HullForm.Info()
	cm, cwp := form.cm, form.cwp
	t, b := d.body(), d.hullBeam()
	inputs := func() working.Working {
		w := working.New()
		w.In("LWL", d.LWLM, "m")
		w.In("Beam of the hull", b, "m")
		if form.Hulls > 1 {
			w.In("Hulls, the smaller as part of one", form.whole, "")
		}
		w.In("Draught of the hull", t, "m")
		return w
	}
	block := func(w *working.Working) float64 {
		if displacementT > 0 {
			w.In("Displacement", displacementT*1000, "kg")
			return w.Step("Block coefficient CB", "volume / (hulls · LWL · B · T)",
				displacementT/seaWater/(d.LWLM*b*t*form.whole), "", "sea water 1.025 kg/L")
		}
		w.Warn("The block coefficient is a usual one for her form: enter her displacement for a better one.")
		return w.Step("Block coefficient CB", "usual for her form", form.cb, "", "rule of thumb")
	}
	m := inputs()
	cbm := block(&m)
	mumford := m.Step("Wetted surface", "hulls · LWL · (1.7 · T + CB · B)", form.whole*d.LWLM*(1.7*t+cbm*b), "m²",
		"Denny-Mumford")
	h := inputs()
	cbh := block(&h)
	h.In("Midship coefficient CM", cm, "")
	h.In("Waterplane coefficient CWP", cwp, "")
	holtrop := h.Step("Wetted surface",
		"hulls · L (2T + B) √CM (0.453 + 0.4425 CB − 0.2862 CM − 0.003467 B/T + 0.3696 CWP)",
		form.whole*d.LWLM*(2*t+b)*math.Sqrt(cm)*(0.453+0.4425*cbh-0.2862*cm-0.003467*b/t+0.3696*cwp), "m²",
		"Holtrop 1984")
	if lb := d.LWLM / b; lb < 3.9 || lb > 15 || cbh < 0.55 {
		h.Warn("Outside what the formula was made for (L/B 3.9 to 15, CB from 0.55): an indication only.")
	}
	if form.Fin {
		const note = "Without the fin and the rudder: measure those as surfaces of their own."
		m.Warn(note)
		h.Warn(note)
	}
	return []Check{{"Mumford", mumford, m}, {"Holtrop", holtrop, h}}
}

// SetAgainst compares the area chosen for the bottom, m², with the checks; measured says that it is
// more than a rule of thumb. A figure within 15 % of the range they span is plausible.
func SetAgainst(checks []Check, d Dimensions, chosen Figure, measured bool) CrossCheck {
	way := "by the rule of thumb"
	if measured {
		way = "as measured"
	}
	c := CrossCheck{Checks: checks, ChosenM2: chosen.AreaM2, LowM2: math.Inf(1)}
	for _, k := range checks {
		c.LowM2, c.HighM2 = min(c.LowM2, k.AreaM2), max(c.HighM2, k.AreaM2)
	}
	spread := message.Of("formulas for the wetted surface give %.3g m² to %.3g m²", c.LowM2, c.HighM2)
	switch {
	case chosen.AreaM2 < 0.85*c.LowM2:
		why := []string{"a girth or a length too short, one side taken for both"}
		if !d.HullForm.Info().Fin {
			why = append(why, "or a form slacker than set")
		}
		c.Text = message.Of("The bottom %s, %.3g m², is small: %s. Look for %s.", way, chosen.AreaM2, spread,
			strings.Join(why, ", "))
	case chosen.AreaM2 > 1.15*c.HighM2:
		c.Text = message.Of(
			"The bottom %s, %.3g m², is large: %s. Look for appendages counted in, both sides taken twice, or topsides above the waterline taken in.", way, chosen.AreaM2, spread)
	default:
		c.Plausible = true
		c.Text = message.Of("The bottom %s, %.3g m², is plausible: %s.", way, chosen.AreaM2, spread)
	}
	return c
}
