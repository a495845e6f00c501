package area

import (
	"allcoats/core/fault"
	"allcoats/core/working"
)

// Part is what part of the boat a surface is.
type Part string

// The parts that principal dimensions can measure, and Other for the rest.
const (
	Bottom   Part = "bottom"
	Topsides Part = "topsides"
	Deck     Part = "deck"
	Other    Part = "other"
)

// Parts lists the parts.
var Parts = []Part{Bottom, Topsides, Deck, Other}

// Side is the side of the boat that a surface is on.
type Side string

// Sides of the boat.
const (
	Port      Side = "port"
	Starboard Side = "starboard"
	Both      Side = "both"
)

// Sides lists the sides.
var Sides = []Side{Port, Starboard, Both}

// How a surface's area is found.
const (
	ByPrincipal = "principal"
	ByStrip     = "strip"
	Stated      = "stated"
)

// Measure says how a surface's area is found. Zero is ByPrincipal.
type Measure struct {
	Method string `json:"method" enum:"principal,strip,stated"`
	// Strip: Count pieces of LengthM × WidthM developed width.
	LengthM float64 `json:"lengthM,omitempty"`
	WidthM  float64 `json:"widthM,omitempty"`
	Count   int     `json:"count,omitempty"`
	// Stated: a figure of the user's own with its standard uncertainty.
	AreaM2         float64 `json:"areaM2,omitempty"`
	UncertaintyPct float64 `json:"uncertaintyPct,omitempty"`
}

// stripPct is the standard uncertainty of length × developed width by tape.
const stripPct = 5

// Validate reports a measure that cannot give an area for the part.
func (m Measure) Validate(part Part) error {
	var bad fault.Errors
	switch m.Method {
	case ByPrincipal, "":
		if part == Other {
			bad.Add("method", "principal dimensions give only bottom, topsides and deck: measure this part or state its area")
		}
	case ByStrip:
		bad.Above("lengthM", m.LengthM, 0, 200, "m")
		bad.Above("widthM", m.WidthM, 0, 20, "m")
		bad.Range("count", float64(m.Count), 1, 1000, "pieces")
	case Stated:
		bad.Above("areaM2", m.AreaM2, 0, 5000, "m²")
		bad.Range("uncertaintyPct", m.UncertaintyPct, 0, 50, "%")
	default:
		bad.Add("method", "must be principal, strip or stated")
	}
	return bad.Err()
}

// Of returns the area of a part of a boat with dimensions d.
func Of(d Dimensions, part Part, side Side, m Measure) (Figure, error) {
	if err := m.Validate(part); err != nil {
		return Figure{}, err
	}
	w := working.New()
	switch m.Method {
	case ByStrip:
		w.In("Length", m.LengthM, "m")
		w.In("Developed width", m.WidthM, "m")
		w.In("Pieces", float64(m.Count), "")
		a := w.Step("Area", "pieces · length · width", float64(m.Count)*m.LengthM*m.WidthM, "m²", "geometry; ±5 % for a tape")
		return Figure{a, stripPct, w}, nil
	case Stated:
		w.In("Stated area", m.AreaM2, "m²")
		w.Warn("Your own figure; the program has not checked it.")
		return Figure{m.AreaM2, m.UncertaintyPct, w}, nil
	}
	p, err := FromPrincipal(d)
	if err != nil {
		return Figure{}, err
	}
	whole := map[Part]Figure{Bottom: p.Bottom, Deck: p.Deck, Topsides: p.TopsidesSides}[part]
	switch {
	case side == Both:
		return whole, nil
	case part == Topsides:
		return p.TopsidesSide, nil
	}
	half := whole
	half.AreaM2 = half.Working.Step("One side", "half of it", whole.AreaM2/2, "m²", "symmetry")
	return half, nil
}
