package enquiry

import (
	"cmp"
	"math"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/physics/cure"
)

// warm is the temperature at which a sheet's interval is told, °C, or the nearest that it tells of.
const warm = 20

// OfSheet is how a coat of a sheet is laid: its wet film, µm, by the sheet's typical one and its solids, the field,
// and when the next may follow, rounded to the safe side. It is empty of what leaves no film.
func OfSheet(s product.Sheet) message.Sentence {
	if !s.IsCoat() || s.Film.TypicalUm <= 0 || s.VolumeSolidsPct <= 0 {
		return message.Sentence{}
	}
	dry := message.Val(s.Film.TypicalUm, "µm")
	out := message.Of("Lay it %v wet for %v dry",
		message.Val(math.Round(film.Wet(s.Film.TypicalUm, s.VolumeSolidsPct, 0)), "µm"), dry)
	l := s.Limits
	least, most := cmp.Or(l.SurfaceMinC, l.AirMinC), cmp.Or(l.SurfaceMaxC, l.AirMaxC)
	switch {
	case least != nil && most != nil:
		out = message.Of("%v, at %v to %v", out, message.Val(*least, "°C"), message.Val(*most, "°C"))
	case least != nil:
		out = message.Of("%v, at %v or more", out, message.Val(*least, "°C"))
	case most != nil:
		out = message.Of("%v, at %v or less", out, message.Val(*most, "°C"))
	}
	if l.RHMaxPct != nil {
		out = message.Of("%v and up to %v humidity", out, message.Val(*l.RHMaxPct, "%"))
	}
	r, ok := s.RecoatOver(s.Kind)
	if !ok && len(s.Recoat) > 0 {
		r, ok = s.Recoat[0], true
	}
	if !ok || len(r.Min) == 0 {
		return message.Of("%v. It does not say when the next coat may follow.", out)
	}
	at := math.Max(r.Min[0].TempC, math.Min(r.Min[len(r.Min)-1].TempC, warm))
	from, _ := r.Min.TauH(at, cure.Minimum)
	if len(r.Max) == 0 {
		return message.Of("%v. At %v the next coat may follow after %v.", out, message.Val(at, "°C"),
			lasting(from, math.Ceil))
	}
	to, _ := r.Max.TauH(at, cure.Maximum)
	return message.Of("%v. At %v the next coat may follow after %v and, without sanding, within %v.", out,
		message.Val(at, "°C"), lasting(from, math.Ceil), lasting(to, math.Floor))
}

// onWhole is round, but for what is whole but for the last digits of a number.
func onWhole(round func(float64) float64) func(float64) float64 {
	return func(v float64) float64 {
		if near := math.Round(v); math.Abs(v-near) < 1e-9 {
			return near
		}
		return round(v)
	}
}

// lasting is a time in the unit that people tell it in, rounded to the safe side.
func lasting(h float64, round func(float64) float64) message.Sentence {
	round = onWhole(round)
	switch {
	case h < 2:
		return message.Of("%v", message.Val(5*round(12*h), "min"))
	case h < 12:
		return message.Of("%v", message.Val(round(2*h)/2, "h"))
	case h < 72:
		return message.Of("%v", message.Val(round(h), "h"))
	}
	return message.Of("%d days", int(round(h/24)))
}
