package app_test

import (
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/film/step"
	"allcoats/core/job/quote"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Two coats of 5.556 L at 20.00 a litre are 222.22 of material; the rest of what the shop asks is for the
// hours.
func TestAQuoteAgainstOneself(t *testing.T) {
	a := withDemo(t)
	p := sheet(t, a)
	boat, s := square(t, a)
	_, err := a.SetBuildUp(ctx, s.ID, s.Version, []app.Step{{Step: step.Step{Work: step.Wash, Agent: "detergent"}},
		{ProductID: p.ID, Step: step.Step{Work: step.Coat, Coats: 2, DFTUm: 50, Method: "roller", LossPct: 10}}})
	require.NoError(t, err)
	ready := demo.Now.AddDate(0, 0, 14).Format(time.DateOnly)
	none := must(a.Quotes(ctx, boat))
	assert.Empty(t, none.Quotes)
	_, err = a.SetQuotes(ctx, boat, none.Version, []quote.Quote{{Who: " "}})
	require.ErrorContains(t, err, "quotes[0].who")
	got, err := a.SetQuotes(ctx, boat, none.Version,
		[]quote.Quote{{Who: "the spray shop", Surfaces: []string{s.ID}, Coats: true, Cents: 90_000, ReadyOn: ready,
			LastsYears: 6}})
	require.NoError(t, err)
	require.Len(t, got.Quotes, 1)
	o := got.Quotes[0]
	acc := must(a.Accounts(ctx, boat))
	assert.InDelta(t, 2*5.5556*2000, o.Own.Material, 1)
	assert.InDelta(t, o.Own.Hours*acc.HourCents, o.Own.Labour, 1e-6)
	assert.InDelta(t, 90_000-o.Own.Material-o.Own.Labour, o.Dearer, 1e-6)
	require.NotNil(t, o.SavedHour)
	assert.InDelta(t, (90_000-o.Own.Material)/o.Own.Hours, *o.SavedHour, 1e-6)
	assert.Positive(t, o.OwnLasts)
	assert.NotNil(t, o.OwnReady)
	assert.Less(t, o.Own.Hours, acc.LeftHours, "the wash stays")

	var stale app.Conflict
	_, err = a.SetQuotes(ctx, boat, none.Version, nil)
	require.ErrorAs(t, err, &stale)
}
