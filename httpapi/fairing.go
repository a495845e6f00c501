package httpapi

import (
	"context"
	"net/http"

	"allcoats/app"
	"allcoats/core/film/sand"
	"allcoats/core/finish/practice"
	"allcoats/formats"

	"github.com/danielgtaylor/huma/v2"
)

// FairingEdit stores a set of gaps: a new one, or, with an id, in the place of that.
type FairingEdit struct {
	ID      string       `json:"id,omitempty"`
	Version int          `json:"version"`
	Value   app.Readings `json:"value"`
}

// FairingPlan puts a fill into the build-up.
type FairingPlan struct {
	School string `json:"school" enum:"heavy,skims"`
}

// GapTable are the gaps of a file.
type GapTable struct {
	Gaps [][]*float64 `json:"gaps"`
	// SpacingM and RowsM are those of a scan, 0 where the file does not tell.
	SpacingM float64 `json:"spacingM,omitempty"`
	RowsM    float64 `json:"rowsM,omitempty"`
}

// PanelMoves are what was done to the practice panel.
type PanelMoves struct {
	Moves []practice.Move `json:"moves"`
}

// EdgeLaid is where an edge was laid on the practice side of a seed, m from its beginning.
type EdgeLaid struct {
	Seed   uint64    `json:"seed"`
	Starts []float64 `json:"starts"`
}

// DayChoice answers a practice day.
type DayChoice struct {
	Seed uint64 `json:"seed"`
	Coat bool   `json:"coat"`
}

func fairing(api huma.API, a *app.App) {
	const get, post, put, del = http.MethodGet, http.MethodPost, http.MethodPut, http.MethodDelete

	register(api, "get-fairing", get, "/api/surfaces/{id}/fairing",
		"Gaps read on a surface, the fair surface through them, what it takes, and the rounds",
		func(ctx context.Context, in *struct {
			ID  string `path:"id"`
			Set string `query:"set"`
		}) (app.FairingView, error) {
			return a.Fairing(ctx, in.ID, in.Set)
		})
	register(api, "preview-fairing", post, "/api/surfaces/{id}/fairing/preview",
		"What gaps would come to; nothing is stored",
		func(ctx context.Context, in *bodyByID[app.Readings]) (app.Fairing, error) {
			return a.PreviewFairing(ctx, in.ID, in.Body)
		})
	register(api, "set-fairing", put, "/api/surfaces/{id}/fairing", "Store gaps of a round",
		func(ctx context.Context, in *bodyByID[FairingEdit]) (app.FairingView, error) {
			return a.SetFairing(ctx, in.ID, in.Body.ID, in.Body.Version, in.Body.Value)
		})
	register(api, "remove-fairing", del, "/api/fairings/{id}", "Delete a set of gaps",
		func(ctx context.Context, in *byID) (none, error) { return none{}, a.RemoveFairing(ctx, in.ID) })
	register(api, "plan-fairing", post, "/api/fairings/{id}/plan",
		"Put the filling of a set of gaps into the build-up of its surface",
		func(ctx context.Context, in *bodyByID[FairingPlan]) (app.BuildUp, error) {
			return a.PlanFairing(ctx, in.ID, in.Body.School)
		})
	register(api, "scan-model", get, "/api/surfaces/{id}/fairing/scan",
		"Gaps of a surface in a 3-D file of the boat against its own fair face, on a grid with its place",
		func(ctx context.Context, in *struct {
			ID      string  `path:"id"`
			ModelID string  `query:"modelId"`
			BattenM float64 `query:"battenM" minimum:"0.2" maximum:"10" default:"1"`
		}) (app.ScannedFace, error) {
			return a.ScanModel(ctx, in.ID, in.ModelID, in.BattenM)
		})
	huma.Register(api, huma.Operation{OperationID: "get-patch-template", Method: get,
		Path:    "/api/fairings/{id}/template",
		Summary: "The depths of a patch at 1:1 in millimetres, to be taped to the hull (docs/formats.md)"},
		func(ctx context.Context, in *struct {
			ID     string `path:"id"`
			Patch  string `query:"patch"`
			Format string `query:"format" enum:"svg,dxf,pdf" default:"pdf"`
		}) (*file, error) {
			t, err := a.PatchTemplate(ctx, in.ID, in.Patch, in.Format)
			if err != nil {
				return nil, problem(ctx, err)
			}
			return &file{t.Kind, `attachment; filename="` + t.Name + `"`, t.Data}, nil
		})
	register(api, "plan-spots", post, "/api/surfaces/{id}/fairing/spots",
		"Put the filling of the pinholes counted last into the build-up of a surface",
		func(ctx context.Context, in *byID) (app.BuildUp, error) { return a.PlanSpots(ctx, in.ID) })
	uploads(api, "read-gaps", "/api/gaps",
		"The gaps in a CSV file, a row a line, empty cells not read, or those of a scan with columns x, y and z; nothing is stored", maxReadingBytes,
		func(_ context.Context, in *struct {
			RawBody []byte `contentType:"application/octet-stream"`
		}) (GapTable, error) {
			if formats.IsScan(in.RawBody) {
				s, err := formats.ReadScan(in.RawBody)
				return GapTable{s.Gaps, s.SpacingM, s.RowsM}, err
			}
			gaps, err := formats.ReadGaps(in.RawBody)
			return GapTable{Gaps: gaps}, err
		})
	register(api, "get-sanding", get, "/api/surfaces/{id}/sanding", "How a surface is sanded before its next coat",
		func(ctx context.Context, in *struct {
			ID   string `path:"id"`
			From int    `query:"from"`
			To   int    `query:"to"`
			Wet  bool   `query:"wet"`
		}) (app.Sanding, error) {
			return a.Sanding(ctx, in.ID, app.SandQuery{From: in.From, To: in.To, Wet: in.Wet})
		})
	register(api, "list-tools", get, "/api/sanding-tools", "What paper is used on",
		func(context.Context, *none) ([]sand.Tool, error) { return sand.Tools, nil })
	register(api, "play-panel", post, "/api/practice/panel", "What comes of filling and sanding a practice panel",
		func(_ context.Context, in *body[PanelMoves]) (practice.State, error) {
			return practice.Play(in.Body.Moves)
		})
	register(api, "lay-edge", post, "/api/practice/edge",
		"What an edge shows where it is laid on a practice side, and what that tells",
		func(_ context.Context, in *body[EdgeLaid]) (practice.Read, error) {
			return practice.DealSide(in.Body.Seed).Lay(in.Body.Starts)
		})
	register(api, "deal-day", get, "/api/practice/day", "A day that asks whether to coat",
		func(_ context.Context, in *struct {
			Seed uint64 `query:"seed"`
		}) (practice.Day, error) {
			return practice.Deal(in.Seed), nil
		})
	register(api, "judge-day", post, "/api/practice/day", "Whether it was right to coat, and why",
		func(_ context.Context, in *body[DayChoice]) (practice.Answer, error) {
			return practice.Deal(in.Body.Seed).Judge(in.Body.Coat), nil
		})
}
