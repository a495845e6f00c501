package solar

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// Above the atmosphere 1361…1366 W/m² reach the mean distance; the earth is
// 3.4 % nearer in January than in July.
func TestAbove(t *testing.T) {
	assert.InDelta(t, 1413, Above(3), 3)
	assert.InDelta(t, 1321, Above(185), 3)
}

// Clear-sky models agree to about a tenth: Haurwitz 1945 as the other one.
func TestClearAgainstHaurwitz(t *testing.T) {
	for _, el := range []float64{30, 45, 60, 75} {
		sin := math.Sin(el * deg)
		other := 1098 * sin * math.Exp(-0.057/sin)
		l := Clear(el, 172)
		assert.InEpsilon(t, other, l.Global, 0.1, "%g°", el)
		assert.InDelta(t, l.Global, l.Beam*sin+l.Diffuse, 1e-9)
	}
	assert.Zero(t, Clear(-1, 172))
}

func TestCloudFactor(t *testing.T) {
	assert.Equal(t, 1.0, CloudFactor(0))
	assert.Equal(t, 0.25, CloudFactor(1)) // Kasten & Czeplak: a quarter under overcast
	assert.InDelta(t, 1-0.75*math.Pow(0.5, 3.4), CloudFactor(0.5), 1e-12)
}

func TestSplit(t *testing.T) {
	clear := Clear(50, 120)
	same := Split(clear.Global, 50, 120)
	assert.InDelta(t, clear.Diffuse, same.Diffuse, 1e-9, "a clear sky splits as the clear-sky model")
	last := 0.0
	for _, f := range []float64{1, 0.8, 0.6, 0.4, 0.2} {
		l := Split(f*clear.Global, 50, 120)
		share := l.Diffuse / l.Global
		assert.Greater(t, share, last, "darker skies are more diffuse")
		assert.InDelta(t, l.Global, l.Beam*math.Sin(50*deg)+l.Diffuse, 1e-9)
		last = share
	}
	assert.Greater(t, last, 0.95, "an overcast sky is nearly all diffuse")
}

// At the equinox the sun at noon over latitude 50° stands 40° high in the
// south: the south side sees cos 40° of the beam, the north side none.
func TestOnTheSidesOfAHull(t *testing.T) {
	noon := time.Date(2026, 3, 20, 12, 7, 0, 0, time.UTC)
	el, az := Sun(50, 0, noon)
	assert.InDelta(t, 40, el, 0.5)
	l := Light{Global: 600, Beam: 800, Diffuse: 90}
	south := l.On(Toward(el, az), Facing(90, 180), 0)
	north := l.On(Toward(el, az), Facing(90, 0), 0)
	assert.InDelta(t, 800*math.Cos(el*deg), south.Beam, 1)
	assert.Zero(t, north.Beam)
	assert.InDelta(t, 45, north.Sky, 1e-9)
	assert.InDelta(t, 0, l.On(Toward(el, az), Facing(180, 0), 0).Total(), 1e-9, "an underside sees neither sun nor sky")
}

// A clear sky at 15 °C and dew point 10 °C radiates at about −4 °C; a closed
// low cloud nearly at the air's temperature.
func TestSkyTemperature(t *testing.T) {
	e := 0.711 + 0.56*0.1 + 0.73*0.01
	assert.InDelta(t, 288.15*math.Pow(e, 0.25)-273.15, Temperature(15, 10, 0), 1e-9)
	assert.InDelta(t, 15, Temperature(15, 10, 1), 4)
	assert.Less(t, Temperature(15, 0, 0), Temperature(15, 10, 0), "dry air lets more heat out")
}
