package app

import (
	"context"
	"slices"
	"sort"
	"time"

	"allcoats/core/base/fault"
	"allcoats/core/base/say"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/exposure/reading"
	"allcoats/core/exposure/surface"
	"allcoats/core/exposure/tent"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/physics/sky"
	"allcoats/core/physics/weather"
	"allcoats/core/readiness/climate"
	"allcoats/core/readiness/clock"
	"allcoats/core/readiness/field"
	"allcoats/core/readiness/today"
	"allcoats/store"
)

// Ribbon is the stretch of time that a screen draws: the weather at one surface
// and daylight around now.
type Ribbon struct {
	Now   time.Time  `json:"now"`
	From  time.Time  `json:"from"`
	To    time.Time  `json:"to"`
	Hours []AirHour  `json:"hours"`
	Light []Daylight `json:"light"`
	// Faces are the other surfaces, each with a value for every one of Hours.
	Faces []Face `json:"faces"`
}

// AirHour is an hour of weather with its dew point. DewRisk says that the
// surface is nearer to it than coatings are allowed without a limit of their own.
type AirHour struct {
	weather.Hour
	DewPointC float64 `json:"dewPointC"`
	SurfaceC  float64 `json:"surfaceC"`
	DewRisk   bool    `json:"dewRisk"`
}

// Face is a surface over the hours of a ribbon: its temperature, its spread over
// the dew point of the air at it, and when it is wet.
type Face struct {
	SurfaceID string        `json:"surfaceId"`
	Surface   string        `json:"surface"`
	SurfaceC  []float64     `json:"surfaceC"`
	SpreadK   []float64     `json:"spreadK"`
	Wet       []surface.Wet `json:"wet"`
	// Probed says that readings on it correct the model.
	Probed bool `json:"probed"`
}

// Daylight is a stretch with the sun up.
type Daylight struct {
	From time.Time `json:"from"`
	To   time.Time `json:"to"`
}

// back and ahead bound what a ribbon carries; spinUp is how long a surface is
// followed before what matters.
const (
	back   = 3 * 24 * time.Hour
	ahead  = 8 * 24 * time.Hour
	spinUp = 48 * time.Hour
)

// sameBegin is to what the beginnings of records are rounded down, so that the boats of a
// place share most of theirs.
const sameBegin = 28 * 24 * time.Hour

// longestCure is how far back a film's clock is followed; a table's weeks take that
// long in a cold winter.
const longestCure = 200 * 24 * time.Hour

// outlook is a boat with the weather at every one of her surfaces.
type outlook struct {
	work
	now     time.Time
	boat    climate.Boat
	climate climate.Climate
	s       today.Situation
}

// look gathers a boat's weather and the state of her coats at the program's
// time, from before the oldest coat whose clock still counts.
func (a *App) look(ctx context.Context, boatID string) (o outlook, err error) {
	err = a.View(ctx, func(ctx context.Context) error {
		o, err = a.gather(ctx, boatID)
		return err
	})
	return o, err
}

func (a *App) gather(ctx context.Context, boatID string) (outlook, error) {
	q := a.store.Read(ctx)
	w, err := a.loadBoatWork(ctx, q, boatID)
	if err != nil {
		return outlook{}, err
	}
	now, err := a.Now(ctx)
	if err != nil {
		return outlook{}, err
	}
	o := outlook{work: w, now: now}
	p, b := w.survey.Place, w.survey.Boat
	loc := p.location()
	o.s = today.Situation{Now: now, Loc: loc, Lights: b.Lights, Crew: b.Crew, DewFreeH: b.DewFreeH}
	from := now.Add(-back)
	for _, f := range w.survey.Surfaces {
		t := w.coats(f)
		for _, l := range t.Films {
			if l.Started.Before(from) && now.Sub(l.Started) < longestCure {
				from = l.Started
			}
		}
		o.s.Surfaces = append(o.s.Surfaces, t)
	}
	if o.boat, err = loadClimate(ctx, q, w, from.Add(-spinUp).Truncate(sameBegin), now); err != nil {
		return o, err
	}
	o.boat.Memory = &a.skies
	o.climate = climate.Of(o.boat)
	o.s.Air = o.climate.Open
	for i, f := range o.s.Surfaces {
		o.s.Surfaces[i].Weather = o.climate.Surface[f.ID]
	}
	o.s.Daylight = sky.Daylight(p.LatitudeDeg, p.LongitudeDeg, now.Add(-back), now.Add(2*ahead))
	o.s.Work = b.Week.Between(now.Add(-back), now.Add(2*ahead), loc)
	return o, nil
}

// coats is a surface with its last coat and its next.
func (w work) coats(f Surface) today.Surface {
	t := today.Surface{ID: f.ID, Name: f.Name, AreaM2: f.Area.AreaM2, Sheltered: f.Shelter != survey.Open, Immersed: f.Part.Underwater()}
	chain := w.job.Chain(f.ID)
	t.Planned = len(chain.Tasks) > 0
	first, next := chain.First()
	if next != nil {
		t.Next = &today.Coat{Step: next.Step, TaskID: next.ID, N: next.N, Of: next.Of, LayH: next.LayH, Litres: next.LeftL, AreaM2: next.AreaM2, ProductID: next.ProductID, Where: next.Where}
		t.NextStepID = next.StepID
	}
	for _, k := range chain.Tasks {
		for _, b := range k.Binds {
			if b.By != nil {
				t.Limits = append(t.Limits, today.Limit{Name: b.Name, Until: chain.Named(b.Until), By: *b.By, Breaks: b.Breaks})
			}
		}
	}
	for _, p := range first {
		t.First = append(t.First, today.Prep{Name: p.Named(), LeftH: p.LeftH})
	}
	for _, e := range w.log[f.ID] {
		at := e.StartedAt
		switch kind := e.Kind.Kind(); {
		case kind.Lays && e.ProductID != "":
			t.Films = append(t.Films, clock.Laid{Sheet: w.sheet(e), Started: at})
			last := t.Films[len(t.Films)-1]
			t.Last = &last
		case e.Kind == step.Strip:
			t.Last, t.Films = nil, nil
		case kind.Abrades && t.Last != nil:
			t.Last.Abraded = &at
		case e.Kind == step.Inspect && t.Last != nil:
			t.Last.Inspected = &at
		}
	}
	return t
}

// wetted is when a surface was washed, in the order of time, and what water its outermost
// film takes up, mm: the pores of an open filler.
func (w work) wetted(surfaceID string) (washed []time.Time, soakMM float64) {
	for _, e := range w.log[surfaceID] {
		switch {
		case e.Kind == step.Wash:
			end := e.StartedAt.Add(time.Duration(e.Hours * float64(time.Hour)))
			washed = append(washed, end)
		case e.Kind == step.Coat:
			um, _ := w.laid(e).FilmUm()
			soakMM = w.sheet(e).SoakMM(um)
		case e.Kind == step.Strip:
			soakMM = 0
		}
	}
	slices.SortFunc(washed, time.Time.Compare)
	return washed, soakMM
}

// loadClimate gathers what bears on the weather at a boat's surfaces from an
// instant on.
func loadClimate(ctx context.Context, q store.Queries, w work, from, now time.Time) (climate.Boat, error) {
	p, b := w.survey.Place, w.survey.Boat
	out := climate.Boat{Site: climate.Site{LatitudeDeg: p.LatitudeDeg, LongitudeDeg: p.LongitudeDeg, Loc: p.location(), Now: now}}
	for _, f := range w.survey.Surfaces {
		face := surface.Of(f.Description, f.Part, f.Side, b.HeadingDeg)
		face.Washed, face.SoakMM = w.wetted(f.ID)
		out.Surfaces = append(out.Surfaces, climate.Surface{ID: f.ID, Face: face, AreaM2: f.Area.AreaM2, Shelter: f.Shelter})
	}
	row, err := q.Boat(ctx, b.ID)
	if err != nil {
		return out, err
	}
	out.Tent = row.Tent.V
	if out.Air, err = record(ctx, q, p.ID, from, now.Add(2*ahead)); err != nil {
		return out, err
	}
	instruments, err := q.Instruments(ctx, p.ID)
	if err != nil {
		return out, err
	}
	readings, err := q.PlaceReadings(ctx, p.ID, from, now)
	if err != nil {
		return out, err
	}
	for _, i := range instruments {
		if i.BoatID != nil && *i.BoatID != b.ID {
			continue
		}
		one := climate.Instrument{Kind: reading.Kind(i.Kind), Readings: readings[i.ID]}
		if i.SurfaceID != nil {
			one.SurfaceID = *i.SurfaceID
		}
		out.Instruments = append(out.Instruments, one)
	}
	return out, nil
}

// ribbon draws the hours around now with the weather at a surface; an empty id
// is the first one's, or the open air if there is none.
func (o outlook) ribbon(surfaceID string) Ribbon {
	r := Ribbon{Now: o.now, From: o.now.Add(-back).Truncate(time.Hour), To: o.now.Add(ahead).Truncate(time.Hour), Hours: []AirHour{}, Light: []Daylight{}, Faces: []Face{}}
	if _, end, ok := o.s.Air.Span(); ok && end.After(o.now) && end.Before(r.To) {
		r.To = end
	}
	lead, ok := o.climate.Surface[surfaceID]
	if !ok {
		lead = field.Weather{Air: o.s.Air}
		for _, h := range o.s.Air {
			lead.SurfaceC = append(lead.SurfaceC, h.TempC)
		}
		if len(o.s.Surfaces) > 0 {
			lead = o.s.Surfaces[0].Weather
		}
	}
	lo := sort.Search(len(lead.Air), func(i int) bool { return !lead.Air[i].At.Before(r.From) })
	hi := sort.Search(len(lead.Air), func(i int) bool { return lead.Air[i].At.After(r.To) })
	for i := lo; i < hi; i++ {
		h, dew := lead.Air[i], lead.Air[i].DewPointC()
		// Rain is drawn as it falls, under a roof too.
		h.RainMM, h.WindMS = o.s.Air[i].RainMM, o.s.Air[i].WindMS
		r.Hours = append(r.Hours, AirHour{h, dew, lead.SurfaceC[i], lead.SurfaceC[i]-dew < product.Limits{}.SpreadK()})
	}
	for _, f := range o.s.Surfaces {
		face := Face{SurfaceID: f.ID, Surface: f.Name, SurfaceC: f.Weather.SurfaceC[lo:hi], SpreadK: make([]float64, 0, hi-lo), Wet: []surface.Wet{}, Probed: o.climate.Bias[f.ID].N > 0}
		for i := lo; i < hi; i++ {
			face.SpreadK = append(face.SpreadK, f.Weather.SurfaceC[i]-f.Weather.Air[i].DewPointC())
		}
		for _, w := range f.Weather.Wet {
			if w.To.After(r.From) && w.From.Before(r.To) {
				face.Wet = append(face.Wet, w)
			}
		}
		r.Faces = append(r.Faces, face)
	}
	for _, l := range o.s.Daylight {
		r.Light = append(r.Light, Daylight{l.Rise, l.Set})
	}
	return r
}

// Chances are the best starts of the week for every coat that waits.
type Chances struct {
	Place   Place `json:"place"`
	Futures int   `json:"futures"`
	// Known is the end of the forecast; beyond it the climate of the place counts.
	Known  time.Time      `json:"known"`
	Coats  []today.Best   `json:"coats"`
	WetDay []today.Indoor `json:"wetDay"`
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
	f := o.futures()
	waiting := o.s.Waiting()
	asks := make([]climate.Ask, len(waiting))
	for i, w := range waiting {
		asks[i] = w.Ask
	}
	odds, err := o.boat.Chances(ctx, o.climate, f, asks, n, futuresSeed, told)
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
	waits, err := o.boat.Waits(ctx, o.climate, f, asks, between, min(n, waitFutures), futuresSeed)
	if err != nil {
		return Chances{}, err
	}
	takenIn := map[string]bool{}
	for _, s := range o.survey.Surfaces {
		takenIn[s.ID] = s.Part.Info().Portable
	}
	return Chances{o.survey.Place, n, f.Known(), o.s.BestChances(waiting, odds, waits, f.Known()), o.s.WetDay(takenIn)}, nil
}

// futures makes the futures of the ten days from now.
func (o outlook) futures() weather.Futures {
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

// BoatTent is the tent of a boat with what is said where heat and vapour meet. Usual
// is what people build round a boat of her size.
type BoatTent struct {
	Version   int        `json:"version"`
	Tent      *tent.Tent `json:"tent,omitempty"`
	Usual     tent.Tent  `json:"usual"`
	Cautions  []string   `json:"cautions"`
	Sheltered []string   `json:"sheltered"` // names of the surfaces in it
	Outside   []string   `json:"outside"`   // and of those in the open
	// Booth says what a fan and its filter move, empty where there is none.
	Booth say.Sentence `json:"booth,omitempty"`
}

// Tent returns a boat's tent.
func (a *App) Tent(ctx context.Context, boatID string) (BoatTent, error) {
	q := a.store.Read(ctx)
	row, err := q.Boat(ctx, boatID)
	if err != nil {
		return BoatTent{}, err
	}
	surfaces, err := q.Surfaces(ctx, boatID)
	if err != nil {
		return BoatTent{}, err
	}
	out := BoatTent{Version: row.TentVersion, Tent: row.Tent.V, Usual: tent.Usual(row.LOAM, row.BeamM), Sheltered: []string{}, Outside: []string{}}
	shown := out.Usual
	if out.Tent != nil {
		shown = *out.Tent
	}
	out.Cautions = shown.Cautions()
	spray, _ := film.MethodByKey("spray")
	out.Booth = shown.Booth(spray.LossPct)
	for _, s := range surfaces {
		switch s.Description.V.Shelter {
		case survey.Tent:
			out.Sheltered = append(out.Sheltered, s.Name)
		case survey.Open:
			out.Outside = append(out.Outside, s.Name)
		case survey.Shed:
		}
	}
	return out, nil
}

// SetTent sets a boat's tent, nil for none: what was in it is in the open again.
func (a *App) SetTent(ctx context.Context, boatID string, version int, t *tent.Tent) (BoatTent, error) {
	return change(ctx, a, func(ctx context.Context) (BoatTent, error) {
		if t != nil {
			if err := t.Validate(); err != nil {
				return BoatTent{}, err
			}
		}
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if err := q.SetTent(ctx, boatID, version, t); err != nil || t != nil {
				return err
			}
			return shelter(ctx, q, boatID, survey.Tent, survey.Open)
		})
		if err != nil {
			return BoatTent{}, stale(err, func() (BoatTent, error) { return a.Tent(ctx, boatID) })
		}
		return a.Tent(ctx, boatID)
	})
}

// Cover puts all surfaces of a boat that are in the open under her tent.
func (a *App) Cover(ctx context.Context, boatID string) (BoatTent, error) {
	return change(ctx, a, func(ctx context.Context) (BoatTent, error) {
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			row, err := q.Boat(ctx, boatID)
			if err != nil {
				return err
			}
			if row.Tent.V == nil {
				return fault.At("tent", "no tent stands: describe it, and say that it stands")
			}
			return shelter(ctx, q, boatID, survey.Open, survey.Tent)
		})
		if err != nil {
			return BoatTent{}, err
		}
		return a.Tent(ctx, boatID)
	})
}

// shelter takes all surfaces of a boat from one shelter to another.
func shelter(ctx context.Context, q store.Queries, boatID string, from, to survey.Shelter) error {
	surfaces, err := q.Surfaces(ctx, boatID)
	if err != nil {
		return err
	}
	for _, s := range surfaces {
		if s.Description.V.Shelter != from {
			continue
		}
		s.Description.V.Shelter = to
		if err := q.EditSurface(ctx, s); err != nil {
			return err
		}
	}
	return nil
}

// Comparison sets the schools for a coat in the cold side by side.
type Comparison struct {
	Surface  string           `json:"surface"`
	Product  Product          `json:"product"`
	Ribbon   Ribbon           `json:"ribbon"`
	Options  []climate.Option `json:"options"`
	Cautions []string         `json:"cautions"`
}

// compareFutures are played for each school: its odds are good to some 4 %.
const compareFutures = 150

// Compare compares the schools for a product on a surface with a tent that may
// not stand yet.
func (a *App) Compare(ctx context.Context, boatID string, ask VerdictQuery, t tent.Tent) (Comparison, error) {
	if err := t.Validate(); err != nil {
		return Comparison{}, err
	}
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Comparison{}, err
	}
	p, err := a.Product(ctx, ask.ProductID)
	if err != nil {
		return Comparison{}, err
	}
	job, f, err := o.fieldJob(o.graded(ask.SurfaceID, ask.ProductID), ask)
	if err != nil {
		return Comparison{}, err
	}
	if f.ID == "" {
		return Comparison{}, ErrNotFound
	}
	from := o.now
	for _, w := range o.s.Waiting() {
		if w.Surface.ID == f.ID && w.Surface.Next.Sheet.Name == p.Sheet.Name {
			from = w.From
		}
	}
	_, end, _ := f.Weather.Air.Span()
	coat := climate.Coat{SurfaceID: f.ID, Sheet: o.graded(f.ID, ask.ProductID), Over: p.Sheet.Kind, Job: job, From: from, To: end}
	return Comparison{f.Name, p, o.ribbon(f.ID), o.boat.Compare(ctx, coat, t, o.futures(), compareFutures, futuresSeed), t.Cautions()}, nil
}
