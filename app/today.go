package app

import (
	"context"
	"time"

	"allcoats/core/clock"
	"allcoats/core/fault"
	"allcoats/core/field"
	"allcoats/core/film"
	"allcoats/core/product"
	"allcoats/core/sky"
	"allcoats/core/today"
	"allcoats/core/weather"
	"allcoats/store"
)

// Ribbon is the stretch of time that a screen draws: weather and daylight
// around now.
type Ribbon struct {
	Now   time.Time  `json:"now"`
	From  time.Time  `json:"from"`
	To    time.Time  `json:"to"`
	Hours []AirHour  `json:"hours"`
	Light []Daylight `json:"light"`
}

// AirHour is an hour of weather with its dew point. DewRisk says that the
// surface is nearer to it than coatings are allowed without a limit of their own.
type AirHour struct {
	weather.Hour
	DewPointC float64 `json:"dewPointC"`
	SurfaceC  float64 `json:"surfaceC"`
	DewRisk   bool    `json:"dewRisk"`
}

// Daylight is a stretch with the sun up.
type Daylight struct {
	From time.Time `json:"from"`
	To   time.Time `json:"to"`
}

// Today is the answer of the morning for one boat.
type Today struct {
	Boat   Boat         `json:"boat"`
	Place  Place        `json:"place"`
	Ribbon Ribbon       `json:"ribbon"`
	Answer today.Answer `json:"answer"`
}

// back and ahead bound what a ribbon carries.
const (
	back  = 3 * 24 * time.Hour
	ahead = 8 * 24 * time.Hour
)

// Today answers for a boat at the program's time.
func (a *App) Today(ctx context.Context, boatID string) (Today, error) {
	q := a.store.Read()
	w, err := a.loadBoatWork(ctx, q, boatID)
	if err != nil {
		return Today{}, err
	}
	now, err := a.Now(ctx)
	if err != nil {
		return Today{}, err
	}
	s, err := situation(ctx, q, w, now)
	if err != nil {
		return Today{}, err
	}
	found := today.Find(s)
	for i, l := range found.Lanes {
		if l.Mix == nil {
			continue
		}
		for _, step := range w.steps[l.SurfaceID] {
			if step.ID != l.NextStepID {
				continue
			}
			share := w.products[step.ProductID].BaseShare()
			if shelf, noted := standing(w.shelf, step.ProductID, share); noted {
				litres := shelf.Mixed(share)
				found.Lanes[i].Mix.ShelfL = &litres
			}
		}
	}
	return Today{w.survey.Boat, w.survey.Place, ribbon(s), found}, nil
}

// situation gathers what core/today asks for: weather from before the oldest
// coat whose clock still counts.
func situation(ctx context.Context, q store.Queries, w work, now time.Time) (today.Situation, error) {
	p := w.survey.Place
	s := today.Situation{Now: now, Loc: p.location(), Lights: w.survey.Boat.Lights}
	from := now.Add(-back)
	for _, f := range w.survey.Surfaces {
		t := today.Surface{ID: f.ID, Name: f.Name, AreaM2: f.Area.AreaM2}
		steps := w.steps[f.ID]
		t.Planned = len(steps) > 0
		for i, n := range w.done(f.ID, steps) {
			if st := steps[i]; n < st.Coats {
				sheet, _ := w.products[st.ProductID].With(st.Grade)
				t.Next = &today.Coat{Sheet: sheet, N: n + 1, Of: st.Coats, DFTUm: st.DFTUm, ThinnerPct: st.ThinnerPct, LossPct: st.LossPct, Method: st.Method}
				t.NextStepID = st.ID
				break
			}
		}
		for _, e := range w.log[f.ID] {
			at := time.Unix(e.StartedAt, 0).UTC()
			switch {
			case e.Kind == KindCoat && e.ProductID != nil:
				t.Last = &clock.Laid{Sheet: w.sheet(e), Started: at}
			case e.Kind == KindSand && t.Last != nil:
				t.Last.Abraded = &at
			}
		}
		if t.Last != nil && t.Last.Started.Before(from) {
			from = t.Last.Started
		}
		s.Surfaces = append(s.Surfaces, t)
	}
	air, err := record(ctx, q, p.ID, from.Add(-time.Hour), now.Add(2*ahead))
	s.Weather = field.Weather{Air: air, SurfaceC: air.SurfaceTemps()}
	s.Daylight = sky.Daylight(p.LatitudeDeg, p.LongitudeDeg, now.Add(-back), now.Add(2*ahead))
	return s, err
}

func ribbon(s today.Situation) Ribbon {
	r := Ribbon{Now: s.Now, From: s.Now.Add(-back).Truncate(time.Hour), To: s.Now.Add(ahead).Truncate(time.Hour), Hours: []AirHour{}, Light: []Daylight{}}
	if _, end, ok := s.Weather.Air.Span(); ok && end.After(s.Now) && end.Before(r.To) {
		r.To = end
	}
	for i, h := range s.Weather.Air {
		if !h.At.Before(r.From) && !h.At.After(r.To) {
			dew := h.DewPointC()
			r.Hours = append(r.Hours, AirHour{h, dew, s.Weather.SurfaceC[i], s.Weather.SurfaceC[i]-dew < product.Limits{}.SpreadK()})
		}
	}
	for _, l := range s.Daylight {
		r.Light = append(r.Light, Daylight{l.Rise, l.Set})
	}
	return r
}

// Verdict is when one product may go on one surface of a boat.
type Verdict struct {
	Ribbon  Ribbon       `json:"ribbon"`
	Place   Place        `json:"place"`
	Product Product      `json:"product"`
	Field   field.Result `json:"field"`
}

// Verdict judges every hour for a product on a surface laid by method, from
// now to the end of the weather known. An empty surface is a square metre.
func (a *App) Verdict(ctx context.Context, boatID, surfaceID, productID, method string) (Verdict, error) {
	q := a.store.Read()
	w, err := a.loadBoatWork(ctx, q, boatID)
	if err != nil {
		return Verdict{}, err
	}
	now, err := a.Now(ctx)
	if err != nil {
		return Verdict{}, err
	}
	p, err := a.Product(ctx, productID)
	if err != nil {
		return Verdict{}, err
	}
	if method == "" {
		method = "roller"
		if len(p.Sheet.Methods) > 0 {
			method = p.Sheet.Methods[0]
		}
	}
	if _, ok := film.MethodByKey(method); !ok {
		return Verdict{}, fault.Errors{{Path: "method", Message: "is not a way to lay a coat"}}
	}
	s, err := situation(ctx, q, w, now)
	if err != nil {
		return Verdict{}, err
	}
	areaM2 := 1.0
	if f := w.surface(surfaceID); f.ID != "" {
		areaM2 = f.Area.AreaM2
	}
	job := today.JobFor(today.Coat{Sheet: p.Sheet, Method: method}, areaM2, s)
	out := Verdict{Ribbon: ribbon(s), Place: w.survey.Place, Product: p}
	_, end, _ := s.Weather.Air.Span()
	out.Field = job.Judge(s.Weather, now, end)
	return out, nil
}
