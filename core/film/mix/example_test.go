package mix_test

import (
	"fmt"

	"allcoats/core/catalog/product"
	"allcoats/core/film/mix"
)

// 3 L of a mix of 2 to 1 by volume.
func ExampleCompute() {
	r, err := mix.Compute(mix.Request{ByVolume: product.Ratio{Base: 2, Hardener: 1}, TotalL: 3})
	fmt.Println(*r.BaseL, *r.HardenerL, err)
	// Output: 2 1 <nil>
}
