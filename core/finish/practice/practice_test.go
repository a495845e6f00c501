package practice

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func play(t *testing.T, moves ...Move) State {
	s, err := Play(moves)
	require.NoError(t, err)
	return s
}

func fill(filler string, mm float64) Move { return Move{Do: "fill", Filler: filler, MM: mm} }
func wait(h float64) Move                 { return Move{Do: "wait", Hours: h} }
func grit(g int) Move                     { return Move{Do: "sand", Grit: g} }

// Done as it should be nothing shows: hard filler below, light on top, each cured, up
// the ladder.
func TestAPanelDoneRight(t *testing.T) {
	moves := []Move{fill("hard", 4), wait(20), fill("light", 4), wait(60), grit(80)}
	s := play(t, moves...)
	for s.ProudMM > 0.1 {
		moves = append(moves, grit(80))
		s = play(t, moves...)
		require.Less(t, len(moves), 40)
	}
	s = play(t, append(moves, grit(120), grit(180), grit(240), grit(320), Move{Do: "paint"})...)
	assert.True(t, strings.HasPrefix(s.Verdict, "Fair"), "%s %v", s.Verdict, s.Said)
}

func TestMistakesAreExplained(t *testing.T) {
	said := func(s State, what string) {
		t.Helper()
		assert.Contains(t, fmt.Sprint(s.Said), what)
	}
	said(play(t, fill("light", 7.5)), "it slumps")
	said(play(t, fill("light", 5), grit(80)), "The paper clogs")
	said(play(t, fill("light", 5), fill("hard", 3)), "Hard filler over light")
	said(play(t, fill("light", 5), fill("light", 3)), "not cured")
	said(play(t, fill("light", 6), wait(5), wait(8), fill("light", 4), wait(5)), "green")
	said(play(t, fill("light", 6), wait(20), fill("light", 2), wait(50), grit(40), grit(400)), "too fine a leap")
	coarse := play(t, fill("light", 6), wait(20), fill("light", 2), wait(50), grit(40), grit(40), Move{Do: "paint"})
	said(coarse, "telegraph")
	assert.NotContains(t, coarse.Verdict, "Fair:")
	through := play(t, grit(40), grit(40), grit(40))
	assert.True(t, through.Through)
	said(through, "Through: a ring")
	hollow := play(t, fill("light", 2), wait(40), Move{Do: "paint"})
	said(hollow, "shows in the reflection")
	early := play(t, fill("light", 6), wait(13), fill("light", 2), wait(13), Move{Do: "paint"})
	said(early, "not through with shrinking")
}

func TestMovesThatCannotBe(t *testing.T) {
	for path, moves := range map[string][]Move{
		"moves[0].do":     {{Do: "pray"}},
		"moves[0].filler": {fill("soft", 3)},
		"moves[0].mm":     {fill("hard", 0)},
		"moves[0].grit":   {grit(4)},
		"moves[0].hours":  {wait(0)},
		"moves[1]":        {{Do: "paint"}, grit(80)},
	} {
		_, err := Play(moves)
		assert.ErrorContains(t, err, path)
	}
}

// Of many days some are right to coat on and some are not; the reason fits the day.
func TestDays(t *testing.T) {
	coat, rain := 0, 0
	for seed := range uint64(60) {
		d := Deal(seed)
		assert.Equal(t, d, Deal(seed), "the same seed, the same day")
		a := d.Judge(true)
		assert.Equal(t, a.Coat, a.Right)
		assert.NotEqual(t, a.Right, d.Judge(false).Right)
		assert.NotEmpty(t, a.Reason)
		if a.Coat {
			coat++
			for h := d.Hour; h <= d.Hour+5; h++ {
				x := d.Hours[h%24]
				assert.GreaterOrEqual(t, x.AirC, 7.9, "seed %d at %d", seed, h)
				assert.LessOrEqual(t, x.RHPct, 86.0)
				assert.GreaterOrEqual(t, x.SurfaceC-x.DewC, 2.9)
				assert.Zero(t, x.RainMM)
			}
		}
		if strings.Contains(a.Reason.String(), "rain") {
			rain++
		}
	}
	assert.Greater(t, coat, 6)
	assert.Less(t, coat, 54)
	assert.Positive(t, rain)
}

// Half over, the hollow of forty sides is found to a fifth in nine of ten; end to end the doubt is
// said, and holds what is needed.
func TestAnEdgeFindsTheHollow(t *testing.T) {
	lay := func(s Side, step float64) Read {
		var starts []float64
		for at := 0.0; at+s.EdgeM <= s.LengthM+1e-9; at += step {
			starts = append(starts, at)
		}
		r, err := s.Lay(starts)
		require.NoError(t, err)
		require.True(t, r.Done)
		return r
	}
	found, apart := 0, 0
	for seed := range uint64(40) {
		s := DealSide(seed)
		half, ends := lay(s, 0.5), lay(s, 1)
		if half.Right {
			found++
		}
		if ends.Right {
			apart++
		}
		assert.Greater(t, half.TrueM, 3.0, "a hollow of two metres and more, seven deep")
		assert.Contains(t, ends.Says.String(), "Overlap by half")
	}
	assert.GreaterOrEqual(t, found, 36)
	assert.Less(t, apart, found)
	r, err := DealSide(1).Lay([]float64{0, 0.5})
	require.NoError(t, err)
	assert.False(t, r.Done)
	assert.Empty(t, r.TruthMM, "nothing is given away")
	_, err = DealSide(1).Lay([]float64{3.5})
	assert.ErrorContains(t, err, "starts[0]")
	none, err := DealSide(1).Lay(nil)
	require.NoError(t, err)
	assert.NotEmpty(t, none.Says)
}
