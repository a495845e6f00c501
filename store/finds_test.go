package store

import (
	"bytes"
	"context"
	"testing"
	"time"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/geometry/mesh"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// yard is a store with a place, a boat and two surfaces of hers.
func yard(t *testing.T) *Store {
	s := open(t)
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		require.NoError(t, q.AddPlace(ctx, Place{ID: "p", Name: "Quay", TimeZone: "UTC", WeatherSource: "imported"}))
		require.NoError(t, q.AddBoat(ctx, Boat{ID: "b", PlaceID: "p", Name: "Tern", DisplacementT: 2.5}))
		for _, id := range []string{"deck", "hull"} {
			require.NoError(t, q.AddSurface(ctx, Surface{ID: id, BoatID: "b", Name: id, Part: "deck", Side: "both",
				Measured: JSON[area.Measured]{area.Measured{Measures: []area.Measure{{Method: area.ByPrincipal}}}}}))
		}
		return nil
	}))
	return s
}

func names(t *testing.T, s *Store) (out []string) {
	rows, err := s.Read(ctx).Surfaces(ctx, "b")
	require.NoError(t, err)
	for _, r := range rows {
		out = append(out, r.Name)
	}
	return out
}

func TestSurfacesKeepTheirOrder(t *testing.T) {
	s := yard(t)
	assert.Equal(t, []string{"deck", "hull"}, names(t, s))
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		if err := q.AddSurface(ctx, Surface{ID: "rail", BoatID: "b", Name: "rail", Position: 2}); err != nil {
			return err
		}
		return q.AddSurface(ctx, Surface{ID: "last", BoatID: "b", Name: "last"})
	}))
	assert.Equal(t, []string{"deck", "rail", "hull", "last"}, names(t, s))
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		return q.PlaceSurface(ctx, "last", 0)
	}))
	assert.Equal(t, []string{"last", "deck", "rail", "hull"}, names(t, s))
	b, err := s.Read(ctx).Boat(ctx, "b")
	require.NoError(t, err)
	assert.Equal(t, 2.5, b.DisplacementT)
}

func TestModelRoundTrip(t *testing.T) {
	s := yard(t)
	m := Model{ID: "m", Version: 1, BoatID: "b", Name: "Hull", Format: "stl", Draws: true,
		Placing: JSON[mesh.Placing]{mesh.Placing{Unit: "mm", Up: "+z", Forward: "-x", WaterlineM: 0.4}},
		Result: JSON[ModelResult]{
			ModelResult{Areas: mesh.Areas{TotalM2: 12,
				Zones: map[mesh.Zone]mesh.Half{mesh.Bottom: {PortM2: 3, StarboardM2: 4}}},
				Report: mesh.Report{Facets: 7}, Stations: []mesh.Station{{XM: 1, KeelM: -0.5}}}}}
	file := bytes.Repeat([]byte{0, 1, 255}, 1000)
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.AddModel(ctx, m, file) }))
	got, err := s.Read(ctx).Models(ctx, "b")
	require.NoError(t, err)
	assert.Equal(t, []Model{m}, got)
	data, err := s.Read(ctx).ModelData(ctx, "m")
	require.NoError(t, err)
	assert.Equal(t, file, data)

	other := m
	other.ID = "n"
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		require.NoError(t, q.AddModel(ctx, other, []byte{}))
		return q.OnlyDraws(ctx, "b", "n")
	}))
	got, err = s.Read(ctx).Models(ctx, "b")
	require.NoError(t, err)
	assert.Equal(t, []bool{false, true}, []bool{got[0].Draws, got[1].Draws})
	m.Name = "Shell"
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.EditModel(ctx, m) }))
	assert.ErrorIs(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.EditModel(ctx, m) }), ErrStale)
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.RemoveModel(ctx, "m") }))
	_, err = s.Read(ctx).ModelData(ctx, "m")
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestDefectsAndPhotosRoundTrip(t *testing.T) {
	s := yard(t)
	d := Defect{ID: "d", Version: 1, SurfaceID: "deck", FoundAt: 1_000,
		Defect: JSON[survey.Defect]{survey.Defect{Kind: "void", Count: 2, State: "found",
			Place: survey.Place{View: "plan", X: 1, Y: -0.5}}}}
	photo := Photo{ID: "f", DefectID: "d", TakenAt: 2_000, Width: 4, Height: 3}
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		require.NoError(t, q.AddDefect(ctx, d))
		return q.AddPhoto(ctx, photo, []byte("jpeg"))
	}))
	defects, err := s.Read(ctx).BoatDefects(ctx, "b")
	require.NoError(t, err)
	assert.Equal(t, []Defect{d}, defects)
	photos, err := s.Read(ctx).BoatPhotos(ctx, "b")
	require.NoError(t, err)
	assert.Equal(t, []Photo{photo}, photos)
	jpeg, err := s.Read(ctx).PhotoJPEG(ctx, "f")
	require.NoError(t, err)
	assert.Equal(t, []byte("jpeg"), jpeg)

	d.SurfaceID = "hull"
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.EditDefect(ctx, d) }))
	moved, err := s.Read(ctx).Defect(ctx, "d")
	require.NoError(t, err)
	assert.Equal(t, "hull", moved.SurfaceID)
	assert.Equal(t, 2, moved.Version)
	// With the surface go its defects and their photos.
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.RemoveSurface(ctx, "hull") }))
	_, err = s.Read(ctx).PhotoJPEG(ctx, "f")
	assert.ErrorIs(t, err, ErrNotFound)
	assert.ErrorIs(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		return q.RemoveDefect(ctx, "d")
	}), ErrNotFound)
	assert.Error(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		return q.AddDefect(ctx, d)
	}), "no such surface any more")
}

func TestLogKeepsWhatWasSandedOff(t *testing.T) {
	s := yard(t)
	e := Entry{ID: "e", Version: 1, BoatID: "b", SurfaceID: "deck", Kind: "sand", StartedAt: 5, Grit: 120,
		RemovedUm: 35, WetUm: JSON[[]float64]{[]float64{}}}
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error { return q.AddEntry(ctx, e) }))
	got, err := s.Read(ctx).Entry(ctx, "e")
	require.NoError(t, err)
	assert.Equal(t, e, got)
	e.RemovedUm = 40
	require.NoError(t, s.Write(ctx, func(ctx context.Context, q Queries) error {
		return q.EditEntry(ctx, e, time.Unix(0, 0))
	}))
	got, err = s.Read(ctx).Entry(ctx, "e")
	require.NoError(t, err)
	assert.Equal(t, 40.0, got.RemovedUm)
	was, err := s.Read(ctx).EntryHistory(ctx, "e")
	require.NoError(t, err)
	require.Len(t, was, 1)
	assert.Equal(t, 35.0, was[0].Entry.V.RemovedUm, "what it was is kept")
}
