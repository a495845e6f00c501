package httpapi

import (
	"context"
	"encoding/json"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"allcoats/app"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestInstrumentsOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	boat, _ := surveyOf(t, c, 0)
	b, err := c.app.Boat(context.Background(), boat)
	require.NoError(t, err)
	place := "/api/places/" + b.PlaceID
	status, problem := c.call("POST", place+"/instruments", map[string]any{"name": "", "kind": "air", "feed": "live"})
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.name"}, locations(problem))
	status, made := c.call("POST", place+"/instruments", map[string]any{"name": "Post", "kind": "air", "feed": "live"})
	require.Equal(t, 200, status)
	path := "/api/instruments/" + made["id"].(string)

	status, in := c.call("POST", path+"/readings", `{"at":"2026-05-09T08:00:00Z","tempC":9.5,"rhPct":80}`+"\n"+
		`{"at":"2026-05-09T08:10:00Z","tempC":9.7}`)
	require.Equal(t, 200, status)
	assert.Equal(t, 2.0, in["rows"])
	status, problem = c.call("POST", path+"/readings", `{"at":"2026-05-09T08:00:00Z","tempC":900}`)
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.line 1.tempC"}, locations(problem))

	file := "time,t,rh\n2026-05-09 07:00,9.5,0.8\n2026-05-09 07:10,9.5,0.81\n"
	status, seen := c.call("POST", path+"/preview", file)
	require.Equal(t, 200, status)
	mapping, err := json.Marshal(seen["mapping"])
	require.NoError(t, err)
	assert.Contains(t, string(mapping), "fraction")
	status, in = c.call("POST", path+"/file?mapping="+url.QueryEscape(string(mapping)), file)
	require.Equal(t, 200, status)
	assert.Equal(t, 2.0, in["rows"])
	status, problem = c.call("POST", path+"/file?mapping="+url.QueryEscape(`{"columns":3}`), file)
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.mapping"}, locations(problem))

	status, trace := c.call("GET", path+"/readings?points=100", nil)
	require.Equal(t, 200, status)
	assert.Len(t, trace["points"], 4)
	status, _ = c.call("GET", path+"/readings?from=2026-05-09T08:05:00Z&to=2026-05-09T09:00:00Z", nil)
	assert.Equal(t, 200, status)
	status, _ = c.call("DELETE", path, nil)
	assert.Less(t, status, 300)
	status, _ = c.call("GET", path+"/readings", nil)
	assert.Equal(t, 404, status)
}

func TestChancesAreStreamed(t *testing.T) {
	c := serve(t, "", true)
	boat, _ := surveyOf(t, c, 0)
	lines, head := c.get("/api/boats/" + boat + "/chances?futures=200")
	assert.Equal(t, "application/x-ndjson", head.Get("Content-Type"))
	all := strings.Split(strings.TrimSpace(lines), "\n")
	require.Greater(t, len(all), 2, "progress, then the result")
	var last Line[app.Chances]
	require.NoError(t, json.Unmarshal([]byte(all[len(all)-1]), &last))
	require.NotNil(t, last.Result)
	assert.NotEmpty(t, last.Result.Coats)
	status, _ := c.call("GET", "/api/boats/none/chances", nil)
	assert.Equal(t, 404, status)
	status, _ = c.call("GET", "/api/boats/"+boat+"/chances?futures=9", nil)
	assert.Equal(t, 422, status)

	// A client that goes away stops the work: the next one is answered at once.
	ctx, cancel := context.WithCancel(context.Background())
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, c.url+"/api/boats/"+boat+"/chances?futures=5000", nil)
	require.NoError(t, err)
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	cancel()
	assert.NoError(t, res.Body.Close())
	status, _ = c.call("GET", "/api/boats/"+boat+"/today", nil)
	assert.Equal(t, 200, status)
}

func TestTentsAndDaysOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	boat, _ := surveyOf(t, c, 2)
	status, tent := c.call("GET", "/api/boats/"+boat+"/tent", nil)
	require.Equal(t, 200, status)
	doc := tent["tent"].(map[string]any)
	doc["lengthM"] = -1
	status, problem := c.call("PUT", "/api/boats/"+boat+"/tent", map[string]any{"version": tent["version"],
		"tent": doc})
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.lengthM"}, locations(problem))
	status, _ = c.call("PUT", "/api/boats/"+boat+"/tent", map[string]any{"version": 99})
	assert.Equal(t, 409, status)
	status, gone := c.call("PUT", "/api/boats/"+boat+"/tent", map[string]any{"version": tent["version"]})
	require.Equal(t, 200, status)
	assert.NotContains(t, gone, "tent")
	months, _ := c.get("/api/usual-months?latitudeDeg=53")
	assert.Equal(t, 12, strings.Count(months, "meanC"))
	b, err := c.app.Boat(context.Background(), boat)
	require.NoError(t, err)
	status, problem = c.call("POST", "/api/places/"+b.PlaceID+"/days",
		map[string]any{"days": []any{map[string]any{"date": "2026-05-10", "minC": 9, "maxC": 3, "sky": "clear",
			"rain": "dry", "wind": "calm", "air": "dry"}}})
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.days[0].maxC"}, locations(problem))
}
