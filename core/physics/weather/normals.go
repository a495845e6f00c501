package weather

import (
	"fmt"
	"math"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
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
	// WetHoursPct is how many hours of a wet day have rain, SpreadK the standard deviation of the
	// days' means; 0 are rules of thumb.
	WetHoursPct float64 `json:"wetHoursPct,omitempty"`
	SpreadK     float64 `json:"spreadK,omitempty"`
}

// Normals are the months of a year from January on.
type Normals [12]Normal

// Validate reports what no climate has.
func (n Normals) Validate() error {
	var bad fielderr.Errors
	for i, m := range n {
		path := fmt.Sprintf("[%d].", i)
		bad.Range(path+"meanC", m.MeanC, -40, 45, "°C")
		bad.Range(path+"swingK", m.SwingK, 0, 35, "K")
		bad.Range(path+"rhPct", m.RHPct, 1, 100, "%")
		bad.Range(path+"windMS", m.WindMS, 0, 30, "m/s")
		bad.Range(path+"cloudPct", m.CloudPct, 0, 100, "%")
		bad.Range(path+"wetDayPct", m.WetDayPct, 0, 100, "%")
		bad.Range(path+"wetAfterWetPct", m.WetAfterWetPct, 0, 100, "%")
		bad.Range(path+"wetHoursPct", m.WetHoursPct, 0, 100, "%")
		bad.Range(path+"spreadK", m.SpreadK, 0, 15, "K")
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
			MeanC: round(27 - 0.33*math.Abs(lat) + 0.13*math.Abs(lat)*season), SwingK: round(7 + 2*season),
			RHPct:  round(79 - 5*season),
			WindMS: round(4.3 - 0.8*season), CloudPct: round(65 - 8*season), WetDayPct: round(42 - 8*season),
			WetAfterWetPct: 62,
			WetHoursPct:    usualWetHoursPct, SpreadK: usualSpreadK,
		}
	}
	return n
}

// vapourPerK is by how much the vapour that air can hold grows, of itself, for every kelvin, about 10 °C.
const vapourPerK = 0.062

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
		mix(a.CloudPct, b.CloudPct), mix(a.WetDayPct, b.WetDayPct), mix(a.WetAfterWetPct, b.WetAfterWetPct),
		mix(a.wetHours(), b.wetHours()), mix(a.spread(), b.spread())}
}

// At is the usual air at t: that of the season, with the day's swing.
func (n Normals) At(t time.Time, loc *time.Location) Hour {
	l := t.In(loc)
	m := n.On(l)
	hour := float64(l.Hour()) + float64(l.Minute())/60
	c := math.Cos(2 * math.Pi * (hour - warmest) / 24)
	temp := m.MeanC + m.SwingK/2*c
	// The vapour stays through the day while the temperature swings.
	swing := vapourPerK * m.SwingK / 2
	mean := m.RHPct / (1 + swing*swing/4) // of which the day's mean is that of the month
	h := Hour{At: t, TempC: temp, RHPct: max(5, min(100, mean*math.Exp(-vapourPerK*(temp-m.MeanC))))}
	wind, cloud, none := m.WindMS, m.CloudPct, 0.0
	h.WindMS, h.CloudPct, h.RainMM = &wind, &cloud, &none
	return h
}

// Rules of thumb where a Normal is silent.
const (
	usualWetHoursPct = 20
	usualSpreadK     = 2.8
)

func (n Normal) wetHours() float64 {
	if n.WetHoursPct > 0 {
		return n.WetHoursPct
	}
	return usualWetHoursPct
}

func (n Normal) spread() float64 {
	if n.SpreadK > 0 {
		return n.SpreadK
	}
	return usualSpreadK
}

// wetShare is the share of all hours that have rain.
func (n Normal) wetShare() float64 { return n.WetDayPct / 100 * n.wetHours() / 100 }

// leastDays is how many days of a month a record must have to say what is usual in it.
const leastDays = 20

// wetDayMM is the rain from which a day counts as wet, mm.
const wetDayMM = 0.2

// Normals are what a record says of the usual months, those of n where it has fewer than twenty
// whole days of one. Where it is silent on rain or cloud in a month, n's figure stands.
func (s Series) Normals(n Normals, loc *time.Location) Normals {
	var months [12]monthly
	var day dailyRecord
	wasWet, known := false, false
	end := func() {
		if day.hours < 20 {
			known = false
			return
		}
		wet := day.rain >= wetDayMM
		months[day.month].add(day, wet, wasWet && known)
		wasWet, known = wet, true
	}
	for _, h := range s {
		l := h.At.In(loc)
		if d := l.Format(time.DateOnly); d != day.name {
			if day.name != "" {
				end()
			}
			day = dailyRecord{name: d, month: int(l.Month()) - 1}
		}
		day.add(h, l.Hour())
	}
	end()
	for m := range months {
		months[m].set(&n[m])
	}
	return n
}

// dailyRecord is a day of a record.
type dailyRecord struct {
	name                              string
	month                             int
	hours, temp, rh, rain             float64
	wind, winds, cloud, clouds, rains float64
	wetHours                          float64
	byHour                            [24]float64
	seen                              [24]float64
}

func (d *dailyRecord) add(h Hour, hour int) {
	d.hours++
	d.temp += h.TempC
	d.rh += h.RHPct
	d.byHour[hour], d.seen[hour] = h.TempC, 1
	if h.WindMS != nil {
		d.wind, d.winds = d.wind+*h.WindMS, d.winds+1
	}
	if h.CloudPct != nil {
		d.cloud, d.clouds = d.cloud+*h.CloudPct, d.clouds+1
	}
	if h.RainMM != nil {
		d.rain, d.rains = d.rain+*h.RainMM, d.rains+1
		if *h.RainMM > 0.05 {
			d.wetHours++
		}
	}
}

// monthly are the days of a month, over the years.
type monthly struct {
	dailyRecord
	days, squares, wet, afterWet, wetAfterWet, wetHoursOfWet float64
}

func (m *monthly) add(d dailyRecord, wet, wasWet bool) {
	mean := d.temp / d.hours
	m.days++
	m.temp += mean
	m.squares += mean * mean
	m.hours += d.hours
	m.rh += d.rh
	m.wind, m.winds, m.cloud, m.clouds, m.rains = m.wind+d.wind, m.winds+d.winds, m.cloud+d.cloud, m.clouds+d.clouds,
		m.rains+d.rains
	for h, t := range d.byHour {
		m.byHour[h] += (t - mean) * d.seen[h]
		m.seen[h] += d.seen[h]
	}
	if wet {
		m.wet++
		m.wetHoursOfWet += 100 * d.wetHours / 24
	}
	if wasWet {
		m.afterWet++
		if wet {
			m.wetAfterWet++
		}
	}
}

func (m *monthly) set(n *Normal) {
	if m.days < leastDays {
		return
	}
	mean := m.temp / m.days
	n.MeanC, n.RHPct = mean, m.rh/m.hours
	for h := range m.byHour {
		m.byHour[h] /= max(1, m.seen[h])
	}
	n.SwingK = slices.Max(m.byHour[:]) - slices.Min(m.byHour[:])
	n.SpreadK = math.Sqrt(max(0.25, m.squares/m.days-mean*mean))
	if m.winds > 0 {
		n.WindMS = m.wind / m.winds
	}
	if m.clouds > 0 {
		n.CloudPct = m.cloud / m.clouds
	}
	if m.rains > m.hours/2 {
		n.WetDayPct = 100 * m.wet / m.days
		n.WetAfterWetPct = 100 * m.wetAfterWet / max(1, m.afterWet)
		n.WetHoursPct = m.wetHoursOfWet / max(1, m.wet)
	}
}
