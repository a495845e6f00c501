package purchase

import (
	"math"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
)

// Shelved is what is left of something on the shelf, L: a kit or a one-part
// product, or with Part one part of a two-part product.
type Shelved struct {
	Part  string
	LeftL float64
}

// Use takes litres of mix off items of one product in their order, baseShare
// of it base. Kits are used whole, told by their base. What the items do not
// have is passed over.
func Use(items []*Shelved, litres, baseShare float64) {
	base, hardener := litres*baseShare, litres*(1-baseShare)
	for _, s := range items {
		switch s.Part {
		case product.BasePart:
			base -= s.take(base)
		case product.HardenerPart:
			hardener -= s.take(hardener)
		default:
			taken := s.take(base / baseShare)
			base -= taken * baseShare
			hardener -= taken * (1 - baseShare)
		}
	}
}

func (s *Shelved) take(litres float64) float64 {
	taken := math.Min(s.LeftL, math.Max(0, litres))
	s.LeftL -= taken
	return taken
}

// Expiry is the day, such as 2026-05-30, on which a shelf life ends: the day
// printed, else so many months after it was bought; "" if nothing tells.
func Expiry(printed, boughtOn string, months float64) string {
	if printed != "" {
		return printed
	}
	bought, err := time.Parse(time.DateOnly, boughtOn)
	if err != nil || months == 0 {
		return ""
	}
	return bought.AddDate(0, int(months), 0).Format(time.DateOnly)
}

// ShelfLife tells whether the shelf life that ends on a day is over, and warns
// of that and of the two months before it.
func ShelfLife(day string, now time.Time) (expired bool, worry message.Sentence) {
	switch {
	case day == "":
		return false, nil
	case day < now.Format(time.DateOnly):
		return true, message.Of("past its shelf life since %v: not counted on; test it before use", OnDay(day))
	case day < now.AddDate(0, 2, 0).Format(time.DateOnly):
		return false, message.Of("its shelf life ends on %v", OnDay(day))
	}
	return false, nil
}

// OnDay says a day such as 2026-05-30 with its year, the same one in nearly all time zones; what is none
// stays as it is.
func OnDay(day string) message.Sentence {
	t, err := time.Parse(time.DateOnly, day)
	if err != nil {
		return message.Sentence{message.Text("%s", day)}
	}
	return message.Sentence{message.On(t.Add(12 * time.Hour)), message.Text(" %d", t.Year())}
}
