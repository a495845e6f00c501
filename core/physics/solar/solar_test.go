package solar

import (
	"encoding/json"
	"math"
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

type solarCase struct {
	Name  string
	Input struct {
		Kind string
		Lat  float64 `json:"latitude_deg"`
		Lon  float64 `json:"longitude_east_deg"`
		UTC  string  `json:"time_utc"`
		Date string  `json:"local_date"`
	}
	Expect struct {
		Elevation float64 `json:"solar_elevation_geometric_deg"`
		Azimuth   float64 `json:"solar_azimuth_from_north_clockwise_deg"`
		What      string
		Sunrise   *time.Time `json:"sunrise_utc"`
		Sunset    *time.Time `json:"sunset_utc"`
	}
}

func solarCases(t *testing.T, kind string) []solarCase {
	raw, err := os.ReadFile("../../../calc/testdata/solar.json")
	require.NoError(t, err)
	var doc struct{ Cases []solarCase }
	require.NoError(t, json.Unmarshal(raw, &doc))
	var out []solarCase
	for _, c := range doc.Cases {
		if c.Input.Kind == kind {
			out = append(out, c)
		}
	}
	require.NotEmpty(t, out)
	return out
}

func TestSunAgainstSPA(t *testing.T) {
	for _, c := range solarCases(t, "position") {
		at, err := time.Parse(time.RFC3339, c.Input.UTC)
		require.NoError(t, err)
		el, az := Sun(c.Input.Lat, c.Input.Lon, at)
		assert.InDelta(t, c.Expect.Elevation, el, 0.2, c.Name)
		d := math.Mod(az-c.Expect.Azimuth+540, 360) - 180
		assert.InDelta(t, 0, d, 0.3, c.Name)
	}
}

func TestDaylightAgainstSPA(t *testing.T) {
	for _, c := range solarCases(t, "rise_set") {
		day, err := time.Parse(time.DateOnly, c.Input.Date)
		require.NoError(t, err)
		// Half a day either side of mean solar noon.
		noon := day.Add(12*time.Hour - time.Duration(c.Input.Lon/15*float64(time.Hour)))
		light := Daylight(c.Input.Lat, c.Input.Lon, noon.Add(-12*time.Hour), noon.Add(12*time.Hour))
		if c.Expect.Sunrise == nil {
			// Polar day is one stretch of 24 h, polar night none.
			for _, l := range light {
				assert.Equal(t, 24*time.Hour, l.Set.Sub(l.Rise), c.Name)
			}
			continue
		}
		require.Len(t, light, 1, c.Name)
		assert.WithinDuration(t, *c.Expect.Sunrise, light[0].Rise, 2*time.Minute, c.Name)
		assert.WithinDuration(t, *c.Expect.Sunset, light[0].Set, 2*time.Minute, c.Name)
	}
}

// What is kept is what would be worked out, of each place and time for itself, however many are asked for.
func TestDaysAreKept(t *testing.T) {
	var d Days
	at := time.Date(2026, 5, 9, 8, 0, 0, 0, time.UTC)
	for round := range 2 {
		for k := range 12 {
			from, to := at.AddDate(0, 0, k), at.AddDate(0, 0, k+3)
			assert.Equal(t, Daylight(52.9, 0.8, from, to), d.Daylight(52.9, 0.8, from, to), "%d %d", round, k)
		}
		assert.Equal(t, Daylight(-30, 0.8, at, at.AddDate(0, 0, 3)), d.Daylight(-30, 0.8, at, at.AddDate(0, 0, 3)))
	}
}
