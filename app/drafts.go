package app

import (
	"fmt"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/boat/outline"
	"allcoats/core/boat/survey"
)

// DraftBoat is a boat that is being described: what was guessed of her, her drawing and her surfaces.
type DraftBoat struct {
	Dimensions area.Dimensions `json:"dimensions"`
	// GuessedPct is the ± of each dimension that was guessed, %.
	GuessedPct map[string]float64 `json:"guessedPct"`
	Template   string             `json:"template"`
	Views      []outline.View     `json:"views"`
	Surfaces   []DraftSurface     `json:"surfaces"`
}

// DraftSurface is a surface that she will have; its id is of this draft alone.
type DraftSurface struct {
	ID             string    `json:"id"`
	Name           string    `json:"name"`
	Part           area.Part `json:"part"`
	AreaM2         float64   `json:"areaM2"`
	UncertaintyPct float64   `json:"uncertaintyPct"`
}

// DrawBoat fills in what is guessed of dimensions, and draws her. Nothing is stored.
func DrawBoat(d area.Dimensions, template string, substrate survey.Substrate) (DraftBoat, error) {
	d = d.Filled()
	if template == UsualTemplate {
		template = survey.TemplateFor(d.HullForm, substrate)
	}
	out := DraftBoat{Dimensions: d, GuessedPct: map[string]float64{}, Template: template, Surfaces: []DraftSurface{}}
	var bad fielderr.Errors
	bad.Under("dimensions", d.Validate())
	surfaces, err := fromTemplate(template, substrate)
	bad.Under("", err)
	if err := bad.Err(); err != nil {
		return out, err
	}
	for _, f := range d.Guessed {
		out.GuessedPct[f] = area.GuessedPct()[f]
	}
	placed := make([]outline.Surface, len(surfaces))
	for i, s := range surfaces {
		f, err := area.Boat{Dimensions: d}.Of(s.Part, s.Side, s.Measured.Measures[0])
		if err != nil {
			return out, err
		}
		id := fmt.Sprint(i)
		out.Surfaces = append(out.Surfaces, DraftSurface{id, s.Name, s.Part, f.AreaM2, f.UncertaintyPct})
		placed[i] = outline.Surface{ID: id, Part: s.Part, Side: s.Side, AreaM2: f.AreaM2}
	}
	out.Views = outline.Map(outline.FromDimensions(d), placed)
	return out, nil
}
