package app

import (
	"encoding/json"
	"maps"
	"os"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/job/quote"
	"allcoats/core/physics/weather"
	"allcoats/formats"
	"allcoats/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// stored are the kinds of the JSON documents that the database and boat files hold, by
// table and column.
var stored = map[string]any{
	"places.normals": store.Place{}.Normals.V, "places.learned": store.Place{}.Learned.V,
	"forecasts.hours": weather.Series{}, "boats.week": store.Boat{}.Week.V, "boats.tent": store.Boat{}.Tent.V,
	"surfaces.description": store.Surface{}.Description.V, "surfaces.findings": store.Surface{}.Findings.V,
	"surfaces.measured": store.Surface{}.Measured.V,
	"products.sheet":    store.Product{}.Sheet.V, "systems.steps": store.System{}.Steps.V,
	"steps.detail": store.Step{}.Detail.Detail, "sheet_editions.sheet": store.Edition{}.Sheet.V,
	"models.placing": store.Model{}.Placing.V, "models.result": store.Model{}.Result.V,
	"defects.defect":     store.Defect{}.Defect.V,
	"log_entries.wet_um": store.Entry{}.WetUm.V, "log_entries.detail": store.Entry{}.Detail.V,
	"log_history.entry":   store.Former{}.Entry.V,
	"instruments.mapping": formats.Mapping{}, "fairings.readings": Readings{}, "settings.clock": ClockSetting{},
	"plans.settings": PlanSettings{}, "plans.starts": made{}, "plans.before": []made{}, "plans.redo": []made{},
	"finishes.work non-skid": workOf(NonSkidBench), "finishes.work moulded": workOf(MouldBench),
	"finishes.work gelcoat":    workOf(GelcoatBench),
	"finishes.work brightwork": workOf(BrightBench), "finishes.work antifouling": workOf(AntifoulBench),
	"finishes.work metal": workOf(MetalBench),
	"finishes.work refit": workOf(RefitBench),
	"boats.quotes":        []quote.Quote{},
}

func workOf[W, R any](Craft[W, R]) (w W) { return w }

// What was ever stored is read whole: testdata/stored.json holds every document with every
// field set, as it was first kept. A field that is renamed, dropped or of another type
// fails here, and so does a new one until it is set down in the file. Nothing in the file
// is ever changed: what must go gets a migration.
func TestStoredDocumentsAreReadWhole(t *testing.T) {
	raw, err := os.ReadFile("testdata/stored.json")
	require.NoError(t, err)
	var kept map[string]json.RawMessage
	require.NoError(t, json.Unmarshal(raw, &kept))
	require.ElementsMatch(t, slices.Collect(maps.Keys(stored)), slices.Collect(maps.Keys(kept)))
	for name, kind := range stored {
		t.Run(name, func(t *testing.T) {
			doc := reflect.New(reflect.TypeOf(kind))
			require.NoError(t, json.Unmarshal(kept[name], doc.Interface()))
			assert.JSONEq(t, string(kept[name]), written(t, doc.Interface()))

			full := reflect.New(reflect.TypeOf(kind))
			n := 0
			fill(full.Elem(), &n)
			assert.Equal(t, fields(t, string(kept[name])), fields(t, written(t, full.Interface())))
		})
	}
}

func written(t *testing.T, doc any) string {
	raw, err := json.Marshal(doc)
	require.NoError(t, err)
	return string(raw)
}

// fill sets everything in v: one entry to a list and a map, another number everywhere.
func fill(v reflect.Value, n *int) {
	*n++
	if v.Type() == reflect.TypeFor[time.Time]() {
		v.Set(reflect.ValueOf(time.Date(2026, 5, 1, 0, *n, 0, 0, time.UTC)))
		return
	}
	if v.Type() == reflect.TypeFor[[]message.Sentence]() { // what fills a message is spans again
		v.Set(reflect.ValueOf([]message.Sentence{message.Of("%d", *n)}))
		return
	}
	switch v.Kind() {
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		fill(v.Elem(), n)
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Field(i).CanSet() {
				fill(v.Field(i), n)
			}
		}
	case reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 1, 1))
		fill(v.Index(0), n)
	case reflect.Array:
		for i := range v.Len() {
			fill(v.Index(i), n)
		}
	case reflect.Map:
		key, value := reflect.New(v.Type().Key()).Elem(), reflect.New(v.Type().Elem()).Elem()
		fill(key, n)
		fill(value, n)
		v.Set(reflect.MakeMap(v.Type()))
		v.SetMapIndex(key, value)
	case reflect.String:
		v.SetString("k" + strconv.Itoa(*n))
	case reflect.Bool:
		v.SetBool(true)
	case reflect.Float64:
		v.SetFloat(float64(*n) + 0.5)
	case reflect.Int, reflect.Int64:
		v.SetInt(int64(*n))
	default:
		panic("cannot fill " + v.Type().String())
	}
}

// fields lists the paths of all values in a document, the keys of its maps as *.
func fields(t *testing.T, doc string) []string {
	var v any
	require.NoError(t, json.Unmarshal([]byte(doc), &v))
	var out []string
	var walk func(path string, v any)
	walk = func(path string, v any) {
		switch v := v.(type) {
		case map[string]any:
			for k, e := range v {
				if _, err := strconv.Atoi(strings.TrimPrefix(k, "k")); err == nil {
					k = "*"
				}
				walk(path+"."+k, e)
			}
		case []any:
			for _, e := range v {
				walk(path+"[]", e)
			}
		default:
			out = append(out, path)
		}
	}
	walk("", v)
	slices.Sort(out)
	return out
}
