package cure_test

import (
	"fmt"

	"allcoats/core/physics/cure"
)

// A sheet that tells 24 h at 10 °C and 12 h at 20 °C: between them ln τ is straight in 1/T.
func ExampleTable_TauH() {
	sheet := cure.Table{{TempC: 10, Hours: 24}, {TempC: 20, Hours: 12}}
	h, outside := sheet.TauH(15, cure.Minimum)
	fmt.Printf("%.1f h %v\n", h, outside)
	h, outside = sheet.TauH(5, cure.Minimum)
	fmt.Println(h > 24, outside)
	// Output:
	// 16.9 h false
	// true true
}
