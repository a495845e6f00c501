package fair

import (
	"math"
	"testing"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/boat/outline"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func low5() Placement { return Placement{GapsMM: under1(0, 0, 0, 2, 4, 5, 4, 2, 0, 0, 0)} }

func at(x, y float64) outline.Point { return outline.Point{X: x, Y: y} }

// Two lines beside each other on the map are one patch, a third that crosses them adds nothing, one
// on the other side is its own; a circle over what was read gives way.
func TestLinesOnTheMap(t *testing.T) {
	line := func(view string, x0, y0, x1, y1 float64) Line {
		return Line{Way: "along", WidthM: 0.4, Placements: []Placement{low5()},
			On: &Track{view, at(x0, y0), at(x1, y1)}}
	}
	star, port := outline.StarboardSide, outline.PortSide
	circle := Low{View: star, By: "hand", DepthMM: 8}
	for k := range 24 {
		a := 2 * math.Pi * float64(k) / 24
		circle.Points = append(circle.Points, at(6+0.2*math.Cos(a), 1+0.2*math.Sin(a)))
	}
	over := circle
	over.Points = nil
	for _, p := range circle.Points {
		over.Points = append(over.Points, at(p.X-3.5, p.Y))
	}
	r := WalkRequest{EdgeM: 1, SpacingM: 0.1, LimitMM: 0.1, ErrorMM: 0.1,
		Lines: []Line{line(star, 2, 1, 3, 1), line(star, 2, 0.6, 3, 0.6), line(star, 2.5, 1.2, 2.5, 0.2),
			line(port, 2, 1, 3, 1)}, Lows: []Low{circle, over}}
	got, err := Walk(r)
	require.NoError(t, err)
	require.Len(t, got.Patches, 3)
	one := 0.4 * 0.1 * (17 - 0.5)
	crossing := got.Patches[0].Litres - 2*one
	assert.Less(t, crossing, 0.5*one, "the crossing line counts only where none lies under it")
	assert.GreaterOrEqual(t, crossing, -1e-9)
	assert.InDelta(t, one, got.Patches[1].Litres, 1e-9)
	round := 12 * math.Sin(2*math.Pi/24) * 0.04 // a polygon of 24 sides
	assert.InDelta(t, round, got.Patches[2].AreaM2, 1e-9)
	assert.InDelta(t, round*8/2, got.Patches[2].Litres, 1e-9, "a bowl is half as deep as its middle")
	assert.InDelta(t, 0.4*got.Patches[2].Litres, got.HighL-got.Need.FillL, 1e-9,
		"a depth felt by hand: 40 % either way")
	require.Len(t, got.Notes, 1)
	assert.Contains(t, got.Notes[0].String(), "what was read counts")
	assert.True(t, got.Patches[2].Circled)

	r.Lines[0].On.To.X = 9
	got, err = Walk(r)
	require.NoError(t, err)
	assert.Contains(t, got.Notes[0].String(), "line 1 is 1 m long as read and 7 m on the map")
	r.Lows[0].Points, r.Lows[1].By = r.Lows[0].Points[:2], "nose"
	r.Lines[0].On.View = "attic"
	_, err = Walk(r)
	for _, path := range []string{"lows[0].points", "lows[1].by", "lines[0].on.view"} {
		assert.ErrorContains(t, err, path)
	}
}

// A bowl of 6 mm, 0.3 m about: the depth of 2 mm begins where 1 − q² is a third, 0.245 m out.
func TestContoursOfABowl(t *testing.T) {
	bowl := Low{View: outline.Plan, By: "eye", DepthMM: 6}
	for k := range 90 {
		a := 2 * math.Pi * float64(k) / 90
		bowl.Points = append(bowl.Points, at(1+0.3*math.Cos(a), 2+0.3*math.Sin(a)))
	}
	got := Chart{lows: []Low{bowl}}.Contours(0.25)
	require.Len(t, got, 5, "at ¼, ½, 1, 2 and 4 mm")
	for _, c := range got {
		require.Len(t, c.Rings, 1, "%v mm", c.DepthMM)
		want := 0.3 * math.Sqrt(1-c.DepthMM/6)
		for _, p := range c.Rings[0] {
			assert.InDelta(t, want, math.Hypot(p.X-1, p.Y-2), 0.006)
		}
	}
	assert.Equal(t, 2.0, got[3].DepthMM)
	assert.Empty(t, Chart{}.Contours(0.25))
}

// Two peaks on a lattice with a saddle between are two rings, or one when the saddle is under water;
// a hollow within a ring is a ring of its own.
func TestIsolinesClose(t *testing.T) {
	saddle := []float64{
		1, 0, 0,
		0, 1, 0,
		0, 0, 0}
	assert.Len(t, isolines(saddle, 3, 3, 1, 0.5), 2, "corners that touch are parted")
	ring := []float64{
		1, 1, 1,
		1, 0, 1,
		1, 1, 1}
	assert.Len(t, isolines(ring, 3, 3, 1, 0.5), 2)
	assert.Empty(t, isolines(ring, 3, 3, 1, 1.5))
	ground := []float64{0, 0, 0, 0, -2, 0, 0, 0, 0}
	assert.Len(t, isolines(ground, 3, 3, -1, 1), 1)
}

// A chine drawn across a line, and across a grid's rows, is not faired over.
func TestHardLinesAreNotSpanned(t *testing.T) {
	v := Placement{GapsMM: under1(0, 2, 4, 6, 8, 10, 8, 6, 4, 2, 0)}
	view := outline.PortSide
	r := WalkRequest{EdgeM: 1, SpacingM: 0.1, LimitMM: 0.5,
		Lines: []Line{{Way: "across", WidthM: 0.3, Placements: []Placement{v}, On: &Track{view, at(4, 1), at(4, 0)}}}}
	got, err := Walk(r)
	require.NoError(t, err)
	assert.Greater(t, got.Need.FillL, 0.3)
	r.Hard = []survey.HardLine{{Kind: "chine", View: outline.StarboardSide,
		Points: []outline.Point{at(0, 0.5), at(9, 0.5)}}}
	got, _ = Walk(r)
	assert.Greater(t, got.Need.FillL, 0.3, "on the other side")
	r.Hard[0].View = view
	got, _ = Walk(r)
	assert.Zero(t, got.Need.FillL)

	g := Grid{NX: 5, NY: 7, DX: 0.5, DY: 0.1}
	on := &Track{view, at(2, 1), at(4, 1)}
	h := g.Hardened(on, []survey.HardLine{
		{Kind: "chine", View: view, Points: []outline.Point{at(0, 0.71), at(9, 0.69)}},
		{Kind: "edge", View: view, Points: []outline.Point{at(3.1, 2), at(2.9, -1)}}})
	assert.Equal(t, []int{3}, h.RowBreaks, "rows lie 0.1 m apart below the first")
	assert.Equal(t, []int{2}, h.Breaks)
	assert.Empty(t, g.Hardened(nil, []survey.HardLine{{}}).Breaks)
}

// Two passes of four hours, each sandable eight hours later at 20 °C, in days from 8 to 17: begun on
// Monday at 8, sandable at 20, the second from Tuesday at 8. Rain on Tuesday holds it up.
func TestReadyByTheClock(t *testing.T) {
	monday := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	var w field.Weather
	for i := range 24 * 5 {
		none := 0.0
		w.Air = append(w.Air, weather.Hour{At: monday.Add(time.Duration(i) * time.Hour), TempC: 20, RHPct: 50,
			RainMM: &none})
		w.SurfaceC = append(w.SurfaceC, 20)
	}
	p := Pass{Sheet: product.Sheet{Name: "f", Sandable: cure.Table{{TempC: 10, Hours: 16}, {TempC: 20, Hours: 8}}},
		Job: field.Job{Lights: true, Apply: time.Hour, Dry: 2 * time.Hour}, WorkH: 4}
	got := Ready([]Pass{p, p}, w, calendar.Week{}, time.UTC, monday)
	require.NotNil(t, got)
	assert.Equal(t, monday.Add(24*time.Hour+20*time.Hour), *got)
	wet := 3.0
	for i := 24; i < 36; i++ {
		w.Air[i].RainMM = &wet
	}
	got = Ready([]Pass{p, p}, w, calendar.Week{}, time.UTC, monday)
	require.NotNil(t, got)
	assert.Equal(t, monday.Add(48*time.Hour), *got, "from noon on Tuesday, done at 16, sandable at midnight")
	assert.Nil(t, Ready([]Pass{p, p, p, p, p, p}, w, calendar.Week{}, time.UTC, monday))
	assert.Nil(t, Ready([]Pass{{Job: p.Job}}, w, calendar.Week{}, time.UTC, monday), "no clock")
}

// A side curved like a barrel, 40 mm in 2 m, with a dent of 5 mm: the dent is found, the barrel is not
// filled.
func TestDeparturesOfACurvedSide(t *testing.T) {
	g := Grid{NX: 41, NY: 21, DX: 0.1, DY: 0.1}
	heights := make([]float64, g.NX*g.NY)
	for i := range heights {
		x, y := float64(i%g.NX)*0.1-2, float64(i/g.NX)*0.1-1
		heights[i] = 500 - 40*(x/2)*(x/2) - 25*y*y + 3*x*y
		if r := math.Hypot(x-0.5, y); r < 0.3 {
			heights[i] -= 5 * (1 - r/0.3)
		}
	}
	heights[0] = math.NaN()
	gaps := g.Departures(heights, 1)
	assert.True(t, math.IsNaN(gaps[0]))
	flat := gaps[g.NX*2+3]
	assert.InDelta(t, 5, gaps[g.NX*10+25]-flat, 0.4)
	assert.InDelta(t, 0, gaps[g.NX*18+35]-flat, 0.2)
	least := math.Inf(1)
	for _, v := range gaps[1:] {
		least = min(least, v)
	}
	assert.InDelta(t, 0, least, 1e-9)
}

// The passes of a job in their order: two hard ones of an hour each, then one light of five hours, laid
// within two. A polyester filler, heavy but thin, does not go under.
func TestPassesInTheirOrder(t *testing.T) {
	light := product.Sheet{Name: "light", Kind: product.Fairing, MaxPassMM: 10, BaseKgL: 0.7}
	hard := product.Sheet{Name: "hard", Kind: product.Fairing, MaxPassMM: 15, BaseKgL: 1.3}
	assert.True(t, GoesUnder(hard, light))
	assert.False(t, GoesUnder(light, hard))
	assert.False(t, GoesUnder(product.Sheet{Kind: product.Fairing, MaxPassMM: 5, BaseKgL: 1.8}, light))
	j := Job{Passes: 1, Hours: 5, Under: &Under{Passes: 2, Hours: 2}}
	got, err := j.Laid(light, &hard, func(product.Sheet) (field.Job, error) { return field.Job{Lights: true}, nil })
	require.NoError(t, err)
	require.Len(t, got, 3)
	assert.Equal(t, []string{"hard", "hard", "light"}, []string{got[0].Sheet.Name, got[1].Sheet.Name,
		got[2].Sheet.Name})
	assert.Equal(t, time.Hour, got[0].Job.Apply)
	assert.Equal(t, 2*time.Hour, got[2].Job.Apply)
	assert.InDelta(t, 5, got[2].WorkH, 1e-9)
}

// Along 3-4-5: half of the way, and a metre to the right of it as one walks.
func TestPlacesAlongATrack(t *testing.T) {
	a := Track{From: outline.Point{X: 1, Y: 2}, To: outline.Point{X: 4, Y: 6}}.axis()
	p := a.at(0.5, 1)
	assert.InDelta(t, 1+1.5+0.8, p.X, 1e-12)
	assert.InDelta(t, 2+2-0.6, p.Y, 1e-12)
	share, right := a.of(p)
	assert.InDelta(t, 0.5, share, 1e-12)
	assert.InDelta(t, 1, right, 1e-12)
	share, right = a.of(outline.Point{X: 1 - 0.8*2, Y: 2 + 0.6*2})
	assert.InDelta(t, 0, share, 1e-12)
	assert.InDelta(t, -2, right, 1e-12, "to the left")
}
