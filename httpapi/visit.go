package httpapi

import (
	"context"
	"log/slog"
	"net/http"
	"sync/atomic"

	"allcoats/app"

	"github.com/danielgtaylor/huma/v2"
)

// visitCookie is what a browser shows that looks round the demo yard.
const visitCookie = "allcoats-visit"

// visits sends who looks round the demo yard there, all others to what is their own. The yard is made
// when it is first asked for, in a database of its own.
type visits struct {
	own  http.Handler
	yard atomic.Pointer[http.Handler]
}

func (v *visits) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	if _, err := r.Cookie(visitCookie); err == nil {
		if yard := v.yard.Load(); yard != nil {
			(*yard).ServeHTTP(w, r)
			return
		}
		http.SetCookie(w, visit(-1)) // the program was started anew since
	}
	v.own.ServeHTTP(w, r)
}

func visit(maxAge int) *http.Cookie {
	return &http.Cookie{Name: visitCookie, Value: "1", Path: "/", HttpOnly: true, SameSite: http.SameSiteStrictMode,
		MaxAge: maxAge}
}

const visitSeconds = 24 * 60 * 60

type cookied struct {
	SetCookie http.Cookie `header:"Set-Cookie"`
	Body      none
}

// visiting adds the ways into the demo yard and out of it.
func visiting(api huma.API, enter func(context.Context) error) {
	huma.Register(api, huma.Operation{OperationID: "visit-demo", Method: http.MethodPost, Path: "/api/visit",
		Summary: "Look round the demo yard; nothing of one's own is touched"},
		func(ctx context.Context, _ *none) (*cookied, error) {
			if err := enter(ctx); err != nil {
				return nil, problem(ctx, err)
			}
			return &cookied{SetCookie: *visit(visitSeconds)}, nil
		})
	huma.Register(api, huma.Operation{OperationID: "leave-demo", Method: http.MethodDelete, Path: "/api/visit",
		Summary: "Leave the demo yard"},
		func(context.Context, *none) (*cookied, error) { return &cookied{SetCookie: *visit(-1)}, nil })
}

var errNoDemo = huma.Error404NotFound("there is no demo yard in this program as it was started")

// entering makes the demo yard's own handler, once.
func (v *visits) entering(a *app.App, o Options) func(context.Context) error {
	return func(ctx context.Context) error {
		if o.Demo == nil {
			return errNoDemo
		}
		if v.yard.Load() != nil {
			return nil
		}
		demo, err := o.Demo(ctx)
		if err != nil {
			slog.Error("demo", "err", err)
			return err
		}
		o.visiting = true
		yard := handler(demo, a, o, func(context.Context) error { return nil })
		v.yard.CompareAndSwap(nil, &yard)
		return nil
	}
}
