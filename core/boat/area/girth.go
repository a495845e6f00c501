package area

import (
	"fmt"
	"math"

	"allcoats/core/base/fault"
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

// GirthResult is the area by girths. TrapezoidM2 and SimpsonM2 are the plain
// integrals over the centreline; with the path at every station AreaM2 is
// Simpson's integral over that.
type GirthResult struct {
	AreaM2         float64         `json:"areaM2"`
	UncertaintyPct float64         `json:"uncertaintyPct"`
	TrapezoidM2    float64         `json:"trapezoidM2"`
	SimpsonM2      float64         `json:"simpsonM2"`
	OverPath       bool            `json:"overPath"`
	Working        working.Working `json:"working"`
}

// Uncertainties of taped girths, %: with the path at half girth and without.
const (
	girthPathPct  = 3
	girthPlainPct = 5
)

// Validate reports too few stations, stations out of order and girths that
// cannot be.
func (g Girths) Validate() error {
	var bad fault.Errors
	if len(g.Stations) < 3 {
		bad.Add("stations", "at least three stations are needed")
	}
	if len(g.Stations) > 200 {
		bad.Add("stations", "at most 200 stations are taken")
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
		if last := g.Stations[i-1]; last.PathM != nil && *s.PathM-*last.PathM < 0.99*(s.AtM-last.AtM) {
			bad.Add(at("pathM"), "the way along the hull cannot be shorter than along the centreline, %.3g m from the station before", s.AtM-last.AtM)
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

// ByGirths integrates girths: ∫ g ds, s along the hull at half girth if taped,
// else along the centreline, by composite Simpson where the spacing lets it.
func ByGirths(g Girths) (GirthResult, error) {
	if err := g.Validate(); err != nil {
		return GirthResult{}, err
	}
	n := len(g.Stations)
	x, s, y := make([]float64, n), make([]float64, n), make([]float64, n)
	w := working.New()
	for i, st := range g.Stations {
		x[i], y[i] = st.AtM, st.GirthM*float64(g.Sides)
		w.In(fmt.Sprintf("Station %d at", i+1), st.AtM, "m")
		w.In(fmt.Sprintf("Girth at station %d", i+1), st.GirthM, "m")
		if st.PathM != nil {
			s[i] = *st.PathM
		}
	}
	w.In("Sides", float64(g.Sides), "")
	r := GirthResult{OverPath: g.Stations[0].PathM != nil}
	r.TrapezoidM2 = trapezoid(x, y)
	r.SimpsonM2 = w.Step("Over the centreline", "∫ girth dx, Simpson, sides", simpson(x, y), "m²", "composite Simpson's rule")
	r.AreaM2, r.UncertaintyPct = r.SimpsonM2, girthPlainPct
	other := r.TrapezoidM2
	if r.OverPath {
		r.AreaM2 = w.Step("Over the path at half girth", "∫ girth ds, Simpson, sides", simpson(s, y), "m²", "composite Simpson's rule")
		r.UncertaintyPct = girthPathPct
		other = trapezoid(s, y)
	} else {
		w.Warn("Measured along the centreline: where the sides run in to the ends, the surface is longer than that and the area comes out small. Tape the path at half girth too.")
	}
	// A quarter of what the coarser rule differs by stands for too few stations.
	few := w.Step("Too few stations", "¼ · |Simpson − trapezoid|", math.Abs(r.AreaM2-other)/4, "m²", "rule of thumb")
	if r.AreaM2 > 0 {
		r.UncertaintyPct = w.Step("Uncertainty", "√(taping² + too few stations²)", math.Hypot(r.UncertaintyPct, 100*few/r.AreaM2), "%", "taping ±3 % with the path, ±5 % without: rule of thumb")
	}
	r.Working = w
	return r, nil
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
