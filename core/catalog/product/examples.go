package product

import (
	_ "embed"
	"encoding/json"
	"fmt"
)

//go:embed examples.json
var examples []byte

// Examples returns the generic products that ship with the program. Their
// figures are invented: plausible for the kind, true of no tin.
func Examples() []Sheet {
	var out []Sheet
	if err := json.Unmarshal(examples, &out); err != nil {
		panic(fmt.Sprintf("product: examples.json: %v", err)) // embedded: a build defect
	}
	return out
}
