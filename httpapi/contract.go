package httpapi

import (
	"context"
	"encoding/json"
	"errors"
	"strings"

	"allcoats/calc"
	"allcoats/core/base/fielderr"

	"github.com/danielgtaylor/huma/v2"
)

// Contract is a calculator that takes JSON as the HTTP interface does: no longer, and by the same
// schema.
type Contract struct {
	calc     calc.Calculator
	registry huma.Registry
	schema   *huma.Schema
}

// NewContract puts the schema before a calculator.
func NewContract(k calc.Calculator) *Contract {
	r := newRegistry()
	c := &Contract{k, r, r.Schema(k.Request(), true, k.Info().Name)}
	fillEnums(r)
	return c
}

// Run answers a request. What does not fit is at most twenty faults at its fields.
func (c *Contract) Run(ctx context.Context, request []byte) (any, error) {
	if int64(len(request)) > c.calc.MaxBytes() {
		return nil, fielderr.At("", "the request is longer than %d bytes", c.calc.MaxBytes())
	}
	var value any
	if err := json.Unmarshal(request, &value); err != nil {
		return nil, fielderr.At("", "%v", err)
	}
	var res huma.ValidateResult
	huma.Validate(c.registry, c.schema, huma.NewPathBuffer(nil, 0), huma.ModeWriteToServer, value, &res)
	var bad fielderr.Errors
	for _, err := range res.Errors {
		var detail *huma.ErrorDetail
		if errors.As(err, &detail) {
			bad.Add(strings.TrimPrefix(located(detail), "."), "%s", detail.Message)
		}
	}
	if bad != nil {
		return nil, first(bad)
	}
	out, err := c.calc.Run(ctx, request)
	if errors.As(err, &bad) {
		return nil, first(bad)
	}
	return out, err
}

// located is the place of a schema's complaint; of a field that is missing, the field.
func located(d *huma.ErrorDetail) string {
	if name, ok := strings.CutPrefix(d.Message, "expected required property "); ok {
		name, _, _ = strings.Cut(name, " ")
		return strings.TrimPrefix(d.Location+"."+name, ".")
	}
	return d.Location
}

// first keeps the first faults, and says how many more there are.
func first(bad fielderr.Errors) fielderr.Errors {
	if more := len(bad) - mostErrors; more > 0 {
		bad = bad[:mostErrors:mostErrors]
		bad.Add("", "%d more are not listed", more)
	}
	return bad
}
