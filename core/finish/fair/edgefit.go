package fair

import (
	"math"
	"slices"

	"allcoats/core/base/message"

	"gonum.org/v1/gonum/mat"
)

// start is the reading that a placement begins at.
func (r EdgeRequest) start(p Placement) int { return int(math.Round(p.StartM / r.SpacingM)) }

// bodies joins placements that share two readings or more, in their order along the line, and fits
// each body's heights to its gaps.
func (r EdgeRequest) bodies(points int) []body {
	of := make([]int, len(r.Placements)) // the first placement of its body
	for k := range r.Placements {
		of[k] = k
		for j := range k {
			if len(r.shared(j, k)) < 2 || of[j] == of[k] {
				continue
			}
			from, to := max(of[j], of[k]), min(of[j], of[k])
			for i := range k + 1 {
				if of[i] == from {
					of[i] = to
				}
			}
		}
	}
	var out []body
	for k := range r.Placements {
		if of[k] != k {
			continue
		}
		b := body{}
		for j := range r.Placements {
			if of[j] == k {
				b.placements = append(b.placements, j)
			}
		}
		r.fit(&b, points)
		out = append(out, b)
	}
	return out
}

// shared are the readings that two placements both read.
func (r EdgeRequest) shared(a, b int) []int {
	var out []int
	pa, pb := r.Placements[a], r.Placements[b]
	for i, g := range pa.GapsMM {
		if at := r.start(pa) + i - r.start(pb); g != nil && at >= 0 && at < len(pb.GapsMM) && pb.GapsMM[at] != nil {
			out = append(out, r.start(pa)+i)
		}
	}
	return out
}

// fit finds a body's heights: line of the placement less gap, where a point was read more than
// once their mean, the lines by least squares with the first one level.
func (r EdgeRequest) fit(b *body, points int) {
	type reading struct {
		line int
		u, g float64 // of the edge's length, mm
	}
	at := make([][]reading, points)
	for line, k := range b.placements {
		p := r.Placements[k]
		for i, g := range p.GapsMM {
			if g != nil {
				j := r.start(p) + i
				at[j] = append(at[j], reading{line, float64(i) * r.SpacingM / r.EdgeM, *g})
			}
		}
	}
	n := 2 * (len(b.placements) - 1)
	lines := make([]float64, n+2) // offset and tilt of every line; the first stays at 0
	if n > 0 {
		normal, right := mat.NewDense(n, n, nil), mat.NewVecDense(n, nil)
		for _, here := range at {
			// Σ (r − mean)² of r = offset + tilt · u − gap.
			for i, x := range here {
				for j, y := range here {
					w := -1 / float64(len(here))
					if i == j {
						w++
					}
					for ci, c := range []float64{1, x.u} {
						row := 2*(x.line-1) + ci
						if row < 0 {
							continue
						}
						right.SetVec(row, right.AtVec(row)+w*c*y.g)
						for di, d := range []float64{1, y.u} {
							if col := 2*(y.line-1) + di; col >= 0 {
								normal.Set(row, col, normal.At(row, col)+w*c*d)
							}
						}
					}
				}
			}
		}
		var found mat.VecDense
		if err := found.SolveVec(normal, right); err == nil || found.Len() == n { // a poor condition is told by the fit
			copy(lines[2:], found.RawVector().Data)
		}
	}
	b.height = make([]float64, points)
	b.first, b.last = -1, -1
	for i, here := range at {
		b.height[i] = math.NaN()
		if len(here) == 0 {
			continue
		}
		sum := 0.0
		for _, x := range here {
			sum += lines[2*x.line] + lines[2*x.line+1]*x.u - x.g
		}
		b.height[i] = sum / float64(len(here))
		if b.first < 0 {
			b.first = i
		}
		b.last = i
	}
	bridge(b.height[b.first : b.last+1])
}

// bridge draws straight lines over what was not read between two readings.
func bridge(h []float64) {
	last := 0
	for i, v := range h {
		if math.IsNaN(v) {
			continue
		}
		for j := last + 1; j < i; j++ {
			h[j] = h[last] + (v-h[last])*float64(j-last)/float64(i-last)
		}
		last = i
	}
}

// joined carries what was read fairly from one body to the next: they meet where they share a
// reading, else where the straight on leads, and have one slope there, each by a parabola through
// a quarter of an edge.
func (r EdgeRequest) joined(bodies []body, points int, out *EdgeResult) []float64 {
	h := slices.Clone(bodies[0].height)
	first, last := bodies[0].first, bodies[0].last
	quarter := int(math.Round(r.EdgeM/r.SpacingM))/4 + 1
	for _, b := range bodies[1:] {
		joint := min(last, max(first, b.first))
		left := slopeAt(h, max(first, joint-quarter+1), joint, joint)
		right := slopeAt(b.height, b.first, min(b.last, b.first+quarter-1), b.first)
		// The height where the body begins: shared, or straight on from what is there.
		begin := h[joint] + left*float64(b.first-joint)
		for i := b.first; i <= b.last; i++ {
			v := b.height[i] - b.height[b.first] + begin + (left-right)*float64(i-b.first)
			if i > last || math.IsNaN(h[i]) {
				h[i] = v
			}
		}
		if b.first > last {
			bridge(h[last : b.first+1])
			out.Notes = append(out.Notes,
				message.Of("Nothing was read between %.3g m and %.3g m: neither height nor tilt there is known.",
					float64(last)*r.SpacingM, float64(b.first)*r.SpacingM))
		}
		last = max(last, b.last)
	}
	return h[first : last+1]
}

// slopeAt is the slope at reading at of the parabola by least squares through readings from to to,
// mm a reading; of a straight line through fewer than four.
func slopeAt(h []float64, from, to, at int) float64 {
	n := to - from + 1
	if n < 2 {
		return 0
	}
	terms := 3
	if n < 4 {
		terms = 2
	}
	a, y := mat.NewDense(n, terms, nil), mat.NewVecDense(n, nil)
	for i := range n {
		x := float64(from + i - at)
		for c := range terms {
			a.Set(i, c, math.Pow(x, float64(c)))
		}
		y.SetVec(i, h[from+i])
	}
	var found mat.VecDense
	if found.SolveVec(a, y) != nil {
		return 0
	}
	return found.AtVec(1)
}

// level takes the line through the first and the last height off both.
func level(heights, filled []float64) {
	n := len(heights)
	if n < 2 {
		return
	}
	a, b := heights[0], heights[n-1]
	for i := range heights {
		line := a + (b-a)*float64(i)/float64(n-1)
		heights[i], filled[i] = heights[i]-line, filled[i]-line
	}
}
