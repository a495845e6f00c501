package httpapi

import (
	"encoding/json"
	"io"
	"net/http"
	"strings"
	"testing"

	"allcoats/app"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A page that a person opens carries what its first screen asks, as the program answers it; one that is kept for
// later, or opened by a stranger, carries nothing.
func TestAPageCarriesItsFirstAnswers(t *testing.T) {
	c := serve(t, "", true)
	boats, err := c.app.Boats(t.Context())
	require.NoError(t, err)
	place, err := c.app.AddPlace(t.Context(), app.PlaceEdit{Name: "</script><script>alert(1)", LatitudeDeg: 52,
		LongitudeDeg: 1, TimeZone: "Europe/London", WeatherSource: "imported"})
	require.NoError(t, err)
	page := func(path, accept string) (string, http.Header) {
		req, err := http.NewRequest("GET", c.url+path, nil)
		require.NoError(t, err)
		req.Header.Set("Accept", accept)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		defer res.Body.Close()
		raw, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		require.Equal(t, 200, res.StatusCode)
		return string(raw), res.Header
	}
	carried := func(path string) opened {
		text, header := page(path, "text/html,*/*")
		assert.Equal(t, "no-store", header.Get("Cache-Control"))
		_, rest, ok := strings.Cut(text, `<script type="application/json" id="early">`)
		require.True(t, ok)
		raw, rest, ok := strings.Cut(rest, "</script>")
		require.True(t, ok)
		assert.True(t, strings.HasPrefix(rest, "<title>"), "nothing in the answers ends the element")
		var o opened
		require.NoError(t, json.Unmarshal([]byte(raw), &o))
		return o
	}
	today := "/api/boats/" + boats[0].ID + "/today"
	for _, ask := range []string{today, "/api/morning",
		"/api/boats/none/today"} { // a page does not wait for what takes long
		res, err := http.Get(c.url + ask)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
	}
	for path, want := range map[string][]string{
		"/boats/" + boats[0].ID + "/today": {"/api/boats", "/api/meta", "/api/places", today},
		"/":                                {"/api/boats", "/api/meta", "/api/morning", "/api/places"},
		"/library":                         {"/api/boats", "/api/meta", "/api/places"},
		"/boats/none/today":                {"/api/boats", "/api/meta", "/api/places"},
	} {
		o := carried(path)
		var got []string
		for ask, a := range o.Answers {
			got = append(got, ask)
			assert.NotEmpty(t, a.Tag, ask)
		}
		assert.ElementsMatch(t, want, got, path)
		assert.NotEmpty(t, o.Time)
	}
	res, err := http.Get(c.url + today)
	require.NoError(t, err)
	defer res.Body.Close()
	direct, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	o := carried("/boats/" + boats[0].ID + "/today")
	assert.JSONEq(t, string(direct), string(o.Answers[today].Body))
	assert.Equal(t, res.Header.Get("ETag"), o.Answers[today].Tag)
	assert.Contains(t, string(o.Answers["/api/places"].Body), place.ID)

	text, header := page("/", "*/*")
	assert.NotContains(t, text, "early", "a page that is kept for later is of no moment")
	assert.Equal(t, "no-cache", header.Get("Cache-Control"))
}

// What takes long holds no page up: it comes without answers.
func TestAPageDoesNotWait(t *testing.T) {
	free := make(chan struct{})
	defer close(free)
	slow := http.HandlerFunc(func(http.ResponseWriter, *http.Request) { <-free })
	r, err := http.NewRequestWithContext(t.Context(), "GET", "/yard", nil)
	require.NoError(t, err)
	assert.Equal(t, "<title>x", string(withOpening([]byte("<title>x"), slow, r)))
}
