package httpapi

import (
	"context"
	"encoding/json"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"
)

type none struct{}

type byID struct {
	ID string `path:"id"`
}

type body[T any] struct{ Body T }

type bodyByID[T any] struct {
	ID   string `path:"id"`
	Body T
}

// workByID is the work of a bench, with the version that the change was made on.
type workByID[T any] struct {
	ID      string `path:"id"`
	Version int    `query:"version" doc:"the version that the change was made on, 0 if nothing is kept; another one now answers 409 with both"`
	Body    T
}

// edit is a change made on a version of the thing changed.
type edit[T any] struct {
	ID   string `path:"id"`
	Body struct {
		Version int `json:"version" doc:"the version that the change was made on; another one now answers 409 with both"`
		Value   T   `json:"value"`
	}
}

type answer[T any] struct{ Body T }

// operation registers an operation whose answer is fn's result as JSON, as O describes it. What huma
// does with an answer is the same for all: it would be compiled anew for each, to twenty kilobytes.
func operation[I, O any](api huma.API, op huma.Operation, fn func(context.Context, *I) (O, error)) {
	answers[O](api, &op)
	huma.Register(api, op, func(ctx context.Context, in *I) (*answer[any], error) {
		out, err := fn(ctx, in)
		return whole(ctx, out, err)
	})
}

// received is an operation that is sent a body in JSON, as I describes it. For the same reason huma
// knows no more of the body than its text and its schema.
func received[I, O any, P sent[I]](api huma.API, op huma.Operation, fn func(context.Context, *I) (O, error)) {
	of := reflect.TypeFor[I]()
	answers[O](api, &op)
	op.RequestBody = &huma.RequestBody{Required: true, Content: jsonBody(api, of, op.OperationID+"Request")}
	do := func(ctx context.Context, id string, version int, text json.RawMessage) (*answer[any], error) {
		in := new(I)
		if err := P(in).read(id, version, text); err != nil { // it keeps to the schema, and yet
			return nil, huma.Error422UnprocessableEntity("validation failed", err)
		}
		out, err := fn(ctx, in)
		return whole(ctx, out, err)
	}
	_, byID := of.FieldByName("ID")
	_, versioned := of.FieldByName("Version")
	switch {
	case versioned:
		huma.Register(api, op, func(ctx context.Context, in *workByID[json.RawMessage]) (*answer[any], error) {
			return do(ctx, in.ID, in.Version, in.Body)
		})
	case byID:
		huma.Register(api, op, func(ctx context.Context, in *bodyByID[json.RawMessage]) (*answer[any], error) {
			return do(ctx, in.ID, 0, in.Body)
		})
	default:
		huma.Register(api, op, func(ctx context.Context, in *body[json.RawMessage]) (*answer[any], error) {
			return do(ctx, "", 0, in.Body)
		})
	}
}

// sent is a body, with the id of what it is for and the version that it was made on where it has them.
type sent[I any] interface {
	*I
	read(id string, version int, text json.RawMessage) error
}

func (b *body[T]) read(_ string, _ int, text json.RawMessage) error {
	return json.Unmarshal(text, &b.Body)
}

func (b *bodyByID[T]) read(id string, _ int, text json.RawMessage) error {
	b.ID = id
	return json.Unmarshal(text, &b.Body)
}

func (w *workByID[T]) read(id string, version int, text json.RawMessage) error {
	w.ID, w.Version = id, version
	return json.Unmarshal(text, &w.Body)
}

func (e *edit[T]) read(id string, _ int, text json.RawMessage) error {
	e.ID = id
	return json.Unmarshal(text, &e.Body)
}

func whole(ctx context.Context, out any, err error) (*answer[any], error) {
	if err != nil {
		return nil, problem(ctx, err)
	}
	return &answer[any]{out}, nil
}

func answers[O any](api huma.API, op *huma.Operation) {
	op.Responses = map[string]*huma.Response{"200": {Description: http.StatusText(http.StatusOK),
		Content: jsonBody(api, reflect.TypeFor[answer[O]](), op.OperationID+"Response")}}
}

// jsonBody describes the field Body of a type; other names it where the type has no name.
func jsonBody(api huma.API, of reflect.Type, other string) map[string]*huma.MediaType {
	if of.Name() != "" {
		other = of.Name() + "Body"
	}
	f, _ := of.FieldByName("Body") // all have it
	return map[string]*huma.MediaType{
		"application/json": {Schema: huma.SchemaFromField(api.OpenAPI().Components.Schemas, f, other)}}
}
