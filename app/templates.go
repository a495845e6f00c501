package app

import (
	"context"
	"slices"
	"strings"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/store"
)

func fromTemplate(key string, substrate survey.Substrate) ([]SurfaceEdit, error) {
	if key == "" {
		return nil, nil
	}
	i := slices.IndexFunc(survey.Templates, func(t survey.Template) bool { return t.Key == key })
	if i < 0 {
		return nil, fielderr.At("template", "is no hull type that the program knows")
	}
	var out []SurfaceEdit
	for _, t := range survey.Templates[i].Surfaces {
		d := survey.Usual(t.Part, substrate)
		if err := d.Validate(); err != nil {
			return nil, err
		}
		out = append(out, SurfaceEdit{Name: t.Name, Part: t.Part, Side: t.Side, Description: d,
			Measured: area.Measured{Measures: []area.Measure{{Method: area.ByPrincipal}}}})
	}
	return out, nil
}

// AddTemplate adds the surfaces of a template that a boat does not have by
// name, and tells how many.
func (a *App) AddTemplate(ctx context.Context, boatID, template string, substrate survey.Substrate) (int, error) {
	return change(ctx, a, func(ctx context.Context) (int, error) {
		surfaces, err := fromTemplate(template, substrate)
		if err != nil {
			return 0, err
		}
		added := 0
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			old, err := q.Surfaces(ctx, boatID)
			if err != nil {
				return err
			}
			if _, err := q.Boat(ctx, boatID); err != nil {
				return err
			}
			for _, s := range surfaces {
				if slices.ContainsFunc(old, func(o store.Surface) bool { return o.Name == s.Name }) {
					continue
				}
				added++
				if err := q.AddSurface(ctx, s.row(newID(), 1, boatID)); err != nil {
					return err
				}
			}
			return nil
		})
		return added, err
	})
}

// copySteps gives a surface the planned coats of another.
func copySteps(ctx context.Context, q store.Queries, from store.Surface, to string) error {
	steps, err := q.BoatSteps(ctx, from.BoatID)
	if err != nil {
		return err
	}
	var own []store.Step
	for _, s := range steps {
		if s.SurfaceID == from.ID {
			s.ID = newID()
			own = append(own, s)
		}
	}
	if len(own) == 0 {
		return nil
	}
	return q.SetSteps(ctx, to, 1, own)
}

// SplitSurface takes pct per cent of a surface into a new one of that name
// behind it, with the same description, measurements, old layers and planned
// coats. What was logged stays with the first.
func (a *App) SplitSurface(ctx context.Context, id string, version int, pct float64, name string) (Surface, error) {
	return change(ctx, a, func(ctx context.Context) (Surface, error) {
		var bad fielderr.Errors
		bad.Range("pct", pct, 1, 99, "%")
		if name = strings.TrimSpace(name); name == "" {
			bad.Add("name", "give the new surface a name")
		}
		if err := bad.Err(); err != nil {
			return Surface{}, err
		}
		made := newID()
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			old, err := q.Surface(ctx, id)
			if err != nil {
				return err
			}
			first := old
			first.Version = version
			share := old.Measured.V.SharePct
			if share == 0 {
				share = 100
			}
			first.Measured.V.SharePct = share * (100 - pct) / 100
			if err := q.EditSurface(ctx, first); err != nil {
				return err
			}
			second := old
			second.ID, second.Name, second.Position = made, name, old.Position+1
			second.Measured.V.SharePct = share * pct / 100
			if err := q.AddSurface(ctx, second); err != nil {
				return err
			}
			return copySteps(ctx, q, old, made)
		})
		if err != nil {
			return Surface{}, stale(err, func() (Surface, error) { return a.Surface(ctx, id) })
		}
		return a.Surface(ctx, made)
	})
}

// DuplicateSurface copies a surface with its planned coats, to the other side
// if it has one.
func (a *App) DuplicateSurface(ctx context.Context, id string) (Surface, error) {
	return change(ctx, a, func(ctx context.Context) (Surface, error) {
		made := newID()
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			old, err := q.Surface(ctx, id)
			if err != nil {
				return err
			}
			twin := old
			twin.ID, twin.Position = made, old.Position+1
			side := area.Side(old.Side)
			twin.Side = string(side.Opposite())
			if twin.Name = strings.Replace(old.Name, string(side), twin.Side, 1); side == area.Both ||
				twin.Name == old.Name {
				twin.Name = old.Name + ", " + map[area.Side]string{area.Both: "copy", area.Port: "starboard",
					area.Starboard: "port"}[side]
			}
			if f := old.Description.V.Facing; f == "port" || f == "starboard" {
				twin.Description.V.Facing = string(area.Side(f).Opposite())
			}
			if err := q.AddSurface(ctx, twin); err != nil {
				return err
			}
			return copySteps(ctx, q, old, made)
		})
		if err != nil {
			return Surface{}, err
		}
		return a.Surface(ctx, made)
	})
}

// OrderSurfaces puts a boat's surfaces into the order of ids, which must name
// each of them once.
func (a *App) OrderSurfaces(ctx context.Context, boatID string, ids []string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		rows, err := q.Surfaces(ctx, boatID)
		if err != nil {
			return err
		}
		have := make([]string, len(rows))
		for i, r := range rows {
			have[i] = r.ID
		}
		slices.Sort(have)
		if !slices.Equal(have, slices.Sorted(slices.Values(ids))) {
			return fielderr.At("ids", "must name every surface of the boat once: reload, one was added or deleted")
		}
		for i, id := range ids {
			if err := q.PlaceSurface(ctx, id, i+1); err != nil {
				return err
			}
		}
		return nil
	})
}
