package app

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/boat/area"
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
	Better        message.Sentence   `json:"better,omitempty"`
	SubstrateName string             `json:"substrateName"`
	Cautions      []message.Sentence `json:"cautions"`
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
	var bad fielderr.Errors
	if s.Name = strings.TrimSpace(s.Name); s.Name == "" {
		bad.Add("name", "give the surface a name")
	}
	parts := make([]area.Part, len(area.Parts))
	for i, p := range area.Parts {
		parts[i] = p.Part
	}
	fielderr.OneOf(&bad, "part", s.Part, parts)
	fielderr.OneOf(&bad, "side", s.Side, area.Sides)
	bad.Under("", s.Description.Validate())
	bad.Under("findings", s.Findings.Validate())
	_, err := b.Assess(s.Part, s.Side, s.Measured)
	bad.Under("measured", err)
	return bad.Err()
}

func (s SurfaceEdit) row(id string, version int, boatID string) store.Surface {
	return store.Surface{ID: id, Version: version, BoatID: boatID, Name: strings.TrimSpace(s.Name),
		Part: string(s.Part), Side: string(s.Side),
		Description: store.JSON[survey.Description]{V: s.Description},
		Findings:    store.JSON[survey.Findings]{V: s.Findings},
		Measured:    store.JSON[area.Measured]{V: s.Measured}}
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
	var bad fielderr.Errors
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
		if slices.ContainsFunc(log, func(e store.Entry) bool {
			return string(e.SurfaceID) == id && e.DeletedAt == nil
		}) {
			return InUse{[]string{"its log entries; delete those first"}}
		}
		return q.RemoveSurface(ctx, id)
	})
}
