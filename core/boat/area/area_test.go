package area

import (
	"math"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/geometry/mesh"
	"allcoats/core/geometry/polygon"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var launch = Dimensions{HullForm: FullMotor, LOAM: 10, LWLM: 9, BeamM: 3, DraughtM: 1, FreeboardM: 1.2, HousesM2: 6}

// refused checks that err is a fault at path.
func refused(t *testing.T, err error, path, reason string) {
	t.Helper()
	var bad fielderr.Errors
	require.ErrorAs(t, err, &bad, path)
	assert.Equal(t, path, bad[0].Path)
	assert.Contains(t, bad[0].Message, reason)
}

func TestPrincipalByHand(t *testing.T) {
	p, err := FromPrincipal(launch)
	require.NoError(t, err)
	assert.InDelta(t, 36, p.Bottom.AreaM2, 1e-9)          // 1 · 9 · (3 + 1)
	assert.InDelta(t, 31.2, p.TopsidesSides.AreaM2, 1e-9) // 2 · 13 · 1.2
	assert.InDelta(t, 15.6, p.TopsidesSide.AreaM2, 1e-9)
	assert.InDelta(t, 16.5, p.Deck.AreaM2, 1e-9) // 0.75 · 30 − 6
	assert.Equal(t, 15.0, p.Bottom.UncertaintyPct)
	for form, want := range map[HullForm]float64{Medium: 27, FinKeel: 18} {
		d := launch
		d.HullForm = form
		p, err := FromPrincipal(d)
		require.NoError(t, err)
		assert.InDelta(t, want, p.Bottom.AreaM2, 1e-9)
	}
}

func TestImpossibleDimensions(t *testing.T) {
	for path, change := range map[string]func(*Dimensions){
		"beamM":      func(d *Dimensions) { d.BeamM = 11 },
		"lwlM":       func(d *Dimensions) { d.LWLM = 10.5 },
		"loaM":       func(d *Dimensions) { d.LOAM = 0 },
		"draughtM":   func(d *Dimensions) { d.DraughtM = -1 },
		"freeboardM": func(d *Dimensions) { d.FreeboardM = 40 },
		"housesM2":   func(d *Dimensions) { d.HousesM2 = 30 },
		"hullForm":   func(d *Dimensions) { d.HullForm = "raft" },
	} {
		d := launch
		change(&d)
		refused(t, d.Validate(), path, "")
	}
}

func TestEveryRuleGivesAnArea(t *testing.T) {
	for _, p := range Parts {
		f, err := Boat{Dimensions: launch}.Of(p.Part, Both, Measure{Method: ByPrincipal})
		if !p.ByRule {
			refused(t, err, "method", "do not give")
			continue
		}
		require.NoError(t, err, p.Name)
		assert.Positive(t, f.AreaM2, p.Name)
		assert.GreaterOrEqual(t, f.UncertaintyPct, 15.0)
		half, err := Boat{Dimensions: launch}.Of(p.Part, Starboard, Measure{Method: ByPrincipal})
		require.NoError(t, err)
		assert.InDelta(t, f.AreaM2/2, half.AreaM2, 1e-12)
	}
}

// parabola and ellipse are cross sections of analytic hulls: the half girth at
// x and the point at half of it.
type hull struct {
	name    string
	from    float64
	section func(x, v float64) (y, z float64) // v from 0 at the keel to 1 at the waterline
	area    float64
}

func hulls() []hull {
	wigley := func(l, b, t float64) hull {
		r, _ := OfHull(HullRequest{Form: "parabolic", LengthM: l, BeamM: b, DraughtM: t})
		return hull{"parabolic", -l / 2, func(x, v float64) (float64, float64) {
			z := -t * (1 - v)
			return b / 2 * (1 - 4*x*x/(l*l)) * (1 - z*z/(t*t)), z
		}, r.WettedM2}
	}
	ellipsoid := func(a, b, c float64) hull {
		r, _ := OfHull(HullRequest{Form: "ellipsoid", LengthM: 2 * a, BeamM: 2 * b, DraughtM: c})
		return hull{"ellipsoid", -a, func(x, v float64) (float64, float64) {
			k := math.Sqrt(max(0, 1-x*x/(a*a)))
			s, co := math.Sincos(v * math.Pi / 2)
			return k * b * s, -k * c * co
		}, r.WettedM2}
	}
	return []hull{wigley(10, 1, 0.625), wigley(6.5, 2.2, 0.4), wigley(9, 0.9, 1.8), wigley(10, 3, 1.2),
		ellipsoid(3, 1.2, 0.9), ellipsoid(4, 1, 1)}
}

// line is a section drawn finely from keel to waterline.
func (h hull) line(x float64) (ys, zs []float64, girth float64) {
	const n = 500
	for i := range n + 1 {
		y, z := h.section(x, float64(i)/n)
		ys, zs = append(ys, y), append(zs, z)
		if i > 0 {
			girth += math.Hypot(y-ys[i-1], z-zs[i-1])
		}
	}
	return ys, zs, girth
}

// middle is the point at half girth.
func (h hull) middle(x float64) (y, z float64) {
	ys, zs, girth := h.line(x)
	sum := 0.0
	for i := 1; i < len(ys); i++ {
		sum += math.Hypot(ys[i]-ys[i-1], zs[i]-zs[i-1])
		if sum >= girth/2 {
			return ys[i], zs[i]
		}
	}
	return ys[len(ys)-1], zs[len(zs)-1]
}

// taped measures a hull with n even stations, as a person would: girths, and
// the way along the hull at half girth.
func (h hull) taped(n int) Girths {
	g := Girths{Sides: 2}
	path, fine := 0.0, 60
	length := -2 * h.from
	for i := range n {
		x := h.from + length*float64(i)/float64(n-1)
		if i > 0 {
			px := h.from + length*float64(i-1)/float64(n-1)
			py, pz := h.middle(px)
			for k := 1; k <= fine; k++ {
				qx := px + (x-px)*float64(k)/float64(fine)
				qy, qz := h.middle(qx)
				step := (x - px) / float64(fine)
				path += math.Sqrt(step*step + (qy-py)*(qy-py) + (qz-pz)*(qz-pz))
				py, pz = qy, qz
			}
		}
		_, _, girth := h.line(x)
		p := path
		g.Stations = append(g.Stations, Station{AtM: x - h.from, PathM: &p, GirthM: girth})
	}
	return g
}

// Hulls at least twice as long as broad; on a dish as broad as long the path at
// half girth stands for the whole girth no longer (5 % too much).
func TestGirthsWithThePathComeWithinOnePerCentOrSo(t *testing.T) {
	for _, h := range hulls() {
		r, err := ByGirths(h.taped(11))
		require.NoError(t, err, h.name)
		assert.InDelta(t, h.area, r.AreaM2, 0.013*h.area, h.name)
		assert.True(t, r.OverPath)
		plain := h.taped(11)
		for i := range plain.Stations {
			plain.Stations[i].PathM = nil
		}
		p, err := ByGirths(plain)
		require.NoError(t, err)
		assert.Less(t, p.SimpsonM2, h.area, "%s: the centreline is too short", h.name)
		assert.InDelta(t, h.area, p.AreaM2, p.UncertaintyPct/100*p.AreaM2, h.name)
		assert.Greater(t, p.UncertaintyPct, r.UncertaintyPct)
	}
}

// Simpson's rule is exact for parabolas, evenly spaced or not.
func TestSimpsonOnAParabola(t *testing.T) {
	f := func(x float64) float64 { return 3*x*x - 2*x + 1 }
	for _, x := range [][]float64{{0, 1, 2, 3, 4}, {0, 0.9, 2, 2.7, 4}} {
		y := make([]float64, len(x))
		for i := range x {
			y[i] = f(x[i])
		}
		assert.InDelta(t, 64-16+4, simpson(x, y), 1e-9)
	}
	assert.InDelta(t, 8+(4*4)/2., simpson([]float64{0, 2, 4, 5}, []float64{2, 2, 2, 14}), 1e-9,
		"the odd end by the trapezoid")
}

func TestBadGirths(t *testing.T) {
	p := func(v float64) *float64 { return &v }
	for path, g := range map[string]Girths{
		"stations":           {[]Station{{0, nil, 1}, {1, nil, 1}}, 2},
		"sides":              {[]Station{{0, nil, 1}, {1, nil, 1}, {2, nil, 1}}, 3},
		"stations[2].atM":    {[]Station{{0, nil, 1}, {2, nil, 1}, {1, nil, 1}}, 1},
		"stations[1].girthM": {[]Station{{0, nil, 1}, {1, nil, -1}, {2, nil, 1}}, 1},
		"stations[1].pathM":  {[]Station{{0, p(0), 1}, {1, nil, 1}, {2, p(2), 1}}, 1},
		"stations[2].pathM":  {[]Station{{0, p(0), 1}, {1, p(1.1), 1}, {2, p(1.5), 1}}, 1},
	} {
		_, err := ByGirths(g)
		refused(t, err, path, "")
	}
	_, err := Boat{}.Of(Bottom, Both,
		Measure{Method: ByGirth, Girths: &Girths{Sides: 1, Stations: []Station{{0, nil, 0}, {1, nil, 0}, {2, nil, 0}}}})
	refused(t, err, "girths.stations", "no area")
}

func TestShapes(t *testing.T) {
	for _, c := range []struct {
		s    Shape
		want float64
	}{
		{Shape{Kind: "rectangle", AM: 2, BM: 3, Count: 2}, 12},
		{Shape{Kind: "strip", AM: 9, BM: 0.1, Count: 1}, 0.9},
		{Shape{Kind: "triangle", AM: 2, BM: 3, Count: 1}, 3},
		{Shape{Kind: "triangle-sides", AM: 3, BM: 4, CM: 5, Count: 1}, 6},
		{Shape{Kind: "trapezoid", AM: 3, BM: 1, CM: 2, Count: 1}, 4},
		{Shape{Kind: "circle", AM: 2, Count: 1}, math.Pi},
		{Shape{Kind: "ellipse", AM: 4, BM: 2, Count: 1}, 2 * math.Pi},
		{Shape{Kind: "annulus", AM: 4, BM: 2, Count: 1}, 3 * math.Pi},
		{Shape{Kind: "cone-frustum", AM: 1, BM: 1, CM: 2, Count: 1}, 2 * math.Pi},
		{Shape{Kind: "cone-frustum", AM: 2, BM: 0, CM: 1, Count: 1},
			math.Sqrt2 * math.Pi}, // a cone that is as high as its radius
		{Shape{Kind: "half-ellipsoid", AM: 2, BM: 2, CM: 1, Count: 1}, 2 * math.Pi},
	} {
		f, err := ByShapes(ShapesRequest{[]Shape{c.s}})
		require.NoError(t, err, c.s.Kind)
		assert.InDelta(t, c.want, f.AreaM2, 1e-9, c.s.Kind)
		assert.Equal(t, 5.0, f.UncertaintyPct)
	}
	// A door with a window: 2 · 0.8 − 0.5 · 0.4 = 1.4 m², ±5 % of the 1.8 m² taped.
	f, err := ByShapes(ShapesRequest{[]Shape{{Kind: "rectangle", AM: 2, BM: 0.8, Count: 1},
		{Kind: "rectangle", AM: 0.5, BM: 0.4, Count: 1, Minus: true}}})
	require.NoError(t, err)
	assert.InDelta(t, 1.4, f.AreaM2, 1e-12)
	assert.InDelta(t, 5*1.8/1.4, f.UncertaintyPct, 1e-9)
	for path, s := range map[string][]Shape{
		"shapes":          {{Kind: "circle", AM: 1, Count: 1, Minus: true}},
		"shapes[0].kind":  {{Kind: "star", AM: 1, Count: 1}},
		"shapes[0].count": {{Kind: "circle", AM: 1}},
		"shapes[0].bM":    {{Kind: "annulus", AM: 1, BM: 2, Count: 1}},
		"shapes[0].cM":    {{Kind: "triangle-sides", AM: 1, BM: 1, CM: 2.5, Count: 1}},
		"shapes[1].aM":    {{Kind: "circle", AM: 1, Count: 1}, {Kind: "circle", AM: -1, Count: 1}},
	} {
		_, err := ByShapes(ShapesRequest{s})
		refused(t, err, path, "")
	}
	_, err = ByShapes(ShapesRequest{})
	refused(t, err, "shapes", "add a shape")
}

func square(side float64) polygon.Polygon {
	return polygon.Polygon{Outer: polygon.Ring{{X: 0, Y: 0}, {X: side, Y: 0}, {X: side, Y: side}, {X: 0, Y: side}}}
}

func TestOutline(t *testing.T) {
	m := Measure{Method: ByOutline, Outline: &Outline{Polygon: square(2), MarginM: 0.1, RadiusM: 0.2, Count: 3}}
	f, err := Boat{}.Of(Hatches, Both, m)
	require.NoError(t, err)
	assert.InDelta(t, 3*(1.8*1.8-(4-math.Pi)*0.04), f.AreaM2, 1e-3)
	m.Outline.MarginM = 1.2
	_, err = Boat{}.Of(Hatches, Both, m)
	refused(t, err, "outline.marginM", "eats the whole outline")
	m.Outline.Outer[1] = polygon.Point{X: 0, Y: 3}
	_, err = Boat{}.Of(Hatches, Both, m)
	refused(t, err, "outline.outer", "crosses itself")
}

func TestModelZones(t *testing.T) {
	b := Boat{Models: map[string]ModelAreas{
		"m": {Areas: mesh.Areas{TotalM2: 30, Zones: map[mesh.Zone]mesh.Half{mesh.Bottom: {PortM2: 8, StarboardM2: 9}},
			Groups: map[string]float64{"fin": 2}}}}}
	for _, c := range []struct {
		side Side
		m    Model
		want float64
	}{
		{Both, Model{ModelID: "m", Zone: mesh.Bottom}, 17}, {Port, Model{ModelID: "m", Zone: mesh.Bottom}, 8},
		{Starboard, Model{ModelID: "m", Zone: mesh.Bottom}, 9}, {Both, Model{ModelID: "m", Groups: []string{"fin"}}, 2},
		{Both, Model{ModelID: "m"}, 30},
	} {
		f, err := b.Of(Bottom, c.side, Measure{Method: ByModel, Model: &c.m})
		require.NoError(t, err)
		assert.Equal(t, c.want, f.AreaM2)
	}
	for path, m := range map[string]Model{
		"model.modelId": {ModelID: "gone"}, "model.zone": {ModelID: "m", Zone: mesh.Deck},
		"model.groups": {ModelID: "m", Groups: []string{"sail"}},
	} {
		_, err := b.Of(Bottom, Both, Measure{Method: ByModel, Model: &m})
		refused(t, err, path, "")
	}
}

// 3 L of 50 % solids at 10 % loss leave 1.35 L of film: 27 m² at 50 µm.
func TestConsumption(t *testing.T) {
	c := Consumption{Litres: 3, LossPct: 10, VolumeSolidsPct: 50, DFTUm: 50}
	f, err := Boat{}.Of(Topsides, Port, Measure{Method: ByConsumption, Consumption: &c})
	require.NoError(t, err)
	assert.InDelta(t, 27, f.AreaM2, 1e-9)
	rough := f.UncertaintyPct
	c.SDUm, c.Readings = 5, 16
	f, err = Boat{}.Of(Topsides, Port, Measure{Method: ByConsumption, Consumption: &c})
	require.NoError(t, err)
	assert.InDelta(t, 1.2815515655*math.Sqrt(9+2.5*2.5+(250./90)*(250./90)), f.UncertaintyPct, 1e-9)
	assert.Less(t, f.UncertaintyPct, rough)
	c.Litres = 0
	_, err = Boat{}.Of(Topsides, Port, Measure{Method: ByConsumption, Consumption: &c})
	refused(t, err, "consumption.litres", "")
}

func stated(area, pct float64) Measure {
	return Measure{Method: Stated, AreaM2: area, UncertaintyPct: pct}
}

func TestSeveralMeasurements(t *testing.T) {
	m := Measured{Measures: []Measure{stated(10, 10), stated(10.5, 5)}, Chosen: 1}
	a, err := Boat{}.Assess(Other, Both, m)
	require.NoError(t, err)
	assert.Equal(t, 10.5, a.AreaM2)
	assert.Empty(t, a.Disagreeing, "0.5 m² is less than 1 + 0.525")

	// Inverse variance: weights 1 and 1/0.525².
	m.Combine = true
	a, err = Boat{}.Assess(Other, Both, m)
	require.NoError(t, err)
	w := 1 / (0.525 * 0.525)
	assert.InDelta(t, (10+10.5*w)/(1+w), a.AreaM2, 1e-9)
	assert.InDelta(t, math.Sqrt(1/(1+w)), a.plusMinus(), 1e-9)

	// Far apart: flagged, and the ± widened.
	m.Measures[0] = stated(14, 5)
	a, err = Boat{}.Assess(Other, Both, m)
	require.NoError(t, err)
	require.Len(t, a.Disagreeing, 1)
	assert.Contains(t, a.Disagreeing[0].Text.String(), "differ by 3.5 m²")
	assert.Greater(t, a.plusMinus(), 1.0)

	// A quarter of it after a split.
	m = Measured{Measures: []Measure{stated(12, 5)}, SharePct: 25}
	a, err = Boat{}.Assess(Other, Both, m)
	require.NoError(t, err)
	assert.Equal(t, 3.0, a.AreaM2)

	for path, bad := range map[string]Measured{
		"measures":           {},
		"chosen":             {Measures: []Measure{stated(1, 1)}, Chosen: 1},
		"sharePct":           {Measures: []Measure{stated(1, 1)}, SharePct: 120},
		"measures[1].areaM2": {Measures: []Measure{stated(1, 1), stated(0, 1)}},
		"measures[0].method": {Measures: []Measure{{Method: "guess"}}},
	} {
		_, err := Boat{}.Assess(Other, Both, bad)
		refused(t, err, path, "")
	}
	for _, method := range []Method{ByGirth, ByOutline, ByModel, ByConsumption} {
		_, err := Boat{}.Of(Other, Both, Measure{Method: method})
		refused(t, err, "method", "missing")
	}
}

// More pieces are never less area, and a measurement is never surer for being
// one of a sum taken away.
func TestAreasAddUp(t *testing.T) {
	for n := 1; n < 20; n++ {
		one, err := ByShapes(ShapesRequest{[]Shape{{Kind: "circle", AM: 0.3, Count: n}}})
		require.NoError(t, err)
		more, err := ByShapes(ShapesRequest{[]Shape{{Kind: "circle", AM: 0.3, Count: n},
			{Kind: "rectangle", AM: 0.1, BM: 0.1, Count: 1}}})
		require.NoError(t, err)
		assert.Greater(t, more.AreaM2, one.AreaM2)
	}
}

func TestWettedSurface(t *testing.T) {
	d := Dimensions{HullForm: FullMotor, LOAM: 31, LWLM: 30, BeamM: 7, DraughtM: 2.5, FreeboardM: 2}
	// CB 0.6: 0.6 · 30 · 7 · 2.5 · 1.025 t. Mumford by hand: 30 (4.25 + 4.2).
	c := WettedSurface(d, 0.6*30*7*2.5*1.025)
	assert.InDelta(t, 253.5, c[0].AreaM2, 1e-9)
	// Holtrop with CM 0.78, CWP 0.8 by hand.
	want := 30 * 12 * math.Sqrt(0.78) * (0.453 + 0.2655 - 0.223236 - 0.0097076 + 0.29568)
	assert.InDelta(t, want, c[1].AreaM2, 1e-3)
	assert.Empty(t, c[1].Working.Warnings)
	for chosen, word := range map[float64]string{253: "is plausible", 120: "is small", 400: "is large"} {
		got := SetAgainst(c, d, Figure{AreaM2: chosen}, true)
		assert.Contains(t, got.Text.String(), word)
		assert.Equal(t, word == "is plausible", got.Plausible)
	}
	assert.NotEmpty(t, WettedSurface(launch, 0)[1].Working.Warnings, "a block coefficient by form")
}
