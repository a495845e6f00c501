package polygon

import "math"

// smooth is the turn, in radians, up to which a corner belongs to a drawn curve and is
// left; arcStep the turn between the corners of a fillet, which deviate by less than
// 1e-3 of its radius.
const (
	smooth  = 0.25
	arcStep = math.Pi / 36
)

// Filleted rounds the corners of a polygon, those that point outwards with one radius
// and those that point inwards with another. Where an edge is too short for its two
// fillets, both get the smaller radius that fits.
func (p Polygon) Filleted(outward, inward float64) Polygon {
	out := Polygon{Outer: p.Outer.filleted(outward, inward)}
	for _, h := range p.Holes {
		out.Holes = append(out.Holes, h.filleted(inward, outward))
	}
	return out
}

// filleted rounds the corners that point out of the ring, and those that point in.
func (r Ring) filleted(outward, inward float64) Ring {
	n := len(r)
	turn, want := make([]float64, n), make([]float64, n) // turn at a corner; how much of its edges it wants
	sense := 1.0
	if r.signed() < 0 {
		sense = -1
	}
	length := make([]float64, n) // of the edge after a corner
	for i, b := range r {
		a, c := r[(i+n-1)%n], r[(i+1)%n]
		length[i] = math.Hypot(c.X-b.X, c.Y-b.Y)
		turn[i] = math.Atan2((b.X-a.X)*(c.Y-b.Y)-(b.Y-a.Y)*(c.X-b.X), (b.X-a.X)*(c.X-b.X)+(b.Y-a.Y)*(c.Y-b.Y))
		radius := outward
		if turn[i]*sense < 0 {
			radius = inward
		}
		if math.Abs(turn[i]) > smooth {
			want[i] = radius * math.Tan(math.Min(math.Abs(turn[i]), 3)/2)
		}
	}
	var out Ring
	add := func(p Point) { // where two fillets meet there is one corner
		if k := len(out); k == 0 || math.Hypot(p.X-out[k-1].X, p.Y-out[k-1].Y) > 1e-9 {
			out = append(out, p)
		}
	}
	for i, b := range r {
		if want[i] == 0 {
			add(b)
			continue
		}
		before, after := (i+n-1)%n, (i+1)%n
		t := want[i] * min(1, length[before]/(want[i]+want[before]), length[i]/(want[i]+want[after]))
		a, c := r[before], r[after]
		ux, uy := (a.X-b.X)/length[before], (a.Y-b.Y)/length[before]
		vx, vy := (c.X-b.X)/length[i], (c.Y-b.Y)/length[i]
		from := Point{b.X + t*ux, b.Y + t*uy}
		// The centre stands off the edge before, on the side to which it turns.
		radius := math.Copysign(t/math.Tan(math.Abs(turn[i])/2), turn[i])
		at := Point{from.X + radius*uy, from.Y - radius*ux}
		steps := max(1, int(math.Ceil(math.Abs(turn[i])/arcStep)))
		add(from)
		for k := 1; k < steps; k++ {
			s, c := math.Sincos(turn[i] * float64(k) / float64(steps))
			dx, dy := from.X-at.X, from.Y-at.Y
			add(Point{at.X + dx*c - dy*s, at.Y + dx*s + dy*c})
		}
		add(Point{b.X + t*vx, b.Y + t*vy})
	}
	if k := len(out); k > 3 && math.Hypot(out[0].X-out[k-1].X, out[0].Y-out[k-1].Y) <= 1e-9 {
		out = out[:k-1]
	}
	return out
}
