package parallel

import (
	"context"
	"sort"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestEveryPieceOnceAndProgressRises(t *testing.T) {
	const n = 500
	var times [n]atomic.Int32
	var told []float64
	require.NoError(t, Each(t.Context(), n, func(d float64) { told = append(told, d) }, func(w, i int) {
		assert.True(t, w >= 0 && w < Workers())
		times[i].Add(1)
	}))
	for i := range times {
		assert.Equal(t, int32(1), times[i].Load(), "piece %d", i)
	}
	assert.Len(t, told, n)
	assert.True(t, sort.Float64sAreSorted(told))
	assert.Equal(t, 1.0, told[n-1])
}

func TestAnEndedContextLeavesTheRest(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	var did atomic.Int32
	err := Each(ctx, 1_000_000, nil, func(_, i int) {
		did.Add(1)
		stop()
	})
	assert.ErrorIs(t, err, context.Canceled)
	assert.LessOrEqual(t, int(did.Load()), Workers())
}
