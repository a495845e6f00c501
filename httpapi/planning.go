package httpapi

import (
	"context"
	"encoding/json"
	"net/http"
	"reflect"
	"time"

	"allcoats/app"
	"allcoats/formats"

	"github.com/danielgtaylor/huma/v2"
)

// PlanSettingsEdit changes the settings of a plan whose version is current.
type PlanSettingsEdit struct {
	Version int              `json:"version"`
	Value   app.PlanSettings `json:"value"`
}

// MoveEdit pins a task to a start; without one it is free again.
type MoveEdit struct {
	Version int        `json:"version"`
	TaskID  string     `json:"taskId"`
	At      *time.Time `json:"at,omitempty"`
	// Near takes the hour nearest to At that suits the task.
	Near bool `json:"near,omitempty"`
}

// PlanLine is a line of the answer of make-plan.
type PlanLine struct {
	Done   float64       `json:"done"`
	Result *app.YardPlan `json:"result,omitempty"`
}

// RiskLine is a line of the answer of get-risk; Trouble says why there is none.
type RiskLine struct {
	Done    float64       `json:"done"`
	Result  *app.YardRisk `json:"result,omitempty"`
	Trouble string        `json:"trouble,omitempty"`
}

func planning(api huma.API, a *app.App) {
	const get, post, put = http.MethodGet, http.MethodPost, http.MethodPut

	register(api, "get-plan", get, "/api/places/{id}/plan", "The plan of a yard as it stands under the weather and the log of now",
		func(ctx context.Context, in *byID) (app.YardPlan, error) { return a.YardPlan(ctx, in.ID) })
	register(api, "set-plan", put, "/api/places/{id}/plan", "Who works, own tasks, rules switched off, what is done or pinned",
		func(ctx context.Context, in *bodyByID[PlanSettingsEdit]) (app.YardPlan, error) {
			return a.SetPlan(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	register(api, "move-task", post, "/api/places/{id}/plan/move", "Pin a task to a start, if that can stand",
		func(ctx context.Context, in *bodyByID[MoveEdit]) (app.YardPlan, error) {
			return a.Move(ctx, in.ID, in.Body.Version, in.Body.TaskID, in.Body.At, in.Body.Near)
		})
	register(api, "undo-plan", post, "/api/places/{id}/plan/undo", "Go back to the plan before",
		func(ctx context.Context, in *byID) (app.YardPlan, error) { return a.UndoPlan(ctx, in.ID) })
	register(api, "get-ways", get, "/api/places/{id}/plan/ways", "What may be given when a launch is late: the cheapest that is enough first",
		func(ctx context.Context, in *byID) ([]app.Way, error) { return a.Ways(ctx, in.ID) })
	lines(api, huma.Operation{OperationID: "make-plan", Method: post, Path: "/api/places/{id}/plan/make", Summary: "Plan anew, moving as little as needed; JSON lines, the last one has the plan"},
		func(ctx context.Context, id string, _ int, say func(PlanLine)) error {
			got, err := a.MakePlan(ctx, id, func(done float64) bool {
				say(PlanLine{Done: done})
				return ctx.Err() == nil
			})
			if err == nil {
				say(PlanLine{1, &got})
			}
			return err
		}, a)
	lines(api, huma.Operation{OperationID: "get-risk", Method: get, Path: "/api/places/{id}/plan/risk", Summary: "How likely the launches are over possible futures; JSON lines, the last one has the result"},
		func(ctx context.Context, id string, futures int, say func(RiskLine)) error {
			got, err := a.Risk(ctx, id, futures, func(done float64) { say(RiskLine{Done: done}) })
			if err != nil {
				say(RiskLine{Done: 1, Trouble: err.Error()})
				return err
			}
			say(RiskLine{Done: 1, Result: &got})
			return nil
		}, a)
	download(api, "plan-calendar", "/api/places/{id}/plan.ics", "The plan as an iCalendar feed", func(ctx context.Context, id string) (file, error) {
		raw, err := a.Calendar(ctx, id)
		return file{"text/calendar; charset=utf-8", `attachment; filename="plan.ics"`, raw}, err
	})
	table := func(id, path, kind, name string, write func(formats.Table) ([]byte, error)) {
		download(api, id, path, "The plan as "+name, func(ctx context.Context, place string) (file, error) {
			t, err := a.PlanTable(ctx, place)
			if err != nil {
				return file{}, err
			}
			raw, err := write(t)
			return file{kind, `attachment; filename="` + name + `"`, raw}, err
		})
	}
	table("plan-csv", "/api/places/{id}/plan.csv", "text/csv; charset=utf-8", "plan.csv", formats.Table.CSV)
	table("plan-xlsx", "/api/places/{id}/plan.xlsx", xlsx, "plan.xlsx", formats.Table.XLSX)
}

// download registers a file of a place.
func download(api huma.API, id, path, summary string, fn func(context.Context, string) (file, error)) {
	huma.Register(api, huma.Operation{OperationID: id, Method: http.MethodGet, Path: path, Summary: summary}, func(ctx context.Context, in *byID) (*file, error) {
		f, err := fn(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err)
		}
		return &f, nil
	})
}

// lines registers an operation on a place that answers in JSON lines while it
// works; closing the connection stops the work.
func lines[L any](api huma.API, op huma.Operation, fn func(ctx context.Context, id string, futures int, say func(L)) error, a *app.App) {
	schema := api.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[L](), true, "")
	op.Responses = map[string]*huma.Response{"200": {Description: "OK", Content: map[string]*huma.MediaType{"application/x-ndjson": {Schema: schema}}}}
	huma.Register(api, op, func(ctx context.Context, in *struct {
		ID      string `path:"id"`
		Futures int    `query:"futures" default:"300" minimum:"20" maximum:"2000"`
	}) (*huma.StreamResponse, error) {
		if _, err := a.Place(ctx, in.ID); err != nil {
			return nil, problem(ctx, err)
		}
		return &huma.StreamResponse{Body: func(c huma.Context) {
			c.SetHeader("Content-Type", "application/x-ndjson")
			out := json.NewEncoder(c.BodyWriter())
			_ = fn(c.Context(), in.ID, in.Futures, func(l L) {
				_ = out.Encode(l) // a client that went away is seen by the context
				if f, ok := c.BodyWriter().(http.Flusher); ok {
					f.Flush()
				}
			})
		}}, nil
	})
}
