package httpapi

import (
	"bufio"
	"context"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A client that holds an answer is told so until something it is made of changes: what is stored,
// the clock, what instruments bring. Who asks, and what is no answer of JSON, is never kept.
func TestAnswersAreKeptWhileNothingChanges(t *testing.T) {
	ctx := context.Background()
	c := serve(t, "", true)
	boats, err := c.app.Boats(ctx)
	require.NoError(t, err)
	at := "/api/boats/" + boats[0].ID
	ask := func(path, tag string) (status int, newTag, body string) {
		req, err := http.NewRequest("GET", c.url+path, nil)
		require.NoError(t, err)
		req.Header.Set("If-None-Match", tag)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		defer res.Body.Close()
		raw, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		assert.NotEmpty(t, res.Header.Get("X-Program-Time"), path)
		return res.StatusCode, res.Header.Get("ETag"), string(raw)
	}
	changes := []struct {
		name string
		do   func() error
		of   []string // the answers that are other than before
	}{
		{"nothing", func() error { return nil }, nil},
		{"a currency", func() error { return c.app.SetCurrency(ctx, "USD") }, []string{"/api/meta"}},
		{"a name", func() error {
			edit := boats[0].BoatEdit
			edit.Name = "Marsh Light"
			_, err := c.app.EditBoat(ctx, boats[0].ID, boats[0].Version, edit)
			return err
		}, []string{"/api/boats", at + "/today", at + "/survey"}},
		{"an hour", func() error {
			return c.app.SetClock(ctx, app.FixedClock, demo.Now.Add(time.Hour))
		}, []string{"/api/meta", at + "/today"}},
	}
	for _, change := range changes {
		before := map[string][2]string{}
		pages := []string{"/api/meta", "/api/boats", at + "/today", at + "/survey", "/api/products"}
		for _, p := range pages {
			status, tag, body := ask(p, "")
			require.Equal(t, 200, status, p)
			before[p] = [2]string{tag, body}
		}
		require.NoError(t, change.do(), change.name)
		for _, p := range pages {
			status, tag, body := ask(p, before[p][0])
			for _, of := range change.of {
				if of == p {
					assert.Equal(t, 200, status, "%s after %s", p, change.name)
					assert.NotEqual(t, before[p][0], tag, "%s after %s", p, change.name)
					assert.NotEqual(t, before[p][1], body, "%s after %s", p, change.name)
				}
			}
			if change.of == nil || p == "/api/products" {
				assert.Equal(t, []any{304, before[p][0], ""}, []any{status, tag, body}, "%s after %s", p, change.name)
			}
		}
	}
	for _, p := range []string{"/api/who", "/api/users", "/api/backups", "/api/phones"} {
		_, tag, _ := ask(p, "")
		assert.Empty(t, tag, p)
	}
	status, tag, _ := ask(at+"-of-nobody/today", "")
	assert.Equal(t, 404, status)
	assert.Empty(t, tag)
}

// Who listens hears what edition stands, each new one, and is let go when the server stops.
func TestChangesAreTold(t *testing.T) {
	c := serve(t, "", false)
	stopping := make(chan struct{})
	server := httptest.NewServer(Handler(c.app, Options{Version: "test", Web: files, Stopping: stopping}))
	defer server.Close()
	res, err := http.Get(server.URL + "/api/changes")
	require.NoError(t, err)
	defer res.Body.Close()
	assert.Equal(t, "text/event-stream", res.Header.Get("Content-Type"))
	lines := bufio.NewScanner(res.Body)
	next := func() string {
		for lines.Scan() {
			if told, ok := strings.CutPrefix(lines.Text(), "data: "); ok {
				return told
			}
		}
		return "end"
	}
	first := next()
	require.NoError(t, c.app.SetCurrency(context.Background(), "USD"))
	second := next()
	assert.NotEqual(t, first, second)
	close(stopping)
	assert.Equal(t, "end", next())
}
