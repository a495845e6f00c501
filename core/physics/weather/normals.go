package weather

import (
	"fmt"
	"math"
	"time"

	"allcoats/core/base/fault"
)

// Normal is the usual weather of a month at a place.
type Normal struct {
	MeanC  float64 `json:"meanC"`
	SwingK float64 `json:"swingK"` // from the coldest to the warmest hour of a day
	RHPct  float64 `json:"rhPct"`  // mean
	WindMS float64 `json:"windMS"`
	// CloudPct is the mean cover; WetDayPct how many days have rain, and
	// WetAfterWetPct how many of those that follow a wet day.
	CloudPct       float64 `json:"cloudPct"`
	WetDayPct      float64 `json:"wetDayPct"`
	WetAfterWetPct float64 `json:"wetAfterWetPct"`
}

// Normals are the months of a year from January on.
type Normals [12]Normal

// Validate reports what no climate has.
func (n Normals) Validate() error {
	var bad fault.Errors
	for i, m := range n {
		path := fmt.Sprintf("[%d].", i)
		bad.Range(path+"meanC", m.MeanC, -40, 45, "°C")
		bad.Range(path+"swingK", m.SwingK, 0, 35, "K")
		bad.Range(path+"rhPct", m.RHPct, 1, 100, "%")
		bad.Range(path+"windMS", m.WindMS, 0, 30, "m/s")
		bad.Range(path+"cloudPct", m.CloudPct, 0, 100, "%")
		bad.Range(path+"wetDayPct", m.WetDayPct, 0, 100, "%")
		bad.Range(path+"wetAfterWetPct", m.WetAfterWetPct, 0, 100, "%")
	}
	return bad.Err()
}

// UsualNormals is a coast in middle latitudes at lat, degrees: rules of thumb,
// to be replaced by the figures of the place.
func UsualNormals(lat float64) Normals {
	var n Normals
	for m := range n {
		season := math.Cos(2 * math.Pi * (float64(m) - 6.2) / 12) // 1 in July
		if lat < 0 {
			season = -season
		}
		round := func(v float64) float64 { return math.Round(10*v) / 10 }
		n[m] = Normal{
			MeanC: round(27 - 0.33*math.Abs(lat) + 0.13*math.Abs(lat)*season), SwingK: round(7 + 2*season), RHPct: round(79 - 5*season),
			WindMS: round(4.3 - 0.8*season), CloudPct: round(65 - 8*season), WetDayPct: round(42 - 8*season), WetAfterWetPct: 62,
		}
	}
	return n
}

// warmest and coldest are the local hours at which a usual day is so.
const warmest = 15

// At is the usual air at t: the month's, with the day's swing.
func (n Normals) At(t time.Time, loc *time.Location) Hour {
	l := t.In(loc)
	m := n[l.Month()-1]
	hour := float64(l.Hour()) + float64(l.Minute())/60
	c := math.Cos(2 * math.Pi * (hour - warmest) / 24)
	temp := m.MeanC + m.SwingK/2*c
	// The vapour stays through the day while the temperature swings.
	h := Hour{At: t, TempC: temp, RHPct: max(5, min(100, m.RHPct*math.Exp(-0.062*(temp-m.MeanC))))}
	wind, cloud, none := m.WindMS, m.CloudPct, 0.0
	h.WindMS, h.CloudPct, h.RainMM = &wind, &cloud, &none
	return h
}

// wetHourPct is how many hours of a wet day have rain, a rule of thumb.
const wetHourPct = 20

// SimpleDay is a day as one would tell it: "8 to 16 °C, dry, cloudy".
type SimpleDay struct {
	Date string  `json:"date"` // 2026-05-09
	MinC float64 `json:"minC"`
	MaxC float64 `json:"maxC"`
	Sky  string  `json:"sky" enum:"clear,broken,cloudy,overcast"`
	Rain string  `json:"rain" enum:"dry,showers,morning,afternoon,all-day"`
	Wind string  `json:"wind" enum:"calm,light,fresh,strong"`
	// Air is how damp the air is.
	Air string `json:"air" enum:"dry,usual,damp,fog"`
}

// The words of a simple day: cloud in %, wind in m/s, how far the dew point
// lies below the day's least temperature in K, and the hours with rain.
var (
	skies = map[string]float64{"clear": 5, "broken": 40, "cloudy": 75, "overcast": 100}
	winds = map[string]float64{"calm": 0.7, "light": 3, "fresh": 7, "strong": 12}
	airs  = map[string]float64{"dry": 6, "usual": 2, "damp": 0.5, "fog": -0.5}
	rains = map[string]func(hour int) float64{
		"dry":       func(int) float64 { return 0 },
		"showers":   func(h int) float64 { return map[bool]float64{true: 0.8}[h%5 == 3 && h > 7] },
		"morning":   func(h int) float64 { return map[bool]float64{true: 1}[h >= 5 && h < 12] },
		"afternoon": func(h int) float64 { return map[bool]float64{true: 1}[h >= 13 && h < 19] },
		"all-day":   func(h int) float64 { return map[bool]float64{true: 1}[h >= 6 && h < 22] },
	}
)

// Hours makes the hours of the day in loc: coldest at 5, warmest at 15, straight
// lines of a cosine between, the dew point by the air's word. Rules of thumb.
func (d SimpleDay) Hours(loc *time.Location) (Series, error) {
	var bad fault.Errors
	day, err := time.ParseInLocation(time.DateOnly, d.Date, loc)
	if err != nil {
		bad.Add("date", "%q is not a day such as 2026-05-09", d.Date)
	}
	bad.Range("minC", d.MinC, -30, 45, "°C")
	bad.Range("maxC", d.MaxC, -30, 45, "°C")
	if d.MaxC < d.MinC {
		bad.Add("maxC", "the warmest must not be below the coldest")
	}
	word := func(path, v string, in map[string]float64) {
		if _, ok := in[v]; !ok {
			bad.Add(path, "%q is not one of the words offered", v)
		}
	}
	word("sky", d.Sky, skies)
	word("wind", d.Wind, winds)
	word("air", d.Air, airs)
	if rains[d.Rain] == nil {
		bad.Add("rain", "%q is not one of the words offered", d.Rain)
	}
	if err := bad.Err(); err != nil {
		return nil, err
	}
	out := make(Series, 0, 25)
	dew := d.MinC - airs[d.Air]
	for at := day.UTC(); at.Before(day.AddDate(0, 0, 1)); at = at.Add(time.Hour) {
		hour := float64(at.In(loc).Hour())
		const coldest = 5
		x := (hour - coldest) / (warmest - coldest) // 0 at the coldest, 1 at the warmest
		if hour > warmest {
			x = 1 - (hour-warmest)/(24+coldest-warmest)
		} else if hour < coldest {
			x = 1 - (hour+24-warmest)/(24+coldest-warmest)
		}
		temp := d.MinC + (d.MaxC-d.MinC)*(1-math.Cos(math.Pi*x))/2
		wind, cloud, rain := winds[d.Wind], skies[d.Sky], rains[d.Rain](int(hour))
		rh := 100 * math.Exp(17.625*dew/(243.04+dew)-17.625*temp/(243.04+temp))
		out = append(out, Hour{At: at, TempC: temp, RHPct: max(5, min(100, rh)), WindMS: &wind, RainMM: &rain, CloudPct: &cloud})
	}
	return out, nil
}
