package httpapi

import (
	"context"
	"net/http"

	"allcoats/app"
	"allcoats/core/job/buildup"
	"allcoats/core/job/rules"

	"github.com/danielgtaylor/huma/v2"
)

// OverruleEdit lets a finding stand with a reason, or, with On false, makes it
// count again.
type OverruleEdit struct {
	StepID string `json:"stepId"`
	Rule   string `json:"rule"`
	Reason string `json:"reason"`
	On     bool   `json:"on"`
}

// GoalEdit asks how many coats of a product reach a goal.
type GoalEdit struct {
	ProductID string  `json:"productId"`
	DFTUm     float64 `json:"dftUm"`
	buildup.Goal
}

// Imported counts what a file of data sheets brought.
type Imported struct {
	Added int `json:"added"`
	Known int `json:"known" doc:"left out: the library has the name already"`
}

// file is a download.
type file struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

const xlsx = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"

func storing(api huma.API, a *app.App) {
	get(api, "list-rules", "/api/rules",
		"The rules of what goes together, each with its reason, source and cure",
		func(context.Context, *none) ([]rules.Rule, error) { return rules.Catalogue, nil })
	get(api, "list-schemes", "/api/surfaces/{id}/schemes",
		"Usual sequences of work by school, with the products of the library that suit a surface",
		func(ctx context.Context, in *byID) ([]app.Scheme, error) { return a.Schemes(ctx, in.ID) })
	post(api, "overrule", "/api/surfaces/{id}/overrule", "Let a finding stand, with a reason",
		func(ctx context.Context, in *bodyByID[OverruleEdit]) (app.BuildUp, error) {
			return a.Overrule(ctx, in.ID, in.Body.StepID, in.Body.Rule, in.Body.Reason, in.Body.On)
		})
	post(api, "coats-for", "/api/coats-for", "How many coats of a product reach a goal",
		func(ctx context.Context, in *body[GoalEdit]) (buildup.CoatCount, error) {
			return a.CoatsFor(ctx, in.Body.ProductID, in.Body.DFTUm, in.Body.Goal)
		})
	get(api, "get-overview", "/api/boats/{id}/overview", "All build-ups of a boat added up",
		func(ctx context.Context, in *byID) (app.Overview, error) { return a.Overview(ctx, in.ID) })

	get(api, "list-starts", "/api/boats/{id}/starts",
		"Surfaces on which nothing is planned, with the schools to begin with",
		func(ctx context.Context, in *byID) ([]app.Start, error) { return a.Starts(ctx, in.ID) })
	post(api, "begin", "/api/boats/{id}/starts",
		"Plan a school on each of some surfaces on which nothing is planned; all or none",
		func(ctx context.Context, in *bodyByID[[]app.StartChoice]) (app.Overview, error) {
			return a.Begin(ctx, in.ID, in.Body)
		})
	naming(api, a)
	shelving(api, a)
}

// naming registers named systems of steps.
func naming(api huma.API, a *app.App) {
	get(api, "list-systems", "/api/systems", "Named systems of steps",
		func(ctx context.Context, _ *none) ([]app.System, error) { return a.Systems(ctx) })
	post(api, "add-system", "/api/systems", "Add a system",
		func(ctx context.Context, in *body[app.SystemEdit]) (app.System, error) {
			return a.AddSystem(ctx, in.Body)
		})
	put(api, "edit-system", "/api/systems/{id}", "Save a new version of a system",
		func(ctx context.Context, in *edit[app.SystemEdit]) (app.System, error) {
			return a.EditSystem(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	del(api, "remove-system", "/api/systems/{id}", "Delete a system",
		func(ctx context.Context, in *byID) (none, error) { return none{}, a.RemoveSystem(ctx, in.ID) })
}

// shelving registers the shelf, the shopping list and the library as files.
func shelving(api huma.API, a *app.App) {
	get(api, "get-stores", "/api/stores", "The shelf, and what is to be bought for a boat or the yard",
		func(ctx context.Context, in *struct {
			BoatID string `query:"boatId"`
		}) (app.Stores, error) {
			return a.Stores(ctx, in.BoatID)
		})
	post(api, "add-stock", "/api/stock", "Put something on the shelf",
		func(ctx context.Context, in *body[app.StockEdit]) (app.StockItem, error) {
			return a.AddStock(ctx, in.Body)
		})
	put(api, "edit-stock", "/api/stock/{id}", "Count something on the shelf anew",
		func(ctx context.Context, in *edit[app.StockEdit]) (app.StockItem, error) {
			return a.EditStock(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	del(api, "remove-stock", "/api/stock/{id}", "Take something off the shelf",
		func(ctx context.Context, in *byID) (none, error) { return none{}, a.RemoveStock(ctx, in.ID) })

	type download struct {
		Format string `query:"format" enum:"csv,xlsx,json" required:"true"`
		BoatID string `query:"boatId"`
	}
	downloads := func(id, path, summary, name string, fn func(context.Context, *download) ([]byte, error)) {
		huma.Register(api, huma.Operation{OperationID: id, Method: http.MethodGet, Path: path, Summary: summary},
			func(ctx context.Context, in *download) (*file, error) {
				raw, err := fn(ctx, in)
				if err != nil {
					return nil, problem(ctx, err)
				}
				kind := map[string]string{"csv": "text/csv; charset=utf-8", "xlsx": xlsx,
					"json": "application/json"}[in.Format]
				return &file{kind, `attachment; filename="` + name + "." + in.Format + `"`, raw}, nil
			})
	}
	downloads("shopping-list", "/api/stores/list", "The shopping list as csv or xlsx", "shopping-list",
		func(ctx context.Context, in *download) ([]byte, error) {
			return a.ShoppingList(ctx, in.BoatID, in.Format)
		})
	downloads("export-library", "/api/library", "The data sheets as json or csv", "data-sheets",
		func(ctx context.Context, in *download) ([]byte, error) { return a.ExportProducts(ctx, in.Format) })
	uploads(api, "import-library", "/api/library", "Add the data sheets of a file, json or csv; all or nothing",
		maxDrawingBytes,
		func(ctx context.Context, in *struct {
			Format  string `query:"format" enum:"json,csv" required:"true"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (Imported, error) {
			added, known, err := a.ImportProducts(ctx, in.Format, in.RawBody)
			return Imported{added, known}, err
		})
}
