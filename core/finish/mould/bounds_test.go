package mould

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	bounds.Try(t, one(nil), Work.Validate, map[string]bounds.Bound{
		"sourceLengthM": bounds.Above(0, 20), "sourceWidthM": bounds.Above(0, 20), "casts": bounds.From(1, 6),
		"trimM": bounds.From(0, 0.3), "moulds": bounds.From(1, 20), "gelUm": bounds.From(200, 1500),
		"fillerMM": bounds.From(0, 10), "tempC": bounds.From(0, 45), "bondMM": bounds.From(0.5, 20),
		"plies[0].gsm": bounds.From(50, 1200), "panels[0].lengthM": bounds.Above(0, 50), "panels[0].widthM": bounds.Above(0, 50),
	})
	large := one(func(w *Work) { w.Panels[0] = Panel{"S1", 1, 50, 50} })
	bounds.Try(t, large, Work.Validate, map[string]bounds.Bound{"panels[0].areaM2": bounds.Above(0, 100)})
}
