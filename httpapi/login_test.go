package httpapi

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"strings"
	"testing"

	"allcoats/app"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// browser is one with cookies that follows no redirect.
func browser(t *testing.T) *http.Client {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return &http.Client{Jar: jar, CheckRedirect: func(*http.Request, []*http.Request) error {
		return http.ErrUseLastResponse
	}}
}

func said(t *testing.T, res *http.Response, err error) (int, string) {
	require.NoError(t, err)
	raw, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	return res.StatusCode, string(raw)
}

func logIn(t *testing.T, b *http.Client, at, name, passphrase, to string) (int, string, string) {
	res, err := b.PostForm(at+"/login", url.Values{"name": {name}, "passphrase": {passphrase}, "to": {to}})
	require.NoError(t, err)
	where := res.Header.Get("Location")
	status, text := said(t, res, nil)
	return status, text, where
}

// Once there are people everybody logs in, also at this machine; what was shown to one who logged out lets nobody in.
func TestPeopleLogIn(t *testing.T) {
	c := serve(t, "", true)
	ctx := context.Background()
	ada, err := c.app.PutUser(ctx, "", app.UserEdit{Name: "Ada", May: app.MayAll, Passphrase: "tide and spar"})
	require.NoError(t, err)
	b := browser(t)
	status, _ := said(t, must(b.Get(c.url+"/api/boats")), nil)
	assert.Equal(t, http.StatusUnauthorized, status)
	req, err := http.NewRequest(http.MethodGet, c.url+"/boats/x/today?a=1", nil)
	require.NoError(t, err)
	req.Header.Set("Accept", "text/html")
	status, page := said(t, must(b.Do(req)), nil)
	assert.Equal(t, http.StatusUnauthorized, status)
	assert.Contains(t, page, "Log in to All Coats")
	assert.Contains(t, page, `value="/boats/x/today?a=1"`)

	status, page, _ = logIn(t, b, c.url, "Ada", "tide and mast", "/")
	assert.Equal(t, http.StatusForbidden, status)
	assert.Contains(t, page, "The name or the passphrase is wrong.")
	status, _, _ = logIn(t, b, c.url, "Nobody", "tide and spar", "/")
	assert.Equal(t, http.StatusForbidden, status)
	for to, want := range map[string]string{"/boats/x": "/boats/x", "https://elsewhere.example": "/",
		"//elsewhere.example": "/", `/\elsewhere.example`: "/"} {
		status, _, where := logIn(t, b, c.url, " ada ", "tide and spar", to)
		assert.Equal(t, http.StatusSeeOther, status)
		assert.Equal(t, want, where)
	}
	status, who := said(t, must(b.Get(c.url+"/api/who")), nil)
	assert.Equal(t, http.StatusOK, status)
	assert.JSONEq(t, `{"name":"Ada","may":"all","logsIn":true}`, who)

	at, err := url.Parse(c.url)
	require.NoError(t, err)
	shown := b.Jar.Cookies(at)
	req, err = http.NewRequest(http.MethodDelete, c.url+"/api/session", nil)
	require.NoError(t, err)
	status, _ = said(t, must(b.Do(req)), nil)
	assert.Less(t, status, 300)
	b.Jar.SetCookies(at, shown)
	status, _ = said(t, must(b.Get(c.url+"/api/boats")), nil)
	assert.Equal(t, http.StatusUnauthorized, status, "the session has ended, whatever a cookie says")

	logIn(t, b, c.url, "Ada", "tide and spar", "/")
	_, err = c.app.PutUser(ctx, ada.ID, app.UserEdit{Name: "Ada", May: app.MayAll, Passphrase: "a new one of hers"})
	require.NoError(t, err)
	status, _ = said(t, must(b.Get(c.url+"/api/boats")), nil)
	assert.Equal(t, http.StatusUnauthorized, status, "a new passphrase ends what was logged in by the old one")
}

// Guesses are held back: of thousands none but the first few are even looked at.
func TestGuessesAreHeldBack(t *testing.T) {
	c := serve(t, "spar varnish", false)
	_, err := c.app.PutUser(context.Background(), "", app.UserEdit{Name: "Ada", May: app.MayAll,
		Passphrase: "tide and spar"})
	require.NoError(t, err)
	b := browser(t)
	count := map[int]int{}
	for range 60 {
		status, _, _ := logIn(t, b, c.url, "Ada", "guess", "/")
		count[status]++
	}
	assert.LessOrEqual(t, count[http.StatusForbidden], 6)
	assert.GreaterOrEqual(t, count[http.StatusTooManyRequests], 54)
	status, _, _ := logIn(t, b, c.url, "Ada", "tide and spar", "/")
	assert.Equal(t, http.StatusTooManyRequests, status, "the right one too has to wait then")
	req, err := http.NewRequest(http.MethodGet, c.url+"/api/meta", nil)
	require.NoError(t, err)
	req.SetBasicAuth("owner", "spar varnish")
	status, _ = said(t, must(b.Do(req)), nil)
	assert.Equal(t, http.StatusUnauthorized, status, "by whatever door")
}

// What a person may not is refused with who may, and changes nothing; what is done says who did it.
func TestWhatPeopleMay(t *testing.T) {
	c := serve(t, "", true)
	ctx := context.Background()
	person := func(m app.May) error {
		_, err := c.app.PutUser(ctx, "", app.UserEdit{Name: "Person " + string(m), May: m, Passphrase: "tide and spar"})
		return err
	}
	require.ErrorContains(t, person(app.MayLook), "somebody must be allowed all", "the first one is")
	for _, m := range []app.May{app.MayAll, app.MayPlan, app.MayLog, app.MayLook} {
		require.NoError(t, person(m))
	}
	require.ErrorContains(t, person(app.MayLook), "is another's name already")
	require.ErrorContains(t, c.app.RemoveUser(ctx, byName(t, c.app, "Person all")), "the last who may all")
	boats, err := c.app.Boats(ctx)
	require.NoError(t, err)
	entry := `{"boatId":"` + boats[0].ID +
		`","kind":"other","startedAt":"2026-05-01T10:00:00Z","litres":0,"wetUm":[],"thinnerPct":0,"grit":0,"removedUm":0,"who":"","note":"by person"}`
	asks := []struct {
		method, path, body string
		may                app.May
	}{
		{"GET", "/api/boats", "", app.MayLook},
		{"POST", "/api/calc/dew-point", `{"tempC":20,"rhPct":50}`, app.MayLook},
		{"POST", "/api/log", entry, app.MayLog},
		{"POST", "/api/systems", `{"name":"s","note":"","steps":[]}`, app.MayPlan},
		{"PUT", "/api/currency", `{"currency":"EUR"}`, app.MayAll},
		{"GET", "/api/backup", "", app.MayAll},
		{"GET", "/api/users", "", app.MayAll},
	}
	for _, m := range app.Mays {
		b := browser(t)
		status, _, _ := logIn(t, b, c.url, "Person "+string(m), "tide and spar", "/")
		require.Equal(t, http.StatusSeeOther, status)
		for _, ask := range asks {
			req, err := http.NewRequest(ask.method, c.url+ask.path, strings.NewReader(ask.body))
			require.NoError(t, err)
			req.Header.Set("Content-Type", "application/json")
			status, text := said(t, must(b.Do(req)), nil)
			if m.Holds(ask.may) {
				assert.NotEqual(t, http.StatusForbidden, status, "%s %s as %s", ask.method, ask.path, m)
			} else {
				assert.Equal(t, http.StatusForbidden, status, "%s %s as %s", ask.method, ask.path, m)
				assert.Contains(t, text, "Person "+string(m)+" may "+string(m))
			}
		}
	}
	audit, err := c.app.Audit(ctx)
	require.NoError(t, err)
	who := map[string]int{}
	for _, e := range audit {
		if e.Path == "/api/log" {
			who[e.Who]++
			assert.Equal(t, "Log something done; the same id sent again is stored once", e.What)
		}
	}
	assert.Equal(t, map[string]int{"Person log": 1, "Person plan": 1, "Person all": 1}, who)
}

// Every operation has been thought of: what stores nothing asks to look, and nothing that is everybody's asks less than
// all.
func TestWhatOperationsAsk(t *testing.T) {
	gin.SetMode(gin.ReleaseMode)
	doc := newAPI(gin.New(), nil, Options{Version: "test"}, nil).OpenAPI()
	known := map[string]bool{}
	for path, item := range doc.Paths {
		for method, op := range map[string]*huma.Operation{"GET": item.Get, "POST": item.Post, "PUT": item.Put,
			"DELETE": item.Delete} {
			if op == nil {
				continue
			}
			known[op.OperationID] = true
			may := asks(op)
			switch {
			case strings.Contains(op.Summary, "nothing is stored"):
				assert.Equal(t, app.MayLook, may, "%s %s", method, path)
			case strings.Contains(path, "/users") || strings.Contains(path, "/backup"):
				assert.Equal(t, app.MayAll, may, "%s %s", method, path)
			case method != "GET" && strings.HasPrefix(path, "/api/surfaces") && method == "DELETE":
				assert.Equal(t, app.MayPlan, may, "%s %s", method, path)
			}
		}
	}
	for _, ids := range asked {
		for _, id := range ids {
			if !strings.HasSuffix(id, "-") {
				assert.True(t, known[id], "%s is no operation", id)
			}
		}
	}
}

func byName(t *testing.T, a *app.App, name string) string {
	all, err := a.Users(context.Background())
	require.NoError(t, err)
	for _, u := range all {
		if u.Name == name {
			return u.ID
		}
	}
	return ""
}

func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

// A full disk is said in words, with a status of its own.
func TestAFullDiskIsSaid(t *testing.T) {
	err := problem(context.Background(), fmt.Errorf("commit: %w", app.ErrFull))
	var said huma.StatusError
	require.ErrorAs(t, err, &said)
	assert.Equal(t, http.StatusInsufficientStorage, said.GetStatus())
	assert.Contains(t, said.Error(), "the disk is full: nothing was stored")
}
