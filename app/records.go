package app

import (
	"context"
	"maps"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"allcoats/core/catalog/product"
	"allcoats/core/job/buildup"
	"allcoats/formats"
)

// litreCents is the least price of a mixed litre by the sheet's tins, 0 without one.
func litreCents(s product.Sheet) float64 {
	least := 0.0
	for _, t := range s.Tins {
		if t.Part == "" && t.PriceCents > 0 && t.Litres > 0 {
			if c := float64(t.PriceCents) / t.Litres; least == 0 || c < least {
				least = c
			}
		}
	}
	return least
}

// Report is the record of a refit.
type Report struct {
	Now      time.Time       `json:"now"`
	Boat     Boat            `json:"boat"`
	Place    Place           `json:"place"`
	Surfaces []SurfaceRecord `json:"surfaces"`
	// Whole are the entries that are of no surface.
	Whole    []Entry  `json:"whole"`
	Defects  []Defect `json:"defects"`
	Used     []Used   `json:"used"`
	Accounts Accounts `json:"accounts"`
	Upkeep   Upkeep   `json:"upkeep"`
}

// SurfaceRecord is a surface's history, the oldest first, and the film that stands.
type SurfaceRecord struct {
	Surface Surface         `json:"surface"`
	Entries []Entry         `json:"entries"`
	Layers  []buildup.Layer `json:"layers"`
	FilmUm  float64         `json:"filmUm"` // laid, as logged
}

// Used is a product that went on, with its batches.
type Used struct {
	Product string   `json:"product"`
	Litres  float64  `json:"litres"`
	Batches []string `json:"batches"`
}

// Report gathers the record of a boat.
func (a *App) Report(ctx context.Context, boatID string) (Report, error) {
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Report{}, err
	}
	out := Report{Now: o.now, Boat: o.survey.Boat, Place: o.survey.Place, Surfaces: []SurfaceRecord{}, Whole: []Entry{},
		Used: []Used{}, Upkeep: o.upkeep()}
	if out.Accounts, err = a.Accounts(ctx, boatID); err != nil {
		return out, err
	}
	if out.Defects, err = defects(ctx, a.store.Read(ctx), boatID); err != nil {
		return out, err
	}
	used := map[string]*Used{}
	entries := func(id string) []Entry {
		list := []Entry{}
		for _, r := range o.log[id] {
			e := o.entry(r)
			list = append(list, e)
			if e.Product == "" {
				continue
			}
			u := used[e.Product]
			if u == nil {
				u = &Used{Product: e.Product, Batches: []string{}}
				used[e.Product] = u
			}
			u.Litres += e.Litres
			if e.Batch != "" && !slices.Contains(u.Batches, e.Batch) {
				u.Batches = append(u.Batches, e.Batch)
			}
		}
		return list
	}
	for _, f := range o.survey.Surfaces {
		r := SurfaceRecord{Surface: f, Entries: entries(f.ID)}
		r.Layers, _ = buildup.Section("", f.Findings, o.filmDone(f.ID), nil, nil)
		for _, l := range r.Layers {
			if !l.Old {
				r.FilmUm += l.Um
			}
		}
		out.Surfaces = append(out.Surfaces, r)
	}
	out.Whole = entries("")
	for _, name := range slices.Sorted(maps.Keys(used)) {
		out.Used = append(out.Used, *used[name])
	}
	return out, nil
}

// blank is an empty cell for what is not known.
func blank[T int | float64](v T) any {
	if v == 0 {
		return nil
	}
	return v
}

// LogTable returns a boat's log as a table, the oldest first.
func (a *App) LogTable(ctx context.Context, boatID string) (formats.Table, error) {
	t := formats.Table{Name: "Log", Header: []string{"begun", "surface", "what", "product", "batch", "litres",
		"wet film µm", "film µm", "sheet edition", "share %", "grit", "hours", "who",
		"air °C", "humidity %", "surface °C", "above dew point K", "dry readings µm", "verdict", "seen", "note"}}
	entries, err := a.Log(ctx, boatID)
	if err != nil {
		return t, err
	}
	survey, err := a.Survey(ctx, boatID)
	if err != nil {
		return t, err
	}
	loc := survey.Place.location()
	for _, e := range slices.Backward(entries) {
		if e.Deleted {
			continue
		}
		kind := e.Kind.Kind()
		wet := 0.0
		for _, um := range e.WetUm {
			wet += um / float64(len(e.WetUm))
		}
		row := []any{e.StartedAt.In(loc), e.Surface, kind.Name, e.Product, e.Batch, blank(e.Litres),
			blank(math.Round(wet)), blank(math.Round(e.FilmUm)), blank(e.Edition), blank(math.Round(e.SharePct)),
			blank(e.Grit), blank(e.Hours), e.Who}
		if c := e.Conditions; c != nil {
			row = append(row, round(c.AirC), round(c.RHPct), round(c.SurfaceC), round(c.SpreadK))
		} else {
			row = append(row, nil, nil, nil, nil)
		}
		verdict := ""
		readings := []string{}
		if e.Verdict != nil {
			verdict = map[bool]string{true: "accepted", false: "refused"}[e.Verdict.Accepted]
			for _, um := range e.Dry.ReadingsUm {
				readings = append(readings, strconv.FormatFloat(um, 'f', -1, 64))
			}
		}
		t.Rows = append(t.Rows, append(row, strings.Join(readings, " "), verdict, strings.Join(e.Blemishes, ", "),
			e.Note))
	}
	return t, nil
}
