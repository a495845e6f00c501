package httpapi

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"allcoats/app"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Bounds of an answer to whatever is sent.
const (
	longestAnswer = 5 * time.Second // of one that has the machine for itself
	stuckAnswer   = time.Minute     // beside other tests
	widestAnswer  = 8 << 20         // bytes; of what is no file
	mostMemory    = 1 << 30         // bytes, all that was asked for while answering
)

// longWork are operations that play a yard's plan through many courses of the weather, or in many orders: they are
// left to the long run.
var longWork = []string{"get-risk", "get-ways", "get-chances", "make-plan"}

// ofFiles are operations whose answers are as large as what is stored.
var ofFiles = []string{"backup", "export-boat", "get-photo"}

// Whatever is sent to whichever operation, by its schema and against it: it is answered in time, in
// bounds, and never as the program's own failure: one as the schema asks and one that is spoilt, or as many as
// NONSENSE says, on a machine that does nothing else.
func TestEveryOperationWithstandsNonsense(t *testing.T) {
	tries, longest := []int{0, 3}, stuckAnswer
	if s := os.Getenv("NONSENSE"); s != "" {
		n, err := strconv.Atoi(s)
		require.NoError(t, err)
		tries = tries[:0]
		for k := range n {
			tries = append(tries, k)
		}
		longest = longestAnswer
	}
	c := serve(t, "", true)
	h := Handler(c.app, Options{Version: "test", Web: files})
	api := describe(t)
	g := &nonsense{rng: rand.New(rand.NewPCG(7, 9)), schemas: api.Components.Schemas.Map(), seen: map[string][]any{},
		ids: map[string][]string{}}
	g.look(t, c.app)
	type operation struct {
		path string
		*huma.Operation
	}
	var all []operation
	for _, path := range slices.Sorted(maps.Keys(api.Paths)) {
		item := api.Paths[path]
		for _, op := range []*huma.Operation{item.Get, item.Post, item.Put, item.Delete} {
			if op != nil && op.OperationID != "changes" { // goes on as long as one listens
				all = append(all, operation{path, op})
			}
		}
	}
	// What is read first gives examples of what may be sent; what is deleted is deleted last.
	order := map[string]int{"GET": 0, "POST": 1, "PUT": 1, "DELETE": 2}
	slices.SortStableFunc(all, func(a, b operation) int { return order[a.Method] - order[b.Method] })
	asked, statuses := 0, map[int]int{}
	for _, op := range all {
		for _, k := range tries {
			if longest == stuckAnswer && slices.Contains(longWork, op.OperationID) {
				break
			}
			target := g.address(op.path, op.Operation, k)
			body, kind := g.body(op.Operation, k)
			req, err := http.NewRequest(op.Method, "http://localhost"+target, bytes.NewReader(body))
			require.NoError(t, err)
			if kind != "" {
				req.Header.Set("Content-Type", kind)
			}
			w := httptest.NewRecorder()
			var before, after runtime.MemStats
			runtime.ReadMemStats(&before)
			from := time.Now()
			h.ServeHTTP(w, req)
			took := time.Since(from)
			runtime.ReadMemStats(&after)
			asked++
			statuses[w.Code]++
			about := fmt.Sprintf("%s %.300s\n%.600s\nanswered %d after %v: %.300s", op.OperationID, target, body,
				w.Code, took, w.Body.String())
			assert.Less(t, w.Code, 500, about)
			assert.NotZero(t, w.Code, about)
			if !strings.Contains(w.Header().Get("Content-Type"), "ndjson") { // that tells how far it is
				assert.Less(t, took, longest, about)
				assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(mostMemory), about)
			}
			if !slices.Contains(ofFiles, op.OperationID) {
				assert.LessOrEqual(t, w.Body.Len(), widestAnswer, about)
			}
			if w.Code == http.StatusOK && strings.Contains(w.Header().Get("Content-Type"), "json") {
				var v any
				if json.Unmarshal(w.Body.Bytes(), &v) == nil && op.Responses["200"] != nil {
					for _, media := range op.Responses["200"].Content {
						g.learn(v, media.Schema)
					}
				}
			}
		}
	}
	for _, b := range must(c.app.Boats(context.Background())) { // nothing got in that pages cannot be made of
		_, err := c.app.Today(context.Background(), b.ID)
		assert.NoError(t, err, b.Name)
	}
	t.Logf("%d requests to %d operations: %v", asked, len(all), statuses)
	assert.Greater(t, statuses[200]+statuses[204], asked/5, "too few get through to what is behind the schema")
}

// describe is the document of the interface, as it is served.
func describe(t *testing.T) *huma.OpenAPI {
	t.Helper()
	return newAPI(gin.New(), nil, Options{Version: "test"}, nil).OpenAPI()
}

// nonsense makes requests: some as the schema asks, some with what was read before changed a little,
// some that are no requests at all.
type nonsense struct {
	rng     *rand.Rand
	schemas map[string]*huma.Schema
	seen    map[string][]any    // values that were answered, by the name of their schema
	ids     map[string][]string // that there are, by what they are of
	many    bool                // a list of this request was made long already
}

// look finds what there is to be asked about.
func (g *nonsense) look(t *testing.T, a *app.App) {
	ctx := context.Background()
	for _, b := range must(a.Boats(ctx)) {
		g.ids["boats"] = append(g.ids["boats"], b.ID)
		survey := must(a.Survey(ctx, b.ID))
		for _, s := range survey.Surfaces {
			g.ids["surfaces"] = append(g.ids["surfaces"], s.ID)
		}
		for _, d := range survey.Defects {
			g.ids["defects"] = append(g.ids["defects"], d.ID)
		}
		for _, e := range must(a.Log(ctx, b.ID)) {
			g.ids["log"] = append(g.ids["log"], e.ID)
		}
	}
	for _, p := range must(a.Places(ctx)) {
		g.ids["places"] = append(g.ids["places"], p.ID)
		for _, i := range must(a.Instruments(ctx, p.ID)) {
			g.ids["instruments"] = append(g.ids["instruments"], i.ID)
		}
	}
	for _, p := range must(a.Products(ctx)) {
		g.ids["products"] = append(g.ids["products"], p.ID)
	}
	require.NotEmpty(t, g.ids["instruments"])
}

var oddWords = []string{"", "0", "-1", "NaN", "Infinity", "1e999", "\x00", "\xff\xfe", "../../etc/passwd",
	"'; DROP TABLE boats; --", "%00", "💥", "=1+1", "2026-02-30", "9999999999999999999",
	"2026-05-09T09:24:00Z", strings.Repeat("x", 20_000)}

// address fills a path and its query: with what there is, now and then with nonsense.
func (g *nonsense) address(path string, op *huma.Operation, k int) string {
	parts := strings.Split(path, "/")
	for i, p := range parts {
		if !strings.HasPrefix(p, "{") {
			continue
		}
		parts[i] = url.PathEscape(g.word()) + "x"
		if known := g.ids[parts[i-1]]; len(known) > 0 && g.rng.IntN(5) > 0 {
			parts[i] = known[g.rng.IntN(len(known))]
		}
	}
	q := url.Values{}
	for _, p := range op.Parameters {
		if p.In != "query" || k == 0 && !p.Required {
			continue
		}
		switch g.rng.IntN(4) {
		case 0:
			q.Set(p.Name, g.word())
		case 1: // not there
		default:
			var text string
			if name, ok := strings.CutSuffix(p.Name, "Id"); ok && len(g.ids[name+"s"]) > 0 {
				text = g.ids[name+"s"][g.rng.IntN(len(g.ids[name+"s"]))]
			} else {
				text = fmt.Sprint(g.value(p.Schema, 3))
			}
			q.Set(p.Name, text)
		}
	}
	if len(q) == 0 {
		return strings.Join(parts, "/")
	}
	return strings.Join(parts, "/") + "?" + q.Encode()
}

func (g *nonsense) word() string { return oddWords[g.rng.IntN(len(oddWords))] }

// body is a request's, with its kind.
func (g *nonsense) body(op *huma.Operation, k int) (raw []byte, kind string) {
	if op.RequestBody == nil {
		return nil, ""
	}
	kinds := slices.Sorted(maps.Keys(op.RequestBody.Content))
	kind = kinds[0]
	if kind != "application/json" {
		raw = []byte(g.word() + "\n" + g.word() + "," + g.word() + "\n")
		if k%2 == 0 {
			raw, _ = json.Marshal(g.value(&huma.Schema{Type: "array", Items: &huma.Schema{}}, 4))
		}
		return raw, kind
	}
	v := g.value(op.RequestBody.Content[kind].Schema, 6)
	g.many = false
	for range min(k, 7) { // the first is as the schema asks, each further one a little worse
		if g.rng.IntN(2) == 0 {
			v = g.spoil(v)
		}
	}
	raw, _ = json.Marshal(v) // made of what JSON has
	if k > 2 && len(raw) > 2 {
		at := g.rng.IntN(len(raw))
		switch g.rng.IntN(6) {
		case 0:
			raw = raw[:at] // cut off
		case 1:
			raw[at] = 0xff // no UTF-8
		case 2:
			raw = []byte(strings.Repeat(`{"a":[`, 20_000))
		case 3:
			raw = bytes.Replace(raw, []byte(":0"), []byte(":1e999"), 1)
		}
	}
	return raw, kind
}

// value is one as a schema asks, or one of its kind that was answered before.
func (g *nonsense) value(s *huma.Schema, depth int) any {
	if s == nil || depth == 0 {
		return nil
	}
	if s.Ref != "" {
		name := s.Ref[strings.LastIndex(s.Ref, "/")+1:]
		if known := g.seen[name]; len(known) > 0 && g.rng.IntN(3) > 0 {
			return known[g.rng.IntN(len(known))]
		}
		return g.value(g.schemas[name], depth-1)
	}
	if len(s.Enum) > 0 {
		return s.Enum[g.rng.IntN(len(s.Enum))]
	}
	switch s.Type {
	case huma.TypeBoolean:
		return g.rng.IntN(2) == 0
	case huma.TypeInteger, huma.TypeNumber:
		x := []float64{0, 1, 2, 10, 60, 1000, -1, 1e6, 1e15, 0.001}[g.rng.IntN(10)]
		if s.Minimum != nil && x < *s.Minimum {
			x = *s.Minimum
		}
		if s.Maximum != nil && x > *s.Maximum {
			x = *s.Maximum
		}
		if s.Type == huma.TypeInteger {
			return int64(x)
		}
		return x
	case huma.TypeString:
		switch {
		case s.Format == "date-time":
			return "2026-05-09T09:24:00Z"
		case g.rng.IntN(3) == 0:
			return g.word()
		case g.rng.IntN(2) == 0:
			kinds := slices.Sorted(maps.Keys(g.ids))
			known := g.ids[kinds[g.rng.IntN(len(kinds))]]
			return known[g.rng.IntN(len(known))]
		}
		return "Deck"
	case huma.TypeArray:
		out := []any{}
		for range g.rng.IntN(4) {
			out = append(out, g.value(s.Items, depth-1))
		}
		return out
	case huma.TypeObject:
		out := map[string]any{}
		for _, name := range slices.Sorted(maps.Keys(s.Properties)) {
			if slices.Contains(s.Required, name) || g.rng.IntN(3) == 0 {
				out[name] = g.value(s.Properties[name], depth-1)
			}
		}
		return out
	}
	return g.word()
}

// spoil changes one thing in a value, anywhere.
func (g *nonsense) spoil(v any) any {
	switch v := v.(type) {
	case map[string]any:
		if len(v) > 0 && g.rng.IntN(8) > 0 {
			out := maps.Clone(v)
			keys := slices.Sorted(maps.Keys(v))
			k := keys[g.rng.IntN(len(keys))]
			if out[k] = g.spoil(v[k]); g.rng.IntN(10) == 0 {
				delete(out, k)
			}
			return out
		}
	case []any:
		if len(v) > 0 && g.rng.IntN(4) > 0 {
			out := slices.Clone(v)
			i := g.rng.IntN(len(out))
			out[i] = g.spoil(out[i])
			if g.rng.IntN(6) == 0 && !g.many { // many of it
				g.many = true
				out = slices.Repeat(out[:i+1], 300)
			}
			return out
		}
	}
	return []any{nil, "", "x", -1.0, 0.0, 1e300, 1e18, -1e-300, true, []any{}, map[string]any{}, []any{nil}, g.word(),
		strings.Repeat("ab ", 40_000), g.deep()}[g.rng.IntN(15)]
}

func (g *nonsense) deep() any {
	var v any
	for range 200 {
		v = []any{v}
	}
	return v
}

// learn keeps values that were answered, by the names of their schemas.
func (g *nonsense) learn(v any, s *huma.Schema) {
	if s == nil {
		return
	}
	if s.Ref != "" {
		name := s.Ref[strings.LastIndex(s.Ref, "/")+1:]
		if len(g.seen[name]) < 12 {
			g.seen[name] = append(g.seen[name], v)
		}
		g.learn(v, g.schemas[name])
		return
	}
	switch v := v.(type) {
	case map[string]any:
		for name, inner := range v {
			g.learn(inner, s.Properties[name])
		}
	case []any:
		for i := range min(len(v), 12) {
			g.learn(v[i], s.Items)
		}
	}
}
