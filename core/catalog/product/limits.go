package product

import "math"

// Keep reports whether air of a dew point and a surface keep the limits.
func (l Limits) Keep(airC, rhPct, dewC, surfaceC float64) bool {
	if l.AirMinC != nil && airC < *l.AirMinC || l.AirMaxC != nil && airC > *l.AirMaxC ||
		l.SurfaceMinC != nil && surfaceC < *l.SurfaceMinC || l.SurfaceMaxC != nil && surfaceC > *l.SurfaceMaxC ||
		l.RHMaxPct != nil && rhPct > *l.RHMaxPct {
		return false
	}
	if surfaceC-dewC < l.SpreadK() {
		return false
	}
	return len(l.Polygon) < 3 || Inside(l.Polygon, airC, rhPct)
}

// Inside reports whether a state of the air lies in a printed field.
func Inside(p []Corner, tempC, rhPct float64) bool {
	inside := false
	for i, a := range p {
		b := p[(i+1)%len(p)]
		if (a.RHPct > rhPct) != (b.RHPct > rhPct) && tempC < a.TempC+
			(rhPct-a.RHPct)/(b.RHPct-a.RHPct)*(b.TempC-a.TempC) {
			inside = !inside
		}
	}
	return inside
}

// Crossing returns two sides of a field that cross one another, by the number
// of their first corner; ok is false if none do.
func Crossing(p []Corner) (a, b int, ok bool) {
	turn := func(o, u, v Corner) float64 {
		return (u.TempC-o.TempC)*(v.RHPct-o.RHPct) - (u.RHPct-o.RHPct)*(v.TempC-o.TempC)
	}
	n := len(p)
	for i := range n {
		for k := i + 2; k < n; k++ {
			if i == 0 && k == n-1 {
				continue // neighbours
			}
			i2, k2 := p[i+1], p[(k+1)%n]
			if turn(p[i], i2, p[k])*turn(p[i], i2, k2) < 0 && turn(p[k], k2, p[i])*turn(p[k], k2, i2) < 0 {
				return i, k, true
			}
		}
	}
	return 0, 0, false
}

// fieldArea is what a field covers, K·%.
func fieldArea(p []Corner) float64 {
	sum := 0.0
	for i, a := range p {
		b := p[(i+1)%len(p)]
		sum += a.TempC*b.RHPct - b.TempC*a.RHPct
	}
	return math.Abs(sum) / 2
}
