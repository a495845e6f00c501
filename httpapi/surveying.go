package httpapi

import (
	"context"
	"net/http"
	"time"

	"allcoats/app"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/geometry/mesh"

	"github.com/danielgtaylor/huma/v2"
)

// TemplateEdit asks for the surfaces of a hull type.
type TemplateEdit struct {
	Template  string           `json:"template"`
	Substrate survey.Substrate `json:"substrate"`
}

// Added counts what was added.
type Added struct {
	Added int `json:"added"`
}

// Split takes a share of a surface into a new one.
type Split struct {
	Version int     `json:"version"`
	Pct     float64 `json:"pct"`
	Name    string  `json:"name"`
}

// Order names things in the order that they are to have.
type Order struct {
	IDs []string `json:"ids"`
}

// RingsEdit is what sanding showed.
type RingsEdit struct {
	Rings string `json:"rings" doc:"colours from the outermost ring in, between commas"`
}

// Largest files taken, bytes.
const (
	maxModelBytes   = 128 << 20
	maxDrawingBytes = 8 << 20
	maxPhotoBytes   = 25 << 20
)

// uploads registers an operation that takes a file as its body.
func uploads[I, O any](api huma.API, id, path, summary string, limit int64, fn func(context.Context, *I) (O, error)) {
	op := huma.Operation{OperationID: id, Method: http.MethodPost, Path: path, Summary: summary, MaxBodyBytes: limit,
		BodyReadTimeout: time.Minute}
	operation(api, op, fn)
}

func surveying(api huma.API, a *app.App) {
	post(api, "add-surface", "/api/boats/{id}/surfaces", "Add a surface to a boat",
		func(ctx context.Context, in *bodyByID[app.SurfaceEdit]) (app.Surface, error) {
			return a.AddSurface(ctx, in.ID, in.Body)
		})
	post(api, "preview-surface", "/api/boats/{id}/surfaces/preview",
		"What a surface would measure; nothing is stored",
		func(ctx context.Context, in *bodyByID[app.SurfaceEdit]) (area.Assessment, error) {
			return a.PreviewSurface(ctx, in.ID, in.Body)
		})
	post(api, "add-template", "/api/boats/{id}/template",
		"Add the surfaces of a hull type that the boat does not have yet",
		func(ctx context.Context, in *bodyByID[TemplateEdit]) (Added, error) {
			n, err := a.AddTemplate(ctx, in.ID, in.Body.Template, in.Body.Substrate)
			return Added{n}, err
		})
	put(api, "order-surfaces", "/api/boats/{id}/surfaces/order", "Put a boat's surfaces in order",
		func(ctx context.Context, in *bodyByID[Order]) (none, error) {
			return none{}, a.OrderSurfaces(ctx, in.ID, in.Body.IDs)
		})
	put(api, "edit-surface", "/api/surfaces/{id}", "Change a surface",
		func(ctx context.Context, in *edit[app.SurfaceEdit]) (app.Surface, error) {
			return a.EditSurface(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	del(api, "remove-surface", "/api/surfaces/{id}", "Delete a surface without log entries",
		func(ctx context.Context, in *byID) (none, error) { return none{}, a.RemoveSurface(ctx, in.ID) })
	post(api, "split-surface", "/api/surfaces/{id}/split", "Take a share of a surface into a new one",
		func(ctx context.Context, in *bodyByID[Split]) (app.Surface, error) {
			return a.SplitSurface(ctx, in.ID, in.Body.Version, in.Body.Pct, in.Body.Name)
		})
	act(api, "duplicate-surface", "/api/surfaces/{id}/duplicate",
		"Copy a surface with its planned coats, to the other side if it has one",
		func(ctx context.Context, in *byID) (app.Surface, error) { return a.DuplicateSurface(ctx, in.ID) })
	post(api, "read-rings", "/api/rings",
		"Old layers by the rings of colour that sanding shows; nothing is stored",
		func(_ context.Context, in *body[RingsEdit]) ([]survey.Layer, error) {
			return survey.ByRings(in.Body.Rings), nil
		})
	measuring(api, a)
	pinning(api, a)
}

// measuring registers 3-D files and drawings that surfaces are measured by.
func measuring(api huma.API, a *app.App) {
	uploads(api, "add-model", "/api/boats/{id}/models",
		"Measure and store a 3-D file (stl, obj) or a table of offsets (csv)", maxModelBytes,
		func(ctx context.Context, in *struct {
			ID         string  `path:"id"`
			Format     string  `query:"format" enum:"stl,obj,offsets" required:"true"`
			Name       string  `query:"name" required:"true"`
			Unit       string  `query:"unit" enum:"m,cm,mm,in,ft" required:"true"`
			Up         string  `query:"up" default:"+z"`
			Forward    string  `query:"forward" default:"+x"`
			WaterlineM float64 `query:"waterlineM"`
			BootTopM   float64 `query:"bootTopM"`
			Sure       bool    `query:"sure" doc:"the size and the axes are right, though they do not suit the boat"`
			Draws      bool    `query:"draws"`
			RawBody    []byte  `contentType:"application/octet-stream"`
		}) (app.Model, error) {
			e := app.ModelEdit{Name: in.Name, Draws: in.Draws, Sure: in.Sure, Placing: mesh.Placing{Unit: in.Unit,
				Up: in.Up, Forward: in.Forward, WaterlineM: in.WaterlineM, BootTopM: in.BootTopM}}
			return a.AddModel(ctx, in.ID, in.Format, e, in.RawBody)
		})
	put(api, "edit-model", "/api/models/{id}", "Change how a model lies on the boat, and measure it anew",
		func(ctx context.Context, in *edit[app.ModelEdit]) (app.Model, error) {
			return a.EditModel(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	del(api, "remove-model", "/api/models/{id}", "Delete a model that no surface is measured by",
		func(ctx context.Context, in *byID) (none, error) { return none{}, a.RemoveModel(ctx, in.ID) })
	uploads(api, "read-drawing", "/api/drawings", "The closed shapes of an SVG or DXF drawing, in m; nothing is stored",
		maxDrawingBytes,
		func(_ context.Context, in *struct {
			Format  string  `query:"format" enum:"svg,dxf" required:"true"`
			UnitM   float64 `query:"unitM" doc:"the size of a drawing unit where the file does not say"`
			RawBody []byte  `contentType:"application/octet-stream"`
		}) (app.Drawing, error) {
			return a.ReadDrawing(in.Format, in.UnitM, in.RawBody)
		})
}

// pinning registers defects and photos.
func pinning(api huma.API, a *app.App) {
	post(api, "add-defect", "/api/boats/{id}/defects", "Pin a defect on a boat",
		func(ctx context.Context, in *bodyByID[app.NewDefect]) (app.Defect, error) {
			return a.AddDefect(ctx, in.ID, in.Body)
		})
	put(api, "edit-defect", "/api/defects/{id}", "Change a defect",
		func(ctx context.Context, in *edit[app.DefectEdit]) (app.Defect, error) {
			return a.EditDefect(ctx, in.ID, in.Body.Version, in.Body.Value)
		})
	del(api, "remove-defect", "/api/defects/{id}", "Delete a defect with its photos",
		func(ctx context.Context, in *byID) (none, error) { return none{}, a.RemoveDefect(ctx, in.ID) })
	uploads(api, "add-photo", "/api/defects/{id}/photos", "Add a photo, JPEG, PNG or WebP, to a defect", maxPhotoBytes,
		func(ctx context.Context, in *struct {
			ID      string `path:"id"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (app.Defect, error) {
			return a.AddPhoto(ctx, in.ID, in.RawBody)
		})
	del(api, "remove-photo", "/api/photos/{id}", "Delete a photo",
		func(ctx context.Context, in *byID) (none, error) { return none{}, a.RemovePhoto(ctx, in.ID) })
	type picture struct {
		ContentType string `header:"Content-Type"`
		Body        []byte
	}
	huma.Register(api, huma.Operation{OperationID: "get-photo", Method: http.MethodGet, Path: "/api/photos/{id}",
		Summary: "A photo's picture, JPEG"},
		func(ctx context.Context, in *byID) (*picture, error) {
			jpeg, err := a.PhotoJPEG(ctx, in.ID)
			if err != nil {
				return nil, problem(ctx, err)
			}
			return &picture{"image/jpeg", jpeg}, nil
		})
}
