package nonskid

import (
	"math"
	"strings"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/catalog/product"
	"allcoats/core/geometry/polygon"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func box(x, y, w, h float64) polygon.Ring {
	return polygon.Ring{{X: x, Y: y}, {X: x + w, Y: y}, {X: x + w, Y: y + h}, {X: x, Y: y + h}}
}

// half is a port side deck of 4 × 1 m; sharp is without margins and radii.
func half(edit func(w *Work)) Work {
	w := Usual([]polygon.Polygon{{Outer: box(0, 0, 4, 1)}})
	w.EdgeM, w.OpeningM, w.OutsideRM, w.InsideRM = 0, 0, 0, 0
	if edit != nil {
		edit(&w)
	}
	return w
}

// blocks draws letters as blocks with the holes that they have.
func blocks(text string) (out polygon.Shape, err error) {
	for i, r := range text {
		x := 0.8 * float64(i)
		letter := polygon.Polygon{Outer: box(x, 0, 0.7, 1)}
		switch r {
		case ' ':
			continue
		case 'B', '8':
			letter.Holes = []polygon.Ring{box(x+0.2, 0.6, 0.3, 0.2), box(x+0.2, 0.2, 0.3, 0.2)}
		case 'O', 'A':
			letter.Holes = []polygon.Ring{box(x+0.2, 0.4, 0.3, 0.3)}
		}
		out = append(out, letter)
	}
	return out, nil
}

func lay(t *testing.T, w Work) Layout {
	t.Helper()
	l, err := Lay(w, blocks)
	require.NoError(t, err)
	return l
}

func find(l Layout, name string) Panel {
	for _, p := range l.Panels {
		if p.Name == name {
			return p
		}
	}
	return Panel{}
}

// Areas by hand: a margin of 0.1 all round 4 × 2 leaves 3.8 × 1.8; corners of radius r
// take (4 − π) r²; a round fitting of radius 0.1 with 0.05 margin takes π 0.15².
func TestAreasByHand(t *testing.T) {
	zero := 0.05
	for name, c := range map[string]struct {
		edit func(w *Work)
		want float64
		mask float64
	}{
		"mirrored": {nil, 8, 12},
		"margin":   {func(w *Work) { w.EdgeM = 0.1 }, 3.8 * 1.8, 11.2},
		"round corners": {func(w *Work) { w.EdgeM, w.OutsideRM = 0.1, 0.2 }, 3.8*1.8 - (4-math.Pi)*0.04,
			11.2 - 8*0.2 + 2*math.Pi*0.2},
		"split, both edge": {func(w *Work) { w.Splits = []Split{{X1: 2, Y1: -2, X2: 2, Y2: 2, WidthM: 0.02}} },
			8 - 2*0.02, 2 * (2*1.99 + 2*2)},
		"round fitting": {func(w *Work) {
			w.Fittings = []Fitting{{Kind: "filler", X: 2, Y: 0.5, LengthM: 0.2, Round: true, MarginM: &zero}}
		}, 8 - math.Pi*0.15*0.15, 12 + 2*math.Pi*0.15},
		"mirrored fitting": {func(w *Work) {
			w.Fittings = []Fitting{{Kind: "filler", X: 2, Y: 0.5, LengthM: 0.2, Round: true, MarginM: &zero,
				Mirror: true}}
		}, 8 - 2*math.Pi*0.15*0.15, 12 + 4*math.Pi*0.15},
	} {
		l := lay(t, half(c.edit))
		assert.InDelta(t, c.want, l.AreaM2, 2e-3*c.want, name)
		assert.InDelta(t, c.mask, l.MaskM, 2e-3*c.mask, name)
	}
}

// A panel has its own sides, wherever on the deck it lies; moulded panels lay no coats.
func TestThePlanOfAPanel(t *testing.T) {
	w := half(func(w *Work) { w.Deck = []polygon.Polygon{{Outer: box(3, 2, 1, 4)}} })
	l := lay(t, w)
	require.NotEmpty(t, l.Panels)
	assert.InDelta(t, 4, l.Panels[0].LengthM, 1e-6)
	assert.InDelta(t, 1, l.Panels[0].WidthM, 1e-6)
	for _, p := range l.Panels {
		assert.InDelta(t, p.AreaM2*15, p.Minutes, 1e-9, "4 m² an hour")
	}
	sheet := product.Sheet{Name: "grit", Kind: product.NonSkidPaint, VolumeSolidsPct: 50,
		Film: product.Film{MinUm: 50, TypicalUm: 80, MaxUm: 150}}
	assert.NotEmpty(t, w.Plan(&l, sheet, 0))
	w.School = Moulded
	assert.Empty(t, w.Plan(&l, sheet, 0))
}

// A texture takes its litres in as many coats as bring each within the sheet, by hand at 50 % solids and 150 µm at the
// most: 0.25 L/m² are 125 µm, 0.4 are 200, 0.6 are 300. What notches lay in one pass is over it: 3 · 3 / 6 L/m² are 750.
func TestCoatsOfATexture(t *testing.T) {
	sheet := product.Sheet{Name: "grit", Kind: product.NonSkidPaint, VolumeSolidsPct: 50,
		Film: product.Film{MinUm: 50, TypicalUm: 80, MaxUm: 150}}
	for _, c := range []struct {
		tool  Tool
		grade string
		coats int
		um    float64
	}{{Roller, "fine", 1, 125}, {Roller, "medium", 2, 100}, {Roller, "coarse", 2, 150}, {Square, "fine", 1, 750}} {
		w := half(func(w *Work) { w.Texture.Tool, w.Texture.Grade = c.tool, c.grade })
		l := lay(t, w)
		steps := w.Plan(&l, sheet, 0)
		last := steps[len(steps)-1]
		assert.Equal(t, c.coats, last.Coats, c.grade)
		assert.InDelta(t, c.um, last.DFTUm, 1e-9, c.grade)
		assert.Equal(t, c.tool == Square, len(l.Findings) > 0, "%v", l.Findings)
		assert.Equal(t, c.coats > 1, strings.Contains(l.Takes.Spread.String(), "Lay it in 2 coats"))
	}
}

// A hatch's margin has square corners, filled up by (1 − π/4) r² at each of the four.
func TestInsideCorners(t *testing.T) {
	hatch := func(r float64) Work {
		return half(func(w *Work) {
			w.InsideRM = r
			w.Fittings = []Fitting{{Kind: "hatch", X: 2, LengthM: 0.6, WidthM: 0.6}}
		})
	}
	round, large := lay(t, hatch(0.04)), lay(t, hatch(0.1))
	assert.InDelta(t, 8-0.36-4*0.6*0.04-math.Pi*0.04*0.04, round.AreaM2, 1e-4,
		"of the margin's radius it is the margin all round")
	assert.InDelta(t, 8-0.68*0.68+(4-math.Pi)*0.01, large.AreaM2, 1e-4)
	require.NotEmpty(t, large.Findings)
	assert.Contains(t, large.Findings[0].Text.String(), "within 15 mm of the corners of the hatch")
	assert.Empty(t, round.Findings)
}

func TestANeckIsTold(t *testing.T) {
	l := lay(t, half(func(w *Work) {
		w.Symmetric = false
		w.Fittings = []Fitting{{Kind: "hatch", X: 2, Y: 0.51, LengthM: 0.5, WidthM: 0.88}}
	}))
	require.NotEmpty(t, l.Findings)
	assert.Contains(t, l.Findings[0].Text.String(), "neck narrower than 30 mm")
}

func TestNamesOrderAndPairs(t *testing.T) {
	l := lay(t, half(func(w *Work) {
		w.EdgeM = 0.05
		w.Splits = []Split{{X1: -1, Y1: 0, X2: 5, Y2: 0, WidthM: 0.1}, {X1: 3, Y1: 0, X2: 3, Y2: 2, WidthM: 0.03,
			Mirror: true}}
	}))
	require.Len(t, l.Panels, 4)
	assert.InDelta(t, find(l, "S1").AreaM2, find(l, "P1").AreaM2, 1e-6, "a pair")
	assert.Greater(t, find(l, "S1").Label.X, find(l, "S2").Label.X, "from forward aft")
	assert.LessOrEqual(t, find(l, "S1").Order, 2)
	assert.Greater(t, find(l, "S2").Order, 2, "the smallest first")
	assert.InDelta(t, 2*2*1, l.TwiceM, 0.15, "both edges of the narrow gaps; the wide one takes a tape each side")
}

func TestMarginsThatEatAPanelKeepIt(t *testing.T) {
	l := lay(t, half(func(w *Work) {
		w.EdgeM = 0.1
		w.Splits = []Split{{X1: 3.85, Y1: -2, X2: 3.85, Y2: 2, WidthM: 0.1}}
	}))
	require.Len(t, l.Panels, 2)
	assert.Zero(t, l.Panels[0].AreaM2)
	assert.Contains(t, l.Panels[0].Flag, "leave nothing")
	assert.Zero(t, l.Panels[0].Order)
	assert.Equal(t, 1, l.Panels[1].Order)
}

func TestFittingThatCutsAPanel(t *testing.T) {
	l := lay(t, half(func(w *Work) {
		w.Symmetric = false
		w.Fittings = []Fitting{{Kind: "track", X: 1, Y: 0.5, LengthM: 1, WidthM: 0.05, TurnDeg: 90}}
	}))
	require.Len(t, l.Panels, 2)
	assert.Equal(t, []string{"P1a", "P1b"}, []string{l.Panels[0].Name, l.Panels[1].Name})
}

func TestBadFields(t *testing.T) {
	for path, edit := range map[string]func(w *Work){
		"fittings[0].x": func(w *Work) {
			w.Fittings = []Fitting{{Kind: "cleat", X: 9, LengthM: 0.2,
				WidthM: 0.1}}
		},
		"fittings[0].lengthM": func(w *Work) { w.Fittings = []Fitting{{Kind: "cleat", X: 1}} },
		"fittings[0].kind":    func(w *Work) { w.Fittings = []Fitting{{Kind: "gun", X: 1, LengthM: 1, WidthM: 1}} },
		"splits[0].x2":        func(w *Work) { w.Splits = []Split{{WidthM: 0.01}} },
		"edgeM":               func(w *Work) { w.EdgeM = -1 },
		"texture.pitchMM": func(w *Work) {
			w.Texture = Texture{Tool: Square, Grade: "fine", WidthMM: 4, PitchMM: 3,
				DepthMM: 2}
		},
		"sheet.lengthM": func(w *Work) { w.School, w.Sheet = Mats, Sheet{WidthM: 1} },
		"stencil.text":  func(w *Work) { w.Stencil = &Stencil{HeightM: 0.1, BridgeM: 0.005} },
		"deck[0].outer": func(w *Work) { w.Deck[0].Outer = w.Deck[0].Outer[:2] },
	} {
		_, err := Lay(half(edit), blocks)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

// A square notch of 3 mm every 6, 3 deep, lets 1.5 mm through: 1.5 L/m²; a V half of it.
func TestNotches(t *testing.T) {
	n := Texture{Tool: Square, WidthMM: 3, PitchMM: 6, DepthMM: 3}
	assert.InDelta(t, 1.5, n.NotchLitreM2(), 1e-12)
	n.Tool = Vee
	assert.InDelta(t, 0.75, n.NotchLitreM2(), 1e-12)
	l := lay(t, half(func(w *Work) {
		w.Texture = Texture{Tool: Vee, Grade: "fine", WidthMM: 3, PitchMM: 6, DepthMM: 3, WastePct: 20}
	}))
	assert.InDelta(t, 8*0.75/0.8, l.Takes.Litres, 1e-6)
}

func TestEvenness(t *testing.T) {
	w := half(func(w *Work) {
		w.Splits = []Split{{X1: 1, Y1: -2, X2: 1, Y2: 2, WidthM: 0.1}, {X1: 2, Y1: -2, X2: 2, Y2: 2, WidthM: 0.1}}
		w.Laid = map[string]float64{"C1": 2 * 1.95 * 0.4, "C2": 2 * 0.9 * 0.4, "C3": 2 * 0.95 * 0.5}
	})
	l := lay(t, w)
	require.Len(t, l.Even, 3)
	assert.InDelta(t, 0, l.Even[0].OffPct, 1e-6)
	assert.Contains(t, l.Even[1].Says, "even")
	assert.InDelta(t, 25, l.Even[2].OffPct, 1e-6)
	assert.Contains(t, l.Even[2].Says, "coarser")
}

// Whatever is packed lies on its sheet and on nothing else.
func TestNestNeverOverlaps(t *testing.T) {
	var panels []Panel
	for i := range 40 {
		a, b := 0.2+0.03*float64(i%11), 0.15+0.05*float64(i%7)
		panels = append(panels, Panel{Name: string(rune('A' + i)), AreaM2: a * b,
			Shape: polygon.Shape{{Outer: box(float64(i), 2, a, b)}}})
	}
	panels = append(panels, Panel{Name: "huge", AreaM2: 4, Shape: polygon.Shape{{Outer: box(0, 0, 2, 2)}}})
	s := Sheet{LengthM: 1.8, WidthM: 0.9, SpaceM: 0.01}
	n := s.Pack(panels)
	assert.Equal(t, []string{"huge"}, n.TooLarge)
	require.Len(t, n.Mats, 40)
	area := 0.0
	for i, a := range n.Mats {
		area += a.LengthM * a.WidthM
		assert.LessOrEqual(t, a.X+a.LengthM, s.LengthM+1e-9)
		assert.LessOrEqual(t, a.Y+a.WidthM, s.WidthM+1e-9)
		for _, b := range n.Mats[:i] {
			apart := a.Sheet != b.Sheet || a.X >= b.X+b.LengthM || b.X >= a.X+a.LengthM || a.Y >= b.Y+b.WidthM ||
				b.Y >= a.Y+a.WidthM
			assert.True(t, apart, "%s and %s overlap", a.Panel, b.Panel)
		}
	}
	assert.LessOrEqual(t, n.Sheets, int(math.Ceil(1.7*area/(s.LengthM*s.WidthM)))+2)
}

func TestStencilInOnePiece(t *testing.T) {
	for _, textured := range []bool{false, true} {
		l := lay(t, half(func(w *Work) {
			w.Stencil = &Stencil{Text: "BOA 8", X: 2, HeightM: 0.2, Textured: textured, BridgeM: 0.006}
		}))
		require.NotNil(t, l.Stencil)
		assert.Equal(t, 1, l.Stencil.Pieces, "textured %v", textured)
		for _, f := range l.Findings {
			assert.False(t, f.Stop, f.Text)
		}
		assert.Less(t, l.AreaM2, 8.0)
		require.Len(t, l.Panels, 1, "what lies inside the letters is no panel of its own")
	}
	l := lay(t, half(func(w *Work) { w.Stencil = &Stencil{Text: "A", X: 3.98, HeightM: 0.3, BridgeM: 0.006} }))
	require.NotEmpty(t, l.Findings)
	assert.True(t, l.Findings[0].Stop)
	assert.Contains(t, l.Findings[0].Text.String(), "not lie wholly on one panel")
	logo := lay(t, half(func(w *Work) {
		w.Stencil = &Stencil{Outlines: []polygon.Ring{box(0, 0, 2, 2), box(0.5, 0.5, 1, 1)}, X: 2, HeightM: 0.2,
			BridgeM: 0.006}
	}))
	assert.InDelta(t, 8-(0.04-0.01), logo.AreaM2, 1e-4, "a frame stays smooth")
}

// BenchmarkLay lays out 60 panels with 200 fittings.
func BenchmarkLay(b *testing.B) {
	w := Usual([]polygon.Polygon{{Outer: polygon.Ring{{X: 0, Y: -2}, {X: 9, Y: -2.2}, {X: 15, Y: -0.4}, {X: 15, Y: 0.4},
		{X: 9, Y: 2.2}, {X: 0, Y: 2}}}})
	for i := range 14 {
		x := 0.9 * float64(i+1)
		w.Splits = append(w.Splits, Split{X1: x, Y1: -3, X2: x, Y2: 3, WidthM: 0.03})
	}
	for _, y := range []float64{-1, 0, 1} {
		w.Splits = append(w.Splits, Split{X1: -1, Y1: y, X2: 16, Y2: y, WidthM: 0.04})
	}
	for i := range 200 {
		w.Fittings = append(w.Fittings, Fitting{Kind: "stanchion", X: 0.4 + 0.5*float64(i/10), Y: -1.7 +
			0.37*float64(i%10), LengthM: 0.08, WidthM: 0.08})
	}
	for b.Loop() {
		l, err := Lay(w, blocks)
		require.NoError(b, err)
		require.GreaterOrEqual(b, len(l.Panels), 60)
	}
}
