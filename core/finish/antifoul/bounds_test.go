package antifoul

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	worn := 20.0
	bounds.Try(t, Work{Coats: 2, Old: "primed", Seasons: 1, WearUm: &worn, Zones: []Zone{{Name: "all", AreaM2: 10}}},
		Work.Validate, map[string]bounds.Bound{
			"coats": bounds.From(1, 10), "zones[0].areaM2": bounds.Above(0, 2000), "zones[0].extra": bounds.From(0, 8),
			"habit": bounds.From(0, 10), "nm": bounds.From(0, 50000), "seasons": bounds.From(0.5, 10),
			"wearUm": bounds.From(0, 2000),
		})
}
