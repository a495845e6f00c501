package app

import (
	"cmp"
	"context"
	"maps"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/job/buildup"
	"allcoats/core/job/upkeep"
	"allcoats/formats"
)

// Sum is what one kind of work, surface, person or month took. PlannedH is what was
// reckoned for the same work, 0 where nothing was.
type Sum struct {
	Name     string  `json:"name"`
	Hours    float64 `json:"hours"`
	PlannedH float64 `json:"plannedH"`
	Cents    float64 `json:"cents"` // of material
	Entries  int     `json:"entries"`
}

// Accounts are the hours and the money of a boat: to date from the log, and to
// finish from what is planned.
type Accounts struct {
	ByKind    []Sum `json:"byKind"`
	BySurface []Sum `json:"bySurface"`
	ByPerson  []Sum `json:"byPerson"`
	ByMonth   []Sum `json:"byMonth"`
	// Untold counts the entries without hours; Unpriced names products without a price.
	Untold   int      `json:"untold"`
	Unpriced []string `json:"unpriced"`
	// HourCents is what an hour costs, 0 if that is not said in Plan.
	HourCents float64 `json:"hourCents"`
	Hours     float64 `json:"hours"`
	// PlannedH is what was reckoned, ReckonedHours what the same work took.
	PlannedH      float64 `json:"plannedH"`
	ReckonedHours float64 `json:"reckonedHours"`
	MaterialCents float64 `json:"materialCents"`
	LabourCents   float64 `json:"labourCents"`
	// LeftHours and LeftMaterial are still to come: the work of the job, the tins to buy.
	// A working day has WorkDayH hours.
	LeftHours    float64 `json:"leftHours"`
	WorkDayH     float64 `json:"workDayH"`
	LeftMaterial float64 `json:"leftMaterialCents"`
	LeftLabour   float64 `json:"leftLabourCents"`
}

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

// Accounts adds up the log of a boat and what is left of her plan.
func (a *App) Accounts(ctx context.Context, boatID string) (Accounts, error) {
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Accounts{}, err
	}
	out := Accounts{}
	out.HourCents, out.WorkDayH = o.choices.HourCents, o.workDayH()
	o.toDate(&out)
	out.LeftHours = o.job.Sum.LeftH
	need, _, err := a.toBuy(ctx, boatID)
	if err != nil {
		return out, err
	}
	out.LeftMaterial = float64(need.CostCents)
	out.LabourCents, out.LeftLabour = out.Hours*out.HourCents, out.LeftHours*out.HourCents
	return out, nil
}

func (o outlook) toDate(out *Accounts) {
	kinds, surfaces, people, months := map[string]*Sum{}, map[string]*Sum{}, map[string]*Sum{}, map[string]*Sum{}
	unpriced := map[string]bool{}
	for id, log := range o.log {
		f := o.surface(id)
		for _, e := range log {
			kind := e.Kind.Kind()
			one := Sum{Hours: e.Hours, Entries: 1}
			if e.ProductID != "" && e.Litres > 0 {
				sheet := o.products[e.ProductID]
				if c := litreCents(sheet); c > 0 {
					one.Cents = e.Litres * c
				} else {
					unpriced[sheet.Name] = true
				}
			}
			if e.Hours > 0 {
				one.PlannedH = o.job.Told(e.ID).ReckonedH
			}
			if e.Hours == 0 && e.Kind != step.Idle {
				out.Untold++
			}
			out.Hours += one.Hours
			out.PlannedH += one.PlannedH
			if one.PlannedH > 0 {
				out.ReckonedHours += one.Hours
			}
			out.MaterialCents += one.Cents
			for _, in := range []struct {
				to  map[string]*Sum
				key string
			}{{kinds, kind.Name}, {surfaces, cmp.Or(f.Name, "the whole boat")}, {people, cmp.Or(e.Who, "not told")}, {months, e.StartedAt.In(o.s.Loc).Format("2006-01")}} {
				s := in.to[in.key]
				if s == nil {
					s = &Sum{Name: in.key}
					in.to[in.key] = s
				}
				s.Hours += one.Hours
				s.PlannedH += one.PlannedH
				s.Cents += one.Cents
				s.Entries++
			}
		}
	}
	out.ByKind, out.BySurface, out.ByPerson, out.ByMonth = listed(kinds), listed(surfaces), listed(people), listed(months)
	sortBy(out.ByMonth, func(s Sum) string { return s.Name })
	out.Unpriced = slices.AppendSeq([]string{}, maps.Keys(unpriced))
	slices.Sort(out.Unpriced)
}

// listed are sums, the most hours first.
func listed(m map[string]*Sum) []Sum {
	out := []Sum{}
	for _, s := range m {
		out = append(out, *s)
	}
	slices.SortFunc(out, func(a, b Sum) int { return cmp.Or(cmp.Compare(b.Hours, a.Hours), cmp.Compare(a.Name, b.Name)) })
	return out
}

// Upkeep is what is due on a boat, the soonest first, and what on the shelf is near
// its end.
type Upkeep struct {
	Films []DueFilm   `json:"films"`
	Shelf []StockItem `json:"shelf"`
}

// DueFilm is a film that wants doing again.
type DueFilm struct {
	SurfaceID string  `json:"surfaceId"`
	Surface   string  `json:"surface"`
	Product   string  `json:"product"`
	FilmUm    float64 `json:"filmUm"`
	upkeep.Due
	When string `json:"when"`
}

// Upkeep tells what was laid that wants doing again. Miles are how far she goes in a
// season.
func (a *App) Upkeep(ctx context.Context, boatID string, miles float64) (Upkeep, error) {
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Upkeep{}, err
	}
	return o.upkeep(miles), nil
}

func (o outlook) upkeep(miles float64) Upkeep {
	out := Upkeep{Films: []DueFilm{}, Shelf: []StockItem{}}
	for _, f := range o.survey.Surfaces {
		layers, _ := buildup.Section("", f.Findings, o.filmDone(f.ID), nil, nil)
		film := upkeep.Film{LatitudeDeg: o.survey.Place.LatitudeDeg, Covered: f.Shelter != survey.Open, NM: miles}
		name := ""
		for _, e := range o.log[f.ID] {
			if e.Kind == step.Coat && e.ProductID != "" {
				film.Sheet, film.LastAt, name = o.sheet(e), e.StartedAt, o.products[e.ProductID].Name
			}
		}
		for _, l := range layers {
			if l.Laid && l.Product == name {
				film.Um += l.Um
			}
		}
		if d, ok := film.Next(); ok {
			out.Films = append(out.Films, DueFilm{f.ID, f.Name, name, film.Um, d, d.In(o.now)})
		}
	}
	slices.SortStableFunc(out.Films, func(a, b DueFilm) int { return a.At.Compare(b.At) })
	for _, s := range o.shelf {
		if s.Worry != "" && s.LeftL > 0 {
			out.Shelf = append(out.Shelf, s)
		}
	}
	return out
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
	out := Report{Now: o.now, Boat: o.survey.Boat, Place: o.survey.Place, Surfaces: []SurfaceRecord{}, Whole: []Entry{}, Used: []Used{}, Upkeep: o.upkeep(0)}
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

// blank is an empty cell for nothing.
func blank[T int | float64](v T) any {
	if v == 0 {
		return ""
	}
	return v
}

// LogTable returns a boat's log as a table, the oldest first.
func (a *App) LogTable(ctx context.Context, boatID string) (formats.Table, error) {
	t := formats.Table{Name: "Log", Header: []string{"begun", "surface", "what", "product", "batch", "litres", "wet film µm", "film µm", "sheet edition", "share %", "grit", "hours", "who",
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
		row := []any{e.StartedAt.In(loc).Format("2006-01-02 15:04"), e.Surface, kind.Name, e.Product, e.Batch, e.Litres, math.Round(wet), math.Round(e.FilmUm), blank(e.Edition), blank(math.Round(e.SharePct)), e.Grit, e.Hours, e.Who}
		if c := e.Conditions; c != nil {
			row = append(row, round(c.AirC), round(c.RHPct), round(c.SurfaceC), round(c.SpreadK))
		} else {
			row = append(row, "", "", "", "")
		}
		verdict := ""
		readings := []string{}
		if e.Verdict != nil {
			verdict = map[bool]string{true: "accepted", false: "refused"}[e.Verdict.Accepted]
			for _, um := range e.Dry.ReadingsUm {
				readings = append(readings, strconv.FormatFloat(um, 'f', -1, 64))
			}
		}
		t.Rows = append(t.Rows, append(row, strings.Join(readings, " "), verdict, strings.Join(e.Blemishes, ", "), e.Note))
	}
	return t, nil
}
