package httpapi

import (
	"allcoats/core/catalog/product"
	"context"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// get returns the body of a path that is no object, with its header.
func (c client) get(path string) (string, http.Header) {
	c.t.Helper()
	res, err := http.Get(c.url + path)
	require.NoError(c.t, err)
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	require.NoError(c.t, err)
	require.Equal(c.t, 200, res.StatusCode, string(raw))
	return string(raw), res.Header
}

func TestTheShelfOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	products, err := c.app.Products(context.Background())
	require.NoError(t, err)
	edit := map[string]any{"productId": products[0].ID, "part": "", "litres": 2.5, "batch": "A1", "supplier": "",
		"shelf": "", "note": "", "boughtOn": "", "openedOn": "", "expiresOn": ""}
	status, item := c.call("POST", "/api/stock", edit)
	require.Equal(t, 200, status)
	assert.Equal(t, 2.5, item["leftL"])
	path := "/api/stock/" + item["id"].(string)
	edit["litres"] = 1
	status, item = c.call("PUT", path, map[string]any{"version": 1, "value": edit})
	require.Equal(t, 200, status)
	assert.Equal(t, 1.0, item["litres"])
	status, problem := c.call("PUT", path, map[string]any{"version": 1, "value": edit})
	assert.Equal(t, 409, status)
	assert.Equal(t, 2.0, problem["current"].(map[string]any)["version"])
	edit["litres"], edit["openedOn"] = -1, "yesterday"
	status, problem = c.call("POST", "/api/stock", edit)
	assert.Equal(t, 422, status)
	assert.ElementsMatch(t, []string{"body.litres", "body.openedOn"}, locations(problem))
	status, _ = c.call("DELETE", path, nil)
	assert.Less(t, status, 300)
	status, _ = c.call("DELETE", path, nil)
	assert.Equal(t, 404, status)
}

func TestListsAreDownloads(t *testing.T) {
	c := serve(t, "", true)
	boat, _ := surveyOf(t, c, 0)
	list, head := c.get("/api/stores/list?format=csv&boatId=" + boat)
	assert.True(t, strings.HasPrefix(list, "product,pack,number,"), list)
	assert.Equal(t, `attachment; filename="shopping-list.csv"`, head.Get("Content-Disposition"))
	book, head := c.get("/api/stores/list?format=xlsx&boatId=" + boat)
	assert.True(t, strings.HasPrefix(book, "PK"), "a workbook is a zip file")
	assert.Contains(t, head.Get("Content-Type"), "spreadsheetml")
	sheets, head := c.get("/api/library?format=json")
	assert.True(t, strings.HasPrefix(sheets, "["))
	assert.Equal(t, "application/json", head.Get("Content-Type"))
	status, _ := c.call("GET", "/api/stores/list?format=pdf", nil)
	assert.Equal(t, 422, status)

	status, got := c.call("POST", "/api/library?format=json", sheets)
	require.Equal(t, 200, status)
	assert.Equal(t, map[string]any{"added": 0.0, "known": float64(len(product.Examples()))},
		map[string]any{"added": got["added"], "known": got["known"]})
	status, problem := c.call("POST", "/api/library?format=csv", "name,kind\nX,cheese\n")
	assert.Equal(t, 422, status)
	assert.NotEmpty(t, locations(problem))
}

func TestSystemsAndSchemesOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	ctx := context.Background()
	all, err := c.app.Systems(ctx)
	require.NoError(t, err)
	require.Len(t, all, 1, "the yard's own")
	value := map[string]any{"name": all[0].Name, "note": "again", "steps": all[0].Steps}
	status, got := c.call("PUT", "/api/systems/"+all[0].ID, map[string]any{"version": 1, "value": value})
	require.Equal(t, 200, status)
	assert.Equal(t, 2.0, got["version"])
	assert.Len(t, got["versions"], 2)
	value["name"] = " "
	status, problem := c.call("POST", "/api/systems", value)
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.name"}, locations(problem))
	status, _ = c.call("DELETE", "/api/systems/"+all[0].ID, nil)
	assert.Less(t, status, 300)
	rules, _ := c.get("/api/rules")
	assert.Contains(t, rules, "copper-near-aluminium")
}

func TestBuildUpsAreJudgedOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	boat, survey := surveyOf(t, c, 2)
	var deck map[string]any
	for i := range survey["surfaces"].([]any) {
		if s := item(survey["surfaces"], i); s["name"] == "Deck" {
			deck = s
		}
	}
	products, err := c.app.Products(context.Background())
	require.NoError(t, err)
	copper := ""
	for _, p := range products {
		if p.Sheet.Copper && p.Sheet.Name == "Antifouling, hard matrix, copper" {
			copper = p.ID
		}
	}
	path := "/api/surfaces/" + deck["id"].(string)
	step := map[string]any{"work": "coat", "productId": copper, "coats": 1, "dftUm": 50, "method": "roller",
		"lossPct": 10, "thinnerPct": 0}
	status, plan := c.call("PUT", path+"/build-up", map[string]any{"version": deck["version"], "steps": []any{step}})
	require.Equal(t, 200, status)
	found := map[string]map[string]any{}
	for i := range plan["findings"].([]any) {
		f := item(plan["findings"], i)
		found[f["rule"].(string)] = f
	}
	require.Contains(t, found, "copper-near-aluminium")
	assert.Equal(t, "stop", found["copper-near-aluminium"]["severity"])
	id := item(plan["steps"], 0)["id"]
	overrule := map[string]any{"stepId": id, "rule": "copper-near-aluminium", "reason": "", "on": true}
	status, problem := c.call("POST", path+"/overrule", overrule)
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.reason"}, locations(problem))
	overrule["reason"] = "a panel to be thrown away"
	status, plan = c.call("POST", path+"/overrule", overrule)
	require.Equal(t, 200, status)
	for i := range plan["findings"].([]any) {
		if f := item(plan["findings"], i); f["rule"] == "copper-near-aluminium" {
			assert.Equal(t, true, f["overruled"])
			assert.Equal(t, "a panel to be thrown away", f["reason"])
		}
	}

	status, overview := c.call("GET", "/api/boats/"+boat+"/overview", nil)
	require.Equal(t, 200, status)
	assert.Len(t, overview["surfaces"], 4)
	status, problem = c.call("POST", "/api/coats-for", map[string]any{"productId": copper, "dftUm": 50, "filmUm": 170,
		"hide": false, "uvStopPct": 0, "years": 0})
	require.Equal(t, 200, status)
	assert.Equal(t, 4.0, problem["coats"], "170 µm at 50 µm a coat")
	status, problem = c.call("POST", "/api/products/doubts", map[string]any{"name": ""})
	assert.Equal(t, 422, status)
	assert.NotEmpty(t, locations(problem))
}
