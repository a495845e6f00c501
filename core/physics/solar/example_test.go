package solar_test

import (
	"fmt"
	"time"

	"allcoats/core/physics/solar"
)

// The sun over Greenwich at noon of the longest day stands 90° − 51.5° + 23.4° high.
func ExampleSun() {
	elevation, azimuth := solar.Sun(51.48, 0, time.Date(2026, 6, 21, 12, 2, 0, 0, time.UTC))
	fmt.Printf("%.1f° %.0f°\n", elevation, azimuth)
	// Output: 62.0° 180°
}
