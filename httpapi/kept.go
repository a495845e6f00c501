package httpapi

import (
	"bytes"
	"crypto/sha256"
	"encoding/base64"
	"io"
	"net/http"
	"strings"

	"allcoats/app"

	"github.com/danielgtaylor/huma/v2"
	lru "github.com/hashicorp/golang-lru/v2"
	"github.com/klauspost/compress/gzip"
)

// passing are the questions whose answers are made of more than the database, the odds and the
// time: of who asks, of instruments that are listened to, of files.
var passing = map[string]bool{"who": true, "list-users": true, "audit": true, "get-phones": true, "get-values": true,
	"backups": true}

// keepable marks an operation whose answers are kept while nothing changes.
const keepable = "keepable"

// mostKept is how many answers are kept: of a boat's pages, for the boats that are looked at.
const mostKept = 512

// answered is an answer that was given.
type answered struct {
	edition app.Edition
	tag     string // names what it says: RFC 9110, 8.8.3
	packed  []byte // JSON by gzip
}

// kept gives the answer that was given before to the same question, while nothing has changed
// since; to a client that holds it, 304 alone.
func kept(a *app.App) func(huma.Context, func(huma.Context)) {
	known, _ := lru.New[string, answered](mostKept) // an error would be a size below one
	return func(ctx huma.Context, next func(huma.Context)) {
		if ctx.Operation().Metadata[keepable] == nil {
			next(ctx)
			return
		}
		edition, err := a.Edition(ctx.Context())
		if err != nil {
			next(ctx)
			return
		}
		url := ctx.URL()
		question := url.RequestURI()
		was, ok := known.Get(question)
		if !ok || was.edition != edition {
			fresh := &overheard{asking: ctx}
			next(fresh)
			body := fresh.body.Bytes()
			if fresh.status != http.StatusOK {
				ctx.SetStatus(fresh.status)
				_, _ = ctx.BodyWriter().Write(body) // the client may have gone
				return
			}
			sum := sha256.Sum256(body)
			was = answered{edition, `W/"` + base64.RawURLEncoding.EncodeToString(sum[:12]) + `"`, packed(body)}
			known.Add(question, was)
		}
		was.give(ctx)
	}
}

func (k answered) give(ctx huma.Context) {
	ctx.SetHeader("ETag", k.tag)
	ctx.AppendHeader("Vary", "Accept-Encoding")
	if ctx.Header("If-None-Match") == k.tag {
		ctx.SetStatus(http.StatusNotModified)
		return
	}
	ctx.SetHeader("Content-Type", "application/json")
	if strings.Contains(ctx.Header("Accept-Encoding"), "gzip") {
		ctx.SetHeader("Content-Encoding", "gzip")
		ctx.SetStatus(http.StatusOK)
		_, _ = ctx.BodyWriter().Write(k.packed) // the client may have gone
		return
	}
	ctx.SetStatus(http.StatusOK)
	if r, err := gzip.NewReader(bytes.NewReader(k.packed)); err == nil { // packed below
		_, _ = r.WriteTo(ctx.BodyWriter())
	}
}

func packed(body []byte) []byte {
	var b bytes.Buffer
	w, _ := gzip.NewWriterLevel(&b, gzip.BestSpeed) // a level that there is
	_, _ = w.Write(body)                            // a buffer takes all
	_ = w.Close()
	return b.Bytes()
}

// asking is a question under a name that its own method leaves free.
type asking huma.Context

// overheard holds an answer back while it is written.
type overheard struct {
	asking
	status int
	body   bytes.Buffer
}

func (o *overheard) SetStatus(code int)    { o.status = code }
func (o *overheard) Status() int           { return o.status }
func (o *overheard) BodyWriter() io.Writer { return &o.body }
