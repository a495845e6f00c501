package weather

import (
	"fmt"
	"math"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
)

// RainHours is the rain of a simple day that falls between hours told.
const RainHours = "hours"

// SimpleDay is a day as one would tell it: "8 to 16 °C, dry, cloudy".
type SimpleDay struct {
	Date string  `json:"date"` // 2026-05-09
	MinC float64 `json:"minC"`
	MaxC float64 `json:"maxC"`
	Sky  string  `json:"sky" enum:"clear,broken,cloudy,overcast"`
	Rain string  `json:"rain" enum:"dry,showers,morning,afternoon,all-day,hours"`
	Wind string  `json:"wind" enum:"calm,light,fresh,strong"`
	// Air is how damp the air is.
	Air string `json:"air" enum:"dry,usual,damp,fog"`
	// RainFromH and RainToH are the local hours between which rain falls, where Rain is "hours".
	RainFromH float64 `json:"rainFromH,omitempty"`
	RainToH   float64 `json:"rainToH,omitempty"`
	// WindMS and RHPct, the day's mean, stand in place of the words for wind and air.
	WindMS *float64 `json:"windMS,omitempty"`
	RHPct  *float64 `json:"rhPct,omitempty"`
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

// Say is the day as it was understood.
func (d SimpleDay) Say() message.Sentence {
	sky := map[string]string{"clear": "sunny", "broken": "sun and cloud"}[d.Sky]
	if sky == "" {
		sky = d.Sky
	}
	rain := map[string]string{"dry": "dry", "showers": "showers", "morning": "rain in the morning",
		"afternoon": "rain in the afternoon", "all-day": "rain all day"}[d.Rain]
	if d.Rain == RainHours {
		rain = fmt.Sprintf("rain from %s to %s", atHour(d.RainFromH), atHour(d.RainToH))
	}
	day, err := time.Parse(time.DateOnly, d.Date)
	on := message.On(day.Add(12 * time.Hour)) // noon is that day in all but the farthest zones
	if err != nil {
		on = message.Text("%s", d.Date)
	}
	out := message.Of("%v: %v to %v, %s, %s", on, message.Val(d.MinC, "°C"), message.Val(d.MaxC, "°C"), sky, rain)
	if d.WindMS != nil {
		out = message.Of("%v, wind %v", out, message.Val(*d.WindMS, "m/s"))
	} else {
		out = message.Of("%v, %s", out, map[string]string{"calm": "calm", "light": "light wind", "fresh": "fresh wind",
			"strong": "strong wind"}[d.Wind])
	}
	if d.RHPct != nil {
		return message.Of("%v, humidity about %.0f %%", out, *d.RHPct)
	}
	return message.Of("%v, %s", out, map[string]string{"dry": "dry air", "usual": "usual air", "damp": "damp air",
		"fog": "fog at night"}[d.Air])
}

func atHour(h float64) string { return fmt.Sprintf("%02d:%02.0f", int(h), 60*(h-math.Floor(h))) }

// Hours makes the hours of the day in loc: coldest at 5, warmest at 15, straight
// lines of a cosine between, the dew point by the air's word. Rules of thumb.
func (d SimpleDay) Hours(loc *time.Location) (Series, error) {
	var bad fielderr.Errors
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
	rains := rains[d.Rain]
	if d.Rain == RainHours {
		bad.Range("rainFromH", d.RainFromH, 0, 24, "h")
		bad.Range("rainToH", d.RainToH, 0, 24, "h")
		rains = func(h int) float64 {
			return map[bool]float64{true: 1}[float64(h)+1 > d.RainFromH && float64(h) < d.RainToH]
		}
	} else if rains == nil {
		bad.Add("rain", "%q is not one of the words offered", d.Rain)
	}
	if d.WindMS != nil {
		bad.Range("windMS", *d.WindMS, 0, 60, "m/s")
	}
	if d.RHPct != nil {
		bad.Range("rhPct", *d.RHPct, 5, 100, "%")
	}
	if err := bad.Err(); err != nil {
		return nil, err
	}
	out := make(Series, 0, 25)
	dew, blows := d.MinC-airs[d.Air], winds[d.Wind]
	if d.RHPct != nil {
		dew = Hour{TempC: (d.MinC + d.MaxC) / 2, RHPct: *d.RHPct}.DewPointC()
	}
	if d.WindMS != nil {
		blows = *d.WindMS
	}
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
		wind, cloud, rain := blows, skies[d.Sky], rains(int(hour))
		rh := 100 * math.Exp(17.625*dew/(243.04+dew)-17.625*temp/(243.04+temp))
		out = append(out, Hour{At: at, TempC: temp, RHPct: max(5, min(100, rh)), WindMS: &wind, RainMM: &rain,
			CloudPct: &cloud})
	}
	return out, nil
}
