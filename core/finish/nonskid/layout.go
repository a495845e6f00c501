package nonskid

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/parallel"
	"allcoats/core/base/working"
	"allcoats/core/geometry/polygon"
)

// Panel is a piece of non-skid. Name is a letter for the side (S, P, C for one on the
// centreline) and a number from forward aft; a piece cut off it has a letter after.
type Panel struct {
	Name   string        `json:"name"`
	Shape  polygon.Shape `json:"shape"`
	Label  polygon.Point `json:"label"`
	AreaM2 float64       `json:"areaM2"`
	// CellM2 is the deck that it is on, without margins.
	CellM2  float64 `json:"cellM2"`
	MaskM   float64 `json:"maskM"`
	LengthM float64 `json:"lengthM"`
	WidthM  float64 `json:"widthM"`
	Order   int     `json:"order"` // 1 first, 0 is not laid
	Minutes float64 `json:"minutes"`
	// Amount is litres of paint, kilograms of grit, or 0.
	Amount float64 `json:"amount"`
	// Flag says what is wrong with it, empty if nothing is.
	Flag string `json:"flag"`
}

// Layout is a deck laid out.
type Layout struct {
	Deck     polygon.Shape     `json:"deck"`
	Fittings polygon.Shape     `json:"fittings"`
	Gaps     polygon.Shape     `json:"gaps"`
	Stencil  *Cut              `json:"stencil,omitempty"`
	Panels   []Panel           `json:"panels"`
	Findings []message.Finding `json:"findings"`

	DeckM2 float64 `json:"deckM2"`
	AreaM2 float64 `json:"areaM2"`
	MaskM  float64 `json:"maskM"`
	TwiceM float64 `json:"twiceM"` // of it in two layers
	Hours  float64 `json:"hours"`
	Takes  Takes   `json:"takes"`
	Nest   *Nest   `json:"nest,omitempty"`
	Even   []Even  `json:"even"`

	Working working.Working `json:"working"`
}

// smallM2 is the panel that is hardly worth its tape: a rule of thumb.
const smallM2 = 0.02

// cell is a part of the deck between splits, with its panels.
type cell struct {
	polygon.Polygon
	panels []piece
	necks  []polygon.Point // a place in each panel that has one
}

// piece is a panel that has no name yet; several polygons only where a stencil cuts it
// up. Its label stands where it is widest.
type piece struct {
	polygon.Shape
	label polygon.Point
}

// Lay lays w out.
func Lay(w Work, draw Letters) (Layout, error) {
	out := Layout{Deck: polygon.Shape{}, Fittings: polygon.Shape{}, Gaps: polygon.Shape{}, Panels: []Panel{},
		Findings: []message.Finding{}, Even: []Even{}, Working: working.New()}
	if err := w.Validate(); err != nil {
		return out, err
	}
	if len(w.Deck) == 0 {
		return out, nil
	}
	var err error
	if err = out.deck(w); err != nil {
		return out, err
	}
	keep, err := out.keepOut(w)
	if err != nil {
		return out, err
	}
	cells, err := out.cells(w)
	if err != nil {
		return out, err
	}
	bad := make([]error, len(cells))
	_ = parallel.Each(context.Background(), len(cells), nil, func(_, i int) { bad[i] = cells[i].fit(keep, w) })
	if err := errors.Join(bad...); err != nil {
		return out, err
	}
	for _, c := range cells {
		for _, at := range c.necks {
			out.find(false,
				"A panel near %.2f m forward, %.2f m to the side has a neck narrower than %.0f mm: split it there, or move a fitting's margin.", at.X, math.Abs(at.Y), 1000*narrowM)
		}
	}
	if w.Stencil != nil {
		if err := out.letter(*w.Stencil, draw, cells); err != nil {
			return out, err
		}
	}
	out.name(cells, w)
	out.sum(w)
	return out, nil
}

// deck takes the outline, mirrored where only a side of it was traced.
func (l *Layout) deck(w Work) (err error) {
	l.Deck = w.Deck
	if w.Symmetric {
		lo, hi := l.Deck.Bounds()
		twin := l.Deck.Mirrored()
		if lo.Y > -0.02 || hi.Y < 0.02 {
			if l.Deck, err = l.Deck.With(twin); err != nil {
				return err
			}
		} else {
			off, err := l.Deck.Less(twin)
			if err != nil {
				return err
			}
			if a := off.Area(); a > 0.005*l.Deck.Area() {
				l.find(false,
					"The traced deck is not the same on both sides: %.3g m² of one have no twin. Panels follow it as it is.", a)
			}
		}
	}
	l.DeckM2 = l.Deck.Area()
	return nil
}

func (l *Layout) find(stop bool, template string, args ...any) {
	l.Findings = append(l.Findings, message.Finding{Stop: stop, Text: message.Of(template, args...)})
}

// around is what a fitting keeps free, with the box round it.
type around struct {
	polygon.Shape
	lo, hi polygon.Point
}

// keepOut draws the fittings with their margins. One that is not on the deck is a
// fault at its field.
func (l *Layout) keepOut(w Work) ([]around, error) {
	var bad fielderr.Errors
	var out []around
	for i, f := range w.Fittings {
		twins := []polygon.Shape{{{Outer: f.ring()}}}
		if f.Mirror && math.Abs(f.Y) > 0.01 {
			twins = append(twins, twins[0].Mirrored())
		}
		for _, t := range twins {
			if !slices.ContainsFunc(l.Deck, func(d polygon.Polygon) bool {
				return d.Outer.Contains(middle(t[0].Outer))
			}) {
				bad.Add(fmt.Sprintf("fittings[%d].x", i), "%s lies outside the deck", named(f))
				break
			}
			l.Fittings = append(l.Fittings, t...)
			k, err := f.around(t)
			if err != nil {
				return nil, err
			}
			lo, hi := k.Bounds()
			out = append(out, around{k, lo, hi})
		}
		// A fillet of radius r at the square corner of a margin m comes so near to the fitting.
		if near := math.Sqrt2*f.margin() - (math.Sqrt2-1)*w.InsideRM; !f.Round && near < f.margin()/2 {
			l.find(false,
				"Inside corners of %.0f mm bring the panel within %.0f mm of the corners of %s, where its margin is %.0f mm.", 1000*w.InsideRM,
				1000*math.Max(0, near), named(f), 1000*f.margin())
		}
	}
	return out, bad.Err()
}

func named(f Fitting) string {
	if f.Name != "" {
		return f.Name
	}
	return "the " + f.kind().Name
}

func middle(r polygon.Ring) polygon.Point { return polygon.Polygon{Outer: r}.Centroid() }

// cells cuts the deck along its splits, and what the margins leave of it with it.
func (l *Layout) cells(w Work) ([]cell, error) {
	var gaps []polygon.Shape
	for _, s := range w.Splits {
		g := s.shape()
		gaps = append(gaps, g)
		if s.Mirror && (math.Abs(s.Y1) > 0.01 || math.Abs(s.Y2) > 0.01) {
			gaps = append(gaps, g.Mirrored())
		}
	}
	for _, g := range gaps {
		on, err := g.Within(l.Deck)
		if err != nil {
			return nil, err
		}
		l.Gaps = append(l.Gaps, on...)
		if width := width(g); width < 2*w.TapeMM/1000 {
			l.TwiceM += 2 * on.Area() / width
		}
	}
	parts, err := l.Deck.Less(gaps...)
	if err != nil {
		return nil, err
	}
	free, err := l.inside(w)
	if err != nil {
		return nil, err
	}
	if free, err = free.Less(gaps...); err != nil {
		return nil, err
	}
	cells := make([]cell, len(parts))
	for i, p := range parts {
		cells[i].Polygon = p
	}
	for _, f := range free {
		at := f.Inner()
		for i := range cells {
			if cells[i].Contains(at) {
				cells[i].panels = append(cells[i].panels, piece{Shape: polygon.Shape{f}})
				break
			}
		}
	}
	return cells, nil
}

// width is that of the strip of a split.
func width(g polygon.Shape) float64 {
	r := g[0].Outer
	return math.Hypot(r[3].X-r[0].X, r[3].Y-r[0].Y)
}

// inside is the deck within its margins.
func (l *Layout) inside(w Work) (polygon.Shape, error) {
	var outer, holes polygon.Shape
	for _, d := range l.Deck {
		outer = append(outer, polygon.Polygon{Outer: d.Outer})
		for _, h := range d.Holes {
			holes = append(holes, polygon.Polygon{Outer: h})
		}
	}
	in, err := outer.Inset(w.EdgeM, polygon.Mitre)
	if err != nil {
		return nil, err
	}
	for i := range holes {
		wide, err := holes[i:i+1].Outset(w.OpeningM, polygon.Mitre)
		if err != nil {
			return nil, err
		}
		if in, err = in.Less(wide); err != nil {
			return nil, err
		}
	}
	return in, nil
}

// narrowM is the tongue or neck too narrow to be laid neatly: a rule of thumb.
const narrowM = 0.03

// fit takes the fittings out of a cell's panels, rounds what is left, and looks for necks.
func (c *cell) fit(keep []around, w Work) error {
	var fitted []piece
	for _, p := range c.panels {
		left, err := p.clear(keep)
		if err != nil {
			return err
		}
		for _, one := range left {
			core, err := one.Inset(narrowM/2+1e-6, polygon.Mitre)
			if err != nil {
				return err
			}
			if len(core) > 1 {
				c.necks = append(c.necks, one.Inner())
			}
			fitted = append(fitted, piece{polygon.Shape{one.Filleted(w.OutsideRM, w.InsideRM)}, roomiest(one)})
		}
	}
	c.panels = fitted
	return nil
}

// clear is a panel without the fittings.
func (p piece) clear(keep []around) (polygon.Shape, error) {
	lo, hi := p.Bounds()
	var near []polygon.Shape
	for _, k := range keep {
		if k.lo.X < hi.X && k.hi.X > lo.X && k.lo.Y < hi.Y && k.hi.Y > lo.Y {
			near = append(near, k.Shape)
		}
	}
	return p.Less(near...)
}

// name gives the panels their names: from forward aft, on each side and on the
// centreline.
func (l *Layout) name(cells []cell, w Work) {
	side := func(c cell) string {
		lo, hi := polygon.Shape{c.Polygon}.Bounds()
		switch {
		case lo.Y > -0.02:
			return "P"
		case hi.Y < 0.02:
			return "S"
		}
		return "C"
	}
	slices.SortStableFunc(cells, func(a, b cell) int {
		ca, cb := a.Centroid(), b.Centroid()
		return cmp.Or(cmp.Compare(math.Round(20*cb.X), math.Round(20*ca.X)),
			cmp.Compare(math.Abs(ca.Y), math.Abs(cb.Y)))
	})
	count := map[string]int{}
	for _, c := range cells {
		s := side(c)
		count[s]++
		name := fmt.Sprintf("%s%d", s, count[s])
		if len(c.panels) == 0 {
			l.Panels = append(l.Panels, Panel{Name: name, Shape: polygon.Shape{}, Label: c.Inner(), CellM2: c.Area(),
				Flag: "the margins leave nothing of it: narrow them here, or leave it smooth"})
		}
		slices.SortFunc(c.panels, func(a, b piece) int { return cmp.Compare(b.Area(), a.Area()) })
		for i, p := range c.panels {
			at := Panel{Name: name, Shape: p.Shape, Label: p.label, AreaM2: p.Area(), CellM2: c.Area(),
				MaskM: p.EdgeLength()}
			if len(c.panels) > 1 {
				at.Name += string(rune('a' + min(i, 25)))
			}
			at.LengthM, at.WidthM = extent(p.Shape)
			if at.AreaM2 < smallM2 {
				at.Flag = "hardly worth its tape: leave it smooth, or move the split"
			}
			l.Panels = append(l.Panels, at)
		}
	}
	if count["S"] != count["P"] && w.Symmetric {
		l.find(false, "There are %d panels to starboard and %d to port: a split or a fitting has no twin.", count["S"],
			count["P"])
	}
}

// roomiest is the point of a grid over p that is farthest from its edges.
func roomiest(p polygon.Polygon) polygon.Point {
	const n = 16
	best, far := p.Inner(), 0.0
	lo, hi := polygon.Shape{p}.Bounds()
	for i := range n {
		for k := range n {
			at := polygon.Point{X: lo.X + (hi.X-lo.X)*(float64(i)+0.5)/n, Y: lo.Y + (hi.Y-lo.Y)*(float64(k)+0.5)/n}
			if p.Contains(at) {
				if d := p.ToEdge(at); d > far {
					best, far = at, d
				}
			}
		}
	}
	return best
}

// extent is the box round a panel, the longer side first.
func extent(p polygon.Shape) (length, width float64) {
	lo, hi := p.Bounds()
	a, b := hi.X-lo.X, hi.Y-lo.Y
	return max(a, b), min(a, b)
}

// sum puts the panels into order and adds up what they take.
func (l *Layout) sum(w Work) {
	order := []int{}
	for i, p := range l.Panels {
		if p.AreaM2 > 0 {
			order = append(order, i)
		}
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(l.Panels[a].AreaM2, l.Panels[b].AreaM2) })
	per := w.Texture.perM2(w.School)
	for n, i := range order {
		p := &l.Panels[i]
		p.Order, p.Minutes, p.Amount = n+1, 60*p.AreaM2/w.RateM2H, per*p.AreaM2
		l.AreaM2 += p.AreaM2
		l.MaskM += p.MaskM
	}
	wk := &l.Working
	wk.In("Deck", l.DeckM2, "m²")
	wk.In("Margin at edges", 1000*w.EdgeM, "mm")
	wk.In("Panels", float64(len(order)), "")
	wk.Step("Non-skid", "deck − margins − gaps − fittings with theirs, corners rounded", l.AreaM2, "m²",
		"offsets of the outlines, corners as arcs")
	wk.Step("Masking", "Σ edges of the panels", l.MaskM, "m", "the outlines")
	if l.TwiceM > 0 {
		wk.StepOf("In two layers", message.Of("both edges of the gaps narrower than two tapes of %g mm", w.TapeMM),
			l.TwiceM, "m", message.Lit("one must lift while its neighbour is still to be laid"))
	}
	l.Hours = wk.Step("Laying", "area / rate", l.AreaM2/w.RateM2H, "h", "your rate")
	l.takes(w)
	l.evenness(w)
	if w.School == Mats {
		n := w.Sheet.Pack(l.Panels)
		l.Nest = &n
		for _, name := range n.TooLarge {
			l.find(true, "%s does not fit on a sheet of %.3g m × %.3g m: split it, or accept a seam.", name,
				w.Sheet.LengthM, w.Sheet.WidthM)
		}
	}
}
