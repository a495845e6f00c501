package area

import (
	"fmt"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
)

// ShapeField is one length of a shape, with the words for it.
type ShapeField struct {
	Key   string `json:"key" enum:"aM,bM,cM"`
	Label string `json:"label"`
	// MayBeZero is set for lengths that can vanish, such as a cone's tip.
	MayBeZero bool `json:"mayBeZero"`
}

// ShapeKind is a kind of shape with the lengths it takes.
type ShapeKind struct {
	Kind    string       `json:"kind"`
	Name    string       `json:"name"`
	Fields  []ShapeField `json:"fields"`
	formula string
	area    func(a, b, c float64) float64
	check   func(a, b, c float64) string
}

func fields(labels ...string) []ShapeField {
	out := make([]ShapeField, len(labels))
	for i, l := range labels {
		out[i] = ShapeField{Key: []string{"aM", "bM", "cM"}[i], Label: l}
	}
	return out
}

func zero(f []ShapeField, i int) []ShapeField {
	f[i].MayBeZero = true
	return f
}

// ShapeKinds lists the shapes.
var ShapeKinds = []ShapeKind{
	{"rectangle", "rectangle", fields("Length", "Width"), "length · width", func(a, b, _ float64) float64 {
		return a * b
	}, nil},
	{"strip", "strip, length × developed width", fields("Length", "Developed width"), "length · developed width",
		func(a, b, _ float64) float64 { return a * b }, nil},
	{"triangle", "triangle, base and height", fields("Base", "Height"), "½ · base · height",
		func(a, b, _ float64) float64 { return a * b / 2 }, nil},
	{"triangle-sides", "triangle, three sides", fields("Side", "Side", "Side"),
		"√(s(s − a)(s − b)(s − c)), s half the sum",
		func(a, b, c float64) float64 {
			s := (a + b + c) / 2
			return math.Sqrt(max(0, s*(s-a)*(s-b)*(s-c)))
		}, func(a, b, c float64) string {
			if 2*max(a, b, c) >= a+b+c {
				return "the longest side must be shorter than the other two together"
			}
			return ""
		}},
	{"trapezoid", "trapezoid", fields("Long side", "Short side", "Height"), "½ · (long + short) · height",
		func(a, b, c float64) float64 { return (a + b) / 2 * c }, nil},
	{"circle", "circle", fields("Diameter"), "π/4 · diameter²", func(a, _, _ float64) float64 {
		return math.Pi / 4 * a * a
	}, nil},
	{"ellipse", "ellipse", fields("Length", "Width"), "π/4 · length · width", func(a, b, _ float64) float64 {
		return math.Pi / 4 * a * b
	}, nil},
	{"annulus", "ring", fields("Outer diameter", "Inner diameter"), "π/4 · (outer² − inner²)",
		func(a, b, _ float64) float64 { return math.Pi / 4 * (a*a - b*b) }, smaller("the inner diameter")},
	{"cylinder", "cylinder, without ends", fields("Diameter", "Length"), "π · diameter · length",
		func(a, b, _ float64) float64 { return math.Pi * a * b }, nil},
	{"cone-frustum", "cone or tapered spar, without ends",
		zero(fields("Diameter at one end", "Diameter at the other", "Length"), 1),
		"π/2 · (D + d) · √(length² + (D − d)²/4)",
		func(a, b, c float64) float64 { return math.Pi / 2 * (a + b) * math.Hypot(c, (a-b)/2) }, nil},
	{"sphere-cap", "cap of a sphere", fields("Diameter of the sphere", "Height of the cap"), "π · diameter · height",
		func(a, b, _ float64) float64 { return math.Pi * a * b }, smaller("the height")},
	{"half-ellipsoid", "half of an ellipsoid, without lid", fields("Length", "Width", "Height or depth"),
		"integral over the surface",
		func(a, b, c float64) float64 { return ellipsoidBelow(a/2, b/2, c, 0) }, nil},
}

func smaller(what string) func(a, b, _ float64) string {
	return func(a, b, _ float64) string {
		if b >= a {
			return what + " must be less than the diameter before it"
		}
		return ""
	}
}

func shapeKind(kind string) (ShapeKind, bool) {
	for _, k := range ShapeKinds {
		if k.Kind == kind {
			return k, true
		}
	}
	return ShapeKind{}, false
}

// Shape is a number of equal pieces of one kind, added or taken away. AM, BM
// and CM are its lengths in the order of the kind's fields.
type Shape struct {
	Kind  string  `json:"kind"`
	Name  string  `json:"name,omitempty"`
	AM    float64 `json:"aM"`
	BM    float64 `json:"bM,omitempty"`
	CM    float64 `json:"cM,omitempty"`
	Count int     `json:"count"`
	Minus bool    `json:"minus,omitempty"`
}

// shapesPct is the ± of shapes measured by tape, an 80 % range.
const shapesPct = 5

// ShapesRequest is the input of the area-shapes calculator.
type ShapesRequest struct {
	Shapes []Shape `json:"shapes"`
}

func validateShapes(shapes []Shape) error {
	var bad fielderr.Errors
	if len(shapes) == 0 {
		bad.Add("shapes", "add a shape")
	}
	if len(shapes) > 500 {
		bad.Add("shapes", "at most 500 shapes are taken")
	}
	for i, s := range shapes {
		at := func(field string) string { return fmt.Sprintf("shapes[%d].%s", i, field) }
		k, ok := shapeKind(s.Kind)
		if !ok {
			bad.Add(at("kind"), "choose a shape")
			continue
		}
		bad.Range(at("count"), float64(s.Count), 1, 1000, "pieces")
		given := []float64{s.AM, s.BM, s.CM}
		before := len(bad)
		for n, f := range k.Fields {
			if f.MayBeZero {
				bad.Range(at(f.Key), given[n], 0, 200, "m")
			} else {
				bad.Above(at(f.Key), given[n], 0, 200, "m")
			}
		}
		if len(bad) == before && k.check != nil {
			if why := k.check(s.AM, s.BM, s.CM); why != "" {
				bad.Add(at(k.Fields[len(k.Fields)-1].Key), "%s", why)
			}
		}
	}
	return bad.Err()
}

// ByShapes adds up shapes, those with Minus taken away; what is left must be
// more than nothing.
func ByShapes(r ShapesRequest) (Figure, error) {
	if err := validateShapes(r.Shapes); err != nil {
		return Figure{}, err
	}
	w := working.New()
	sum, gross := 0.0, 0.0
	for i, s := range r.Shapes {
		k, _ := shapeKind(s.Kind)
		a := float64(s.Count) * k.area(s.AM, s.BM, s.CM)
		label := k.Name
		if s.Name != "" {
			label = s.Name
		}
		formula := k.formula
		for n, f := range k.Fields {
			w.In(fmt.Sprintf("%d. %s: %s", i+1, label, f.Label), []float64{s.AM, s.BM, s.CM}[n], "m")
		}
		if s.Count > 1 {
			formula = fmt.Sprintf("%d pieces · %s", s.Count, formula)
		}
		if s.Minus {
			a, formula = -a, "less "+formula
		}
		sum += w.Step(fmt.Sprintf("%d. %s", i+1, label), formula, a, "m²", "geometry")
		gross += math.Abs(a)
	}
	if sum <= 0 {
		return Figure{}, fielderr.At("shapes", "nothing is left: what is taken away is %.3g m² more than what is there",
			-sum)
	}
	w.Step("Area", "sum", sum, "m²", "addition")
	pct := w.Step("Uncertainty", "5 % of everything measured, added or taken away, over what is left",
		shapesPct*gross/sum, "%", "tape: rule of thumb")
	return Figure{AreaM2: sum, UncertaintyPct: pct, Working: w}, nil
}
