package area

// HullForm is how full the underwater body is, and how many there are.
type HullForm string

// The hull forms.
const (
	FullMotor HullForm = "full-motor"
	Medium    HullForm = "medium"
	FinKeel   HullForm = "fin-keel"
	OpenChine HullForm = "open-chine"
	Catamaran HullForm = "catamaran"
	Trimaran  HullForm = "trimaran"
)

// HullFormInfo describes a hull form: what rules and screens ask of it.
type HullFormInfo struct {
	Form HullForm `json:"form"`
	Name string   `json:"name"`
	// Hulls is how many she has. Open has no deck; Fin is a keel apart from the hull.
	Hulls int  `json:"hulls"`
	Open  bool `json:"open"`
	Fin   bool `json:"fin"`
	// k is the factor of the bottom rule LWL · (beam + draught), with the draught of the boat;
	// kBody with that of the hull alone, where it is known.
	k, kBody float64
	// pct and pctBody are the ± of either, %.
	pct, pctBody float64
	// body is the share of the draught that the hull usually has.
	body float64
	// whole is how many whole hulls the floats make her in bottom and topsides.
	whole float64
	// cb, cm and cwp are usual block, midship and waterplane coefficients of the hull.
	cb, cm, cwp float64
	// usual stands in for dimensions that nobody gave.
	usual usualShares
}

// forms are the hull forms: k of the first three by the trade's rule, the rest by this program
// from hulls of known area.
var forms = []HullFormInfo{
	{FullMotor, "full-bodied motor hull", 1, false, false, 1, 1, 15, 15, 1, 1, 0.5, 0.78, 0.8,
		usualShares{0.9, 0.1, 0.12, 0.24}},
	{Medium, "round bilge, long or faired-in keel", 1, false, false, 0.75, 0.75, 15, 15, 1, 1, 0.42, 0.7, 0.7,
		usualShares{0.8, 0.15, 0.1, 0.22}},
	{FinKeel, "shallow hull with a fin keel", 1, false, true, 0.5, 0.64, 22, 12, 0.35, 1, 0.38, 0.68, 0.68,
		usualShares{0.87, 0.18, 0.11, 0.25}},
	{OpenChine, "open boat, hard chine or flat bottom", 1, true, false, 0.65, 0.65, 20, 20, 1, 1, 0.45, 0.75, 0.72,
		usualShares{0.92, 0.05, 0.1, 0}},
	{Catamaran, "two hulls", 2, false, false, 0.75, 0.75, 22, 22, 0.9, 2, 0.42, 0.72, 0.72,
		usualShares{0.94, 0.09, 0.12, 0.2}},
	{Trimaran, "three hulls, the outer ones smaller", 3, false, false, 0.75, 0.75, 30, 30, 0.9, 2.1, 0.42, 0.72, 0.72,
		usualShares{0.92, 0.07, 0.1, 0.15}},
}

// HullForms lists the hull forms.
var HullForms = func() []HullForm {
	out := make([]HullForm, len(forms))
	for i, f := range forms {
		out[i] = f.Form
	}
	return out
}()

// Forms describes them.
func Forms() []HullFormInfo { return forms }

// Info returns what is known of a form; an unknown one is Medium.
func (f HullForm) Info() HullFormInfo {
	for _, i := range forms {
		if i.Form == f {
			return i
		}
	}
	return forms[1]
}

// bottom is the area of the hull or hulls under water, without fin, skeg and rudder, m², with
// its formula and ±, %.
func (d Dimensions) bottom() (a float64, formula string, pct float64) {
	f := d.HullForm.Info()
	switch {
	case f.Hulls > 1:
		pct = f.pct
		if d.HullBeamM > 0 {
			pct -= 8
		}
		return f.whole * f.k * d.LWLM * (d.hullBeam() + 1.6*d.body()),
			"hulls · k · LWL · (beam of a hull + 1.6 · its draught)", pct
	case d.BodyDraughtM > 0:
		return f.kBody * d.LWLM * (d.BeamM + d.BodyDraughtM), "k · LWL · (beam + draught of the hull)", f.pctBody
	}
	return f.k * d.LWLM * (d.BeamM + d.DraughtM), "k · LWL · (beam + draught)", f.pct
}

// Block is the block coefficient of a displacement, t, on the hull's own draught, or on all of it
// where that is not known.
func (d Dimensions) Block(displacementT float64) float64 {
	t := d.BodyDraughtM
	if t == 0 {
		t = d.DraughtM
	}
	return displacementT / seaWater / (d.LWLM * d.hullBeam() * t * d.HullForm.Info().whole)
}

// seaWater is its density, t/m³.
const seaWater = 1.025

// topsides is the area of all sides above the water, m².
func (d Dimensions) topsides() float64 {
	f := d.HullForm.Info()
	return f.whole * 2 * (d.LOAM + d.hullBeam()) * d.FreeboardM
}
