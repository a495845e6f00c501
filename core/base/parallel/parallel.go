// Package parallel runs pieces of work that do not depend on one another on all
// processors.
package parallel

import (
	"context"
	"runtime"
	"sync"
	"sync/atomic"
)

// Workers is how many pieces run at once.
func Workers() int { return runtime.GOMAXPROCS(0) }

// Each calls do for every i in [0, n), each with the number of the worker it runs on,
// in [0, Workers()). told, if not nil, hears the share done, rising, by one caller at a
// time. When ctx ends no further piece is begun and its error is returned.
func Each(ctx context.Context, n int, told func(done float64), do func(worker, i int)) error {
	var next atomic.Int64
	var wait sync.WaitGroup
	var telling sync.Mutex
	done := 0
	for w := range min(n, Workers()) {
		wait.Go(func() {
			for ctx.Err() == nil {
				i := int(next.Add(1) - 1)
				if i >= n {
					return
				}
				do(w, i)
				if told != nil {
					telling.Lock()
					done++
					told(float64(done) / float64(n))
					telling.Unlock()
				}
			}
		})
	}
	wait.Wait()
	return ctx.Err()
}
