package httpapi

import (
	"context"
	"encoding/json"
	"net/http"

	"allcoats/calc"

	"github.com/danielgtaylor/huma/v2"
)

func calculators(api huma.API) {
	register(api, "list-calculators", http.MethodGet, "/api/calc", "The stateless calculators, each with an example that works",
		func(context.Context, *none) ([]calc.Info, error) {
			out := make([]calc.Info, len(calc.All))
			for i, c := range calc.All {
				out[i] = c.Info()
			}
			return out, nil
		})
	calculator(api, calc.AreaGirth)
	calculator(api, calc.AreaHull)
	calculator(api, calc.AreaMesh)
	calculator(api, calc.AreaOutline)
	calculator(api, calc.AreaPrincipal)
	calculator(api, calc.AreaShapes)
	calculator(api, calc.Convert)
	calculator(api, calc.Field)
	calculator(api, calc.Film)
	calculator(api, calc.FilmAcceptance)
	calculator(api, calc.Mix)
	calculator(api, calc.NonSkid)
	calculator(api, calc.MoistAir)
	calculator(api, calc.Peroxide)
	calculator(api, calc.Purchase)
	calculator(api, calc.Recoat)
	calculator(api, calc.Schedule)
	calculator(api, calc.Sun)
	calculator(api, calc.SurfaceTemp)
	calculator(api, calc.WettedSurface)
}

func calculator[Req, Res any](api huma.API, c calc.Of[Req, Res]) {
	register(api, "calc-"+c.Name, http.MethodPost, "/api/calc/"+c.Name, c.Summary,
		func(_ context.Context, in *body[Req]) (Res, error) { return c.Compute(in.Body) })
}

func indented(v any) ([]byte, error) {
	raw, err := json.MarshalIndent(v, "", " ")
	return append(raw, '\n'), err
}
