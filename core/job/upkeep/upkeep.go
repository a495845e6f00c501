// Package upkeep tells when what was laid wants doing again, from what wears it and from how the
// boat's own finishes held.
package upkeep

import (
	"math"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
)

// Rules of thumb: the years that a varnish of usualUm goes on an upright face in the open at 50° N, which
// grow with the root of the film; the seasons of a hard matrix; and what a usual year afloat has.
const (
	varnishYears              = 1.4
	usualUm                   = 150.0
	leastVarnish, mostVarnish = 0.3, 3.0
	oilYears                  = 0.7
	// HardSeasons is what a hard matrix lasts by habit.
	HardSeasons = 2.0
	// UsualMonths is how long a boat is afloat in a year if nobody says.
	UsualMonths = 6.0
	// WornFactor is how much faster a film goes where water is fastest: rudder, leading edges, waterline.
	WornFactor = 1.5
)

// WearUm is the film of an antifouling that goes in a year, µm: its own wear in the months afloat, and
// for each 1000 of nm nautical miles, of its sheet.
func WearUm(umYear, um1000NM, months, nm float64) float64 { return umYear*months/12 + um1000NM*nm/1000 }

// Film is what stands on a surface of one product: its last coat and film, and where it is.
type Film struct {
	Sheet  product.Sheet
	LastAt time.Time
	Um     float64
	Exposure
	// MonthsAfloat are those of a year, 0 the usual ones; NM is how far she goes in one, nautical miles;
	// Worn says that the water is fastest there.
	MonthsAfloat float64
	NM           float64
	Worn         bool
}

// Due is when it wants doing, and what: most likely At, eight times in ten between From and To. Years
// are from the last coat to At; Seasons those of an antifouling, 0 for other films. Graded is from how
// many grades it was learned.
type Due struct {
	What    message.Sentence `json:"what"`
	At      time.Time        `json:"at"`
	From    time.Time        `json:"from"`
	To      time.Time        `json:"to"`
	Years   float64          `json:"years"`
	Seasons float64          `json:"seasons"`
	Graded  int              `json:"graded"`
	Working working.Working  `json:"working"`
}

// wear is how a film goes: the share of its life in each month of the year.
type wear struct {
	what    message.Sentence
	monthly [12]float64
	seasons float64
	working working.Working
}

// wears tells how a film goes; ok is false for one that only needs looking at.
func (f Film) wears() (out wear, ok bool) {
	w := working.New()
	w.In("Film", f.Um, "µm")
	byYears := func(years float64) {
		for m := range out.monthly {
			out.monthly[m] = 1 / (12 * years)
		}
	}
	bySun := func(years float64) {
		for m, dose := range f.Months() {
			out.monthly[m] = dose / years
		}
		w.In("Latitude", f.LatitudeDeg, "°")
		w.In("Tilt", f.TiltDeg, "°")
		w.Step("Sun in a year",
			"that of a clear sky on the face, of all bearings, over that on an upright one in the open at 50° N; 0.15 of it under cover, 0.05 inside", f.Year(), "", "Ineichen & Perez 2002; what cover leaves is a rule of thumb")
	}
	switch kind := f.Sheet.Kind; {
	case kind == product.Varnish:
		out.what = message.Of("scuff and lay two coats, before it cracks")
		bySun(w.Step("Life in the open", "1.4 years · √(film / 150 µm), between 0.3 and 3",
			min(mostVarnish, max(leastVarnish, varnishYears*math.Sqrt(max(0, f.Um)/usualUm))), "years",
			"rule of thumb: varnish outdoors goes one to two seasons"))
	case kind == product.WoodSealer && f.Sheet.Binder == product.Oil:
		out.what = message.Of("wash, and wipe on another coat")
		bySun(w.Step("Life in the open", "by its kind", oilYears, "years", "rule of thumb"))
	case kind == product.SoftAntifoul:
		months := f.MonthsAfloat
		if months == 0 {
			months = UsualMonths
		}
		um := WearUm(f.Sheet.PolishUmYear, f.Sheet.PolishUm1000NM, months, f.NM)
		if f.Worn {
			um *= WornFactor
		}
		if um <= 0 {
			w.Warn("The sheet gives no wear: one season is taken.")
			um = max(1, f.Um)
		}
		w.In("Months afloat in a year", months, "")
		w.In("Film that goes in a year", um, "µm")
		out.what = message.Of("new antifouling")
		out.seasons = w.Step("Seasons", "film / what goes in a year", f.Um/um, "seasons", "the sheet's wear")
		byYears(max(0.1, out.seasons))
	case kind == product.HardAntifoul:
		out.what = message.Of("scuff under water-wet paper and recoat")
		out.seasons = w.Step("Seasons", "a hard matrix is spent by habit, not by film", HardSeasons, "seasons",
			"rule of thumb")
		byYears(HardSeasons)
	case kind.Info().Years > 0 && kind.Info().Gloss:
		out.what = message.Of("polish or recoat, as the gloss says")
		bySun(w.Step("Life in the open", "by its kind", kind.Info().Years, "years", "rule of thumb"))
	case kind.Info().Years > 0:
		out.what = message.Of("recoat, where feet have worn it or the gloss is gone")
		byYears(w.Step("Life", "by its kind", kind.Info().Years, "years", "rule of thumb"))
	default:
		return out, false
	}
	out.working = w
	return out, true
}

// Next tells when a film wants doing again, by what grades of the boat's other films taught, and by its
// own grades, which rise in time; ok is false for one that only needs looking at.
func (f Film) Next(others Habit, own []Grade) (d Due, ok bool) {
	wear, ok := f.wears()
	if !ok {
		return d, false
	}
	used := make([]Used, 0, len(own))
	for _, g := range own {
		used = append(used, Used{wear.used(f.LastAt, g.At), g.Worst})
	}
	h := others.own().with(used, gradeSD)
	d = Due{What: wear.what, Graded: h.Graded, Working: wear.working}
	w := &d.Working
	if h.Graded > 0 {
		w.In("Finishes graded", float64(h.Graded), "")
		w.Step("Life, as this boat's finishes held",
			"× the rule of thumb; grades held against the share of the life that was spent", math.Exp(h.Mean), "",
			"fitted to the grades")
	}
	low, high := h.Range()
	d.At, d.From, d.To = wear.reaches(f.LastAt, math.Exp(h.Mean)), wear.reaches(f.LastAt, low),
		wear.reaches(f.LastAt, high)
	d.Years = w.Step("Years from the last coat", "until the life is spent, month by month; 80 % between the two below",
		years(f.LastAt, d.At), "years", "")
	w.Step("Years, at the least", "× "+number(low/math.Exp(h.Mean)), years(f.LastAt, d.From), "years",
		"one time in ten it is sooner")
	w.Step("Years, at the most", "× "+number(high/math.Exp(h.Mean)), years(f.LastAt, d.To), "years",
		"one time in ten it is later")
	if wear.seasons > 0 {
		d.Seasons = wear.seasons * math.Exp(h.Mean)
	}
	if n := len(own); n > 0 && own[n-1].Worst >= dueGrade {
		w.Warn("It was graded %d of 4: it wants doing now, whatever the reckoning says.", own[n-1].Worst)
		d.At, d.From, d.To = own[n-1].At, own[n-1].At, own[n-1].At
		d.Years = years(f.LastAt, d.At)
	}
	return d, true
}

func years(from, to time.Time) float64 { return to.Sub(from).Hours() / 24 / 365.25 }
