package app

import (
	"context"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/boat/survey"
	"allcoats/core/conditions/climate"
	"allcoats/core/exposure/tent"
	"allcoats/core/film/film"
	"allcoats/store"
)

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
	Booth message.Sentence `json:"booth,omitempty"`
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
	out := BoatTent{Version: row.TentVersion, Tent: row.Tent.V, Usual: tent.Usual(row.LOAM, row.BeamM),
		Sheltered: []string{}, Outside: []string{}}
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
				return fielderr.At("tent", "no tent stands: describe it, and say that it stands")
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
	coat := climate.Coat{SurfaceID: f.ID, Sheet: o.graded(f.ID, ask.ProductID), Over: p.Sheet.Kind, Job: job,
		From: from, To: end}
	return Comparison{f.Name, p, o.ribbon(f.ID), o.boat.Compare(ctx, coat, t,
		climate.Ensemble{Futures: o.futures(), N: compareFutures, Seed: futuresSeed}),
		t.Cautions()}, nil
}
