package httpapi

import (
	"context"
	"encoding/json"
	"time"

	"allcoats/app"
	"allcoats/core/base/fielderr"
	"allcoats/core/base/glossary"
	"allcoats/core/base/message"
	"allcoats/core/base/units"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/film/film"
	"allcoats/core/film/mix"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/geometry/mesh"
	"allcoats/core/job/enquiry"
	"allcoats/core/job/logbook"
	"allcoats/core/job/task"
	"allcoats/formats"

	"github.com/danielgtaylor/huma/v2"
)

// Meta is what the client has to know before it can show anything.
type Meta struct {
	Version string `json:"version"`
	// Visiting says that this is the demo yard, looked round by somebody with data of his own;
	// HasDemo that there is one to be looked round.
	Visiting  bool                `json:"visiting"`
	HasDemo   bool                `json:"hasDemo"`
	Now       time.Time           `json:"now"`
	Clock     app.ClockSetting    `json:"clock"`
	Currency  string              `json:"currency" doc:"code of the money that all prices are in, such as EUR; empty while it is not set"`
	Units     []units.Display     `json:"units"`
	Kinds     []product.KindInfo  `json:"kinds"`
	Methods   []film.Method       `json:"methods"`
	HullForms []area.HullFormInfo `json:"hullForms"`
	TimeZones []string            `json:"timeZones"`
	Survey    SurveyWords         `json:"survey"`
	Works     []step.Kind         `json:"works"`
	Binders   []product.Binder    `json:"binders"`
	Crafts    []craft.Kind        `json:"crafts"`
	Skills    []task.Skill        `json:"skills"`
	Weather   WeatherWords        `json:"weather"`
	Log       LogWords            `json:"log"`
	Ask       AskWords            `json:"ask"`
}

// AskWords are the questions that are answered without a boat.
type AskWords struct {
	Questions []enquiry.Asked `json:"questions"`
	Places    []enquiry.Lies  `json:"places"`
	// Weather is a day in words.
	Weather string `json:"weather"`
}

// SurveyWords are the choices that Survey's forms offer.
type SurveyWords struct {
	Parts        []area.PartInfo        `json:"parts"`
	Shapes       []area.ShapeKind       `json:"shapes"`
	Methods      map[area.Method]string `json:"methods"`
	Templates    []survey.Template      `json:"templates"`
	Substrates   []survey.SubstrateInfo `json:"substrates"`
	LayerKinds   []survey.LayerKind     `json:"layerKinds"`
	Soundnesses  []survey.Soundness     `json:"soundnesses"`
	Tones        []survey.Tone          `json:"tones"`
	Facings      []string               `json:"facings"`
	Shelters     []survey.Shelter       `json:"shelters"`
	DefectKinds  []survey.DefectKind    `json:"defectKinds"`
	DefectStates []string               `json:"defectStates"`
	Zones        []mesh.Zone            `json:"zones"`
}

var surveyWords = SurveyWords{
	area.Parts, area.ShapeKinds, area.MethodName, survey.Templates, survey.Substrates, survey.LayerKinds,
	survey.Soundnesses, survey.Tones,
	survey.Facings, survey.Shelters, survey.DefectKinds, survey.DefectStates, mesh.Zones,
}

// TimeZone is the name of one, such as Europe/London.
type TimeZone struct {
	TimeZone string `json:"timeZone"`
}

// CurrencyEdit names a currency, such as EUR, or none.
type CurrencyEdit struct {
	Currency string `json:"currency"`
}

// ClockEdit sets the program's clock, to At or, without it, to AddH hours from
// what it shows.
type ClockEdit struct {
	Mode app.ClockMode `json:"mode" enum:"real,fixed,running"`
	At   *time.Time    `json:"at,omitempty"`
	AddH float64       `json:"addH,omitempty"`
}

// BoatToDraw is a boat that is being described.
type BoatToDraw struct {
	Dimensions area.Dimensions  `json:"dimensions"`
	Template   string           `json:"template"`
	Substrate  survey.Substrate `json:"substrate"`
}

// PlannedSteps is the coats of a surface.
type PlannedSteps struct {
	Steps []app.Step `json:"steps"`
}

// PlanEdit sets the coats of a surface whose version is current.
type PlanEdit struct {
	Version int        `json:"version" doc:"of the surface"`
	Steps   []app.Step `json:"steps"`
}

// maxWeatherBytes is the largest weather file taken.
const maxWeatherBytes = 16 << 20

func operations(api huma.API, a *app.App, o Options) {
	get(api, "get-meta", "/api/meta", "Version, clock, units and the words that forms offer",
		func(ctx context.Context, _ *none) (Meta, error) { return meta(ctx, a, o) })
	put(api, "set-clock", "/api/clock",
		"Set the program's clock: real, fixed at an instant, or running on from one",
		func(ctx context.Context, in *body[ClockEdit]) (Meta, error) {
			at, err := a.Now(ctx)
			if err != nil {
				return Meta{}, err
			}
			if at = at.Add(time.Duration(in.Body.AddH * float64(time.Hour))); in.Body.At != nil {
				at = *in.Body.At
			}
			if err := a.SetClock(ctx, in.Body.Mode, at); err != nil {
				return Meta{}, err
			}
			return meta(ctx, a, o)
		})
	get(api, "get-time-zone", "/api/time-zone", "The time zone of a position",
		func(_ context.Context, in *struct {
			LatitudeDeg  float64 `query:"latitudeDeg"`
			LongitudeDeg float64 `query:"longitudeDeg"`
		}) (TimeZone, error) {
			zone, err := app.TimeZoneAt(in.LatitudeDeg, in.LongitudeDeg)
			return TimeZone{zone}, err
		})
	put(api, "set-currency", "/api/currency", "Set the money that all prices are in",
		func(ctx context.Context, in *body[CurrencyEdit]) (Meta, error) {
			if err := a.SetCurrency(ctx, in.Body.Currency); err != nil {
				return Meta{}, err
			}
			return meta(ctx, a, o)
		})
	mooring(api, a)
	boating(api, a)
	answering(api, a)
	weathering(api, a)
	planning(api, a)
	surveying(api, a)
	storing(api, a)
	building(api, a)
	recording(api, a)
	fairing(api, a)
	finishing(api, a)
	cataloguing(api, a)
}

// mooring registers places and the weather that is brought to them.
func mooring(api huma.API, a *app.App) {
	get(api, "list-places", "/api/places", "The places",
		func(ctx context.Context, _ *none) ([]app.Place, error) { return a.Places(ctx) })
	post(api, "add-place", "/api/places", "Add a place",
		func(ctx context.Context, in *body[app.PlaceEdit]) (app.Place, error) { return a.AddPlace(ctx, in.Body) })
	put(api, "edit-place", "/api/places/{id}", "Change a place",
		func(ctx context.Context, in *edit[app.PlaceEdit]) (app.Place, error) {
			return a.EditPlace(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	importWeather(api, a)
}

// boating registers boats and what is asked before there is one.
func boating(api huma.API, a *app.App) {
	get(api, "list-boats", "/api/boats", "The boats",
		func(ctx context.Context, _ *none) ([]app.Boat, error) { return a.Boats(ctx) })
	post(api, "add-boat", "/api/boats", "Add a boat",
		func(ctx context.Context, in *body[app.NewBoat]) (app.Boat, error) { return a.AddBoat(ctx, in.Body) })
	post(api, "draw-boat", "/api/draw-boat",
		"A boat from as little as length and beam: what is guessed, her drawing, her surfaces",
		func(_ context.Context, in *body[BoatToDraw]) (app.DraftBoat, error) {
			return app.DrawBoat(in.Body.Dimensions, in.Body.Template, in.Body.Substrate)
		})
	post(api, "answer", "/api/answers", "Answer a question that is about no boat",
		func(ctx context.Context, in *body[app.Question]) (app.Answered, error) { return a.Answer(ctx, in.Body) })
	put(api, "edit-boat", "/api/boats/{id}", "Change a boat",
		func(ctx context.Context, in *edit[app.BoatEdit]) (app.Boat, error) {
			return a.EditBoat(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	del(api, "remove-boat", "/api/boats/{id}", "Delete a boat with her surfaces and log",
		func(ctx context.Context, in *byID) (none, error) { return none{}, a.RemoveBoat(ctx, in.ID) })
	get(api, "get-survey", "/api/boats/{id}/survey", "A boat, her surfaces with their areas, and her drawing",
		func(ctx context.Context, in *byID) (app.Survey, error) { return a.Survey(ctx, in.ID) })
}

// answering registers what the program says of a morning, of a word and of an hour.
func answering(api huma.API, a *app.App) {
	get(api, "get-morning", "/api/morning",
		"The morning of a yard: each boat's sentence of the day, which is late, the weather once",
		func(ctx context.Context, _ *none) (app.Morning, error) { return a.Morning(ctx) })
	get(api, "search", "/api/search",
		"Find surfaces, defects, products, tasks, log entries and words, and what can be logged",
		func(ctx context.Context, in *struct {
			Q      string `query:"q" maxLength:"200"`
			BoatID string `query:"boat"`
		}) ([]app.Hit, error) {
			return a.Search(ctx, in.Q, in.BoatID)
		})
	get(api, "get-glossary", "/api/glossary", "The words of the trade and of the program",
		func(context.Context, *none) ([]glossary.Term, error) { return glossary.Terms, nil })
	get(api, "get-today", "/api/boats/{id}/today",
		"What may be coated, from when to when, and what to do next",
		func(ctx context.Context, in *byID) (app.Today, error) { return a.Today(ctx, in.ID) })
	get(api, "get-verdict", "/api/boats/{id}/verdict",
		"Every hour allowed or not for a product, and the windows of starts",
		func(ctx context.Context, in *struct {
			ID        string `path:"id"`
			SurfaceID string `query:"surfaceId"`
			ProductID string `query:"productId" required:"true"`
			Method    string `query:"method"`
		}) (app.Verdict, error) {
			return a.Verdict(ctx, in.ID, app.VerdictQuery{SurfaceID: in.SurfaceID, ProductID: in.ProductID,
				Method: in.Method})
		})
}

// building registers the coats of a surface.
func building(api huma.API, a *app.App) {
	get(api, "get-build-up", "/api/surfaces/{id}/build-up", "The coats planned and laid on a surface",
		func(ctx context.Context, in *byID) (app.BuildUp, error) { return a.BuildUp(ctx, in.ID) })
	post(api, "preview-build-up", "/api/surfaces/{id}/build-up/preview",
		"What coats would come to; nothing is stored",
		func(ctx context.Context, in *bodyByID[PlannedSteps]) (app.BuildUp, error) {
			return a.PreviewBuildUp(ctx, in.ID, in.Body.Steps)
		})
	put(api, "set-build-up", "/api/surfaces/{id}/build-up", "Plan the coats of a surface",
		func(ctx context.Context, in *bodyByID[PlanEdit]) (app.BuildUp, error) {
			return a.SetBuildUp(ctx, in.ID, in.Body.Version, in.Body.Steps)
		})
}

// cataloguing registers the library.
func cataloguing(api huma.API, a *app.App) {
	get(api, "list-products", "/api/products", "The library",
		func(ctx context.Context, _ *none) ([]app.Product, error) { return a.Products(ctx) })
	post(api, "add-product", "/api/products", "Add a product",
		func(ctx context.Context, in *body[product.Sheet]) (app.Product, error) {
			return a.AddProduct(ctx, in.Body)
		})
	post(api, "doubt-product", "/api/products/doubts",
		"Figures of a data sheet that are seldom right; nothing is stored",
		func(_ context.Context, in *body[product.Sheet]) ([]message.Sentence, error) {
			return in.Body.Doubts(), in.Body.Validate()
		})
	put(api, "edit-product", "/api/products/{id}", "Change a product's data sheet",
		func(ctx context.Context, in *edit[product.Sheet]) (app.Product, error) {
			return a.EditProduct(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	del(api, "remove-product", "/api/products/{id}", "Delete a product that nothing uses",
		func(ctx context.Context, in *byID) (none, error) { return none{}, a.RemoveProduct(ctx, in.ID) })
}

func meta(ctx context.Context, a *app.App, o Options) (Meta, error) {
	now, err := a.Now(ctx)
	if err != nil {
		return Meta{}, err
	}
	clock, err := a.Clock(ctx)
	if err != nil {
		return Meta{}, err
	}
	currency, err := a.Currency(ctx)
	return Meta{o.Version, o.visiting, o.Demo != nil, now, clock, currency, units.Displays(), product.Kinds,
		film.Methods, area.Forms(), timeZones, surveyWords, step.Kinds, product.Binders, craft.Kinds, task.Skills,
		WeatherWords{instrumentWords(), field.Limits, faultWords(), heaterWords()},
		LogWords{logbook.Blemishes, logbook.Wears, logbook.Expenses, mix.Stiffnesses},
		AskWords{enquiry.Questions, enquiry.Places, formats.Example}}, err
}

func importWeather(api huma.API, a *app.App) {
	uploads(api, "import-weather", "/api/places/{id}/weather",
		"Import an hourly record, as CSV (time, temperature, humidity, and optionally wind, rain, cloud, shortwave) or as a JSON document of hourly arrays; a climate file (EPW) sets the usual months; all or nothing", maxWeatherBytes,
		func(ctx context.Context, in *struct {
			ID      string `path:"id"`
			Columns string `query:"columns" maxLength:"20000" doc:"what columns are, by their names: a JSON object of keys of read-weather-columns, empty for a column that is not read; kept for the next file of the place"`
			RawBody []byte `contentType:"text/csv"`
		}) (app.Import, error) {
			var columns map[string]string
			if in.Columns != "" {
				if err := json.Unmarshal([]byte(in.Columns), &columns); err != nil {
					return app.Import{}, fielderr.At("columns", "is no JSON object of names: %v", err)
				}
			}
			return a.ImportWeather(ctx, in.ID, columns, in.RawBody)
		})
	uploads(api, "read-weather-columns", "/api/places/{id}/weather/columns",
		"The columns of an hourly record with what they are taken for; nothing is stored", maxWeatherBytes,
		func(ctx context.Context, in *struct {
			ID      string `path:"id"`
			RawBody []byte `contentType:"text/csv"`
		}) (app.WeatherColumns, error) {
			return a.ReadWeatherColumns(ctx, in.ID, in.RawBody)
		})
}

// timeZones are offered by the place form; any other IANA name works too.
var timeZones = []string{
	"UTC", "Europe/London", "Europe/Dublin", "Europe/Lisbon", "Europe/Paris", "Europe/Amsterdam", "Europe/Berlin",
	"Europe/Copenhagen",
	"Europe/Oslo", "Europe/Stockholm", "Europe/Helsinki", "Europe/Madrid", "Europe/Rome", "Europe/Athens",
	"Europe/Istanbul",
	"Atlantic/Azores", "Atlantic/Reykjavik", "America/Halifax", "America/New_York", "America/Chicago", "America/Denver",
	"America/Los_Angeles", "America/Vancouver", "America/Anchorage", "America/Sao_Paulo",
	"America/Argentina/Buenos_Aires",
	"Africa/Johannesburg", "Asia/Dubai", "Asia/Singapore", "Asia/Hong_Kong", "Asia/Tokyo", "Australia/Perth",
	"Australia/Brisbane", "Australia/Sydney", "Australia/Hobart", "Pacific/Auckland",
}
