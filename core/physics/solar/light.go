package solar

import "math"

// solarConstant is the sunshine above the atmosphere at the mean distance,
// W/m²; Linke the turbidity of clear air over a temperate coast; Albedo the
// share of light that the ground throws back.
const (
	solarConstant = 1366.1
	Linke         = 3.0
	Albedo        = 0.2
)

const deg = math.Pi / 180

// Light is sunshine in W/m²: global on the level, beam square to the sun, and
// diffuse from the sky on the level. Global = Beam·sin(elevation) + Diffuse.
type Light struct{ Global, Beam, Diffuse float64 }

// Above returns the sunshine above the atmosphere on a day of the year, W/m²
// (Spencer 1971).
func Above(yearDay int) float64 {
	g := 2 * math.Pi * float64(yearDay-1) / 365
	return solarConstant * (1.00011 + 0.034221*math.Cos(g) + 0.00128*math.Sin(g) + 0.000719*math.Cos(2*g) +
		0.000077*math.Sin(2*g))
}

// Clear returns the light of a cloudless sky at sea level with the sun at
// elevation, degrees. Within about a tenth of other clear-sky models. Source:
// Ineichen & Perez 2002 with air mass by Kasten & Young 1989.
func Clear(elevation float64, yearDay int) Light {
	if elevation <= 0 {
		return Light{}
	}
	sin := math.Sin(elevation * deg)
	mass := 1 / (sin + 0.50572*math.Pow(elevation+6.07995, -1.6364))
	above := Above(yearDay)
	global := 0.868 * above * sin * math.Exp(-0.0387*mass*Linke)
	// The other bound of the source is never the smaller one at this turbidity.
	beam := 0.827 * above * math.Exp(-0.09*mass*(Linke-1))
	return Light{global, beam, max(0, global-beam*sin)}
}

// CloudFactor returns the share of clear-sky global light under cloud, 0…1 of
// the sky (Kasten & Czeplak 1980).
func CloudFactor(cloud float64) float64 { return 1 - 0.75*math.Pow(max(0, min(1, cloud)), 3.4) }

// Split returns the light of a sky whose global light is known, between the
// diffuse share of the clear sky and 1. The share between follows Erbs et al.
// 1982 over the clearness index, stretched so that it meets the clear-sky
// model's; below 3° of elevation all light is diffuse.
func Split(global, elevation float64, yearDay int) Light {
	if global <= 0 || elevation <= 0 {
		return Light{}
	}
	return Clear(elevation, yearDay).dimmed(global, elevation, yearDay)
}

// Clouded returns the light under cloud, 0…1 of the sky.
func Clouded(elevation float64, yearDay int, cloud float64) Light {
	clear := Clear(elevation, yearDay)
	if clear.Global <= 0 || cloud <= 0 {
		return clear
	}
	return clear.dimmed(clear.Global*CloudFactor(cloud), elevation, yearDay)
}

// dimmed splits global light under the clear sky.
func (clear Light) dimmed(global, elevation float64, yearDay int) Light {
	if elevation < 3 || clear.Global <= 0 {
		return Light{Global: global, Diffuse: global}
	}
	sin := math.Sin(elevation * deg)
	above := Above(yearDay) * sin
	least := erbs(clear.Global / above)
	share := clear.Diffuse / clear.Global
	if global < clear.Global {
		share += (erbs(global/above) - least) / (1 - least) * (1 - share)
	}
	diffuse := global * min(1, max(0, share))
	return Light{global, (global - diffuse) / sin, diffuse}
}

// erbs is the diffuse share of global light at clearness index k.
func erbs(k float64) float64 {
	switch {
	case k <= 0.22:
		return 1 - 0.09*k
	case k <= 0.8:
		return 0.9511 - 0.1604*k + 4.388*k*k - 16.638*k*k*k + 12.336*k*k*k*k
	}
	return 0.165
}

// Plane is light on a plane, W/m², by where it comes from. Cos is the cosine of
// the angle at which the sun meets it, negative from behind.
type Plane struct{ Beam, Sky, Ground, Cos float64 }

// Total is all light on the plane.
func (p Plane) Total() float64 { return p.Beam + p.Sky + p.Ground }

// Direction points north, east and up; a unit vector.
type Direction struct{ north, east, up float64 }

// Toward is the direction of an elevation and an azimuth, degrees.
func Toward(elevation, azimuth float64) Direction {
	sinE, cosE := math.Sincos(elevation * deg)
	sinA, cosA := math.Sincos(azimuth * deg)
	return Direction{cosE * cosA, cosE * sinA, sinE}
}

// Facing is the direction that a plane of tilt (0° level and facing up, 90°
// upright, 180° facing down) faces.
func Facing(tilt, azimuth float64) Direction { return Toward(90-tilt, azimuth) }

// On returns l, with the sun in that direction, on a plane over ground of the
// albedo given. Isotropic sky (Liu & Jordan 1963); exact for its inputs.
func (l Light) On(sun, plane Direction, albedo float64) Plane {
	c := sun.north*plane.north + sun.east*plane.east + sun.up*plane.up
	p := Plane{Sky: l.Diffuse * (1 + plane.up) / 2, Ground: l.Global * albedo * (1 - plane.up) / 2, Cos: c}
	if sun.up > 0 {
		p.Beam = l.Beam * max(0, c)
	}
	return p
}

// Temperature returns the temperature that the sky radiates at, °C, from that
// of the air, its dew point and the cloud, 0…1. Clear-sky emissivity by
// Berdahl & Martin 1984; clouds close 0.8 of the rest times their share, a
// rule of thumb for low cloud.
func Temperature(airC, dewPointC, cloud float64) float64 {
	d := dewPointC / 100
	e := 0.711 + 0.56*d + 0.73*d*d
	e += (1 - e) * 0.8 * max(0, min(1, cloud))
	k := airC + 273.15
	return k*math.Sqrt(math.Sqrt(e)) - 273.15
}
