package app

import (
	"context"
	"slices"

	"allcoats/core/base/message"
	"allcoats/core/boat/area"
	"allcoats/core/boat/outline"
	"allcoats/core/boat/survey"
	"allcoats/store"
)

// Survey is a boat with her place, her surfaces, what was found on her, and
// her drawing.
type Survey struct {
	Boat     Boat           `json:"boat"`
	Place    Place          `json:"place"`
	Surfaces []Surface      `json:"surfaces"`
	Models   []Model        `json:"models"`
	Defects  []Defect       `json:"defects"`
	Views    []outline.View `json:"views"`
	// DrawnFrom says what the drawing rests on.
	DrawnFrom string `json:"drawnFrom"`
	// Says and Detail are what to measure or mend first.
	Says   message.Sentence `json:"says"`
	Detail message.Sentence `json:"detail"`
	// FairFirst is the surface that Fairing opens on: gaps were read on it, or lows wait there.
	FairFirst string `json:"fairFirst"`
	// BenchFirst is the finish that Finishes opens on, by its key: one that work is kept of, else the
	// usual of what she is made of; empty if no surface suits any.
	BenchFirst string           `json:"benchFirst"`
	CrossCheck *area.CrossCheck `json:"crossCheck,omitempty"`
}

// Survey returns a boat as surveyed.
func (a *App) Survey(ctx context.Context, boatID string) (Survey, error) {
	q := a.store.Read(ctx)
	out, err := loadSurvey(ctx, q, boatID)
	if err != nil {
		return Survey{}, err
	}
	read, err := q.FairedSurfaces(ctx, boatID)
	if err != nil {
		return Survey{}, err
	}
	out.FairFirst = out.fairFirst(read)
	kept, err := q.BoatFinishes(ctx, boatID)
	if err != nil {
		return Survey{}, err
	}
	crafts := make([]string, len(kept))
	for i, f := range kept {
		crafts[i] = f.Craft
	}
	out.BenchFirst = out.benchFirst(crafts)
	return out, nil
}

// measurable loads what measurements of a boat rest on.
func measurable(ctx context.Context, q store.Queries, b Boat) (area.Boat, []Model, error) {
	rows, err := q.Models(ctx, b.ID)
	out := area.Boat{Dimensions: b.Dimensions, Models: map[string]area.ModelAreas{}}
	models := make([]Model, len(rows))
	for i, r := range rows {
		models[i] = modelOf(r)
		out.Models[r.ID] = area.ModelAreas{Name: r.Name, Lofted: r.Format == "offsets", Areas: r.Result.V.Areas,
			Report: r.Result.V.Report}
	}
	return out, models, err
}

func loadSurvey(ctx context.Context, q store.Queries, boatID string) (Survey, error) {
	b, err := q.Boat(ctx, boatID)
	if err != nil {
		return Survey{}, err
	}
	p, err := q.Place(ctx, b.PlaceID)
	if err != nil {
		return Survey{}, err
	}
	rows, err := q.Surfaces(ctx, boatID)
	if err != nil {
		return Survey{}, err
	}
	out := Survey{Boat: boatOf(b), Place: placeOf(p), Surfaces: make([]Surface, len(rows)), DrawnFrom: "her dimensions"}
	base, models, err := measurable(ctx, q, out.Boat)
	if err != nil {
		return Survey{}, err
	}
	out.Models = models
	for i, r := range rows {
		if out.Surfaces[i], err = surfaceOf(r, base); err != nil {
			return Survey{}, err
		}
	}
	if out.Defects, err = defects(ctx, q, boatID); err != nil {
		return Survey{}, err
	}
	for _, d := range out.Defects {
		for i := range out.Surfaces {
			if out.Surfaces[i].ID == d.SurfaceID && d.Repair.Open {
				out.Surfaces[i].OpenDefects++
			}
		}
	}
	profile := outline.FromDimensions(out.Boat.Dimensions)
	for _, m := range models {
		if m.Draws && len(m.Stations) > 2 {
			profile = outline.FromStations(m.Stations, out.Boat.Dimensions)
			out.DrawnFrom = m.Name
		}
	}
	placed := make([]outline.Surface, len(out.Surfaces))
	for i, s := range out.Surfaces {
		placed[i] = outline.Surface{ID: s.ID, Part: s.Part, Side: s.Side, AreaM2: s.Area.AreaM2}
	}
	out.Views = outline.Map(profile, placed)
	out.CrossCheck = crossCheck(out)
	out.Says, out.Detail = out.says()
	return out, nil
}

// fairFirst is the surface with the newest gaps, else one with lows to fill, else a side.
func (s Survey) fairFirst(read []string) string {
	if len(read) > 0 {
		return read[0]
	}
	for _, d := range s.Defects {
		if d.Kind == "low" && d.Repair.Open {
			return d.SurfaceID
		}
	}
	for _, f := range s.Surfaces {
		if f.Part == area.Topsides {
			return f.ID
		}
	}
	if len(s.Surfaces) > 0 {
		return s.Surfaces[0].ID
	}
	return ""
}

// benchFirst is the finish to begin with.
func (s Survey) benchFirst(kept []string) string {
	suits := func(key string) bool {
		return slices.ContainsFunc(s.Surfaces, func(f Surface) bool { return slices.Contains(f.Crafts, key) })
	}
	var made survey.SubstrateInfo
	for _, f := range s.Surfaces {
		if f.Part == area.Topsides || f.Part == area.Bottom {
			made = f.Substrate.Info()
			break
		}
	}
	usual := []string{"antifouling", "gelcoat", "non-skid"}
	switch {
	case made.Metal:
		usual = []string{"metal", "antifouling"}
	case made.Wood:
		usual = []string{"brightwork", "antifouling"}
	}
	for _, key := range append(kept, usual...) {
		if suits(key) && key != "moulded" {
			return key
		}
	}
	return ""
}

// crossCheck sets the bottom of both sides against formulas for the wetted surface.
func crossCheck(s Survey) *area.CrossCheck {
	var bottom area.Figure
	sides, measured := 0, false
	for _, f := range s.Surfaces {
		if f.Part != area.Bottom {
			continue
		}
		bottom.AreaM2 += f.Area.AreaM2
		measured = measured || f.Measuring != Rough
		sides |= map[area.Side]int{area.Port: 1, area.Starboard: 2, area.Both: 3}[f.Side]
	}
	if sides != 3 {
		return nil
	}
	c := area.SetAgainst(area.WettedSurface(s.Boat.Dimensions, s.Boat.DisplacementT), s.Boat.Dimensions, bottom,
		measured)
	return &c
}
