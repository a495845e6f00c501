package instruments

import "math"

// Battens is a simulated set of gaps under a straightedge: waves along and across, a
// few dents, read to half a millimetre. Every reading depends only on Seed and place.
type Battens struct {
	Seed     uint64
	SpacingM float64
}

// Gaps are ny rows of nx readings, mm.
func (b Battens) Gaps(nx, ny int) [][]*float64 {
	out := make([][]*float64, ny)
	for y := range ny {
		for x := range nx {
			u, v := float64(x)*b.SpacingM, float64(y)*b.SpacingM
			mm := 1.2 + 0.9*math.Sin(2.6*u+0.4)*math.Cos(1.9*v) + 0.25*gauss(b.Seed, int64(1000*y+x))
			for k := range int64(4) {
				cu := (float64(nx) * b.SpacingM) * (0.5 + 0.4*math.Tanh(gauss(b.Seed+3, k)))
				cv := (float64(ny) * b.SpacingM) * (0.5 + 0.4*math.Tanh(gauss(b.Seed+5, k)))
				r2 := ((u-cu)*(u-cu) + (v-cv)*(v-cv)) / 0.03
				mm += 2.5 * math.Exp(-r2)
			}
			half := math.Max(0, math.Round(2*mm)/2)
			out[y] = append(out[y], &half)
		}
	}
	return out
}
