// Package httpapi serves the application: the JSON interface under /api, its
// OpenAPI document, and the web files.
package httpapi

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"math"
	"net/http"
	"path"
	"reflect"
	"strconv"
	"strings"

	"allcoats/app"
	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"
)

// get, act, post, put and del register an operation whose answer is fn's result as JSON; post and put
// are sent a body.
func get[I, O any](api huma.API, id, path, summary string, fn func(context.Context, *I) (O, error)) {
	op := huma.Operation{OperationID: id, Method: http.MethodGet, Path: path, Summary: summary}
	if !passing[id] {
		op.Metadata = map[string]any{keepable: true}
	}
	operation(api, op, fn)
}

func act[I, O any](api huma.API, id, path, summary string, fn func(context.Context, *I) (O, error)) {
	operation(api, huma.Operation{OperationID: id, Method: http.MethodPost, Path: path, Summary: summary}, fn)
}

func post[I, O any, P sent[I]](api huma.API, id, path, summary string, fn func(context.Context, *I) (O, error)) {
	received[I, O, P](api, huma.Operation{OperationID: id, Method: http.MethodPost, Path: path, Summary: summary}, fn)
}

func put[I, O any, P sent[I]](api huma.API, id, path, summary string, fn func(context.Context, *I) (O, error)) {
	received[I, O, P](api, huma.Operation{OperationID: id, Method: http.MethodPut, Path: path, Summary: summary}, fn)
}

func del[I, O any](api huma.API, id, path, summary string, fn func(context.Context, *I) (O, error)) {
	operation(api, huma.Operation{OperationID: id, Method: http.MethodDelete, Path: path, Summary: summary}, fn)
}

// Problem is RFC 9457 problem+json with the fields that need another value.
type Problem struct {
	Title  string      `json:"title"`
	Status int         `json:"status"`
	Detail string      `json:"detail"`
	Errors []*BadField `json:"errors,omitempty"`
}

func (p *Problem) Error() string { return p.Detail }

// GetStatus implements huma.StatusError.
func (p *Problem) GetStatus() int { return p.Status }

// ContentType implements huma.ContentTypeFilter.
func (p *Problem) ContentType(of string) string {
	return strings.Replace(of, "application/json", "application/problem+json", 1)
}

// BadField is a field that needs another value: Says has the quantities of Message.
type BadField struct {
	Location string           `json:"location"`
	Message  string           `json:"message"`
	Says     message.Sentence `json:"says"`
}

func (b *BadField) Error() string { return b.Location + ": " + b.Message }

// Conflict is the problem of a stale edit, with what is stored now.
type Conflict struct {
	Problem
	Current any `json:"current"`
}

// problem turns an error of a use case into RFC 9457 problem+json.
func problem(ctx context.Context, err error) error {
	var bad fielderr.Errors
	var stale app.Conflict
	var used app.InUse
	var said huma.StatusError
	switch {
	case errors.As(err, &said):
		return said
	case errors.As(err, &bad):
		details := make([]error, len(bad))
		for i, f := range bad {
			dot := "."
			if strings.HasPrefix(f.Path, "[") {
				dot = ""
			}
			details[i] = &BadField{strings.TrimSuffix("body"+dot+f.Path, "."), f.Message, f.Says}
		}
		return huma.Error422UnprocessableEntity("some fields need another value; nothing was stored", details...)
	case errors.As(err, &stale):
		return &Conflict{Problem{Status: http.StatusConflict, Title: "Conflict", Detail: stale.Error()}, stale.Current}
	case errors.As(err, &used):
		return huma.Error409Conflict("cannot be deleted: it is in use by " + strings.Join(used.By, ", "))
	case errors.Is(err, app.ErrNotFound):
		return huma.Error404NotFound("there is no such thing here")
	case errors.Is(err, app.ErrFull):
		slog.ErrorContext(ctx, "no room", "err", err)
		return huma.NewError(http.StatusInsufficientStorage, app.ErrFull.Error())
	case errors.Is(err, app.ErrTaken): // sent twice at once: the other one is stored
		return huma.Error503ServiceUnavailable("this is being stored; send it again")
	case errors.Is(err, context.Canceled):
		return huma.NewError(499, "the request was given up")
	}
	slog.ErrorContext(ctx, "request failed", "err", err)
	return huma.Error500InternalServerError("the program failed; the log says why")
}

// mostErrors is how many bad fields an answer lists.
const mostErrors = 20

// newError is huma's, with the first fields only and without what was sent: an answer
// stays small whatever the request.
func newError(status int, msg string, errs ...error) huma.StatusError {
	out := &Problem{Status: status, Title: http.StatusText(status), Detail: msg}
	for i, err := range errs {
		if i == mostErrors {
			out.Detail += fmt.Sprintf("; %d more are not listed", len(errs)-mostErrors)
			break
		}
		bad := BadField{Message: err.Error()}
		switch e := err.(type) {
		case *BadField:
			bad = *e
		case huma.ErrorDetailer:
			d := e.ErrorDetail()
			bad = BadField{Location: located(d), Message: d.Message}
		}
		if bad.Says == nil {
			bad.Says = message.Of("%s", bad.Message)
		}
		if len(bad.Location) > mostLocation {
			bad.Location = bad.Location[:mostLocation] + "…"
		}
		out.Errors = append(out.Errors, &bad)
	}
	return out
}

// mostLocation is the longest name of a field that is said back, in bytes.
const mostLocation = 200

// finite refuses numbers in a query that are none, or without end: they pass every
// bound.
func finite(api huma.API) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		for _, p := range ctx.Operation().Parameters {
			if p.In != "query" || p.Schema == nil || p.Schema.Type != huma.TypeNumber {
				continue
			}
			if v, err := strconv.ParseFloat(ctx.Query(p.Name), 64); err == nil && (math.IsNaN(v) || math.IsInf(v, 0)) {
				// What cannot be written to a client that went away is of no matter.
				_ = huma.WriteErr(api, ctx, http.StatusUnprocessableEntity,
					"some fields need another value; nothing was stored",
					&huma.ErrorDetail{Location: "query." + p.Name, Message: "must be a finite number"})
				return
			}
		}
		next(ctx)
	}
}

// streamed marks an operation that goes on as long as the client listens.
const streamed = "streamed"

// snapshot answers what only reads from one state of the database.
func snapshot(a *app.App) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		if ctx.Method() != http.MethodGet || ctx.Operation().Metadata[streamed] != nil {
			next(ctx)
			return
		}
		answered := false
		err := a.View(ctx.Context(), func(in context.Context) error {
			answered = true
			next(huma.WithContext(ctx, in))
			return nil
		})
		if err != nil && !answered { // the answer says what is wrong
			next(ctx)
		}
	}
}

// alreadyHeader tells a client that what it sent was stored before, and is not answered again.
const alreadyHeader = "X-Already-Stored"

// once stores what a client sends under an Idempotency-Key one time, however often it comes.
func once(a *app.App) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		id := ctx.Header("Idempotency-Key")
		if id == "" || len(id) > 100 || ctx.Method() == http.MethodGet {
			next(ctx)
			return
		}
		known, err := a.KnowsParcel(ctx.Context(), id)
		if err == nil && known {
			ctx.SetHeader(alreadyHeader, "yes")
			ctx.SetStatus(http.StatusOK)
			_, _ = ctx.BodyWriter().Write([]byte("{}")) // the client may have gone
			return
		}
		next(huma.WithContext(ctx, app.AsParcel(ctx.Context(), id)))
	}
}

// newAPI describes every operation on r.
func newAPI(r *gin.Engine, a *app.App, o Options, enter func(context.Context) error) huma.API {
	huma.NewError = newError
	config := huma.DefaultConfig("All Coats", o.Version)
	config.OpenAPIPath = "/api/openapi"
	config.DocsPath, config.SchemasPath = "", ""
	config.CreateHooks = nil // no $schema in the bodies
	config.Components.Schemas = newRegistry()
	onTheWay := newPieces()
	r.Use(onTheWay.gathered)
	api := humagin.New(r, config)
	api.UseMiddleware(finite(api), allowed(api), kept(a), snapshot(a), once(a))
	calculators(api)
	operations(api, a, o)
	visiting(api, enter)
	phones(api, a, o.Yard)
	people(api, a)
	changes(api, a, o.Stopping)
	onTheWay.sent(api)
	fillEnums(api.OpenAPI().Components.Schemas)
	return api
}

// newRegistry is an empty registry of schemas; null is no list in any of them.
func newRegistry() huma.Registry {
	huma.DefaultArrayNullable = false
	return huma.NewMapRegistry("#/components/schemas/", schemaName)
}

// schemaName names a schema after its type, with the core's package in front
// where the name alone would not say it ("film.Request": FilmRequest).
func schemaName(t reflect.Type, hint string) string {
	for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
		t = t.Elem()
	}
	name := huma.DefaultSchemaNamer(t, hint)
	pkg := path.Base(t.PkgPath())
	if !strings.HasPrefix(t.PkgPath(), "allcoats/core/") || strings.ContainsRune(t.Name(), '[') {
		return name
	}
	prefix := strings.ToUpper(pkg[:1]) + pkg[1:]
	if strings.HasPrefix(name, prefix) {
		return name
	}
	return prefix + name
}

// OpenAPI returns the OpenAPI 3.1 document as indented JSON.
func OpenAPI(version string) ([]byte, error) {
	gin.SetMode(gin.ReleaseMode)
	return indented(newAPI(gin.New(), nil, Options{Version: version}, nil).OpenAPI())
}
