package app

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/survey"
	"allcoats/store"
)

func sortBy[T any, K cmp.Ordered](list []T, key func(T) K) {
	slices.SortStableFunc(list, func(a, b T) int { return cmp.Compare(key(a), key(b)) })
}

// Defect is a defect of a boat with what it takes to mend it. Number counts
// them in the order in which they were found.
type Defect struct {
	ID      string    `json:"id"`
	Version int       `json:"version"`
	Number  int       `json:"number"`
	FoundAt time.Time `json:"foundAt"`
	DefectEdit
	Repair survey.Repair `json:"repair"`
	Photos []Photo       `json:"photos"`
}

// DefectEdit is what a user can set of a defect.
type DefectEdit struct {
	SurfaceID string `json:"surfaceId"`
	survey.Defect
}

// Photo is a picture of a defect or a log entry; the picture itself is at /api/photos/{id}.
type Photo struct {
	ID      string    `json:"id"`
	TakenAt time.Time `json:"takenAt"`
	Width   int       `json:"width"`
	Height  int       `json:"height"`
}

func photoOf(p store.Photo) Photo {
	return Photo{p.ID, time.Unix(p.TakenAt, 0).UTC(), p.Width, p.Height}
}

// defects lists a boat's defects in the order of a walk round her.
func defects(ctx context.Context, q store.Queries, boatID string) ([]Defect, error) {
	rows, err := q.BoatDefects(ctx, boatID)
	if err != nil {
		return nil, err
	}
	photos, err := q.BoatPhotos(ctx, boatID)
	if err != nil {
		return nil, err
	}
	out := make([]Defect, len(rows))
	for i, r := range rows {
		out[i] = Defect{r.ID, r.Version, i + 1, time.Unix(r.FoundAt, 0).UTC(), DefectEdit{r.SurfaceID, r.Defect.V},
			r.Defect.V.Repair(), []Photo{}}
		for _, p := range photos {
			if string(p.DefectID) == r.ID {
				out[i].Photos = append(out[i].Photos, photoOf(p))
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Defect) int { return survey.WalkRound(a.Place, b.Place) })
	return out, nil
}

// Defect returns one defect.
func (a *App) Defect(ctx context.Context, id string) (Defect, error) {
	q := a.store.Read(ctx)
	r, err := q.Defect(ctx, id)
	if err != nil {
		return Defect{}, err
	}
	s, err := q.Surface(ctx, r.SurfaceID)
	if err != nil {
		return Defect{}, err
	}
	all, err := defects(ctx, q, s.BoatID)
	for _, d := range all {
		if d.ID == id {
			return d, err
		}
	}
	return Defect{}, errors.Join(err, ErrNotFound)
}

func (e DefectEdit) validate(ctx context.Context, q store.Queries, boatID string) error {
	var bad fielderr.Errors
	s, err := q.Surface(ctx, e.SurfaceID)
	if errors.Is(err, store.ErrNotFound) || err == nil && s.BoatID != boatID {
		bad.Add("surfaceId", "choose a surface of this boat")
	} else if err != nil {
		return err
	}
	bad.Under("", e.Defect.Validate())
	return bad.Err()
}

// NewDefect is a defect to be stored; ID is the finder's, empty to have one made.
type NewDefect struct {
	ID string `json:"id,omitempty" format:"uuid"`
	DefectEdit
}

// AddDefect stores a defect of a boat. The same one sent twice is stored once.
func (a *App) AddDefect(ctx context.Context, boatID string, n NewDefect) (Defect, error) {
	return change(ctx, a, func(ctx context.Context) (Defect, error) {
		now, err := a.Now(ctx)
		if err != nil {
			return Defect{}, err
		}
		id, e := n.ID, n.DefectEdit
		if id == "" {
			id = newID()
		} else if d, err := a.Defect(ctx, id); err == nil {
			return d, nil
		}
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			if err := e.validate(ctx, q, boatID); err != nil {
				return err
			}
			e.History = nil
			return q.AddDefect(ctx, store.Defect{ID: id, SurfaceID: e.SurfaceID, FoundAt: now.Unix(),
				Defect: store.JSON[survey.Defect]{V: e.Defect}})
		})
		if err != nil {
			return Defect{}, err
		}
		return a.Defect(ctx, id)
	})
}

// EditDefect changes a defect.
func (a *App) EditDefect(ctx context.Context, id string, version int, e DefectEdit) (Defect, error) {
	return change(ctx, a, func(ctx context.Context) (Defect, error) {
		now, err := a.Now(ctx)
		if err != nil {
			return Defect{}, err
		}
		err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			old, err := q.Defect(ctx, id)
			if err != nil {
				return err
			}
			s, err := q.Surface(ctx, old.SurfaceID)
			if err != nil {
				return err
			}
			if err := e.validate(ctx, q, s.BoatID); err != nil {
				return err
			}
			return q.EditDefect(ctx, store.Defect{ID: id, Version: version, SurfaceID: e.SurfaceID,
				Defect: store.JSON[survey.Defect]{V: e.Defect.Changed(old.Defect.V, now)}})
		})
		if err != nil {
			return Defect{}, stale(err, func() (Defect, error) { return a.Defect(ctx, id) })
		}
		return a.Defect(ctx, id)
	})
}

// RemoveDefect deletes a defect with its photos.
func (a *App) RemoveDefect(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.RemoveDefect(ctx, id) })
}

// Limits of photos: pixels that are taken in, the longest side that is kept,
// and how many a defect may have.
const (
	maxPixels = 60_000_000
	keptSide  = 1600
	maxPhotos = 12
)

// AddPhoto stores a picture of a defect, JPEG, PNG or WebP, upright and scaled
// down to at most 1600 pixels a side, as JPEG.
func (a *App) AddPhoto(ctx context.Context, defectID string, data []byte) (Defect, error) {
	d, err := a.Defect(ctx, defectID)
	if err != nil {
		return Defect{}, err
	}
	if err := a.addPhoto(ctx, store.Photo{ID: newID(), DefectID: store.Ref(defectID)}, len(d.Photos),
		data); err != nil {
		return Defect{}, err
	}
	return a.Defect(ctx, defectID)
}

// AddEntryPhoto stores a picture of a log entry, such as a tin's batch label. The
// same id sent twice is stored once; an empty one is made.
func (a *App) AddEntryPhoto(ctx context.Context, entryID, id string, data []byte) (Entry, error) {
	e, err := a.Entry(ctx, entryID)
	if err != nil {
		return Entry{}, err
	}
	if id == "" {
		id = newID()
	}
	if slices.ContainsFunc(e.Photos, func(p Photo) bool { return p.ID == id }) {
		return e, nil
	}
	if err := a.addPhoto(ctx, store.Photo{ID: id, EntryID: store.Ref(entryID)}, len(e.Photos), data); err != nil {
		return Entry{}, err
	}
	return a.Entry(ctx, entryID)
}

// addPhoto stores p, of which there are so many already.
func (a *App) addPhoto(ctx context.Context, p store.Photo, already int, data []byte) error {
	now, err := a.Now(ctx)
	if err != nil {
		return err
	}
	picture, jpeg, err := kept(ctx, data)
	if err != nil {
		return err
	}
	if already >= maxPhotos {
		return fielderr.At("file", "there are %d photos already; delete one first", maxPhotos)
	}
	p.TakenAt, p.Width, p.Height = now.Unix(), picture.Dx(), picture.Dy()
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.AddPhoto(ctx, p, jpeg) })
}

// PhotoJPEG returns a photo's picture.
func (a *App) PhotoJPEG(ctx context.Context, id string) ([]byte, error) {
	return a.store.Read(ctx).PhotoJPEG(ctx, id)
}

// RemovePhoto deletes a photo.
func (a *App) RemovePhoto(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.RemovePhoto(ctx, id) })
}
