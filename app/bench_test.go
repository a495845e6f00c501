package app_test

import (
	"testing"
	"time"

	"allcoats/app"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A pot for a coat that may not go on yet is told for when it may: as warm as it is by then, not as
// it is in the cold of the morning, in which it would live longer.
func TestPotsOfLaterAreAsWarmAsThen(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Marsh Lantern")
	today := must(a.Today(ctx, boat.ID))
	later := 0
	for _, l := range today.Answer.Lanes {
		b := must(a.Bench(ctx, boat.ID, app.BenchQuery{SurfaceID: l.SurfaceID}))
		if l.Surface == "Deck" {
			assert.True(t, b.BeginsAt.After(b.Now.AddDate(0, 0, 2)), "other work comes first, till when the plan has it")
		}
		if l.Mix == nil || len(l.Starts) == 0 {
			continue
		}
		require.NotEmpty(t, b.Batches.Batches, l.Surface)
		assert.Equal(t, b.BeginsAt, b.Batches.Batches[0].LayAt, l.Surface)
		assert.WithinDuration(t, l.Starts[0].From, b.BeginsAt, time.Minute, "%s: as Today says", l.Surface)
		if b.BeginsAt.After(b.Now.Add(30 * time.Minute)) {
			later++
			cold := b.PotC - 0.1
			now := must(a.Bench(ctx, boat.ID, app.BenchQuery{SurfaceID: l.SurfaceID, PotC: &cold}))
			assert.Greater(t, now.Batches.PotLifeH, b.Batches.PotLifeH, "colder it would live longer")
			assert.Greater(t, b.PotC, 9.5, "the morning has 9.2 °C")
		}
	}
	assert.Positive(t, later)
}
