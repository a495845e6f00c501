package httpapi

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"runtime"
	"time"

	"allcoats/calc"
	"allcoats/calc/pocket"

	"github.com/danielgtaylor/huma/v2"
	"golang.org/x/sync/semaphore"
)

func calculators(api huma.API) {
	get(api, "list-calculators", "/api/calc",
		"The stateless calculators, each with an example that works",
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
	calculator(api, calc.Consumption)
	calculator(api, pocket.Convert)
	calculator(api, pocket.Field)
	calculator(api, pocket.Film)
	calculator(api, pocket.FilmAcceptance)
	calculator(api, calc.Findings)
	calculator(api, pocket.Mix)
	calculator(api, calc.NonSkid)
	calculator(api, pocket.MoistAir)
	calculator(api, pocket.Peroxide)
	calculator(api, calc.Purchase)
	calculator(api, pocket.Recoat)
	calculator(api, calc.Schedule)
	calculator(api, calc.Straightedge)
	calculator(api, pocket.Sun)
	calculator(api, pocket.SurfaceTemp)
	calculator(api, calc.WettedSurface)
}

func calculator[Req, Res any](api huma.API, c pocket.Of[Req, Res]) {
	op := huma.Operation{OperationID: "calc-" + c.Name, Method: http.MethodPost, Path: "/api/calc/" + c.Name,
		Summary: c.Summary, MaxBodyBytes: c.MaxBytes(), BodyReadTimeout: time.Minute}
	received(api, op,
		func(ctx context.Context, in *body[Req]) (res Res, err error) {
			ctx, cancel := context.WithTimeoutCause(ctx, calcTime, errTooLong)
			defer cancel()
			if err := calculating.Acquire(ctx, 1); err != nil {
				return res, context.Cause(ctx)
			}
			defer calculating.Release(1)
			if res, err = c.Answer(ctx, in.Body); errors.Is(err, context.DeadlineExceeded) {
				err = errTooLong
			}
			return res, err
		})
}

// calcTime is how long a calculator may take, waiting included.
const calcTime = 30 * time.Second

// calculating lets as many calculators work at once as there are processors, so that
// the rest of the program goes on being answered.
var calculating = semaphore.NewWeighted(int64(runtime.GOMAXPROCS(0)))

var errTooLong = huma.Error503ServiceUnavailable(
	fmt.Sprintf("this takes longer than %.0f s: ask for less, or use the command line", calcTime.Seconds()))

func indented(v any) ([]byte, error) {
	raw, err := json.MarshalIndent(v, "", " ")
	return append(raw, '\n'), err
}
