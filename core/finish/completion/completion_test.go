package completion

import (
	"strings"
	"testing"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/film/step"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var now = time.Date(2026, 5, 9, 9, 0, 0, 0, time.UTC)

func in(h float64) *time.Time { return after(now, h) }

func plan(t *testing.T, w Work, c Case) Result {
	t.Helper()
	c.Now = now
	if c.TempC == 0 {
		c.TempC = 20
	}
	r, err := w.Plan(c)
	require.NoError(t, err)
	return r
}

// A fitting waits for sealed holes, for the coats, for their hardness; it is tightened
// twice, 48 h apart at 20 °C with polysulphide, and loaded after a week.
func TestBedding(t *testing.T) {
	coat := Coat{SurfaceID: "d", Surface: "Deck", Started: now.Add(-48 * time.Hour), Hard: in(30)}
	next := func(h Hardware, k Coat) Bedding {
		h.Name, h.SurfaceID, h.Compound = "cleat", "d", "polysulphide"
		return plan(t, Work{Hardware: []Hardware{h}}, Case{Coats: []Coat{k}}).Bedding[0]
	}
	assert.Contains(t, next(Hardware{}, coat).Next, "not sealed")
	b := next(Hardware{Sealed: true}, coat)
	assert.Contains(t, b.Next, "wait till the coat is hard")
	assert.Equal(t, coat.Hard, b.From)
	more := coat
	more.Left = 2
	assert.Contains(t, next(Hardware{Sealed: true}, more).Next, "2 coats are still")
	hard := coat
	hard.Hard = in(-1)
	assert.Contains(t, next(Hardware{Sealed: true}, hard).Next, "bed it")
	b = next(Hardware{Sealed: true, BeddedAt: in(-10)}, hard)
	assert.Equal(t, in(38), b.From)
	assert.Equal(t, in(158), b.LoadAt)
	assert.Contains(t, next(Hardware{Sealed: true, BeddedAt: in(-60), SnuggedAt: in(-1)}, hard).Next,
		"no load on it yet")
}

func TestLoadBeforeLaunch(t *testing.T) {
	w := Work{Hardware: []Hardware{{Name: "winch", Compound: "polyurethane", Sealed: true, BeddedAt: in(0)}}}
	r := plan(t, w, Case{Launch: in(100)})
	assert.True(t, r.Bedding[0].Late)
	r = plan(t, w, Case{Launch: in(130)})
	assert.False(t, r.Bedding[0].Late)
	cold := plan(t, w, Case{Launch: in(130), TempC: 10})
	assert.True(t, cold.Bedding[0].Late, "240 h at 10 °C")
}

func TestPullTimes(t *testing.T) {
	coat := Coat{SurfaceID: "s", Surface: "Topsides", Started: now.Add(-2 * time.Hour), TouchDry: in(1), Hard: in(60)}
	line := func(edit func(l *Line)) Tapeline {
		l := Line{Name: "boot-top", SurfaceID: "s", Tape: "fine-line", LengthM: 9, Pull: step.WhileWet,
			MaskedAt: in(-5)}
		edit(&l)
		return plan(t, Work{Lines: []Line{l}}, Case{Coats: []Coat{coat}}).Lines[0]
	}
	assert.Contains(t, line(func(l *Line) {}).Says, "pull while the coat is wet")
	assert.Equal(t, in(1), line(func(l *Line) { l.Pull = step.TouchDry }).PullAt)
	late := line(func(l *Line) { l.Pull, l.Tape = step.Hard, "crepe" })
	assert.True(t, late.Late, "crêpe stands a day, the coat is hard after")
	assert.True(t, line(func(l *Line) { l.MaskedAt = in(-200) }).Late)
	assert.Contains(t, line(func(l *Line) { l.MaskedAt = nil }).Says, "to be masked")
	assert.Equal(t, "off", line(func(l *Line) { l.Off = true }).Says)
	r := plan(t, Work{Lines: []Line{{Name: "a", Tape: "crepe", LengthM: 4, Twice: true, Pull: step.Hard}}}, Case{})
	assert.InDelta(t, 8, r.TapeM, 1e-12)
}

func TestFullCureBeforeLaunch(t *testing.T) {
	coats := []Coat{{Surface: "Bottom", Immersion: in(10), Hard: in(20)},
		{Surface: "Deck", Immersion: in(5), Hard: in(500)}, {Surface: "Rails", Left: 1, Hard: in(-1)},
		{Surface: "Keel", Silent: "old tar"}}
	r := plan(t, Work{}, Case{Coats: coats, Launch: in(100)})
	assert.False(t, r.Ready[0].Late)
	assert.Equal(t, in(20), r.Ready[0].At, "hard as well as fit to be wet")
	assert.True(t, r.Ready[1].Late)
	assert.Contains(t, r.Stopped().String(), "17 more days")
	assert.Contains(t, r.Ready[2].Says, "1 coat is still")
	assert.Nil(t, r.Ready[3].At)
	assert.Contains(t, r.Ready[3].Says, "the sheet of old tar does not say")
}

func TestSnagsAndBadFields(t *testing.T) {
	r := plan(t, Work{Snags: []Snag{{Text: "drip under the rail"}, {Text: "log not sealed", Stops: true},
		{Text: "run", Done: true, Stops: true}}}, Case{})
	assert.Equal(t, 2, r.Open)
	assert.Equal(t, 1, r.Stops)
	assert.Contains(t, r.Stopped().String(), "1 snag stops")
	for path, w := range map[string]Work{
		"hardware[0].compound":  {Hardware: []Hardware{{Name: "a", Compound: "putty"}}},
		"hardware[0].snuggedAt": {Hardware: []Hardware{{Name: "a", Compound: "butyl", SnuggedAt: in(0)}}},
		"lines[0].tape":         {Lines: []Line{{Name: "a", Tape: "string", Pull: step.Hard}}},
		"snags[0].text":         {Snags: []Snag{{}}},
	} {
		_, err := w.Plan(Case{})
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

// Every compound takes longer in the cold, and is loaded no sooner than it is tightened.
func TestCompoundsInTheCold(t *testing.T) {
	for _, k := range Compounds {
		at := func(tempC float64) Bedding {
			return plan(t, Work{Hardware: []Hardware{{Name: "x", Compound: k.Key, Sealed: true, BeddedAt: in(0)}}},
				Case{TempC: tempC}).Bedding[0]
		}
		cold, warm := at(10), at(20)
		require.NotNil(t, cold.From, k.Name)
		assert.True(t, cold.From.After(*warm.From), k.Name)
		assert.False(t, warm.LoadAt.Before(*warm.From), k.Name)
	}
	painted := plan(t, Work{Hardware: []Hardware{{Name: "port light", SurfaceID: "s", Compound: "silicone",
		Sealed: true}}}, Case{Coats: []Coat{{SurfaceID: "s", Surface: "Side", Hard: in(-9)}}})
	require.NotEmpty(t, painted.Findings)
	assert.Contains(t, painted.Findings[0].Text.String(), "silicone keeps every later coat off")
}

// By hand from docs/figures.md, at 20 °C: a fitting is drilled (0.4 h, its fill sets in 16), bedded (0.5 h, 48 h with polysulphide till it is
// tightened), tightened twice more, three weeks apart; what is done is left out. A line taped twice takes twice its length.
func TestStepsByHand(t *testing.T) {
	cleat := Hardware{Name: "cleat", SurfaceID: "d", Compound: "polysulphide", Core: Balsa, Through: true}
	tape := Line{Name: "boot top", SurfaceID: "h", LengthM: 9, Twice: true, Tape: "fine-line", Pull: step.Hard}
	got := Work{Hardware: []Hardware{cleat}, Lines: []Line{tape}}.Steps(Case{TempC: 20})
	want := []struct {
		key          string
		work         step.Work
		workH, waitH float64
	}{{"drill-cleat", step.Other, 0.4, 16}, {"bed-cleat", step.Bed, 0.5, 48}, {"second-cleat", step.Tighten, 0.15, 504},
		{"third-cleat", step.Tighten, 0.15, 0}}
	require.Len(t, got["d"], len(want))
	for i, c := range want {
		s := got["d"][i]
		assert.Equal(t, c.key, s.Key)
		assert.Equal(t, c.work, s.Work, c.key)
		assert.InDelta(t, c.workH, s.WorkH, 1e-12, c.key)
		assert.InDelta(t, c.waitH, s.WaitH, 1e-9, c.key)
	}
	assert.True(t, got["d"][0].Early)
	line := got["h"][0]
	assert.Equal(t, []float64{18, 18, 120}, []float64{line.Amount, line.TapeM, line.TapeH})
	assert.Equal(t, step.Hard, line.Pull)

	cleat.Sealed, cleat.BeddedAt, cleat.SnuggedAt = true, in(-60), in(-1)
	tape.Twice = false
	off := tape
	off.Off = true
	got = Work{Hardware: []Hardware{cleat, {Name: "nowhere"}}, Lines: []Line{tape, off}}.Steps(Case{TempC: 20})
	assert.Equal(t, "third-cleat", got["d"][0].Key)
	assert.Len(t, got["d"], 1)
	assert.Len(t, got["h"], 1)
	assert.InDelta(t, 9, got["h"][0].TapeM, 1e-12)
}

func TestWhatIsSaidOfHoles(t *testing.T) {
	for says, h := range map[string]Hardware{
		"Cored there": {Core: Foam}, "Solid there": {Core: Solid}, "Say what lies": {}, "End grain drinks": {EndGrain: true},
		"with a plate behind": {Through: true, Backed: true}, "with nothing behind": {Through: true}, "wants bolts through": {Backed: true},
	} {
		found := false
		for _, s := range h.advice() {
			found = found || strings.Contains(s.String(), says)
		}
		assert.True(t, found, says)
	}
	assert.Len(t, Hardware{Core: Solid}.advice(), 1)
}
