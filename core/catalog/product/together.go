package product

import (
	"fmt"
	"math"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/cure"
)

// How far the ratio by weight may be from that by volume at the densities, and between what
// what stays of a product may weigh, kg/L: the lightest filler, and zinc dust.
const (
	ratioOff   = 0.03
	lightestKg = 0.25
	heaviestKg = 7.2
	solventKgL = 0.87 // about what evaporates, a rule of thumb
)

// together reports figures that cannot be true together.
func (s Sheet) together(bad *fielderr.Errors) {
	v, w := s.RatioByVolume, s.RatioByWeight
	if v.Base > 0 && v.Hardener > 0 && w.Base > 0 && w.Hardener > 0 && s.BaseKgL > 0 && s.HardenerKgL > 0 {
		want := 100 * v.Hardener * s.HardenerKgL / (v.Base * s.BaseKgL)
		if got := 100 * w.Hardener / w.Base; math.Abs(got/want-1) > ratioOff {
			bad.Add("ratioByWeight",
				"100 : %.3g does not fit %g : %g by volume, which is 100 : %.3g at these densities", got, v.Base,
				v.Hardener, want)
		}
	}
	two := s.BaseShare() < 1 || len(s.Doses) > 0
	switch {
	case two && len(s.PotLife) == 0 && s.IsCoat():
		bad.Add("potLife", "a product of two parts has a pot life: give it at two temperatures")
	case !two && len(s.PotLife) > 0:
		bad.Add("potLife", "a product of one part has no pot life; its ratio is missing, or this is its open time")
	}
	if solids := s.VolumeSolidsPct / 100; s.IsCoat() && solids > 0 && s.BaseKgL > 0 {
		share := s.BaseShare()
		mixed := s.BaseKgL
		if share < 1 && s.HardenerKgL > 0 {
			mixed = share*s.BaseKgL + (1-share)*s.HardenerKgL
		}
		if dry := (mixed - (1-solids)*solventKgL) / solids; dry < lightestKg || dry > heaviestKg {
			bad.Add("volumeSolidsPct",
				"%g %% of a product of %.3g kg/L would leave a film of %.3g kg/L: one of the two is wrong",
				s.VolumeSolidsPct, mixed, dry)
		}
	}
	s.inOrder(bad, "")
	for i, g := range s.Grades {
		graded, _ := s.With(g.Name)
		graded.inOrder(bad, fmt.Sprintf("grades[%d].", i))
	}
}

// inOrder reports clocks that run out before those that come before them, at any temperature of
// theirs: dry to touch, tack-free, sandable, through; no recoat and no immersion before it is
// dry to touch, but for what stays tacky on air.
func (s Sheet) inOrder(bad *fielderr.Errors, path string) {
	type clock struct {
		name, words string
		table       cure.Table
	}
	check := func(a, b clock) {
		if len(a.table) == 0 || len(b.table) == 0 {
			return
		}
		from, to := max(a.table[0].TempC, b.table[0].TempC),
			min(a.table[len(a.table)-1].TempC, b.table[len(b.table)-1].TempC)
		for _, p := range slices.Concat(a.table, b.table) {
			if p.TempC < from || p.TempC > to {
				continue // one of the two says nothing there
			}
			first, _ := a.table.TauH(p.TempC, cure.Minimum)
			then, _ := b.table.TauH(p.TempC, cure.Minimum)
			if first > then*1.001 {
				bad.Add(path+b.name, "%s at %g °C is %.3g h, before it is %s at %.3g h", b.words, p.TempC, then,
					a.words, first)
				return
			}
		}
	}
	touch, tack := clock{"touchDry", "dry to touch", s.TouchDry}, clock{"tackFree", "tack-free", s.TackFree}
	sandable, through := clock{"sandable", "sandable", s.Sandable}, clock{"throughDry", "through-dry", s.ThroughDry}
	check(touch, tack)
	check(tack, sandable)
	check(touch, sandable)
	check(sandable, through)
	check(tack, through)
	check(touch, through)
	check(touch, clock{"immersion", "immersion", s.Immersion})
	if s.AirInhibited {
		return
	}
	for i, r := range s.Recoat {
		c := clock{fmt.Sprintf("recoat[%d].min", i), "the least recoat interval", r.Min}
		check(touch, c)
		check(c, through)
	}
}
