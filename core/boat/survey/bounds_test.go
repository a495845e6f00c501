package survey

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
	"allcoats/core/boat/area"
)

func TestBoundsOfADefect(t *testing.T) {
	hours, litres := 1.0, 1.0
	bounds.Try(t, Defect{Kind: DefectKinds[0].Kind, State: DefectStates[0], Count: 1, Place: Place{View: walkOrder[0]},
		Hours: &hours, FillerL: &litres},
		Defect.Validate, map[string]bounds.Bound{
			"place.x": bounds.From(-200, 200), "place.y": bounds.From(-200, 200), "lengthMM": bounds.From(0, 20000),
			"widthMM": bounds.From(0, 20000), "depthMM": bounds.From(0, 500), "count": bounds.From(1, 5000),
			"hours": bounds.From(0, 1000), "fillerL": bounds.From(0, 1000)})
}

func TestBoundsOfFindings(t *testing.T) {
	f := Findings{Layers: []Layer{{Kind: LayerKinds[0], Soundness: Soundnesses[0], Um: 50},
		{Kind: LayerKinds[0], Soundness: Soundnesses[0], Um: 50}}, Moisture: []Moisture{{Pct: 12}}}
	bounds.Try(t, f, Findings.Validate, map[string]bounds.Bound{"layers[1].um": bounds.From(0, 50000),
		"stop": bounds.From(0, 2), "moisture[0].pct": bounds.From(0, 100), "veneerMM": bounds.From(0, 20)})
}

func TestBoundsOfADescription(t *testing.T) {
	tilt := 90.0
	d := Usual(area.Topsides, GRP)
	d.TiltDeg = &tilt
	bounds.Try(t, d, Description.Validate, map[string]bounds.Bound{"thicknessMM": bounds.From(0, 500),
		"tiltDeg": bounds.From(0, 180)})
}
