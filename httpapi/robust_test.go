package httpapi

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/calc"
	"allcoats/core/catalog/purchase"
	"allcoats/core/planning/plan"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// An answer is never many times what was sent.
func TestUnknownKeysAreAnsweredBriefly(t *testing.T) {
	c := serve(t, "", false)
	body := map[string]any{"value": 1, "from": "m", "to": "mm"}
	for i := range 20_000 {
		body[fmt.Sprintf("key%05d", i)] = strings.Repeat("x", 20)
	}
	body[strings.Repeat("y", 100_000)] = 1
	raw, err := json.Marshal(body)
	require.NoError(t, err)
	res, err := http.Post(c.url+"/api/calc/convert", "application/json", bytes.NewReader(raw))
	require.NoError(t, err)
	defer res.Body.Close()
	answer, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	assert.Equal(t, 422, res.StatusCode)
	assert.Less(t, len(answer), 20_000)
	var problem struct {
		Detail string
		Errors []map[string]any
	}
	require.NoError(t, json.Unmarshal(answer, &problem))
	assert.Len(t, problem.Errors, mostErrors)
	assert.Contains(t, problem.Detail, "more are not listed")
	assert.NotContains(t, problem.Errors[0], "value")
}

func TestNumbersThatAreNone(t *testing.T) {
	c := serve(t, "", true)
	boat, _ := surveyOf(t, c, 0)
	for _, v := range []string{"NaN", "Inf", "-Infinity", "+inf"} {
		status, problem := c.call("GET", "/api/boats/"+boat+"/bench?litres="+v, nil)
		assert.Equal(t, 422, status, v)
		assert.Equal(t, []string{"query.litres"}, locations(problem), v)
	}
	status, _ := c.call("GET", "/api/boats/"+boat+"/bench?litres=0.5", nil)
	assert.Equal(t, 200, status)
	// An answer that overflows is the request's fault.
	status, problem := c.call("POST", "/api/calc/convert", map[string]any{"value": 1e308, "from": "m", "to": "µm"})
	assert.Equal(t, 422, status)
	assert.Equal(t, []string{"body.value"}, locations(problem))
	status, _ = c.call("POST", "/api/calc/area-hull", map[string]any{"form": "parabolic", "lengthM": 1e200,
		"beamM": 1e200, "draughtM": 1e200})
	assert.Equal(t, 422, status)
}

// slow answers with a line every 60 ms, ten of them, on a server that allows 200 ms.
func TestStreamsOutliveTheServersDeadlines(t *testing.T) {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.Use(deadlined)
	api := humagin.New(r, huma.DefaultConfig("t", "1"))
	ended := make(chan error, 1)
	lines(api, huma.Operation{OperationID: "slow", Method: http.MethodGet, Path: "/slow"},
		func(context.Context, *none) error { return nil },
		func(ctx context.Context, _ *none, told func(float64)) (int, error) {
			for i := range 10 {
				select {
				case <-time.After(60 * time.Millisecond):
				case <-ctx.Done():
					ended <- ctx.Err()
					return 0, ctx.Err()
				}
				told(float64(i) / 10)
			}
			return 42, nil
		})
	lines(api, huma.Operation{
		OperationID: "bad", Method: http.MethodGet, Path: "/bad"}, func(context.Context, *none) error { return nil },
		func(context.Context, *none, func(float64)) (int, error) { return 0, app.ErrNotFound })
	server := httptest.NewUnstartedServer(r)
	server.Config.ReadTimeout, server.Config.WriteTimeout = 200*time.Millisecond, 200*time.Millisecond
	server.Start()
	defer server.Close()
	last := func(path string) Line[int] {
		res, err := http.Get(server.URL + path)
		require.NoError(t, err)
		defer res.Body.Close()
		raw, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		all := strings.Split(strings.TrimSpace(string(raw)), "\n")
		var l Line[int]
		require.NoError(t, json.Unmarshal([]byte(all[len(all)-1]), &l))
		return l
	}
	l := last("/slow")
	require.NotNil(t, l.Result)
	assert.Equal(t, 42, *l.Result)
	l = last("/bad")
	assert.Nil(t, l.Result)
	assert.Contains(t, l.Trouble.String(), "no such thing")

	// A client that leaves ends the work.
	ctx, leave := context.WithCancel(t.Context())
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, server.URL+"/slow", nil)
	require.NoError(t, err)
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	leave()
	_ = res.Body.Close() // what is left of it is not wanted
	select {
	case err := <-ended:
		assert.ErrorIs(t, err, context.Canceled)
	case <-time.After(5 * time.Second):
		t.Fatal("the work goes on without a client")
	}
}

// A body that comes slowly is taken, however short the server's patience with one that does not come.
func TestSlowUploadsGetThrough(t *testing.T) {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.Use(deadlined)
	api := humagin.New(r, huma.DefaultConfig("t", "1"))
	huma.Register(api, huma.Operation{OperationID: "take", Method: http.MethodPost, Path: "/take",
		BodyReadTimeout: 200 * time.Millisecond},
		func(_ context.Context, in *struct{ RawBody []byte }) (*answer[int], error) {
			return &answer[int]{len(in.RawBody)}, nil
		})
	server := httptest.NewUnstartedServer(r)
	server.Config.ReadTimeout, server.Config.WriteTimeout = 200*time.Millisecond, 200*time.Millisecond
	server.Start()
	defer server.Close()
	body, phone := io.Pipe()
	go func() {
		for range 10 {
			time.Sleep(60 * time.Millisecond)
			_, _ = phone.Write(make([]byte, 40)) // a server that gave up is seen below
		}
		_ = phone.Close()
	}()
	res, err := http.Post(server.URL+"/take", "application/octet-stream", body)
	require.NoError(t, err)
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	assert.Equal(t, "400", strings.TrimSpace(string(raw)))
}

// hardPurchase has no two packs that make one another useless, so that its search is long.
func hardPurchase() purchase.PackRequest {
	r := purchase.PackRequest{NeedBaseML: 9_999_991, NeedHardenerML: 4_999_999}
	for i := range 200 {
		r.Items = append(r.Items, purchase.Item{Name: fmt.Sprint(i), BaseML: 1009 + 7*i, HardenerML: 2999 - 11*i,
			PriceCents: 1000 + (i*i)%97})
	}
	return r
}

func TestACalculatorStopsWithItsClient(t *testing.T) {
	ctx, stop := context.WithTimeout(t.Context(), 200*time.Millisecond)
	defer stop()
	began := time.Now()
	_, err := calc.Purchase.Answer(ctx, hardPurchase())
	assert.ErrorIs(t, err, context.DeadlineExceeded)
	assert.Less(t, time.Since(began), 20*time.Second)
}

// Planning anew tries other orders and tells how far it is.
func TestPlanningAnewSearches(t *testing.T) {
	c := serve(t, "", true)
	_, survey := surveyOf(t, c, 0)
	place := survey["boat"].(map[string]any)["placeId"].(string)
	status, before := c.call("GET", "/api/places/"+place+"/plan", nil)
	require.Equal(t, 200, status)
	res, err := http.Post(c.url+"/api/places/"+place+"/plan/make", "application/json", nil)
	require.NoError(t, err)
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	all := strings.Split(strings.TrimSpace(string(raw)), "\n")
	assert.Greater(t, len(all), 50, "rounds are told")
	var end Line[app.YardPlan]
	require.NoError(t, json.Unmarshal([]byte(all[len(all)-1]), &end))
	require.NotNil(t, end.Result)
	require.NotNil(t, end.Result.Plan)
	var old app.YardPlan
	raw, err = json.Marshal(before)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(raw, &old))
	assert.LessOrEqual(t, late(*end.Result.Plan), late(*old.Plan), "no later than the plan that stood")
}

func late(p plan.Plan) (h float64) {
	for _, l := range p.Launches {
		h += l.LateH
	}
	return h
}

func TestTheProgramsTimeIsTold(t *testing.T) {
	c := serve(t, "", true)
	res, err := http.Get(c.url + "/api/meta")
	require.NoError(t, err)
	res.Body.Close()
	assert.Equal(t, "2026-05-09T08:24:00Z", res.Header.Get("X-Program-Time"))
}

func TestAForeignBackupIsRefused(t *testing.T) {
	c := serve(t, "", true)
	empty, err := http.Get(c.url + "/api/backup")
	require.NoError(t, err)
	good, err := io.ReadAll(empty.Body)
	require.NoError(t, err)
	empty.Body.Close()
	put := func(raw []byte) (int, string) {
		res, err := http.Post(c.url+"/api/backup", "application/octet-stream", bytes.NewReader(raw))
		require.NoError(t, err)
		defer res.Body.Close()
		answer, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return res.StatusCode, string(answer)
	}
	boats := func() int {
		list, err := c.app.Boats(t.Context())
		require.NoError(t, err)
		return len(list)
	}
	foreign := bytes.Clone(good)
	copy(foreign[68:72], "NOTE") // the application id in SQLite's header
	status, said := put(foreign)
	assert.Equal(t, 422, status)
	assert.Contains(t, said, "is no backup of this program")
	status, _ = put(append([]byte("SQLite format 3\x00"), make([]byte, 4080)...))
	assert.Equal(t, 422, status)
	assert.Equal(t, 3, boats(), "the yard is as it was")
	status, said = put(good)
	assert.Equal(t, 200, status)
	assert.Contains(t, said, "before-restore-")
	assert.Equal(t, 3, boats())
}
