package httpapi

import (
	"bytes"
	"compress/gzip"
	"io"
	"net/http"
	"net/http/httptest"
	"testing"
	"testing/fstest"

	"github.com/andybalholm/brotli"
	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A packed file is sent as it is kept to who takes that, by gzip or plain to others: always the same file.
func TestPackedFilesForEveryBrowser(t *testing.T) {
	script := bytes.Repeat([]byte("export const coats = 5;\n"), 100)
	var kept bytes.Buffer
	w := brotli.NewWriter(&kept)
	_, err := w.Write(script)
	require.NoError(t, err)
	require.NoError(t, w.Close())
	r := gin.New()
	r.NoRoute(web(fstest.MapFS{"assets/app.js.br": {Data: kept.Bytes()}, "index.html": {Data: []byte("the page")}},
		http.NotFoundHandler()))
	for takes, want := range map[string]string{"gzip, deflate, br, zstd": "br", "gzip, deflate": "gzip", "": ""} {
		for range 2 {
			req := httptest.NewRequest("GET", "/assets/app.js", nil)
			req.Header.Set("Accept-Encoding", takes)
			res := httptest.NewRecorder()
			r.ServeHTTP(res, req)
			require.Equal(t, 200, res.Code, takes)
			assert.Equal(t, want, res.Header().Get("Content-Encoding"), takes)
			assert.Contains(t, res.Header().Get("Content-Type"), "javascript")
			assert.Contains(t, res.Header().Get("Cache-Control"), "immutable")
			assert.Equal(t, "Accept-Encoding", res.Header().Get("Vary"))
			var got io.Reader = res.Body
			switch want {
			case "br":
				got = brotli.NewReader(res.Body)
			case "gzip":
				got, err = gzip.NewReader(res.Body)
				require.NoError(t, err)
			}
			raw, err := io.ReadAll(got)
			require.NoError(t, err)
			assert.Equal(t, script, raw, takes)
		}
	}
	res := httptest.NewRecorder()
	r.ServeHTTP(res, httptest.NewRequest("GET", "/boats/x/today", nil))
	assert.Equal(t, "the page", res.Body.String())
	res = httptest.NewRecorder()
	r.ServeHTTP(res, httptest.NewRequest("GET", "/assets/none.js", nil))
	assert.Equal(t, []any{404, "no-store"}, []any{res.Code, res.Header().Get("Cache-Control")})
}
