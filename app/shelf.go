package app

import (
	"cmp"
	"context"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/catalog/purchase"
	"allcoats/core/planning/plan"
	"allcoats/store"
)

// StockItem is something on the shelf. LeftL is what was counted less what was
// logged since, shared out over a product's items, the one opened or expiring
// first used first.
type StockItem struct {
	ID      string `json:"id"`
	Version int    `json:"version"`
	StockEdit
	Product   string    `json:"product"`
	CountedAt time.Time `json:"countedAt"`
	LeftL     float64   `json:"leftL"`
	// Worry says what is wrong with it; Expired is past its shelf life, and not
	// counted on; Awaited is ordered and not there yet.
	Worry   message.Sentence `json:"worry,omitempty"`
	Expired bool             `json:"expired"`
	Awaited bool             `json:"awaited"`
}

// StockEdit is what a user can set of it. Days are such as 2026-05-30, or empty; one with a day on
// which it arrives is awaited.
type StockEdit struct {
	ProductID string  `json:"productId"`
	Part      string  `json:"part" enum:",base,hardener"`
	Litres    float64 `json:"litres"`
	Batch     string  `json:"batch"`
	Supplier  string  `json:"supplier"`
	Shelf     string  `json:"shelf"`
	Note      string  `json:"note"`
	BoughtOn  string  `json:"boughtOn"`
	OpenedOn  string  `json:"openedOn"`
	ExpiresOn string  `json:"expiresOn"`
	ArrivesOn string  `json:"arrivesOn,omitempty"`
}

func (e StockEdit) validate(ctx context.Context, q store.Queries) error {
	var bad fielderr.Errors
	p, err := q.Product(ctx, e.ProductID)
	if err != nil {
		bad.Add("productId", "choose a product of the library")
	}
	fielderr.OneOf(&bad, "part", e.Part, []string{"", product.BasePart, product.HardenerPart})
	if err == nil && e.Part != "" && p.Sheet.V.BaseShare() == 1 {
		bad.Add("part", "a one-part product has no parts")
	}
	bad.Range("litres", e.Litres, 0, 5000, "L")
	for _, d := range []struct{ path, day string }{{"boughtOn", e.BoughtOn}, {"openedOn", e.OpenedOn},
		{"expiresOn", e.ExpiresOn}, {"arrivesOn", e.ArrivesOn}} {
		if _, err := time.Parse(time.DateOnly, d.day); err != nil && d.day != "" {
			bad.Add(d.path, "%q is not a day such as 2026-05-30", d.day)
		}
	}
	return bad.Err()
}

func (e StockEdit) row(id string, version int, now time.Time) store.Stock {
	return store.Stock{ID: id, Version: version, ProductID: e.ProductID, Part: e.Part, Litres: e.Litres, Batch: e.Batch,
		Supplier: e.Supplier, Shelf: e.Shelf,
		Note: e.Note, BoughtOn: e.BoughtOn, OpenedOn: e.OpenedOn, ExpiresOn: e.ExpiresOn, ArrivesOn: e.ArrivesOn,
		CountedAt: now.Unix()}
}

// AddStock puts something on the shelf, counted now.
func (a *App) AddStock(ctx context.Context, e StockEdit) (StockItem, error) {
	return a.setStock(ctx, newID(), 0, e)
}

// EditStock counts an item anew.
func (a *App) EditStock(ctx context.Context, id string, version int, e StockEdit) (StockItem, error) {
	return a.setStock(ctx, id, version, e)
}

func (a *App) setStock(ctx context.Context, id string, version int, e StockEdit) (StockItem, error) {
	return change(ctx, a, func(ctx context.Context) (StockItem, error) {
		now, err := a.Now(ctx)
		if err != nil {
			return StockItem{}, err
		}
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if err := e.validate(ctx, q); err != nil {
				return err
			}
			if version == 0 {
				return q.AddStock(ctx, e.row(id, 1, now))
			}
			return q.EditStock(ctx, e.row(id, version, now))
		})
		current := func() (StockItem, error) {
			all, err := a.stock(ctx)
			for _, s := range all {
				if s.ID == id {
					return s, err
				}
			}
			return StockItem{}, cmp.Or(err, ErrNotFound)
		}
		if err != nil {
			return StockItem{}, stale(err, current)
		}
		return current()
	})
}

// RemoveStock takes an item off the shelf.
func (a *App) RemoveStock(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.RemoveStock(ctx, id) })
}

// stock lists the shelf with what was used since it was counted.
func (a *App) stock(ctx context.Context) ([]StockItem, error) {
	q := a.store.Read(ctx)
	library, err := products(ctx, q)
	if err != nil {
		return nil, err
	}
	sheets := map[string]product.Sheet{}
	for _, p := range library {
		sheets[p.ID] = p.Sheet
	}
	return a.shelf(ctx, q, sheets)
}

// shelf is stock with the library's sheets, by product.
func (a *App) shelf(ctx context.Context, q store.Queries, sheets map[string]product.Sheet) ([]StockItem, error) {
	rows, err := q.AllStock(ctx)
	if err != nil {
		return nil, err
	}
	uses, err := q.Uses(ctx)
	if err != nil {
		return nil, err
	}
	now, err := a.Now(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]StockItem, len(rows))
	for i, r := range rows {
		out[i] = StockItem{ID: r.ID, Version: r.Version, Product: sheets[r.ProductID].Name,
			CountedAt: time.Unix(r.CountedAt, 0).UTC(), LeftL: r.Litres,
			StockEdit: StockEdit{r.ProductID, r.Part, r.Litres, r.Batch, r.Supplier, r.Shelf, r.Note, r.BoughtOn,
				r.OpenedOn, r.ExpiresOn, r.ArrivesOn}, Awaited: r.ArrivesOn != ""}
	}
	order := func(x StockItem) string { // opened first, then what expires first
		return cmp.Or(x.OpenedOn, "9999") + cmp.Or(x.expires(sheets[x.ProductID]), "9999") +
			x.CountedAt.Format(time.RFC3339)
	}
	slices.SortStableFunc(out, func(a, b StockItem) int {
		return cmp.Or(cmp.Compare(a.Product, b.Product), cmp.Compare(order(a), order(b)))
	})
	left := make([]purchase.Shelved, len(out))
	for i, s := range out {
		left[i] = purchase.Shelved{Part: s.Part, LeftL: s.LeftL}
	}
	for _, u := range uses {
		var from []*purchase.Shelved
		for i, s := range out {
			if s.ProductID == u.ProductID && !s.Awaited && s.CountedAt.Unix() <= u.StartedAt {
				from = append(from, &left[i])
			}
		}
		purchase.Use(from, u.Litres, sheets[u.ProductID].BaseShare())
	}
	for i := range out {
		out[i].LeftL = left[i].LeftL
		if out[i].Awaited {
			if out[i].ArrivesOn < now.Format(time.DateOnly) {
				out[i].Worry = message.Of("was to come on %v: ask after it, or say that it came",
					purchase.OnDay(out[i].ArrivesOn))
			}
			continue
		}
		out[i].Expired, out[i].Worry = purchase.ShelfLife(out[i].expires(sheets[out[i].ProductID]), now)
	}
	return out, nil
}

// expires is the day on which an item's shelf life ends, "" if nothing tells.
func (s StockItem) expires(sheet product.Sheet) string {
	return purchase.Expiry(s.ExpiresOn, s.BoughtOn, sheet.ShelfLifeMonths)
}

// onShelf is what may still be used of a product on the shelf; noted tells
// whether anything of it is on the list at all.
func onShelf(shelf []StockItem, productID string, baseShare float64) (s purchase.Stock, noted bool) {
	return byDay(shelf, productID, baseShare, "")
}

// ordered is a day by which all that is awaited has come.
const ordered = "9999"

// byDay is onShelf with what is awaited until a day.
func byDay(shelf []StockItem, productID string, baseShare float64, day string) (s purchase.Stock, noted bool) {
	for _, item := range shelf {
		if item.ProductID != productID {
			continue
		}
		noted = true
		switch {
		case item.Expired, item.ArrivesOn > day:
		case item.Part == product.BasePart:
			s.BaseL += item.LeftL
		case item.Part == product.HardenerPart:
			s.HardenerL += item.LeftL
		default:
			s.BaseL += item.LeftL * baseShare
			s.HardenerL += item.LeftL * (1 - baseShare)
		}
	}
	return s, noted
}

// supplies are what there is of the products of which some is awaited.
func supplies(shelf []StockItem, sheets map[string]product.Sheet, now time.Time,
	loc *time.Location) map[string]plan.Supply {
	out := map[string]plan.Supply{}
	awaited := slices.DeleteFunc(slices.Clone(shelf), func(s StockItem) bool { return !s.Awaited })
	sortBy(awaited, func(s StockItem) string { return s.ArrivesOn })
	for _, item := range awaited {
		share := sheets[item.ProductID].BaseShare()
		s, seen := out[item.ProductID]
		if !seen {
			here, _ := onShelf(shelf, item.ProductID, share)
			s.HereL = here.Mixed(share)
		}
		sum := s.HereL
		for _, d := range s.Awaited {
			sum += d.Litres
		}
		by, _ := byDay(shelf, item.ProductID, share, item.ArrivesOn)
		if more := by.Mixed(
			share) - sum; more > 0 { // not one part that waits for the other, nor the same day told twice
			s.Awaited = append(s.Awaited, plan.Delivery{At: plan.Comes(item.ArrivesOn, now, loc), Litres: more})
		}
		out[item.ProductID] = s
	}
	return out
}

// expiredOn is the day on which the last of a product on the shelf went past
// its shelf life, "" while some of it is good or nothing is noted.
func (w work) expiredOn(productID string) string {
	last := ""
	for _, s := range w.shelf {
		if s.ProductID != productID || s.LeftL <= 0 || s.Awaited {
			continue
		}
		if !s.Expired {
			return ""
		}
		last = max(last, s.expires(w.products[productID]))
	}
	return last
}
