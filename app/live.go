package app

import (
	"context"
	"slices"
	"sync"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/exposure/reading"
	"allcoats/formats"
	"allcoats/instruments"
)

// live holds the last values of scales and gauges. They are looked at, not kept.
type live struct {
	mu     sync.Mutex
	values map[string][]reading.Value
	pours  map[string]pour
}

// pour is what a simulated scale was asked for last, by the real clock.
type pour struct {
	from, to float64
	since    time.Time
}

// mostValues is how many of an instrument are held.
const mostValues = 200

// takeValues takes JSON lines (formats.ReadValueLines) of a scale or a gauge.
func (a *App) takeValues(id string, k reading.Kind, lines []byte) (ReadingsIn, error) {
	vs, err := formats.ReadValueLines(lines, k)
	if err != nil {
		return ReadingsIn{}, err
	}
	a.live.mu.Lock()
	defer a.live.mu.Unlock()
	all := append(a.live.values[id], vs...)
	a.live.values[id] = all[max(0, len(all)-mostValues):]
	return ReadingsIn{len(vs), vs[0].At, vs[len(vs)-1].At, []string{}}, nil
}

// Values returns what a scale or gauge showed last, the newest last. A simulated
// one is told what is wanted: a scale pours toward it, a gauge reads a film of it n
// times.
func (a *App) Values(ctx context.Context, id string, want float64, n int) ([]reading.Value, error) {
	i, err := a.Instrument(ctx, id)
	if err != nil {
		return nil, err
	}
	if !i.Kind.Benched() {
		return nil, fielderr.At("id", "%s is no scale and no gauge", i.Name)
	}
	a.live.mu.Lock()
	defer a.live.mu.Unlock()
	if i.Feed != Simulator {
		return slices.Clone(a.live.values[id]), nil
	}
	now := a.now()
	if i.Kind == reading.Gauge {
		return instruments.Gauge{Seed: seedOf(i.Name), MeanUm: want, SDPct: 9}.Readings(max(1, min(n, mostValues)),
			now), nil
	}
	p, ok := a.live.pours[id]
	shown := func() float64 {
		return instruments.Scale{Seed: seedOf(i.Name), FromG: p.from, ToG: p.to, PouredSince: now.Sub(p.since)}.ShowsG()
	}
	if !ok || p.to != want {
		from := 0.0
		if ok && want > p.to {
			from = shown()
		}
		p = pour{from, want, now}
		a.live.pours[id] = p
	}
	return []reading.Value{{At: now.UTC(), Value: shown(), Unit: "g"}}, nil
}
