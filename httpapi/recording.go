package httpapi

import (
	"context"
	"net/http"
	"path/filepath"

	"allcoats/app"
	"allcoats/core/exposure/reading"
	"allcoats/core/film/mix"
	"allcoats/core/job/logbook"
	"allcoats/core/job/quote"
	"allcoats/core/job/task"
	"allcoats/formats"

	"github.com/danielgtaylor/huma/v2"
)

// LogWords are the choices that Bench and Log offer.
type LogWords struct {
	Blemishes []logbook.Blemish `json:"blemishes"`
	// Wears are the ways in which a finish goes.
	Wears []logbook.WearKind `json:"wears"`
	// Expenses are what money goes for beside coatings.
	Expenses    []logbook.ExpenseKind `json:"expenses"`
	Stiffnesses []mix.Stiffness       `json:"stiffnesses"`
}

// Gauged are the readings of a gauge's file, µm.
type Gauged struct {
	ReadingsUm []float64 `json:"readingsUm"`
}

// Restored says that a backup is in the place of what was there, and names the copy
// that was kept of that, beside the database.
type Restored struct {
	Boats int    `json:"boats"`
	Kept  string `json:"kept"`
}

// maxBackupBytes is the largest backup, maxBoatBytes the largest boat file taken.
const (
	maxBackupBytes = 512 << 20
	maxBoatBytes   = 128 << 20
)

// benchInput is app.BenchQuery as it stands in an address: negative figures are not
// given, for a temperature those below −90.
type benchInput struct {
	Timers         bool    `query:"timers" doc:"only the timers that run"`
	ID             string  `path:"id"`
	SurfaceID      string  `query:"surfaceId"`
	ProductID      string  `query:"productId"`
	Grade          string  `query:"grade"`
	Filler         string  `query:"filler"`
	Stiffness      string  `query:"stiffness"`
	Litres         float64 `query:"litres" default:"-1"`
	PotC           float64 `query:"potC" default:"-99"`
	LitresH        float64 `query:"litresH" default:"-1"`
	ThinnerPct     float64 `query:"thinnerPct" default:"-1"`
	TareG          float64 `query:"tareG"`
	PumpBaseML     float64 `query:"pumpBaseML"`
	PumpHardenerML float64 `query:"pumpHardenerML"`
	CatalystKgL    float64 `query:"catalystKgL"`
	BaseG          float64 `query:"baseG"`
	HardenerG      float64 `query:"hardenerG"`
}

func (in benchInput) query() app.BenchQuery {
	given := func(v, least float64) *float64 {
		if v < least {
			return nil
		}
		return &v
	}
	return app.BenchQuery{SurfaceID: in.SurfaceID, ProductID: in.ProductID, Grade: in.Grade, Filler: in.Filler,
		Stiffness: mix.Stiffness(in.Stiffness),
		Litres:    given(in.Litres, 0), PotC: given(in.PotC, -90), LitresH: given(in.LitresH, 0),
		ThinnerPct: given(in.ThinnerPct, 0),
		TareG:      in.TareG, PumpBaseML: in.PumpBaseML, PumpHardenerML: in.PumpHardenerML, CatalystKgL: in.CatalystKgL,
		BaseG: in.BaseG, HardenerG: in.HardenerG, Timers: in.Timers}
}

func recording(api huma.API, a *app.App) {
	get(api, "get-bench", "/api/boats/{id}/bench",
		"What to pour and lay for a coat, what to check first, and the timers that run",
		func(ctx context.Context, in *benchInput) (app.Bench, error) { return a.Bench(ctx, in.ID, in.query()) })
	put(api, "put-pot", "/api/boats/{id}/pots",
		"A pot that was mixed, laid or emptied; the same id again changes it",
		func(ctx context.Context, in *bodyByID[app.PotEdit]) ([]app.Pot, error) {
			return a.PutPot(ctx, in.ID, in.Body)
		})
	get(api, "get-values", "/api/instruments/{id}/values",
		"What a scale or film gauge showed last; a simulated one is told what is wanted",
		func(ctx context.Context, in *struct {
			ID   string  `path:"id"`
			Want float64 `query:"want"`
			N    int     `query:"n" default:"1"`
		}) ([]reading.Value, error) {
			return a.Values(ctx, in.ID, in.Want, in.N)
		})
	uploads(api, "read-gauge", "/api/gauge", "The readings in a film gauge's file; nothing is stored", maxReadingBytes,
		func(_ context.Context, in *struct {
			Unit    string `query:"unit" enum:",µm,mil"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (Gauged, error) {
			um, err := formats.ReadGauge(in.RawBody, in.Unit)
			return Gauged{um}, err
		})
	logging(api, a)
	accounting(api, a)
	exporting(api, a)
	backing(api, a)
}

// logging registers what was done to a boat.
func logging(api huma.API, a *app.App) {
	get(api, "list-log", "/api/boats/{id}/log", "What was done to a boat, the newest first",
		func(ctx context.Context, in *byID) ([]app.Entry, error) { return a.Log(ctx, in.ID) })
	post(api, "add-entry", "/api/log", "Log something done; the same id sent again is stored once",
		func(ctx context.Context, in *body[app.NewEntry]) (app.Entry, error) { return a.AddEntry(ctx, in.Body) })
	put(api, "edit-entry", "/api/log/{id}", "Correct a log entry; what it was stays in its history",
		func(ctx context.Context, in *edit[logbook.Entry]) (app.Entry, error) {
			return a.EditEntry(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	get(api, "get-history", "/api/log/{id}/history",
		"What a log entry was before its corrections, the oldest first",
		func(ctx context.Context, in *byID) ([]app.Former, error) { return a.EntryHistory(ctx, in.ID) })
	get(api, "get-suspects", "/api/log/{id}/suspects",
		"Likely causes of the blemishes of a coat, from its own record",
		func(ctx context.Context, in *struct {
			ID   string   `path:"id"`
			Seen []string `query:"seen"`
		}) ([]app.Suspect, error) {
			return a.Suspects(ctx, in.ID, in.Seen)
		})
	del(api, "remove-entry", "/api/log/{id}", "Delete a log entry; it can be restored",
		func(ctx context.Context, in *byID) (app.Entry, error) { return a.MarkEntry(ctx, in.ID, true) })
	act(api, "restore-entry", "/api/log/{id}/restore", "Restore a deleted log entry",
		func(ctx context.Context, in *byID) (app.Entry, error) { return a.MarkEntry(ctx, in.ID, false) })
	uploads(api, "add-entry-photo", "/api/log/{id}/photos",
		"Add a photo, JPEG, PNG or WebP, to a log entry; the same photoId again is stored once", maxPhotoBytes,
		func(ctx context.Context, in *struct {
			ID      string `path:"id"`
			PhotoID string `query:"photoId" format:"uuid"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (app.Entry, error) {
			return a.AddEntryPhoto(ctx, in.ID, in.PhotoID, in.RawBody)
		})
}

// accounting registers what hours and money come to, what is due again, what shops ask and what the log taught.
func accounting(api huma.API, a *app.App) {
	get(api, "get-accounts", "/api/boats/{id}/accounts", "Hours and money of a boat, to date and to finish",
		func(ctx context.Context, in *byID) (app.Accounts, error) { return a.Accounts(ctx, in.ID) })
	get(api, "get-upkeep", "/api/boats/{id}/upkeep", "What was laid that wants doing again, and when",
		func(ctx context.Context, in *byID) (app.Upkeep, error) { return a.Upkeep(ctx, in.ID) })
	act(api, "renew", "/api/surfaces/{id}/renew",
		"Put the wash, the scuff and the coats that renew a surface's film into its build-up",
		func(ctx context.Context, in *byID) (app.BuildUp, error) { return a.Renew(ctx, in.ID) })
	get(api, "get-quotes", "/api/boats/{id}/quotes",
		"What shops ask for parts of the work on a boat, against doing it oneself",
		func(ctx context.Context, in *byID) (app.Quotes, error) { return a.Quotes(ctx, in.ID) })
	put(api, "set-quotes", "/api/boats/{id}/quotes", "Replace the quotes of a boat",
		func(ctx context.Context, in *edit[[]quote.Quote]) (app.Quotes, error) {
			return a.SetQuotes(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	get(api, "get-lessons", "/api/boats/{id}/lessons",
		"What the log of a boat taught of hours, litres and drying",
		func(ctx context.Context, in *byID) ([]task.Lesson, error) { return a.Lessons(ctx, in.ID) })
	operation(api, huma.Operation{OperationID: "set-lesson", Method: http.MethodPut, Path: "/api/boats/{id}/lessons",
		Summary: "Switch a lesson of a boat's log off, or on again"},
		func(ctx context.Context, in *struct {
			ID   string `path:"id"`
			Body struct {
				Key string `json:"key"`
				Off bool   `json:"off"`
			}
		}) ([]task.Lesson, error) {
			return a.SetLesson(ctx, in.ID, in.Body.Key, in.Body.Off)
		})
}

// exporting registers the record, the tables and the file of a boat.
func exporting(api huma.API, a *app.App) {
	get(api, "get-report", "/api/boats/{id}/report", "The record of a boat's refit",
		func(ctx context.Context, in *byID) (app.Report, error) { return a.Report(ctx, in.ID) })
	table := func(id, path, kind, name, what string, read func(context.Context, string) (formats.Table, error),
		write func(formats.Table) ([]byte, error)) {
		download(api, id, path, what, func(ctx context.Context, boat string) (file, error) {
			t, err := read(ctx, boat)
			if err != nil {
				return file{}, err
			}
			raw, err := write(t)
			return file{kind, `attachment; filename="` + name + `"`, raw}, err
		})
	}
	const csv, logTable, ledgerTable = "text/csv; charset=utf-8", "A boat's log as a table",
		"The hours and money of a boat as a table"
	table("log-csv", "/api/boats/{id}/log.csv", csv, "log.csv", logTable, a.LogTable, formats.Table.CSV)
	table("log-xlsx", "/api/boats/{id}/log.xlsx", xlsx, "log.xlsx", logTable, a.LogTable, formats.Table.XLSX)
	table("ledger-csv", "/api/boats/{id}/ledger.csv", csv, "ledger.csv", ledgerTable, a.LedgerTable, formats.Table.CSV)
	table("ledger-xlsx", "/api/boats/{id}/ledger.xlsx", xlsx, "ledger.xlsx", ledgerTable, a.LedgerTable,
		formats.Table.XLSX)
	download(api, "export-boat", "/api/boats/{id}/file",
		"A boat with all that belongs to her as an open file (docs/formats.md)",
		func(ctx context.Context, boat string) (file, error) {
			raw, err := a.BoatFile(ctx, boat)
			return file{"application/json", `attachment; filename="boat.json"`, raw}, err
		})
	uploads(api, "import-boat", "/api/boat-file",
		"Store a boat file; all or nothing, refused where something is here with other contents", maxBoatBytes,
		func(ctx context.Context, in *struct {
			RawBody []byte `contentType:"application/octet-stream"`
		}) (app.Taken, error) {
			return a.TakeBoat(ctx, in.RawBody)
		})
}

// backing registers copies of the whole database, and their return.
func backing(api huma.API, a *app.App) {
	huma.Register(api, huma.Operation{
		OperationID: "backup", Method: http.MethodGet, Path: "/api/backup", Summary: "The whole database as a file"},
		func(ctx context.Context, _ *none) (*file, error) {
			raw, err := a.BackupFile(ctx)
			if err != nil {
				return nil, problem(ctx, err)
			}
			return &file{"application/octet-stream", `attachment; filename="allcoats-backup.db"`, raw}, nil
		})
	restored := func(ctx context.Context, kept string, err error) (Restored, error) {
		if err != nil {
			return Restored{}, err
		}
		boats, err := a.Boats(ctx)
		return Restored{len(boats), filepath.Base(kept)}, err
	}
	get(api, "backups", "/api/backups", "The copies of the days that are kept, the newest first",
		func(context.Context, *none) ([]app.Kept, error) { return a.Copies() })
	act(api, "restore-copy", "/api/backups/{id}/restore",
		"Put the copy of a day in the place of everything stored; all or nothing",
		func(ctx context.Context, in *byID) (Restored, error) {
			kept, err := a.RestoreCopy(ctx, in.ID)
			return restored(ctx, kept, err)
		})
	uploads(api, "restore", "/api/backup", "Put a backup in the place of everything stored; all or nothing",
		maxBackupBytes,
		func(ctx context.Context, in *struct {
			RawBody []byte `contentType:"application/octet-stream"`
		}) (Restored, error) {
			kept, err := a.RestoreFile(ctx, in.RawBody)
			return restored(ctx, kept, err)
		})
}
