package area

import (
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"

	"gonum.org/v1/gonum/integrate/quad"
)

// HullRequest is the input of the area-hull calculator: a hull whose surface
// is known. Form "parabolic" is y = B/2 (1 − (2x/L)²)(1 − (z/T)²); "ellipsoid"
// is half of one, or what lies CutM above the middle (negative: below it).
type HullRequest struct {
	Form     string  `json:"form" enum:"parabolic,ellipsoid"`
	LengthM  float64 `json:"lengthM"`
	BeamM    float64 `json:"beamM"`
	DraughtM float64 `json:"draughtM"`
	CutM     float64 `json:"cutM,omitempty"`
}

// HullResult is a hull's surface below its waterline, and what else is known
// of it.
type HullResult struct {
	WettedM2     float64         `json:"wettedM2"`
	LateralM2    float64         `json:"lateralM2"`
	WaterplaneM2 float64         `json:"waterplaneM2"`
	VolumeM3     float64         `json:"volumeM3"`
	Working      working.Working `json:"working"`
}

// nodes of Gauss-Legendre quadrature in each direction: 1e-9 on hulls as slender as boats.
const nodes = 96

func integral(f func(u, v float64) float64, u0, u1, v0, v1 float64) float64 {
	return quad.Fixed(func(u float64) float64 {
		return quad.Fixed(func(v float64) float64 { return f(u, v) }, v0, v1, nodes, nil, 0)
	}, u0, u1, nodes, nil, 0)
}

// ellipsoidBelow is the surface of an ellipsoid with half axes a, b, c below
// the height cut above its middle, without lid.
func ellipsoidBelow(a, b, c, cut float64) float64 {
	return integral(func(phi, theta float64) float64 {
		sp, cp := math.Sincos(phi)
		st, ct := math.Sincos(theta)
		return 4 * cp * math.Sqrt(b*b*c*c*cp*cp*ct*ct+a*a*c*c*cp*cp*st*st+a*a*b*b*sp*sp)
	}, -math.Pi/2, math.Asin(cut/c), 0, math.Pi/2)
}

func parabolic(l, b, t float64) float64 {
	return integral(func(x, z float64) float64 {
		yx := b / 2 * (-8 * x / (l * l)) * (1 - z*z/(t*t))
		yz := b / 2 * (1 - 4*x*x/(l*l)) * (-2 * z / (t * t))
		return 4 * math.Sqrt(1+yx*yx+yz*yz)
	}, 0, l/2, -t, 0)
}

// OfHull returns the surface of a hull of known form.
func OfHull(r HullRequest) (HullResult, error) {
	var bad fielderr.Errors
	fielderr.OneOf(&bad, "form", r.Form, []string{"parabolic", "ellipsoid"})
	bad.Above("lengthM", r.LengthM, 0, 150, "m")
	bad.Above("beamM", r.BeamM, 0, 60, "m")
	bad.Above("draughtM", r.DraughtM, 0, 20, "m")
	if r.Form == "parabolic" && r.CutM != 0 {
		bad.Add("cutM", "only an ellipsoid can be cut elsewhere than at its waterline")
	}
	if bad == nil && math.Abs(r.CutM) >= r.DraughtM {
		bad.Add("cutM", "must lie within the ellipsoid")
	}
	if err := bad.Err(); err != nil {
		return HullResult{}, err
	}
	l, b, t := r.LengthM, r.BeamM, r.DraughtM
	w := working.New()
	w.In("Length", l, "m")
	w.In("Beam", b, "m")
	w.In("Draught", t, "m")
	var out HullResult
	if r.Form == "parabolic" {
		out = HullResult{parabolic(l, b, t), l * t, 2. / 3 * l * b, 4. / 9 * l * b * t, w}
	} else {
		k := r.CutM / t
		plane := math.Pi / 4 * l * b * (1 - k*k)
		out = HullResult{ellipsoidBelow(l/2, b/2, t, r.CutM),
			l / 2 * t * (math.Pi/2 + math.Asin(k) + k*math.Sqrt(1-k*k)), plane,
			math.Pi / 4 * l * b * t * (2./3 + k - k*k*k/3), w}
	}
	out.Working.Step("Surface below the waterline", "∫∫ √(1 + yx² + yz²) dx dz, both sides", out.WettedM2, "m²",
		"Gauss-Legendre quadrature")
	return out, nil
}
