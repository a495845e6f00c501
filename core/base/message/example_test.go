package message_test

import (
	"fmt"

	"allcoats/core/base/message"
)

// A message keeps its quantities apart until it is shown.
func ExampleOf() {
	s := message.Of("Lay %v wet on %s.", message.Val(120, "µm"), "the deck")
	fmt.Println(s.String())
	fmt.Println(s[0].Say)
	// Output:
	// Lay 120 µm wet on the deck.
	// Lay {0} wet on {1}.
}
