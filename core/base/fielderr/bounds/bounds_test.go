package bounds

import (
	"fmt"
	"testing"

	"allcoats/core/base/fielderr"

	"github.com/stretchr/testify/assert"
)

type request struct {
	Litres float64   `json:"litres"`
	Coats  int       `json:"coats"`
	Rows   []request `json:"rows,omitempty"`
}

func (r request) check() error {
	var bad fielderr.Errors
	bad.Above("litres", r.Litres, 0, 10, "L")
	bad.Range("coats", float64(r.Coats), 1, 5, "coats")
	for i, row := range r.Rows {
		bad.Range(fmt.Sprintf("rows[%d].litres", i), row.Litres, -2, 2, "L")
	}
	return bad.Err()
}

// said keeps what Try finds wrong.
type said struct {
	testing.TB
	wrong []string
}

func (s *said) Helper()                   {}
func (s *said) Errorf(f string, a ...any) { s.wrong = append(s.wrong, fmt.Sprintf(f, a...)) }

// The right bounds pass; each that is off a little, open or closed where it is not, or of no figure is told.
func TestTry(t *testing.T) {
	good := request{Litres: 1, Coats: 2, Rows: []request{{}, {}}}
	Try(t, good, request.check, map[string]Bound{"litres": Above(0, 10), "coats": From(1, 5), "rows[1].litres": From(-2, 2)})
	for path, b := range map[string]Bound{"litres": Above(0, 10.01), "coats": From(1, 6), "rows[0].litres": From(-2, 1.99),
		"rows[2].litres": From(-2, 2), "metres": From(0, 1)} {
		s := &said{TB: t}
		Try(s, good, request.check, map[string]Bound{path: b})
		assert.NotEmpty(t, s.wrong, path)
	}
	for path, b := range map[string]Bound{"litres": From(0, 10), "coats": Above(1, 5), "rows[0].litres": From(-2.01, 2)} {
		s := &said{TB: t}
		Try(s, good, request.check, map[string]Bound{path: b})
		assert.NotEmpty(t, s.wrong, path)
	}
}
