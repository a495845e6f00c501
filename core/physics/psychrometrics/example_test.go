package psychrometrics_test

import (
	"fmt"

	"allcoats/core/physics/psychrometrics"
)

// Air of 18 °C and 80 % wets what is colder than its dew point.
func ExampleDewPoint() {
	fmt.Printf("%.1f °C\n", psychrometrics.DewPoint(18, 80))
	// Output: 14.5 °C
}
