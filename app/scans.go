package app

import (
	"context"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/area"
	"allcoats/core/boat/outline"
	"allcoats/core/finish/fair"
	"allcoats/core/geometry/mesh"
	"allcoats/core/geometry/polygon"
	"allcoats/formats"
)

// ScannedFace is what a 3-D file shows of a surface against its own fair face: gaps on a grid, where
// the grid lies on the map, and how it was spaced, m.
type ScannedFace struct {
	Gaps     [][]*float64 `json:"gaps"`
	SpacingM float64      `json:"spacingM"`
	RowsM    float64      `json:"rowsM"`
	On       fair.Track   `json:"on"`
}

// scanCells is the most readings of a grid each way, scanLeastM the closest they lie, scanMM what a scan
// is read to.
const (
	scanCells  = 64
	scanLeastM = 0.05
	scanMM     = 0.05
)

// ScanModel reads gaps of a surface out of a 3-D file of the boat, such as a laser scan: how far its
// face lies under a fair one within a batten's length.
func (a *App) ScanModel(ctx context.Context, surfaceID, modelID string, battenM float64) (ScannedFace, error) {
	q := a.store.Read(ctx)
	row, err := q.Surface(ctx, surfaceID)
	if err != nil {
		return ScannedFace{}, err
	}
	m, err := q.Model(ctx, modelID)
	if err != nil {
		return ScannedFace{}, err
	}
	if m.BoatID != row.BoatID || m.Format == "offsets" {
		return ScannedFace{}, fielderr.At("modelId",
			"choose a 3-D file of this boat: a table of offsets is fair by itself")
	}
	survey, err := a.Survey(ctx, row.BoatID)
	if err != nil {
		return ScannedFace{}, err
	}
	var f Surface
	for _, s := range survey.Surfaces {
		if s.ID == surfaceID {
			f = s
		}
	}
	view, shape := face(survey.Views, f)
	if shape == nil {
		return ScannedFace{}, fielderr.At("modelId", "this surface has no place on the boat's outline")
	}
	data, err := q.ModelData(ctx, modelID)
	if err != nil {
		return ScannedFace{}, err
	}
	body, err := formats.ReadModel(m.Format, data)
	if err != nil {
		return ScannedFace{}, err
	}
	if body, err = body.Place(m.Placing.V); err != nil {
		return ScannedFace{}, err
	}
	return scanned(body, view, shape, battenM)
}

// face is the view on which a surface is seen, with its outline there.
func face(views []outline.View, f Surface) (string, polygon.Ring) {
	want := map[bool]string{true: outline.StarboardSide, false: outline.PortSide}[f.Side == area.Starboard]
	switch tilt := f.Tilt(f.Part); {
	case tilt < 45:
		want = outline.Plan
	case tilt > 135:
		want = outline.Under
	}
	for _, v := range views {
		for _, s := range v.Shapes {
			if v.Name == want && s.SurfaceID == f.ID {
				ring := make(polygon.Ring, len(s.Points))
				for i, p := range s.Points {
					ring[i] = polygon.Point{X: p.X, Y: p.Y}
				}
				return want, ring
			}
		}
	}
	return "", nil
}

// scanned lays a grid over an outline on a view, rows going down the drawing, and reads the mesh on it.
func scanned(body mesh.Mesh, view string, shape polygon.Ring, battenM float64) (ScannedFace, error) {
	lo, hi := polygon.Shape{{Outer: shape}}.Bounds()
	long, tall := hi.X-lo.X, hi.Y-lo.Y
	g := fair.Grid{DX: max(scanLeastM, long/(scanCells-1)), DY: max(scanLeastM, tall/(scanCells-1))}
	g.NX, g.NY = int(long/g.DX)+1, int(tall/g.DY)+1
	top, down := hi.Y, -1.0
	if !outline.Up(view) {
		top, down = lo.Y, 1
	}
	// The map has x from the aft end, the mesh where it was placed; to starboard its y is negative.
	aft := math.Inf(1)
	for _, v := range body.Vertices {
		aft = min(aft, v[0])
	}
	l := mesh.Lattice{U: 0, V: 2, Lo: [2]float64{lo.X + aft, top}, DU: g.DX, DV: down * g.DY, NX: g.NX, NY: g.NY}
	sign := 1.0
	switch view {
	case outline.StarboardSide:
		sign = -1
	case outline.Plan, outline.Under:
		l.V, l.Lo[1], l.DV = 1, -top, -g.DY
		if view == outline.Under {
			sign = -1
		}
	}
	heights := body.Heights(l, sign)
	for i := range heights {
		heights[i] *= 1000
		p := polygon.Point{X: lo.X + float64(i%g.NX)*g.DX, Y: top + down*float64(i/g.NX)*g.DY}
		if !shape.Contains(p) {
			heights[i] = math.NaN()
		}
	}
	gaps := g.Departures(heights, battenM)
	out := ScannedFace{SpacingM: g.DX, RowsM: g.DY, On: fair.Track{View: view, From: outline.Point{X: lo.X, Y: top},
		To: outline.Point{X: lo.X + float64(g.NX-1)*g.DX, Y: top}}}
	read := 0
	for y := range g.NY {
		row := make([]*float64, g.NX)
		for x := range g.NX {
			if v := gaps[y*g.NX+x]; !math.IsNaN(v) {
				v = math.Round(v/scanMM) * scanMM
				row[x] = &v
				read++
			}
		}
		out.Gaps = append(out.Gaps, row)
	}
	if read < 12 {
		return out, fielderr.At("modelId", "the file has nothing where this surface lies")
	}
	return out, nil
}
