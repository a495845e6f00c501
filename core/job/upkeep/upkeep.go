// Package upkeep tells when what was laid wants doing again.
package upkeep

import (
	"fmt"
	"math"
	"time"

	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
)

// Rules of thumb: the clear film that the weather takes in a year in the open at
// latitude 50°, what cover leaves of that, and a season afloat in years.
const (
	weatherUmYear = 10.0
	covered       = 0.3
	seasonYears   = 0.5
	leastYears    = 0.5
	mostYears     = 5.0
	// HardSeasons is what a hard matrix lasts by habit.
	HardSeasons = 2.0
)

// WearUm is the film of an antifouling that goes in a season of half a year afloat, µm,
// over nm nautical miles: its own wear a year and for each 1000 miles, of its sheet.
func WearUm(umYear, um1000NM, nm float64) float64 { return umYear*seasonYears + um1000NM*nm/1000 }

// Film is what stands on a surface of one product: its last coat and film.
type Film struct {
	Sheet       product.Sheet
	LastAt      time.Time
	Um          float64
	LatitudeDeg float64
	Covered     bool
	// NM is how far she goes in a season, nautical miles, 0 if not told.
	NM float64
}

// Due is when it wants doing, and what. Seasons are those that an antifouling has
// left, 0 for other films.
type Due struct {
	What    string          `json:"what"`
	At      time.Time       `json:"at"`
	Seasons float64         `json:"seasons"`
	Working working.Working `json:"working"`
}

// Next tells when a film wants doing again; ok is false for one that only needs
// looking at.
func (f Film) Next() (d Due, ok bool) {
	w := working.New()
	w.In("Film", f.Um, "µm")
	years := func(y float64) time.Time { return f.LastAt.Add(time.Duration(y * 365.25 * 24 * float64(time.Hour))) }
	switch f.Sheet.Kind {
	case product.Varnish, product.WoodSealer:
		if f.Sheet.Kind == product.WoodSealer && f.Sheet.Binder != product.Oil {
			return d, false
		}
		sun := 1 / math.Max(0.3, math.Cos(f.LatitudeDeg*math.Pi/180)/math.Cos(50*math.Pi/180))
		least := f.Sheet.Film.TypicalUm * 2
		rate := weatherUmYear / sun
		if f.Covered {
			rate *= covered
		}
		w.In("Latitude", f.LatitudeDeg, "°")
		w.Step("Weathering in a year", "10 µm a year at 50°, with the cosine of the latitude; 0.3 of it under cover", rate, "µm", "rule of thumb")
		w.Step("Least film to recoat onto", "two coats of it", least, "µm", "rule of thumb")
		y := w.Step("Years", "(film − least) / weathering, between 0.5 and 5", math.Min(mostYears, math.Max(leastYears, (f.Um-least)/rate)), "years", "rule of thumb")
		return Due{What: "scuff and lay two coats, before it cracks", At: years(y), Working: w}, true
	case product.SoftAntifoul:
		wear := WearUm(f.Sheet.PolishUmYear, f.Sheet.PolishUm1000NM, f.NM)
		if wear <= 0 {
			w.Warn("The sheet gives no wear: one season is taken.")
			wear = math.Max(1, f.Um)
		}
		w.In("Film that goes in a season", wear, "µm")
		d.Seasons = w.Step("Seasons", "film / wear in a season", f.Um/wear, "seasons", "the sheet's wear; half a year afloat")
		d.What, d.At = "new antifouling", years(math.Max(1, math.Floor(d.Seasons)))
	case product.HardAntifoul:
		d.Seasons = w.Step("Seasons", "a hard matrix is spent by habit, not by film", HardSeasons, "seasons", "rule of thumb")
		d.What, d.At = "scuff under water-wet paper and recoat", years(HardSeasons)
	default:
		y := f.Sheet.Kind.Info().Years
		if y == 0 {
			return d, false
		}
		d.What, d.At = "polish or recoat, as the gloss says", years(w.Step("Years", "by its kind", y, "years", "rule of thumb"))
	}
	d.Working = w
	return d, true
}

// In puts a due day in words from now.
func (d Due) In(now time.Time) string {
	days := d.At.Sub(now).Hours() / 24
	switch {
	case days < 0:
		return fmt.Sprintf("due for %.0f days", -days)
	case days < 60:
		return fmt.Sprintf("in %.0f days", days)
	case days < 700:
		return fmt.Sprintf("in %.0f months", days/30.4)
	}
	return fmt.Sprintf("in %.1f years", days/365.25)
}
