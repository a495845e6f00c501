package units_test

import (
	"fmt"

	"allcoats/core/base/units"
)

// A comb in mils, and a pair that does not go together.
func ExampleConvert() {
	um, err := units.Convert(4, "mil", "µm")
	fmt.Printf("%.1f %v\n", um, err)
	_, err = units.Convert(4, "mil", "L")
	fmt.Println(err)
	// Output:
	// 101.6 <nil>
	// to: L is a volume, mil a length
}
