package app

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/parallel"
	"allcoats/core/catalog/product"
	"allcoats/core/catalog/purchase"
	"allcoats/core/film/step"
	"allcoats/core/job/buildup"
	"allcoats/core/job/task"
	"allcoats/formats"
)

// Need is what is still needed of a product, what the shelf has of it, and what
// to buy. Low says that the next coat cannot be finished with what is there.
type Need struct {
	ProductID  string            `json:"productId"`
	Product    string            `json:"product"`
	Coats      int               `json:"coats"`
	Surfaces   []string          `json:"surfaces"`
	Forecast   purchase.Forecast `json:"forecast"`
	ReckonedL  float64           `json:"reckonedL"`
	StockL     float64           `json:"stockL"`
	AwaitedL   float64           `json:"awaitedL" doc:"ordered and not there yet; not bought again"`
	Purchase   purchase.Purchase `json:"purchase"`
	OneMore    int               `json:"oneMoreCents" doc:"what the next larger purchase would cost more"`
	OneMoreL   float64           `json:"oneMoreL"`
	NextCoatL  float64           `json:"nextCoatL"`
	Low        bool              `json:"low"`
	Impossible bool              `json:"impossible" doc:"the sheet names no tins that would do"`
	// Notes say how far a tin goes, and what is left over and until when it keeps.
	Notes []message.Sentence `json:"notes"`
}

// note fills in Notes.
func (n *Need) note(s product.Sheet, now time.Time) {
	n.Notes = []message.Sentence{}
	if coatL := n.Forecast.LitresL / float64(max(1, n.Coats)); coatL > 0 && len(n.Purchase.Tins) > 0 {
		goes := make([]string, len(n.Purchase.Tins))
		for i, t := range n.Purchase.Tins {
			goes[i] = fmt.Sprintf("a %s is %.1f coats", t.Name, t.Litres/coatL)
		}
		n.Notes = append(n.Notes, message.Of("A coat takes %v; %s.", message.Val(coatL, "L"), strings.Join(goes, ", ")))
	}
	if until := purchase.Expiry("", now.Format(time.DateOnly), s.ShelfLifeMonths); until != "" &&
		n.Purchase.LeftoverL >= 0.05 && len(n.Purchase.Tins) > 0 {
		n.Notes = append(n.Notes, message.Of("What is over keeps until %v if it is not opened.", purchase.OnDay(until)))
	}
	if n.Purchase.OddL > 0 {
		n.Notes = append(n.Notes,
			message.Of(
				"Of it %v is %s with nothing to go with: buy the other part alone if it is sold so, or leave it.",
				message.Val(n.Purchase.OddL, "L"), n.Purchase.OddPart))
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
	Unread []message.Sentence `json:"unread"`
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
			s := Short{ProductID: t.ProductID, Product: w.products[t.ProductID].Name, Boat: w.survey.Boat.Name,
				Surface: p.Surface, At: p.Start}
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
	out := Stores{Needs: []Need{}, Priced: true, StopCents: purchase.StopCents, Consumables: []buildup.Consumable{},
		Unread: []message.Sentence{}}
	var err error
	if out.Stock, err = a.stock(ctx); err != nil {
		return out, nil, err
	}
	now, err := a.Now(ctx)
	if err != nil {
		return out, nil, err
	}
	works, unread, err := a.worksOf(ctx, boatID)
	if err != nil {
		return out, nil, err
	}
	out.Unread = append(out.Unread, unread...)
	all := needs{}
	for _, w := range works {
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
		all.add(w, boatID == "")
	}
	for _, n := range all {
		known := n.cover(out.Stock, now)
		out.CostCents += n.Purchase.CostCents
		out.Priced = out.Priced && n.Purchase.Priced && known
		out.Needs = append(out.Needs, n.Need)
	}
	sortBy(out.Needs, func(n Need) string { return n.Product })
	return out, works, nil
}

// worksOf loads the work of a boat, or of all for no id: then what cannot be read of some is told.
func (a *App) worksOf(ctx context.Context, boatID string) (out []work, untold []message.Sentence, err error) {
	q := a.store.Read(ctx)
	if boatID != "" {
		w, err := a.loadBoatWork(ctx, q, boatID)
		return []work{w}, nil, err
	}
	boats, err := q.Boats(ctx)
	if err != nil {
		return nil, nil, err
	}
	loaded, failed := make([]work, len(boats)), make([]error, len(boats))
	if err := parallel.Each(ctx, len(boats), nil, func(_, i int) {
		loaded[i], failed[i] = a.loadBoatWork(ctx, q, boats[i].ID)
	}); err != nil {
		return nil, nil, err
	}
	for i, b := range boats {
		if failed[i] == nil {
			out = append(out, loaded[i])
			continue
		}
		why, err := unread(ctx, b.Name, failed[i])
		if err != nil {
			return nil, nil, err
		}
		untold = append(untold, why)
	}
	return out, untold, nil
}

// needed is a need with what it is reckoned from.
type needed struct {
	Need
	sheet product.Sheet
	parts []purchase.Forecast
}

// needs are those of products.
type needs map[string]*needed

// add adds what the work of a boat needs, her surfaces by her name if there are others.
func (all needs) add(w work, named bool) {
	for id, k := range w.job.Needs {
		if k.Coats == 0 {
			continue
		}
		n := all[id]
		if n == nil {
			n = &needed{sheet: w.products[id], Need: Need{ProductID: id, Product: w.products[id].Name,
				Surfaces: []string{}}}
			all[id] = n
		}
		n.Coats += k.Coats
		n.ReckonedL += k.ReckonedL
		n.NextCoatL = math.Max(n.NextCoatL, k.NextCoatL)
		n.parts = append(n.parts, k.Forecast())
		for _, name := range k.Surfaces {
			if named {
				name = w.survey.Boat.Name + ": " + name
			}
			n.Surfaces = append(n.Surfaces, name)
		}
	}
}

// cover works out what is bought for a need beside the shelf; known tells whether tins cover it.
func (n *needed) cover(stock []StockItem, now time.Time) (known bool) {
	n.Forecast = purchase.Together(n.parts)
	share := n.sheet.BaseShare()
	here, _ := onShelf(stock, n.ProductID, share)
	shelf, _ := byDay(stock, n.ProductID, share, ordered)
	n.StockL = here.Mixed(share)
	n.AwaitedL = shelf.Mixed(share) - n.StockL
	n.Purchase, known = purchase.Cover(n.Forecast.BuyL, n.sheet, shelf)
	n.Impossible = !known
	more, ok := purchase.Cover(n.Forecast.BuyL+math.Max(0.05, n.Purchase.LeftoverL+0.001), n.sheet, shelf)
	if ok && n.Purchase.Priced {
		n.OneMore, n.OneMoreL = more.CostCents-n.Purchase.CostCents, more.Litres-n.Purchase.Litres
	}
	n.Low = n.StockL < n.NextCoatL
	n.note(n.sheet, now)
	return known
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
	table := formats.Table{Name: "Shopping list", Header: []string{"product", "pack", "number", "litres a pack",
		"price a pack", "currency", "supplier", "part number", "needed L", "low L", "high L", "on the shelf L", "for"}}
	currency, err := a.Currency(ctx)
	if err != nil {
		return nil, err
	}
	for _, n := range s.Needs {
		for _, t := range n.Purchase.Tins {
			table.Rows = append(table.Rows, []any{n.Product, t.Name, t.Count, t.Litres, price(t.PriceCents), currency,
				t.Supplier, t.PartNo, round(n.Forecast.BuyL), round(n.Forecast.LowL), round(n.Forecast.HighL),
				round(n.StockL), strings.Join(n.Surfaces, "; ")})
		}
	}
	switch format {
	case "csv":
		return table.CSV()
	case "xlsx":
		return table.XLSX()
	}
	return nil, fielderr.At("format", "must be csv or xlsx")
}

// price is a price in whole money, empty where none is known.
func price(cents int) any {
	if cents == 0 {
		return ""
	}
	return float64(cents) / 100
}

func round(v float64) float64 { return math.Round(100*v) / 100 }
