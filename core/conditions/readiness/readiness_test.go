package readiness

import (
	"testing"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	wet "allcoats/core/exposure/surface"
	"allcoats/core/film/step"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The morning of a June day in UTC, all figures invented.
var now = time.Date(2026, 6, 6, 8, 0, 0, 0, time.UTC)

func num(v float64) *float64 { return &v }

func at20(h float64) cure.Table { return cure.Table{{TempC: 10, Hours: 2 * h}, {TempC: 20, Hours: h}} }

func sheet() product.Sheet {
	return product.Sheet{
		Name: "test primer", Kind: product.HighBuild, VolumeSolidsPct: 50, Film: product.Film{MinUm: 50, TypicalUm: 100,
			MaxUm: 150},
		MinCureC: 5, TouchDry: at20(1), Sandable: at20(3), PotLife: at20(2),
		Limits: product.Limits{AirMinC: num(12), HoldH: 2, RainFreeH: 3},
		Recoat: []product.Recoat{{Over: product.AnyKind, Min: at20(3), Max: at20(24)}},
	}
}

// situation has 20 °C and dry air for days, changed by edit hour by hour
// (0 is now).
func situation(edit func(hour int, h *weather.Hour), surfaces ...Surface) Situation {
	var air weather.Series
	for i := -48; i <= 96; i++ {
		h := weather.Hour{At: now.Add(time.Duration(i) * time.Hour), TempC: 20, RHPct: 50, RainMM: num(0),
			Measured: i <= 0}
		if edit != nil {
			edit(i, &h)
		}
		air = append(air, h)
	}
	w := field.Weather{Air: air}
	for _, h := range air {
		w.SurfaceC = append(w.SurfaceC, h.TempC)
	}
	for i := range surfaces {
		surfaces[i].Weather = w
	}
	return Situation{Now: now, Loc: time.UTC, Lights: true, Air: air, Surfaces: surfaces}
}

func coat(n, of int) *Coat {
	return &Coat{Step: step.Step{Work: step.Coat, Sheet: sheet(), DFTUm: 100, LossPct: 10, Method: "roller"}, N: n,
		Of: of, AreaM2: 12, LayH: 1, Litres: 12. / 5 / 0.9}
}

func surface(name string, last *clock.Laid, next *Coat) Surface {
	return Surface{ID: name, Name: name, AreaM2: 12, Last: last, Next: next, Planned: true}
}

func laid(hoursAgo float64) *clock.Laid {
	return &clock.Laid{Sheet: sheet(), Started: now.Add(-time.Duration(hoursAgo * float64(time.Hour)))}
}

func TestNowUntilTheCold(t *testing.T) {
	// Below 12 °C from 14:00: laying takes 1 h and the field must hold 2 h more.
	s := situation(func(i int, h *weather.Hour) {
		if i >= 6 {
			h.TempC = 11.9
		}
	}, surface("Deck", nil, coat(1, 1)))
	a := Find(s)
	require.Len(t, a.Lanes, 1)
	assert.Equal(t, Now, a.Lanes[0].Chance)
	assert.Equal(t, "Deck: high-build primer may go on now, until 10:59.",
		a.Headline.In(time.UTC)) // crosses 12 °C at 13:59:15
	assert.Equal(t, "After that the air is below 12 °C from 13:59, inside the 2 h it must hold.", a.Detail.In(time.UTC))
	assert.InDelta(t, 12./5/0.9, a.Lanes[0].Mix.Litres, 1e-9)
	assert.InDelta(t, 200, a.Lanes[0].Mix.WFTUm, 1e-9)
	assert.InDelta(t, 2, *a.Lanes[0].Mix.PotLifeH, 1e-9)
}

func TestRainCutsTheDay(t *testing.T) {
	s := situation(func(i int, h *weather.Hour) {
		if i == 6 {
			h.RainMM = num(2)
		}
	}, surface("Deck", nil, coat(1, 2)))
	a := Find(s)
	assert.Equal(t, "Deck: high-build primer may go on now, until 10:00. Two coats fit: the second from 15:00.",
		a.Headline.In(time.UTC))
	assert.Equal(t, "After that the rain of 14:00 falls inside the 3 h it must stay dry.", a.Detail.In(time.UTC))
}

func TestWaitsForTheCoatBelow(t *testing.T) {
	a := Find(situation(nil, surface("Hull", laid(1), coat(2, 2))))
	l := a.Lanes[0]
	assert.Equal(t, Today, l.Chance)
	assert.Equal(t, clock.Tacking, l.Clock.State)
	assert.Contains(t, l.Answer.In(time.UTC), "may go on from 10:00") // 3 h after 07:00
	assert.Contains(t, l.Detail.In(time.UTC), "Before that the last coat is not ready")
}

func TestClosedWindowMeansSandingFirst(t *testing.T) {
	a := Find(situation(nil, surface("Hull", laid(30), coat(2, 2))))
	assert.Contains(t, a.Headline.In(time.UTC), "may go on after sanding now")
	assert.True(t, a.Lanes[0].Starts[0].Sand)

	sanded := laid(30)
	at := now.Add(-time.Hour)
	sanded.Abraded = &at
	a = Find(situation(nil, surface("Hull", sanded, coat(2, 2))))
	assert.Contains(t, a.Headline.In(time.UTC), "may go on now")
	assert.False(t, a.Lanes[0].Starts[0].Sand)
}

func TestClosingWindowComesFirst(t *testing.T) {
	a := Find(situation(nil, surface("Deck", nil, coat(1, 1)), surface("Hull", laid(18), coat(2, 2))))
	assert.Equal(t, "Hull", a.SurfaceID)
	require.Len(t, a.Lanes[1].Starts, 2, "before and after it closes")
	assert.Contains(t, a.Detail.In(time.UTC), "After that it must be sanded first")
	// Both may begin now; the one that closes at 14:00 is also warned of.
	require.Len(t, a.Actions, 3)
	assert.WithinDuration(t, now.Add(6*time.Hour), a.Actions[2].At, time.Second)
}

func TestNotToday(t *testing.T) {
	s := situation(func(i int, h *weather.Hour) {
		if i < 30 {
			h.TempC = 8
		}
	}, surface("Deck", nil, coat(1, 1)))
	a := Find(s)
	assert.Equal(t, Later, a.Lanes[0].Chance)
	assert.Contains(t, a.Headline.In(time.UTC), "Deck: not today; high-build primer may go on from Sunday 13:")
	assert.Contains(t, a.Detail.In(time.UTC), "Before that the air is below 12 °C")
	assert.Empty(t, a.Actions)
}

func TestNoChance(t *testing.T) {
	s := situation(func(_ int, h *weather.Hour) {
		h.TempC = 8
	}, surface("Deck", nil, coat(1, 1)), surface("Hull", laid(2), coat(2, 2)))
	a := Find(s)
	assert.Equal(t, NoChance, a.Lanes[0].Chance)
	assert.Equal(t, "No coat may go on within the forecast.", a.Headline.In(time.UTC))
	assert.Contains(t, a.Lanes[0].Detail.In(time.UTC), "the air is below 12 °C")
}

func TestSilences(t *testing.T) {
	bare := laid(2)
	bare.Sheet.Recoat = nil
	for _, c := range []struct {
		name     string
		s        Situation
		chance   Chance
		headline string
	}{
		{"nothing planned", situation(nil, Surface{ID: "a", Name: "Deck"}), Unplanned, "No coats are planned yet."},
		{"all on", situation(nil, surface("Deck", laid(3), nil)), Finished, "All planned coats are on."},
		{"no recoat table", situation(nil, surface("Deck", bare, coat(2, 2))), NotKnown, "Cannot tell what may go on."},
		{"no weather", Situation{Now: now, Loc: time.UTC, Surfaces: []Surface{surface("Deck", nil, coat(1, 1))}},
			NotKnown, "Cannot tell what may go on."},
	} {
		a := Find(c.s)
		assert.Equal(t, c.headline, a.Headline.In(time.UTC), c.name)
		assert.Equal(t, c.chance, a.Lanes[0].Chance, c.name)
	}
	assert.Contains(t, Find(situation(nil)).Headline.In(time.UTC), "no surfaces yet")
	old := situation(nil, surface("Deck", nil, coat(1, 1)))
	old.Now = now.Add(300 * time.Hour)
	assert.Contains(t, Find(old).Warnings[0].String(), "ended before now")
}

// A coat over work that is not done is not offered, and another surface leads.
func TestWhatComesFirst(t *testing.T) {
	bottom := surface("Bottom", nil, coat(1, 5))
	bottom.First = []Prep{{Name: message.Of("strip"), LeftH: 29}, {Name: message.Of("sand with 80")}}
	a := Find(situation(nil, bottom))
	assert.Equal(t, "Bottom: strip (29 h), sand with 80 first, then high-build primer.", a.Lanes[0].Answer.In(time.UTC))
	assert.Equal(t, Unprepared, a.Lanes[0].Chance)
	assert.Empty(t, a.Lanes[0].Starts)
	assert.Nil(t, a.Lanes[0].Mix)
	assert.Contains(t, a.Headline.In(time.UTC), "Bottom: strip (29 h), sand with 80 first")
	require.Len(t, a.Actions, 1, "strip, and nothing to mix")
	both := Find(situation(nil, bottom, surface("Deck", nil, coat(1, 1))))
	assert.Equal(t, "Deck", both.SurfaceID)
}

// Rain at 17:00 on a coat that is touch-dry at 18:00 comes before everything else, with
// what to do; once it has rained nothing goes over it.
func TestCoverBeforeTheRain(t *testing.T) {
	slow := laid(1)
	slow.Sheet.TouchDry = at20(11) // 18:00
	keel := surface("Keel", slow, coat(2, 2))
	s := situation(nil, surface("Deck", nil, coat(1, 1)), keel)
	rain := []wet.Wet{{From: now.Add(9 * time.Hour), To: now.Add(11 * time.Hour), Rain: true}}
	s.Surfaces[1].Weather.Wet = rain
	a := Find(s)
	assert.Equal(t, "Cover Keel before 17:00: rain on high-build primer that is not dry until 18:00.",
		a.Headline.In(time.UTC))
	assert.Contains(t, a.Detail.In(time.UTC), "If it is hit: ")
	assert.Equal(t, "Keel", a.SurfaceID)
	s.Now = now.Add(12 * time.Hour)
	a = Find(s)
	assert.Equal(t, Harmed, a.Lanes[1].Chance)
	assert.Equal(t,
		"Keel: inspect the high-build primer before anything goes over it: rain on it while it was wet, 17:00.",
		a.Lanes[1].Answer.In(time.UTC))
	assert.Empty(t, a.Lanes[1].Starts)
	assert.Contains(t, a.Lanes[1].Recoat.In(time.UTC), "No: it was hit while wet")
	look := now.Add(11*time.Hour + 30*time.Minute)
	s.Surfaces[1].Last.Inspected = &look
	assert.NotEqual(t, Harmed, Find(s).Lanes[1].Chance)
}

// A coat on which amine blush is likely is washed before the next one, and before it is sanded.
func TestABlushedCoatIsWashedFirst(t *testing.T) {
	old := laid(20)
	old.Sheet.Blushes = true
	s := situation(nil, surface("Hull", old, coat(2, 2)))
	w := &s.Surfaces[0].Weather
	for i, h := range w.Air {
		if d := h.At.Sub(old.Started).Hours(); d > 0 && d < 3 {
			w.Air[i].RHPct = 97
		}
	}
	l := Find(s).Lanes[0]
	require.NotNil(t, l.Clock.Blush)
	assert.Contains(t, l.Answer.In(time.UTC), "may go on after a wash with warm water")
	assert.Contains(t, l.Recoat.In(time.UTC), "Wash it with warm water first: amine blush is likely. Closing")
	washed := now.Add(-time.Hour)
	s.Surfaces[0].Last.Washed = &washed
	l = Find(s).Lanes[0]
	assert.Nil(t, l.Clock.Blush)
	assert.NotContains(t, l.Answer.In(time.UTC), "wash")
}

// A window that lies across hours nobody knows is not said to be open.
func TestNotKnownSandFirst(t *testing.T) {
	old := laid(40)
	s := situation(nil, surface("Hull", old, coat(2, 2)))
	w := &s.Surfaces[0].Weather
	w.Air, w.SurfaceC = append(w.Air[:12:12], w.Air[42:]...), append(w.SurfaceC[:12:12], w.SurfaceC[42:]...)
	l := Find(s).Lanes[0]
	assert.Equal(t, clock.Unknown, l.Clock.State)
	assert.Contains(t, l.Recoat.In(time.UTC), "Not known: sand first. ")
	assert.Contains(t, l.Answer.In(time.UTC), "after sanding")
}

// A surface that falls from 20 °C at 19:00 to 8 °C at 20:00 in air of 20 °C and 60 %, dew
// point 12.0 °C, meets it after two thirds of that hour.
func TestTheNightAhead(t *testing.T) {
	s := situation(func(i int, h *weather.Hour) { h.RHPct = 60 }, surface("Deck", nil, coat(1, 1)))
	for i := range s.Surfaces[0].Weather.SurfaceC {
		if i >= 48+12 {
			s.Surfaces[0].Weather.SurfaceC[i] = 8
		}
	}
	l := Find(s).Lanes[0]
	assert.Equal(t, "Laid by 09:00 it stays above the dew point until 19:40, 10.6 h; 2 h are needed by the sheet.",
		l.Night.In(time.UTC))
	s.DewFreeH = 14
	assert.Contains(t, Find(s).Lanes[0].Night.In(time.UTC), "14 h are needed by your habit")
}

// With nothing left to do the slowest of all films tells from when it may stand in water.
func TestAllCoatsAreOnAndHarden(t *testing.T) {
	under, over := *laid(10), *laid(5)
	under.Sheet.Name, under.Sheet.Immersion, over.Sheet.Immersion = "under", at20(60), at20(20)
	f := surface("Bottom", &over, nil)
	f.Films, f.Immersed = []clock.Laid{under, over}, true
	l := Find(situation(nil, f)).Lanes[0]
	assert.Equal(t, "May be immersed from Monday 10:00; under is slowest.", l.Detail.In(time.UTC))
	f.Films[0].Sheet.Immersion = nil
	assert.Contains(t, Find(situation(nil, f)).Lanes[0].Detail.In(time.UTC),
		"is not known: the sheet of under does not say")
}

// Bare metal that must be primed within the day is told with its hour and its price; the
// plan's head leads, held back where a bench stops it or other work comes first.
func TestTheHeadOfThePlan(t *testing.T) {
	side, deck := surface("Side", nil, coat(1, 2)), surface("Deck", nil, coat(1, 1))
	side.Next.TaskID, deck.Next.TaskID = "side#1", "deck#1"
	side.Limits = []Limit{{Name: "bare metal", Until: message.Lit("metal primer"), By: now.Add(5 * time.Hour),
		Breaks: message.Lit("it rusts")}}
	s := situation(nil, side, deck)
	s.HoursSaid = true
	s.Plan = []Planned{
		{TaskID: "own", Whole: "own", What: message.Of("Rewire"), Start: now, End: now.Add(2 * time.Hour), Hours: 2,
			People: []string{"Ada"}},
		{TaskID: "side#1", Whole: "side#1", SurfaceID: "Side", Surface: "Side", Coat: true,
			Start: now.Add(2 * time.Hour), End: now.Add(3 * time.Hour)},
		{TaskID: "deck#1", Whole: "deck#1", SurfaceID: "Deck", Surface: "Deck", Coat: true, Start: now.AddDate(0, 0, 3),
			End: now.AddDate(0, 0, 3).Add(time.Hour), Before: []message.Sentence{message.Of("Side, primer")}},
	}
	a := Find(s)
	assert.Equal(t, "Rewire, now to 10:00: Ada.", a.Headline.In(time.UTC))
	assert.Equal(t, Blocked, a.Lanes[1].Chance)
	assert.Regexp(t, "^Deck: first Side, primer; high-build primer not before ", a.Lanes[1].Answer.In(time.UTC))
	var texts []string
	for _, act := range a.Actions {
		texts = append(texts, act.Text.In(time.UTC))
	}
	assert.Contains(t, texts, "Side, bare metal: metal primer by 13:00, or it rusts.")
	s.Plan[1].Start, s.Plan[1].End = now.AddDate(0, 0, 2), now.AddDate(0, 0, 2).Add(time.Hour)
	s.Plan = s.Plan[1:]
	a = Find(s)
	assert.Equal(t, Later, a.Lanes[0].Chance, "nobody has the hours today")
	assert.Regexp(t, "^Nothing to begin today. Next is Side: , ", a.Headline.In(time.UTC))
	s.HoursSaid = false
	assert.Equal(t, Now, Find(s).Lanes[0].Chance, "assumed hours hold nothing back")
	s.Surfaces[0].Stop = message.Lit("silicone below")
	a = Find(s)
	assert.Equal(t, Blocked, a.Lanes[0].Chance)
	assert.Contains(t, a.Lanes[0].Answer.In(time.UTC), "not high-build primer yet. silicone below")
}

// The log leads with the clock that presses: damage, then what closes, then the soonest end.
func TestTheClockThatPresses(t *testing.T) {
	said := func(all ...Surface) string { return Find(situation(nil, all...)).Clocks.In(time.UTC) }
	assert.Equal(t, "Add her surfaces in Survey first: work is logged on them.", said())
	assert.Equal(t, "No clock runs: log what is done next.", said(surface("Deck", nil, coat(1, 1))))
	fresh, old := surface("Deck", laid(1), coat(2, 2)), surface("Hull", laid(18), coat(2, 2))
	assert.Regexp(t, "^Hull: closing: without sanding only until ", said(fresh, old))
	assert.Regexp(t, "^Deck: no coat before 10:00, then without sanding until Sunday 07:00.$", said(fresh, surface("Cabin", laid(30), coat(2, 2))))
	done := old
	done.Next = nil
	assert.Regexp(t, "^Deck: ", said(fresh, done), "where all coats are on nothing presses")
}
