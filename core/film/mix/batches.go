package mix

import (
	"math"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
	"allcoats/core/physics/cure"
)

// BatchRequest is a coat to be laid in pots. LitresH is how much is laid in an
// hour by all people; PotC the temperature of the pots; ResidueL what stays in pot,
// tray and roller each time.
type BatchRequest struct {
	Sheet    product.Sheet
	Litres   float64
	LitresH  float64
	PotC     float64
	ResidueL float64
	Start    time.Time
}

// Batch is one pot: when it is mixed and by when the last of it must be on.
type Batch struct {
	Litres float64   `json:"litres"`
	MixAt  time.Time `json:"mixAt"`
	LayAt  time.Time `json:"layAt"`
	OnBy   time.Time `json:"onBy"`
}

// Batches are the pots of a coat. PotLifeH is that of one of them, 0 without one.
type Batches struct {
	Batches  []Batch         `json:"batches"`
	MostL    float64         `json:"mostL"`
	PotLifeH float64         `json:"potLifeH"`
	Working  working.Working `json:"working"`
}

// Rules of thumb: the part of the pot life that is laid in, the mass that a sheet's
// pot life is for, how it falls with mass, what is left each time, and the
// temperature below which thick mixes will not stir.
const (
	usablePart   = 0.7
	usualMassKg  = 0.2
	massExponent = 0.3
	UsualResidue = 0.03
	coldMixC     = 10.0
	hotMasses    = 5.0
)

// solvent-free mixes keep their heat; others are not shortened by mass.
const solventFreePct = 80

// PotLifeH is the pot life of litres at a temperature, h: the sheet's, times
// (reference mass / mass)^0.3 for more than the reference of a solvent-free mix. Inf
// without a table.
func PotLifeH(s product.Sheet, litres, tempC float64) float64 {
	tau, _ := s.PotLife.TauH(tempC, cure.Maximum)
	return tau * MassFactor(s, litres)
}

// MassFactor is what a pot of so many litres does to the sheet's pot life.
func MassFactor(s product.Sheet, litres float64) float64 {
	ref := s.PotMassKg
	if ref == 0 {
		ref = usualMassKg
	}
	kgL := s.BaseKgL
	if kgL == 0 {
		kgL = 1
	}
	if m := litres * kgL; s.VolumeSolidsPct >= solventFreePct && m > ref {
		return math.Pow(ref/m, massExponent)
	}
	return 1
}

// Share cuts a coat into pots, each as large as can be laid within 0.7 of its pot
// life less the induction, all but the last alike.
func Share(r BatchRequest) (Batches, error) {
	var bad fielderr.Errors
	bad.Above("litres", r.Litres, 0, 1000, "L")
	bad.Above("litresH", r.LitresH, 0, 1000, "L/h")
	bad.Range("potC", r.PotC, -20, 60, "°C")
	bad.Range("residueL", r.ResidueL, 0, 5, "L")
	if err := bad.Err(); err != nil {
		return Batches{}, err
	}
	out := Batches{Batches: []Batch{}, MostL: r.Litres + r.ResidueL, Working: working.New()}
	w := &out.Working
	induction := r.Sheet.InductionMin / 60
	w.In("Litres on the surface", r.Litres, "L")
	w.In("Laid in an hour", r.LitresH, "L/h")
	w.In("Left in pot, tray and roller", r.ResidueL, "L")
	timed := len(r.Sheet.PotLife) > 0
	if timed {
		out.largest(r)
	}
	if net := out.MostL - r.ResidueL; net < 0.02 {
		bad.Add("litresH",
			"the pot life is too short to lay anything at %.0f °C: cool the pots, or use a slower hardener", r.PotC)
		return Batches{}, bad
	}
	n := int(math.Ceil(r.Litres/(out.MostL-r.ResidueL) - 1e-9))
	each := r.Litres / float64(n)
	if n > 1 { // full pots, the last one for what is left
		each = min(out.MostL-r.ResidueL, math.Ceil(each*20)/20)
	}
	w.Step("Pots", "litres / what a pot lays", float64(n), "", "")
	left, at := r.Litres, r.Start
	for range n {
		net := min(each, left)
		left -= net
		lay := at
		mix := lay.Add(-time.Duration(induction * float64(time.Hour)))
		b := Batch{Litres: net + r.ResidueL, MixAt: mix, LayAt: lay,
			OnBy: lay.Add(time.Duration(net / r.LitresH * float64(time.Hour)))}
		if timed {
			b.OnBy = mix.Add(time.Duration(usablePart * PotLifeH(r.Sheet, b.Litres, r.PotC) * float64(time.Hour)))
		}
		if net > 1e-9 {
			out.Batches = append(out.Batches, b)
		}
		at = at.Add(time.Duration(net / r.LitresH * float64(time.Hour)))
	}
	if n > 1 {
		w.Warn("Before the last pot measure what is still bare and mix for that: it is where most is left over.")
	}
	if r.Sheet.VolumeSolidsPct >= solventFreePct && timed && out.MostL*max(1, r.Sheet.BaseKgL) > hotMasses*usualMassKg {
		w.Warn(
			"A pot of this size heats itself: pour it into a flat tray at once. If it smokes carry it outside, do not cover it.")
	}
	if r.PotC < coldMixC && r.Sheet.BaseShare() < 1 {
		w.Warn(
			"At %.0f °C thick mixes will not stir out: warm base and hardener to 18 °C to 20 °C indoors first, never over a flame.", r.PotC)
	}
	return out, nil
}

// largest finds the largest pot that can be laid within its pot life.
func (b *Batches) largest(r BatchRequest) {
	w, induction := &b.Working, r.Sheet.InductionMin/60
	usable := func(litres float64) float64 { return usablePart*PotLifeH(r.Sheet, litres, r.PotC) - induction }
	fits := func(litres float64) bool { return (litres-r.ResidueL)/r.LitresH <= usable(litres) }
	if !fits(b.MostL) {
		lo, hi := 0.0, b.MostL
		for range 60 {
			if mid := (lo + hi) / 2; fits(mid) {
				lo = mid
			} else {
				hi = mid
			}
		}
		b.MostL = lo
	}
	w.In("Pots at", r.PotC, "°C")
	b.PotLifeH = w.Step("Pot life of such a pot",
		"the sheet's at that temperature × (reference mass / mass)^0.3 if solvent-free",
		PotLifeH(r.Sheet, b.MostL, r.PotC), "h", "data sheet; the mass a rule of thumb")
	w.Step("Time to lay it in", "0.7 · pot life − induction", usable(b.MostL), "h", "rule of thumb")
	w.Step("Largest pot", "what is laid in that time, and the residue", b.MostL, "L", "")
}
