package httpapi

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"net/http"
	"reflect"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"

	"github.com/danielgtaylor/huma/v2"
)

// Line is a line of an answer in JSON lines: the share done, and in the last one the
// result, or the trouble that there is none.
type Line[R any] struct {
	Done    float64          `json:"done"`
	Result  *R               `json:"result,omitempty"`
	Trouble message.Sentence `json:"trouble,omitempty"`
}

// lineStep is the least share done that is worth a line.
const lineStep = 0.01

// lines registers an operation that answers in JSON lines while it works; closing the
// connection stops the work. Its last line has a result or a trouble. What check
// refuses is answered as a problem, without lines.
func lines[I, R any](api huma.API, op huma.Operation, check func(ctx context.Context, in *I) error,
	fn func(ctx context.Context, in *I, told func(done float64)) (R, error)) {
	schema := api.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[Line[R]](), true, "")
	op.Responses = map[string]*huma.Response{"200": {
		Description: "OK", Content: map[string]*huma.MediaType{"application/x-ndjson": {Schema: schema}}}}
	huma.Register(api, op, func(ctx context.Context, in *I) (*huma.StreamResponse, error) {
		if err := check(ctx, in); err != nil {
			return nil, problem(ctx, err)
		}
		return &huma.StreamResponse{Body: func(c huma.Context) {
			c.SetHeader("Content-Type", "application/x-ndjson")
			c.SetHeader("X-Accel-Buffering", "no")
			out := json.NewEncoder(c.BodyWriter())
			say := func(l Line[R]) {
				goOn(c.Context())
				_ = out.Encode(l) // a client that went away is seen by the context
				if f, ok := c.BodyWriter().(http.Flusher); ok {
					f.Flush()
				}
			}
			say(Line[R]{})
			said := 0.0
			got, err := fn(c.Context(), in, func(done float64) {
				if done-said >= lineStep {
					said = done
					say(Line[R]{Done: done})
				}
			})
			if err != nil {
				say(Line[R]{Done: 1, Trouble: trouble(c.Context(), err)})
				return
			}
			say(Line[R]{Done: 1, Result: &got})
		}}, nil
	})
}

// trouble says an error in words for a person.
func trouble(ctx context.Context, err error) message.Sentence {
	var bad fielderr.Errors
	var status huma.StatusError
	switch {
	case errors.As(err, &bad):
		return bad.Say()
	case errors.As(problem(ctx, err), &status):
		return message.Of("%v", status)
	}
	slog.ErrorContext(ctx, "stream failed", "err", err)
	return message.Of("the program failed; the log says why")
}
