package httpapi

import (
	"reflect"
	"strings"

	"allcoats/app"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/reading"
	"allcoats/core/exposure/tent"
	"allcoats/core/film/step"
	"allcoats/core/finish/antifoul"
	"allcoats/core/finish/brightwork"
	"allcoats/core/finish/completion"
	"allcoats/core/finish/craft"
	"allcoats/core/finish/fair"
	"allcoats/core/finish/metal"
	"allcoats/core/finish/nonskid"
	"allcoats/core/job/enquiry"
	"allcoats/core/job/logbook"

	"github.com/danielgtaylor/huma/v2"
)

// enum is a field that takes what a list of core offers: its elements, or of each the
// field key.
type enum struct {
	of    any
	field string
	list  any
	key   string
}

var enums = []enum{
	{survey.Description{}, "Substrate", survey.Substrates, "Key"},
	{survey.Description{}, "Tone", survey.Tones, ""},
	{survey.Description{}, "Shelter", survey.Shelters, ""},
	{survey.Description{}, "Access", survey.Accesses, "Key"},
	{survey.Description{}, "Facing", survey.Facings, ""},
	{survey.Layer{}, "Kind", survey.LayerKinds, ""},
	{survey.Layer{}, "Soundness", survey.Soundnesses, ""},
	{survey.Defect{}, "Kind", survey.DefectKinds, "Kind"},
	{area.Measure{}, "Method", area.Methods, ""},
	{app.SurfaceEdit{}, "Part", area.Parts, "Part"},
	{app.SurfaceEdit{}, "Side", area.Sides, ""},
	{app.Question{}, "Asks", enquiry.Questions, "Key"},
	{app.Question{}, "Part", area.Parts, "Part"},
	{app.FirstCoat{}, "Part", area.Parts, "Part"},
	{app.NewBoat{}, "Substrate", survey.Substrates, "Key"},
	{BoatToDraw{}, "Substrate", survey.Substrates, "Key"},
	{step.Step{}, "Work", step.Planned, ""},
	{logbook.Entry{}, "Kind", step.Logged, ""},
	{app.InstrumentEdit{}, "Kind", reading.Kinds, "Kind"},
	{product.Sheet{}, "Kind", product.Kinds, "Kind"},
	{product.Sheet{}, "Binder", product.Binders, ""},
	{tent.Heater{}, "Kind", tent.HeatKinds, "Kind"},
	{completion.Hardware{}, "Compound", completion.Compounds, "Key"},
	{completion.Line{}, "Tape", completion.Tapes, "Key"},
	{antifoul.Work{}, "Old", antifoul.Olds, "Key"},
	{metal.Work{}, "Profile", metal.Profiles, "Key"},
	{brightwork.Work{}, "School", brightwork.Schools, "Key"},
	{nonskid.Work{}, "School", nonskid.Schools, "Key"},
	{craft.Kind{}, "Key", craft.Kinds, "Key"},
	{field.LimitInfo{}, "Limit", field.Limits, "Limit"},
	{app.Readings{}, "Class", fair.Classes, "Key"},
}

// values are what the list offers.
func (e enum) values() (out []any) {
	list := reflect.ValueOf(e.list)
	for i := range list.Len() {
		v := list.Index(i)
		if e.key != "" {
			v = v.FieldByName(e.key)
		}
		out = append(out, v.String())
	}
	return out
}

// fillEnums writes the values into the schema of every type that has such a field, its
// own or an embedded one.
func fillEnums(r huma.Registry) {
	for name, schema := range r.Map() {
		t := r.TypeFromRef("#/components/schemas/" + name)
		for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
			t = t.Elem()
		}
		if t.Kind() != reflect.Struct {
			continue
		}
		changed := false
		for _, f := range reflect.VisibleFields(t) {
			owner := t
			for _, i := range f.Index[:len(f.Index)-1] {
				if owner = owner.Field(i).Type; owner.Kind() == reflect.Pointer {
					owner = owner.Elem()
				}
			}
			for _, e := range enums {
				json, _, _ := strings.Cut(f.Tag.Get("json"), ",")
				if p := schema.Properties[json]; p != nil && owner == reflect.TypeOf(e.of) && f.Name == e.field {
					p.Enum, changed = e.values(), true
				}
			}
		}
		if changed {
			schema.PrecomputeMessages()
		}
	}
}
