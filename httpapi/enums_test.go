package httpapi

import (
	"encoding/json"
	"fmt"
	"net/http"
	"reflect"
	"strings"
	"testing"

	"allcoats/core/boat/survey"
	"allcoats/core/film/step"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every field that takes the elements of a list offers just these in the document, and
// none of them is set down a second time as a tag.
func TestEnumsAreTheListsOfCore(t *testing.T) {
	raw, err := OpenAPI("t")
	require.NoError(t, err)
	var doc struct {
		Components struct {
			Schemas map[string]struct {
				Properties map[string]struct {
					Enum []string `json:"enum"`
				} `json:"properties"`
			} `json:"schemas"`
		} `json:"components"`
	}
	require.NoError(t, json.Unmarshal(raw, &doc))
	schemas := doc.Components.Schemas
	for _, e := range enums {
		of := reflect.TypeOf(e.of)
		f, ok := of.FieldByName(e.field)
		require.True(t, ok, "%s.%s", of, e.field)
		assert.Empty(t, f.Tag.Get("enum"), "%s.%s", of, e.field)
		require.NotEmpty(t, e.values(), "%s.%s", of, e.field)
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		offered := 0
		for _, s := range schemas {
			if p := s.Properties[name]; len(p.Enum) == len(e.values()) && p.Enum[0] == e.values()[0] {
				offered++
			}
		}
		assert.Positive(t, offered, "no schema offers the values of %s.%s", of, e.field)
	}
	var planned, logged []string
	for _, k := range step.Kinds {
		if k.Planned {
			planned = append(planned, string(k.Work))
		}
		if k.Logged {
			logged = append(logged, string(k.Work))
		}
	}
	assert.Equal(t, planned, schemas["Step"].Properties["work"].Enum, "embedded")
	assert.Equal(t, logged, schemas["NewEntry"].Properties["kind"].Enum, "twice embedded")
	assert.Len(t, schemas["SurfaceEdit"].Properties["substrate"].Enum, len(survey.Substrates))
}

// The lists bind: what none of them offers is refused at its field.
func TestEnumsBind(t *testing.T) {
	status, body := serve(t, "", false).call(http.MethodPost, "/api/log",
		map[string]any{"boatId": "b", "kind": "prayed", "startedAt": "2026-05-01T10:00:00Z", "litres": 0,
			"wetUm":      []float64{},
			"thinnerPct": 0, "grit": 0, "removedUm": 0, "who": "", "note": ""})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, fmt.Sprint(body), "body.kind")
}
