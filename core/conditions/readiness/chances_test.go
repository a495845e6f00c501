package readiness

import (
	"testing"
	"time"

	"allcoats/core/conditions/climate"
	"allcoats/core/conditions/clock"
	wetness "allcoats/core/exposure/surface"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// odds are p for a start at each hour of the week from now.
func odds(p func(i int) float64) climate.Odds {
	var o climate.Odds
	for i := range 7 * 24 {
		o.At = append(o.At, now.Add(time.Duration(i)*time.Hour))
		o.P = append(o.P, p(i))
	}
	return o
}

func TestWaitingCoats(t *testing.T) {
	sanded := laid(30)
	at := now.Add(-time.Hour)
	sanded.Abraded = &at
	s := situation(nil, surface("Bare", nil, coat(1, 2)), surface("Curing", laid(1), coat(2, 2)),
		surface("Open", laid(5), coat(2, 2)), surface("Sanded", sanded, coat(2, 2)), surface("Done", laid(9), nil))
	w := s.Waiting()
	require.Len(t, w, 4, "what is done waits for nothing")
	assert.Equal(t, now, w[0].From)
	assert.Nil(t, w[0].Closes)
	assert.Equal(t, now.Add(2*time.Hour), w[1].From, "three hours after it was laid")
	assert.Equal(t, now, w[2].From)
	require.NotNil(t, w[2].Closes)
	assert.WithinDuration(t, now.Add(19*time.Hour), *w[2].Closes, time.Minute)
	assert.Nil(t, w[3].Closes, "sanded: no window to miss")
}

func TestTheThreeBestChancesOfTheWeek(t *testing.T) {
	s := situation(nil, surface("Deck", laid(5), coat(2, 2)))
	w := s.Waiting()
	got := s.BestChances(w, []climate.Odds{odds(func(i int) float64 {
		switch {
		case i >= 2 && i < 5: // today, 10 to 12
			return 0.62
		case i >= 26 && i < 28: // tomorrow
			return 0.9
		case i >= 50 && i < 60:
			return 0.4
		case i >= 74 && i < 80:
			return 0.3
		}
		return 0.01
	})}, []climate.Waited{{Then: 0.99}}, now.Add(60*time.Hour))
	require.Len(t, got, 1)
	require.Len(t, got[0].Options, 3)
	assert.Equal(t, []float64{90, 62, 40}, []float64{got[0].Options[0].ChancePct, got[0].Options[1].ChancePct,
		got[0].Options[2].ChancePct}, "the best first, one a day")
	assert.True(t, got[0].Options[0].Sand, "its window closes tomorrow at three in the morning")
	assert.False(t, got[0].Options[1].Sand)
	assert.True(t, got[0].Options[0].Forecast)
	assert.NotNil(t, got[0].Options[1].Nearest)
	assert.Equal(t, "Deck: best for high-build primer, coat 2 of 2 is Sunday 10:00 to 11:00, 90 %, after sanding.",
		got[0].Sentence.In(time.UTC))

	assert.Equal(t,
		"Wait for tomorrow's forecast, if nothing presses: the start that it makes best holds 99 % of the time, the best before it 62 %.", got[0].Wait.String())

	none := s.BestChances(w, []climate.Odds{odds(func(int) float64 { return 0.02 })}, []climate.Waited{{}}, now)
	assert.Empty(t, none[0].Options)
	assert.Equal(t, "Deck: no chance for high-build primer, coat 2 of 2 this week.", none[0].Sentence.In(time.UTC))
	today := s.BestChances(w, []climate.Odds{odds(func(i int) float64 {
		if i == 3 {
			return 0.8
		}
		return 0
	})}, []climate.Waited{{Then: 0.3}}, now.Add(time.Hour))
	assert.Empty(t, none[0].Wait)
	assert.Contains(t, today[0].Wait.String(), "Do not wait")
	assert.Nil(t, worth(0.8, climate.Waited{None: true}), "it has to be on before")
	assert.Contains(t, worth(0.8, climate.Waited{Then: 0.78}).String(), "changes little")
	assert.Contains(t, today[0].Sentence.In(time.UTC), "is today 11:00")
	assert.False(t, today[0].Options[0].Forecast, "beyond the forecast")
	assert.Nil(t, today[0].Options[0].Nearest)
}

func TestWetDay(t *testing.T) {
	under, hatch, open := surface("Cockpit", nil, coat(1, 2)), surface("Hatch", nil, coat(1, 1)),
		surface("Hull", nil, coat(1, 1))
	under.Sheltered = true
	open.Next.Sheet.Example = true
	list := situation(nil, under, hatch, open).WetDay(map[string]bool{"Hatch": true})
	require.Len(t, list, 4)
	assert.Contains(t, list[0].Text.String(), "Cockpit: is under cover; high-build primer, coat 1 of 2")
	assert.Contains(t, list[1].Text.String(), "Hatch: take it under cover")
	assert.Contains(t, list[2].Text.String(), "Enter the data sheet of test primer")
	assert.Contains(t, list[3].Text.String(), "Count the shelf")
}

// May I coat over it? Answered from the clock and what of it was measured.
func TestRecoatAnswers(t *testing.T) {
	for _, c := range []struct {
		ago  float64
		want string
	}{
		{1, "No coat before 10:00, then without sanding until Sunday 07:00."},
		{5, "Yes, without sanding, until Sunday 03:00."},
		{30, "Sand first: its window closed 02:00."},
	} {
		s := situation(nil, surface("Hull", laid(c.ago), coat(2, 2)))
		k := clock.Run(*s.Surfaces[0].Last, s.Surfaces[0].Next.Sheet.Kind, s.Surfaces[0].Weather, now)
		assert.Equal(t, c.want, s.recoat(k).In(time.UTC))
		assert.Equal(t, c.want+" 100 % of the hours since are on record.", Find(s).Lanes[0].Recoat.In(time.UTC))
	}
	never := laid(5)
	never.Sheet.Recoat[0].Max, never.Sheet.Recoat[0].NeverCloses = nil, true
	s := situation(nil, surface("Hull", never, coat(2, 2)))
	assert.Contains(t, s.recoat(clock.Run(*never, "any", s.Surfaces[0].Weather, now)).In(time.UTC),
		"its window does not close")
	bare := laid(5)
	bare.Sheet.Recoat = nil
	assert.Equal(t, "The sheet has no recoat table.", s.recoat(clock.Run(*bare, "any", s.Surfaces[0].Weather, now)).In(
		time.UTC))
}

func TestDewGoesOff(t *testing.T) {
	s := situation(nil, surface("Port", nil, coat(1, 1)), surface("Starboard", nil, coat(1, 1)),
		surface("Deck", nil, coat(1, 1)))
	wet := func(to time.Duration, rain bool) []wetness.Wet {
		return []wetness.Wet{{From: now.Add(-time.Hour), To: now.Add(to), Rain: rain}}
	}
	assert.Empty(t, s.dry())
	s.Surfaces[0].Weather.Wet = wet(3*time.Hour, false)
	s.Surfaces[1].Weather.Wet = wet(140*time.Minute, false)
	assert.Equal(t, "Dew off Starboard by 10:20, Port by 11:00.", s.dry().In(time.UTC), "the first to dry first")
	s.Surfaces[2].Weather.Wet = wet(4*time.Hour, true)
	assert.Equal(t, "Dry: Starboard by 10:20, Port by 11:00, Deck by 12:00.", s.dry().In(time.UTC))
}

func TestHarmIsSaid(t *testing.T) {
	s := situation(func(i int, h *weather.Hour) {
		if i >= 0 && i < 3 {
			h.TempC = -1
		}
	}, surface("Hull", laid(0.5), coat(2, 2)))
	a := Find(s)
	require.NotEmpty(t, a.Lanes[0].Damage)
	said := ""
	for _, d := range a.Lanes[0].Damage {
		said += d.In(time.UTC) + "\n"
	}
	assert.Contains(t, said, "frost before it was tack-free")
}
