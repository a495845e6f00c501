package app

import (
	"cmp"
	"context"
	"encoding/json"
	"math"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/physics/cure"
	"allcoats/formats"
	"allcoats/store"
)

// Product is a product of the library with its data sheet. Doubts are figures
// of it that are seldom right.
type Product struct {
	ID      string        `json:"id"`
	Version int           `json:"version"`
	Sheet   product.Sheet `json:"sheet"`
	// Says is how it is laid, in a sentence; empty of what leaves no film.
	Says   message.Sentence   `json:"says"`
	Doubts []message.Sentence `json:"doubts"`
}

// warm is the temperature at which a sheet's interval is told, °C, or the nearest that it tells of.
const warm = 20

// sheetSays is how a coat of a sheet is laid, and when the next may follow.
func sheetSays(s product.Sheet) message.Sentence {
	if !s.IsCoat() || s.Film.TypicalUm <= 0 || s.VolumeSolidsPct <= 0 {
		return message.Sentence{}
	}
	dry := message.Val(s.Film.TypicalUm, "µm")
	out := message.Of("Lay it %v wet for %v dry",
		message.Val(math.Round(film.Wet(s.Film.TypicalUm, s.VolumeSolidsPct, 0)), "µm"), dry)
	l := s.Limits
	least, most := cmp.Or(l.SurfaceMinC, l.AirMinC), cmp.Or(l.SurfaceMaxC, l.AirMaxC)
	switch {
	case least != nil && most != nil:
		out = message.Of("%v, at %v to %v", out, message.Val(*least, "°C"), message.Val(*most, "°C"))
	case least != nil:
		out = message.Of("%v, at %v or more", out, message.Val(*least, "°C"))
	case most != nil:
		out = message.Of("%v, at %v or less", out, message.Val(*most, "°C"))
	}
	if l.RHMaxPct != nil {
		out = message.Of("%v and up to %v humidity", out, message.Val(*l.RHMaxPct, "%"))
	}
	r, ok := s.RecoatOver(s.Kind)
	if !ok && len(s.Recoat) > 0 {
		r, ok = s.Recoat[0], true
	}
	if !ok || len(r.Min) == 0 {
		return message.Of("%v. It does not say when the next coat may follow.", out)
	}
	at := math.Max(r.Min[0].TempC, math.Min(r.Min[len(r.Min)-1].TempC, warm))
	from, _ := r.Min.TauH(at, cure.Minimum)
	if len(r.Max) == 0 {
		return message.Of("%v. At %v the next coat may follow after %v.", out, message.Val(at, "°C"),
			lasting(from, math.Ceil))
	}
	to, _ := r.Max.TauH(at, cure.Maximum)
	return message.Of("%v. At %v the next coat may follow after %v and, without sanding, within %v.", out,
		message.Val(at, "°C"), lasting(from, math.Ceil), lasting(to, math.Floor))
}

// onWhole is round, but for what is whole but for the last digits of a number.
func onWhole(round func(float64) float64) func(float64) float64 {
	return func(v float64) float64 {
		if near := math.Round(v); math.Abs(v-near) < 1e-9 {
			return near
		}
		return round(v)
	}
}

// lasting is a time in the unit that people tell it in, rounded to the safe side.
func lasting(h float64, round func(float64) float64) message.Sentence {
	round = onWhole(round)
	switch {
	case h < 2:
		return message.Of("%v", message.Val(5*round(12*h), "min"))
	case h < 12:
		return message.Of("%v", message.Val(round(2*h)/2, "h"))
	case h < 72:
		return message.Of("%v", message.Val(round(h), "h"))
	}
	return message.Of("%d days", int(round(h/24)))
}

func productOf(r store.Product) Product {
	s := r.Sheet.V
	// The lists that every sheet has are [] rather than null.
	if s.Methods == nil {
		s.Methods = []string{}
	}
	if s.Tins == nil {
		s.Tins = []product.Tin{}
	}
	if s.Cautions == nil {
		s.Cautions = []string{}
	}
	return Product{r.ID, r.Version, s, sheetSays(s), s.Doubts()}
}

// Products lists the library.
func (a *App) Products(ctx context.Context) ([]Product, error) {
	return products(ctx, a.store.Read(ctx))
}

func products(ctx context.Context, q store.Queries) ([]Product, error) {
	rows, err := q.Products(ctx)
	out := make([]Product, len(rows))
	for i, r := range rows {
		out[i] = productOf(r)
	}
	return out, err
}

// Product returns one product.
func (a *App) Product(ctx context.Context, id string) (Product, error) {
	r, err := a.store.Read(ctx).Product(ctx, id)
	return productOf(r), err
}

// AddProduct stores a new product.
func (a *App) AddProduct(ctx context.Context, s product.Sheet) (Product, error) {
	return change(ctx, a, func(ctx context.Context) (Product, error) {
		if err := s.Validate(); err != nil {
			return Product{}, err
		}
		p := store.Product{ID: newID(), Sheet: store.JSON[product.Sheet]{V: s}}
		if err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			return q.AddProduct(ctx, p)
		}); err != nil {
			return Product{}, err
		}
		return a.Product(ctx, p.ID)
	})
}

// EditProduct changes a product's sheet.
func (a *App) EditProduct(ctx context.Context, id string, version int, s product.Sheet) (Product, error) {
	return change(ctx, a, func(ctx context.Context) (Product, error) {
		if err := s.Validate(); err != nil {
			return Product{}, err
		}
		p := store.Product{ID: id, Version: version, Sheet: store.JSON[product.Sheet]{V: s}}
		if err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			return q.EditProduct(ctx, p)
		}); err != nil {
			return Product{}, stale(err, func() (Product, error) { return a.Product(ctx, id) })
		}
		return a.Product(ctx, id)
	})
}

// RemoveProduct deletes a product that nothing uses; else it is InUse.
func (a *App) RemoveProduct(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		by, err := q.ProductUses(ctx, id)
		if err != nil {
			return err
		}
		if len(by) > 0 {
			return InUse{by}
		}
		return q.RemoveProduct(ctx, id)
	})
}

// ExportProducts writes the library, json or csv.
func (a *App) ExportProducts(ctx context.Context, format string) ([]byte, error) {
	all, err := a.Products(ctx)
	if err != nil {
		return nil, err
	}
	sheets := make([]product.Sheet, len(all))
	for i, p := range all {
		sheets[i] = p.Sheet
	}
	if format == "csv" {
		return formats.SheetsCSV(sheets)
	}
	return json.MarshalIndent(sheets, "", " ")
}

// ImportProducts adds the data sheets of a file, json or csv, those whose name
// the library has already left out; all or nothing.
func (a *App) ImportProducts(ctx context.Context, format string, data []byte) (added, known int, err error) {
	sheets, err := formats.ReadSheets(format, data)
	if err != nil {
		return 0, 0, err
	}
	err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		have, err := products(ctx, q)
		if err != nil {
			return err
		}
		names := map[string]bool{}
		for _, p := range have {
			names[p.Sheet.Name] = true
		}
		for _, s := range sheets {
			if names[s.Name] {
				known++
				continue
			}
			names[s.Name] = true
			added++
			if err := q.AddProduct(ctx,
				store.Product{ID: newID(), Sheet: store.JSON[product.Sheet]{V: s}}); err != nil {
				return err
			}
		}
		return nil
	})
	return added, known, err
}
