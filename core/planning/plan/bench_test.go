package plan

import (
	"math"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"
	"testing"

	"allcoats/core/boat/area"
	"allcoats/core/physics/weather"
)

// sixty is a boat of 60 coats on twelve surfaces over 120 days.
func sixty(people, days int) Yard {
	w := fair(days+10, func(i int, h *weather.Hour) {
		h.TempC = 15 + 6*math.Sin(float64(i-6)*math.Pi/12)
		if i%97 < 11 {
			h.RainMM = num(1)
		}
	})
	parts := []area.Part{area.Bottom, area.Topsides, area.Deck, area.Rudder, area.Coamings, area.CabinTop, area.Rails,
		area.Keel, area.Hatches, area.Spars, area.BootTop, area.CabinSides}
	var all []Surface
	for _, p := range parts {
		all = append(all, surface(string(p), p, w, 5, 3))
	}
	y := yard(days, all...)
	for len(y.People) < people {
		y.People = append(y.People, Person{Name: "more" + string(rune('a'+len(y.People)))})
	}
	return y
}

func BenchmarkFirstPlanOfSixtyTasks(b *testing.B) {
	y := sixty(2, 120)
	for b.Loop() {
		m, err := y.Model()
		if err != nil {
			b.Fatal(err)
		}
		if p, _ := m.Make(b.Context(), Kept{}, Effort{Seed: 1}); len(p.Left) > 0 {
			b.Fatal(p.Left)
		}
	}
}

func BenchmarkImprovedPlanOfSixtyTasks(b *testing.B) {
	y := sixty(2, 120)
	for b.Loop() {
		m, _ := y.Model()
		if p, _ := m.Make(b.Context(), Kept{}, Effort{Seed: 1, Rounds: 1500}); len(p.Left) > 0 {
			b.Fatal(p.Left)
		}
	}
}

func BenchmarkYardOfFifteenBoats(b *testing.B) {
	y := sixty(4, 120)
	one := y.Boats[0]
	y.Boats = nil
	for i := range 15 {
		boat := one
		boat.ID = string(rune('a' + i))
		boat.Surfaces = append([]Surface(nil), one.Surfaces...)
		for k := range boat.Surfaces {
			boat.Surfaces[k].ID += boat.ID
			boat.Surfaces[k].Tasks = slices.Clone(boat.Surfaces[k].Tasks[:4])
			for n := range boat.Surfaces[k].Tasks {
				boat.Surfaces[k].Tasks[n].ID += boat.ID
				boat.Surfaces[k].Tasks[n].Hours = 1
			}
		}
		y.Boats = append(y.Boats, boat)
	}
	for b.Loop() {
		m, err := y.Model()
		if err != nil {
			b.Fatal(err)
		}
		if p, _ := m.Make(b.Context(), Kept{}, Effort{Seed: 1, Rounds: 20}); len(p.Left) > 0 {
			b.Fatal(p.Left)
		}
	}
}

// The work of a boat of 60 coats, planned over 120 days, in a thousand courses of
// the weather.
func BenchmarkThousandFutures(b *testing.B) {
	m, err := sixty(2, 120).Model()
	if err != nil {
		b.Fatal(err)
	}
	_, kept := m.Make(b.Context(), Kept{}, Effort{Seed: 1})
	order := kept.Starts
	y, err := sixty(2, int(m.Within(order).Sub(now).Hours()/24)).Prepared()
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		var next, done atomic.Int64
		var wait sync.WaitGroup
		for range runtime.GOMAXPROCS(0) {
			wait.Go(func() {
				for next.Add(1) <= 1000 {
					if m, err := y.Model(); err == nil && m.Play(order).Done() {
						done.Add(1)
					}
				}
			})
		}
		wait.Wait()
		if done.Load() != 1000 {
			b.Fatal("not done: ", done.Load())
		}
	}
}
