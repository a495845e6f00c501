package nonskid

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	margin := 0.02
	work := half(func(w *Work) {
		w.Fittings = []Fitting{{Name: "hatch", Kind: FittingKinds[0].Key, LengthM: 0.5, WidthM: 0.5, MarginM: &margin}}
		w.Splits = []Split{{X1: 1, X2: 1, Y2: 1, WidthM: 0.03}}
		w.Stencil = &Stencil{Text: "A", HeightM: 0.2, BridgeM: 0.01}
		w.Laid = map[string]float64{"S1": 0.5}
		w.Texture.Tool, w.Texture.DepthMM, w.Texture.WidthMM, w.Texture.PitchMM = Square, 2, 3, 100
	})
	bounds.Try(t, work, Work.Validate, map[string]bounds.Bound{
		"edgeM": bounds.From(0, 1), "openingM": bounds.From(0, 1), "outsideRM": bounds.From(0, 0.5),
		"insideRM": bounds.From(0, 0.5), "tapeMM": bounds.From(3, 100), "rateM2H": bounds.Above(0, 100),
		"fittings[0].x": bounds.From(-1000, 1000), "fittings[0].y": bounds.From(-1000, 1000),
		"fittings[0].turnDeg": bounds.From(-360, 360), "fittings[0].marginM": bounds.From(0, 1),
		"fittings[0].lengthM": bounds.Above(0, 20), "fittings[0].widthM": bounds.Above(0, 20),
		"splits[0].x1": bounds.From(-1000, 1000), "splits[0].y2": bounds.From(-1000, 1000),
		"splits[0].widthM": bounds.From(0.002, 1), "stencil.x": bounds.From(-1000, 1000),
		"stencil.y": bounds.From(-1000, 1000), "stencil.heightM": bounds.From(0.02, 5),
		"stencil.bridgeM": bounds.From(0.001, 0.1), "laid.S1": bounds.From(0, 1000), "texture.wastePct": bounds.From(0, 60),
		"texture.depthMM": bounds.Above(0, 20), "texture.widthMM": bounds.Above(0, 50),
		"texture.pitchMM": bounds.From(3, 100),
	})
	work.School, work.Sheet = Mats, Sheet{LengthM: 1, WidthM: 1}
	bounds.Try(t, work, Work.Validate, map[string]bounds.Bound{"sheet.lengthM": bounds.Above(0, 50),
		"sheet.widthM": bounds.Above(0, 50), "sheet.spaceM": bounds.From(0, 0.5)})
}
