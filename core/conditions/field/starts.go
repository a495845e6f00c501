package field

import (
	"time"

	"allcoats/core/physics/weather"
)

// Free tells for each instant whether light and working hours allow laying.
func (j Job) Free(at []time.Time) []bool {
	out := make([]bool, len(at))
	for i, t := range at {
		out[i] = (j.Lights || j.lit(t)) && (j.Work == nil || j.atWork(t))
	}
	return out
}

// Starts tells for each record of hourly weather whether a coat may start
// there: Windows looked at on whole hours only, for weather in great numbers.
// free is what Free gives for the records.
func (j Job) Starts(w Weather, free []bool) []bool {
	n := len(w.Air)
	out := make([]bool, n)
	// The next record from i on at which each thing fails, n if none does; the
	// weather beyond the record is not known, so that fails too.
	badField, badLaying, badRain := n, n, n
	wetAt := len(w.Wet) - 1
	at := make([]time.Duration, n)
	for i, h := range w.Air {
		at[i] = time.Duration(h.At.Unix()) * time.Second
	}
	for i := n - 1; i >= 0; i-- {
		h := w.Air[i]
		if i+1 < n && at[i+1]-at[i] > weather.MaxGap {
			badField = i + 1
		}
		if !j.Limits.Keep(h.TempC, h.RHPct, w.dewC(i), w.SurfaceC[i]) {
			badField = i
		}
		if h.RainMM != nil && *h.RainMM > dry && !j.Sheltered {
			badRain = i
		}
		for wetAt >= 0 && w.Wet[wetAt].From.After(h.At) {
			wetAt--
		}
		isWet := wetAt >= 0 && w.Wet[wetAt].To.After(h.At)
		if !free[i] || isWet || j.windy() && (h.WindMS == nil || j.wind(*h.WindMS).Margin < 0) {
			badLaying = i
		}
		// What fails at a record may have failed since just after the one before.
		before := func(bad int, reach time.Duration) bool {
			return bad == i || bad < n && at[bad]-at[i]-time.Hour < reach || bad == n && at[n-1]-at[i] < reach
		}
		out[i] = !before(badField, j.Apply+j.Hold) && !before(badLaying, j.Apply) &&
			!before(badRain, j.Apply+j.Dry-time.Hour)
	}
	return out
}
