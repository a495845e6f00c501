package app

import (
	"context"
	"math"
	"strings"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/geometry/mesh"
	"allcoats/core/geometry/polygon"
	"allcoats/formats"
	"allcoats/store"
)

// Model is a 3-D file or table of offsets of a boat or a part of her, as
// measured.
type Model struct {
	ID      string `json:"id"`
	Version int    `json:"version"`
	Format  string `json:"format"`
	ModelEdit
	Areas    mesh.Areas     `json:"areas"`
	Report   mesh.Report    `json:"report"`
	Findings []string       `json:"findings"`
	Stations []mesh.Station `json:"stations"`
}

// ModelEdit is what a user can set of a model. Draws lets the boat's map be
// drawn from it.
type ModelEdit struct {
	Name  string `json:"name"`
	Draws bool   `json:"draws"`
	// Sure answers what is asked about a size or axes that do not suit the boat; it is not kept.
	Sure bool `json:"sure,omitempty"`
	mesh.Placing
}

// drawStations is at how many stations a model is cut for the map.
const drawStations = 41

func modelOf(r store.Model) Model {
	v := r.Result.V
	if v.Areas.Groups == nil {
		v.Areas.Groups = map[string]float64{}
	}
	return Model{r.ID, r.Version, r.Format, ModelEdit{Name: r.Name, Draws: r.Draws, Placing: r.Placing.V}, v.Areas,
		v.Report, v.Report.Findings(r.Format == "offsets"), v.Stations}
}

// measure reads a model's file as placed on a boat.
func (e ModelEdit) measure(format string, data []byte, boat area.Dimensions) (store.ModelResult, error) {
	if strings.TrimSpace(e.Name) == "" {
		return store.ModelResult{}, fielderr.At("name", "give it a name")
	}
	if err := e.Placing.Validate(); err != nil {
		return store.ModelResult{}, err
	}
	m, err := formats.ReadModel(format, data)
	if err != nil {
		return store.ModelResult{}, err
	}
	if m, err = m.Place(e.Placing); err != nil {
		return store.ModelResult{}, err
	}
	m, report := m.Clean()
	if !e.Sure {
		if err := report.Doubts(e.Placing, boat.LOAM, boat.BeamM, e.Draws); err != nil {
			return store.ModelResult{}, err
		}
	}
	return store.ModelResult{Areas: m.Areas(e.BootTopM), Report: report, Stations: m.Stations(drawStations)}, nil
}

func (e ModelEdit) row(id string, version int, boatID, format string, r store.ModelResult) store.Model {
	return store.Model{ID: id, Version: version, BoatID: boatID, Name: strings.TrimSpace(e.Name), Format: format,
		Placing: store.JSON[mesh.Placing]{V: e.Placing}, Draws: e.Draws, Result: store.JSON[store.ModelResult]{V: r}}
}

// Model returns one model.
func (a *App) Model(ctx context.Context, id string) (Model, error) {
	r, err := a.store.Read(ctx).Model(ctx, id)
	return modelOf(r), err
}

// AddModel measures and stores a model of a boat.
func (a *App) AddModel(ctx context.Context, boatID, format string, e ModelEdit, data []byte) (Model, error) {
	return change(ctx, a, func(ctx context.Context) (Model, error) {
		boat, err := a.Boat(ctx, boatID)
		if err != nil {
			return Model{}, err
		}
		result, err := e.measure(format, data, boat.Dimensions)
		if err != nil {
			return Model{}, err
		}
		id := newID()
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if e.Draws {
				if err := q.OnlyDraws(ctx, boatID, id); err != nil {
					return err
				}
			}
			return q.AddModel(ctx, e.row(id, 1, boatID, format, result), data)
		})
		if err != nil {
			return Model{}, err
		}
		return a.Model(ctx, id)
	})
}

// EditModel changes how a model lies on the boat, and measures it anew. A
// change that leaves a surface without the area that it is measured by is
// refused.
func (a *App) EditModel(ctx context.Context, id string, version int, e ModelEdit) (Model, error) {
	return change(ctx, a, func(ctx context.Context) (Model, error) {
		q := a.store.Read(ctx)
		old, err := q.Model(ctx, id)
		if err != nil {
			return Model{}, err
		}
		data, err := q.ModelData(ctx, id)
		if err != nil {
			return Model{}, err
		}
		boat, err := a.Boat(ctx, old.BoatID)
		if err != nil {
			return Model{}, err
		}
		result, err := e.measure(old.Format, data, boat.Dimensions)
		if err != nil {
			return Model{}, err
		}
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if e.Draws {
				if err := q.OnlyDraws(ctx, old.BoatID, id); err != nil {
					return err
				}
			}
			if err := q.EditModel(ctx, e.row(id, version, old.BoatID, old.Format, result)); err != nil {
				return err
			}
			if _, err := loadSurvey(ctx, q, old.BoatID); err != nil {
				return fielderr.At("waterlineM", "so placed it no longer gives an area in use: %v", err)
			}
			return nil
		})
		if err != nil {
			return Model{}, stale(err, func() (Model, error) { return a.Model(ctx, id) })
		}
		return a.Model(ctx, id)
	})
}

// RemoveModel deletes a model that no surface is measured by; else it is InUse.
func (a *App) RemoveModel(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		m, err := q.Model(ctx, id)
		if err != nil {
			return err
		}
		rows, err := q.Surfaces(ctx, m.BoatID)
		if err != nil {
			return err
		}
		var by []string
		for _, s := range rows {
			for _, one := range s.Measured.V.Measures {
				if one.Model != nil && one.Model.ModelID == id {
					by = append(by, s.Name)
					break
				}
			}
		}
		if len(by) > 0 {
			return InUse{by}
		}
		return q.RemoveModel(ctx, id)
	})
}

// Drawing is the closed shapes of an outline file, the largest first.
type Drawing struct {
	Rings []DrawnRing `json:"rings"`
}

// DrawnRing is a closed shape with its area, m².
type DrawnRing struct {
	Ring    polygon.Ring `json:"ring"`
	AreaM2  float64      `json:"areaM2"`
	WidthM  float64      `json:"widthM"`
	HeightM float64      `json:"heightM"`
}

// ReadDrawing reads an outline file, svg or dxf; unitM is the size of its unit
// where it does not say. Nothing is stored.
func (a *App) ReadDrawing(format string, unitM float64, data []byte) (Drawing, error) {
	var rings []polygon.Ring
	var err error
	switch format {
	case "svg":
		rings, err = formats.ReadSVG(data, unitM)
	case "dxf":
		rings, err = formats.ReadDXF(data, unitM)
	default:
		err = fielderr.At("format", "must be svg or dxf")
	}
	if err != nil {
		return Drawing{}, err
	}
	out := Drawing{Rings: []DrawnRing{}}
	var reason error
	for _, r := range rings {
		p := polygon.Polygon{Outer: r}
		if err := p.Validate(); err != nil {
			reason = err
			continue
		}
		d := DrawnRing{Ring: r, AreaM2: p.Area()}
		lo, hi := r[0], r[0]
		for _, c := range r {
			lo = polygon.Point{X: min(lo.X, c.X), Y: min(lo.Y, c.Y)}
			hi = polygon.Point{X: max(hi.X, c.X), Y: max(hi.Y, c.Y)}
		}
		d.WidthM, d.HeightM = hi.X-lo.X, hi.Y-lo.Y
		out.Rings = append(out.Rings, d)
	}
	if len(out.Rings) == 0 {
		var bad fielderr.Errors
		bad.Under("file", reason)
		return Drawing{}, bad
	}
	sortBy(out.Rings, func(d DrawnRing) float64 { return -d.AreaM2 })
	for i := range out.Rings {
		for k, c := range out.Rings[i].Ring { // to a tenth of a millimetre
			out.Rings[i].Ring[k] = polygon.Point{X: math.Round(c.X*1e4) / 1e4, Y: math.Round(c.Y*1e4) / 1e4}
		}
	}
	return out, nil
}
