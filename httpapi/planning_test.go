package httpapi

import (
	"context"
	"encoding/json"
	"strings"
	"testing"

	"allcoats/app"
	"allcoats/core/planning/plan"

	ics "github.com/emersion/go-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestThePlanOverTheWire(t *testing.T) {
	c := serve(t, "", true)
	boat, _ := surveyOf(t, c, 0)
	b, err := c.app.Boat(context.Background(), boat)
	require.NoError(t, err)
	path := "/api/places/" + b.PlaceID + "/plan"
	status, view := c.call("GET", path, nil)
	require.Equal(t, 200, status)
	settings := view["settings"].(map[string]any)
	settings["people"] = []any{}
	status, problem := c.call("PUT", path, map[string]any{"version": view["version"], "value": settings})
	assert.Equal(t, 422, status)
	assert.Contains(t, locations(problem), "body.people")
	status, _ = c.call("POST", path+"/move", map[string]any{"version": 99, "taskId": "none"})
	assert.Equal(t, 409, status)
	status, _ = c.call("GET", "/api/places/none/plan", nil)
	assert.Equal(t, 404, status)

	feed, head := c.get(path + ".ics")
	assert.Contains(t, head.Get("Content-Type"), "text/calendar")
	calendar, err := ics.NewDecoder(strings.NewReader(feed)).Decode()
	require.NoError(t, err)
	items := view["plan"].(map[string]any)["items"].([]any)
	assert.GreaterOrEqual(t, len(calendar.Events()), len(items), "tasks, and the windows that close")
	list, _ := c.get(path + ".csv")
	assert.Equal(t, len(items)+1, strings.Count(strings.TrimSpace(list), "\n")+1)
	book, _ := c.get(path + ".xlsx")
	assert.True(t, strings.HasPrefix(book, "PK"))

	lines, _ := c.get(path + "/risk?futures=20")
	all := strings.Split(strings.TrimSpace(lines), "\n")
	var last Line[plan.Risk]
	require.NoError(t, json.Unmarshal([]byte(all[len(all)-1]), &last))
	require.NotNil(t, last.Result)
	assert.Len(t, last.Result.Boats, 3)
}

// A calendar program cannot log in: the address lets it in to the plan alone, until another is made.
func TestACalendarFollowsThePlan(t *testing.T) {
	ctx := context.Background()
	c := serve(t, "", true)
	places, err := c.app.Places(ctx)
	require.NoError(t, err)
	at := "/api/places/" + places[0].ID + "/feed"
	status, feed := c.call("GET", at, nil)
	require.Equal(t, 200, status)
	assert.Equal(t, "", feed["path"])
	made := func() string {
		status, feed := c.call("POST", at, nil)
		require.Equal(t, 200, status)
		return feed["path"].(string)
	}
	gone, path := made(), made()
	_, err = c.app.PutUser(ctx, "", app.UserEdit{Name: "Ada", May: app.MayAll, Passphrase: "tide and spar"})
	require.NoError(t, err)
	status, _ = c.call("GET", at, nil)
	assert.Equal(t, 401, status, "nobody is logged in")
	text, head := c.get(path)
	assert.Contains(t, head.Get("Content-Type"), "text/calendar")
	calendar, err := ics.NewDecoder(strings.NewReader(text)).Decode()
	require.NoError(t, err)
	assert.NotEmpty(t, calendar.Events())
	for _, none := range []string{gone, "/calendar/.ics", "/calendar/x.ics"} {
		status, _ := c.call("GET", none, nil)
		assert.Equal(t, 404, status, none)
	}
	status, _ = c.call("POST", path, nil)
	assert.Equal(t, 401, status)
}
