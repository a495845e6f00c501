package film_test

import (
	"fmt"

	"allcoats/core/film/film"
)

// A film of 50 µm from a paint of 40 % solids, thinned by 10 %: 50 · 1.1 / 0.4.
func ExampleWet() {
	fmt.Printf("%.1f µm\n", film.Wet(50, 40, 10))
	// Output: 137.5 µm
}
