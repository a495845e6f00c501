package httpapi

import (
	"context"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/netip"
	"net/url"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"allcoats/door"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A phone is let in by a code, once, stays in by what it got, and is out when it is removed; the
// computer itself needs none, and does not let itself be reached by another's name.
func TestPhonesAreLetInByACode(t *testing.T) {
	c := serve(t, "", false)
	authority, err := door.Open(filepath.Join(t.TempDir(), "a.pem"), nil, time.Now)
	require.NoError(t, err)
	yard := &Yard{Authority: authority, Pairing: &door.Pairing{}, HTTPPort: "8080", TLSPort: "8443",
		Addresses: func() ([]netip.Addr, error) { return []netip.Addr{netip.MustParseAddr("192.168.1.5")}, nil }}
	server := httptest.NewServer(Handler(c.app, Options{Version: "test", Web: files, Yard: yard}))
	t.Cleanup(server.Close)
	c.url = server.URL

	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	phone := &http.Client{Jar: jar, CheckRedirect: func(*http.Request, []*http.Request) error {
		return http.ErrUseLastResponse
	}}
	ask := func(method, path, accept string, form url.Values) (int, string) {
		req, err := http.NewRequest(method, server.URL+path, strings.NewReader(form.Encode()))
		require.NoError(t, err)
		req.Host = "192.168.1.5:8080"
		req.Header.Set("Accept", accept)
		if form != nil {
			req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		}
		res, err := phone.Do(req)
		require.NoError(t, err)
		defer res.Body.Close()
		raw, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return res.StatusCode, string(raw)
	}
	status, page := ask("GET", "/boats/b/log", "text/html", nil)
	assert.Equal(t, 401, status)
	assert.Contains(t, page, "Pair this phone")
	status, _ = ask("GET", "/api/meta", "application/json", nil)
	assert.Equal(t, 401, status)
	status, cert := ask("GET", "/authority.crt", "*/*", nil)
	assert.Equal(t, 200, status)
	assert.Equal(t, string(authority.Certificate()), cert)
	assert.NotContains(t, cert, "PRIVATE")

	_, made := c.call("POST", "/api/phones/code", nil)
	code := made["code"].(string)
	ways := made["ways"].([]any)
	assert.Equal(t, "https://192.168.1.5:8443/pair?code="+code, ways[0].(map[string]any)["url"])
	assert.True(t, strings.HasPrefix(ways[0].(map[string]any)["qr"].(string), "data:image/png;base64,"))
	_, page = ask("GET", "/pair?code="+url.QueryEscape(`"><script>`), "text/html", nil)
	assert.NotContains(t, page, "<script>")
	status, page = ask("POST", "/pair", "text/html", url.Values{"code": {"WRONG"}, "name": {"p"}})
	assert.Equal(t, 403, status)
	assert.Contains(t, page, "not the one that is shown")
	status, _ = ask("POST", "/pair", "text/html", url.Values{"code": {code}, "name": {"Ada’s phone"}})
	assert.Equal(t, 303, status)
	status, _ = ask("GET", "/api/meta", "application/json", nil)
	assert.Equal(t, 200, status)
	status, _ = ask("POST", "/pair", "text/html", url.Values{"code": {code}, "name": {"another"}})
	assert.Equal(t, 403, status, "once")

	devices, err := c.app.Devices(context.Background())
	require.NoError(t, err)
	require.Len(t, devices, 1)
	assert.Equal(t, "Ada’s phone", devices[0].Name)
	status, _ = c.call("DELETE", "/api/phones/"+devices[0].ID, nil)
	assert.Equal(t, 200, status)
	status, _ = ask("GET", "/api/meta", "application/json", nil)
	assert.Equal(t, 401, status, "shut out")
	status, _ = c.call("DELETE", "/api/phones/"+devices[0].ID, nil)
	assert.Equal(t, 404, status)
}

// Without --yard no code is given out.
func TestNoPhonesWithoutAYard(t *testing.T) {
	c := serve(t, "", false)
	_, p := c.call("GET", "/api/phones", nil)
	assert.Equal(t, false, p["open"])
	status, _ := c.call("POST", "/api/phones/code", nil)
	assert.Equal(t, 422, status)
}
