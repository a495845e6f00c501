package httpapi

import (
	"encoding/json"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestBenchAndLogOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	boat, survey := surveyOf(t, c, 0)
	base := "/api/boats/" + boat
	status, bench := c.call("GET", base+"/bench", nil)
	require.Equal(t, 200, status)
	assert.NotEmpty(t, bench["checks"])
	targets := bench["pot"].(map[string]any)["targets"].([]any)
	require.NotEmpty(t, targets)
	product := bench["productId"].(string)

	// Half the litres, half of each part.
	status, half := c.call("GET", base+"/bench?litres=0.2&surfaceId="+bench["surfaceId"].(string), nil)
	require.Equal(t, 200, status)
	assert.InDelta(t, 0.2, half["litres"], 1e-9)
	status, cold := c.call("GET", base+"/bench?potC=-5&surfaceId="+bench["surfaceId"].(string), nil)
	require.Equal(t, 200, status)
	assert.Equal(t, -5.0, cold["potC"], "a frosty pot is told, not taken for no answer")
	status, problem := c.call("GET", base+"/bench?productId=none", nil)
	assert.Equal(t, 422, status)
	assert.Contains(t, locations(problem), "body.productId")

	pot := map[string]any{"id": "0190f0a0-0000-7000-8000-00000000000a", "productId": product, "litres": 0.5,
		"mixedAt": bench["now"]}
	status, _ = c.call("PUT", base+"/pots", pot)
	require.Equal(t, 200, status)
	pot["id"] = "not an id"
	status, problem = c.call("PUT", base+"/pots", pot)
	assert.Equal(t, 422, status)
	assert.Contains(t, locations(problem), "body.id")

	entry := map[string]any{"id": "0190f0a0-0000-7000-8000-00000000000b", "surfaceId": item(survey["surfaces"],
		0)["id"], "kind": "wash", "startedAt": bench["now"], "litres": 0, "wetUm": []any{}, "thinnerPct": 0, "grit": 0,
		"removedUm": 0, "who": "Ada", "note": ""}
	status, made := c.call("POST", "/api/log", entry)
	require.Equal(t, 200, status)
	status, again := c.call("POST", "/api/log", entry)
	require.Equal(t, 200, status)
	assert.Equal(t, made["id"], again["id"])
	entry["note"] = "something else"
	status, problem = c.call("POST", "/api/log", entry)
	assert.Equal(t, 409, status, "the same id with other contents")
	assert.NotNil(t, problem["current"])
	entry["id"], entry["kind"] = nil, "pray"
	status, problem = c.call("POST", "/api/log", entry)
	assert.Equal(t, 422, status)
	assert.Contains(t, strings.Join(locations(problem), " "), "body.")

	status, _ = c.call("GET", "/api/log/"+made["id"].(string)+"/history", nil)
	assert.Equal(t, 200, status)
	status, _ = c.call("GET", "/api/log/"+made["id"].(string)+"/suspects?seen=runs", nil)
	assert.Equal(t, 200, status)
	for _, page := range []string{"/accounts", "/upkeep", "/report"} {
		status, _ = c.call("GET", base+page, nil)
		assert.Equal(t, 200, status, page)
	}
}

func TestFilesOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	boat, _ := surveyOf(t, c, 0)
	table, head := c.get("/api/boats/" + boat + "/log.csv")
	assert.Contains(t, head.Get("Content-Type"), "text/csv")
	assert.True(t, strings.HasPrefix(table, "begun,surface,what"))
	book, _ := c.get("/api/boats/" + boat + "/log.xlsx")
	assert.True(t, strings.HasPrefix(book, "PK"))
	file, head := c.get("/api/boats/" + boat + "/file")
	assert.Contains(t, head.Get("Content-Disposition"), "boat.json")
	var doc struct{ Format string }
	require.NoError(t, json.Unmarshal([]byte(file), &doc))
	assert.Equal(t, "all-coats-boat", doc.Format)

	post := func(path, body string) (int, map[string]any) {
		res, err := http.Post(c.url+path, "application/octet-stream", strings.NewReader(body))
		require.NoError(t, err)
		defer res.Body.Close()
		var out map[string]any
		_ = json.NewDecoder(res.Body).Decode(&out) // an empty answer is told by its status
		return res.StatusCode, out
	}
	status, taken := post("/api/boat-file", file)
	require.Equal(t, 200, status)
	assert.Zero(t, taken["added"], "it is all here")
	status, problem := post("/api/boat-file", `{"format":"all-coats-boat","version":1,"tables":{}}`)
	assert.Equal(t, 422, status)
	assert.NotEmpty(t, locations(problem))

	backup, _ := c.get("/api/backup")
	status, restored := post("/api/backup", backup)
	require.Equal(t, 200, status)
	assert.Equal(t, 3.0, restored["boats"])
	status, _ = post("/api/backup", "nothing")
	assert.Equal(t, 422, status)

	status, gauged := post("/api/gauge?unit=mil", "8\n7.5\n")
	require.Equal(t, 200, status)
	assert.Equal(t, []any{203.2, 190.5}, gauged["readingsUm"])
	status, gaps := post("/api/gaps", "0;1\n-;2\n")
	require.Equal(t, 200, status)
	assert.Equal(t, []any{[]any{0.0, 1.0}, []any{nil, 2.0}}, gaps["gaps"])
	status, problem = post("/api/gaps", "deep\ndeeper;x\n")
	assert.Equal(t, 422, status)
	assert.NotEmpty(t, locations(problem))
}

func TestFairingOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	_, survey := surveyOf(t, c, 0)
	surface := item(survey["surfaces"], 1)["id"].(string)
	path := "/api/surfaces/" + surface + "/fairing"
	value := map[string]any{"round": 1, "battenM": 1, "spacingM": 0.2, "rowsM": 0.2, "maxFillMM": 8, "maxGrindMM": 0,
		"stiffnessM": 0.8, "class": "yard", "gaps": []any{[]any{0, 3, 1, nil}, []any{0, 2, 1, 0}, []any{0, 0, 0, 0}}}
	status, view := c.call("PUT", path, map[string]any{"version": 0, "value": value})
	require.Equal(t, 200, status)
	set := view["now"].(map[string]any)
	assert.Nil(t, set["depth"].([]any)[0].([]any)[3], "what was not read has no depth")
	status, _ = c.call("PUT", path, map[string]any{"id": set["id"], "version": 7, "value": value})
	assert.Equal(t, 409, status)
	value["gaps"] = []any{[]any{0, -1, 1}}
	status, problem := c.call("POST", path+"/preview", value)
	assert.Equal(t, 422, status)
	assert.Contains(t, locations(problem), "body.gaps[0][1]")
	status, build := c.call("POST", "/api/fairings/"+set["id"].(string)+"/plan", map[string]any{"school": "skims"})
	require.Equal(t, 200, status)
	assert.NotEmpty(t, build["steps"])
	status, _ = c.call("DELETE", "/api/fairings/"+set["id"].(string), nil)
	assert.Equal(t, 200, status)
	status, _ = c.call("DELETE", "/api/fairings/"+set["id"].(string), nil)
	assert.Equal(t, 404, status)

	status, sanding := c.call("GET", "/api/surfaces/"+surface+"/sanding?from=80&to=240&wet=true", nil)
	require.Equal(t, 200, status)
	assert.Len(t, sanding["steps"], 4)
	status, problem = c.call("POST", "/api/practice/panel",
		map[string]any{"moves": []any{map[string]any{"do": "fill", "filler": "hard", "mm": 90}}})
	assert.Equal(t, 422, status)
	assert.Contains(t, locations(problem), "body.moves[0].mm")
	status, day := c.call("GET", "/api/practice/day?seed=5", nil)
	require.Equal(t, 200, status)
	assert.Len(t, day["hours"], 24)
	status, answer := c.call("POST", "/api/practice/day", map[string]any{"seed": 5, "coat": true})
	require.Equal(t, 200, status)
	assert.NotEmpty(t, answer["reason"])
}
