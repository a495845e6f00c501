package httpapi

import (
	"bytes"
	"context"
	"encoding/json"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"time"
)

// opened is what a page carries of the program's answers, for src/api/early.ts: its first screen is not asked for
// over a slow line while its parts are on their way.
type opened struct {
	Time    string            `json:"time"`
	Answers map[string]opener `json:"answers"`
}

// opener is an answer with the tag that names what it says.
type opener struct {
	Tag  string          `json:"tag"`
	Body json.RawMessage `json:"body"`
}

var boatsDay = regexp.MustCompile(`^/boats/([^/]+)/today$`)

// opening are the questions that the first screen at an address asks.
func opening(path string) []string {
	asks := []string{"/api/meta", "/api/boats", "/api/places"}
	if m := boatsDay.FindStringSubmatch(path); m != nil {
		return append(asks, "/api/boats/"+url.PathEscape(m[1])+"/today")
	}
	if path == "/" || path == "/yard" {
		return append(asks, "/api/morning")
	}
	return asks
}

// openingTime is how long a page waits for the answers that it carries; after it the page comes without any.
const openingTime = 500 * time.Millisecond

// withOpening puts the answers to what its first screen asks into the page, for the one who asked for it.
func withOpening(page []byte, api http.Handler, r *http.Request) []byte {
	o, late := opened{Answers: map[string]opener{}}, time.After(openingTime)
	for _, path := range opening(r.URL.Path) {
		ask := r.Clone(context.WithoutCancel(r.Context()))
		ask.Method, ask.URL, ask.RequestURI = http.MethodGet, &url.URL{Path: path}, path
		ask.Header.Set("Accept", "application/json")
		ask.Header.Del("Accept-Encoding")
		ask.Header.Del("If-None-Match")
		done := make(chan *answerHeard, 1)
		go func() {
			heard := &answerHeard{header: http.Header{}}
			api.ServeHTTP(heard, ask)
			done <- heard
		}()
		var heard *answerHeard
		select {
		case heard = <-done:
		case <-late: // it is made on, and kept for the screen, which asks itself
			return page
		}
		if heard.status == http.StatusOK && json.Valid(heard.body.Bytes()) {
			o.Time = heard.header.Get("X-Program-Time")
			o.Answers[path] = opener{heard.header.Get("ETag"), heard.body.Bytes()}
		}
	}
	raw, err := json.Marshal(o) // escapes what would end the element
	if err != nil {
		return page // its screen asks for itself
	}
	const head = "<title>"
	return bytes.Replace(page, []byte(head), []byte(`<script type="application/json" id="early">`+string(raw)+
		"</script>"+head), 1)
}

// answerHeard is an answer of the program to itself.
type answerHeard struct {
	header http.Header
	status int
	body   bytes.Buffer
}

func (a *answerHeard) Header() http.Header { return a.header }

func (a *answerHeard) WriteHeader(status int) { a.status = status }

func (a *answerHeard) Write(b []byte) (int, error) {
	if a.status == 0 {
		a.status = http.StatusOK
	}
	return a.body.Write(b)
}

// isOpened reports whether a person opens a page, and no program keeps it for later.
func isOpened(r *http.Request) bool {
	return r.Method == http.MethodGet && strings.Contains(r.Header.Get("Accept"), "text/html")
}
