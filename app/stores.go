package app

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fault"
	"allcoats/core/base/parallel"
	"allcoats/core/base/say"
	"allcoats/core/catalog/product"
	"allcoats/core/catalog/tins"
	"allcoats/core/film/step"
	"allcoats/core/job/buildup"
	"allcoats/core/job/task"
	"allcoats/core/planning/plan"
	"allcoats/formats"
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
	Worry   string `json:"worry"`
	Expired bool   `json:"expired"`
	Awaited bool   `json:"awaited"`
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
	var bad fault.Errors
	p, err := q.Product(ctx, e.ProductID)
	if err != nil {
		bad.Add("productId", "choose a product of the library")
	}
	fault.OneOf(&bad, "part", e.Part, []string{"", product.BasePart, product.HardenerPart})
	if err == nil && e.Part != "" && p.Sheet.V.BaseShare() == 1 {
		bad.Add("part", "a one-part product has no parts")
	}
	bad.Range("litres", e.Litres, 0, 5000, "L")
	for _, d := range []struct{ path, day string }{{"boughtOn", e.BoughtOn}, {"openedOn", e.OpenedOn}, {"expiresOn", e.ExpiresOn}, {"arrivesOn", e.ArrivesOn}} {
		if _, err := time.Parse(time.DateOnly, d.day); err != nil && d.day != "" {
			bad.Add(d.path, "%q is not a day such as 2026-05-30", d.day)
		}
	}
	return bad.Err()
}

func (e StockEdit) row(id string, version int, now time.Time) store.Stock {
	return store.Stock{ID: id, Version: version, ProductID: e.ProductID, Part: e.Part, Litres: e.Litres, Batch: e.Batch, Supplier: e.Supplier, Shelf: e.Shelf,
		Note: e.Note, BoughtOn: e.BoughtOn, OpenedOn: e.OpenedOn, ExpiresOn: e.ExpiresOn, ArrivesOn: e.ArrivesOn, CountedAt: now.Unix()}
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
		out[i] = StockItem{ID: r.ID, Version: r.Version, Product: sheets[r.ProductID].Name, CountedAt: time.Unix(r.CountedAt, 0).UTC(), LeftL: r.Litres,
			StockEdit: StockEdit{r.ProductID, r.Part, r.Litres, r.Batch, r.Supplier, r.Shelf, r.Note, r.BoughtOn, r.OpenedOn, r.ExpiresOn, r.ArrivesOn}, Awaited: r.ArrivesOn != ""}
	}
	order := func(x StockItem) string { // opened first, then what expires first
		return cmp.Or(x.OpenedOn, "9999") + cmp.Or(x.expires(sheets[x.ProductID]), "9999") + x.CountedAt.Format(time.RFC3339)
	}
	slices.SortStableFunc(out, func(a, b StockItem) int {
		return cmp.Or(cmp.Compare(a.Product, b.Product), cmp.Compare(order(a), order(b)))
	})
	left := make([]tins.Shelved, len(out))
	for i, s := range out {
		left[i] = tins.Shelved{Part: s.Part, LeftL: s.LeftL}
	}
	for _, u := range uses {
		var from []*tins.Shelved
		for i, s := range out {
			if s.ProductID == u.ProductID && !s.Awaited && s.CountedAt.Unix() <= u.StartedAt {
				from = append(from, &left[i])
			}
		}
		tins.Use(from, u.Litres, sheets[u.ProductID].BaseShare())
	}
	for i := range out {
		out[i].LeftL = left[i].LeftL
		if out[i].Awaited {
			if out[i].ArrivesOn < now.Format(time.DateOnly) {
				out[i].Worry = fmt.Sprintf("was to come on %s: ask after it, or say that it came", out[i].ArrivesOn)
			}
			continue
		}
		out[i].Expired, out[i].Worry = tins.ShelfLife(out[i].expires(sheets[out[i].ProductID]), now)
	}
	return out, nil
}

// expires is the day on which an item's shelf life ends, "" if nothing tells.
func (s StockItem) expires(sheet product.Sheet) string {
	return tins.Expiry(s.ExpiresOn, s.BoughtOn, sheet.ShelfLifeMonths)
}

// onShelf is what may still be used of a product on the shelf; noted tells
// whether anything of it is on the list at all.
func onShelf(shelf []StockItem, productID string, baseShare float64) (s tins.Stock, noted bool) {
	return byDay(shelf, productID, baseShare, "")
}

// ordered is a day by which all that is awaited has come.
const ordered = "9999"

// byDay is onShelf with what is awaited until a day.
func byDay(shelf []StockItem, productID string, baseShare float64, day string) (s tins.Stock, noted bool) {
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

// supplies are what there is of the products of which some is awaited. What comes on a day is there
// by noon; what should have come is hoped for by the next.
func supplies(shelf []StockItem, sheets map[string]product.Sheet, now time.Time, loc *time.Location) map[string]plan.Supply {
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
		at, err := time.ParseInLocation(time.DateOnly, item.ArrivesOn, loc)
		if at = at.Add(12 * time.Hour); err != nil || !at.After(now) {
			at = now.AddDate(0, 0, 1)
		}
		if more := by.Mixed(share) - sum; more > 0 { // not one part that waits for the other, nor the same day told twice
			s.Awaited = append(s.Awaited, plan.Delivery{At: at, Litres: more})
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

// Need is what is still needed of a product, what the shelf has of it, and what
// to buy. Low says that the next coat cannot be finished with what is there.
type Need struct {
	ProductID  string        `json:"productId"`
	Product    string        `json:"product"`
	Coats      int           `json:"coats"`
	Surfaces   []string      `json:"surfaces"`
	Forecast   tins.Forecast `json:"forecast"`
	ReckonedL  float64       `json:"reckonedL"`
	StockL     float64       `json:"stockL"`
	AwaitedL   float64       `json:"awaitedL" doc:"ordered and not there yet; not bought again"`
	Purchase   tins.Purchase `json:"purchase"`
	OneMore    int           `json:"oneMoreCents" doc:"what the next larger purchase would cost more"`
	OneMoreL   float64       `json:"oneMoreL"`
	NextCoatL  float64       `json:"nextCoatL"`
	Low        bool          `json:"low"`
	Impossible bool          `json:"impossible" doc:"the sheet names no tins that would do"`
	// Notes say how far a tin goes, and what is left over and until when it keeps.
	Notes []say.Sentence `json:"notes"`
}

// note fills in Notes.
func (n *Need) note(s product.Sheet, now time.Time) {
	n.Notes = []say.Sentence{}
	if coatL := n.Forecast.LitresL / float64(max(1, n.Coats)); coatL > 0 && len(n.Purchase.Tins) > 0 {
		goes := make([]string, len(n.Purchase.Tins))
		for i, t := range n.Purchase.Tins {
			goes[i] = fmt.Sprintf("a %s is %.1f coats", t.Name, t.Litres/coatL)
		}
		n.Notes = append(n.Notes, say.Of("A coat takes %v; %s.", say.Val(coatL, "L"), strings.Join(goes, ", ")))
	}
	if until := tins.Expiry("", now.Format(time.DateOnly), s.ShelfLifeMonths); until != "" && n.Purchase.LeftoverL >= 0.05 && len(n.Purchase.Tins) > 0 {
		n.Notes = append(n.Notes, say.Of("What is over keeps until %s if it is not opened.", until))
	}
	if n.Purchase.OddL > 0 {
		n.Notes = append(n.Notes, say.Of("Of it %v is %s with nothing to go with: buy the other part alone if it is sold so, or leave it.", say.Val(n.Purchase.OddL, "L"), n.Purchase.OddPart))
	}
}

// Stores is the shelf and what is to be bought, for one boat or the yard.
type Stores struct {
	Stock     []StockItem `json:"stock"`
	Needs     []Need      `json:"needs"`
	CostCents int         `json:"costCents"`
	Priced    bool        `json:"priced"`
	StopCents int         `json:"stopCents"`
	// LeftH are the hours of work still to come, LabourCents what they cost, 0 without a
	// price of an hour.
	LeftH       float64 `json:"leftH"`
	WorkDayH    float64 `json:"workDayH"`
	LabourCents float64 `json:"labourCents"`
	// Consumables are what the work still to be done uses up beside the tins.
	Consumables []buildup.Consumable `json:"consumables"`
	// Unread are boats that are left out, with why.
	Unread []say.Sentence `json:"unread"`
	// First is what the plan runs short of first, nil without a plan or when nothing is short.
	First *Short `json:"first,omitempty"`
}

// Short is a coat of the plan that the shelf does not carry any more.
type Short struct {
	ProductID string    `json:"productId"`
	Product   string    `json:"product"`
	Boat      string    `json:"boat"`
	Surface   string    `json:"surface"`
	At        time.Time `json:"at"`
}

// coming is a coat, or a part of one, as the plan has it.
type coming struct {
	Short
	litres float64
}

// comingUp lists the coats of a boat in the plan of her place.
func (a *App) comingUp(ctx context.Context, w work) ([]coming, error) {
	yard, _, err := a.showYard(ctx, w.survey.Place.ID)
	if err != nil {
		return nil, err
	}
	tasks := map[string]task.Task{}
	for _, c := range w.job.Surfaces {
		for _, t := range c.Tasks {
			tasks[t.ID] = t
		}
	}
	var out []coming
	for _, p := range ofBoat(yard.view.Plan, w.survey.Boat.ID) {
		if t := tasks[p.Whole]; p.Coat && t.ProductID != "" {
			s := Short{ProductID: t.ProductID, Product: w.products[t.ProductID].Name, Boat: w.survey.Boat.Name, Surface: p.Surface, At: p.Start}
			out = append(out, coming{s, t.Litres * p.SharePct / 100})
		}
	}
	return out, nil
}

// firstShort is the first coat that what is on the shelf, litres by product, does not carry.
func firstShort(all []coming, shelf map[string]float64) *Short {
	slices.SortStableFunc(all, func(a, b coming) int { return a.At.Compare(b.At) })
	for i, c := range all {
		if shelf[c.ProductID] -= c.litres; shelf[c.ProductID] < -0.005 {
			return &all[i].Short
		}
	}
	return nil
}

// Stores reckons what is still to be bought for a boat, or with an empty id for
// all boats: from the coats planned and not yet laid, corrected by what logged
// coats took, against the shelf; and what the plan runs short of first.
func (a *App) Stores(ctx context.Context, boatID string) (Stores, error) {
	out, works, err := a.toBuy(ctx, boatID)
	if err != nil {
		return out, err
	}
	each, failed := make([][]coming, len(works)), make([]error, len(works))
	err = parallel.Each(ctx, len(works), nil, func(_, i int) { each[i], failed[i] = a.comingUp(ctx, works[i]) })
	if err := errors.Join(append(failed, err)...); err != nil {
		return out, err
	}
	coats := slices.Concat(each...)
	shelf := map[string]float64{}
	for _, n := range out.Needs {
		shelf[n.ProductID] = n.StockL
	}
	out.First = firstShort(coats, shelf)
	return out, nil
}

// toBuy is Stores without the plan, and the work that it was reckoned from.
func (a *App) toBuy(ctx context.Context, boatID string) (Stores, []work, error) {
	out := Stores{Needs: []Need{}, Priced: true, StopCents: tins.StopCents, Consumables: []buildup.Consumable{}, Unread: []say.Sentence{}}
	var err error
	if out.Stock, err = a.stock(ctx); err != nil {
		return out, nil, err
	}
	now, err := a.Now(ctx)
	if err != nil {
		return out, nil, err
	}
	q := a.store.Read(ctx)
	ids, names := []string{boatID}, map[string]string{}
	if boatID == "" {
		ids = nil
		boats, err := q.Boats(ctx)
		if err != nil {
			return out, nil, err
		}
		for _, b := range boats {
			ids = append(ids, b.ID)
			names[b.ID] = b.Name
		}
	}
	type need struct {
		Need
		sheet product.Sheet
		parts []tins.Forecast
	}
	byID := map[string]*need{}
	loaded, failed := make([]work, len(ids)), make([]error, len(ids))
	if err := parallel.Each(ctx, len(ids), nil, func(_, i int) { loaded[i], failed[i] = a.loadBoatWork(ctx, q, ids[i]) }); err != nil {
		return out, nil, err
	}
	var works []work
	for i, id := range ids {
		w, err := loaded[i], failed[i]
		if err != nil && len(ids) > 1 {
			why, err := unread(ctx, names[id], err)
			if err != nil {
				return out, nil, err
			}
			out.Unread = append(out.Unread, why)
			continue
		}
		if err != nil {
			return out, nil, err
		}
		out.LeftH += w.job.Sum.LeftH
		out.WorkDayH = w.workDayH()
		out.LabourCents += w.job.Sum.LeftH * w.choices.HourCents
		for _, f := range w.survey.Surfaces {
			rest, err := w.toCome(f)
			if err != nil {
				return out, nil, err
			}
			out.Consumables = buildup.AddUp(out.Consumables, rest...)
		}
		works = append(works, w)
		for product, k := range w.job.Needs {
			if k.Coats == 0 {
				continue
			}
			n := byID[product]
			if n == nil {
				n = &need{sheet: w.products[product], Need: Need{ProductID: product, Product: w.products[product].Name, Surfaces: []string{}}}
				byID[product] = n
			}
			n.Coats += k.Coats
			n.ReckonedL += k.ReckonedL
			n.NextCoatL = math.Max(n.NextCoatL, k.NextCoatL)
			n.parts = append(n.parts, k.Forecast)
			for _, name := range k.Surfaces {
				if len(ids) > 1 {
					name = w.survey.Boat.Name + ": " + name
				}
				n.Surfaces = append(n.Surfaces, name)
			}
		}
	}
	for _, n := range byID {
		n.Forecast = tins.Together(n.parts)
		share := n.sheet.BaseShare()
		here, _ := onShelf(out.Stock, n.ProductID, share)
		shelf, _ := byDay(out.Stock, n.ProductID, share, ordered)
		n.StockL = here.Mixed(share)
		n.AwaitedL = shelf.Mixed(share) - n.StockL
		var ok bool
		n.Purchase, ok = tins.Cover(n.Forecast.BuyL, n.sheet, shelf)
		n.Impossible = !ok
		if more, ok := tins.Cover(n.Forecast.BuyL+math.Max(0.05, n.Purchase.LeftoverL+0.001), n.sheet, shelf); ok && n.Purchase.Priced {
			n.OneMore, n.OneMoreL = more.CostCents-n.Purchase.CostCents, more.Litres-n.Purchase.Litres
		}
		n.Low = n.StockL < n.NextCoatL
		n.note(n.sheet, now)
		out.CostCents += n.Purchase.CostCents
		out.Priced = out.Priced && n.Purchase.Priced && ok
		out.Needs = append(out.Needs, n.Need)
	}
	sortBy(out.Needs, func(n Need) string { return n.Product })
	return out, works, nil
}

// toCome is what the tasks of a surface that are still to be done use up.
func (w work) toCome(f Surface) ([]buildup.Consumable, error) {
	var rest []step.Step
	for _, st := range w.steps[f.ID] {
		one := w.planned(st).Step
		if one.Films() {
			one.Coats = 0
		}
		left := false
		for _, t := range w.job.Chain(f.ID).Tasks {
			if t.StepID != st.ID || !t.Left() || t.Work != st.Work {
				continue
			}
			left = true
			if t.Films {
				one.Coats++
			}
		}
		if left {
			rest = append(rest, one)
		}
	}
	r, err := buildup.Compute(f.Area.Figure, f.accessFactor(), rest, w.own(f.ID))
	if err != nil {
		return nil, err
	}
	return buildup.Consumables(f.edgeM(), rest, r), nil
}

// ShoppingList is the list as a file, csv or xlsx.
func (a *App) ShoppingList(ctx context.Context, boatID, format string) ([]byte, error) {
	s, _, err := a.toBuy(ctx, boatID)
	if err != nil {
		return nil, err
	}
	table := formats.Table{Name: "Shopping list", Header: []string{"product", "pack", "number", "litres a pack", "price a pack", "currency", "supplier", "part number", "needed L", "low L", "high L", "on the shelf L", "for"}}
	currency, err := a.Currency(ctx)
	if err != nil {
		return nil, err
	}
	for _, n := range s.Needs {
		for _, t := range n.Purchase.Tins {
			table.Rows = append(table.Rows, []any{n.Product, t.Name, t.Count, t.Litres, price(t.PriceCents), currency, t.Supplier, t.PartNo, round(n.Forecast.BuyL), round(n.Forecast.LowL), round(n.Forecast.HighL), round(n.StockL), strings.Join(n.Surfaces, "; ")})
		}
	}
	switch format {
	case "csv":
		return table.CSV()
	case "xlsx":
		return table.XLSX()
	}
	return nil, fault.At("format", "must be csv or xlsx")
}

// price is a price in whole money, empty where none is known.
func price(cents int) any {
	if cents == 0 {
		return ""
	}
	return float64(cents) / 100
}

func round(v float64) float64 { return math.Round(100*v) / 100 }
