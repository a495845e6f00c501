package app

import (
	"context"
	"time"

	"allcoats/core/conditions/climate"
	"allcoats/core/conditions/field"
	"allcoats/core/conditions/readiness"
	"allcoats/core/physics/weather"
)

// Chances are the best starts of the week for every coat that waits.
type Chances struct {
	Place   Place `json:"place"`
	Futures int   `json:"futures"`
	// Known is the end of the forecast; beyond it the climate of the place counts.
	Known  time.Time          `json:"known"`
	Coats  []readiness.Best   `json:"coats"`
	WetDay []readiness.Indoor `json:"wetDay"`
}

// maxFutures is the most futures that are played at once.
const maxFutures = 5000

// waitFutures is in how many of them tomorrow's forecast is played too.
const waitFutures = 200

// futuresSeed makes odds that do not change from one look to the next.
const futuresSeed = 1

// Chances plays n futures at every coat that waits. told may be nil; when ctx ends the
// work stops with its error.
func (a *App) Chances(ctx context.Context, boatID string, n int, told func(done float64)) (Chances, error) {
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Chances{}, err
	}
	if err := a.plan(ctx, &o); err != nil {
		return Chances{}, err
	}
	n = max(50, min(n, maxFutures))
	f := climate.Ensemble{Futures: o.futures(), N: n, Seed: futuresSeed}
	waiting := o.s.Waiting()
	asks := make([]climate.Ask, len(waiting))
	for i, w := range waiting {
		asks[i] = w.Ask
	}
	odds, err := o.boat.Chances(ctx, o.climate, f, asks, told)
	if err != nil {
		return Chances{}, err
	}
	between := make([]climate.Span, len(waiting))
	for i, w := range waiting {
		between[i].From = w.From
		if w.Closes != nil {
			between[i].To = *w.Closes
		}
	}
	f.N = min(n, waitFutures)
	waits, err := o.boat.Waits(ctx, o.climate, f, asks, between)
	if err != nil {
		return Chances{}, err
	}
	takenIn := map[string]bool{}
	for _, s := range o.survey.Surfaces {
		takenIn[s.ID] = s.Part.Info().Portable
	}
	return Chances{o.survey.Place, n, f.Known(), o.s.BestChances(waiting, odds, waits, f.Known()), o.s.WetDay(takenIn)},
		nil
}

// futures makes the futures of the ten days from now.
func (o boatState) futures() weather.Futures {
	return weather.NewFutures(o.climate.Open, o.now, 10*24*time.Hour, o.survey.Place.habits())
}

// Verdict is when one product may go on one surface of a boat.
type Verdict struct {
	Ribbon  Ribbon       `json:"ribbon"`
	Place   Place        `json:"place"`
	Product Product      `json:"product"`
	Field   field.Result `json:"field"`
	// Inside are the hours in the tent, if one is described, for the path of its
	// air over the product's field.
	Inside []AirPoint `json:"inside"`
}

// AirPoint is the air at an instant.
type AirPoint struct {
	At       time.Time `json:"at"`
	TempC    float64   `json:"tempC"`
	RHPct    float64   `json:"rhPct"`
	Measured bool      `json:"measured"`
}

// VerdictQuery asks for a verdict.
type VerdictQuery struct{ SurfaceID, ProductID, Method string }

// Verdict judges every hour for a product on a surface, from now to the end of
// the weather known. Without a surface a square metre in the open is meant.
func (a *App) Verdict(ctx context.Context, boatID string, ask VerdictQuery) (Verdict, error) {
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Verdict{}, err
	}
	p, err := a.Product(ctx, ask.ProductID)
	if err != nil {
		return Verdict{}, err
	}
	job, f, err := o.fieldJob(o.graded(ask.SurfaceID, ask.ProductID), ask)
	if err != nil {
		return Verdict{}, err
	}
	out := Verdict{Ribbon: o.ribbon(ask.SurfaceID), Place: o.survey.Place, Product: p, Inside: []AirPoint{}}
	_, end, _ := f.Weather.Air.Span()
	out.Field = job.Judge(f.Weather, o.now, end)
	if o.climate.Tent != nil {
		for _, h := range o.climate.Tent.Air.Between(out.Ribbon.From, out.Ribbon.To) {
			out.Inside = append(out.Inside, AirPoint{h.At, h.TempC, h.RHPct, h.Measured})
		}
	}
	return out, nil
}
