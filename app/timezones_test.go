package app_test

import (
	"encoding/csv"
	"os"
	"strconv"
	"testing"
	"time"

	"allcoats/app"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Places of which one knows the zone, of each hemisphere, beside a border, and at sea.
func TestTimeZoneAt(t *testing.T) {
	for zone, at := range map[string][2]float64{
		"Europe/London":     {52.95, 0.85},
		"Europe/Paris":      {47.3, -2.2},
		"America/New_York":  {41.5, -71.3},
		"Pacific/Auckland":  {-36.84, 174.77},
		"America/Vancouver": {49.28, -123.12},
		"Europe/Lisbon":     {38.7, -9.2},
		"Etc/GMT+3":         {40, -45},
		"Etc/GMT-11":        {0, 172.4},
		"Etc/GMT":           {50, -7.4},
	} {
		got, err := app.TimeZoneAt(at[0], at[1])
		require.NoError(t, err)
		assert.Equal(t, zone, got)
		_, err = time.LoadLocation(got)
		assert.NoError(t, err)
	}
	_, err := app.TimeZoneAt(95, 0)
	assert.Equal(t, "latitudeDeg", path(t, err))
}

// Random positions over the globe, and as many in and about Europe, with the zones that tzf 1.0.2 gives them.
func TestTimeZonesAreTzfs(t *testing.T) {
	f, err := os.Open("testdata/timezones.csv")
	require.NoError(t, err)
	defer f.Close()
	rows, err := csv.NewReader(f).ReadAll()
	require.NoError(t, err)
	require.Greater(t, len(rows), 800)
	for _, row := range rows[1:] {
		lat, err := strconv.ParseFloat(row[0], 64)
		require.NoError(t, err)
		lng, err := strconv.ParseFloat(row[1], 64)
		require.NoError(t, err)
		got, err := app.TimeZoneAt(lat, lng)
		require.NoError(t, err)
		assert.Equal(t, row[2], got, "%v", row)
	}
}
