package metal

import (
	"math"

	"allcoats/core/base/message"
)

// Noble lists metals of a boat with their potential in flowing sea water, V against a
// calomel electrode: of two that touch the lower is eaten (galvanic series, ASTM G82;
// stainless steel passive).
var Noble = []struct {
	Key   string  `json:"key"`
	Name  string  `json:"name"`
	Volts float64 `json:"volts"`
}{{"zinc", "zinc anode", -1.03}, {"aluminium", "aluminium", -0.8}, {"steel", "mild steel", -0.61},
	{"cast-iron", "cast iron", -0.61}, {"bronze", "bronze or copper", -0.3}, {"lead", "lead", -0.22},
	{"stainless", "stainless steel", -0.08}}

// Pair is two metals that touch.
type Pair struct {
	A     string `json:"a"`
	B     string `json:"b"`
	Where string `json:"where"`
	// Isolated says that a gasket, sleeves and washers part them.
	Isolated bool `json:"isolated"`
}

// Post is something that stands on a deck and round which water stands.
type Post struct {
	Name     string  `json:"name"`
	AcrossMM float64 `json:"acrossMM"`
	CollarMM float64 `json:"collarMM"` // width of the slope round it
	RiseMM   float64 `json:"riseMM"`   // how high it is made against the post
}

// Eaten is a pair with what becomes of it.
type Eaten struct {
	Pair
	Loses string           `json:"loses"`
	Says  message.Sentence `json:"says"`
	Bad   bool             `json:"bad"`
}

func volts(key string) (float64, bool) {
	for _, n := range Noble {
		if n.Key == key {
			return n.Volts, true
		}
	}
	return 0, false
}

func nameOf(key string) string {
	for _, n := range Noble {
		if n.Key == key {
			return n.Name
		}
	}
	return key
}

// pairs says which of two metals loses.
func (r *Result) pairs(w Work) {
	for _, p := range w.Pairs {
		a, _ := volts(p.A)
		b, _ := volts(p.B)
		low, high := p.A, p.B
		if a > b {
			low, high = high, low
		}
		e := Eaten{Pair: p, Loses: nameOf(low)}
		switch {
		case p.A == p.B:
			e.Loses, e.Says = "", message.Of("the same metal: no isolation needed")
		case p.Isolated:
			e.Says = message.Of("parted: gasket, sleeve and washers; check with a meter that %s and %s do not touch",
				nameOf(low), nameOf(high))
		case math.Abs(a-b) < farApart:
			e.Says = message.Of("near one another: bed in compound, coat both")
		default:
			e.Bad = true
			e.Says = message.Of(
				"%s is eaten: part them with gasket, sleeves and washers, bed in compound; coat %s first of all, bare it drives the eating", nameOf(low), nameOf(high))
		}
		if low == "steel" && high == "stainless" {
			e.Says = message.Of(
				"%v. Welded to one another: carry the whole system 50 mm onto the stainless, its key blasted or 60 grit", e.Says)
		}
		r.Pairs = append(r.Pairs, e)
	}
}

// leastSlope is the slope that lets water go: a rule of thumb.
const leastSlope = 0.05

// posts adds up the collars that drain: a ring of triangular section.
func (r *Result) posts(w Work) {
	for _, p := range w.Posts {
		in, out := p.AcrossMM/2, p.AcrossMM/2+p.CollarMM
		// Section ½ · rise · width, its middle a third of the width off the post.
		r.CollarL += 0.5 * p.RiseMM * p.CollarMM * 2 * math.Pi * (in + (out-in)/3) / 1e6
		if slope := p.RiseMM / p.CollarMM; slope < leastSlope {
			r.Find(false, "The collar round %s rises %.0f mm in %.0f mm: water stands from 1 in 20 down.", p.Name,
				p.RiseMM, p.CollarMM)
		}
	}
	if len(w.Posts) > 0 {
		r.Take("Filler for collars", "Σ ½ · rise · width · 2 π · (radius + width / 3)", r.CollarL, "L",
			"a ring of triangular section")
	}
}
