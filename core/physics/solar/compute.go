package solar

import (
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
)

// PlaneRequest is a plane by tilt (0° up, 90° upright, 180° down) and the
// direction it faces from north, clockwise.
type PlaneRequest struct {
	TiltDeg    float64 `json:"tiltDeg"`
	AzimuthDeg float64 `json:"azimuthDeg"`
	// Albedo is the share of light that the ground throws back, without it 0.2.
	Albedo *float64 `json:"albedo,omitempty"`
}

// GivenLight is light that was measured or made elsewhere, W/m².
type GivenLight struct {
	GlobalWM2  float64 `json:"globalWM2"`
	BeamWM2    float64 `json:"beamWM2"`
	DiffuseWM2 float64 `json:"diffuseWM2"`
}

// GivenSun is a sun whose place is known, degrees.
type GivenSun struct {
	ElevationDeg float64 `json:"elevationDeg"`
	AzimuthDeg   float64 `json:"azimuthDeg"`
}

// Request is the input of the sun calculator. Sun and Light, if given, stand
// for what would be computed.
type Request struct {
	LatitudeDeg  float64       `json:"latitudeDeg"`
	LongitudeDeg float64       `json:"longitudeDeg"`
	At           time.Time     `json:"at"`
	CloudPct     float64       `json:"cloudPct,omitempty"`
	Plane        *PlaneRequest `json:"plane,omitempty"`
	Sun          *GivenSun     `json:"sun,omitempty"`
	Light        *GivenLight   `json:"light,omitempty"`
}

// Result is where the sun is, the day it belongs to, and its light. Rise and
// Set are those around the solar noon nearest to At, nil on polar days and
// nights.
type Result struct {
	ElevationDeg float64         `json:"elevationDeg"`
	AzimuthDeg   float64         `json:"azimuthDeg"`
	Rise         *time.Time      `json:"rise"`
	Set          *time.Time      `json:"set"`
	DaylightMin  float64         `json:"daylightMin"`
	GlobalWM2    float64         `json:"globalWM2"`
	BeamWM2      float64         `json:"beamWM2"`
	DiffuseWM2   float64         `json:"diffuseWM2"`
	PlaneBeamWM2 float64         `json:"planeBeamWM2"`
	PlaneSkyWM2  float64         `json:"planeSkyWM2"`
	PlaneGndWM2  float64         `json:"planeGroundWM2"`
	PlaneWM2     float64         `json:"planeWM2"`
	CosIncidence float64         `json:"cosIncidence"`
	Working      working.Working `json:"working"`
}

// Compute answers r, or names the impossible fields. Without a plane the level
// ground is meant.
func Compute(r Request) (Result, error) {
	if r.Plane == nil {
		r.Plane = &PlaneRequest{}
	}
	if err := r.check(); err != nil {
		return Result{}, err
	}
	albedo := Albedo
	if r.Plane.Albedo != nil {
		albedo = *r.Plane.Albedo
	}
	w := working.New()
	var out Result
	if r.Sun != nil {
		out.ElevationDeg, out.AzimuthDeg = r.Sun.ElevationDeg, r.Sun.AzimuthDeg
		w.In("Sun's elevation", out.ElevationDeg, "°")
		w.In("Sun's azimuth", out.AzimuthDeg, "°")
	} else {
		w.In("Latitude", r.LatitudeDeg, "°")
		w.In("Longitude", r.LongitudeDeg, "°")
		out.ElevationDeg, out.AzimuthDeg = Sun(r.LatitudeDeg, r.LongitudeDeg, r.At)
		w.Step("Sun's elevation", "low-precision formulas, without refraction", out.ElevationDeg, "°", "Michalsky 1988")
		w.Step("Sun's azimuth", "from north, clockwise", out.AzimuthDeg, "°", "Michalsky 1988")
	}
	out.daylight(r)
	day := r.At.YearDay()
	var l Light
	switch {
	case r.Light != nil:
		l = Light{r.Light.GlobalWM2, r.Light.BeamWM2, r.Light.DiffuseWM2}
	case r.CloudPct == 0:
		l = Clear(out.ElevationDeg, day)
		w.Step("Clear sky, on the level", "turbidity 3, sea level", l.Global, "W/m²", "Ineichen & Perez 2002")
	default:
		clear := Clear(out.ElevationDeg, day)
		w.Step("Clear sky, on the level", "turbidity 3, sea level", clear.Global, "W/m²", "Ineichen & Perez 2002")
		f := w.Step("Left by the cloud", "1 − 0.75 · N^3.4", CloudFactor(r.CloudPct/100), "", "Kasten & Czeplak 1980")
		l = Split(clear.Global*f, out.ElevationDeg, day)
		w.Step("Diffuse", "share by clearness", l.Diffuse, "W/m²", "Erbs et al. 1982, stretched to the clear-sky model")
	}
	p := l.On(Toward(out.ElevationDeg, out.AzimuthDeg), Facing(r.Plane.TiltDeg, r.Plane.AzimuthDeg), albedo)
	out.GlobalWM2, out.BeamWM2, out.DiffuseWM2 = l.Global, l.Beam, l.Diffuse
	out.PlaneBeamWM2, out.PlaneSkyWM2, out.PlaneGndWM2, out.CosIncidence = p.Beam, p.Sky, p.Ground, p.Cos
	out.PlaneWM2 = w.Step("On the plane",
		"beam · max(0, cos i) + diffuse · (1 + cos tilt)/2 + global · albedo · (1 − cos tilt)/2", p.Total(), "W/m²",
		"Liu & Jordan 1963, isotropic sky")
	out.Working = w
	return out, nil
}

// check names the impossible fields.
func (r Request) check() error {
	var bad fielderr.Errors
	bad.Range("latitudeDeg", r.LatitudeDeg, -90, 90, "°")
	bad.Range("longitudeDeg", r.LongitudeDeg, -180, 180, "°")
	bad.Range("cloudPct", r.CloudPct, 0, 100, "%")
	if y := r.At.Year(); y < 1950 || y > 2100 {
		bad.Add("at", "must be a time between 1950 and 2100")
	}
	bad.Range("plane.tiltDeg", r.Plane.TiltDeg, 0, 180, "°")
	bad.Range("plane.azimuthDeg", r.Plane.AzimuthDeg, -360, 360, "°")
	if r.Plane.Albedo != nil {
		bad.Range("plane.albedo", *r.Plane.Albedo, 0, 1, "")
	}
	if r.Sun != nil {
		bad.Range("sun.elevationDeg", r.Sun.ElevationDeg, -90, 90, "°")
		bad.Range("sun.azimuthDeg", r.Sun.AzimuthDeg, -360, 360, "°")
	}
	if r.Light != nil {
		bad.Range("light.globalWM2", r.Light.GlobalWM2, 0, 1500, "W/m²")
		bad.Range("light.beamWM2", r.Light.BeamWM2, 0, 1500, "W/m²")
		bad.Range("light.diffuseWM2", r.Light.DiffuseWM2, 0, 1500, "W/m²")
	}
	return bad.Err()
}

// daylight fills in the rise and the set nearest to the noon of the place, and the light between them.
func (out *Result) daylight(r Request) {
	noon := r.At.Truncate(24 * time.Hour).Add(12*time.Hour - time.Duration(r.LongitudeDeg/15*float64(time.Hour)))
	for r.At.Sub(noon) > 12*time.Hour {
		noon = noon.Add(24 * time.Hour)
	}
	for noon.Sub(r.At) > 12*time.Hour {
		noon = noon.Add(-24 * time.Hour)
	}
	from, to := noon.Add(-12*time.Hour), noon.Add(12*time.Hour)
	for _, d := range Daylight(r.LatitudeDeg, r.LongitudeDeg, from, to) {
		out.DaylightMin += d.Set.Sub(d.Rise).Minutes()
		if d.Rise.After(from) {
			out.Rise = &d.Rise
		}
		if d.Set.Before(to) {
			out.Set = &d.Set
		}
	}
}
