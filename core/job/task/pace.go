package task

// Pace is how many hours work has taken for each hour that was reckoned.
type Pace struct{ told, reckoned float64 }

// priorH weighs the reckoning as so many hours that took just what was reckoned:
// a rule of thumb.
const priorH = 6

// Add counts work that took told hours where reckoned were reckoned; what is not
// known does not count.
func (p *Pace) Add(told, reckoned float64) {
	if told > 0 && reckoned > 0 {
		p.told += told
		p.reckoned += reckoned
	}
}

// Factor is what to multiply reckoned hours by; 1 before anything was told.
func (p Pace) Factor() float64 { return (p.told + priorH) / (p.reckoned + priorH) }
