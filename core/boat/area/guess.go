package area

import (
	"math"
	"slices"
	"strings"
)

// guessed are the dimensions that may be guessed from length and beam, in the order in which
// they are, with the ± of the guess, %: rules of thumb.
var guessed = []struct {
	field string
	pct   float64
	of    func(d Dimensions) float64
	at    func(d *Dimensions) *float64
}{
	{"lwlM", 6, func(d Dimensions) float64 {
		return d.HullForm.Info().usual.lwl * d.LOAM
	}, func(d *Dimensions) *float64 { return &d.LWLM }},
	{"draughtM", 30, func(d Dimensions) float64 {
		return d.HullForm.Info().usual.draught * d.LOAM
	}, func(d *Dimensions) *float64 { return &d.DraughtM }},
	{"freeboardM", 25, func(d Dimensions) float64 {
		return d.HullForm.Info().usual.freeboard * d.LOAM
	}, func(d *Dimensions) *float64 { return &d.FreeboardM }},
	{"housesM2", 40, func(d Dimensions) float64 {
		return d.HullForm.Info().usual.houses * d.LOAM * d.BeamM
	}, func(d *Dimensions) *float64 { return &d.HousesM2 }},
}

// usualShares are shares of the length over all; of houses, of LOA · beam.
type usualShares struct{ lwl, draught, freeboard, houses float64 }

// GuessedPct is the ± of a guessed dimension, %, by its field.
func GuessedPct() map[string]float64 {
	out := map[string]float64{}
	for _, g := range guessed {
		out[g.field] = g.pct
	}
	return out
}

// Filled returns d with its guessed dimensions, and those that are 0 but cannot be, from length
// and beam; Guessed names them. Houses may be 0, so they are guessed only where they are named.
func (d Dimensions) Filled() Dimensions {
	named := d.Guessed
	d.Guessed = nil
	for _, g := range guessed {
		if v := g.at(&d); slices.Contains(named, g.field) || *v == 0 && g.field != "housesM2" {
			*v = math.Round(100*g.of(d)) / 100
			d.Guessed = append(d.Guessed, g.field)
		}
	}
	return d
}

// guessPct is what the guesses of d do to a part's area, %: half of the change from one end of
// each guess's range to the other, added as errors that know nothing of each other.
func (d Dimensions) guessPct(r rule) float64 {
	a, _, _ := r(d)
	sum := 0.0
	for _, g := range guessed {
		if !slices.Contains(d.Guessed, g.field) || a <= 0 {
			continue
		}
		low, high := d, d
		*g.at(&low) *= 1 - g.pct/100
		*g.at(&high) *= 1 + g.pct/100
		from, _, _ := r(low)
		to, _, _ := r(high)
		pct := 100 * (to - from) / (2 * a)
		sum += pct * pct
	}
	return math.Sqrt(sum)
}

// guesses names what was guessed, as one says it.
func (d Dimensions) guesses() string {
	names := map[string]string{"lwlM": "waterline", "draughtM": "draught", "freeboardM": "freeboard",
		"housesM2": "houses"}
	out := make([]string, len(d.Guessed))
	for i, f := range d.Guessed {
		out[i] = names[f]
	}
	return strings.Join(out, ", ")
}
