package httpapi

import (
	"context"
	"net/http"
	"testing"

	"allcoats/app"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// surveyOf returns the demo's boat of that number with her survey as the wire
// gives it.
func surveyOf(t testing.TB, c client, boat int) (id string, survey map[string]any) {
	boats, err := c.app.Boats(context.Background())
	require.NoError(t, err)
	id = boats[boat].ID
	status, survey := c.call("GET", "/api/boats/"+id+"/survey", nil)
	require.Equal(t, 200, status)
	return id, survey
}

func item(v any, i int) map[string]any { return v.([]any)[i].(map[string]any) }

// value is what may be set of a surface as it was read.
func value(surface map[string]any) map[string]any {
	out := map[string]any{}
	for k, v := range surface {
		switch k {
		case "id", "version", "boatId", "area", "measuring", "substrateName", "cautions", "crafts", "openDefects":
		default:
			out[k] = v
		}
	}
	return out
}

func TestASurfaceOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	boat, survey := surveyOf(t, c, 0)
	surface := item(survey["surfaces"], 0)
	path := "/api/surfaces/" + surface["id"].(string)
	edit := map[string]any{"version": surface["version"], "value": value(surface)}
	status, got := c.call("PUT", path, edit)
	require.Equal(t, 200, status)
	assert.Equal(t, surface["area"], got["area"], "what was read can be written")
	status, problem := c.call("PUT", path, edit)
	assert.Equal(t, 409, status)
	assert.Equal(t, got["version"], problem["current"].(map[string]any)["version"])

	// Previews store nothing; what is wrong is named by its path.
	bad := value(surface)
	bad["measured"] = map[string]any{"chosen": 0,
		"measures": []any{map[string]any{"method": "girths", "girths": map[string]any{"sides": 2, "stations": []any{
			map[string]any{"atM": 0, "girthM": 1}, map[string]any{"atM": 2, "girthM": 1},
			map[string]any{"atM": 1, "girthM": 1}}}}}}
	for _, call := range []struct{ method, path string }{{"POST", "/api/boats/" + boat + "/surfaces/preview"},
		{"POST", "/api/boats/" + boat + "/surfaces"}} {
		status, problem = c.call(call.method, call.path, bad)
		assert.Equal(t, 422, status)
		assert.Equal(t, []string{"body.measured.measures[0].girths.stations[2].atM"}, locations(problem))
	}
	bad["measured"] = map[string]any{"chosen": 0, "measures": []any{map[string]any{"method": "guess"}}}
	status, _ = c.call("POST", "/api/boats/"+boat+"/surfaces", bad)
	assert.Equal(t, 422, status)
	_, again := surveyOf(t, c, 0)
	assert.Len(t, again["surfaces"], 5)
}

func TestSplitCopyOrderTemplateOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	boat, survey := surveyOf(t, c, 1)
	surface := item(survey["surfaces"], 0)
	path := "/api/surfaces/" + surface["id"].(string)
	status, made := c.call("POST", path+"/split", map[string]any{"version": surface["version"], "pct": 25,
		"name": "Garboards"})
	require.Equal(t, 200, status)
	assert.Equal(t, "Garboards", made["name"])
	status, problem := c.call("POST", path+"/split", map[string]any{"version": 99, "pct": 0, "name": ""})
	assert.Equal(t, 422, status)
	assert.ElementsMatch(t, []string{"body.pct", "body.name"}, locations(problem))
	status, _ = c.call("POST", path+"/duplicate", nil)
	assert.Equal(t, 200, status)
	status, _ = c.call("POST", "/api/surfaces/none/duplicate", nil)
	assert.Equal(t, 404, status)
	status, added := c.call("POST", "/api/boats/"+boat+"/template", map[string]any{"template": "wooden-long-keel",
		"substrate": "strip-plank"})
	require.Equal(t, 200, status)
	assert.EqualValues(t, 7, added["added"], "twelve, five of whose names she has")

	_, survey = surveyOf(t, c, 1)
	var ids []any
	for _, s := range survey["surfaces"].([]any) {
		ids = append([]any{s.(map[string]any)["id"]}, ids...)
	}
	status, _ = c.call("PUT", "/api/boats/"+boat+"/surfaces/order", map[string]any{"ids": ids})
	assert.Equal(t, 200, status)
	_, after := surveyOf(t, c, 1)
	assert.Equal(t, ids[0], item(after["surfaces"], 0)["id"])
	status, problem = c.call("PUT", "/api/boats/"+boat+"/surfaces/order", map[string]any{"ids": ids[1:]})
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.ids"}, locations(problem))
}

func TestDefectsOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	boat, survey := surveyOf(t, c, 0)
	defect := map[string]any{"surfaceId": item(survey["surfaces"], 3)["id"], "kind": "soft-spot",
		"place":    map[string]any{"view": "plan", "x": 3, "y": 0.2},
		"lengthMM": 200, "widthMM": 100, "depthMM": 10, "count": 1, "action": "", "state": "found", "note": ""}
	status, made := c.call("POST", "/api/boats/"+boat+"/defects", defect)
	require.Equal(t, 200, status)
	assert.EqualValues(t, 7, made["number"])
	assert.InDelta(t, 1.15*0.2, made["repair"].(map[string]any)["fillerL"], 1e-9)
	path := "/api/defects/" + made["id"].(string)
	defect["count"] = 0
	status, problem := c.call("PUT", path, map[string]any{"version": 1, "value": defect})
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.count"}, locations(problem))
	defect["count"] = 3
	status, _ = c.call("PUT", path, map[string]any{"version": 1, "value": defect})
	assert.Equal(t, 200, status)
	status, problem = c.call("PUT", path, map[string]any{"version": 1, "value": defect})
	assert.Equal(t, 409, status)
	assert.NotNil(t, problem["current"])
	status, _ = c.call("DELETE", path, nil)
	assert.Equal(t, 200, status)
	status, _ = c.call("DELETE", path, nil)
	assert.Equal(t, 404, status)
}

func TestRingsAndDrawingsOverTheWire(t *testing.T) {
	c := serve(t, "", false)
	res, err := http.Post(c.url+"/api/rings", "application/json", jsonOf(t, map[string]any{"rings": "white, blue"}))
	require.NoError(t, err)
	defer res.Body.Close()
	assert.Equal(t, 200, res.StatusCode)
	status, drawing := c.call("POST", "/api/drawings?format=svg&unitM=0.001",
		`<svg><rect width="2000" height="500"/></svg>`)
	assert.Equal(t, 200, status)
	assert.InDelta(t, 1, item(drawing["rings"], 0)["areaM2"], 1e-9)
	status, problem := c.call("POST", "/api/drawings?format=dxf", "0\nSECTION\n")
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.file"}, locations(problem))
	status, _ = c.call("POST", "/api/drawings?format=pdf", "x")
	assert.Equal(t, 422, status)
}

func TestBoatOfAHullType(t *testing.T) {
	c := serve(t, "", false)
	_, place := c.call("POST", "/api/places", goodPlace())
	boat := goodBoat(place["id"])
	boat["template"], boat["substrate"] = "open-dinghy", "plywood"
	status, made := c.call("POST", "/api/boats", boat)
	require.Equal(t, 200, status)
	s, err := c.app.Survey(context.Background(), made["id"].(string))
	require.NoError(t, err)
	assert.Len(t, s.Surfaces, 8)
	for _, f := range s.Surfaces {
		assert.Equal(t, app.Rough, f.Measuring)
		assert.EqualValues(t, "plywood", f.Substrate)
	}
	require.NotNil(t, s.CrossCheck, "before any taping")
	assert.Contains(t, s.CrossCheck.Text.String(), "by the rule of thumb")
	boat["displacementT"] = 400
	status, problem := c.call("POST", "/api/boats", boat)
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.displacementT"}, locations(problem), "more water than she encloses")
	boat["displacementT"] = 0
	boat["template"] = "raft"
	status, problem = c.call("POST", "/api/boats", boat)
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.template"}, locations(problem))
}

// BenchmarkSurvey is the survey of the demo's first boat with her map, over
// HTTP.
func BenchmarkSurvey(b *testing.B) {
	c := serve(b, "", true)
	boat, _ := surveyOf(b, c, 0)
	for b.Loop() {
		status, _ := c.call("GET", "/api/boats/"+boat+"/survey", nil)
		require.Equal(b, 200, status)
	}
}
