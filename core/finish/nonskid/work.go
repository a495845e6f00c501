// Package nonskid lays out the panels of a non-skid deck: margins round edges and
// fittings, rounded corners, waterways, splits, a stencil, and what each panel takes.
// Lengths are in m, x forward from the aft end, y to port: as one sees a deck from above
// with the bow to the right.
package nonskid

import (
	"fmt"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/geometry/polygon"
)

// School is a way to make a deck grip.
type School string

// Schools.
const (
	Paint   School = "paint"
	Grit    School = "grit"
	Mats    School = "mats"
	Moulded School = "moulded"
)

// Schools lists them with their reason and their price.
var Schools = []struct {
	Key  School `json:"key"`
	Name string `json:"name"`
	Why  string `json:"why"`
}{
	{Paint, "textured paint", "One material, mended with a roller; the texture depends on how evenly it is spread."},
	{Grit, "grit broadcast in wet paint", "Grips best and lasts; hard on knees and on the next sanding."},
	{Mats, "cut sheet mats", "Even and quick to lay; seams show, and water finds a poor edge."},
	{Moulded, "moulded pattern panels",
		"The look of new; weeks of laminating, and a good deck to take the mould from."},
}

// FittingKind is a kind of fitting with its usual margin: rules of thumb.
type FittingKind struct {
	Key     string  `json:"key"`
	Name    string  `json:"name"`
	MarginM float64 `json:"marginM"`
	LengthM float64 `json:"lengthM"`
	WidthM  float64 `json:"widthM"`
	Round   bool    `json:"round"`
}

// FittingKinds lists them.
var FittingKinds = []FittingKind{
	{"hatch", "hatch", 0.04, 0.5, 0.5, false},
	{"cleat", "cleat or fairlead", 0.025, 0.25, 0.08, false},
	{"stanchion", "stanchion base", 0.025, 0.08, 0.08, false},
	{"winch", "winch or windlass", 0.03, 0.2, 0.2, true},
	{"filler", "deck filler or vent", 0.02, 0.09, 0.09, true},
	{"track", "track", 0.025, 0.8, 0.04, false},
	{"other", "other", 0.025, 0.15, 0.15, false},
}

// Fitting is something that stands on the deck, in its dry-fitted place: a box, a
// round, or an outline of its own about X, Y.
type Fitting struct {
	Name    string       `json:"name"`
	Kind    string       `json:"kind"`
	X       float64      `json:"x"`
	Y       float64      `json:"y"`
	LengthM float64      `json:"lengthM"`
	WidthM  float64      `json:"widthM"`
	TurnDeg float64      `json:"turnDeg"`
	Round   bool         `json:"round"`
	Outline polygon.Ring `json:"outline,omitempty"` // instead of length and width
	// MarginM overrides the kind's.
	MarginM *float64 `json:"marginM,omitempty"`
	// Mirror puts its twin on the other side.
	Mirror bool `json:"mirror"`
}

func (f Fitting) kind() FittingKind {
	for _, k := range FittingKinds {
		if k.Key == f.Kind {
			return k
		}
	}
	return FittingKind{}
}

func (f Fitting) margin() float64 {
	if f.MarginM != nil {
		return *f.MarginM
	}
	return f.kind().MarginM
}

// roundCorners is how many corners a round fitting is drawn with.
const roundCorners = 48

// around draws what a fitting drawn as s keeps free, its corners sharp.
func (f Fitting) around(s polygon.Shape) (polygon.Shape, error) {
	if f.Round {
		c := middle(s[0].Outer)
		k := 1 + 2*f.margin()/f.LengthM
		return s.Placed(func(p polygon.Point) polygon.Point {
			return polygon.Point{X: c.X + k*(p.X-c.X), Y: c.Y + k*(p.Y-c.Y)}
		}), nil
	}
	return s.Outset(f.margin(), polygon.Mitre)
}

// ring draws the fitting on the deck.
func (f Fitting) ring() polygon.Ring {
	r := f.Outline
	switch {
	case len(r) > 0:
	case f.Round:
		for i := range roundCorners {
			s, c := math.Sincos(2 * math.Pi * float64(i) / roundCorners)
			r = append(r, polygon.Point{X: f.LengthM / 2 * c, Y: f.LengthM / 2 * s})
		}
	default:
		l, w := f.LengthM/2, f.WidthM/2
		r = polygon.Ring{{X: -l, Y: -w}, {X: l, Y: -w}, {X: l, Y: w}, {X: -l, Y: w}}
	}
	s, c := math.Sincos(f.TurnDeg * math.Pi / 180)
	out := make(polygon.Ring, len(r))
	for i, p := range r {
		out[i] = polygon.Point{X: f.X + p.X*c - p.Y*s, Y: f.Y + p.X*s + p.Y*c}
	}
	return out
}

// Split is a line along which the non-skid is left out: a break between panels or a
// waterway, WidthM wide.
type Split struct {
	X1     float64 `json:"x1"`
	Y1     float64 `json:"y1"`
	X2     float64 `json:"x2"`
	Y2     float64 `json:"y2"`
	WidthM float64 `json:"widthM"`
	Mirror bool    `json:"mirror"`
}

func (s Split) shape() polygon.Shape {
	l := math.Hypot(s.X2-s.X1, s.Y2-s.Y1)
	nx, ny := -(s.Y2-s.Y1)/l*s.WidthM/2, (s.X2-s.X1)/l*s.WidthM/2
	return polygon.Shape{{Outer: polygon.Ring{{X: s.X1 - nx, Y: s.Y1 - ny}, {X: s.X2 - nx, Y: s.Y2 - ny},
		{X: s.X2 + nx, Y: s.Y2 + ny}, {X: s.X1 + nx, Y: s.Y1 + ny}}}}
}

// Work is a deck to be laid out.
type Work struct {
	Deck []polygon.Polygon `json:"deck"`
	// Symmetric mirrors a deck that is traced on one side only and pairs the panels.
	Symmetric bool    `json:"symmetric"`
	EdgeM     float64 `json:"edgeM"`    // margin along rails and edges
	OpeningM  float64 `json:"openingM"` // margin round the holes of the outline
	OutsideRM float64 `json:"outsideRM"`
	InsideRM  float64 `json:"insideRM"`
	TapeMM    float64 `json:"tapeMM"`

	Fittings []Fitting `json:"fittings"`
	Splits   []Split   `json:"splits"`
	Stencil  *Stencil  `json:"stencil,omitempty"`

	School    School  `json:"school"`
	Texture   Texture `json:"texture"`
	Sheet     Sheet   `json:"sheet"`
	ProductID string  `json:"productId"`
	RateM2H   float64 `json:"rateM2H"`
	// Laid are the litres, or with grit the kilograms, that went onto panels, by name.
	Laid map[string]float64 `json:"laid"`
}

// Usual is a deck to begin with.
func Usual(deck []polygon.Polygon) Work {
	return Work{Deck: deck, Symmetric: true, EdgeM: 0.05, OpeningM: 0.04, OutsideRM: 0.04, InsideRM: 0.04, TapeMM: 19,
		Fittings: []Fitting{}, Splits: []Split{},
		School: Paint, Texture: Texture{Tool: Roller, Grade: "medium", WidthMM: 3, PitchMM: 6, DepthMM: 3, WastePct: 8},
		Sheet: Sheet{LengthM: 1.8, WidthM: 0.9}, RateM2H: 4, Laid: map[string]float64{}}
}

// Limits of what is laid out.
const (
	maxFittings = 400
	maxSplits   = 100
)

// Validate reports what cannot be laid out.
func (w Work) Validate() error {
	var bad fielderr.Errors
	for i, d := range w.Deck {
		bad.Under(fmt.Sprintf("deck[%d]", i), d.Validate())
	}
	bad.Range("edgeM", w.EdgeM, 0, 1, "m")
	bad.Range("openingM", w.OpeningM, 0, 1, "m")
	bad.Range("outsideRM", w.OutsideRM, 0, 0.5, "m")
	bad.Range("insideRM", w.InsideRM, 0, 0.5, "m")
	bad.Range("tapeMM", w.TapeMM, 3, 100, "mm")
	bad.Above("rateM2H", w.RateM2H, 0, 100, "m²/h")
	fielderr.OneOf(&bad, "school", w.School, []School{Paint, Grit, Mats, Moulded})
	if len(w.Fittings) > maxFittings {
		bad.Add("fittings", "more than %d", maxFittings)
	}
	for i, f := range w.Fittings {
		bad.Under(fmt.Sprintf("fittings[%d]", i), f.validate())
	}
	if len(w.Splits) > maxSplits {
		bad.Add("splits", "more than %d", maxSplits)
	}
	for i, s := range w.Splits {
		p := fmt.Sprintf("splits[%d]", i)
		for _, c := range []struct {
			at string
			v  float64
		}{{".x1", s.X1}, {".y1", s.Y1}, {".x2", s.X2}, {".y2", s.Y2}} {
			bad.Range(p+c.at, c.v, -1000, 1000, "m")
		}
		bad.Range(p+".widthM", s.WidthM, 0.002, 1, "m")
		if math.Hypot(s.X2-s.X1, s.Y2-s.Y1) < 0.01 {
			bad.Add(p+".x2", "is where it begins: give it a length")
		}
	}
	if w.Stencil != nil {
		bad.Under("stencil", w.Stencil.validate())
	}
	bad.Under("texture", w.Texture.validate(w.School))
	if w.School == Mats {
		bad.Under("sheet", w.Sheet.validate())
	}
	for name, v := range w.Laid {
		bad.Range("laid."+name, v, 0, 1000, "L")
	}
	return bad.Err()
}

func (f Fitting) validate() error {
	var bad fielderr.Errors
	if f.kind().Key == "" {
		bad.Add("kind", "is no kind of fitting")
	}
	bad.Range("x", f.X, -1000, 1000, "m")
	bad.Range("y", f.Y, -1000, 1000, "m")
	bad.Range("turnDeg", f.TurnDeg, -360, 360, "°")
	bad.Range("marginM", f.margin(), 0, 1, "m")
	if len(f.Outline) > 0 {
		bad.Under("outline", polygon.Polygon{Outer: f.Outline}.Validate())
		return bad.Err()
	}
	bad.Above("lengthM", f.LengthM, 0, 20, "m")
	if !f.Round {
		bad.Above("widthM", f.WidthM, 0, 20, "m")
	}
	return bad.Err()
}
