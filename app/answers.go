package app

import (
	"context"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/boat/area"
	"allcoats/core/job/enquiry"
	"allcoats/core/physics/weather"
	"allcoats/formats"
)

// Question is one of those that are answered before there is a boat. Lengths and beam stand in
// place of an area, for a part of a hull of a form; the weather is told in words or pasted hours.
type Question struct {
	Asks      enquiry.Question `json:"asks"`
	ProductID string           `json:"productId"`
	Method    string           `json:"method,omitempty"`
	Place     string           `json:"place,omitempty"`
	AreaM2    float64          `json:"areaM2,omitempty"`
	LOAM      float64          `json:"loaM,omitempty"`
	BeamM     float64          `json:"beamM,omitempty"`
	Part      area.Part        `json:"part,omitempty"`
	HullForm  area.HullForm    `json:"hullForm,omitempty"`
	Coats     int              `json:"coats,omitempty"`
	Litres    float64          `json:"litres,omitempty"`
	// TempC is of the pot, nil 15 °C.
	TempC      *float64   `json:"tempC,omitempty"`
	LaidAt     *time.Time `json:"laidAt,omitempty"`
	DFTUm      float64    `json:"dftUm,omitempty"`
	ThinnerPct float64    `json:"thinnerPct,omitempty"`
	Weather    string     `json:"weather,omitempty" maxLength:"200000"`
	// Where, nil where nobody said: then at 50° in the zone of the browser.
	LatitudeDeg  *float64 `json:"latitudeDeg,omitempty"`
	LongitudeDeg *float64 `json:"longitudeDeg,omitempty"`
	TimeZone     string   `json:"timeZone,omitempty"`
}

// Answered is the answer to a question, with the weather as it was read.
type Answered struct {
	enquiry.Answer
	Now      time.Time          `json:"now"`
	TimeZone string             `json:"timeZone"`
	Days     []message.Sentence `json:"days"`
}

const (
	unsaidLatitude = 50
	usualPotC      = 15
	// daysOn is how many days the last one that was told is taken to come again, and before the first.
	daysOn, daysBefore = 6, 2
)

// Answer answers a question that is about no boat.
func (a *App) Answer(ctx context.Context, q Question) (Answered, error) {
	out := Answered{Days: []message.Sentence{}, TimeZone: "UTC"}
	now, err := a.Now(ctx)
	if err != nil {
		return out, err
	}
	out.Now = now
	p, err := a.Product(ctx, q.ProductID)
	if err != nil {
		return out, fielderr.At("productId", "choose a product of the library")
	}
	loc, err := time.LoadLocation(q.TimeZone)
	if err != nil || q.TimeZone == "Local" {
		return out, fielderr.At("timeZone", "%q is not a time zone such as Europe/London", q.TimeZone)
	}
	out.TimeZone = loc.String()
	ask := enquiry.Ask{Sheet: p.Sheet, Method: q.Method, Place: q.Place, AreaM2: q.AreaM2, Coats: q.Coats,
		Litres: q.Litres, TempC: usualPotC,
		DFTUm: q.DFTUm, ThinnerPct: q.ThinnerPct, Weather: enquiry.Weather{LatitudeDeg: unsaidLatitude, Loc: loc,
			Now: now}}
	if q.TempC != nil {
		ask.TempC = *q.TempC
	}
	if q.LaidAt != nil {
		ask.LaidAt = *q.LaidAt
	}
	if ask.Currency, err = a.Currency(ctx); err != nil {
		return out, err
	}
	if err := q.size(&ask); err != nil {
		return out, err
	}
	var supposed []message.Sentence
	if q.Asks == enquiry.CoatToday || q.Asks == enquiry.WhenAgain {
		var bad fielderr.Errors
		if q.LatitudeDeg != nil {
			ask.Weather.LatitudeDeg = *q.LatitudeDeg
			bad.Range("latitudeDeg", *q.LatitudeDeg, -90, 90, "°")
		} else {
			supposed = append(supposed,
				message.Of("You did not say where you are: light and sun are those of %v° north.",
					message.Text("%d", unsaidLatitude)))
		}
		_, offset := now.In(loc).Zone()
		ask.Weather.LongitudeDeg = float64(offset) / 240 // 15° an hour
		if q.LongitudeDeg != nil {
			ask.Weather.LongitudeDeg = *q.LongitudeDeg
			bad.Range("longitudeDeg", *q.LongitudeDeg, -180, 180, "°")
		}
		if err := bad.Err(); err != nil {
			return out, err
		}
		var doubts []message.Sentence
		if out.Days, doubts, err = tell(q.Weather, &ask.Weather); err != nil {
			return out, err
		}
		supposed = append(doubts, supposed...)
	}
	out.Answer, err = enquiry.Find(q.Asks, ask)
	out.Supposed = append(supposed, out.Supposed...)
	return out, err
}

// size turns length and beam into an area with its ±.
func (q Question) size(ask *enquiry.Ask) error {
	if q.LOAM == 0 && q.BeamM == 0 {
		return nil
	}
	d := area.Dimensions{HullForm: q.HullForm, LOAM: q.LOAM, BeamM: q.BeamM, Guessed: []string{"housesM2"}}.Filled()
	if d.HullForm == "" {
		d.HullForm = area.Medium
	}
	if err := d.Validate(); err != nil {
		return err
	}
	f, err := area.Boat{Dimensions: d}.Of(q.Part, area.Both, area.Measure{Method: area.ByPrincipal})
	if err != nil {
		return fielderr.At("part", "has no rule from length and beam: give its area")
	}
	ask.AreaM2, ask.AreaPct = f.AreaM2, f.UncertaintyPct
	return nil
}

// tell reads weather in words, or pasted hours, into w; beyond what was told the last day comes again.
func tell(text string, w *enquiry.Weather) (days, doubts []message.Sentence, err error) {
	if strings.TrimSpace(text) == "" {
		return nil, nil, fielderr.At("weather",
			"say what the day is like, such as %q, or paste the hours of a forecast", formats.Example)
	}
	told, days, doubts, err := readWeather([]byte(text), w.Now, w.Loc)
	if err != nil {
		return nil, nil, err
	}
	from, to, _ := told.Span()
	w.Until = to.Add(time.Hour)
	again := func(day weather.Series, by int) weather.Series {
		out := make(weather.Series, len(day))
		for i, h := range day {
			h.At = h.At.Add(time.Duration(by) * 24 * time.Hour)
			out[i] = h
		}
		return out
	}
	first, last := told.Between(from, from.Add(24*time.Hour-time.Second)),
		told.Between(to.Add(-24*time.Hour+time.Second), to)
	var all weather.Series
	for d := daysBefore; d > 0; d-- {
		all = append(all, again(first, -d)...)
	}
	all = append(all, told...)
	for d := 1; d <= daysOn; d++ {
		all = append(all, again(last, d)...)
	}
	w.Air = all
	return days, doubts, w.Air.Validate()
}

// readWeather reads hours of a table, or days in words, with what they were read as.
func readWeather(data []byte, now time.Time, loc *time.Location) (told weather.Series, days, doubts []message.Sentence,
	err error) {
	if formats.IsTable(data) {
		told, read, err := formats.ReadWeather(data, loc)
		if err != nil {
			return nil, nil, nil, fielderr.At("weather", "%v", err)
		}
		for _, d := range read {
			doubts = append(doubts, message.Lit(d))
		}
		from, to, _ := told.Span()
		return told, []message.Sentence{message.Of("%d hours, %v to %v", len(told), message.Date(from),
			message.Date(to))}, doubts, nil
	}
	read, doubts, err := formats.ReadDays(string(data), now, loc)
	if err != nil {
		return nil, nil, nil, err
	}
	var bad fielderr.Errors
	for _, d := range read {
		hours, err := d.Hours(loc)
		bad.Under("weather", err)
		told, days = append(told, hours...), append(days, d.Say())
	}
	return told, days, doubts, bad.Err()
}
