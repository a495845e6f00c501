package httpapi

import (
	"reflect"
	"strings"
	"testing"

	"allcoats/app"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/exposure/reading"
	"allcoats/core/exposure/tent"
	"allcoats/core/finish/antifoul"
	"allcoats/core/finish/brightwork"
	"allcoats/core/finish/fair"
	"allcoats/core/finish/metal"
	"allcoats/core/finish/nonskid"
	"allcoats/core/finish/refit"
	"allcoats/core/job/buildup"
	"allcoats/core/job/logbook"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What a list in core offers the API takes, and nothing else: each enum of a field
// against the list, whose elements are keys or hold them in the field named.
func TestEnumsAreTheListsOfCore(t *testing.T) {
	for _, c := range []struct {
		of    any
		field string
		list  any
		key   string
	}{
		{survey.Description{}, "Substrate", survey.Substrates, "Key"},
		{survey.Description{}, "Tone", survey.Tones, ""},
		{survey.Description{}, "Shelter", survey.Shelters, ""},
		{survey.Description{}, "Access", survey.Accesses, "Key"},
		{survey.Description{}, "Facing", survey.Facings, ""},
		{survey.Layer{}, "Kind", survey.LayerKinds, ""},
		{survey.Layer{}, "Soundness", survey.Soundnesses, ""},
		{area.Measure{}, "Method", area.Methods, ""},
		{app.SurfaceEdit{}, "Side", area.Sides, ""},
		{app.Step{}, "Work", buildup.Works, "Work"},
		{app.EntryEdit{}, "Kind", logbook.Kinds, "Kind"},
		{app.InstrumentEdit{}, "Kind", reading.Kinds, "Kind"},
		{product.Sheet{}, "Binder", product.Binders, ""},
		{tent.Heater{}, "Kind", tent.HeatKinds, "Kind"},
		{refit.Hardware{}, "Compound", refit.Compounds, "Key"},
		{refit.Line{}, "Tape", refit.Tapes, "Key"},
		{antifoul.Work{}, "Old", antifoul.Olds, "Key"},
		{metal.Work{}, "Profile", metal.Profiles, "Key"},
		{brightwork.Work{}, "School", brightwork.Schools, "Key"},
		{nonskid.Work{}, "School", nonskid.Schools, "Key"},
		{app.Readings{}, "Class", fair.Classes, "Key"},
	} {
		name := reflect.TypeOf(c.of).String() + "." + c.field
		f, ok := reflect.TypeOf(c.of).FieldByName(c.field)
		require.True(t, ok, name)
		var offered []string
		list := reflect.ValueOf(c.list)
		for i := range list.Len() {
			v := list.Index(i)
			if c.key != "" {
				v = v.FieldByName(c.key)
				require.True(t, v.IsValid(), name)
			}
			offered = append(offered, v.String())
		}
		assert.ElementsMatch(t, offered, strings.Split(f.Tag.Get("enum"), ","), name)
	}
}
