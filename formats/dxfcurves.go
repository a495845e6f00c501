package formats

import (
	"errors"
	"math"

	"allcoats/core/geometry/polygon"
)

// ellipsePoints flattens an ELLIPSE: centre 10, 20, the end of its major axis from there 11,
// 21, minor over major 40, from parameter 41 to 42. closed says that it goes all round.
func ellipsePoints(v map[int]float64) (line polygon.Ring, closed bool) {
	from, to := v[41], v[42]
	if to == 0 && from == 0 {
		to = 2 * math.Pi
	}
	from, to = math.Mod(from, 2*math.Pi), math.Mod(to, 2*math.Pi)
	if to <= from+1e-9 {
		to += 2 * math.Pi
	}
	closed = to-from > 2*math.Pi-1e-6
	n := max(2, int(math.Ceil((to-from)/(2*math.Pi)*arcSteps)))
	for i := 0; i < n || i == n && !closed; i++ {
		s, c := math.Sincos(from + (to-from)*float64(i)/float64(n))
		line = append(line, polygon.Point{X: v[10] + c*v[11] - s*v[40]*v[21], Y: v[20] + c*v[21] + s*v[40]*v[11]})
	}
	return line, closed
}

// spline is a SPLINE's control points with weights, its knots and degree.
type spline struct {
	degree  int
	knots   []float64
	control polygon.Ring
	weights []float64
	fit     polygon.Ring
}

// take keeps one group of the entity.
func (s *spline) take(code int, v float64) {
	switch code {
	case 71:
		s.degree = int(min(max(v, 0), maxDegree+1))
	case 40:
		s.knots = append(s.knots, v)
	case 41:
		s.weights = append(s.weights, v)
	case 10:
		s.control = append(s.control, polygon.Point{X: v})
	case 20:
		if n := len(s.control); n > 0 {
			s.control[n-1].Y = v
		}
	case 11:
		s.fit = append(s.fit, polygon.Point{X: v})
	case 21:
		if n := len(s.fit); n > 0 {
			s.fit[n-1].Y = v
		}
	}
}

// maxDegree is the highest degree taken, spanSteps into how many lines each span is flattened.
const (
	maxDegree = 10
	spanSteps = 64
)

// points flattens the curve by de Boor's algorithm in homogeneous coordinates; a spline that has
// only points to go through is taken by straight lines.
func (s *spline) points() (polygon.Ring, error) {
	n, p := len(s.control), s.degree
	if n == 0 && len(s.fit) > 1 {
		return s.fit, nil
	}
	if p < 1 || p > maxDegree || n < p+1 || len(s.knots) != n+p+1 {
		return nil, errors.New("a spline whose degree, knots and control points do not go together")
	}
	if len(s.weights) != n {
		s.weights = nil
	}
	for i := 1; i < len(s.knots); i++ {
		if s.knots[i] < s.knots[i-1] {
			return nil, errors.New("a spline whose knots do not rise")
		}
	}
	var out polygon.Ring
	for k := p; k < n; k++ {
		a, b := s.knots[k], s.knots[k+1]
		if b <= a {
			continue
		}
		for i := range spanSteps {
			out = append(out, s.at(k, a+(b-a)*float64(i)/spanSteps))
		}
		if k == n-1 || s.knots[k+1] == s.knots[n] {
			return append(out, s.at(k, b)), nil
		}
	}
	return out, nil
}

// at is the curve's point at u in the span from knot k.
func (s *spline) at(k int, u float64) polygon.Point {
	var d [maxDegree + 1][3]float64
	for j := 0; j <= s.degree; j++ {
		i := k - s.degree + j
		w := 1.0
		if s.weights != nil {
			w = s.weights[i]
		}
		d[j] = [3]float64{w * s.control[i].X, w * s.control[i].Y, w}
	}
	for r := 1; r <= s.degree; r++ {
		for j := s.degree; j >= r; j-- {
			i := k - s.degree + j
			t := 0.0
			if span := s.knots[i+s.degree-r+1] - s.knots[i]; span > 0 {
				t = (u - s.knots[i]) / span
			}
			for a := range d[j] {
				d[j][a] = (1-t)*d[j-1][a] + t*d[j][a]
			}
		}
	}
	end := d[s.degree]
	return polygon.Point{X: end[0] / end[2], Y: end[1] / end[2]}
}
