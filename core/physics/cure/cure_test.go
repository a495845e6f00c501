package cure

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var start = time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC)

func path(temps ...float64) Path {
	p := Path{TempC: temps}
	for i := range temps {
		p.At = append(p.At, start.Add(time.Duration(i)*time.Hour))
	}
	return p
}

func constant(tempC float64, hours int) Path {
	t := make([]float64, hours+1)
	for i := range t {
		t[i] = tempC
	}
	return path(t...)
}

var table = Table{{5, 24}, {10, 14}, {20, 6}, {30, 3.5}}

func TestTauPassesThroughThePointsAndIsArrheniusBetween(t *testing.T) {
	for _, p := range table {
		got, outside := table.TauH(p.TempC, Minimum)
		assert.InDelta(t, p.Hours, got, 1e-9)
		assert.False(t, outside)
	}
	// Half way in 1/T the logarithms meet half way.
	k := 2 / (1/(10+kelvin) + 1/(20+kelvin))
	got, _ := table.TauH(k-kelvin, Minimum)
	assert.InDelta(t, math.Sqrt(14*6), got, 1e-9)
}

func TestTauOutside(t *testing.T) {
	held, outside := table.TauH(40, Minimum)
	assert.Equal(t, 3.5, held)
	assert.True(t, outside)
	on, _ := table.TauH(40, Maximum)
	assert.Less(t, on, 3.5)
	below, outside := table.TauH(0, Minimum)
	assert.Greater(t, below, 24.0)
	assert.True(t, outside)
	// One point: exp(Ea/R · (1/T − 1/T0)), and never faster for a minimum.
	one := Table{{20, 6}}
	got, _ := one.TauH(10, Minimum)
	assert.InDelta(t, 6*math.Exp(50e3/8.314462618*(1/283.15-1/293.15)), got, 1e-9)
	got, _ = one.TauH(30, Minimum)
	assert.Equal(t, 6.0, got)
	never, _ := Table(nil).TauH(20, Minimum)
	assert.True(t, math.IsInf(never, 1))
}

func TestRun(t *testing.T) {
	c := Clock{Table: table, FloorC: 5}
	at := func(p Path, from time.Time) float64 {
		ev := c.Run(p, from, 1)
		require.NotNil(t, ev.Reached)
		return ev.Reached.Sub(from).Hours()
	}
	assert.InDelta(t, 6, at(constant(20, 48), start), 1e-3)
	assert.InDelta(t, 6, at(constant(20, 48), start.Add(30*time.Minute)), 1e-3, "from half past")
	assert.InDelta(t, 24, at(constant(5, 48), start), 1e-3, "at the floor itself it cures")
	assert.InDelta(t, 10, at(constant(20, 48), start.Add(-4*time.Hour)), 1e-3,
		"before the record nothing is known and nothing is assumed")

	// Ten hours under the floor give nothing.
	cold := append(make([]float64, 11), constant(20, 48).TempC...)
	got := at(path(cold...), start)
	assert.InDelta(t, 16.0, got, 0.7) // plus the hour of warming, above 5 °C for three quarters of it
	assert.Greater(t, got, 16.0)

	ev := c.Run(constant(20, 3), start, 1)
	assert.Nil(t, ev.Reached)
	assert.InDelta(t, 0.5, ev.Progress, 1e-9)
	assert.Zero(t, c.Run(constant(20, 3), start.Add(5*time.Hour), 1).Progress, "after the record nothing is known")
	assert.Zero(t, Clock{}.Run(constant(20, 3), start, 1).Progress)
	assert.Zero(t, c.Run(Path{}, start, 1).Progress)
}

// Cooling never speeds a cure: lowering any hour of a random record does not
// bring the event forward.
func TestCoolingNeverSpeedsACure(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 300 {
		p := constant(0, 200)
		for i := range p.TempC {
			p.TempC[i] = 12 + 14*r.Float64() - 6*r.Float64()
		}
		c := Clock{Table: table, Side: Side(r.IntN(2)), FloorC: 7}
		before := c.Run(p, start, 1)
		require.NotNil(t, before.Reached)
		k := r.IntN(30)
		p.TempC[k] -= 10 * r.Float64()
		after := c.Run(p, start, 1)
		if after.Reached != nil {
			require.False(t, after.Reached.Before(before.Reached.Add(-2*time.Second)), "hour %d", k)
		}
	}
}

func year() Path {
	p := constant(0, 8760)
	for i := range p.TempC {
		p.TempC[i] = 10 - 8*math.Cos(2*math.Pi*float64(i)/8760) - 4*math.Cos(2*math.Pi*float64(i)/24)
	}
	return p
}

// BenchmarkYear integrates one clock over a year of hours.
func BenchmarkYear(b *testing.B) {
	p := year()
	c := Clock{Table: Table{{5, 1e6}, {30, 5e5}}, FloorC: 5}
	for b.Loop() {
		if c.Run(p, start, 1).Reached != nil {
			b.Fatal("must run through")
		}
	}
}

// At a steady 20 °C a table of 8 h there is at three eighths after three hours, between two records too.
func TestProgressByAnInstant(t *testing.T) {
	start := time.Date(2026, 5, 1, 6, 0, 0, 0, time.UTC)
	var p Path
	for h := range 20 {
		p.At, p.TempC = append(p.At, start.Add(time.Duration(h)*time.Hour)), append(p.TempC, 20)
	}
	c := Clock{Table: Table{{TempC: 10, Hours: 16}, {TempC: 20, Hours: 8}}}
	for h, want := range map[float64]float64{0: 0, 3: 3.0 / 8, 3.5: 3.5 / 8, 12: 1.5, 19: 19.0 / 8, 30: 19.0 / 8} {
		assert.InDelta(t, want, c.By(p, start, start.Add(time.Duration(h*float64(time.Hour)))), 1e-9, "%g h", h)
	}
}

// Waterborne: hours with the vapour that the air lacks, of what it lacks at 50 %, held to 6 and a half; moisture-cured: with 50 over the
// humidity, held to 2.5 and 0.6. The longest times get no longer by it.
func TestSpeedInDampAir(t *testing.T) {
	for _, c := range []struct {
		h    Humidity
		rh   float64
		side Side
		want float64
	}{
		{Waterborne, 50, Minimum, 1}, {Waterborne, 75, Minimum, 0.5}, {Waterborne, 90, Minimum, 0.2},
		{Waterborne, 95, Minimum, 1.0 / 6},
		{Waterborne, 25, Minimum, 1.5}, {Waterborne, 0, Minimum, 2}, {Waterborne, 90, Maximum, 1},
		{MoistureCured, 50, Minimum, 1}, {MoistureCured, 25, Minimum, 0.5}, {MoistureCured, 10, Minimum, 0.4},
		{MoistureCured, 75, Minimum, 1.5},
		{MoistureCured, 100, Minimum, 1 / 0.6}, {MoistureCured, 25, Maximum, 1}, {MoistureCured, 75, Maximum, 1.5},
		{Indifferent, 95, Minimum, 1}, {Indifferent, 5, Maximum, 1},
	} {
		assert.InDelta(t, c.want, c.h.Speed(c.rh, c.side), 1e-12, "%+v", c)
	}
	// Where one law gives way to another, the speed a little before and a little after changes by another slope.
	for _, h := range []Humidity{Waterborne, MoistureCured} {
		for _, rh := range h.bends() {
			before := h.Speed(rh, Minimum) - h.Speed(rh-1, Minimum)
			after := h.Speed(rh+1, Minimum) - h.Speed(rh, Minimum)
			if rh != 50 { // there it bends for the longest times
				assert.NotEqual(t, math.Round(1e9*before), math.Round(1e9*after), "%s at %g", h, rh)
			}
		}
	}
	assert.Empty(t, Indifferent.bends())
}
