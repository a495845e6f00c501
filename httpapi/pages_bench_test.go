package httpapi

import (
	"context"
	"fmt"
	"io"
	"math"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/base/calendar"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/exposure/reading"
	"allcoats/core/planning/plan"
	"allcoats/demo"
	"allcoats/instruments"
	"allcoats/store"

	"github.com/stretchr/testify/require"
)

// marina is a database of ten yards of twenty boats, each with what a new boat of hers begins
// with, and a probe at each yard with 100,000 readings.
func marina(b *testing.B, path string) {
	ctx := context.Background()
	s, err := store.Open(ctx, path)
	require.NoError(b, err)
	a, err := app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
	require.NoError(b, err)
	require.NoError(b, a.SetClock(ctx, app.FixedClock, demo.Now))
	kinds := []struct {
		template  string
		substrate survey.Substrate
	}{{"motor-launch", survey.GRP}, {"wooden-long-keel", survey.StripPlank}, {"metal-workboat", survey.Aluminium}}
	var file strings.Builder
	file.WriteString("time,temp,rh\n")
	for k, from := 0, demo.Now.Add(-100_000*time.Minute); k < 100_000; k++ {
		fmt.Fprintf(&file, "%s,%.1f,%d\n", from.Add(time.Duration(k)*time.Minute).Format(time.RFC3339),
			10+5*math.Sin(float64(k)/229), 60+k%30)
	}
	week := calendar.Week{}
	for d := 1; d <= 5; d++ {
		week[d] = calendar.Hours{FromH: 8, ToH: 17}
	}
	for y := range 10 {
		edit := demo.Yard
		edit.Name = fmt.Sprint("Yard ", y)
		place, err := a.AddPlace(ctx, edit)
		require.NoError(b, err)
		for i := range 20 {
			k := kinds[i%3]
			boat, err := a.AddBoat(ctx,
				app.NewBoat{BoatEdit: app.BoatEdit{Name: fmt.Sprint("Boat ", y, "-", i), PlaceID: place.ID,
					LaunchDate: demo.Now.AddDate(0, 0, 30+i).Format(time.DateOnly), HeadingDeg: float64(10 * (i % 4)),
					Dimensions: area.Dimensions{HullForm: area.Medium, LOAM: 8, LWLM: 7.2, BeamM: 2.8, DraughtM: 0.7,
						FreeboardM: 0.9}}, Template: k.template, Substrate: k.substrate})
			require.NoError(b, err)
			starts, err := a.Starts(ctx, boat.ID)
			require.NoError(b, err)
			var choices []app.StartChoice
			for _, s := range starts[:2] {
				choices = append(choices, app.StartChoice{SurfaceID: s.SurfaceID, Scheme: s.Schools[0].Scheme})
			}
			_, err = a.Begin(ctx, boat.ID, choices)
			require.NoError(b, err)
		}
		people := app.PlanSettings{TravelMin: 15}
		for i := range 4 {
			people.People = append(people.People, plan.Person{Name: fmt.Sprint("P", i), Week: week})
		}
		_, err = a.SetPlan(ctx, place.ID, 0, people)
		require.NoError(b, err)
		_, err = a.MakePlan(ctx, place.ID, app.Making{Quick: true, Anew: true}, nil)
		require.NoError(b, err)
		i, err := a.AddInstrument(ctx, place.ID, app.InstrumentEdit{Name: "minutes", Kind: reading.InOpen,
			Feed: app.ByFile})
		require.NoError(b, err)
		seen, err := a.PreviewReadings(ctx, i.ID, []byte(file.String()))
		require.NoError(b, err)
		_, err = a.ImportReadings(ctx, i.ID, seen.Mapping, []byte(file.String()))
		require.NoError(b, err)
	}
	require.NoError(b, s.Close())
}

// openMarina opens the marina; MARINA names a database to keep it in for further runs.
func openMarina(b *testing.B) *app.App {
	ctx := context.Background()
	path := os.Getenv("MARINA")
	if path == "" {
		path = filepath.Join(b.TempDir(), "marina.db")
	}
	if _, err := os.Stat(path); err != nil {
		marina(b, path)
	}
	s, err := store.Open(ctx, path)
	require.NoError(b, err)
	b.Cleanup(func() { require.NoError(b, s.Close()) })
	a, err := app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
	require.NoError(b, err)
	return a
}

// BenchmarkPages are the answers behind the pages of a boat among two hundred at ten yards with a
// million readings: after something was written, as nothing of it is kept then, and again.
func BenchmarkPages(b *testing.B) {
	ctx := context.Background()
	a := openMarina(b)
	h := Handler(a, Options{Version: "test", Web: files})
	boats, err := a.Boats(ctx)
	require.NoError(b, err)
	boat := boats[len(boats)/2]
	sv, err := a.Survey(ctx, boat.ID)
	require.NoError(b, err)
	surface := sv.Surfaces[0].ID
	at, place := "/api/boats/"+boat.ID, "/api/places/"+boat.PlaceID
	get := func(path string) {
		w := &discard{header: http.Header{}}
		req, err := http.NewRequest("GET", "http://localhost"+path, nil)
		require.NoError(b, err)
		h.ServeHTTP(w, req)
		require.Equal(b, 200, w.status, path)
	}
	for _, p := range []struct{ name, path string }{
		{"boats", "/api/boats"}, {"morning", "/api/morning"}, {"meta", "/api/meta"}, {"products", "/api/products"},
		{"today", at + "/today"}, {"survey", at + "/survey"},
		{"build-up", "/api/surfaces/" + surface + "/build-up"}, {"overview", at + "/overview"}, {"job", at + "/job"},
		{"bench", at + "/bench"}, {"log", at + "/log"},
		{"accounts", at + "/accounts"}, {"upkeep", at + "/upkeep"}, {"report", at + "/report"},
		{"plan", place + "/plan"}, {"stores", "/api/stores?boatId=" + boat.ID},
		{"stores-of-all", "/api/stores"}, {"weather", at + "/verdict?surfaceId=" + surface + "&productId=" +
			products(b, a) + "&method="}, {"chances", at + "/chances?surfaceId=" + surface + "&productId=" +
			products(b, a)},
		{"tent", at + "/tent"}, {"correction", at + "/correction"}, {"instruments", place + "/instruments"},
		{"search", "/api/search?q=varnish"}, {"refit", at + "/finishes/refit"},
	} {
		for _, state := range []string{"written", "again"} {
			b.Run(p.name+"/"+state, func(b *testing.B) {
				var took []time.Duration
				get(p.path)
				for b.Loop() {
					if state == "written" {
						b.StopTimer()
						require.NoError(b, a.SetCurrency(ctx, "EUR"))
						b.StartTimer()
					}
					from := time.Now()
					get(p.path)
					took = append(took, time.Since(from))
				}
				slices.Sort(took)
				b.ReportMetric(float64(took[len(took)*99/100].Microseconds())/1000, "ms-p99")
			})
		}
	}
}

func products(b *testing.B, a *app.App) string {
	all, err := a.Products(context.Background())
	require.NoError(b, err)
	i := slices.IndexFunc(all, func(p app.Product) bool { return p.Sheet.IsCoat() })
	return all[i].ID
}

// discard takes an answer and keeps its status.
type discard struct {
	header http.Header
	status int
}

func (d *discard) Header() http.Header         { return d.header }
func (d *discard) WriteHeader(status int)      { d.status = status }
func (d *discard) Write(p []byte) (int, error) { d.status = max(d.status, 200); return len(p), nil }

// BenchmarkTwentyPhones is a busy minute of a yard: twenty phones at twenty boats of one yard, each looking at three
// pages every five seconds and logging something once, over HTTP. With `GOMAXPROCS=1 GOMEMLIMIT=700MiB` it is a machine
// of one core and a gigabyte.
func BenchmarkTwentyPhones(b *testing.B) {
	ctx := context.Background()
	a := openMarina(b)
	server := httptest.NewServer(Handler(a, Options{Version: "test", Web: files}))
	defer server.Close()
	boats, err := a.Boats(ctx)
	require.NoError(b, err)
	boats = slices.DeleteFunc(boats, func(x app.Boat) bool { return x.PlaceID != boats[0].PlaceID })
	const looks, pause = 12, 5 * time.Second
	var mu sync.Mutex
	var reads, writes []time.Duration
	note := func(into *[]time.Duration, took time.Duration) {
		mu.Lock()
		defer mu.Unlock()
		*into = append(*into, took)
	}
	for b.Loop() {
		var wait sync.WaitGroup
		for k := range 20 {
			wait.Go(func() {
				boat := boats[k%len(boats)]
				tags := map[string]string{}
				time.Sleep(time.Duration(k) * pause / 20) // nobody is in step
				for i := range looks {
					began := time.Now()
					for _, page := range []string{"today", "bench", "log"} {
						url := server.URL + "/api/boats/" + boat.ID + "/" + page
						req, _ := http.NewRequest("GET", url, nil) // an address that is one
						req.Header.Set("If-None-Match", tags[url])
						from := time.Now()
						res, err := http.DefaultClient.Do(req)
						if err != nil || res.StatusCode >= 400 {
							b.Error(url, err, res)
							return
						}
						_, _ = io.Copy(io.Discard, res.Body)
						_ = res.Body.Close()
						note(&reads, time.Since(from))
						tags[url] = res.Header.Get("ETag")
					}
					if i == k%looks {
						from := time.Now()
						res, err := http.Post(server.URL+"/api/log", "application/json",
							jsonOf(b, map[string]any{"boatId": boat.ID, "kind": "other", "startedAt": demo.Now,
								"litres": 0, "wetUm": []int{},
								"thinnerPct": 0, "grit": 0, "removedUm": 0, "who": "P1", "note": "looked at her"}))
						if err != nil || res.StatusCode >= 400 {
							raw, _ := io.ReadAll(res.Body)
							b.Error(err, string(raw))
							return
						}
						_ = res.Body.Close()
						note(&writes, time.Since(from))
					}
					time.Sleep(pause - time.Since(began))
				}
			})
		}
		wait.Wait()
	}
	p := func(took []time.Duration, share float64) float64 {
		slices.Sort(took)
		return float64(took[int(share*float64(len(took)-1))].Microseconds()) / 1000
	}
	var m runtime.MemStats
	runtime.ReadMemStats(&m)
	b.ReportMetric(p(reads, 0.5), "ms-read-p50")
	b.ReportMetric(p(reads, 0.99), "ms-read-p99")
	b.ReportMetric(p(writes, 0.5), "ms-write-p50")
	b.ReportMetric(p(writes, 0.99), "ms-write-p99")
	b.ReportMetric(float64(len(reads))/looks/pause.Seconds()/float64(b.N), "reads/s")
	b.ReportMetric(float64(m.Sys>>20), "MB")
	b.ReportMetric(0, "ns/op")
}
