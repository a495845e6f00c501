package logbook

import (
	"fmt"

	"allcoats/core/base/fielderr"
)

// Held is how a finish held, by what is wrong with it, empty for nothing: 0 nothing, 1 a little, 2 some, 3 much, 4
// gone.
type Held map[Wear]int

// Wear is a way in which a finish goes.
type Wear string

// WearKind is one with its looks at the least and at the most. Above is of finishes that are no
// antifouling, Below of antifouling.
type WearKind struct {
	Wear  Wear   `json:"wear"`
	Name  string `json:"name"`
	First string `json:"first"`
	Last  string `json:"last"`
	Above bool   `json:"above"`
	Below bool   `json:"below"`
}

// Wears lists the ways in which a finish goes.
var Wears = []WearKind{
	{"gloss", "gloss", "a little dull", "no gloss left", true, false},
	{"chalk", "chalk", "a hand comes away faintly white", "it chalks off at a touch", true, false},
	{"cracks", "cracks", "hairlines at edges and joints", "cracked all over", true, false},
	{"flaking", "flaking", "a flake lifts at an edge", "it comes off in sheets", true, true},
	{"worn", "worn through", "thin at corners", "bare in places", true, true},
	{"fouling", "fouling", "slime that wipes off", "shell and weed", false, true},
	{"blisters", "blisters", "a few, small", "many, or as big as a coin", true, true},
}

// gone is the worst grade.
const gone = 4

// Worst is the grade of the worst of it.
func (h Held) Worst() (worst int) {
	for _, g := range h {
		worst = max(worst, g)
	}
	return worst
}

func (h Held) validate(wanted bool, bad *fielderr.Errors) {
	if wanted && h == nil {
		bad.Add("held", "say how it held")
	}
	for wear, g := range h {
		known := false
		for _, k := range Wears {
			known = known || k.Wear == wear
		}
		path := fmt.Sprintf("held.%s", wear)
		if !known {
			bad.Add(path, "is no way in which a finish goes")
		}
		bad.Range(path, float64(g), 0, gone, "of 4")
	}
}
