package surface

import (
	"math"

	"allcoats/core/physics/psychrometrics"
)

// stefan is the Stefan–Boltzmann constant, W/m²K⁴.
const stefan = 5.670374419e-8

const kelvin = 273.15

// convection is the heat transfer to the air alone, W/m²K, at a wind in m/s (Watmuff,
// Charters & Proctor 1977; McAdams' 5.7 + 3.8·v already holds radiation).
func convection(windMS float64) float64 { return 2.8 + 3.0*windMS }

// Water: mass transfer by the Lewis relation from the convective coefficient,
// E = h·0.622·(es(T) − e)/(cp·Le^⅔·p) kg/m²s, and the heat it takes along.
const (
	airHeat     = 1006.0   // J/kgK
	lewis       = 0.908    // Lewis number 0.865 to the power 2/3
	pressurePa  = 101325.0 // at sea level
	perHeat     = 0.622 / (airHeat * lewis * pressurePa)
	latentAt0   = 2.501e6 // J/kg at 0 °C
	latentPerK  = 2361.0  // J/kgK less for every kelvin
	hPaToPa     = 100.0
	magnusSlope = 17.625 * 243.04 // of psychrometrics.SaturationPressure, for its derivative
	magnusZero  = 243.04
)

// Drive is what drives a surface at an instant. DewC is the dew point of the air and
// VapourHPa its vapour pressure, RainMMH the rain that reaches the face.
type Drive struct {
	AirC, LightWM2, SkyC, WindMS, InsideC, DewC, VapourHPa, RainMMH float64
}

// toward is d at fraction f of the way to b.
func (d Drive) toward(b Drive, f float64) Drive {
	d.AirC += f * (b.AirC - d.AirC)
	d.LightWM2 += f * (b.LightWM2 - d.LightWM2)
	d.SkyC += f * (b.SkyC - d.SkyC)
	d.WindMS += f * (b.WindMS - d.WindMS)
	d.InsideC += f * (b.InsideC - d.InsideC)
	d.DewC += f * (b.DewC - d.DewC)
	d.VapourHPa += f * (b.VapourHPa - d.VapourHPa)
	d.RainMMH += f * (b.RainMMH - d.RainMMH)
	return d
}

// pull is what a drive does to a face: heat toward it at 0 K, W/m², and the share that
// grows with its temperature, W/m²K; radiation of its own and water aside. water is
// the mass transfer, kg/m²s for each hPa that the air lacks.
type pull struct{ heat, loss, water, dew, vapour, rain float64 }

func (f *Face) pull(d Drive) pull {
	conv := convection(d.WindMS)
	sky, around := d.SkyC+kelvin, d.AirC+kelvin
	s2, a2 := sky*sky, around*around
	p := pull{
		heat:  conv*around + f.Absorptance*d.LightWM2 + f.Emissivity*stefan*(f.SkyView*s2*s2+(1-f.SkyView)*a2*a2),
		loss:  conv,
		water: conv * perHeat * hPaToPa, dew: d.DewC + kelvin, vapour: d.VapourHPa, rain: d.RainMMH / 3600,
	}
	if f.CoreWM2K == 0 {
		p.heat += f.InsideWM2K * (d.InsideC + kelvin)
		p.loss += f.InsideWM2K
	}
	return p
}

// plate is a face while it is followed: the temperature of its (outer) skin and of its
// inner one, K, and the water on and in it, mm or kg/m².
type plate struct {
	k, inner, mm float64
}

// toward is p at fraction f of the way to b.
func (p *pull) toward(b *pull, f float64) pull {
	return pull{p.heat + f*(b.heat-p.heat), p.loss + f*(b.loss-p.loss), p.water + f*(b.water-p.water), p.dew +
		f*(b.dew-p.dew), p.vapour + f*(b.vapour-p.vapour), p.rain + f*(b.rain-p.rain)}
}

// pace is how long the steps of a face are, s, and how much of its inner skin's distance from rest
// is left after half of one.
type pace struct{ s, innerLeft float64 }

func (f *Face) pace(s float64) pace {
	p := pace{s: s}
	if f.CoreWM2K > 0 {
		p.innerLeft = math.Exp(-(f.CoreWM2K + f.InsideWM2K) * s / 2 / f.InnerJM2K)
	}
	return p
}

// step takes the plate over a pace from pull a to b, and returns the seconds of them
// in which it was wet. holds is the most water that stays.
// Balance: C dT/dt = h(Ta − T) + αG − εσ[F(T⁴ − Tsky⁴) + (1−F)(T⁴ − Ta⁴)] + U(Tin − T) − Lv·E.
func (f *Face) step(p *plate, pace pace, a, b *pull, insideC, holds float64) (wetS float64) {
	if f.CoreWM2K > 0 {
		a, b := *a, *b
		f.innerSkin(p, pace, insideC)
		core := f.CoreWM2K
		a.heat, a.loss = a.heat+core*p.inner, a.loss+core
		b.heat, b.loss = b.heat+core*p.inner, b.loss+core
		wetS = f.outerSkin(p, pace.s, &a, &b, holds)
		f.innerSkin(p, pace, insideC)
		return wetS
	}
	return f.outerSkin(p, pace.s, a, b, holds)
}

// outerSkin is step without what lies behind.
func (f *Face) outerSkin(p *plate, s float64, a, b *pull, holds float64) (wetS float64) {
	if rain := (a.rain + b.rain) / 2; p.mm == 0 && (rain > 0 || p.k > a.dew) {
		// What falls may dry as it falls.
		if rain == 0 || rain <= a.water*(psychrometrics.SaturationPressure(p.k-kelvin)-a.vapour) {
			next := f.heat(p.k, s, a, b, rain, 0)
			if rain > 0 || next > b.dew {
				p.k = next
				return 0
			}
			// It meets the dew point on the way: dry till then.
			part := (p.k - a.dew) / (p.k - a.dew + b.dew - next)
			p.k += part * (next - p.k)
			s *= 1 - part
			mid := a.toward(b, 0.5)
			a = &mid
		}
	}
	return f.wet(p, s, a, b, holds)
}

// wet is step with water on the plate.
func (f *Face) wet(p *plate, s float64, a, b *pull, holds float64) (wetS float64) {
	m := a.toward(b, 0.5)
	es := psychrometrics.SaturationPressure(p.k - kelvin)
	slope := es * magnusSlope / ((p.k - kelvin + magnusZero) * (p.k - kelvin + magnusZero))
	ease := 1.0
	if f.SoakMM > 0 && es > m.vapour {
		ease = min(1, p.mm/f.SoakMM) // the pores let it out the slower the emptier they are: a rule of thumb
	}
	g := m.water * ease
	next := f.heat(p.k, s, a, b, g*(es-m.vapour), g*slope)
	e := g * (es + slope*(next-p.k)/2 - m.vapour) // mean evaporation, kg/m²s
	mm := p.mm + (m.rain-e)*s
	if left := f.dryMM(); mm <= left && e > m.rain {
		part := max(0, p.mm-left) / (p.mm - mm)
		p.k += part * (next - p.k)
		p.mm = 0
		if rest := s * (1 - part); rest > 1 {
			p.k = f.heat(p.k, rest, &m, b, m.rain, 0)
		}
		return s * part
	}
	p.k, p.mm = next, min(holds+f.SoakMM, max(0, mm))
	return s
}

// dryMM is the water in the pores that no longer matters: a twentieth of what they
// hold, a rule of thumb.
func (f *Face) dryMM() float64 { return f.SoakMM / 20 }

// heat takes a skin at k kelvin over s seconds while water leaves it by e kg/m²s, and
// perK more for every kelvin: exponential Rosenbrock with drives linear in time, which
// cannot oscillate.
func (f *Face) heat(k, s float64, a, b *pull, e, perK float64) float64 {
	lv := latentAt0 - latentPerK*(k-kelvin)
	rad := f.Emissivity * stefan * k * k * k
	loss := (a.loss+b.loss)/2 + 4*rad + lv*perK
	warms := s / f.HeatJM2K // K for each W/m²
	slow := 1 / loss
	gone := 1 - decay(loss*warms)
	first, last := a.heat-(a.loss+rad)*k-lv*e, b.heat-(b.loss+rad)*k-lv*e
	return k + slow*(first*gone+(last-first)*(1-gone*slow/warms))
}

// decays are e⁻ˣ at every 1/decayParts up to decayEnd.
const decayParts, decayEnd = 64, 16

var decays = func() (out [decayParts*decayEnd + 1]float64) {
	for i := range out {
		out[i] = math.Exp(-float64(i) / decayParts)
	}
	return out
}()

// decay is e⁻ˣ for x ≥ 0, to 10⁻¹¹: from the table with the rest as a series of fourth order.
func decay(x float64) float64 {
	if x >= decayEnd {
		return math.Exp(-x)
	}
	i := int(x * decayParts)
	r := x - float64(i)/decayParts
	return decays[i] * (1 - r*(1-r*(0.5-r*(1.0/6-r*(1.0/24)))))
}

// innerSkin lets the inner skin of a cored wall follow the outer one and the inside for half a step.
func (f *Face) innerSkin(p *plate, pace pace, insideC float64) {
	rest := (f.CoreWM2K*p.k + f.InsideWM2K*(insideC+kelvin)) / (f.CoreWM2K + f.InsideWM2K)
	p.inner = rest + (p.inner-rest)*pace.innerLeft
}

// Followed is a face along drives an hour apart: its temperature, °C, and the water on
// it, mm, at each; when it was wet, in hours from the first.
type Followed struct {
	TempC, InnerC, WaterMM []float64
	WetH                   [][2]float64
}

// perHour are the steps of Run in an hour: the temperature is good to 0.1 K, the water
// to 2 %.
const perHour = 60

// Run takes a surface from startC, with water on it, along drives an hour apart. Of
// water holdsMM stay at most. Cored walls begin with their inner skin at innerC.
func (f Face) Run(drives []Drive, startC, innerC, waterMM, holdsMM float64) Followed {
	n := len(drives)
	out := Followed{TempC: make([]float64, n), InnerC: make([]float64, n), WaterMM: make([]float64, n)}
	p := plate{startC + kelvin, innerC + kelvin, min(waterMM, holdsMM+f.SoakMM)}
	pace := f.pace(3600.0 / perHour)
	wetFrom := -1.0
	if p.mm > 0 {
		wetFrom = 0
	}
	for i := range drives {
		if i > 0 {
			from := f.pull(drives[i-1])
			for j := 1; j <= perHour; j++ {
				d := drives[i-1].toward(drives[i], float64(j)/perHour)
				to := f.pull(d)
				was := p.mm
				wetS := f.step(&p, pace, &from, &to, d.InsideC, holdsMM)
				at := float64(i-1) + float64(j)/perHour
				if was == 0 && p.mm > 0 && wetFrom < 0 {
					wetFrom = at - wetS/3600
				}
				if p.mm == 0 && wetFrom >= 0 {
					out.WetH = append(out.WetH, [2]float64{wetFrom, at - 1.0/perHour + wetS/3600})
					wetFrom = -1
				}
				from = to
			}
		}
		out.TempC[i], out.InnerC[i], out.WaterMM[i] = p.k-kelvin, p.inner-kelvin, p.mm
	}
	if wetFrom >= 0 {
		out.WetH = append(out.WetH, [2]float64{wetFrom, float64(n - 1)})
	}
	return out
}

// HoldsMM is the water that stays on a surface of a slope, mm: 0.15 upright, 0.5 level.
func HoldsMM(tiltDeg float64) float64 {
	return uprightMM + (levelMM-uprightMM)*max(0, math.Cos(tiltDeg*math.Pi/180))
}

// DryingMMH is how fast water leaves a wet surface, mm/h, in air of airC and rhPct with
// wind, on one that would be at surfaceC if it were dry. Its own drying cools it: the
// linear balance E = g·(es(Ts) − e)/(1 + Lv·g·es'(Ts)/(h + 4εσT³)). Negative is dew.
func DryingMMH(surfaceC, airC, rhPct, windMS float64) float64 {
	es := psychrometrics.SaturationPressure(surfaceC)
	slope := es * magnusSlope / ((surfaceC + magnusZero) * (surfaceC + magnusZero))
	h := convection(windMS)
	g := h * perHeat * hPaToPa
	k := surfaceC + kelvin
	kept := h + 4*0.9*stefan*k*k*k
	return 3600 * g * (es - psychrometrics.VapourPressure(airC, rhPct)) / (1 +
		(latentAt0-latentPerK*surfaceC)*g*slope/kept)
}

// StillAir is the wind under a roof, m/s.
const StillAir = stillAir
