package surface

import (
	"context"
	"math"
	"time"

	"allcoats/core/air"
	"allcoats/core/parallel"
	"allcoats/core/weather"
)

// stefan is the Stefan–Boltzmann constant, W/m²K⁴.
const stefan = 5.670374419e-8

const kelvin = 273.15

// Heat transfer to the air, W/m²K at a wind in m/s: McAdams, low wind.
func convection(windMS float64) float64 { return 5.7 + 3.8*windMS }

// perLewis turns a heat transfer in W/m²K into a mass transfer in m/h: divided
// by density and specific heat of air and the Lewis factor 0.9, times 3600 s.
const perLewis = 3600 / (1.2 * 1005 * 0.9)

// Drive is what drives a surface at an instant.
type Drive struct {
	AirC, LightWM2, SkyC, WindMS, InsideC float64
}

// toward is d at fraction f of the way to b.
func (d Drive) toward(b Drive, f float64) Drive {
	d.AirC += f * (b.AirC - d.AirC)
	d.LightWM2 += f * (b.LightWM2 - d.LightWM2)
	d.SkyC += f * (b.SkyC - d.SkyC)
	d.WindMS += f * (b.WindMS - d.WindMS)
	d.InsideC += f * (b.InsideC - d.InsideC)
	return d
}

// Sub-steps of an hour: with fine the error over an hour of linear drive stays
// below 0.1 K, gusts included; coarse is for records, where it is below 0.4 K in
// gusts and below 0.1 K else.
const (
	coarse = 2
	fine   = 6
)

// pull is what a drive does to a face: heat toward it at 0 K, W/m², and the
// share that grows with its temperature, W/m²K; radiation of its own aside.
type pull struct{ heat, loss float64 }

func (f Face) pull(d Drive) pull {
	conv := convection(d.WindMS)
	s := d.SkyC + kelvin
	s *= s
	return pull{conv*(d.AirC+kelvin) + f.Absorptance*d.LightWM2 + f.Emissivity*stefan*f.SkyView*s*s + f.InsideWM2K*(d.InsideC+kelvin), conv + f.InsideWM2K}
}

// step takes a surface at k kelvin over s seconds from pull a to b: exponential
// Rosenbrock with drives linear in time, which cannot oscillate.
// Balance: C dT/dt = h(Ta − T) + αG − εσF(T⁴ − Tsky⁴) + U(Tin − T).
func (f Face) step(k, s float64, a, b pull) float64 {
	rad := f.Emissivity * stefan * f.SkyView * k * k * k
	loss := (a.loss+b.loss)/2 + 4*rad
	x := loss * s / f.HeatJM2K
	gone := 1 - math.Exp(-x)
	first, last := a.heat-(a.loss+rad)*k, b.heat-(b.loss+rad)*k
	return k + (first*gone+(last-first)*(1-gone/x))/loss
}

// Run takes a surface from startC along drives an hour apart and returns its
// temperature at each, °C, good to 0.1 K.
func (f Face) Run(drives []Drive, startC float64) []float64 {
	out := make([]float64, len(drives))
	k := startC + kelvin
	for i := range drives {
		if i > 0 {
			from := f.pull(drives[i-1])
			for j := 1.0; j <= fine; j++ {
				to := f.pull(drives[i-1].toward(drives[i], j/fine))
				k = f.step(k, 3600.0/fine, from, to)
				from = to
			}
		}
		out[i] = k - kelvin
	}
	return out
}

// Wet is a stretch in which a surface is wet. Rain says that rain fell on it;
// otherwise it is dew.
type Wet struct {
	From time.Time `json:"from"`
	To   time.Time `json:"to"`
	Rain bool      `json:"rain"`
}

// Course is a surface over a record: its temperature at every record, °C, and
// when it is wet. The last stretch ends with the record if it does not dry.
type Course struct {
	TempC []float64
	Wet   []Wet
}

// Water on a surface, kg/m² or mm: what is left counts as dry, what an upright
// and a level surface hold before the rest runs off.
const (
	dryMM     = 0.003
	uprightMM = 0.15
	levelMM   = 0.5
)

// Course follows a face over c. It begins at the temperature of the air and
// dry, and again after gaps of more than weather.MaxGap, so give it a day or two
// before what matters. Not counted: the heat of condensing and drying, and
// shade of other boats.
func (c Conditions) Course(f Face) Course {
	n := len(c.At)
	out := Course{TempC: make([]float64, n)}
	light := c.Light(f)
	up := math.Cos(f.TiltDeg * math.Pi / 180)
	holds := uprightMM + (levelMM-uprightMM)*max(0, up)
	catches := 0.0 // of the rain
	if !f.Roofed {
		catches = max(0, up)
		if f.TiltDeg < 100 {
			catches = max(catches, 0.3) // driven against a side
		}
	}
	wet := water{out: &out}
	drive := func(i int) Drive { return Drive{c.AirC[i], light[i], c.SkyC[i], c.WindMS[i], c.InsideC[i]} }
	if f.Roofed && c.roofLight == nil {
		drive = func(i int) Drive { return Drive{c.AirC[i], 0, c.AirC[i], stillAir, c.InsideC[i]} }
	}
	var k float64
	var last Drive
	for i := range n {
		now := drive(i)
		step := time.Duration(0)
		if i > 0 {
			step = c.At[i].Sub(c.At[i-1])
		}
		if i == 0 || step > weather.MaxGap {
			wet.end()
			k, last = now.AirC+kelvin, now
			out.TempC[i] = now.AirC
			continue
		}
		parts := math.Ceil(step.Hours()*coarse - 1e-9)
		h := step.Hours() / parts
		from := f.pull(last)
		for j := 1.0; j <= parts; j++ {
			mid := last.toward(now, j/parts)
			to := f.pull(mid)
			k = f.step(k, h*3600, from, to)
			from = to
			rain := c.RainMM[i-1] * catches * h
			frac := (j - 0.5) / parts
			if wet.mm == 0 && rain == 0 && k-kelvin > c.DewC[i-1]+frac*(c.DewC[i]-c.DewC[i-1]) {
				continue
			}
			e := c.VapourHPa[i-1] + frac*(c.VapourHPa[i]-c.VapourHPa[i-1])
			wet.step(c.At[i-1].Add(time.Duration(frac*float64(step))), h, k-kelvin, e, convection(mid.WindMS), rain, holds)
		}
		out.TempC[i], last = k-kelvin, now
	}
	wet.end()
	return out
}

// Courses follows several faces, on all processors.
func (c Conditions) Courses(faces []Face) []Course {
	out := make([]Course, len(faces))
	_ = parallel.Each(context.Background(), len(faces), nil, func(_, i int) { out[i] = c.Course(faces[i]) }) // never stopped
	return out
}

// water is the film on a surface while it is followed.
type water struct {
	mm   float64
	last time.Time
	from time.Time
	rain bool
	open bool
	out  *Course
}

// step lets water fall, condense or dry for h hours around at on a surface at
// tC in air of vapour e.
func (w *water) step(at time.Time, h, tC, e, conv, rainMM, holds float64) {
	lack := air.SaturationPressure(tC) - e // above 0 it dries
	if w.mm == 0 && rainMM == 0 && lack >= 0 {
		return
	}
	before := w.mm
	flux := -conv * perLewis * 0.216679 * lack / (tC + kelvin) // kg/m²h, e in hPa
	w.mm = max(0, min(holds, w.mm+rainMM+flux*h))
	half := time.Duration(h * float64(time.Hour) / 2)
	if !w.open && w.mm > dryMM {
		w.open, w.from, w.rain = true, at.Add(-half), false
	}
	if w.open {
		w.rain = w.rain || rainMM > 0
		w.last = at.Add(half)
		if w.mm <= dryMM {
			part := (before - dryMM) / (before - w.mm)
			w.last = at.Add(time.Duration((2*part - 1) * float64(half)))
			w.end()
			w.mm = 0
		}
	}
}

// end closes an open stretch.
func (w *water) end() {
	if w.open {
		w.out.Wet = append(w.out.Wet, Wet{w.from, w.last, w.rain})
	}
	w.open, w.mm = false, 0
}
