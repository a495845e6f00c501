package httpapi

import (
	"context"
	"net/http"

	"allcoats/app"
	"allcoats/core/finish/antifoul"
	"allcoats/core/finish/brightwork"
	"allcoats/core/finish/completion"
	"allcoats/core/finish/gelcoat"
	"allcoats/core/finish/metal"
	"allcoats/core/finish/mould"
	"allcoats/core/finish/nonskid"

	"github.com/danielgtaylor/huma/v2"
)

// FinishWords are the choices that the benches of the finishes offer.
type FinishWords struct {
	Schools   []Named               `json:"schools"` // of non-skid
	Fittings  []nonskid.FittingKind `json:"fittings"`
	Grades    []nonskid.Grade       `json:"grades"`
	Bright    []brightwork.School   `json:"bright"`
	Dusts     []brightwork.Seen     `json:"dusts"`
	Strips    []brightwork.Strip    `json:"strips"`
	Olds      []antifoul.Old        `json:"olds"`
	Profiles  []metal.Profile       `json:"profiles"`
	Metals    []Named               `json:"metals"`
	Compounds []completion.Compound `json:"compounds"`
	Tapes     []completion.Tape     `json:"tapes"`
}

// Named is a choice with the reason for it.
type Named struct {
	Key  string `json:"key"`
	Name string `json:"name"`
	Why  string `json:"why"`
}

func finishWords() FinishWords {
	w := FinishWords{Fittings: nonskid.FittingKinds, Grades: nonskid.Grades, Bright: brightwork.Schools,
		Dusts: brightwork.Dusts, Strips: brightwork.Strips, Olds: antifoul.Olds,
		Profiles: metal.Profiles, Compounds: completion.Compounds, Tapes: completion.Tapes}
	for _, s := range nonskid.Schools {
		w.Schools = append(w.Schools, Named{string(s.Key), s.Name, s.Why})
	}
	for _, m := range metal.Noble {
		w.Metals = append(w.Metals, Named{m.Key, m.Name, ""})
	}
	return w
}

// bench registers a workbench: what is kept, what a change would come to, and keeping it.
// of tells its head and its work.
func bench[W, R any](api huma.API, a *app.App, c app.Craft[W, R], what string, of func(R) (app.Finish, W)) {
	at := "/api/surfaces/{id}/finishes/" + c.Key
	if c.Boat {
		at = "/api/boats/{id}/finishes/" + c.Key
	}
	get(api, "get-"+c.Key, at, what, func(ctx context.Context, in *byID) (R, error) {
		return c.Get(ctx, a, in.ID)
	})
	post(api, "preview-"+c.Key, at, what+", as it would be; nothing is stored",
		func(ctx context.Context, in *bodyByID[W]) (R, error) {
			return c.Preview(ctx, a, in.ID, in.Body)
		})
	put(api, "set-"+c.Key, at, "Keep: "+what, func(ctx context.Context, in *workByID[W]) (R, error) {
		return c.Set(ctx, a, in.ID, in.Version, in.Body)
	})
	act(api, "plan-"+c.Key, at+"/plan", "Put into the build-up, whole: "+what,
		func(ctx context.Context, in *byID) ([]app.BuildUp, error) { return c.Plan(ctx, a, in.ID, of) })
}

func finishing(api huma.API, a *app.App) {
	get(api, "finish-words", "/api/finishes",
		"What the benches of the finishes offer to choose from", func(context.Context, *none) (FinishWords, error) {
			return finishWords(), nil
		})
	bench(api, a, app.NonSkidBench, "the non-skid of a deck, panel by panel",
		func(r app.NonSkid) (app.Finish, nonskid.Work) { return r.Finish, r.Work })
	bench(api, a, app.MouldBench, "moulded panels", func(r app.Moulded) (app.Finish, mould.Work) {
		return r.Finish, r.Work
	})
	bench(api, a, app.GelcoatBench, "gelcoat with its catalyst and its seal",
		func(r app.Gelcoated) (app.Finish, gelcoat.Work) { return r.Finish, r.Work })
	bench(api, a, app.BrightBench, "brightwork from stripping to upkeep",
		func(r app.Bright) (app.Finish, brightwork.Work) { return r.Finish, r.Work })
	bench(api, a, app.AntifoulBench, "antifouling by zones", func(r app.Antifouled) (app.Finish, antifoul.Work) {
		return r.Finish, r.Work
	})
	bench(api, a, app.MetalBench, "bare metal from blasting to the last coat",
		func(r app.Metalled) (app.Finish, metal.Work) { return r.Finish, r.Work })
	bench(api, a, app.RefitBench, "bedding, masking, full cure and snags",
		func(r app.Refitted) (app.Finish, completion.Work) { return r.Finish, r.Work })
	huma.Register(api, huma.Operation{OperationID: "get-template", Method: http.MethodGet,
		Path: "/api/surfaces/{id}/template", Summary: "Panels of a layout at 1:1 in millimetres (docs/formats.md)"},
		func(ctx context.Context, in *struct {
			ID     string `path:"id"`
			Format string `query:"format" enum:"svg,dxf,pdf" default:"svg"`
			Panel  string `query:"panel"`
			Paired bool   `query:"paired"`
		}) (*file, error) {
			t, err := a.Template(ctx, in.ID, in.Format, in.Panel, in.Paired)
			if err != nil {
				return nil, problem(ctx, err)
			}
			return &file{t.Kind, `attachment; filename="` + t.Name + `"`, t.Data}, nil
		})
}
