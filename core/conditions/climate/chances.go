package climate

import (
	"context"
	"slices"
	"sort"
	"time"

	"allcoats/core/base/parallel"
	"allcoats/core/boat/survey"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/surface"
	"allcoats/core/exposure/tent"
	"allcoats/core/physics/weather"
)

// Ask is a coat that waits for its chance on a surface.
type Ask struct {
	SurfaceID string
	Job       field.Job
}

// Odds is the share of futures, 0…1, in which a coat that starts at an hour
// keeps its field through laying and holding.
type Odds struct {
	At []time.Time
	P  []float64
}

// Best returns the hour in [from, to] with the best odds, the middle one of
// several, and how long before and after it they are as good to a twentieth.
func (o Odds) Best(from, to time.Time) (p float64, at, opens, closes time.Time, ok bool) {
	best := -1
	for i, t := range o.At {
		if !t.Before(from) && !t.After(to) && (best < 0 || o.P[i] > o.P[best]) {
			best = i
		}
	}
	if best < 0 || o.P[best] == 0 {
		return 0, time.Time{}, time.Time{}, time.Time{}, false
	}
	good := func(i int) bool {
		return i >= 0 && i < len(o.At) && !o.At[i].Before(from) && !o.At[i].After(to) && o.P[i] >= o.P[best]-0.05
	}
	lo, hi := best, best
	for good(lo - 1) {
		lo--
	}
	for good(hi + 1) {
		hi++
	}
	mid := (lo + hi) / 2
	return o.P[best], o.At[mid], o.At[lo], o.At[hi], true
}

// waiting are coats that wait, with what is the same in every future.
type waiting struct {
	b       Boat
	c       Climate
	asks    []Ask
	open    surface.Conditions
	faces   []Surface
	free    []field.Free
	bias    [][]float64
	covered []tent.Covered
	inTent  bool
}

func (b Boat) waiting(c Climate, frame weather.Series, asks []Ask) waiting {
	q := waiting{b: b, c: c, asks: asks, open: surface.Outdoors(b.LatitudeDeg, b.LongitudeDeg, frame),
		covered: []tent.Covered{},
		faces:   make([]Surface, len(asks)), free: make([]field.Free, len(asks)), bias: make([][]float64, len(asks))}
	at := q.open.At
	for _, s := range b.Surfaces {
		if b.Tent != nil && s.Shelter == survey.Tent {
			q.covered = append(q.covered, tent.Covered{Face: s.Face, AreaM2: s.AreaM2})
		}
	}
	for k, a := range asks {
		for _, s := range b.Surfaces {
			if s.ID == a.SurfaceID {
				q.faces[k] = s
			}
		}
		q.inTent = q.inTent || b.tented(q.faces[k])
		q.free[k] = a.Job.Free(at)
		q.bias[k] = make([]float64, len(at))
		if d := c.Bias[a.SurfaceID]; d.N > 0 {
			for i, t := range at {
				if t.After(b.Now) {
					q.bias[k][i] = d.At(t)
				}
			}
		}
	}
	return q
}

// holds tells for every ask and hour whether a start then keeps its field in a course of the weather.
func (q waiting) holds(room weather.Series, f Future) [][]bool {
	conditions := q.open.With(room)
	var t tent.Climate
	var under surface.Conditions
	if q.inTent {
		t = tent.Simulate(*q.b.Tent, conditions, room, q.covered, q.b.Loc)
		under = conditions.Under(t.Air, t.Light)
	}
	out := make([][]bool, len(q.asks))
	for k, a := range q.asks {
		air, here := room, conditions
		if q.b.tented(q.faces[k]) {
			air, here = t.Air, under
		}
		course := here.Course(q.faces[k].Face)
		tempC := q.b.blurred(q.c, a.SurfaceID, q.open.At, course.TempC, f)
		for i, d := range q.bias[k] {
			tempC[i] += d
		}
		out[k] = a.Job.Starts(field.Weather{Air: air, SurfaceC: tempC, Wet: course.Wet, DewC: here.DewC}, q.free[k])
	}
	return out
}

// Ensemble is how many futures are played, of which seed.
type Ensemble struct {
	weather.Futures
	N    int
	Seed uint64
}

// Chances plays an ensemble at every ask and tells the odds of every hour's start
// from now on. told, if not nil, is called now and then, by one at a time, with the
// share done; when ctx ends the work stops with its error. The same seed gives the
// same odds on any number of processors. Departures of probes from the model count as
// in Of.
func (b Boat) Chances(ctx context.Context, c Climate, f Ensemble, asks []Ask,
	told func(done float64)) ([]Odds, error) {
	q := b.waiting(c, f.Frame(), asks)
	at := q.open.At
	counts, rooms := make([][][]int32, parallel.Workers()), make([]weather.Series, parallel.Workers())
	for w := range counts {
		counts[w] = make([][]int32, len(asks))
		for k := range asks {
			counts[w][k] = make([]int32, len(at))
		}
	}
	err := parallel.Each(ctx, f.N, told, func(w, i int) {
		rooms[w] = f.Make(f.Seed, uint64(i), rooms[w])
		for k, starts := range q.holds(rooms[w], Future{f.Seed, uint64(i)}) {
			for h, may := range starts {
				if may {
					counts[w][k][h]++
				}
			}
		}
	})
	if err != nil {
		return nil, err
	}
	odds := []Odds{}
	for k := range asks {
		o := Odds{}
		for i, t := range at {
			if t.Before(b.Now.Truncate(time.Hour)) {
				continue
			}
			sum := int32(0)
			for w := range counts {
				sum += counts[w][k][i]
			}
			o.At, o.P = append(o.At, t), append(o.P, weather.Odds(int(sum), f.N))
		}
		odds = append(odds, o)
	}
	return odds, nil
}

// Future names one of the futures of a seed.
type Future struct{ Seed, K uint64 }

// What the model of a surface may be off by, K, without readings on it and with them, and how long
// it stays so, h: rules of thumb.
const modelK, probedK, modelMemoryH = 1.5, 0.5, 24

// blurred are a surface's temperatures with what its model may be off by after now.
func (b Boat) blurred(c Climate, surfaceID string, at []time.Time, tempC []float64, f Future) []float64 {
	off := modelK
	if c.Bias[surfaceID].N > 0 {
		off = probedK
	}
	out := slices.Clone(tempC)
	from := sort.Search(len(at), func(i int) bool { return at[i].After(b.Now) })
	for i, z := range weather.Drift(f.Seed, f.K, surfaceID, at[from:], modelMemoryH) {
		out[from+i] += off * z
	}
	return out
}

// tented reports whether a surface is in a tent that is described.
func (b Boat) tented(s Surface) bool { return b.Tent != nil && s.Shelter == survey.Tent }
