package weather

import (
	"math"
	"time"

	"allcoats/core/base/message"
)

// wets is the least rain in an hour that one speaks of, mm.
const wets = 0.05

// Say tells the rest of the day after now, and the next, as one would: "9 to 17 °C, rain 14:00 to 17:00, wind to 7
// m/s". Empty where nothing is known.
func (s Series) Say(now time.Time, loc *time.Location) message.Sentence {
	l := now.In(loc)
	midnight := time.Date(l.Year(), l.Month(), l.Day()+1, 0, 0, 0, 0, loc)
	out := s.sayDay(now, midnight, loc)
	if next := s.sayDay(midnight, midnight.AddDate(0, 0, 1), loc); len(next) > 0 {
		if len(out) > 0 {
			out = message.Of("%v; ", out)
		}
		out = message.Of("%vtomorrow %v", out, next)
	}
	return out
}

func (s Series) sayDay(from, to time.Time, loc *time.Location) message.Sentence {
	lo, hi, wind := math.Inf(1), math.Inf(-1), 0.0
	var rain []message.Sentence
	var wetFrom time.Time
	untold := false
	stop := func(at time.Time) {
		if !wetFrom.IsZero() {
			rain = append(rain, message.Of("%s to %s", wetFrom.In(loc).Format("15:04"), clockOf(at, to, loc)))
			wetFrom = time.Time{}
		}
	}
	last := from
	for _, h := range s {
		if h.At.Before(from.Truncate(time.Hour)) || !h.At.Before(to) {
			continue
		}
		lo, hi, last = min(lo, h.TempC), max(hi, h.TempC), h.At.Add(time.Hour)
		if h.WindMS != nil {
			wind = max(wind, *h.WindMS)
		}
		switch {
		case h.RainMM == nil:
			untold = true
		case *h.RainMM <= wets:
			stop(h.At)
		case wetFrom.IsZero():
			wetFrom = h.At
		}
	}
	if hi < lo {
		return nil
	}
	stop(last)
	out := message.Of("%v to %v", message.Val(lo, "°C"), message.Val(hi, "°C"))
	switch {
	case len(rain) > 3:
		out = message.Of("%v, showers", out)
	case len(rain) > 0:
		out = message.Of("%v, rain %v", out, message.Join(rain, " and "))
	case untold:
		out = message.Of("%v, rain not told", out)
	default:
		out = message.Of("%v, dry", out)
	}
	if wind > 0 {
		out = message.Of("%v, wind to %v", out, message.Val(wind, "m/s"))
	}
	return out
}

// clockOf is a time of day; the end of the day is 24:00.
func clockOf(at, midnight time.Time, loc *time.Location) string {
	if at.Equal(midnight) {
		return "24:00"
	}
	return at.In(loc).Format("15:04")
}
