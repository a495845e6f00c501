// Package surface computes the temperature of a surface and the water on it
// from the weather, the sun and the sky, hour by hour.
package surface

import (
	"time"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
)

// Face is how a surface takes up and gives off heat and water, and where it faces.
type Face struct {
	// HeatJM2K is the heat that warms a square metre by 1 K; of a cored wall that of
	// its outer skin.
	HeatJM2K float64
	// CoreWM2K is the conductance of the core between two skins, 0 for a solid wall,
	// InnerJM2K the heat of the inner skin.
	CoreWM2K, InnerJM2K float64
	// SoakMM is the water that an open, porous film on it takes up beside what stays on
	// it, mm or kg/m²; Washed is when it was washed, in the order of time.
	SoakMM float64
	Washed []time.Time
	// Absorptance is the share of sunshine taken up, Emissivity that of
	// radiation given off, SkyView the share of what it faces that is sky.
	Absorptance, Emissivity, SkyView float64
	// InsideWM2K is the conductance to the air behind it.
	InsideWM2K float64
	TiltDeg    float64
	// AzimuthDeg lists where it faces from north, clockwise; several, such as
	// both sides of a hull, count as their mean.
	AzimuthDeg []float64
	// Roofed keeps rain, sun, wind and the open sky off.
	Roofed bool
}

// material is density in kg/m³, specific heat in J/kg·K and conductivity in
// W/m·K.
type material struct{ density, heat, conducts float64 }

// materials are usual figures of the substrates.
var materials = map[survey.Substrate]material{
	survey.Gelcoat: {1800, 1000, 0.25}, survey.GRP: {1800, 1000, 0.25}, survey.Carbon: {1550, 900, 0.8},
	survey.SolidWood: {600, 1700, 0.13}, survey.StripPlank: {600, 1700, 0.13}, survey.Plywood: {600, 1700, 0.13},
	survey.Veneer: {600, 1700, 0.13},
	survey.Steel:  {7850, 460, 50}, survey.Stainless: {7900, 500, 16}, survey.Aluminium: {2700, 900, 150},
	survey.FoamCore: {1800, 1000, 0.25}, survey.BalsaCore: {1800, 1000, 0.25},
	survey.CastIron: {7200, 460, 50}, survey.Lead: {11300, 130, 35}, survey.OtherSubstr: {1500, 1000, 0.3},
}

// cores are the conductivities of cores, W/m·K.
var cores = map[survey.Substrate]float64{survey.FoamCore: 0.035, survey.BalsaCore: 0.055}

// skinMM is the usual skin of a cored laminate, mm: a rule of thumb. Thin walls have a
// quarter of their thickness.
const skinMM = 3

// absorptance is the share of sunshine that a tone takes up.
var absorptance = map[survey.Tone]float64{survey.White: 0.25, survey.Pale: 0.4, survey.Grey: 0.7, survey.Dark: 0.9,
	survey.Black: 0.95}

// insideFilm is the heat transfer from the air inside a boat to her skin,
// W/m²K: a usual figure for still air.
const insideFilm = 8

// Of describes a part of a boat that heads headingDeg.
func Of(d survey.Description, p area.Part, side area.Side, headingDeg float64) Face {
	m := materials[d.Substrate]
	thick := max(d.ThicknessMM, 0.5) / 1000
	f := Face{
		HeatJM2K: m.density * m.heat * thick, Absorptance: absorptance[d.Tone], Emissivity: 0.9,
		TiltDeg: d.Tilt(p), AzimuthDeg: facing(d, p, side, headingDeg), Roofed: d.Shelter != survey.Open,
	}
	if conducts, cored := cores[d.Substrate]; cored {
		skin := min(skinMM/1000.0, thick/4)
		f.HeatJM2K = m.density * m.heat * skin
		f.InnerJM2K, f.CoreWM2K = f.HeatJM2K, conducts/(thick-2*skin)
		f.InsideWM2K = insideFilm
	} else if p.Info().Skin {
		f.InsideWM2K = 1 / (1.0/insideFilm + thick/m.conducts)
	}
	if !f.Roofed {
		f.SkyView = skyView(f.TiltDeg)
	}
	return f
}

func facing(d survey.Description, p area.Part, side area.Side, heading float64) []float64 {
	toward := d.Facing
	if toward == "" && p == area.Transom {
		toward = "stern"
	}
	if toward == "" {
		toward = string(side)
	}
	switch toward {
	case "port":
		return []float64{heading - 90}
	case "starboard":
		return []float64{heading + 90}
	case "bow":
		return []float64{heading}
	case "stern":
		return []float64{heading + 180}
	}
	return []float64{heading - 90, heading + 90}
}
