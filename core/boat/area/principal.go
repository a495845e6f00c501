package area

import (
	"fmt"

	"allcoats/core/base/working"
)

// Figure is an area with its standard uncertainty and how it was found.
type Figure struct {
	AreaM2         float64         `json:"areaM2"`
	UncertaintyPct float64         `json:"uncertaintyPct"`
	Working        working.Working `json:"working"`
}

// sigma is the standard uncertainty in m².
func (f Figure) sigma() float64 { return f.AreaM2 * f.UncertaintyPct / 100 }

// Principal holds the areas that principal dimensions give.
type Principal struct {
	Bottom        Figure `json:"bottom"`
	TopsidesSides Figure `json:"topsidesBothSides"`
	TopsidesSide  Figure `json:"topsidesOneSide"`
	Deck          Figure `json:"deck"`
}

// FromPrincipal estimates bottom ≈ k · LWL · (B + T), topsides ≈ 2 · (LOA + B)
// · freeboard and deck ≈ 0.75 · LOA · B − houses, each ±15 %.
func FromPrincipal(d Dimensions) (Principal, error) {
	if err := d.Validate(); err != nil {
		return Principal{}, err
	}
	return Principal{byRule(d, Bottom, Both), byRule(d, Topsides, Both), byRule(d, Topsides, Port), byRule(d, Deck, Both)}, nil
}

// byRule estimates a part that has a rule from valid dimensions.
func byRule(d Dimensions, p Part, s Side) Figure {
	info := p.Info()
	w := working.New()
	w.In("LOA", d.LOAM, "m")
	w.In("LWL", d.LWLM, "m")
	w.In("Beam", d.BeamM, "m")
	w.In("Draught", d.DraughtM, "m")
	w.In("Mean freeboard", d.FreeboardM, "m")
	w.In("Houses and openings", d.HousesM2, "m²")
	if p == Bottom {
		w.In("Hull form factor k", d.HullForm.factor(), "")
	}
	source := "rule of thumb of the trade"
	if info.rule.pct > PrincipalPct {
		source = "first guess of this program"
	}
	a := w.Step("Area", info.rule.formula, info.rule.area(d), "m²", fmt.Sprintf("%s, ±%g %%", source, info.rule.pct))
	if s != Both {
		a = w.Step("One side", "half of both", a/2, "m²", "symmetry")
	}
	w.Warn("From principal dimensions only: girths, shapes or an outline give a better figure.")
	return Figure{a, info.rule.pct, w}
}
