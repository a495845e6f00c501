package nonskid

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"allcoats/core/geometry/polygon"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// random is a deck with fittings and splits in places of no order.
func random(r *rand.Rand) Work {
	w := Usual([]polygon.Polygon{{Outer: polygon.Ring{{X: 0, Y: -1.2}, {X: 3, Y: -1.5}, {X: 6.5, Y: -1.1}, {X: 8, Y: 0},
		{X: 6.5, Y: 1.1}, {X: 3, Y: 1.5}, {X: 0, Y: 1.2}},
		Holes: []polygon.Ring{box(1, -0.5, 1.5, 1)}}})
	w.Symmetric = r.IntN(2) == 0
	w.InsideRM = 0 // a larger radius may come nearer to a corner than its margin
	w.EdgeM = 0.02 + 0.06*r.Float64()
	for range r.IntN(12) {
		k := FittingKinds[r.IntN(len(FittingKinds))]
		w.Fittings = append(w.Fittings, Fitting{Kind: k.Key, X: 0.5 + 6*r.Float64(), Y: 0.9 * (2*r.Float64() - 1),
			LengthM: k.LengthM, WidthM: k.WidthM, Round: k.Round, TurnDeg: 180 * r.Float64(), Mirror: r.IntN(2) == 0})
	}
	for range r.IntN(4) {
		x := 7 * r.Float64()
		w.Splits = append(w.Splits, Split{X1: x, Y1: -2, X2: x + 0.4*r.Float64(), Y2: 2, WidthM: 0.02 +
			0.05*r.Float64()})
	}
	return w
}

// Whatever is asked for: panels lie on the deck within its margin, clear of each other, of
// the fittings by their margins and of the gaps; their areas add up.
func TestPanelsKeepTheirDistance(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 4))
	const slack = 5e-4 // round fittings are drawn with corners
	for k := range 60 {
		w := random(r)
		l, err := Lay(w, blocks)
		require.NoError(t, err, "%d %+v", k, w)
		var all polygon.Shape
		sum := 0.0
		for _, p := range l.Panels {
			sum += p.AreaM2
			assert.InDelta(t, p.Shape.Area(), p.AreaM2, 1e-9)
			assert.InDelta(t, p.Shape.EdgeLength(), p.MaskM, 1e-9)
			both, err := all.Within(p.Shape)
			require.NoError(t, err)
			assert.Less(t, both.Area(), 1e-6, "%d: %s lies on another", k, p.Name)
			all = append(all, p.Shape...)
			for _, part := range p.Shape {
				require.NoError(t, part.Validate(), "%d: %s", k, p.Name)
				for _, c := range part.Outer {
					assert.GreaterOrEqual(t, polygon.Polygon{Outer: l.Deck[0].Outer}.ToEdge(c), w.EdgeM-slack,
						"%d: %s at the rail", k, p.Name)
				}
			}
		}
		assert.InDelta(t, l.AreaM2, sum, 1e-9)
		off, err := all.Less(l.Deck)
		require.NoError(t, err)
		assert.Less(t, off.Area(), 1e-6, "%d: off the deck", k)
		in, err := all.Within(l.Gaps)
		require.NoError(t, err)
		assert.Less(t, in.Area(), 1e-6, "%d: on a gap", k)
		for _, f := range l.Fittings {
			for _, p := range all {
				for _, c := range p.Outer {
					assert.GreaterOrEqual(t, f.ToEdge(c), 0.02-slack, "%d: nearer to a fitting than any margin", k)
				}
			}
		}
	}
}

// A wider margin, another fitting, another gap: never more non-skid.
func TestMoreInTheWayNeverMoreArea(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 8))
	for k := range 30 {
		w := random(r)
		before := lay(t, w).AreaM2
		wider := w
		wider.EdgeM += 0.03
		assert.LessOrEqual(t, lay(t, wider).AreaM2, before+1e-6, "margin, %d", k)
		gap := w
		gap.Splits = append(append([]Split{}, w.Splits...), Split{X1: 5, Y1: -2, X2: 5, Y2: 2, WidthM: 0.04})
		// Two new corners are rounded off more than the gap takes, or less: never gained.
		assert.LessOrEqual(t, lay(t, gap).AreaM2, before+1e-6, "gap, %d", k)
	}
}

// Both sides of a symmetric layout are the same.
func TestMirroredSidesAreAlike(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	for range 20 {
		w := random(r)
		w.Symmetric = true
		for i := range w.Fittings {
			w.Fittings[i].Mirror = true
		}
		w.Splits = []Split{{X1: -1, X2: 9, WidthM: 0.05}}
		l := lay(t, w)
		side := map[byte]float64{}
		for _, p := range l.Panels {
			side[p.Name[0]] += p.AreaM2
		}
		if len(w.Fittings) > 0 && math.Abs(w.Fittings[0].Y) < 0.01 {
			continue // on the line itself it has no twin
		}
		assert.InDelta(t, side['S'], side['P'], 2e-3)
	}
}

// Grit and mats take their own; a school changes no panel.
func TestSchoolsTakeTheirOwn(t *testing.T) {
	paint := lay(t, half(nil))
	for _, s := range Schools {
		w := half(func(w *Work) { w.School, w.Sheet = s.Key, Sheet{LengthM: 5, WidthM: 3} })
		l := lay(t, w)
		assert.InDelta(t, paint.AreaM2, l.AreaM2, 1e-12, s.Name)
		assert.NotEmpty(t, l.Takes.Spread, s.Name)
		assert.InDelta(t, 1.15*l.MaskM, l.Takes.TapeM, 1e-9)
		switch s.Key {
		case Grit:
			assert.InDelta(t, 2*8*0.6, l.Takes.GritKg, 1e-9)
		case Mats:
			require.NotNil(t, l.Nest)
			assert.Equal(t, 1, l.Nest.Sheets)
		case Paint:
			assert.InDelta(t, 8*0.4/0.92, l.Takes.Litres, 1e-9)
		case Moulded:
		}
	}
}

func TestLettersOfEveryShapeStayInOnePiece(t *testing.T) {
	for i, text := range []string{"ABDO", "PQR 469", "THE END", "8&B", "ILL"} {
		for _, textured := range []bool{true, false} {
			s := Stencil{Text: text, HeightM: 0.15, BridgeM: 0.005, Textured: textured}
			c, err := s.cut(blocks)
			require.NoError(t, err)
			assert.Equal(t, 1, c.Pieces, fmt.Sprintf("%d %s textured %v", i, text, textured))
			assert.Positive(t, c.CutM)
			if !textured {
				assert.InDelta(t, 0.15, c.HeightM, 1e-6)
			}
		}
	}
	_, err := Stencil{Text: " ", HeightM: 0.1, BridgeM: 0.005}.cut(blocks)
	assert.Error(t, err, "nothing to be drawn")
}
