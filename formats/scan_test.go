package formats

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/finish/fair"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A side of 3 m by 1 m, tilted, with a dent of πa²h/2 = 0.565 L, 6 mm deep and 0.245 m wide half
// way: filling it flush takes as much.
func TestAScanBecomesHeights(t *testing.T) {
	var m, mm strings.Builder
	m.WriteString("x,y,z\n")
	mm.WriteString("no;X mm;Y mm;Z mm\n")
	const a, depth = 0.2449, 0.006
	for i := range 121 {
		for k := range 41 {
			x, y := float64(i)*0.025, float64(k)*0.025
			z := 0.3 + 0.1*x - 0.2*y
			if u := math.Hypot(x-1.5, y-0.5) / a; u < 1 {
				z -= depth * (1 - u*u)
			}
			fmt.Fprintf(&m, "%.5f,%.5f,%.6f\n", x, y, z)
			fmt.Fprintf(&mm, "%d;%s;%s;%s\n", i, comma(1000*x), comma(1000*y), comma(1000*z))
		}
	}
	s, err := ReadScan([]byte(m.String()))
	require.NoError(t, err)
	assert.True(t, IsScan([]byte(m.String())))
	g := fair.Grid{NX: len(s.Gaps[0]), NY: len(s.Gaps), DX: s.SpacingM, DY: s.RowsM}
	assert.Greater(t, g.NX*g.NY, 800)
	for _, row := range s.Gaps {
		for _, v := range row {
			if v == nil {
				g.Gaps = append(g.Gaps, math.NaN())
			} else {
				g.Gaps = append(g.Gaps, *v)
			}
		}
	}
	got, err := fair.Fit(g, fair.Limits{MaxFillMM: 20, StiffnessM: 1.5})
	require.NoError(t, err)
	assert.InDelta(t, math.Pi*a*a*depth/2*1000, got.FillL, 0.06)
	assert.InDelta(t, 6, got.MaxFillMM, 0.6)
	same, err := ReadScan([]byte(mm.String()))
	require.NoError(t, err)
	assert.InDelta(t, s.SpacingM, same.SpacingM, 1e-4)
	assert.Len(t, same.Gaps, len(s.Gaps))
}

func comma(v float64) string { return strings.Replace(fmt.Sprintf("%.3f", v), ".", ",", 1) }

func TestBadScans(t *testing.T) {
	line := strings.Repeat("1,2,3\n", 3)
	for name, c := range map[string]struct{ data, path, words string }{
		"no header": {"1,2,3\n4,5,6\n", "line 1", "names no columns"},
		"few":       {"x,y,z\n" + line, "file", "3 points are too few"},
		"a line":    {"x,y,z\n" + strings.Repeat("1,2,3\n2,2,3\n", 10), "file", "lie on a line"},
		"words":     {"x,y,z\n1,2,three\n", "line 2", "z is no number"},
		"short":     {"x,y,z\n1,2\n", "line 2", "z is no number"},
		"millimetre": {"x,y,z\n" + strings.Repeat("0,0,0\n3000,0,1\n0,1000,2\n3000,1000,3\n", 4), "file",
			"are these mm?"},
	} {
		_, err := ReadScan([]byte(c.data))
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, name)
		assert.Equal(t, c.path, bad[0].Path, name)
		assert.Contains(t, bad[0].Message, c.words, name)
	}
}

func FuzzReadScan(f *testing.F) {
	f.Add([]byte("x,y,z\n0,0,0\n1,0,0.1\n"))
	f.Add([]byte("\ufeffX mm;Y mm;Z mm\n0;0;0\n1,5;2;3\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		s, err := ReadScan(data)
		if err != nil {
			return
		}
		require.LessOrEqual(t, len(s.Gaps), scanSide)
		for _, row := range s.Gaps {
			require.LessOrEqual(t, len(row), scanSide)
			for _, v := range row {
				require.True(t, v == nil || *v >= 0 && !math.IsInf(*v, 0))
			}
		}
	})
}
