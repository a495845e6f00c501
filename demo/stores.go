package demo

import (
	"context"
	"fmt"
	"time"

	"allcoats/app"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
)

// shelved is something on the yard's shelf: opened and expiring so many days
// after now, 0 for not opened or not stated.
type shelved struct {
	kind            product.Kind
	part            string
	litres          float64
	batch, shelf    string
	opened, expires int
}

var shelf = []shelved{
	{product.Barrier, "", 4.2, "B-2207", "paint locker, top", -11, 300},
	{product.HighBuild, "", 3.1, "H-118", "paint locker, top", -3, 240},
	{product.TopcoatTwo, "", 2.5, "T-0452", "paint locker, middle", 0, 410},
	{product.Varnish, "", 1.1, "V-77", "store room", -10, 120},
	{product.SoftAntifoul, "", 2.5, "A-19", "under the bench", 0, -20},
	{product.MetalPrimer, "", 0.6, "M-3", "paint locker, middle", -15, 90},
	{product.Thinner, "", 5, "", "solvent bin", -40, 0},
}

// stockUp fills the shelf and keeps the yard's own system of steps.
func stockUp(ctx context.Context, a *app.App, byKind map[product.Kind]app.Product, now time.Time) error {
	day := func(days int) string {
		if days == 0 {
			return ""
		}
		return now.AddDate(0, 0, days).Format(time.DateOnly)
	}
	for _, s := range shelf {
		e := app.StockEdit{ProductID: byKind[s.kind].ID, Part: s.part, Litres: s.litres, Batch: s.batch,
			Supplier: "Sallow Creek chandler",
			Shelf:    s.shelf, BoughtOn: day(-60), OpenedOn: day(s.opened), ExpiresOn: day(s.expires)}
		if _, err := a.AddStock(ctx, e); err != nil {
			return fmt.Errorf("shelf, %s: %w", s.kind, err)
		}
	}
	_, err := a.AddSystem(ctx, app.SystemEdit{Name: "Yard's bottom job",
		Note: "Barrier grey and green by turns, so a missed patch shows.", Steps: []app.Step{
			{Step: step.Step{Work: step.Wash, Note: "high pressure, same day as the lift"}},
			{Step: step.Step{Work: step.Sand, Grit: 120}},
			{Step: step.Step{Work: step.Degrease, Agent: "solvent, two rags"}},
			{ProductID: byKind[product.Barrier].ID, Step: step.Step{Work: step.Coat, Coats: 5, DFTUm: 125,
				Method:  "roller",
				LossPct: 10}},
			{ProductID: byKind[product.SoftAntifoul].ID, Step: step.Step{Work: step.Coat, Coats: 2, DFTUm: 60,
				Method: "roller", LossPct: 10}},
		}})
	if err != nil {
		return fmt.Errorf("system: %w", err)
	}
	return nil
}
