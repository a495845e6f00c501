package httpapi

import (
	"bytes"
	"context"
	"encoding/json"
	"io"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"

	"allcoats/app"
	"allcoats/demo"
	"allcoats/demo/standing"
	"allcoats/instruments"
	"allcoats/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var files = fstest.MapFS{
	"index.html":    {Data: []byte("<title>All Coats</title>")},
	"assets/app.js": {Data: []byte("1")},
}

type client struct {
	t   testing.TB
	url string
	app *app.App
}

func serve(t testing.TB, passphrase string, withDemo bool) client {
	ctx := context.Background()
	path := filepath.Join(t.TempDir(), "t.db")
	if withDemo {
		require.NoError(t, standing.Write(path))
	}
	s, err := store.Open(ctx, path)
	require.NoError(t, err)
	a, err := app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
	require.NoError(t, err)
	if !withDemo {
		require.NoError(t, a.SetClock(ctx, app.FixedClock, demo.Now))
	}
	server := httptest.NewServer(Handler(a, Options{Version: "test", Web: files, Passphrase: passphrase}))
	t.Cleanup(func() { server.Close(); _ = s.Close() })
	return client{t, server.URL, a}
}

// call sends body as JSON, or as it is if it is a string, and decodes the answer.
func (c client) call(method, path string, body any) (int, map[string]any) {
	c.t.Helper()
	var r io.Reader
	kind := "application/json"
	switch b := body.(type) {
	case nil:
	case string:
		r, kind = strings.NewReader(b), "text/csv"
	default:
		raw, err := json.Marshal(b)
		require.NoError(c.t, err)
		r = bytes.NewReader(raw)
	}
	req, err := http.NewRequest(method, c.url+path, r)
	require.NoError(c.t, err)
	req.Header.Set("Content-Type", kind)
	res, err := http.DefaultClient.Do(req)
	require.NoError(c.t, err)
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	require.NoError(c.t, err)
	var out map[string]any
	if len(raw) > 0 && raw[0] == '{' {
		require.NoError(c.t, json.Unmarshal(raw, &out))
		if res.StatusCode >= 400 {
			assert.Equal(c.t, "application/problem+json", res.Header.Get("Content-Type"), path)
		}
	}
	return res.StatusCode, out
}

// locations lists the fields that a problem names.
func locations(problem map[string]any) []string {
	var out []string
	errors, _ := problem["errors"].([]any)
	for _, e := range errors {
		out = append(out, e.(map[string]any)["location"].(string))
	}
	return out
}

func goodPlace() map[string]any {
	return map[string]any{"name": "Test Quay", "latitudeDeg": 52, "longitudeDeg": 1, "timeZone": "Europe/London",
		"weatherSource": "imported"}
}

func goodBoat(placeID any) map[string]any {
	return map[string]any{
		"name": "Test Boat", "type": "dinghy", "placeId": placeID, "headingDeg": 0, "launchDate": "", "lights": false,
		"displacementT": 0, "template": "plain", "substrate": "grp",
		"dimensions": map[string]any{"hullForm": "medium", "loaM": 6, "lwlM": 5, "beamM": 2, "draughtM": 1,
			"freeboardM": 0.8, "housesM2": 0},
	}
}

func TestBadInputNamesTheFieldAndStoresNothing(t *testing.T) {
	c := serve(t, "", false)
	_, place := c.call("POST", "/api/places", goodPlace())
	set := func(m map[string]any, path string, v any) map[string]any {
		keys := strings.Split(path, ".")
		at := m
		for _, k := range keys[:len(keys)-1] {
			at = at[k].(map[string]any)
		}
		at[keys[len(keys)-1]] = v
		return m
	}
	for _, k := range []struct {
		path  string
		body  map[string]any
		where string
	}{
		{"/api/places", set(goodPlace(), "latitudeDeg", 95), "body.latitudeDeg"},
		{"/api/places", set(goodPlace(), "timeZone", "Mars/North"), "body.timeZone"},
		{"/api/places", set(goodPlace(), "latitudeDeg", "north"), "body.latitudeDeg"},
		{"/api/boats", set(goodBoat(place["id"]), "dimensions.beamM", 7), "body.dimensions.beamM"},
		{"/api/boats", set(goodBoat(place["id"]), "dimensions.loaM", "long"), "body.dimensions.loaM"},
		{"/api/boats", set(goodBoat(place["id"]), "launchDate", "soon"), "body.launchDate"},
		{"/api/boats", goodBoat("nowhere"), "body.placeId"},
		{"/api/calc/moist-air", map[string]any{"tempC": 10, "rhPct": 140}, "body.rhPct"},
	} {
		status, problem := c.call("POST", k.path, k.body)
		assert.Equal(t, 422, status, k.where)
		assert.Contains(t, locations(problem), k.where)
	}
	places, err := c.app.Places(context.Background())
	require.NoError(t, err)
	assert.Len(t, places, 1)
	boats, err := c.app.Boats(context.Background())
	require.NoError(t, err)
	assert.Empty(t, boats)
}

func TestStaleEditGetsBothVersions(t *testing.T) {
	c := serve(t, "", false)
	_, place := c.call("POST", "/api/places", goodPlace())
	_, boat := c.call("POST", "/api/boats", goodBoat(place["id"]))
	value := goodBoat(place["id"])
	delete(value, "template")
	delete(value, "substrate")
	edit := map[string]any{"version": boat["version"], "value": value}
	value["name"] = "First"
	status, _ := c.call("PUT", "/api/boats/"+boat["id"].(string), edit)
	assert.Equal(t, 200, status)
	value["name"] = "Second"
	status, problem := c.call("PUT", "/api/boats/"+boat["id"].(string), edit)
	assert.Equal(t, 409, status)
	assert.Equal(t, "First", problem["current"].(map[string]any)["name"])
	status, _ = c.call("PUT", "/api/boats/nobody", edit)
	assert.Equal(t, 404, status)
}

func TestWeatherImportIsAllOrNothing(t *testing.T) {
	c := serve(t, "", false)
	_, place := c.call("POST", "/api/places", goodPlace())
	path := "/api/places/" + place["id"].(string) + "/weather"
	status, problem := c.call("POST", path,
		"time,temperature,humidity\n2026-05-09T07:00:00Z,9,80\n2026-05-09T08:00:00Z,9,180\n")
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.line 3"}, locations(problem))
	status, got := c.call("POST", path,
		"time,temperature,humidity\n2026-05-09T07:00:00Z,9,80\n2026-05-09T08:00:00Z,9,80\n2026-05-09T09:00:00Z,9,80\n")
	assert.Equal(t, 200, status)
	assert.EqualValues(t, 2, got["measured"])
	assert.EqualValues(t, 1, got["forecast"], "after 08:24 it is a forecast")
	status, _ = c.call("POST", path, strings.Repeat("x", 50<<20))
	assert.Equal(t, 413, status)
}

func TestUploads(t *testing.T) {
	c := serve(t, "", true)
	boats, err := c.app.Boats(context.Background())
	require.NoError(t, err)
	models := "/api/boats/" + boats[0].ID + "/models?format=stl&name=hull&unit=m"
	status, problem := c.call("POST", models, strings.Repeat("x", 300))
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.file"}, locations(problem))
	status, _ = c.call("POST", models+"&up=sky", strings.Repeat("x", 300))
	assert.Equal(t, 422, status)

	// 300 MB, never read whole.
	req, err := http.NewRequest("POST", c.url+models, io.LimitReader(zeros{}, 300<<20))
	require.NoError(t, err)
	req.ContentLength = 300 << 20
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	res.Body.Close()
	assert.Equal(t, http.StatusRequestEntityTooLarge, res.StatusCode)

	survey, err := c.app.Survey(context.Background(), boats[0].ID)
	require.NoError(t, err)
	assert.Empty(t, survey.Models)
	photo := survey.Defects[3].Photos[0]
	res, err = http.Get(c.url + "/api/photos/" + photo.ID)
	require.NoError(t, err)
	defer res.Body.Close()
	assert.Equal(t, "image/jpeg", res.Header.Get("Content-Type"))
	status, _ = c.call("GET", "/api/photos/none", nil)
	assert.Equal(t, 404, status)
	status, _ = c.call("POST", "/api/defects/none/photos", "x")
	assert.Equal(t, 404, status, "no defect")
}

type zeros struct{}

func (zeros) Read(p []byte) (int, error) { clear(p); return len(p), nil }

func TestProductInUseIsKept(t *testing.T) {
	c := serve(t, "", true)
	boats, err := c.app.Boats(context.Background())
	require.NoError(t, err)
	survey, err := c.app.Survey(context.Background(), boats[0].ID)
	require.NoError(t, err)
	plan, err := c.app.BuildUp(context.Background(), survey.Surfaces[0].ID)
	require.NoError(t, err)
	status, problem := c.call("DELETE", "/api/products/"+plan.Steps[0].ProductID, nil)
	assert.Equal(t, 409, status)
	assert.Contains(t, problem["detail"], "Marsh Lantern: Bottom")
}

func TestEveryCalculatorAnswersItsExample(t *testing.T) {
	c := serve(t, "", false)
	res, err := http.Get(c.url + "/api/calc")
	require.NoError(t, err)
	defer res.Body.Close()
	var list []struct {
		Name    string
		Example any
	}
	require.NoError(t, json.NewDecoder(res.Body).Decode(&list))
	require.NotEmpty(t, list)
	for _, k := range list {
		status, _ := c.call("POST", "/api/calc/"+k.Name, k.Example)
		assert.Equal(t, 200, status, k.Name)
	}
}

func TestServing(t *testing.T) {
	c := serve(t, "", false)
	get := func(path, host string) *http.Response {
		req, err := http.NewRequest("GET", c.url+path, nil)
		require.NoError(t, err)
		if host != "" {
			req.Host = host
		}
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		res.Body.Close()
		return res
	}
	for path, want := range map[string]int{
		"/": 200, "/boats/x/today": 200, "/assets/app.js": 200, "/assets/none.js": 404, "/api/none": 404,
		"/healthz": 200, "/api/openapi.json": 200,
	} {
		assert.Equal(t, want, get(path, "").StatusCode, path)
	}
	page := get("/", "")
	assert.Contains(t, page.Header.Get("Content-Security-Policy"), "script-src 'self'")
	assert.NotContains(t, page.Header.Get("Content-Security-Policy"), "'unsafe-")
	assert.Equal(t, "nosniff", page.Header.Get("X-Content-Type-Options"))
	assert.Contains(t, get("/assets/app.js", "").Header.Get("Cache-Control"), "immutable")
	assert.Equal(t, http.StatusMisdirectedRequest, get("/", "evil.example").StatusCode,
		"a name that is not this machine's")

	req, err := http.NewRequest("POST", c.url+"/api/places", strings.NewReader("{}"))
	require.NoError(t, err)
	req.Header.Set("Origin", "http://evil.example")
	req.Header.Set("Sec-Fetch-Site", "cross-site")
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	res.Body.Close()
	assert.Equal(t, http.StatusForbidden, res.StatusCode, "from another site")
}

func TestPassphrase(t *testing.T) {
	c := serve(t, "spar varnish", false)
	for given, want := range map[string]int{"": 401, "wrong": 401, "spar varnish": 200} {
		req, err := http.NewRequest("GET", c.url+"/api/meta", nil)
		require.NoError(t, err)
		req.Host = "boatyard.example"
		if given != "" {
			req.SetBasicAuth("anyone", given)
		}
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		res.Body.Close()
		assert.Equal(t, want, res.StatusCode, given)
	}
}

// BenchmarkListening is the time from opening an existing database to the
// first answer.
func BenchmarkListening(b *testing.B) {
	ctx := context.Background()
	path := filepath.Join(b.TempDir(), "b.db")
	s, err := store.Open(ctx, path)
	require.NoError(b, err)
	a, err := app.New(ctx, s, instruments.Forecast{})
	require.NoError(b, err)
	require.NoError(b, demo.Build(ctx, a, demo.Now, app.FixedClock))
	require.NoError(b, s.Close())
	for b.Loop() {
		s, err := store.Open(ctx, path)
		require.NoError(b, err)
		a, err := app.New(ctx, s, instruments.Forecast{})
		require.NoError(b, err)
		server := httptest.NewServer(Handler(a, Options{Web: files}))
		res, err := http.Get(server.URL + "/healthz")
		require.NoError(b, err)
		res.Body.Close()
		server.Close()
		require.NoError(b, s.Close())
	}
}

// BenchmarkToday is the answer of the morning for the demo's first boat, over
// HTTP.
func BenchmarkToday(b *testing.B) {
	c := serve(b, "", true)
	boats, err := c.app.Boats(context.Background())
	require.NoError(b, err)
	for b.Loop() {
		status, _ := c.call("GET", "/api/boats/"+boats[0].ID+"/today", nil)
		require.Equal(b, 200, status)
	}
}

// jsonOf is v as a JSON body.
func jsonOf(t testing.TB, v any) io.Reader {
	raw, err := json.Marshal(v)
	require.NoError(t, err)
	return bytes.NewReader(raw)
}
