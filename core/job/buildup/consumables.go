package buildup

import (
	"math"
	"slices"

	"allcoats/core/film/step"
)

// Consumable is something used up beside the tins, or a part of what is in
// them.
type Consumable struct {
	Name   string  `json:"name"`
	Amount float64 `json:"amount"`
	Unit   string  `json:"unit"`
	Source string  `json:"source"`
}

// Rules of thumb for what is used up.
const (
	discM2      = 1.0  // m² a disc, one grit
	rollerCoats = 1.0  // rollers a coat
	cleanerL    = 0.15 // L a coat, brushes and trays
	gritKgM2    = 0.6  // broadcast grit kg/m²
	doseC       = 18   // °C at which the catalyst is reckoned
	thumb       = "rule of thumb"
)

// Consumables lists what steps on a surface with edges of edgeM use up: parts of
// two-part products by volume and weight, thinner, catalyst, cleaner, grit,
// discs, rollers, masking tape. r is what Compute made of the steps.
func Consumables(edgeM float64, steps []step.Step, r Result) []Consumable {
	out := []Consumable{}
	add := func(name string, amount float64, unit, source string) {
		if amount <= 0 {
			return
		}
		out = AddUp(out, Consumable{name, amount, unit, source})
	}
	for i, s := range steps {
		l := r.Lines[i]
		switch {
		case s.Films():
			name, share := s.Sheet.Name, s.Sheet.BaseShare()
			if share < 1 {
				add(name+", base", l.Litres*share, "L", "the sheet's ratio")
				add(name+", hardener", l.Litres*(1-share), "L", "the sheet's ratio")
				add(name+", base by weight", l.Litres*share*s.Sheet.BaseKgL, "kg", "density of the sheet")
				add(name+", hardener by weight", l.Litres*(1-share)*s.Sheet.HardenerKgL, "kg", "density of the sheet")
			}
			thinner := s.Sheet.ThinnerName
			if thinner == "" {
				thinner = "thinner for " + name
			}
			add(thinner, l.ThinnerL, "L", "share of the litres")
			if pct, ok := s.Sheet.DosePct(doseC); ok {
				add("catalyst for "+name, l.Litres*s.Sheet.BaseKgL*10*pct, "g", "the sheet's dose at 18 °C")
			}
			if s.Sheet.Kind.Info().Grit {
				add("broadcast grit", l.AreaM2*gritKgM2*float64(s.Coats), "kg", thumb)
			}
			if s.Method == "roller" || s.Method == "roll-and-tip" {
				add("rollers", rollerCoats*float64(s.Coats), "pieces", thumb)
			}
			add("lost in pots, tools and drips, within the litres", l.Litres*s.LossPct/100, "L", "loss of the step")
			add("cleaner for tools", cleanerL*float64(s.Coats), "L", thumb)
			if s.KeyGrit > 0 {
				add("discs, "+itoa(s.KeyGrit)+" grit", math.Ceil(l.AreaM2/discM2)*float64(s.Coats), "pieces", thumb)
			}
		case s.Work == step.Sand:
			add("discs, "+itoa(s.Grit)+" grit", math.Ceil(l.AreaM2/discM2), "pieces", thumb)
		case s.TapeM > 0:
			add("masking tape", s.TapeM, "m", "set for the step")
		case s.Work.Kind().Taped:
			add("masking tape", edgeM, "m", "edges of the surface")
		}
	}
	return out
}

// AddUp adds amounts to a sum, by name and unit.
func AddUp(sum []Consumable, more ...Consumable) []Consumable {
	for _, c := range more {
		i := slices.IndexFunc(sum, func(o Consumable) bool { return o.Name == c.Name && o.Unit == c.Unit })
		if i < 0 {
			sum = append(sum, c)
		} else {
			sum[i].Amount += c.Amount
		}
	}
	return sum
}
