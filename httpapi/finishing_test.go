package httpapi

import (
	"encoding/json"
	"io"
	"net/http"
	"testing"

	"allcoats/core/geometry/polygon"
	"allcoats/formats"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every bench answers, keeps a change once, and refuses a stale one and a bad field.
func TestFinishesOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	for _, bench := range []struct {
		craft    string
		boat     int
		surface  string
		field    string
		good     any
		bad      any
		location string
	}{
		{"non-skid", 0, "Deck", "edgeM", 0.06, -1, "body.edgeM"},
		{"moulded", 0, "Deck", "trimM", 0.01, 9, "body.trimM"},
		{"gelcoat", 0, "Topsides starboard", "pct", 2, 7, "body.pct"},
		{"brightwork", 1, "Mizzen mast", "now", 5, 0, "body.now"},
		{"antifouling", 0, "Bottom", "coats", 2, 0, "body.coats"},
		{"metal", 2, "Topsides starboard", "profile", "coarse", "rough", "body.profile"},
	} {
		_, survey := surveyOf(t, c, bench.boat)
		id := ""
		for _, f := range survey["surfaces"].([]any) {
			if f := f.(map[string]any); f["name"] == bench.surface {
				id = f["id"].(string)
			}
		}
		at := "/api/surfaces/" + id + "/finishes/" + bench.craft
		status, got := c.call("GET", at, nil)
		require.Equal(t, 200, status, bench.craft)
		assert.NotEmpty(t, got["says"])
		assert.Equal(t, 1.0, got["version"])
		work := got["work"].(map[string]any)
		work[bench.field] = bench.bad
		status, problem := c.call("POST", at, work)
		assert.Equal(t, 422, status, bench.craft)
		assert.Contains(t, locations(problem), bench.location)
		work[bench.field] = bench.good
		status, _ = c.call("PUT", at+"?version=1", work)
		require.Equal(t, 200, status, bench.craft)
		status, problem = c.call("PUT", at+"?version=1", work)
		assert.Equal(t, 409, status, bench.craft)
		assert.NotNil(t, problem["current"])
	}
	status, words := c.call("GET", "/api/finishes", nil)
	require.Equal(t, 200, status)
	assert.NotEmpty(t, words["compounds"])
}

func TestTemplateOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	_, survey := surveyOf(t, c, 0)
	deck := ""
	for _, f := range survey["surfaces"].([]any) {
		if f := f.(map[string]any); f["name"] == "Deck" {
			deck = f["id"].(string)
		}
	}
	_, got := c.call("GET", "/api/surfaces/"+deck+"/finishes/non-skid", nil)
	want := got["result"].(map[string]any)["areaM2"].(float64)
	r, err := http.Get(c.url + "/api/surfaces/" + deck + "/template?format=dxf")
	require.NoError(t, err)
	defer r.Body.Close()
	assert.Contains(t, r.Header.Get("Content-Disposition"), "panels.dxf")
	data, err := io.ReadAll(r.Body)
	require.NoError(t, err)
	rings, err := formats.ReadDXF(data, 0)
	require.NoError(t, err)
	assert.InEpsilon(t, want, polygon.FromRings(rings).Area(), 1e-3)
	status, _ := c.call("GET", "/api/surfaces/"+deck+"/template?format=dwg", nil)
	assert.Equal(t, 422, status)
	status, _ = c.call("POST", "/api/surfaces/"+deck+"/finishes/non-skid/plan", nil)
	require.Equal(t, 200, status)
	_, plan := c.call("GET", "/api/surfaces/"+deck+"/build-up", nil)
	assert.NotEmpty(t, plan["places"], "the panels are told apart")
}

func TestBeginningOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	boats, err := c.app.Boats(t.Context())
	require.NoError(t, err)
	at := "/api/boats/" + boats[2].ID + "/starts"
	r, err := http.Get(c.url + at)
	require.NoError(t, err)
	defer r.Body.Close()
	var starts []struct {
		SurfaceID string
		Surface   string
		Schools   []struct{ Scheme string }
	}
	require.NoError(t, json.NewDecoder(r.Body).Decode(&starts))
	require.Len(t, starts, 1, "nothing is planned on the tender's deck")
	assert.Equal(t, "Deck", starts[0].Surface)
	status, problem := c.call("POST", at, []any{map[string]any{"surfaceId": starts[0].SurfaceID, "scheme": "hope"}})
	assert.Equal(t, 422, status)
	assert.Contains(t, locations(problem), "body[0].scheme")
	status, problem = c.call("POST", at, []any{})
	assert.Equal(t, 422, status)
	assert.NotEmpty(t, locations(problem))
	status, whole := c.call("POST", at,
		[]any{map[string]any{"surfaceId": starts[0].SurfaceID, "scheme": starts[0].Schools[0].Scheme}})
	require.Equal(t, 200, status)
	assert.NotEmpty(t, whole["surfaces"])
	status, problem = c.call("POST", at,
		[]any{map[string]any{"surfaceId": starts[0].SurfaceID, "scheme": starts[0].Schools[0].Scheme}})
	assert.Equal(t, 422, status, "once")
	assert.Contains(t, locations(problem), "body[0].surfaceId")
}
