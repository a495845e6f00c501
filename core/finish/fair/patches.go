package fair

import (
	"fmt"
	"math"
	"slices"

	"allcoats/core/boat/outline"
)

// Patch is a low to be filled: readings of one line, or of neighbouring ones side by side, or a low
// that was circled.
type Patch struct {
	Name string `json:"name"`
	// FromM to ToM is where it lies along its first line.
	FromM     float64 `json:"fromM"`
	ToM       float64 `json:"toM"`
	AreaM2    float64 `json:"areaM2"`
	Litres    float64 `json:"litres"` // on the surface, without loss
	DeepestMM float64 `json:"deepestMM"`
	// SpreadL is half of an 80 % range of the litres where the depth was guessed.
	SpreadL float64 `json:"spreadL,omitempty"`
	Circled bool    `json:"circled,omitempty"`
	// View is the map's that it lies on, empty for a drawing of its own; Min to Max its box there.
	View string        `json:"view"`
	Min  outline.Point `json:"min"`
	Max  outline.Point `json:"max"`
}

// Need is what is to be filled in all. DeepL is what lies deeper than topMM in lows deeper than DeepMM,
// DeepM2 the patches that these are in.
type Need struct {
	FillL, FillM2 float64
	DeepestMM     float64
	DeepL, DeepM2 float64
}

// A low deeper than DeepMM is built up with hard structural filler, the light one lies topMM thick
// on it: rules of thumb.
const (
	DeepMM = 10.0
	topMM  = 3.0
)

// run is a stretch of a strip that wants filling.
type run struct{ strip, from, to, patch int }

// patch joins stretches deeper than least on strips beside one another into patches, and takes what
// is shallower out of the depths.
func (c Chart) patch(least float64) []Patch {
	var runs []run
	for k, s := range c.strips {
		filled := func(i int) bool { return s.depth[i] > max(c.thinMM, 1e-6) }
		for i := 0; i < len(s.depth); {
			if !filled(i) {
				s.depth[i] = min(s.depth[i], 0) // NaN stays
				i++
				continue
			}
			from := i
			for i < len(s.depth) && filled(i) {
				i++
			}
			if slices.Max(s.depth[from:i]) < least {
				clear(s.depth[from:i])
				continue
			}
			runs = append(runs, run{k, from, i - 1, len(runs)})
		}
	}
	for i := range runs {
		for j := range i {
			if runs[i].patch == runs[j].patch || !c.touch(runs[j], runs[i]) {
				continue
			}
			from, to := max(runs[j].patch, runs[i].patch), min(runs[j].patch, runs[i].patch)
			for n := range runs {
				if runs[n].patch == from {
					runs[n].patch = to
				}
			}
		}
	}
	out := []Patch{}
	for first := range runs {
		if p := c.joined(runs, first, len(out)+1); p.AreaM2 > 0 {
			out = append(out, p)
		}
	}
	for k, l := range c.lows {
		if l.DepthMM >= least {
			out = append(out, l.patch(k))
		}
	}
	return out
}

// touch reports whether two stretches of neighbouring strips lie side by side.
func (c Chart) touch(a, b run) bool {
	s, t := c.strips[a.strip], c.strips[b.strip]
	if a.strip == b.strip || s.on.View != t.on.View || s.on.View == "" && s.way != t.way {
		return false
	}
	on, along := s.on.axis(), t.on.axis()
	for i := b.from; i <= b.to; i++ {
		share, right := on.of(along.at(float64(i)/float64(len(t.depth)-1), 0))
		at := share * float64(len(s.depth)-1)
		if at > float64(a.from)-0.5 && at < float64(a.to)+0.5 && math.Abs(right) <= 1.05*(s.widthM+t.widthM)/2 {
			return true
		}
	}
	return false
}

// joined is the patch of the runs that belong to the first.
func (c Chart) joined(runs []run, first, n int) Patch {
	var p Patch
	var corners []outline.Point
	for _, r := range runs {
		if r.patch != first {
			continue
		}
		s := c.strips[r.strip]
		if p.Name == "" {
			p.Name = fmt.Sprintf("%s, patch %d", s.name, n)
			p.FromM, p.ToM, p.View = float64(r.from)*s.spacing, float64(r.to)*s.spacing, s.on.View
		}
		for i := r.from; i <= r.to; i++ {
			a := s.cell(i) * c.mine[r.strip][i]
			p.AreaM2 += a
			p.Litres += a * s.depth[i]
			p.DeepestMM = math.Max(p.DeepestMM, s.depth[i])
		}
		for _, end := range []float64{float64(r.from) - 0.5, float64(r.to) + 0.5} {
			share := end / float64(len(s.depth)-1)
			corners = append(corners, s.on.at(share, -s.widthM/2), s.on.at(share, s.widthM/2))
		}
	}
	if len(corners) > 0 {
		p.Min, p.Max = bounds(corners)
	}
	return p
}

// need sums patches up.
func (c Chart) need(patches []Patch) Need {
	var n Need
	for _, p := range patches {
		n.FillL, n.FillM2, n.DeepestMM = n.FillL+p.Litres, n.FillM2+p.AreaM2, max(n.DeepestMM, p.DeepestMM)
		if p.DeepestMM > DeepMM {
			n.DeepM2 += p.AreaM2
		}
	}
	deep := func(mm, areaM2 float64) { n.DeepL += max(0, mm-topMM) * areaM2 }
	for k, s := range c.strips {
		for i := 0; i < len(s.depth); i++ {
			from := i
			for i < len(s.depth) && s.depth[i] > 1e-6 {
				i++
			}
			if i == from || slices.Max(s.depth[from:i]) <= DeepMM {
				continue
			}
			for j := from; j < i; j++ {
				deep(s.depth[j], s.cell(j)*c.mine[k][j])
			}
		}
	}
	for _, l := range c.lows {
		if l.DepthMM > DeepMM { // a bowl by rings of like area
			for i := range 20 {
				deep(l.DepthMM*(1-(float64(i)+0.5)/20), l.areaM2()/20)
			}
		}
	}
	return n
}

// Need is what patches of a chart come to.
func (c Chart) Need(patches []Patch) Need { return c.need(patches) }

// areaM2 is what was read, once.
func (c Chart) areaM2() float64 {
	sum := 0.0
	for k, s := range c.strips {
		for i := range s.depth {
			sum += s.cell(i) * c.mine[k][i]
		}
	}
	for _, l := range c.lows {
		sum += l.areaM2()
	}
	return sum
}
