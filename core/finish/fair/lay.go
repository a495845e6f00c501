package fair

import "math"

// Lay is the gaps, mm, under a stiff edge pressed at its middle on heights at even spacing: it stands
// on two corners of the upper concave envelope, one on each side of the middle.
func Lay(heights []float64) []float64 {
	a, z := 0, 0
	for i := 0; i <= len(heights)/2; i++ {
		for k := len(heights) - 1; k >= len(heights)/2 && k > i; k-- {
			if k-i > z-a && stands(heights, i, k) {
				a, z = i, k
			}
		}
	}
	gaps := make([]float64, len(heights))
	for i, h := range heights {
		gaps[i] = math.Max(0, heights[a]+(heights[z]-heights[a])*float64(i-a)/float64(z-a)-h)
	}
	return gaps
}

// stands reports whether an edge on two heights clears all others.
func stands(h []float64, i, k int) bool {
	for n := range h {
		if h[i]+(h[k]-h[i])*float64(n-i)/float64(k-i)-h[n] < -1e-9 {
			return false
		}
	}
	return true
}
