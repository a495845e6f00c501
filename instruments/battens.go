package instruments

import (
	"math"

	"allcoats/core/finish/fair"
)

// Battens is a simulated side that wants fairing, and a straightedge laid on it half over its last
// place each time, read to a quarter of a millimetre. Every reading depends only on Seed and place.
type Battens struct {
	Seed            uint64
	EdgeM, SpacingM float64
}

// height of the side at u along and v up, mm outward: long waves and a few dents.
func (b Battens) height(u, v, long float64) float64 {
	mm := 0.5 * math.Sin(2.6*u+0.4) * math.Cos(1.9*v)
	for k := range int64(3) {
		cu, cv := long*(0.5+0.4*math.Tanh(gauss(b.Seed+3, k))), 0.6*(0.5+0.4*math.Tanh(gauss(b.Seed+5, k)))
		mm -= 4 * math.Exp(-((u-cu)*(u-cu)/0.06 + (v-cv)*(v-cv)/0.08))
	}
	return mm
}

// Line walks the edge along the side at v m up, over long m.
func (b Battens) Line(name string, v, widthM, long float64) fair.Line {
	l := fair.Line{Name: name, Way: "along", WidthM: widthM}
	m := int(math.Round(b.EdgeM / b.SpacingM))
	for first := 0; float64(first+m)*b.SpacingM <= long+1e-9; first += m / 2 {
		h := make([]float64, m+1)
		for i := range h {
			h[i] = b.height(float64(first+i)*b.SpacingM, v, long)
		}
		p := fair.Placement{StartM: math.Round(1000*float64(first)*b.SpacingM) / 1000}
		for _, g := range fair.Lay(h) {
			g = math.Round(4*g) / 4
			p.GapsMM = append(p.GapsMM, &g)
		}
		l.Placements = append(l.Placements, p)
	}
	return l
}
