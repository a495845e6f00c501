package instruments

import (
	"math"
	"time"

	"allcoats/core/exposure/reading"
	"allcoats/formats"
)

// Faults that a simulated instrument can have.
const (
	Sound    = ""
	DropOuts = "drop-outs"
	Stuck    = "stuck"
	Drifted  = "clock-ahead"
)

// Faults lists them with their names.
var Faults = []struct {
	Fault string `json:"fault"`
	Name  string `json:"name"`
}{{Sound, "none"}, {DropOuts, "drop-outs"}, {Stuck, "a sensor that sticks"}, {Drifted, "a clock two hours ahead"}}

// Logger is a simulated logger or probe. It shows a truth that it is given, less
// what makes its spot differ from it, every Step. What it shows at an instant
// depends only on Seed and truth. Its lines are those of a live instrument.
type Logger struct {
	Seed  uint64
	Fault string
	Step  time.Duration
	// Local is by how much its spot is colder at night, K; a hollow by the water
	// has 1 to 2.
	Local float64
}

// wettest is the most that a sound sensor shows, %: few reach 100.
const wettest = 98.6

// stuckEvery and stuckFor are hours of a sensor that sticks.
const (
	stuckEvery = 96
	stuckFor   = 30
)

// Lines gives the readings in (from, to] as JSON lines, from truth an hour apart
// or less. A truth without humidity gives none.
func (l Logger) Lines(truth []reading.Reading, from, to time.Time, loc *time.Location) []byte {
	var out []reading.Reading
	i := 0
	for at := from.Truncate(l.Step).Add(l.Step); !at.After(to); at = at.Add(l.Step) {
		seen := at
		h := at.Sub(time.Unix(0, 0)).Hours()
		switch l.Fault {
		case DropOuts:
			if gauss(l.Seed+9, int64(math.Floor(h/3))) > 1.2 {
				continue
			}
		case Stuck:
			if in := math.Mod(h, stuckEvery); in > stuckEvery-stuckFor {
				seen = at.Add(-time.Duration((in - stuckEvery + stuckFor) * float64(time.Hour))).Round(time.Hour)
			}
		case Drifted:
			seen = at.Add(-2 * time.Hour)
		}
		for i > 0 && truth[i].At.After(seen) {
			i--
		}
		for i+1 < len(truth) && !truth[i+1].At.After(seen) {
			i++
		}
		if i+1 >= len(truth) || truth[i].At.After(seen) {
			continue
		}
		a, b := truth[i], truth[i+1]
		f := float64(seen.Sub(a.At)) / float64(b.At.Sub(a.At))
		local := seen.In(loc)
		night := math.Max(0, math.Cos(2*math.Pi*(float64(local.Hour())+float64(local.Minute())/60-3)/24))
		r := reading.Reading{At: at, TempC: a.TempC + f*(b.TempC-a.TempC) - l.Local*night, RHPct: a.RHPct +
			f*(b.RHPct-a.RHPct) + l.Local*night}
		if l.Fault != Stuck || seen.Equal(at) {
			r.TempC += 0.12 * noise(l.Seed, 0.5, seen.Sub(time.Unix(0, 0)).Hours())
		}
		r.TempC = math.Round(10*r.TempC) / 10
		r.RHPct = math.Round(10*math.Min(wettest, r.RHPct)) / 10
		out = append(out, r)
	}
	return formats.WriteReadingLines(out)
}
