package task

import "math"

// Pace is how many hours work has taken for each hour that was reckoned.
type Pace struct {
	told, reckoned float64
	logs           []float64 // of told over reckoned, of every entry
}

// priorH weighs the reckoning as so many hours that took just what was reckoned, priorTold the usual
// spread as that of so many entries: rules of thumb.
const (
	priorH    = 6
	priorTold = 6
)

// UsualSD is how far the hours of one task differ from the next, the standard deviation of their
// logarithm: a rule of thumb.
const UsualSD = 0.25

// SharedSD is how far all work of a yard together may be off the same way, of the logarithm of its
// hours: a rule of thumb.
const SharedSD = 0.12

// Add counts work that took told hours where reckoned were reckoned; what is not
// known does not count.
func (p *Pace) Add(told, reckoned float64) {
	if told > 0 && reckoned > 0 {
		p.told += told
		p.reckoned += reckoned
		p.logs = append(p.logs, math.Log(told/reckoned))
	}
}

// Told is how many entries it was learned from.
func (p Pace) Told() int { return len(p.logs) }

// Factor is what to multiply reckoned hours by; 1 before anything was told.
func (p Pace) Factor() float64 { return (p.told + priorH) / (p.reckoned + priorH) }

// SD is how far tasks differ from one another, of the logarithm of their hours; the usual one before
// anything was told.
func (p Pace) SD() float64 {
	sum := priorTold * UsualSD * UsualSD
	mean := 0.0
	for _, l := range p.logs {
		mean += l / float64(len(p.logs))
	}
	for _, l := range p.logs {
		sum += (l - mean) * (l - mean)
	}
	return math.Sqrt(sum / float64(priorTold+max(0, len(p.logs)-1)))
}
