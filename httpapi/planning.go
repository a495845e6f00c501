package httpapi

import (
	"context"
	"net/http"
	"time"

	"allcoats/app"
	"allcoats/core/planning/plan"
	"allcoats/door"
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

type makeQuery struct {
	ID    string `path:"id"`
	Anew  bool   `query:"anew" doc:"forget the plan before"`
	Quick bool   `query:"quick" doc:"do not look for a better one"`
}

type riskQuery struct {
	ID      string `path:"id"`
	Futures int    `query:"futures" default:"300" minimum:"0" maximum:"2000" doc:"0 plays the plan alone, in as many as when it is planned"`
}

func planning(api huma.API, a *app.App) {
	get(api, "get-plan", "/api/places/{id}/plan",
		"The plan of a yard as it stands under the weather and the log of now",
		func(ctx context.Context, in *byID) (app.YardPlan, error) { return a.YardPlan(ctx, in.ID) })
	get(api, "get-job", "/api/boats/{id}/job",
		"The work of a boat: every task with what it takes and what the log says is done of it",
		func(ctx context.Context, in *byID) (app.BoatJob, error) { return a.Job(ctx, in.ID) })
	put(api, "set-plan", "/api/places/{id}/plan",
		"Who works, own tasks, rules switched off, what is done or pinned",
		func(ctx context.Context, in *bodyByID[PlanSettingsEdit]) (app.YardPlan, error) {
			return a.SetPlan(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	post(api, "move-task", "/api/places/{id}/plan/move", "Pin a task to a start, if that can stand",
		func(ctx context.Context, in *bodyByID[MoveEdit]) (app.YardPlan, error) {
			return a.Move(ctx, in.ID, in.Body.Version, in.Body.TaskID, in.Body.At, in.Body.Near)
		})
	post(api, "try-move", "/api/places/{id}/plan/try", "What a move would do; nothing is stored",
		func(ctx context.Context, in *bodyByID[MoveEdit]) (app.Tried, error) {
			return a.TryMove(ctx, in.ID, in.Body.TaskID, in.Body.At, in.Body.Near)
		})
	act(api, "redo-plan", "/api/places/{id}/plan/redo", "Go forward to the plan that was gone back from",
		func(ctx context.Context, in *byID) (app.YardPlan, error) { return a.RedoPlan(ctx, in.ID) })
	act(api, "undo-plan", "/api/places/{id}/plan/undo", "Go back to the plan before",
		func(ctx context.Context, in *byID) (app.YardPlan, error) { return a.UndoPlan(ctx, in.ID) })
	playing(api, a)
	sharing(api, a)
}

// playing registers what takes long: plans, their risk and what would help, as JSON lines.
func playing(api huma.API, a *app.App) {
	lines(api, huma.Operation{OperationID: "get-ways", Method: http.MethodGet, Path: "/api/places/{id}/plan/ways",
		Summary: "What would bring launches forward, and its price: what is enough first, then the cheapest day gained; JSON lines, the last one has the result"},
		func(ctx context.Context, in *byID) error {
			_, err := a.Place(ctx, in.ID)
			return err
		},
		func(ctx context.Context, in *byID, told func(float64)) ([]app.Way, error) {
			return a.Ways(ctx, in.ID, told)
		})
	lines(api, huma.Operation{OperationID: "make-plan", Method: http.MethodPost, Path: "/api/places/{id}/plan/make",
		Summary: "Repair the plan, moving as little as needed, or make it anew; JSON lines, the last one has the plan"},
		func(ctx context.Context, in *makeQuery) error {
			_, err := a.Place(ctx, in.ID)
			return err
		},
		func(ctx context.Context, in *makeQuery, told func(float64)) (app.YardPlan, error) {
			return a.MakePlan(ctx, in.ID, app.Making{Anew: in.Anew, Quick: in.Quick}, told)
		})
	lines(api, huma.Operation{OperationID: "get-risk", Method: http.MethodGet, Path: "/api/places/{id}/plan/risk",
		Summary: "How likely the launches are over possible futures; JSON lines, the last one has the result"},
		func(ctx context.Context, in *riskQuery) error {
			_, err := a.Place(ctx, in.ID)
			return err
		},
		func(ctx context.Context, in *riskQuery, told func(float64)) (plan.Risk, error) {
			return a.Risk(ctx, in.ID, in.Futures, told)
		})
}

// sharing registers the plan for calendars and tables.
func sharing(api huma.API, a *app.App) {
	download(api, "plan-calendar", "/api/places/{id}/plan.ics", "The plan as an iCalendar feed",
		func(ctx context.Context, id string) (file, error) {
			raw, err := a.Calendar(ctx, id)
			return file{"text/calendar; charset=utf-8", `attachment; filename="plan.ics"`, raw}, err
		})
	get(api, "get-feed", "/api/places/{id}/feed",
		"The address by which a calendar program follows the plan; an empty path before one was made",
		func(ctx context.Context, in *byID) (app.Feed, error) { return a.Feed(ctx, in.ID) })
	act(api, "make-feed", "/api/places/{id}/feed",
		"Make an address for calendar programs; one that was made before is none any more",
		func(ctx context.Context, in *byID) (app.Feed, error) {
			token, _ := door.Token()
			return a.SetFeed(ctx, in.ID, token)
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
	huma.Register(api, huma.Operation{OperationID: id, Method: http.MethodGet, Path: path, Summary: summary},
		func(ctx context.Context, in *byID) (*file, error) {
			f, err := fn(ctx, in.ID)
			if err != nil {
				return nil, problem(ctx, err)
			}
			return &f, nil
		})
}
