package app

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"allcoats/core/base/fault"
	"allcoats/core/base/say"
	"allcoats/core/boat/area"
	"allcoats/core/boat/outline"
	"allcoats/core/boat/survey"
	"allcoats/core/finish/craft"
	"allcoats/store"
)

// Surface is a part of a boat that is coated as one, with its area. Rough says
// that nothing better than principal dimensions was used.
type Surface struct {
	ID      string `json:"id"`
	Version int    `json:"version"`
	BoatID  string `json:"boatId"`
	SurfaceEdit
	Area      area.Assessment `json:"area"`
	Measuring Measuring       `json:"measuring"`
	// Better says what one more measurement would buy, if it is measured roughly.
	Better        say.Sentence   `json:"better,omitempty"`
	SubstrateName string         `json:"substrateName"`
	Cautions      []say.Sentence `json:"cautions"`
	// Crafts are the workbenches that suit it.
	Crafts      []string `json:"crafts"`
	OpenDefects int      `json:"openDefects"`
}

// accessFactor is how many times the hours of a flat surface it takes.
func (s Surface) accessFactor() float64 {
	for _, a := range survey.Accesses {
		if a.Key == s.Access {
			return a.Factor
		}
	}
	return 1
}

// edgeM is the length of its edges: of its outline if it is measured by one,
// else of a square of its area.
func (s Surface) edgeM() float64 {
	if m := s.Measured.Measures[s.Measured.Chosen]; m.Outline != nil && !s.Measured.Combine {
		if r, err := area.ByOutlines(area.OutlineRequest{Outline: *m.Outline}); err == nil {
			return r.EdgeLengthM * float64(max(1, m.Outline.Count))
		}
	}
	return 4 * math.Sqrt(s.Area.AreaM2)
}

// Measuring is how well a surface is measured.
type Measuring string

// How well a surface is measured.
const (
	Rough    Measuring = "rough"    // principal dimensions, or ± of 10 % and more
	Good     Measuring = "good"     // ± under 10 %
	Disagree Measuring = "disagree" // measurements differ by more than their ±
)

// SurfaceEdit is what a user can set of a surface.
type SurfaceEdit struct {
	Name string    `json:"name"`
	Part area.Part `json:"part"`
	Side area.Side `json:"side"`
	survey.Description
	Findings survey.Findings `json:"findings"`
	Measured area.Measured   `json:"measured"`
}

func (s SurfaceEdit) validate(b area.Boat) error {
	var bad fault.Errors
	if s.Name = strings.TrimSpace(s.Name); s.Name == "" {
		bad.Add("name", "give the surface a name")
	}
	parts := make([]area.Part, len(area.Parts))
	for i, p := range area.Parts {
		parts[i] = p.Part
	}
	fault.OneOf(&bad, "part", s.Part, parts)
	fault.OneOf(&bad, "side", s.Side, area.Sides)
	bad.Under("", s.Description.Validate())
	bad.Under("findings", s.Findings.Validate())
	_, err := b.Assess(s.Part, s.Side, s.Measured)
	bad.Under("measured", err)
	return bad.Err()
}

func (s SurfaceEdit) row(id string, version int, boatID string) store.Surface {
	return store.Surface{ID: id, Version: version, BoatID: boatID, Name: strings.TrimSpace(s.Name), Part: string(s.Part), Side: string(s.Side),
		Description: store.JSON[survey.Description]{V: s.Description}, Findings: store.JSON[survey.Findings]{V: s.Findings},
		Measured: store.JSON[area.Measured]{V: s.Measured}}
}

func editOf(r store.Surface) SurfaceEdit {
	f := r.Findings.V
	if f.Layers == nil {
		f.Layers = []survey.Layer{}
	}
	if f.Moisture == nil {
		f.Moisture = []survey.Moisture{}
	}
	return SurfaceEdit{r.Name, area.Part(r.Part), area.Side(r.Side), r.Description.V, f, r.Measured.V}
}

func surfaceOf(r store.Surface, b area.Boat) (Surface, error) {
	s := Surface{ID: r.ID, Version: r.Version, BoatID: r.BoatID, SurfaceEdit: editOf(r)}
	s.SubstrateName = s.SubstrateNote
	if s.SubstrateName == "" {
		s.SubstrateName = s.Substrate.Info().Name
	}
	s.Cautions, s.Crafts = s.Findings.Cautions(s.Substrate), craft.For(s.Part, s.Substrate)
	var err error
	if s.Area, err = b.Assess(s.Part, s.Side, s.Measured); err != nil {
		return s, fmt.Errorf("surface %s: %w", s.Name, err)
	}
	s.Better = s.Measured.Better(s.Part, s.Area.Figure, 0)
	switch m := s.Measured; {
	case len(s.Area.Disagreeing) > 0:
		s.Measuring = Disagree
	case s.Area.UncertaintyPct >= 10 || !m.Combine && m.Measures[m.Chosen].Method == area.ByPrincipal:
		s.Measuring = Rough
	default:
		s.Measuring = Good
	}
	return s, nil
}

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
	Says   say.Sentence `json:"says"`
	Detail say.Sentence `json:"detail"`
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
		out.Models[r.ID] = area.ModelAreas{Name: r.Name, Lofted: r.Format == "offsets", Areas: r.Result.V.Areas, Report: r.Result.V.Report}
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
	c := area.SetAgainst(area.WettedSurface(s.Boat.Dimensions, s.Boat.DisplacementT), s.Boat.Dimensions, bottom, measured)
	return &c
}

// Surface returns one surface.
func (a *App) Surface(ctx context.Context, id string) (Surface, error) {
	q := a.store.Read(ctx)
	r, err := q.Surface(ctx, id)
	if err != nil {
		return Surface{}, err
	}
	b, err := a.Boat(ctx, r.BoatID)
	if err != nil {
		return Surface{}, err
	}
	base, _, err := measurable(ctx, q, b)
	if err != nil {
		return Surface{}, err
	}
	return surfaceOf(r, base)
}

// PreviewSurface measures a surface as it would be; nothing is stored.
func (a *App) PreviewSurface(ctx context.Context, boatID string, e SurfaceEdit) (area.Assessment, error) {
	b, err := a.Boat(ctx, boatID)
	if err != nil {
		return area.Assessment{}, err
	}
	base, _, err := measurable(ctx, a.store.Read(ctx), b)
	if err != nil {
		return area.Assessment{}, err
	}
	out, err := base.Assess(e.Part, e.Side, e.Measured)
	var bad fault.Errors
	bad.Under("measured", err)
	return out, bad.Err()
}

// checkedSurface validates e against the boat it belongs to.
func checkedSurface(ctx context.Context, q store.Queries, boatID string, e SurfaceEdit) error {
	b, err := q.Boat(ctx, boatID)
	if err != nil {
		return err
	}
	base, _, err := measurable(ctx, q, boatOf(b))
	if err != nil {
		return err
	}
	return e.validate(base)
}

// AddSurface stores a new surface of a boat.
func (a *App) AddSurface(ctx context.Context, boatID string, e SurfaceEdit) (Surface, error) {
	return change(ctx, a, func(ctx context.Context) (Surface, error) {
		id := newID()
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if err := checkedSurface(ctx, q, boatID, e); err != nil {
				return err
			}
			return q.AddSurface(ctx, e.row(id, 1, boatID))
		})
		if err != nil {
			return Surface{}, err
		}
		return a.Surface(ctx, id)
	})
}

// EditSurface changes a surface.
func (a *App) EditSurface(ctx context.Context, id string, version int, e SurfaceEdit) (Surface, error) {
	return change(ctx, a, func(ctx context.Context) (Surface, error) {
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			old, err := q.Surface(ctx, id)
			if err != nil {
				return err
			}
			if err := checkedSurface(ctx, q, old.BoatID, e); err != nil {
				return err
			}
			return q.EditSurface(ctx, e.row(id, version, old.BoatID))
		})
		if err != nil {
			return Surface{}, stale(err, func() (Surface, error) { return a.Surface(ctx, id) })
		}
		return a.Surface(ctx, id)
	})
}

// RemoveSurface deletes a surface that has no logged coats; one that has is
// refused, so that no record is lost with it.
func (a *App) RemoveSurface(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		s, err := q.Surface(ctx, id)
		if err != nil {
			return err
		}
		log, err := q.BoatLog(ctx, s.BoatID)
		if err != nil {
			return err
		}
		if slices.ContainsFunc(log, func(e store.Entry) bool { return string(e.SurfaceID) == id && e.DeletedAt == nil }) {
			return InUse{[]string{"its log entries; delete those first"}}
		}
		return q.RemoveSurface(ctx, id)
	})
}

func fromTemplate(key string, substrate survey.Substrate) ([]SurfaceEdit, error) {
	if key == "" {
		return nil, nil
	}
	i := slices.IndexFunc(survey.Templates, func(t survey.Template) bool { return t.Key == key })
	if i < 0 {
		return nil, fault.At("template", "is no hull type that the program knows")
	}
	var out []SurfaceEdit
	for _, t := range survey.Templates[i].Surfaces {
		d := survey.Usual(t.Part, substrate)
		if err := d.Validate(); err != nil {
			return nil, err
		}
		out = append(out, SurfaceEdit{Name: t.Name, Part: t.Part, Side: t.Side, Description: d,
			Measured: area.Measured{Measures: []area.Measure{{Method: area.ByPrincipal}}}})
	}
	return out, nil
}

// AddTemplate adds the surfaces of a template that a boat does not have by
// name, and tells how many.
func (a *App) AddTemplate(ctx context.Context, boatID, template string, substrate survey.Substrate) (int, error) {
	return change(ctx, a, func(ctx context.Context) (int, error) {
		surfaces, err := fromTemplate(template, substrate)
		if err != nil {
			return 0, err
		}
		added := 0
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			old, err := q.Surfaces(ctx, boatID)
			if err != nil {
				return err
			}
			if _, err := q.Boat(ctx, boatID); err != nil {
				return err
			}
			for _, s := range surfaces {
				if slices.ContainsFunc(old, func(o store.Surface) bool { return o.Name == s.Name }) {
					continue
				}
				added++
				if err := q.AddSurface(ctx, s.row(newID(), 1, boatID)); err != nil {
					return err
				}
			}
			return nil
		})
		return added, err
	})
}

// copySteps gives a surface the planned coats of another.
func copySteps(ctx context.Context, q store.Queries, from store.Surface, to string) error {
	steps, err := q.BoatSteps(ctx, from.BoatID)
	if err != nil {
		return err
	}
	var own []store.Step
	for _, s := range steps {
		if s.SurfaceID == from.ID {
			s.ID = newID()
			own = append(own, s)
		}
	}
	if len(own) == 0 {
		return nil
	}
	return q.SetSteps(ctx, to, 1, own)
}

// SplitSurface takes pct per cent of a surface into a new one of that name
// behind it, with the same description, measurements, old layers and planned
// coats. What was logged stays with the first.
func (a *App) SplitSurface(ctx context.Context, id string, version int, pct float64, name string) (Surface, error) {
	return change(ctx, a, func(ctx context.Context) (Surface, error) {
		var bad fault.Errors
		bad.Range("pct", pct, 1, 99, "%")
		if name = strings.TrimSpace(name); name == "" {
			bad.Add("name", "give the new surface a name")
		}
		if err := bad.Err(); err != nil {
			return Surface{}, err
		}
		made := newID()
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			old, err := q.Surface(ctx, id)
			if err != nil {
				return err
			}
			first := old
			first.Version = version
			share := old.Measured.V.SharePct
			if share == 0 {
				share = 100
			}
			first.Measured.V.SharePct = share * (100 - pct) / 100
			if err := q.EditSurface(ctx, first); err != nil {
				return err
			}
			second := old
			second.ID, second.Name, second.Position = made, name, old.Position+1
			second.Measured.V.SharePct = share * pct / 100
			if err := q.AddSurface(ctx, second); err != nil {
				return err
			}
			return copySteps(ctx, q, old, made)
		})
		if err != nil {
			return Surface{}, stale(err, func() (Surface, error) { return a.Surface(ctx, id) })
		}
		return a.Surface(ctx, made)
	})
}

// DuplicateSurface copies a surface with its planned coats, to the other side
// if it has one.
func (a *App) DuplicateSurface(ctx context.Context, id string) (Surface, error) {
	return change(ctx, a, func(ctx context.Context) (Surface, error) {
		made := newID()
		err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			old, err := q.Surface(ctx, id)
			if err != nil {
				return err
			}
			twin := old
			twin.ID, twin.Position = made, old.Position+1
			side := area.Side(old.Side)
			twin.Side = string(side.Opposite())
			if twin.Name = strings.Replace(old.Name, string(side), twin.Side, 1); side == area.Both || twin.Name == old.Name {
				twin.Name = old.Name + ", " + map[area.Side]string{area.Both: "copy", area.Port: "starboard", area.Starboard: "port"}[side]
			}
			if f := old.Description.V.Facing; f == "port" || f == "starboard" {
				twin.Description.V.Facing = string(area.Side(f).Opposite())
			}
			if err := q.AddSurface(ctx, twin); err != nil {
				return err
			}
			return copySteps(ctx, q, old, made)
		})
		if err != nil {
			return Surface{}, err
		}
		return a.Surface(ctx, made)
	})
}

// OrderSurfaces puts a boat's surfaces into the order of ids, which must name
// each of them once.
func (a *App) OrderSurfaces(ctx context.Context, boatID string, ids []string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		rows, err := q.Surfaces(ctx, boatID)
		if err != nil {
			return err
		}
		have := make([]string, len(rows))
		for i, r := range rows {
			have[i] = r.ID
		}
		slices.Sort(have)
		if !slices.Equal(have, slices.Sorted(slices.Values(ids))) {
			return fault.At("ids", "must name every surface of the boat once: reload, one was added or deleted")
		}
		for i, id := range ids {
			if err := q.PlaceSurface(ctx, id, i+1); err != nil {
				return err
			}
		}
		return nil
	})
}
