// Package psychrometrics computes the state of moist air. Temperatures are in °C, vapour
// pressures in hPa, humidity in per cent over liquid water at every
// temperature, as weather services report it.
package psychrometrics

import (
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
)

// Magnus coefficients of Alduchov & Eskridge (1996), good to 0.4 % from −40 to
// 50 °C over water.
const (
	magnusA  = 17.625
	magnusB  = 243.04
	magnusE0 = 6.1094
)

const magnusSource = "Alduchov & Eskridge 1996"

// StandardPressure is the sea-level pressure used unless another is given, hPa.
const StandardPressure = 1013.25

// SaturationPressure returns the vapour pressure of saturated air at tempC, in
// hPa, valid from −40 to 50 °C.
func SaturationPressure(tempC float64) float64 {
	return magnusE0 * math.Exp(magnusA*tempC/(tempC+magnusB))
}

// VapourPressure returns the vapour pressure in hPa of air at tempC with
// relative humidity rhPct.
func VapourPressure(tempC, rhPct float64) float64 { return rhPct / 100 * SaturationPressure(tempC) }

// DewPoint returns the temperature in °C at which air of tempC and rhPct is
// saturated. rhPct must be above 0; 0 gives −Inf.
func DewPoint(tempC, rhPct float64) float64 {
	g := math.Log(rhPct/100) + magnusA*tempC/(tempC+magnusB)
	if math.IsInf(g, -1) {
		return g
	}
	return magnusB * g / (magnusA - g)
}

// HumidityAt returns the relative humidity, in per cent, of air with vapour
// pressure hPa at tempC. Above 100 water condenses.
func HumidityAt(hPa, tempC float64) float64 { return 100 * hPa / SaturationPressure(tempC) }

// Request is the input of the moist-air calculator. SurfaceTempC and
// HeatedToC are optional; PressureHPa 0 means StandardPressure.
type Request struct {
	TempC        float64  `json:"tempC"`
	RHPct        float64  `json:"rhPct"`
	SurfaceTempC *float64 `json:"surfaceTempC,omitempty"`
	HeatedToC    *float64 `json:"heatedToC,omitempty"`
	PressureHPa  float64  `json:"pressureHPa,omitempty"`
}

// Result is the state of the air, at the surface and after heating where those
// were asked for.
type Result struct {
	SaturationPressureHPa float64         `json:"saturationPressureHPa"`
	VapourPressureHPa     float64         `json:"vapourPressureHPa"`
	DewPointC             float64         `json:"dewPointC"`
	AbsoluteHumidityGM3   float64         `json:"absoluteHumidityGM3"`
	MixingRatioGKg        float64         `json:"mixingRatioGKg"`
	SurfaceRHPct          *float64        `json:"surfaceRHPct,omitempty"`
	DewPointSpreadK       *float64        `json:"dewPointSpreadK,omitempty"`
	Condenses             *bool           `json:"condenses,omitempty"`
	HeatedRHPct           *float64        `json:"heatedRHPct,omitempty"`
	Working               working.Working `json:"working"`
}

// Compute answers r. Humidity of a surface or of heated air is not cut off at
// 100 %: more than that condenses. Inputs outside −40…50 °C or 0…100 % are
// faults.
func Compute(r Request) (Result, error) {
	var bad fielderr.Errors
	bad.Range("tempC", r.TempC, -40, 50, "°C")
	bad.Pct("rhPct", r.RHPct)
	if r.PressureHPa == 0 {
		r.PressureHPa = StandardPressure
	}
	bad.Range("pressureHPa", r.PressureHPa, 500, 1100, "hPa")
	if r.SurfaceTempC != nil {
		bad.Range("surfaceTempC", *r.SurfaceTempC, -40, 90, "°C")
	}
	if r.HeatedToC != nil {
		bad.Range("heatedToC", *r.HeatedToC, -40, 90, "°C")
	}
	if err := bad.Err(); err != nil {
		return Result{}, err
	}

	w := working.New()
	w.In("Air temperature", r.TempC, "°C")
	w.In("Relative humidity", r.RHPct, "%")
	w.In("Air pressure", r.PressureHPa, "hPa")
	var out Result
	out.SaturationPressureHPa = w.Step("Saturation vapour pressure", "6.1094 · exp(17.625·T / (T + 243.04))",
		SaturationPressure(r.TempC), "hPa", magnusSource)
	out.VapourPressureHPa = w.Step("Vapour pressure", "RH/100 · saturation pressure",
		VapourPressure(r.TempC, r.RHPct), "hPa", "definition of relative humidity")
	out.DewPointC = w.Step("Dew point", "243.04·γ / (17.625 − γ), γ = ln(RH/100) + 17.625·T/(T + 243.04)",
		DewPoint(r.TempC, r.RHPct), "°C", magnusSource)
	out.AbsoluteHumidityGM3 = w.Step("Absolute humidity", "216.679 · e / (T + 273.15)",
		216.679*out.VapourPressureHPa/(r.TempC+273.15), "g/m³", "ideal gas law")
	out.MixingRatioGKg = w.Step("Mixing ratio", "621.97 · e / (p − e)",
		621.97*out.VapourPressureHPa/(r.PressureHPa-out.VapourPressureHPa), "g/kg", "ideal gas law")
	if r.SurfaceTempC != nil {
		w.In("Surface temperature", *r.SurfaceTempC, "°C")
		rh := w.Step("Humidity at the surface", "100 · e / saturation pressure at the surface",
			HumidityAt(out.VapourPressureHPa, *r.SurfaceTempC), "%", magnusSource)
		spread := w.Step("Dew-point spread", "surface temperature − dew point",
			*r.SurfaceTempC-out.DewPointC, "K", "ISO 8502-4 asks for 3 or more")
		wet := rh >= 100
		out.SurfaceRHPct, out.DewPointSpreadK, out.Condenses = &rh, &spread, &wet
	}
	if r.HeatedToC != nil {
		w.In("Heated to", *r.HeatedToC, "°C")
		rh := w.Step("Humidity after heating", "RH · saturation pressure before / after",
			HumidityAt(out.VapourPressureHPa, *r.HeatedToC), "%", "constant vapour pressure: no water added")
		out.HeatedRHPct = &rh
		w.Warn("An unvented gas or paraffin heater adds water: the humidity will be higher than this.")
	}
	out.Working = w
	return out, nil
}
