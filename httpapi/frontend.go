package httpapi

import (
	"errors"
	"io"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"
	"sync"

	"github.com/andybalholm/brotli"
	"github.com/gin-gonic/gin"
)

// packedEnd is the end of the name of a file of the front end that is kept packed (scripts/pack.mjs).
const packedEnd = ".br"

// unpacked are the files that browsers want otherwise than they are kept, as they were asked for: by gzip,
// as over plain http nothing else is taken.
type unpacked struct {
	files fs.FS
	known sync.Map // name: func() ([]byte, error)
}

// gzipped is a packed file by gzip.
func (u *unpacked) gzipped(name string) ([]byte, error) {
	made, _ := u.known.LoadOrStore(name, sync.OnceValues(func() ([]byte, error) {
		raw, err := u.plain(name)
		return packed(raw), err
	}))
	return made.(func() ([]byte, error))()
}

func (u *unpacked) plain(name string) ([]byte, error) {
	f, err := u.files.Open(name + packedEnd)
	if err != nil {
		return nil, err
	}
	raw, err := io.ReadAll(brotli.NewReader(f))
	return raw, errors.Join(err, f.Close())
}

// give answers with a packed file, and reports whether there is one.
func (u *unpacked) give(c *gin.Context, name string) bool {
	packed, err := fs.ReadFile(u.files, name+packedEnd)
	if err != nil {
		return false
	}
	how := ""
	switch takes := c.GetHeader("Accept-Encoding"); {
	case strings.Contains(takes, "br"):
		how = "br"
	case strings.Contains(takes, "gzip"):
		how = "gzip"
		packed, err = u.gzipped(name)
	default:
		packed, err = u.plain(name)
	}
	if err != nil {
		c.String(http.StatusInternalServerError, "the front end is damaged: build it anew")
		return true
	}
	c.Header("Vary", "Accept-Encoding")
	if how != "" {
		c.Header("Content-Encoding", how)
	}
	c.Data(http.StatusOK, mime.TypeByExtension(path.Ext(name)), packed)
	return true
}

// web serves the front end: its files, and its page for every other address,
// which the page's own router reads, with what its first screen asks of api.
func web(files fs.FS, api http.Handler) gin.HandlerFunc {
	server, u := http.FileServerFS(files), &unpacked{files: files}
	return func(c *gin.Context) {
		p := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
		if strings.HasPrefix(p, "api/") || p == "api" {
			c.Header("Content-Type", "application/problem+json")
			c.String(http.StatusNotFound, `{"title":"Not Found","status":404,"detail":"there is no such operation"}`)
			return
		}
		if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
			c.Status(http.StatusMethodNotAllowed)
			return
		}
		if strings.HasPrefix(p, "assets/") { // their names are of what they hold
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		}
		if u.give(c, p) {
			return
		}
		if info, err := fs.Stat(files, p); err == nil && !info.IsDir() {
			if strings.HasSuffix(p, ".webmanifest") {
				c.Header("Content-Type", "application/manifest+json")
			}
			server.ServeHTTP(c.Writer, c.Request)
			return
		}
		if strings.HasPrefix(p, "assets/") {
			c.Header("Cache-Control", "no-store")
			c.Status(http.StatusNotFound)
			return
		}
		page, err := fs.ReadFile(files, "index.html")
		if err != nil {
			c.String(http.StatusNotFound, "the front end is not built: run make build")
			return
		}
		c.Header("Cache-Control", "no-cache")
		if isOpened(c.Request) {
			c.Header("Cache-Control", "no-store")
			page = withOpening(page, api, c.Request)
		}
		c.Data(http.StatusOK, "text/html; charset=utf-8", page)
	}
}
