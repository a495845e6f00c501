package store

import (
	"context"
	"database/sql/driver"

	"allcoats/core/base/calendar"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/exposure/tent"
	"allcoats/core/film/step"
	"allcoats/core/job/quote"
	"allcoats/core/physics/weather"
)

// Place is a row of places.
type Place struct {
	ID            string  `db:"id"`
	Version       int     `db:"version"`
	Name          string  `db:"name"`
	LatitudeDeg   float64 `db:"latitude_deg"`
	LongitudeDeg  float64 `db:"longitude_deg"`
	TimeZone      string  `db:"time_zone"`
	WeatherSource string  `db:"weather_source"`
	// Normals is nil until the user gives them.
	Normals JSON[*weather.Normals] `db:"normals"`
	// Learned is what the place's forecasts were off by, nil until some were held against readings.
	Learned JSON[*weather.Learned] `db:"learned"`
}

// Places lists all places by name.
func (q Queries) Places(ctx context.Context) ([]Place, error) {
	return list[Place](ctx, q, "SELECT * FROM places ORDER BY name, id")
}

// Place returns one place.
func (q Queries) Place(ctx context.Context, id string) (Place, error) {
	return one[Place](ctx, q, "SELECT * FROM places WHERE id = ?", id)
}

// AddPlace inserts p.
func (q Queries) AddPlace(ctx context.Context, p Place) error {
	_, err := q.exec(ctx, `INSERT INTO places (id, name, latitude_deg, longitude_deg, time_zone, weather_source, normals)
		VALUES (:id, :name, :latitude_deg, :longitude_deg, :time_zone, :weather_source, :normals)`, p)
	return err
}

// EditPlace updates p if its version is current.
func (q Queries) EditPlace(ctx context.Context, p Place) error {
	return q.edit(ctx, "places", p.ID, `UPDATE places SET version = version + 1, name = :name, latitude_deg = :latitude_deg,
		longitude_deg = :longitude_deg, time_zone = :time_zone, weather_source = :weather_source, normals = :normals
		WHERE id = :id AND version = :version`, p)
}

// Learn keeps what a place's forecasts were off by.
func (q Queries) Learn(ctx context.Context, placeID string, l *weather.Learned) error {
	_, err := q.exec(ctx, "UPDATE places SET learned = :learned WHERE id = :id",
		Place{ID: placeID, Learned: JSON[*weather.Learned]{V: l}})
	return err
}

// Boat is a row of boats.
type Boat struct {
	ID            string              `db:"id"`
	Version       int                 `db:"version"`
	PlaceID       string              `db:"place_id"`
	Name          string              `db:"name"`
	Type          string              `db:"type"`
	HeadingDeg    float64             `db:"heading_deg"`
	LaunchDate    string              `db:"launch_date"`
	Lights        bool                `db:"lights"`
	HullForm      string              `db:"hull_form"`
	LOAM          float64             `db:"loa_m"`
	LWLM          float64             `db:"lwl_m"`
	BeamM         float64             `db:"beam_m"`
	DraughtM      float64             `db:"draught_m"`
	FreeboardM    float64             `db:"freeboard_m"`
	HousesM2      float64             `db:"houses_m2"`
	BodyDraughtM  float64             `db:"body_draught_m"`
	HullBeamM     float64             `db:"hull_beam_m"`
	Guessed       JSON[[]string]      `db:"guessed"`
	DisplacementT float64             `db:"displacement_t"`
	Week          JSON[calendar.Week] `db:"week"`
	Crew          int                 `db:"crew"`
	DewFreeH      float64             `db:"dew_free_h"`
	Tent          JSON[*tent.Tent]    `db:"tent"`
	TentVersion   int                 `db:"tent_version"`
	MonthsAfloat  float64             `db:"months_afloat"`
	SeasonNM      float64             `db:"season_nm"`
	BudgetCents   float64             `db:"budget_cents"`
	Unlearned     JSON[[]string]      `db:"unlearned"`
	Quotes        JSON[[]quote.Quote] `db:"quotes"`
	QuotesVersion int                 `db:"quotes_version"`
}

// Boats lists all boats by name.
func (q Queries) Boats(ctx context.Context) ([]Boat, error) {
	return list[Boat](ctx, q, "SELECT * FROM boats ORDER BY name, id")
}

// Boat returns one boat.
func (q Queries) Boat(ctx context.Context, id string) (Boat, error) {
	return one[Boat](ctx, q, "SELECT * FROM boats WHERE id = ?", id)
}

// AddBoat inserts b.
func (q Queries) AddBoat(ctx context.Context, b Boat) error {
	_, err := q.exec(ctx, `INSERT INTO boats (id, place_id, name, type, heading_deg, launch_date, lights, hull_form, loa_m, lwl_m, beam_m,
		draught_m, freeboard_m, houses_m2, body_draught_m, hull_beam_m, guessed, displacement_t, week, crew,
		dew_free_h, months_afloat, season_nm, budget_cents) VALUES (:id, :place_id, :name, :type, :heading_deg,
		:launch_date, :lights, :hull_form,
		:loa_m, :lwl_m, :beam_m, :draught_m, :freeboard_m, :houses_m2, :body_draught_m, :hull_beam_m, :guessed,
		:displacement_t, :week, :crew, :dew_free_h, :months_afloat, :season_nm, :budget_cents)`, b)
	return err
}

// EditBoat updates b if its version is current.
func (q Queries) EditBoat(ctx context.Context, b Boat) error {
	return q.edit(ctx, "boats", b.ID, `UPDATE boats SET version = version + 1, place_id = :place_id, name = :name, type = :type,
		heading_deg = :heading_deg, launch_date = :launch_date, lights = :lights, hull_form = :hull_form,
		loa_m = :loa_m, lwl_m = :lwl_m,
		beam_m = :beam_m, draught_m = :draught_m, freeboard_m = :freeboard_m, houses_m2 = :houses_m2,
		body_draught_m = :body_draught_m, hull_beam_m = :hull_beam_m, guessed = :guessed,
		displacement_t = :displacement_t, week = :week, crew = :crew, dew_free_h = :dew_free_h,
		months_afloat = :months_afloat, season_nm = :season_nm, budget_cents = :budget_cents
		WHERE id = :id AND version = :version`, b)
}

// SetTent sets a boat's tent, nil for none, if its version is current.
func (q Queries) SetTent(ctx context.Context, boatID string, version int, t *tent.Tent) error {
	return q.edit(ctx, "boats", boatID,
		"UPDATE boats SET tent_version = tent_version + 1, tent = :tent WHERE id = :id AND tent_version = :tent_version",
		Boat{ID: boatID, TentVersion: version, Tent: JSON[*tent.Tent]{t}})
}

// SetQuotes sets the quotes of a boat if their version is current.
func (q Queries) SetQuotes(ctx context.Context, boatID string, version int, all []quote.Quote) error {
	return q.edit(ctx, "boats", boatID,
		"UPDATE boats SET quotes_version = quotes_version + 1, quotes = :quotes WHERE id = :id AND quotes_version = :quotes_version",
		Boat{ID: boatID, QuotesVersion: version, Quotes: JSON[[]quote.Quote]{all}})
}

// SetUnlearned sets which lessons of a boat's log do not count.
func (q Queries) SetUnlearned(ctx context.Context, boatID string, keys []string) error {
	_, err := q.exec(ctx, "UPDATE boats SET unlearned = :unlearned WHERE id = :id",
		Boat{ID: boatID, Unlearned: JSON[[]string]{keys}})
	return err
}

// RemoveBoat deletes a boat with its surfaces and log.
func (q Queries) RemoveBoat(ctx context.Context, id string) error { return q.remove(ctx, "boats", id) }

// Surface is a row of surfaces.
type Surface struct {
	ID          string                   `db:"id"`
	Version     int                      `db:"version"`
	BoatID      string                   `db:"boat_id"`
	Position    int                      `db:"position"`
	Name        string                   `db:"name"`
	Part        string                   `db:"part"`
	Side        string                   `db:"side"`
	Description JSON[survey.Description] `db:"description"`
	Findings    JSON[survey.Findings]    `db:"findings"`
	Measured    JSON[area.Measured]      `db:"measured"`
}

// Surfaces lists a boat's surfaces in their order.
func (q Queries) Surfaces(ctx context.Context, boatID string) ([]Surface, error) {
	return list[Surface](ctx, q, "SELECT * FROM surfaces WHERE boat_id = ? ORDER BY position, id", boatID)
}

// Surface returns one surface.
func (q Queries) Surface(ctx context.Context, id string) (Surface, error) {
	return one[Surface](ctx, q, "SELECT * FROM surfaces WHERE id = ?", id)
}

// AddSurface inserts s behind its boat's others, or, with a position, there.
func (q Queries) AddSurface(ctx context.Context, s Surface) error {
	if s.Position > 0 {
		if _, err := q.exec(ctx,
			"UPDATE surfaces SET position = position + 1 WHERE boat_id = :boat_id AND position >= :position",
			s); err != nil {
			return err
		}
	}
	_, err := q.exec(ctx, `INSERT INTO surfaces (id, boat_id, position, name, part, side, description, findings, measured)
		VALUES (:id, :boat_id, iif(:position > 0, :position, (SELECT coalesce(max(position), 0) + 1 FROM surfaces
		WHERE boat_id = :boat_id)),
		:name, :part, :side, :description, :findings, :measured)`, s)
	return err
}

// EditSurface updates s if its version is current.
func (q Queries) EditSurface(ctx context.Context, s Surface) error {
	return q.edit(ctx, "surfaces", s.ID, `UPDATE surfaces SET version = version + 1, name = :name, part = :part, side = :side,
		description = :description, findings = :findings, measured = :measured WHERE id = :id AND version = :version`,
		s)
}

// PlaceSurface sets a surface's position among its boat's.
func (q Queries) PlaceSurface(ctx context.Context, id string, position int) error {
	_, err := q.exec(ctx, "UPDATE surfaces SET position = :position WHERE id = :id",
		map[string]any{"id": id, "position": position})
	return err
}

// RemoveSurface deletes a surface with its steps and log.
func (q Queries) RemoveSurface(ctx context.Context, id string) error {
	return q.remove(ctx, "surfaces", id)
}

// Product is a row of products.
type Product struct {
	ID      string `db:"id"`
	Version int    `db:"version"`
	Sheet   Sheet  `db:"sheet"`
}

// Products lists all products by name.
func (q Queries) Products(ctx context.Context) ([]Product, error) {
	return list[Product](ctx, q, "SELECT * FROM products ORDER BY sheet ->> 'name', id")
}

// Product returns one product.
func (q Queries) Product(ctx context.Context, id string) (Product, error) {
	return one[Product](ctx, q, "SELECT * FROM products WHERE id = ?", id)
}

// AddProduct inserts p and keeps the first edition of its sheet.
func (q Queries) AddProduct(ctx context.Context, p Product) error {
	p.Version = 1
	if _, err := q.exec(ctx, "INSERT INTO products (id, sheet) VALUES (:id, :sheet)", p); err != nil {
		return err
	}
	_, err := q.exec(ctx, keepEdition, p)
	return err
}

const keepEdition = "INSERT INTO sheet_editions (product_id, version, sheet) VALUES (:id, :version, :sheet)"

// EditProduct updates p if its version is current, and keeps the new edition of its sheet.
func (q Queries) EditProduct(ctx context.Context, p Product) error {
	if err := q.edit(ctx, "products", p.ID,
		"UPDATE products SET version = version + 1, sheet = :sheet WHERE id = :id AND version = :version",
		p); err != nil {
		return err
	}
	p.Version++
	_, err := q.exec(ctx, keepEdition, p)
	return err
}

// Edition is a row of sheet_editions: a product's sheet as it stood.
type Edition struct {
	ProductID string `db:"product_id"`
	Version   int    `db:"version"`
	Sheet     Sheet  `db:"sheet"`
}

// BoatEditions lists the editions of sheets that what was laid on a boat was laid by and
// that have been changed since.
func (q Queries) BoatEditions(ctx context.Context, boatID string) ([]Edition, error) {
	return list[Edition](ctx, q, `SELECT DISTINCT sheet_editions.* FROM sheet_editions JOIN products ON products.id = sheet_editions.product_id AND products.version <> sheet_editions.version
		JOIN log_entries ON log_entries.product_id = products.id AND log_entries.detail ->> 'edition' = sheet_editions.version WHERE log_entries.boat_id = ?`, boatID)
}

// RemoveProduct deletes a product that is used nowhere.
func (q Queries) RemoveProduct(ctx context.Context, id string) error {
	return q.remove(ctx, "products", id)
}

// ProductUses names the surfaces that a product is planned for or logged on.
func (q Queries) ProductUses(ctx context.Context, id string) ([]string, error) {
	return list[string](ctx, q, `SELECT DISTINCT boats.name || ': ' || surfaces.name FROM surfaces JOIN boats ON boats.id = surfaces.boat_id
		WHERE surfaces.id IN (SELECT surface_id FROM steps WHERE product_id = ?1 UNION SELECT surface_id
		FROM log_entries WHERE product_id = ?1)
		UNION SELECT 'system ' || systems.name FROM systems, json_each(systems.steps) AS step
		WHERE step.value ->> 'productId' = ?1
		UNION SELECT 'the stock' FROM stock WHERE product_id = ?1
		ORDER BY 1`, id)
}

// Step is a row of steps.
type Step struct {
	ID         string     `db:"id" json:"-"`
	SurfaceID  string     `db:"surface_id" json:"-"`
	Position   int        `db:"position" json:"-"`
	Work       string     `db:"work" json:"work"`
	ProductID  *string    `db:"product_id" json:"productId"`
	Coats      int        `db:"coats" json:"coats"`
	DFTUm      float64    `db:"dft_um" json:"dftUm"`
	Method     string     `db:"method" json:"method"`
	LossPct    float64    `db:"loss_pct" json:"lossPct"`
	ThinnerPct float64    `db:"thinner_pct" json:"thinnerPct"`
	Grade      string     `db:"grade" json:"grade"`
	Colour     string     `db:"colour" json:"colour"`
	Grit       int        `db:"grit" json:"grit"`
	RemovedUm  float64    `db:"removed_um" json:"removedUm"`
	Agent      string     `db:"agent" json:"agent"`
	Note       string     `db:"note" json:"note"`
	Detail     StepDetail `db:"detail" json:"detail"`
}

// StepDetail is a step.Detail, JSON in its column.
type StepDetail struct{ step.Detail }

// Value writes it.
func (d StepDetail) Value() (driver.Value, error) { return JSON[step.Detail]{d.Detail}.Value() }

// Scan reads it.
func (d *StepDetail) Scan(src any) error {
	var j JSON[step.Detail]
	err := j.Scan(src)
	d.Detail = j.V
	return err
}

// BoatSteps lists the steps of all surfaces of a boat, surface by surface.
func (q Queries) BoatSteps(ctx context.Context, boatID string) ([]Step, error) {
	return list[Step](ctx, q, `SELECT steps.* FROM steps JOIN surfaces ON surfaces.id = steps.surface_id
		WHERE surfaces.boat_id = ? ORDER BY surfaces.position, steps.position`, boatID)
}

// SetSteps replaces the steps of a surface and raises the surface's version,
// if version is current. Steps that keep their id keep their log entries.
func (q Queries) SetSteps(ctx context.Context, surfaceID string, version int, steps []Step) error {
	err := q.edit(ctx, "surfaces", surfaceID,
		"UPDATE surfaces SET version = version + 1 WHERE id = :id AND version = :version",
		map[string]any{"id": surfaceID, "version": version})
	if err != nil {
		return err
	}
	keep := make(map[string]bool, len(steps))
	for _, s := range steps {
		keep[s.ID] = true
	}
	old, err := list[Step](ctx, q, "SELECT * FROM steps WHERE surface_id = ?", surfaceID)
	if err != nil {
		return err
	}
	for _, s := range old {
		if !keep[s.ID] {
			if err := q.remove(ctx, "steps", s.ID); err != nil {
				return err
			}
		}
	}
	for i, s := range steps {
		s.SurfaceID, s.Position = surfaceID, i
		if _, err := q.exec(ctx, `INSERT INTO steps (id, surface_id, position, work, product_id, coats, dft_um, method, loss_pct, thinner_pct,
			grade, colour, grit, removed_um, agent, note, detail) VALUES (:id, :surface_id, :position, :work,
			:product_id, :coats, :dft_um, :method,
			:loss_pct, :thinner_pct, :grade, :colour, :grit, :removed_um, :agent, :note, :detail)
			ON CONFLICT (id) DO UPDATE SET position = :position, work = :work, product_id = :product_id,
			coats = :coats, dft_um = :dft_um,
			method = :method, loss_pct = :loss_pct, thinner_pct = :thinner_pct, grade = :grade, colour = :colour,
			grit = :grit,
			removed_um = :removed_um, agent = :agent, note = :note, detail = :detail WHERE surface_id = :surface_id`,
			s); err != nil {
			return err
		}
	}
	return nil
}
