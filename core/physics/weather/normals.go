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

// On is the usual weather about an instant: a month's in its middle, between two middles on the
// straight line.
func (n Normals) On(l time.Time) Normal {
	days := float64(time.Date(l.Year(), l.Month()+1, 0, 0, 0, 0, 0, time.UTC).Day())
	from := int(l.Month()) - 1
	part := (float64(l.Day()-1)+float64(l.Hour())/24)/days - 0.5
	if part < 0 {
		from, part = from+11, part+1
	}
	a, b := n[from%12], n[(from+1)%12]
	mix := func(a, b float64) float64 { return a + part*(b-a) }
	return Normal{mix(a.MeanC, b.MeanC), mix(a.SwingK, b.SwingK), mix(a.RHPct, b.RHPct), mix(a.WindMS, b.WindMS),
		mix(a.CloudPct, b.CloudPct), mix(a.WetDayPct, b.WetDayPct), mix(a.WetAfterWetPct, b.WetAfterWetPct)}
}

// At is the usual air at t: that of the season, with the day's swing.
func (n Normals) At(t time.Time, loc *time.Location) Hour {
	l := t.In(loc)
	m := n.On(l)
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

// wetHours is the share of all hours that have rain.
func (n Normal) wetHours() float64 { return n.WetDayPct / 100 * wetHourPct / 100 }
