package application

import (
	"testing"

	"allcoats/core/base/figures"
)

func TestFigures(t *testing.T) {
	figures.Check(t, "Steps of a wet-film comb", figures.Rows{"µm": Teeth})
}
