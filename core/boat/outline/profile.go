package outline

import (
	"math"

	"allcoats/core/boat/area"
	"allcoats/core/geometry/mesh"
)

// Profile is what a boat is drawn from: cross sections from aft forward, x in
// m from her aft end. Where the keel lies above the waterline it is the
// overhang's underside.
type Profile struct {
	LengthM  float64
	FinKeel  bool
	DraughtM float64
	// HousesM2 is the plan area of houses and openings, 0 if not known.
	HousesM2 float64
	Stations []mesh.Station
}

const samples = 40

// FromDimensions draws stations for a boat with valid dimensions d: right in
// length, beam, draught and freeboard, a likeness between.
func FromDimensions(d area.Dimensions) Profile {
	p := Profile{LengthM: d.LOAM, FinKeel: d.HullForm.Info().Fin, DraughtM: d.DraughtM, HousesM2: d.HousesM2}
	aft := 0.4 * (d.LOAM - d.LWLM)
	fore := aft + d.LWLM
	for i := range samples + 1 {
		x := d.LOAM * float64(i) / samples
		s := mesh.Station{XM: x, SheerM: sheer(d, x), HalfM: halfBeam(d, x/d.LOAM)}
		switch {
		case x < aft:
			s.KeelM = sheer(d, 0) * (aft - x) / aft * 0.9
		case x > fore:
			s.KeelM = sheer(d, d.LOAM) * (x - fore) / (d.LOAM - fore)
		default:
			u := (x - aft) / d.LWLM
			s.KeelM, s.WaterHalfM = keel(d, u), 0.92*halfBeam(d, u)
		}
		p.Stations = append(p.Stations, s)
	}
	return p
}

// FromStations draws a boat from the cross sections of her 3-D file or table
// of offsets, at least two; d gives what those do not.
func FromStations(stations []mesh.Station, d area.Dimensions) Profile {
	p := Profile{FinKeel: d.HullForm.Info().Fin, HousesM2: d.HousesM2, Stations: stations}
	for _, s := range stations {
		p.LengthM = max(p.LengthM, s.XM)
		p.DraughtM = max(p.DraughtM, -s.KeelM)
	}
	return p
}

// sheer is the height of the deck edge at x: lowest at 0.4 of the length,
// higher forward, its mean about the freeboard.
func sheer(d area.Dimensions, x float64) float64 {
	u := x/d.LOAM - 0.4
	return d.FreeboardM * (0.88 + 0.95*u*u)
}

// keel is the depth below the waterline at u in [0, 1] from aft.
func keel(d area.Dimensions, u float64) float64 {
	switch d.HullForm {
	case area.FullMotor, area.OpenChine: // deep along, rising at the forefoot
		return -d.DraughtM * (1 - math.Pow(u, 6))
	case area.FinKeel: // shallow canoe body; the fin is drawn below it
		return -0.3 * d.DraughtM * math.Pow(math.Sin(math.Pi*min(1, 0.04+u*0.96)), 0.6)
	case area.Medium, area.Catamaran, area.Trimaran:
	}
	return -d.DraughtM * math.Pow(math.Sin(math.Pi*(0.12+0.88*u)), 0.75)
}

// halfBeam is the half-breadth at u in [0, 1] from aft: full to the stern for
// motor hulls, drawn in for the others, a point at the stem.
func halfBeam(d area.Dimensions, u float64) float64 {
	stern := map[area.HullForm]float64{area.FullMotor: 0.88, area.Medium: 0.35, area.FinKeel: 0.6, area.OpenChine: 0.75,
		area.Catamaran: 0.7, area.Trimaran: 0.3}[d.HullForm]
	const widest = 0.42
	if u < widest {
		f := 1 - u/widest
		return d.BeamM / 2 * (1 - (1-stern)*f*f)
	}
	f := (u - widest) / (1 - widest)
	return d.BeamM / 2 * max(0, 1-math.Pow(f, 2.4))
}

// at interpolates the station at u in [0, 1] of the length.
func (p Profile) at(u float64) mesh.Station {
	x := u * p.LengthM
	st := p.Stations
	i := 0
	for i < len(st)-2 && st[i+1].XM < x {
		i++
	}
	a, b := st[i], st[i+1]
	t := 0.0
	if d := b.XM - a.XM; d > 0 {
		t = min(1, max(0, (x-a.XM)/d))
	}
	mix := func(v, w float64) float64 { return v + t*(w-v) }
	return mesh.Station{XM: x, KeelM: mix(a.KeelM, b.KeelM), SheerM: mix(a.SheerM, b.SheerM),
		HalfM: mix(a.HalfM, b.HalfM), WaterHalfM: mix(a.WaterHalfM, b.WaterHalfM)}
}

// between draws the outline between an upper and a lower line from u0 to u1.
func (p Profile) between(u0, u1 float64, upper, lower func(mesh.Station) float64) []Point {
	var top, under []Point
	for i := range samples + 1 {
		s := p.at(u0 + (u1-u0)*float64(i)/samples)
		hi, lo := upper(s), lower(s)
		if hi < lo {
			continue
		}
		top, under = append(top, Point{s.XM, hi}), append(under, Point{s.XM, lo})
	}
	for i := len(under) - 1; i >= 0; i-- {
		top = append(top, under[i])
	}
	return top
}
