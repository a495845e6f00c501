package app_test

import (
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
