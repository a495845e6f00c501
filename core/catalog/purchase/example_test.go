package purchase_test

import (
	"fmt"

	"allcoats/core/catalog/product"
	"allcoats/core/catalog/purchase"
)

// 3.2 L of a one-part paint: a large tin costs less than four small ones.
func ExampleCover() {
	paint := product.Sheet{Kind: product.TopcoatOne, VolumeSolidsPct: 50, Tins: []product.Tin{
		{Name: "1 L", Litres: 1, PriceCents: 3000}, {Name: "4 L", Litres: 4, PriceCents: 8000}}}
	p, ok := purchase.Cover(3.2, paint, purchase.Stock{})
	fmt.Println(ok, p.Tins[0].Count, p.Tins[0].Name, p.CostCents)
	// Output: true 1 4 L 8000
}
