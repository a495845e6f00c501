package area

import (
	"fmt"
	"math"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
)

// Station is a girth taped round the hull. AtM is its distance from the first
// station along the centreline; PathM, if taped, the distance from the first
// station along the hull at half girth, which keeps the obliquity of the
// surface.
type Station struct {
	AtM    float64  `json:"atM"`
	PathM  *float64 `json:"pathM,omitempty"`
	GirthM float64  `json:"girthM"`
}

// Girths is an area by girths at stations from one end to the other. Sides is
// 2 if the girths are of one side and both are meant.
type Girths struct {
	Stations []Station `json:"stations"`
	Sides    int       `json:"sides"`
}

// GirthResult is the area by girths. TrapezoidM2 and SimpsonM2 are plain
// integrals over the centreline, to compare with; UncertaintyPct is the half of
// an 80 % range.
type GirthResult struct {
	AreaM2         float64         `json:"areaM2"`
	UncertaintyPct float64         `json:"uncertaintyPct" doc:"half of the range that holds the truth in 80 % of cases"`
	TrapezoidM2    float64         `json:"trapezoidM2"`
	SimpsonM2      float64         `json:"simpsonM2"`
	OverPath       bool            `json:"overPath"`
	Line           GirthLine       `json:"line"`
	Working        working.Working `json:"working"`
}

// GirthLine is the girth as drawn over the centreline, of what was taped, with
// what to look at again.
type GirthLine struct {
	Points []GirthPoint `json:"points"`
	Doubts []GirthDoubt `json:"doubts"`
}

// GirthPoint is a place on the centreline and the girth there, m.
type GirthPoint struct {
	AtM    float64 `json:"atM"`
	GirthM float64 `json:"girthM"`
}

// GirthDoubt is a sentence about a station, counted from 0.
type GirthDoubt struct {
	Station int              `json:"station"`
	Text    message.Sentence `json:"text"`
}

// Shares of the 80 % range of taped girths: of the area, of the way along the hull that was
// reckoned instead of taped, of what the curve holds more than straight lines, over the intervals squared. Found on
// some thousand hulls of known area, see girth_test.go.
const (
	tapedPct    = 0.5  // the tape
	middlePct   = 0.45 // the middle of the girth stands for all of it
	noPathPct   = 1.0
	pathShare   = 0.4
	bulgeShare  = 0.25
	fewPct      = 8
	jumpShare   = 0.4 // a keel ends anywhere between two stations: 80 % of that
	maxStations = 200
)

// Validate reports too few stations, stations out of order and girths that
// cannot be.
func (g Girths) Validate() error {
	var bad fielderr.Errors
	if len(g.Stations) < 3 {
		bad.Add("stations", "at least three stations are needed")
	}
	if len(g.Stations) > maxStations {
		bad.Add("stations", "at most %d stations are taken", maxStations)
	}
	if g.Sides != 1 && g.Sides != 2 {
		bad.Add("sides", "must be 1, the girths as they are, or 2, twice them")
	}
	paths := 0
	for i, s := range g.Stations {
		at := func(field string) string { return fmt.Sprintf("stations[%d].%s", i, field) }
		bad.Range(at("atM"), s.AtM, 0, 150, "m")
		bad.Range(at("girthM"), s.GirthM, 0, 50, "m")
		if i > 0 && s.AtM <= g.Stations[i-1].AtM {
			bad.Add(at("atM"), "must lie beyond the station before it, %g m", g.Stations[i-1].AtM)
		}
		if s.PathM == nil {
			continue
		}
		paths++
		bad.Range(at("pathM"), *s.PathM, 0, 200, "m")
		if i == 0 {
			continue
		}
		if last := g.Stations[i-1]; last.PathM != nil && *s.PathM-*last.PathM < 0.99*(s.AtM-last.AtM)-0.002 {
			bad.Add(at("pathM"),
				"the way along the hull cannot be shorter than along the centreline, %.3g m from the station before",
				s.AtM-last.AtM)
		}
	}
	if paths > 0 && paths < len(g.Stations) {
		for i, s := range g.Stations {
			if s.PathM == nil {
				bad.Add(fmt.Sprintf("stations[%d].pathM", i), "tape the path at every station, or at none")
			}
		}
	}
	return bad.Err()
}

// ByGirths integrates girths along the hull at half girth: straight lines where a keel begins
// or ends between two stations, a shape-preserving cubic through the body elsewhere.
func ByGirths(g Girths) (GirthResult, error) {
	if err := g.Validate(); err != nil {
		return GirthResult{}, err
	}
	sides := float64(g.Sides)
	x, y := make([]float64, len(g.Stations)), make([]float64, len(g.Stations))
	w := working.New()
	for i, st := range g.Stations {
		x[i], y[i] = st.AtM, st.GirthM*sides
		w.In(fmt.Sprintf("Station %d at", i+1), st.AtM, "m")
		if st.PathM != nil {
			w.In(fmt.Sprintf("Along the hull to station %d", i+1), *st.PathM, "m")
		}
		w.In(fmt.Sprintf("Girth at station %d", i+1), st.GirthM, "m")
	}
	w.In("Sides", sides, "")
	c := curveOf(g.Stations)
	r := GirthResult{OverPath: c.taped, TrapezoidM2: trapezoid(x, y), SimpsonM2: simpson(x, y), Line: c.line()}
	straight := sides * trapezoid(c.s, c.g)
	bulge, jumps, worst := 0.0, 0.0, 0
	for i := range c.jump {
		bulge += sides * c.bulge(i)
		jumps = math.Hypot(jumps, sides*c.hidden(i))
		if c.hidden(i) > c.hidden(worst) {
			worst = i
		}
	}
	length := c.s[len(c.s)-1]
	w.Step("Length along the hull", pathFormula(c.taped), length, "m",
		"taped at half girth, or reckoned from the girths")
	w.Step("By straight lines", "Σ (girth + next) / 2 · length between · sides", straight, "m²", "trapezoid rule")
	w.Step("The curve holds more",
		"cubic through the girths of the body, which never swings beyond them, less the straight lines", bulge, "m²",
		"Fritsch and Carlson 1980")
	r.AreaM2 = w.Step("Area", "straight lines + curve, between the least and the greatest girth times the length",
		min(max(straight+bulge, slices.Min(y)*length), slices.Max(y)*length), "m²", "∫ girth ds")
	if r.AreaM2 > 0 {
		r.UncertaintyPct = c.doubt(&w, &r, bulge, jumps)
		if h := sides * c.hidden(worst); h > 0.02*r.AreaM2 {
			rest := 100 * math.Sqrt(max(0, math.Pow(r.UncertaintyPct*r.AreaM2/100, 2)-h*h)) / r.AreaM2
			w.Warn(
				"Between stations %d and %d the girth changes by %.2g m, as where a keel begins or ends: tape just before and just after it, and ±%.1f %% becomes about ±%.1f %%.",
				worst+1, worst+2, math.Abs(c.g[worst+1]-c.g[worst]), r.UncertaintyPct, rest)
		}
	}
	if !c.taped {
		w.Warn("The way along the hull is reckoned from the girths: tape it at half girth too.")
	}
	r.Working = w
	return r, nil
}

func pathFormula(taped bool) string {
	if taped {
		return "as taped at half girth"
	}
	return "Σ √(step² + (¾ · change of the body's girth)²)"
}

// doubt explains the 80 % range of r's area and returns its half, %.
func (c girthCurve) doubt(w *working.Working, r *GirthResult, bulge, jumps float64) float64 {
	last := len(c.s) - 1
	path := float64(noPathPct)
	if c.taped {
		path = w.Step("Half girth for all of it", "taken", middlePct, "%", "hulls of known area")
	} else {
		longer := 100 * (c.s[last] - c.x[last] + c.x[0]) / c.s[last]
		path = w.Step("No path taped", "√(1 %² + (0.4 · what it was lengthened by)²)",
			math.Hypot(path, pathShare*longer), "%", "hulls of known area")
	}
	few := w.Step("Few stations", "√((0.25 · what the curve holds more)² + (8 % / intervals²)²)",
		math.Hypot(100*bulgeShare*bulge/r.AreaM2, fewPct/float64(last*last)), "%", "hulls of known area")
	keel := w.Step("Ends of a keel between stations", "√Σ (0.4 · change of girth · length between)²",
		100*jumps/r.AreaM2, "%", "anywhere between: 80 % of that")
	return w.Step("Uncertainty", "√(tape² + half girth or path² + few² + keel²), an 80 % range; tape 0.5 %",
		math.Sqrt(tapedPct*tapedPct+path*path+few*few+keel*keel), "%", "independent of one another")
}

func trapezoid(x, y []float64) float64 {
	sum := 0.0
	for i := 1; i < len(x); i++ {
		sum += (x[i] - x[i-1]) * (y[i] + y[i-1]) / 2
	}
	return sum
}

// simpson integrates parabolas through each three points whose two spacings are within
// 2:1, and trapezoids elsewhere. So no weight is negative, and the integral lies between
// the least and the greatest y times the length.
func simpson(x, y []float64) float64 {
	sum := 0.0
	for i := 0; i+1 < len(x); {
		if i+2 < len(x) {
			a, b := x[i+1]-x[i], x[i+2]-x[i+1]
			if h := a + b; a <= 2*b && b <= 2*a {
				sum += h / 6 * ((2-b/a)*y[i] + h*h/(a*b)*y[i+1] + (2-a/b)*y[i+2])
				i += 2
				continue
			}
		}
		sum += trapezoid(x[i:i+2], y[i:i+2])
		i++
	}
	return sum
}
