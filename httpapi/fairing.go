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
	get(api, "get-fairing", "/api/surfaces/{id}/fairing",
		"Gaps read on a surface, the fair surface through them, what it takes, and the rounds",
		func(ctx context.Context, in *struct {
			ID  string `path:"id"`
			Set string `query:"set"`
		}) (app.FairingView, error) {
			return a.Fairing(ctx, in.ID, in.Set)
		})
	post(api, "preview-fairing", "/api/surfaces/{id}/fairing/preview",
		"What gaps would come to; nothing is stored",
		func(ctx context.Context, in *bodyByID[app.Readings]) (app.Fairing, error) {
			return a.PreviewFairing(ctx, in.ID, in.Body)
		})
	put(api, "set-fairing", "/api/surfaces/{id}/fairing", "Store gaps of a round",
		func(ctx context.Context, in *bodyByID[FairingEdit]) (app.FairingView, error) {
			return a.SetFairing(ctx, in.ID, in.Body.ID, in.Body.Version, in.Body.Value)
		})
	del(api, "remove-fairing", "/api/fairings/{id}", "Delete a set of gaps",
		func(ctx context.Context, in *byID) (none, error) { return none{}, a.RemoveFairing(ctx, in.ID) })
	post(api, "plan-fairing", "/api/fairings/{id}/plan",
		"Put the filling of a set of gaps into the build-up of its surface",
		func(ctx context.Context, in *bodyByID[FairingPlan]) (app.BuildUp, error) {
			return a.PlanFairing(ctx, in.ID, in.Body.School)
		})
	taping(api, a)
	sanding(api, a)
	practising(api, a)
}

// taping registers what is printed, scanned and read of gaps.
func taping(api huma.API, a *app.App) {
	get(api, "scan-model", "/api/surfaces/{id}/fairing/scan",
		"Gaps of a surface in a 3-D file of the boat against its own fair face, on a grid with its place",
		func(ctx context.Context, in *struct {
			ID      string  `path:"id"`
			ModelID string  `query:"modelId"`
			BattenM float64 `query:"battenM" minimum:"0.2" maximum:"10" default:"1"`
		}) (app.ScannedFace, error) {
			return a.ScanModel(ctx, in.ID, in.ModelID, in.BattenM)
		})
	huma.Register(api, huma.Operation{OperationID: "get-patch-template", Method: http.MethodGet,
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
	act(api, "plan-spots", "/api/surfaces/{id}/fairing/spots",
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
}

// sanding registers how surfaces are sanded.
func sanding(api huma.API, a *app.App) {
	get(api, "get-sanding", "/api/surfaces/{id}/sanding", "How a surface is sanded before its next coat",
		func(ctx context.Context, in *struct {
			ID   string `path:"id"`
			From int    `query:"from"`
			To   int    `query:"to"`
			Wet  bool   `query:"wet"`
		}) (app.Sanding, error) {
			return a.Sanding(ctx, in.ID, app.SandQuery{From: in.From, To: in.To, Wet: in.Wet})
		})
	get(api, "list-tools", "/api/sanding-tools", "What paper is used on",
		func(context.Context, *none) ([]sand.Tool, error) { return sand.Tools, nil })
}

// practising registers the practice panel, side and days.
func practising(api huma.API, a *app.App) {
	post(api, "play-panel", "/api/practice/panel", "What comes of filling and sanding a practice panel",
		func(_ context.Context, in *body[PanelMoves]) (practice.State, error) {
			return practice.Play(in.Body.Moves)
		})
	post(api, "lay-edge", "/api/practice/edge",
		"What an edge shows where it is laid on a practice side, and what that tells",
		func(_ context.Context, in *body[EdgeLaid]) (practice.Read, error) {
			return practice.DealSide(in.Body.Seed).Lay(in.Body.Starts)
		})
	get(api, "deal-day", "/api/practice/day", "A day that asks whether to coat",
		func(_ context.Context, in *struct {
			Seed uint64 `query:"seed"`
		}) (practice.Day, error) {
			return practice.Deal(in.Seed), nil
		})
	post(api, "judge-day", "/api/practice/day", "Whether it was right to coat, and why",
		func(_ context.Context, in *body[DayChoice]) (practice.Answer, error) {
			return practice.Deal(in.Body.Seed).Judge(in.Body.Coat), nil
		})
}
