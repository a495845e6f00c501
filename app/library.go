package app

import (
	"context"
	"encoding/json"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/job/enquiry"
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
	return Product{ID: r.ID, Version: r.Version, Sheet: s}
}

// described is p with what is said of its sheet.
func (p Product) described() Product {
	p.Says, p.Doubts = enquiry.OfSheet(p.Sheet), p.Sheet.Doubts()
	return p
}

// Products lists the library.
func (a *App) Products(ctx context.Context) ([]Product, error) {
	all, err := products(ctx, a.store.Read(ctx))
	for i, p := range all {
		all[i] = p.described()
	}
	return all, err
}

// products are those of the library, with nothing said of their sheets.
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
	return productOf(r).described(), err
}

// AddProduct stores a new product.
func (a *App) AddProduct(ctx context.Context, s product.Sheet) (Product, error) {
	return change(ctx, a, func(ctx context.Context) (Product, error) {
		if err := s.Validate(); err != nil {
			return Product{}, err
		}
		p := store.Product{ID: newID(), Sheet: store.SheetOf(s)}
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
		p := store.Product{ID: id, Version: version, Sheet: store.SheetOf(s)}
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
				store.Product{ID: newID(), Sheet: store.SheetOf(s)}); err != nil {
				return err
			}
		}
		return nil
	})
	return added, known, err
}
