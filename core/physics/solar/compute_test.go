package solar

import (
	"math"
	"testing"
	"time"

	"allcoats/core/base/fielderr"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var noon = time.Date(2026, 6, 21, 12, 0, 0, 0, time.UTC)

// At noon of a solstice on the prime meridian the sun stands 90° − latitude +
// 23.44° high in the south, within the equation of time.
func TestComputeAtTheSolstices(t *testing.T) {
	for _, c := range []struct {
		at       time.Time
		lat, el  float64
		azimuth  float64
		daylight float64 // h, 2/15·acos(−tan φ·tan δ) and some minutes for refraction and the disc
	}{
		{noon, 52, 61.44, 180, 16.56}, {noon, 30, 83.44, 180, 13.94}, {noon, -40, 26.56, 0, 9.16},
		{time.Date(2026, 12, 21, 12, 0, 0, 0, time.UTC), 52, 14.56, 180, 7.5},
	} {
		got, err := Compute(Request{LatitudeDeg: c.lat, At: c.at})
		require.NoError(t, err)
		assert.InDelta(t, c.el, got.ElevationDeg, 0.1)
		assert.InDelta(t, 0, math.Remainder(got.AzimuthDeg-c.azimuth, 360), 4)
		assert.InDelta(t, 60*c.daylight, got.DaylightMin, 18)
		require.NotNil(t, got.Rise)
		require.NotNil(t, got.Set)
		assert.True(t, got.Rise.Before(c.at) && got.Set.After(c.at))
	}
}

func TestPolarDayAndNight(t *testing.T) {
	day, err := Compute(Request{LatitudeDeg: 80, At: noon})
	require.NoError(t, err)
	assert.Nil(t, day.Rise)
	assert.Nil(t, day.Set)
	assert.InDelta(t, 24*60, day.DaylightMin, 1)
	night, err := Compute(Request{LatitudeDeg: -80, At: noon})
	require.NoError(t, err)
	assert.Zero(t, night.DaylightMin)
	assert.Zero(t, night.GlobalWM2)
	assert.Zero(t, night.PlaneWM2)
}

// Given sun and light, the plane's share is trigonometry alone.
func TestGivenLightOnAPlane(t *testing.T) {
	none := 0.0
	at := func(tilt, azimuth float64, albedo *float64) Result {
		got, err := Compute(Request{At: noon, Sun: &GivenSun{30, 180}, Light: &GivenLight{GlobalWM2: 500, BeamWM2: 800,
			DiffuseWM2: 100},
			Plane: &PlaneRequest{TiltDeg: tilt, AzimuthDeg: azimuth, Albedo: albedo}})
		require.NoError(t, err)
		return got
	}
	for _, c := range []struct {
		name                   string
		tilt, azimuth          float64
		albedo                 *float64
		beam, sky, ground, cos float64
	}{
		{"level", 0, 0, nil, 400, 100, 0, 0.5},
		{"upright to the sun", 90, 180, nil, 800 * math.Cos(math.Pi/6), 50, 50, math.Cos(math.Pi / 6)},
		{"upright away", 90, 0, nil, 0, 50, 50, -math.Cos(math.Pi / 6)},
		{"upright abeam", 90, 90, nil, 0, 50, 50, 0},
		{"square to the sun", 60, 180, nil, 800, 75, 25, 1},
		{"underside", 180, 0, nil, 0, 0, 100, -0.5},
		{"underside over black", 180, 0, &none, 0, 0, 0, -0.5},
	} {
		got := at(c.tilt, c.azimuth, c.albedo)
		assert.InDelta(t, c.beam, got.PlaneBeamWM2, 1e-9, c.name)
		assert.InDelta(t, c.sky, got.PlaneSkyWM2, 1e-9, c.name)
		assert.InDelta(t, c.ground, got.PlaneGndWM2, 1e-9, c.name)
		assert.InDelta(t, c.cos, got.CosIncidence, 1e-9, c.name)
		assert.InDelta(t, c.beam+c.sky+c.ground, got.PlaneWM2, 1e-9, c.name)
		steps := got.Working.Steps
		require.NotEmpty(t, steps, c.name)
		assert.Equal(t, got.PlaneWM2, steps[len(steps)-1].Value, "the working ends in what is said")
	}
}

// Full cloud leaves a quarter of the clear sky's light (Kasten & Czeplak), all of
// it diffuse; more cloud never brings more light.
func TestCloudTakesLight(t *testing.T) {
	last := math.Inf(1)
	var clear Result
	for cloud := 0.0; cloud <= 100; cloud += 10 {
		got, err := Compute(Request{LatitudeDeg: 52, At: noon, CloudPct: cloud})
		require.NoError(t, err)
		if cloud == 0 {
			clear = got
		}
		assert.LessOrEqual(t, got.GlobalWM2, last)
		last = got.GlobalWM2
		assert.LessOrEqual(t, got.DiffuseWM2, got.GlobalWM2+1e-9)
		assert.InDelta(t, got.GlobalWM2, got.DiffuseWM2+got.BeamWM2*math.Sin(got.ElevationDeg*math.Pi/180), 1e-6)
		assert.InDelta(t, clear.GlobalWM2*(1-0.75*math.Pow(cloud/100, 3.4)), got.GlobalWM2, 1e-9)
	}
	l := Clouded(clear.ElevationDeg, noon.YearDay(), 1)
	assert.InDelta(t, clear.GlobalWM2/4, l.Global, 1e-9)
	assert.Zero(t, Clouded(-5, noon.YearDay(), 0.5).Global)
	assert.Equal(t, Clear(40, 100), Clouded(40, 100, 0))
}

func TestBadFields(t *testing.T) {
	albedo := 1.5
	for path, r := range map[string]Request{
		"latitudeDeg":      {LatitudeDeg: 91, At: noon},
		"longitudeDeg":     {LongitudeDeg: -181, At: noon},
		"cloudPct":         {CloudPct: 101, At: noon},
		"at":               {},
		"plane.tiltDeg":    {At: noon, Plane: &PlaneRequest{TiltDeg: 181}},
		"plane.azimuthDeg": {At: noon, Plane: &PlaneRequest{AzimuthDeg: math.NaN()}},
		"plane.albedo":     {At: noon, Plane: &PlaneRequest{Albedo: &albedo}},
		"sun.elevationDeg": {At: noon, Sun: &GivenSun{ElevationDeg: 95}},
		"sun.azimuthDeg":   {At: noon, Sun: &GivenSun{AzimuthDeg: 400}},
		"light.globalWM2":  {At: noon, Light: &GivenLight{GlobalWM2: -1}},
		"light.beamWM2":    {At: noon, Light: &GivenLight{BeamWM2: 2000}},
		"light.diffuseWM2": {At: noon, Light: &GivenLight{DiffuseWM2: math.Inf(1)}},
	} {
		_, err := Compute(r)
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, path)
		require.Len(t, bad, 1, path)
		assert.Equal(t, path, bad[0].Path)
	}
}
