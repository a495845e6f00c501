package httpapi

import (
	"context"
	"encoding/json"
	"net/http"
	"strings"
	"time"

	"allcoats/app"
	"allcoats/core/base/fielderr"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/reading"
	"allcoats/core/exposure/tent"
	"allcoats/core/physics/weather"
	"allcoats/formats"
	"allcoats/instruments"

	"github.com/danielgtaylor/huma/v2"
	lru "github.com/hashicorp/golang-lru/v2"
)

// WeatherWords are the choices that Weather's forms offer.
type WeatherWords struct {
	Instruments []InstrumentWord  `json:"instruments"`
	Limits      []field.LimitInfo `json:"limits"`
	Faults      []Choice          `json:"faults"`
	Heaters     []Choice          `json:"heaters"`
}

// Choice is a choice with its name.
type Choice struct {
	Key  string `json:"key"`
	Name string `json:"name"`
}

// InstrumentWord is a kind of instrument.
type InstrumentWord struct {
	Choice
	Surface  bool `json:"surface"`
	Humidity bool `json:"humidity"`
}

// DaysEdit tells days in words.
type DaysEdit struct {
	Days []weather.SimpleDay `json:"days"`
}

// TentEdit sets a boat's tent; without one it is taken down.
type TentEdit struct {
	Version int        `json:"version"`
	Tent    *tent.Tent `json:"tent,omitempty"`
}

// CompareEdit asks for the schools of a coat in the cold.
type CompareEdit struct {
	SurfaceID string    `json:"surfaceId"`
	ProductID string    `json:"productId"`
	Method    string    `json:"method,omitempty"`
	Tent      tent.Tent `json:"tent"`
}

// maxReadingBytes is the largest file of readings taken: two years of minutes.
const maxReadingBytes = 64 << 20

func weathering(api huma.API, a *app.App) {
	post(api, "add-days", "/api/places/{id}/days", "Tell the days ahead in words; they replace the forecast",
		func(ctx context.Context, in *bodyByID[DaysEdit]) (app.Import, error) {
			return a.AddDays(ctx, in.ID, in.Body.Days)
		})
	get(api, "usual-months", "/api/usual-months", "The usual months of a coast at a latitude, to begin from",
		func(_ context.Context, in *struct {
			LatitudeDeg float64 `query:"latitudeDeg" minimum:"-90" maximum:"90"`
		}) (weather.Normals, error) {
			return weather.UsualNormals(in.LatitudeDeg), nil
		})

	get(api, "own-months", "/api/places/{id}/own-months",
		"The usual months by what was measured at the place",
		func(ctx context.Context, in *byID) (app.OwnMonths, error) { return a.OwnMonths(ctx, in.ID) })
	instrumenting(api, a)
	sheltering(api, a)
}

// instrumenting registers loggers, probes and their readings.
func instrumenting(api huma.API, a *app.App) {
	get(api, "list-instruments", "/api/places/{id}/instruments",
		"The loggers and probes of a place, with what is odd about them",
		func(ctx context.Context, in *byID) ([]app.Instrument, error) { return a.Instruments(ctx, in.ID) })
	post(api, "add-instrument", "/api/places/{id}/instruments", "Add a logger or probe",
		func(ctx context.Context, in *bodyByID[app.InstrumentEdit]) (app.Instrument, error) {
			return a.AddInstrument(ctx, in.ID, in.Body)
		})
	put(api, "edit-instrument", "/api/instruments/{id}", "Change an instrument",
		func(ctx context.Context, in *edit[app.InstrumentEdit]) (app.Instrument, error) {
			return a.EditInstrument(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	del(api, "remove-instrument", "/api/instruments/{id}", "Delete an instrument with its readings",
		func(ctx context.Context, in *byID) (none, error) { return none{}, a.RemoveInstrument(ctx, in.ID) })
	get(api, "get-trace", "/api/instruments/{id}/readings",
		"An instrument's readings, thinned without losing an extreme",
		func(ctx context.Context, in *struct {
			ID     string    `path:"id"`
			From   time.Time `query:"from"`
			To     time.Time `query:"to"`
			Points int       `query:"points" default:"800"`
		}) (app.Trace, error) {
			return a.Trace(ctx, in.ID, in.From, in.To, in.Points)
		})
	uploads(api, "take-readings", "/api/instruments/{id}/readings",
		`Readings of a live instrument as JSON lines: {"at":"2026-05-09T10:00:00Z","tempC":12.4,"rhPct":71}; all or nothing`, maxReadingBytes,
		func(ctx context.Context, in *struct {
			ID      string `path:"id"`
			RawBody []byte `contentType:"application/x-ndjson"`
		}) (app.ReadingsIn, error) {
			return a.TakeReadings(ctx, in.ID, in.RawBody)
		})
	uploads(api, "preview-readings", "/api/instruments/{id}/preview",
		"How a logger's file looks and how it would be read; nothing is stored", maxReadingBytes,
		func(ctx context.Context, in *struct {
			ID      string `path:"id"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (formats.Preview, error) {
			return a.PreviewReadings(ctx, in.ID, in.RawBody)
		})
	uploads(api, "import-readings", "/api/instruments/{id}/file",
		"A logger's file, read as mapping says (JSON of the schema Mapping); all or nothing", maxReadingBytes,
		func(ctx context.Context, in *struct {
			ID      string `path:"id"`
			Mapping string `query:"mapping" required:"true"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (app.ReadingsIn, error) {
			var m formats.Mapping
			d := json.NewDecoder(strings.NewReader(in.Mapping))
			d.DisallowUnknownFields()
			if err := d.Decode(&m); err != nil {
				return app.ReadingsIn{}, fielderr.At("mapping", "cannot be read: %v", err)
			}
			return a.ImportReadings(ctx, in.ID, m, in.RawBody)
		})
}

// sheltering registers tents and what is compared with them.
func sheltering(api huma.API, a *app.App) {
	get(api, "get-correction", "/api/boats/{id}/correction",
		"What local readings do to the forecast, and to the starts of her coats",
		func(ctx context.Context, in *byID) (app.Correction, error) { return a.Correction(ctx, in.ID) })
	get(api, "get-tent", "/api/boats/{id}/tent", "A boat's tent",
		func(ctx context.Context, in *byID) (app.BoatTent, error) { return a.Tent(ctx, in.ID) })
	put(api, "set-tent", "/api/boats/{id}/tent", "Describe a boat's tent, or take it down",
		func(ctx context.Context, in *bodyByID[TentEdit]) (app.BoatTent, error) {
			return a.SetTent(ctx, in.ID, in.Body.Version, in.Body.Tent)
		})
	act(api, "cover-surfaces", "/api/boats/{id}/tent/cover",
		"Put all surfaces that are in the open under the tent that stands",
		func(ctx context.Context, in *byID) (app.BoatTent, error) { return a.Cover(ctx, in.ID) })
	post(api, "compare-schools", "/api/boats/{id}/compare",
		"Wait, tent, heat or another hardener for a coat: when, for how much, how sure",
		func(ctx context.Context, in *bodyByID[CompareEdit]) (app.Comparison, error) {
			ask := app.VerdictQuery{SurfaceID: in.Body.SurfaceID, ProductID: in.Body.ProductID, Method: in.Body.Method}
			return a.Compare(ctx, in.ID, ask, in.Body.Tent)
		})
	chances(api, a)
}

type chancesQuery struct {
	ID      string `path:"id"`
	Futures int    `query:"futures" default:"1000" minimum:"50" maximum:"5000"`
}

// chances tells how far it is while it works, and what it found before while nothing has changed.
func chances(api huma.API, a *app.App) {
	type asked struct {
		chancesQuery
		app.Edition
	}
	known, _ := lru.New[asked, app.Chances](mostKept) // an error would be a size below one
	lines(api, huma.Operation{OperationID: "get-chances", Method: http.MethodGet, Path: "/api/boats/{id}/chances",
		Summary: "The best starts of the week for every coat that waits, over possible futures of the weather; JSON lines, the last one has the result"},
		func(ctx context.Context, in *chancesQuery) error {
			_, err := a.Boat(ctx, in.ID)
			return err
		},
		func(ctx context.Context, in *chancesQuery, told func(float64)) (app.Chances, error) {
			edition, err := a.Edition(ctx)
			if err != nil {
				return app.Chances{}, err
			}
			if found, ok := known.Get(asked{*in, edition}); ok {
				return found, nil
			}
			found, err := a.Chances(ctx, in.ID, in.Futures, told)
			if err == nil {
				known.Add(asked{*in, edition}, found)
			}
			return found, err
		})
}

func instrumentWords() []InstrumentWord {
	out := make([]InstrumentWord, len(reading.Kinds))
	for i, k := range reading.Kinds {
		out[i] = InstrumentWord{Choice{string(k.Kind), k.Name}, k.Surface, k.Humidity}
	}
	return out
}

func faultWords() []Choice {
	out := make([]Choice, len(instruments.Faults))
	for i, f := range instruments.Faults {
		out[i] = Choice{f.Fault, f.Name}
	}
	return out
}

func heaterWords() []Choice {
	out := make([]Choice, len(tent.HeatKinds))
	for i, h := range tent.HeatKinds {
		out[i] = Choice{string(h.Kind), h.Name}
	}
	return out
}
