package store

import (
	"context"

	"allcoats/core/boat/survey"
	"allcoats/core/geometry/mesh"
)

// ModelResult is what a model was measured to.
type ModelResult struct {
	Areas    mesh.Areas     `json:"areas"`
	Report   mesh.Report    `json:"report"`
	Stations []mesh.Station `json:"stations"`
}

// Model is a row of models without its data.
type Model struct {
	ID      string             `db:"id"`
	Version int                `db:"version"`
	BoatID  string             `db:"boat_id"`
	Name    string             `db:"name"`
	Format  string             `db:"format"`
	Placing JSON[mesh.Placing] `db:"placing"`
	Draws   bool               `db:"draws"`
	Result  JSON[ModelResult]  `db:"result"`
}

const modelColumns = "id, version, boat_id, name, format, placing, draws, result"

// Models lists a boat's models by name.
func (q Queries) Models(ctx context.Context, boatID string) ([]Model, error) {
	return list[Model](ctx, q, "SELECT "+modelColumns+" FROM models WHERE boat_id = ? ORDER BY name, id", boatID)
}

// Model returns one model.
func (q Queries) Model(ctx context.Context, id string) (Model, error) {
	return one[Model](ctx, q, "SELECT "+modelColumns+" FROM models WHERE id = ?", id)
}

// ModelData returns the file of a model.
func (q Queries) ModelData(ctx context.Context, id string) ([]byte, error) {
	return one[[]byte](ctx, q, "SELECT data FROM models WHERE id = ?", id)
}

// AddModel inserts m with its file.
func (q Queries) AddModel(ctx context.Context, m Model, data []byte) error {
	row := struct {
		Model
		Data []byte `db:"data"`
	}{m, data}
	_, err := q.exec(ctx, `INSERT INTO models (id, boat_id, name, format, placing, draws, result, data)
		VALUES (:id, :boat_id, :name, :format, :placing, :draws, :result, :data)`, row)
	return err
}

// EditModel updates m, but for its file, if its version is current.
func (q Queries) EditModel(ctx context.Context, m Model) error {
	return q.edit(ctx, "models", m.ID, `UPDATE models SET version = version + 1, name = :name, placing = :placing, draws = :draws, result = :result
		WHERE id = :id AND version = :version`, m)
}

// RemoveModel deletes a model.
func (q Queries) RemoveModel(ctx context.Context, id string) error {
	return q.remove(ctx, "models", id)
}

// OnlyDraws lets no other model of the boat draw her.
func (q Queries) OnlyDraws(ctx context.Context, boatID, id string) error {
	_, err := q.exec(ctx, "UPDATE models SET draws = 0 WHERE boat_id = :boat AND id <> :id",
		map[string]any{"boat": boatID, "id": id})
	return err
}

// Defect is a row of defects.
type Defect struct {
	ID        string              `db:"id"`
	Version   int                 `db:"version"`
	SurfaceID string              `db:"surface_id"`
	FoundAt   int64               `db:"found_at"`
	Defect    JSON[survey.Defect] `db:"defect"`
}

// BoatDefects lists the defects of a boat, the oldest first.
func (q Queries) BoatDefects(ctx context.Context, boatID string) ([]Defect, error) {
	return list[Defect](ctx, q, `SELECT defects.* FROM defects JOIN surfaces ON surfaces.id = defects.surface_id
		WHERE surfaces.boat_id = ? ORDER BY defects.found_at, defects.id`, boatID)
}

// Defect returns one defect.
func (q Queries) Defect(ctx context.Context, id string) (Defect, error) {
	return one[Defect](ctx, q, "SELECT * FROM defects WHERE id = ?", id)
}

// AddDefect inserts d.
func (q Queries) AddDefect(ctx context.Context, d Defect) error {
	_, err := q.exec(ctx,
		"INSERT INTO defects (id, surface_id, found_at, defect) VALUES (:id, :surface_id, :found_at, :defect)", d)
	return err
}

// EditDefect updates d if its version is current.
func (q Queries) EditDefect(ctx context.Context, d Defect) error {
	return q.edit(ctx, "defects", d.ID, `UPDATE defects SET version = version + 1, surface_id = :surface_id, defect = :defect
		WHERE id = :id AND version = :version`, d)
}

// RemoveDefect deletes a defect with its photos.
func (q Queries) RemoveDefect(ctx context.Context, id string) error {
	return q.remove(ctx, "defects", id)
}

// Photo is a row of photos without its picture, of a defect or of a log entry.
type Photo struct {
	ID       string `db:"id"`
	DefectID Ref    `db:"defect_id"`
	EntryID  Ref    `db:"entry_id"`
	TakenAt  int64  `db:"taken_at"`
	Width    int    `db:"width"`
	Height   int    `db:"height"`
}

// BoatPhotos lists the photos of a boat's defects and log.
func (q Queries) BoatPhotos(ctx context.Context, boatID string) ([]Photo, error) {
	return list[Photo](ctx, q, `SELECT id, defect_id, entry_id, taken_at, width, height FROM photos
		WHERE defect_id IN (SELECT defects.id FROM defects JOIN surfaces ON surfaces.id = defects.surface_id
		WHERE surfaces.boat_id = ?1)
		OR entry_id IN (SELECT id FROM log_entries WHERE boat_id = ?1) ORDER BY taken_at, id`, boatID)
}

// PhotoJPEG returns a picture.
func (q Queries) PhotoJPEG(ctx context.Context, id string) ([]byte, error) {
	return one[[]byte](ctx, q, "SELECT jpeg FROM photos WHERE id = ?", id)
}

// AddPhoto inserts p.
func (q Queries) AddPhoto(ctx context.Context, p Photo, jpeg []byte) error {
	row := struct {
		Photo
		JPEG []byte `db:"jpeg"`
	}{p, jpeg}
	_, err := q.exec(ctx,
		"INSERT INTO photos (id, defect_id, entry_id, taken_at, width, height, jpeg) VALUES (:id, :defect_id, :entry_id, :taken_at, :width, :height, :jpeg)", row)
	return err
}

// RemovePhoto deletes a photo.
func (q Queries) RemovePhoto(ctx context.Context, id string) error {
	return q.remove(ctx, "photos", id)
}
