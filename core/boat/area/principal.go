package area

import (
	"fmt"
	"math"

	"allcoats/core/base/working"
)

// Figure is an area with half of its 80 % range and how it was found.
type Figure struct {
	AreaM2         float64         `json:"areaM2"`
	UncertaintyPct float64         `json:"uncertaintyPct" doc:"half of the range that holds the truth in 80 % of cases"`
	Working        working.Working `json:"working"`
	// Line is the girth curve, of an area by girths.
	Line *GirthLine `json:"line,omitempty"`
}

// plusMinus is half of the 80 % range in m².
func (f Figure) plusMinus() float64 { return f.AreaM2 * f.UncertaintyPct / 100 }

// Half is half of an 80 % range over its standard deviation, where errors are normal.
const Half = 1.2815515655

// SDPct is the standard deviation that the range stands for, %.
func (f Figure) SDPct() float64 { return f.UncertaintyPct / Half }

// Principal holds the areas that principal dimensions give.
type Principal struct {
	Bottom        Figure `json:"bottom"`
	TopsidesSides Figure `json:"topsidesBothSides"`
	TopsidesSide  Figure `json:"topsidesOneSide"`
	Deck          Figure `json:"deck"`
}

// FromPrincipal estimates bottom ≈ k · LWL · (B + T), topsides ≈ 2 · (LOA + B)
// · freeboard and deck ≈ 0.75 · LOA · B − houses, each with the ± of her form.
func FromPrincipal(d Dimensions) (Principal, error) {
	if err := d.Validate(); err != nil {
		return Principal{}, err
	}
	return Principal{byRule(d, Bottom, Both), byRule(d, Topsides, Both), byRule(d, Topsides, Port),
		byRule(d, Deck, Both)}, nil
}

// byRule estimates a part that has a rule from valid dimensions.
func byRule(d Dimensions, p Part, s Side) Figure {
	form := d.HullForm.Info()
	w := working.New()
	w.In("LOA", d.LOAM, "m")
	w.In("LWL", d.LWLM, "m")
	w.In("Beam", d.BeamM, "m")
	if form.Hulls > 1 {
		w.In("Beam of a hull", d.hullBeam(), "m")
		w.In("Hulls, the smaller as part of one", form.whole, "")
	}
	w.In("Draught", d.DraughtM, "m")
	w.In("Draught of the hull", d.body(), "m")
	w.In("Mean freeboard", d.FreeboardM, "m")
	w.In("Houses and openings", d.HousesM2, "m²")
	if p == Bottom {
		k := form.k
		if d.BodyDraughtM > 0 {
			k = form.kBody
		}
		w.In("Hull form factor k", k, "")
	}
	a, formula, pct := p.Info().rule(d)
	source := "first guess of this program"
	if pct == PrincipalPct {
		source = "rule of thumb of the trade"
	}
	a = w.Step("Area", formula, a, "m²", fmt.Sprintf("%s, ±%g %%", source, pct))
	if g := d.guessPct(p.Info().rule); g > 0 {
		pct = w.Step("± with what was guessed of her",
			"√(± of the rule² + Σ (half the change over each guess's range)²)", math.Hypot(pct, g), "%",
			"independent errors add in squares")
		w.Warn("Guessed from length and beam: %s. Measure them, and the ± shrinks.", d.guesses())
	}
	if s != Both {
		a = w.Step("One side", "half of both", a/2, "m²", "symmetry")
	}
	d.mind(&w, p)
	return Figure{AreaM2: a, UncertaintyPct: pct, Working: w}
}

// mind warns of what a part's rule counts in or leaves out.
func (d Dimensions) mind(w *working.Working, p Part) {
	form := d.HullForm.Info()
	switch {
	case p == Bottom && form.Fin && d.BodyDraughtM == 0:
		w.Warn("The draught includes the fin: enter the draught of the hull alone, and ±%g %% becomes ±%g %%.",
			form.pct, form.pctBody)
	case p == Bottom && form.Hulls > 1 && d.HullBeamM == 0:
		w.Warn(
			"The beam of one hull at the waterline is taken for a tenth of her length: enter it, and ±%g %% becomes ±%g %%.", form.pct, form.pct-8)
	case p == Keel && !form.Fin && d.BodyDraughtM == 0:
		w.Warn(
			"The rule for the bottom holds a faired-in keel already: enter the draught of the hull alone, or do without this surface.")
	case p == Deck && d.HousesM2 == 0:
		w.Warn(
			"No houses entered: all of the plan counts as deck. Enter their plan area, or the cabin top and the cockpit are counted twice.")
	case (p == CabinTop || p == Cockpit || p == SideDecks) && d.HousesM2 == 0:
		w.Warn("No houses entered: they are taken for a quarter of LOA · beam.")
	}
	w.Warn("From principal dimensions only: girths, shapes or an outline give a better figure.")
}
