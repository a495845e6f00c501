package survey

import (
	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
)

// Tone is how dark a surface is.
type Tone string

// Tones, with the share of sunshine that they take up.
const (
	White Tone = "white"
	Pale  Tone = "pale"
	Grey  Tone = "grey"
	Dark  Tone = "dark"
	Black Tone = "black"
)

// Tones lists the tones.
var Tones = []Tone{White, Pale, Grey, Dark, Black}

// Access is how hard a surface is to get at.
type Access string

// Accesses.
const (
	Flat     Access = "flat"
	Upright  Access = "side"
	Overhead Access = "overhead"
	Fiddly   Access = "fiddly"
)

// Accesses lists them, with how many times the hours of a flat surface they
// take: rules of thumb.
var Accesses = []struct {
	Key    Access  `json:"key"`
	Name   string  `json:"name"`
	Factor float64 `json:"factor"`
}{{Flat, "flat", 1}, {Upright, "upright side", 1.2}, {Overhead, "overhead", 2}, {Fiddly, "fiddly", 2.5}}

// Shelter is what is over a surface.
type Shelter string

// Shelters.
const (
	Open Shelter = "open"
	Tent Shelter = "tent"
	Shed Shelter = "shed"
)

// Shelters lists them.
var Shelters = []Shelter{Open, Tent, Shed}

// Facings lists where a surface may face beside its slope; empty is as its
// side says.
var Facings = []string{"", "port", "starboard", "bow", "stern"}

// Description is what a surface is and how it lies.
type Description struct {
	Group         string    `json:"group"`
	Substrate     Substrate `json:"substrate"`
	SubstrateNote string    `json:"substrateNote"`
	ThicknessMM   float64   `json:"thicknessMM"`
	Colour        string    `json:"colour"`
	Tone          Tone      `json:"tone"`
	Facing        string    `json:"facing"`
	// TiltDeg is 0 level and facing up, 90 upright, 180 overhead; without it
	// the part's usual slope.
	TiltDeg *float64 `json:"tiltDeg,omitempty"`
	Access  Access   `json:"access"`
	Shelter Shelter  `json:"shelter"`
}

// Usual describes a part of a new surface on substrate s.
func Usual(p area.Part, s Substrate) Description {
	d := Description{Substrate: s, ThicknessMM: usualMM[s], Tone: Pale, Access: Upright, Shelter: Open}
	switch tilt := p.Info().TiltDeg; {
	case tilt < 45:
		d.Access = Flat
	case tilt > 120:
		d.Access = Overhead
	}
	if p.Info().Fiddly {
		d.Access = Fiddly
	}
	if p.Info().Inside {
		d.Shelter = Shed
	}
	return d
}

// usualMM are usual thicknesses, mm: rules of thumb.
var usualMM = map[Substrate]float64{Gelcoat: 8, GRP: 8, FoamCore: 26, BalsaCore: 24, Carbon: 5, SolidWood: 22,
	StripPlank: 16, Plywood: 12, Veneer: 9, Steel: 5, Stainless: 4, Aluminium: 5, CastIron: 60, Lead: 60,
	OtherSubstr: 10}

// Tilt returns the slope of a part so described, degrees.
func (d Description) Tilt(p area.Part) float64 {
	if d.TiltDeg != nil {
		return *d.TiltDeg
	}
	return p.Info().TiltDeg
}

// Validate reports what cannot be.
func (d Description) Validate() error {
	var bad fielderr.Errors
	fielderr.OneOf(&bad, "substrate", d.Substrate, substrateKeys())
	bad.Range("thicknessMM", d.ThicknessMM, 0, 500, "mm")
	fielderr.OneOf(&bad, "tone", d.Tone, Tones)
	fielderr.OneOf(&bad, "facing", d.Facing, Facings)
	if d.TiltDeg != nil {
		bad.Range("tiltDeg", *d.TiltDeg, 0, 180, "°")
	}
	if d.Access != Flat && d.Access != Upright && d.Access != Overhead && d.Access != Fiddly {
		bad.Add("access", "must be flat, side, overhead or fiddly")
	}
	fielderr.OneOf(&bad, "shelter", d.Shelter, Shelters)
	return bad.Err()
}
