package app_test

import (
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/film/step"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is on order is not bought twice, is not on the shelf, holds the coats up until it comes, and
// then does not.
func TestADeliveryIsAwaited(t *testing.T) {
	a := withDemo(t)
	p := sheet(t, a)
	boat, s := square(t, a)
	_, err := a.SetBuildUp(ctx, s.ID, s.Version,
		[]app.Step{{ProductID: p.ID, Step: step.Step{Work: step.Coat, Coats: 1, DFTUm: 50, Method: "roller",
			LossPct: 10}}})
	require.NoError(t, err)
	day := demo.Now.AddDate(0, 0, 9)
	order := app.StockEdit{ProductID: p.ID, Litres: 8, ArrivesOn: "some day"}
	_, err = a.AddStock(ctx, order)
	require.ErrorContains(t, err, "arrivesOn")
	order.ArrivesOn = day.Format(time.DateOnly)
	item, err := a.AddStock(ctx, order)
	require.NoError(t, err)

	need := func() app.Need {
		got, err := a.Stores(ctx, boat)
		require.NoError(t, err)
		require.Len(t, got.Needs, 1)
		return got.Needs[0]
	}
	n := need()
	assert.Zero(t, n.StockL)
	assert.InDelta(t, 8, n.AwaitedL, 1e-9)
	assert.Empty(t, n.Purchase.Tins, "5.6 L are needed, 8 L are on order")
	assert.True(t, n.Low, "not there yet")

	start := func() (at time.Time, why string) {
		y, err := a.YardPlan(ctx, must(a.Places(ctx))[0].ID)
		require.NoError(t, err)
		for _, it := range y.Plan.Items {
			if it.SurfaceID == s.ID && it.Coat {
				at, why = it.Start, it.Why.String()
			}
		}
		return at, why
	}
	at, _ := start()
	assert.True(t, at.After(day.Truncate(24*time.Hour)), "laid on %v, comes on %v", at, day)

	order.ArrivesOn = ""
	_, err = a.EditStock(ctx, item.ID, item.Version, order)
	require.NoError(t, err)
	assert.InDelta(t, 8, need().StockL, 1e-9)
	assert.Zero(t, need().AwaitedL)
	sooner, why := start()
	assert.True(t, sooner.Before(at), "laid on %v, then on %v: %s", at, sooner, why)
}
