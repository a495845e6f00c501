package app

import (
	"context"
	"time"

	"allcoats/core/conditions/climate"
	"allcoats/core/conditions/field"
)

// Correction is what the local loggers do to a place's forecast.
type Correction struct {
	// Learned is from how many hours of readings, 0 if there is no logger in the open.
	Learned int              `json:"learned"`
	Hours   []CorrectionHour `json:"hours"`
	Effects []CorrectedCoat  `json:"effects"`
}

// CorrectionHour is an hour before and after, and what was read.
type CorrectionHour struct {
	At       time.Time `json:"at"`
	BeforeC  float64   `json:"beforeC"`
	AfterC   float64   `json:"afterC"`
	BeforeRH float64   `json:"beforeRHPct"`
	AfterRH  float64   `json:"afterRHPct"`
	Measured bool      `json:"measured"`
}

// CorrectedCoat is the next start of a coat that waits, without and with the
// correction.
type CorrectedCoat struct {
	SurfaceID string     `json:"surfaceId"`
	Surface   string     `json:"surface"`
	Before    *time.Time `json:"before,omitempty"`
	After     *time.Time `json:"after,omitempty"`
	BeforeH   float64    `json:"beforeH"` // hours of starts
	AfterH    float64    `json:"afterH"`
}

// Correction tells what the readings at a boat's place do to its forecast and to
// the starts of her coats.
func (a *App) Correction(ctx context.Context, boatID string) (Correction, error) {
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Correction{}, err
	}
	out := Correction{Learned: o.climate.Correction.N, Hours: []CorrectionHour{}, Effects: []CorrectedCoat{}}
	for i, h := range o.boat.Air {
		if h.At.Before(o.now.Add(-back)) || h.At.After(o.now.Add(ahead)) {
			continue
		}
		c := o.climate.Open[i]
		out.Hours = append(out.Hours, CorrectionHour{h.At, h.TempC, c.TempC, h.RHPct, c.RHPct, !h.At.After(o.now)})
	}
	raw := o.boat
	raw.Instruments = nil
	bare := climate.Of(raw)
	_, end, ok := o.s.Air.Span()
	if !ok {
		return out, nil
	}
	for _, w := range o.s.Waiting() {
		e := CorrectedCoat{SurfaceID: w.Surface.ID, Surface: w.Surface.Name}
		e.Before, e.BeforeH = starts(w.Ask.Job.Windows(bare.Surface[w.Surface.ID], w.From, end))
		e.After, e.AfterH = starts(w.Ask.Job.Windows(w.Surface.Weather, w.From, end))
		out.Effects = append(out.Effects, e)
	}
	return out, nil
}

// starts are the first start of windows and their length in all.
func starts(windows []field.Window) (first *time.Time, hours float64) {
	for i, w := range windows {
		if i == 0 {
			first = &windows[0].From
		}
		hours += w.To.Sub(w.From).Hours()
	}
	return first, hours
}
