package formats

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"math"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/weather"
)

// ForecastDoc is a forecast as a document of hourly arrays, alike in length.
// Arrays other than at, tempC and rhPct may be left out; null is not known.
type ForecastDoc struct {
	LatitudeDeg  float64    `json:"latitudeDeg"`
	LongitudeDeg float64    `json:"longitudeDeg"`
	IssuedAt     time.Time  `json:"issuedAt"`
	Hourly       HourArrays `json:"hourly"`
}

// HourArrays are the hours of a ForecastDoc. Rain falls in the hour that begins
// at its time.
type HourArrays struct {
	At           []time.Time `json:"at"`
	TempC        []float64   `json:"tempC"`
	RHPct        []float64   `json:"rhPct"`
	WindMS       []*float64  `json:"windMS,omitempty"`
	RainMM       []*float64  `json:"rainMM,omitempty"`
	CloudPct     []*float64  `json:"cloudPct,omitempty"`
	ShortwaveWM2 []*float64  `json:"shortwaveWM2,omitempty"`
}

// ReadForecast reads a ForecastDoc: its hours up to issuedAt are measured, those
// after forecast. A fault names the array and its place.
func ReadForecast(data []byte) (weather.Series, ForecastDoc, error) {
	var doc ForecastDoc
	d := json.NewDecoder(bytes.NewReader(data))
	d.DisallowUnknownFields()
	if err := d.Decode(&doc); err != nil {
		return nil, doc, fielderr.At("file", "cannot be read as a forecast: %v", err)
	}
	var bad fielderr.Errors
	if _, err := d.Token(); err != io.EOF {
		bad.Add("file", "there is more after the forecast")
	}
	h := doc.Hourly
	n := len(h.At)
	if n == 0 || n > MaxWeatherRows {
		bad.Add("hourly.at", "give 1 to %d hours, not %d", MaxWeatherRows, n)
	}
	for path, length := range map[string]int{"tempC": len(h.TempC), "rhPct": len(h.RHPct)} {
		if length != n {
			bad.Add("hourly."+path, "has %d values for %d hours", length, n)
		}
	}
	for path, list := range map[string][]*float64{"windMS": h.WindMS, "rainMM": h.RainMM, "cloudPct": h.CloudPct,
		"shortwaveWM2": h.ShortwaveWM2} {
		if len(list) != 0 && len(list) != n {
			bad.Add("hourly."+path, "has %d values for %d hours", len(list), n)
		}
	}
	if doc.IssuedAt.IsZero() {
		bad.Add("issuedAt", "say when the forecast was made")
	}
	if bad != nil {
		return nil, doc, bad
	}
	at := func(list []*float64, i int) *float64 {
		if len(list) == 0 {
			return nil
		}
		return list[i]
	}
	out := make(weather.Series, n)
	for i, t := range h.At {
		out[i] = weather.Hour{At: t.UTC().Truncate(time.Second), TempC: h.TempC[i], RHPct: h.RHPct[i],
			WindMS: at(h.WindMS, i), RainMM: at(h.RainMM, i),
			CloudPct: at(h.CloudPct, i), ShortwaveWM2: at(h.ShortwaveWM2, i), Measured: !t.After(doc.IssuedAt)}
	}
	bad.Under("hourly", out.Validate())
	if bad != nil {
		return nil, doc, bad
	}
	return out, doc, nil
}

// WriteForecast writes what ReadForecast reads.
func WriteForecast(lat, lon float64, issued time.Time, s weather.Series) ([]byte, error) {
	doc := ForecastDoc{LatitudeDeg: lat, LongitudeDeg: lon, IssuedAt: issued}
	h := &doc.Hourly
	for _, r := range s {
		if math.IsNaN(r.TempC) || math.IsNaN(r.RHPct) {
			return nil, fmt.Errorf("forecast: no air at %s", r.At)
		}
		h.At, h.TempC, h.RHPct = append(h.At, r.At), append(h.TempC, r.TempC), append(h.RHPct, r.RHPct)
		h.WindMS, h.RainMM = append(h.WindMS, r.WindMS), append(h.RainMM, r.RainMM)
		h.CloudPct, h.ShortwaveWM2 = append(h.CloudPct, r.CloudPct), append(h.ShortwaveWM2, r.ShortwaveWM2)
	}
	return json.Marshal(doc)
}
