package clock

import (
	"time"

	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/physics/cure"
)

// Hard is when films are hard enough for what they are to stand. Sheet is the one that
// takes longest, or that does not say; Tabled is false if it does not say. At is nil if
// the weather known does not reach it.
type Hard struct {
	Sheet  product.Sheet
	At     *time.Time
	Tabled bool
}

// Hardening are the tables that must have run before a film may stand in water, or else
// be walked on, stacked and used: the slowest of them counts.
func Hardening(s product.Sheet, immersed bool) []cure.Table {
	var out []cure.Table
	if immersed && len(s.Immersion) > 0 {
		out = append(out, s.Immersion)
	}
	if len(s.ThroughDry) > 0 {
		out = append(out, s.ThroughDry)
	}
	return out
}

// Hardens follows all films on a surface, those below too; ok is false without any.
func Hardens(films []Laid, immersed bool, at field.Weather) (out Hard, ok bool) {
	for i, l := range films {
		one := Hard{Sheet: l.Sheet, Tabled: true}
		tables := Hardening(l.Sheet, immersed)
		p := at.Path(l.Sheet.Humidity)
		if len(tables) == 0 {
			one.Tabled = false
		}
		for k, t := range tables {
			ev := cure.Clock{Table: t, FloorC: l.Sheet.MinCureC}.Run(p, l.Started, 1)
			if ev.Reached == nil {
				one.At = nil
				break
			}
			if k == 0 || ev.Reached.After(*one.At) {
				one.At = ev.Reached
			}
		}
		switch {
		case i == 0, !one.Tabled:
			out = one
		case !out.Tabled || out.At == nil:
		case one.At == nil || one.At.After(*out.At):
			out = one
		}
	}
	return out, len(films) > 0
}
