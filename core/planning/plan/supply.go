package plan

import (
	"cmp"
	"math/rand/v2"
	"slices"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/planning/schedule"
)

// Supply is what there is of a product, L mixed, and what is awaited of it, in the order of its days.
type Supply struct {
	HereL   float64
	Awaited []Delivery
}

// Delivery is so much of a product, L mixed, usable from an instant on.
type Delivery struct {
	At     time.Time
	Litres float64
}

// Comes is when what is to come on a day, such as 2026-05-11, is there: by its noon; what should have come by now, or
// on no day that there is, is hoped for a day on.
func Comes(day string, now time.Time, loc *time.Location) time.Time {
	at, err := time.ParseInLocation(time.DateOnly, day, loc)
	if at = at.Add(12 * time.Hour); err != nil || !at.After(now) {
		return now.AddDate(0, 0, 1)
	}
	return at
}

// One delivery in four, and one shop, comes late, by four days on the mean: rules of thumb.
const (
	lateShare = 0.25
	lateDays  = 4.0
)

// shops lets what is left on a surface wait until a shop is done with it.
func (m *Model) shops() {
	for i, t := range m.Tasks {
		until, ok := m.Boats[t.Boat].Shop[t.SurfaceID]
		if at := m.Slot(until); ok && at > 0 {
			m.link(schedule.Link{From: nowTask, To: i, Opens: func(int) int { return at }},
				cause{rule: message.Of("a shop has it until %v", message.On(until)), late: "shop, " + t.SurfaceID})
		}
	}
}

// supplies lets coats wait for what is awaited. What is there goes to the boats in the order of their
// launches, and to the coats of each in theirs. A product of which nothing is on order holds nothing up.
func (m *Model) supplies() {
	coats := make([]int, 0, len(m.Tasks))
	for i, t := range m.Tasks {
		if len(m.Supplies[t.Of.ProductID].Awaited) > 0 {
			coats = append(coats, i)
		}
	}
	slices.SortStableFunc(coats, func(a, b int) int {
		return cmp.Compare(m.Problem.Due[m.Tasks[a].Boat], m.Problem.Due[m.Tasks[b].Boat])
	})
	taken := map[string]float64{}
	for _, i := range coats {
		t := m.Tasks[i]
		s := m.Supplies[t.Of.ProductID]
		taken[t.Of.ProductID] += t.Of.Litres * t.SharePct / 100
		over := taken[t.Of.ProductID] - s.HereL
		for _, d := range s.Awaited {
			if over <= 1e-6 {
				break
			}
			at := m.Slot(d.At)
			if over -= d.Litres; at < 0 || over > 1e-6 && d != s.Awaited[len(s.Awaited)-1] {
				continue
			}
			m.link(schedule.Link{From: nowTask, To: i, Opens: func(int) int { return at }},
				cause{rule: message.Of("the delivery of %s, awaited on %v", t.sheet.Name, message.On(d.At)),
					late: t.Of.ProductID + d.At.Format(time.DateOnly)})
			break
		}
	}
}

// late is a lag that ends when a delivery may come later than its day.
func late(lag schedule.Lag, luck *rand.Rand) schedule.Lag {
	if luck.Float64() >= lateShare {
		return lag
	}
	more := inSlots(24 * lateDays * luck.ExpFloat64())
	return func(end int) int { return lag(end) + more }
}
