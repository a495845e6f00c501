package survey

import (
	"fmt"
	"slices"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/outline"
)

// HardLine is a line of a surface that is meant to be sharp, drawn on the map: nothing is faired
// across it.
type HardLine struct {
	Kind   string          `json:"kind" enum:"knuckle,chine,edge,corner"`
	View   string          `json:"view"`
	Points []outline.Point `json:"points"`
}

// HardLineKinds lists the kinds.
var HardLineKinds = []string{"knuckle", "chine", "edge", "corner"}

const mostHardLines = 50

func hardLines(bad *fielderr.Errors, lines []HardLine) {
	if len(lines) > mostHardLines {
		bad.Add("hardLines", "at most %d are kept", mostHardLines)
	}
	for i, l := range lines {
		at := fmt.Sprintf("hardLines[%d].", i)
		fielderr.OneOf(bad, at+"kind", l.Kind, HardLineKinds)
		OnMap(bad, at+"view", l.View)
		if len(l.Points) < 2 || len(l.Points) > 200 {
			bad.Add(at+"points", "a line has two points or more")
		}
	}
}

// OnMap reports a view that the map has not.
func OnMap(bad *fielderr.Errors, path, view string) {
	if !slices.Contains(walkOrder, view) {
		bad.Add(path, "choose a place on the map")
	}
}
