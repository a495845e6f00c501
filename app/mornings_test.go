package app_test

import (
	"context"
	"testing"
	"time"

	"allcoats/core/base/message"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The morning of the yard says of each boat what her own screens say.
func TestMorningSaysWhatTheBoatsSay(t *testing.T) {
	a, _, _ := yardOf(t)
	ctx := context.Background()
	m, err := a.Morning(ctx)
	require.NoError(t, err)
	require.Len(t, m.Places, 1)
	place := m.Places[0]
	require.Len(t, place.Boats, 3)
	plan, err := a.YardPlan(ctx, place.Place.ID)
	require.NoError(t, err)
	late := map[string]float64{}
	for _, l := range plan.Plan.Launches {
		late[l.BoatID] = l.LateH
	}
	strong := map[string]bool{}
	var see func(all message.Sentence)
	see = func(all message.Sentence) {
		for _, s := range all {
			if s.Strong {
				strong[s.Text] = true
			}
			for _, w := range s.With {
				see(w)
			}
		}
	}
	see(m.Says)
	see(m.Detail)
	for _, b := range place.Boats {
		own, err := a.Today(ctx, b.ID)
		require.NoError(t, err)
		assert.Equal(t, own.Answer.Headline.In(time.UTC), b.Says.In(time.UTC), b.Name)
		require.NotNil(t, b.Launch, b.Name)
		assert.InDelta(t, late[b.ID], b.Launch.LateH, 1e-9, b.Name)
		if b.Launch.LateH > 0 {
			assert.True(t, strong[b.Name], "%s is late, and the first sentences do not say so", b.Name)
		}
	}
}
