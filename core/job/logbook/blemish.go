package logbook

import (
	"math"
	"slices"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/film/mix"
)

// Record is what is known of a coat that shows a blemish. Zero figures are not
// known; RatioOffPct is how far the hardener was from its share.
type Record struct {
	Sheet       product.Sheet
	WetUm       float64 // mean of the comb
	PlannedUm   float64 // wet, as planned
	DryUm       float64
	ThinnerPct  float64
	RatioOffPct float64
	Spray       bool
	Upright     bool
	WindMS      float64
	Conditions  *Conditions
	Damage      []clock.Damage
	// Cleaned says that the surface was washed or degreased since the last coat,
	// Keyed that it was sanded or the coat went on within its window; Early that
	// it went on before the window opened.
	Cleaned, Keyed, Early bool
}

// Cause is a likely cause. Told says what in the record speaks for it; empty, it
// is only one of those known.
type Cause struct {
	Text string           `json:"text"`
	Told message.Sentence `json:"told,omitempty"`
	// Next is what to change next time.
	Next string `json:"next"`
}

// Blemish is something seen on a coat.
type Blemish struct {
	Key    string `json:"key"`
	Name   string `json:"name"`
	Looks  string `json:"looks"`
	Remedy string `json:"remedy"`
	causes []cause
}

type cause struct {
	text, next string
	told       func(r Record) message.Sentence
}

func yes(when bool, template string, args ...any) message.Sentence {
	if !when {
		return nil
	}
	return message.Of(template, args...)
}

func harmed(r Record, h clock.Harm) bool {
	return slices.ContainsFunc(r.Damage, func(d clock.Damage) bool { return d.Harm == h && !d.Forecast })
}

// The causes, each with what in a record speaks for it.
var (
	tooWet = cause{"laid too thick", "comb the first square metre, and two thin coats for a thick one",
		func(r Record) message.Sentence {
			sag := r.Sheet.SagUprightUm
			switch {
			case r.WetUm > 0 && sag > 0 && r.Upright && r.WetUm > sag:
				return message.Of("%.0f µm wet, and the sheet's limit on an upright face is %.0f µm", r.WetUm, sag)
			case r.WetUm > 0 && r.PlannedUm > 0 && r.WetUm > 1.2*r.PlannedUm:
				return message.Of("%.0f µm wet where %.0f µm were planned", r.WetUm, r.PlannedUm)
			}
			return nil
		}}
	tooThin = cause{"laid too thin", "comb as you go, in batches that fit the pot", func(r Record) message.Sentence {
		switch {
		case r.WetUm > 0 && r.PlannedUm > 0 && r.WetUm < 0.85*r.PlannedUm:
			return message.Of("%.0f µm wet where %.0f µm were planned", r.WetUm, r.PlannedUm)
		case r.DryUm > 0 && r.Sheet.Film.MinUm > r.DryUm:
			return message.Of("%.0f µm dry, and the sheet asks for %.0f µm at least", r.DryUm, r.Sheet.Film.MinUm)
		}
		return nil
	}}
	thinned = cause{"thinned too far", "measure the thinner, within the sheet", func(r Record) message.Sentence {
		return yes(r.ThinnerPct > 0 && r.ThinnerPct > r.Sheet.ThinnerMaxPct,
			"%.0f %% thinner, and the sheet allows %.0f %%", r.ThinnerPct, r.Sheet.ThinnerMaxPct)
	}}
	tooStiff = cause{"too stiff to flow out: cold, or not thinned", "warm the tins, or thin within the sheet",
		func(r Record) message.Sentence {
			return yes(at(r).SurfaceC < 12 && r.ThinnerPct < r.Sheet.ThinnerMaxPct/2,
				"the surface was at %.0f °C and little thinner was in", at(r).SurfaceC)
		}}
	hot = cause{"a hot surface: it skinned before it flowed", "lay in the morning or in the shade",
		func(r Record) message.Sentence {
			m := r.Sheet.Limits.SurfaceMaxC
			switch {
			case harmed(r, clock.ByHeat):
				return message.Of("the surface was above the sheet's maximum while it was wet")
			case m != nil && at(r).SurfaceC > *m || m == nil && at(r).SurfaceC > 32:
				return message.Of("the surface was at %.0f °C", at(r).SurfaceC)
			}
			return nil
		}}
	wind = cause{"wind or a draught", "wait for less wind, or hang a sheet to windward",
		func(r Record) message.Sentence { return yes(r.WindMS > 4, "the wind was %.0f m/s", r.WindMS) }}
	dirty = cause{"wax, oil or silicone on the surface", "wash with detergent and wipe with two rags before every coat",
		func(r Record) message.Sentence {
			return yes(!r.Cleaned, "no washing or degreasing is logged since the coat before")
		}}
	damp = cause{"damp air: blush or bloom", "begin later in the morning, and stop two hours before the dew",
		func(r Record) message.Sentence {
			switch {
			case harmed(r, clock.ByDamp):
				return message.Of("it was near the dew point before it was tack-free")
			case at(r).RHPct > 80:
				return message.Of("the air was at %.0f %% humidity", at(r).RHPct)
			}
			return nil
		}}
	dewed = cause{"dew or rain before it was touch-dry", "stop early enough that it is touch-dry before the dew",
		func(r Record) message.Sentence {
			switch {
			case harmed(r, clock.ByRain):
				return message.Of("rain fell on it before it was touch-dry")
			case harmed(r, clock.ByDew):
				return message.Of("dew settled on it before it was touch-dry")
			}
			return nil
		}}
	chilled = cause{"too cold to cure", "wait for warmth, heat it, or take the hardener for the cold",
		func(r Record) message.Sentence {
			switch {
			case harmed(r, clock.ByFrost):
				return message.Of("there was frost before it was tack-free")
			case at(r).SurfaceC < r.Sheet.MinCureC:
				return message.Of("the surface was at %.0f °C, and it cures above %.0f °C", at(r).SurfaceC,
					r.Sheet.MinCureC)
			}
			return nil
		}}
	ratio = cause{"mixed off its ratio, or not stirred out",
		"weigh both parts, and stir two minutes, sides and bottom too", func(r Record) message.Sentence {
			return yes(math.Abs(r.RatioOffPct) > mix.Tolerance, "the hardener weighed was %.0f %% off", r.RatioOffPct)
		}}
	early = cause{"coated before the coat below had dried", "wait till its window opens",
		func(r Record) message.Sentence {
			return yes(r.Early, "it went on before the window of the coat below opened")
		}}
	unkeyed = cause{"no key: the window had closed and it was not sanded", "keep to the window, or sand it",
		func(r Record) message.Sentence {
			return yes(!r.Keyed, "the window of the coat below had closed and no sanding is logged")
		}}
	strong = cause{"strong solvent over a soft coat", "try a patch first, or seal it with what bears the solvent",
		func(r Record) message.Sentence {
			return yes(r.Sheet.StrongSolvent, "%s holds strong solvent", r.Sheet.Name)
		}}
	dry = cause{"the spray dried on its way: gun too far, air too high, too warm",
		"nearer, with less air and a slower thinner", func(r Record) message.Sentence {
			return yes(r.Spray && at(r).AirC > 25, "it was sprayed at %.0f °C", at(r).AirC)
		}}
	missed = cause{"spots missed, worst at edges and in poor light",
		"a lamp along the surface, and every pass crossed", func(Record) message.Sentence { return nil }}
	porous = cause{"air out of a porous ground", "a thin first coat, worked well in", func(Record) message.Sentence {
		return nil
	}}
	rolled = cause{"rolled too fast, or a nap that froths", "slower, with a fine nap, and tip it off",
		func(Record) message.Sentence { return nil }}
	dusty = cause{"dust from the floor, the tack rag or the neighbours",
		"wet the floor, tack last, lay out of the wind", func(r Record) message.Sentence {
			return yes(r.WindMS > 4, "the wind was %.0f m/s", r.WindMS)
		}}
	scratch = cause{"sanded too coarse before it", "skip no grit, and end with the one that the sheet asks for",
		func(Record) message.Sentence { return nil }}
	light = cause{"a dark ground under too little film", "a coat more, or an undercoat near in colour",
		func(r Record) message.Sentence {
			return yes(r.Sheet.HidingUm > 0 && r.DryUm > 0 && r.DryUm < r.Sheet.HidingUm,
				"%.0f µm are on and it hides from %.0f µm", r.DryUm, r.Sheet.HidingUm)
		}}
	tape = cause{"tape pulled too late, or an edge not pressed down", "press the edge down, and pull while it is wet",
		func(Record) message.Sentence { return nil }}
)

// at are the conditions of a record; NaN, which no limit is above or below, where
// they are not known.
func at(r Record) Conditions {
	if r.Conditions == nil {
		return Conditions{AirC: math.NaN(), RHPct: math.NaN(), SurfaceC: math.NaN(), SpreadK: math.NaN()}
	}
	return *r.Conditions
}

// Blemishes lists what is seen on coats.
var Blemishes = []Blemish{
	{"runs", "runs, sags, curtains", "drips and thick lower edges",
		"Let it harden through, block the runs level with a scraper and fine paper on a hard block, then scuff and lay one thin coat.", []cause{tooWet, thinned, chilled}},
	{"orange-peel", "orange peel", "a dimpled gloss",
		"When sandable flat it with 320 to 400 and lay the next coat wetter or thinned within the sheet.",
		[]cause{tooStiff, tooThin, hot, dry, wind}},
	{"fisheye", "fisheyes, cissing", "round craters that the paint shrinks from",
		"Do not coat over them. Sand them out, wash with detergent, wipe with two rags, and try a test patch.",
		[]cause{dirty}},
	{"pinholes", "pinholes, solvent pop", "needle-fine holes, or broken bubbles",
		"Fill them with a thin skim across, sand, look again under guide coat; prime once more before the finish.",
		[]cause{porous, tooWet, hot, rolled, thinned}},
	{"blush", "amine blush", "greasy, whitish or sticky skin on epoxy",
		"Wash with warm water and a little detergent and a pad, rinse, dry; only then sand.",
		[]cause{damp, dewed, chilled, ratio}},
	{"bloom", "dull or spotted gloss", "milky, flat or spotted where it should shine",
		"When hard, flat with 400 and recoat in drier air; stop two hours before the dew.",
		[]cause{dewed, damp, thinned}},
	{"dry-spray", "dry spray", "rough, sandy feel, dull",
		"Sand smooth and spray wetter, nearer, or with a slower thinner.", []cause{dry, wind, tooThin}},
	{"holidays", "holidays", "spots without film",
		"Touch in now if it is still wet; else scuff and lay the next coat the other way.", []cause{missed, tooThin}},
	{"grin", "grin-through", "the colour below shows", "One more coat, or an undercoat near the finish in colour.",
		[]cause{light, tooThin, thinned}},
	{"wrinkles", "wrinkles, lifting", "the film puckers like a raisin",
		"Let it dry through, strip back to what is sound, and check that the two go together.",
		[]cause{early, strong, tooWet, hot}},
	{"peeling", "flaking, poor hold", "it comes off in sheets, or under tape",
		"Take off all that lifts, sand to a feathered edge, clean, and keep to the window.",
		[]cause{unkeyed, dirty, damp, dewed}},
	{"soft", "soft or sticky for days", "a thumbnail marks it long after its time",
		"Wait for warmth first. If the ratio was off it will never cure: scrape it off and clean with solvent.",
		[]cause{ratio, chilled, tooWet, damp}},
	{"dust", "dust, nibs", "specks in the gloss",
		"Nib with 400 to 600 when hard; for a show finish flat and polish or recoat.", []cause{dusty}},
	{"scratches", "scratches telegraph", "sanding lines show through the gloss",
		"Flat back with finer grits in steps and recoat; do not skip a grit.", []cause{scratch, tooThin}},
	{"edge", "ragged tape edge", "a lifted, bled or saw-toothed line",
		"Score along the tape before you pull; trim with fine paper on a block, touch in with a fine brush.",
		[]cause{tape, tooWet}},
}

// BlemishByKey returns the blemish of that key.
func BlemishByKey(key string) (Blemish, bool) {
	i := slices.IndexFunc(Blemishes, func(b Blemish) bool { return b.Key == key })
	if i < 0 {
		return Blemish{}, false
	}
	return Blemishes[i], true
}

// Causes lists the likely causes, those that the record speaks for first.
func (b Blemish) Causes(r Record) []Cause {
	var told, known []Cause
	for _, c := range b.causes {
		if why := c.told(r); why != nil {
			told = append(told, Cause{c.text, why, c.next})
		} else {
			known = append(known, Cause{Text: c.text, Next: c.next})
		}
	}
	return append(told, known...)
}

// Repeat is a cause that the records of more than one coat speak for, with the blemishes that came of it.
type Repeat struct {
	Cause
	Times     int
	Blemishes []string
}

// Repeats are the causes that speak again and again from coats with blemishes: those of the most coats
// first. Blemishes that are not known are left out.
func Repeats(coats []Blemished) []Repeat {
	var out []Repeat
	for _, c := range coats {
		counted := map[string]bool{}
		for _, key := range c.Blemishes {
			b, ok := BlemishByKey(key)
			if !ok {
				continue
			}
			for _, cause := range b.Causes(c.Record) {
				if cause.Told == nil {
					continue
				}
				i := slices.IndexFunc(out, func(r Repeat) bool { return r.Text == cause.Text })
				if i < 0 {
					i, out = len(out), append(out, Repeat{Cause: cause})
				}
				if !counted[cause.Text] {
					counted[cause.Text] = true
					out[i].Times++
				}
				if !slices.Contains(out[i].Blemishes, b.Name) {
					out[i].Blemishes = append(out[i].Blemishes, b.Name)
				}
			}
		}
	}
	out = slices.DeleteFunc(out, func(r Repeat) bool { return r.Times < 2 })
	slices.SortStableFunc(out, func(a, b Repeat) int { return b.Times - a.Times })
	return out
}

// Blemished is a coat with what was seen on it.
type Blemished struct {
	Record
	Blemishes []string
}
