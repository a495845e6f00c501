package field

import (
	"time"

	"allcoats/core/physics/weather"
)

// Free are instants at which light and working hours allow laying, or do not.
type Free struct {
	at []time.Duration
	ok []bool
}

// Free tells for each instant whether light and working hours allow laying.
func (j Job) Free(at []time.Time) Free {
	out := Free{make([]time.Duration, len(at)), make([]bool, len(at))}
	for i, t := range at {
		out.at[i] = time.Duration(t.Unix()) * time.Second
		out.ok[i] = (j.Lights || j.lit(t)) && (j.Work == nil || j.atWork(t))
	}
	return out
}

// At reports whether laying is allowed at instant i; past the last it is.
func (f Free) At(i int) bool { return i >= len(f.ok) || f.ok[i] }

// Starts tells for each record of hourly weather whether a coat may start
// there: Windows looked at on whole hours only, for weather in great numbers.
// free is what Free gives for the records.
func (j Job) Starts(w Weather, free Free) []bool {
	n := len(w.Air)
	out := make([]bool, n)
	// The next record from i on at which each thing fails, n if none does; the
	// weather beyond the record is not known, so that fails too.
	badField, badLaying, badRain := n, n, n
	wetAt := len(w.Wet) - 1
	at, windy := free.at, j.windy()
	// What fails at a record may have failed since just after the one before.
	before := func(i, bad int, reach time.Duration) bool {
		return bad == i || bad < n && at[bad]-at[i]-time.Hour < reach || bad == n && at[n-1]-at[i] < reach
	}
	for i := n - 1; i >= 0; i-- {
		h := &w.Air[i]
		if i+1 < n && at[i+1]-at[i] > weather.MaxGap {
			badField = i + 1
		}
		if !j.Limits.Keep(h.TempC, h.RHPct, w.dewC(i), w.SurfaceC[i]) {
			badField = i
		}
		if h.RainMM != nil && *h.RainMM > dry && !j.Sheltered {
			badRain = i
		}
		if !free.ok[i] {
			badLaying = i
			continue
		}
		for wetAt >= 0 && w.Wet[wetAt].From.After(h.At) {
			wetAt--
		}
		isWet := wetAt >= 0 && w.Wet[wetAt].To.After(h.At)
		if isWet || windy && (h.WindMS == nil || j.wind(*h.WindMS).Margin < 0) {
			badLaying = i
		}
		out[i] = !before(i, badField, j.Apply+j.Hold) && !before(i, badLaying, j.Apply) &&
			!before(i, badRain, j.Apply+j.Dry-time.Hour)
	}
	return out
}
