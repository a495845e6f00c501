package application

import (
	"testing"

	"allcoats/core/base/message"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/film/step"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestOnComb(t *testing.T) {
	for um, want := range map[float64]Comb{10: {0, 25}, 110: {100, 125}, 125: {125, 150}, 320: {300, 350},
		5000: {3000, 0}} {
		assert.Equal(t, want, OnComb(um), um)
	}
}

// 12 m² at 12 m²/h with a wet edge of half an hour: stripes of a quarter of an hour.
func TestStripesKeepTheWetEdge(t *testing.T) {
	s := Cut(12, 12, 0.5)
	assert.Equal(t, 4, s.N)
	assert.InDelta(t, 3, s.M2, 1e-9)
	assert.InDelta(t, 15, s.Min, 1e-9)
	assert.Equal(t, 1, Cut(2, 12, 0).N)
	assert.Contains(t, Cut(2, 12, 0).Each.String(), "in one go")
}

func TestOrder(t *testing.T) {
	pieces := []Piece{{ID: "sunny", AreaM2: 2, SurfaceC: 24}, {ID: "shaded", AreaM2: 9, SurfaceC: 15}}
	ids := func(k product.Kind) (out []string) {
		for _, p := range Order(pieces, k) {
			out = append(out, p.ID)
			assert.NotEmpty(t, p.Why)
		}
		return out
	}
	assert.Equal(t, []string{"shaded", "sunny"}, ids(product.TopcoatOne))
	assert.Equal(t, []string{"sunny", "shaded"}, ids(product.NonSkidPaint), "the smallest for practice")
	assert.Equal(t, "sunny", pieces[0].ID, "what was given stays")
}

func TestListSaysWhatIsKnownAndAsksTheRest(t *testing.T) {
	four := 4.0
	b := Before{Sheet: product.Sheet{ToolsSuit: "foam roller", Limits: product.Limits{HoldH: 3}}, Part: area.Deck,
		Litres: 5, Wet: true, FieldWhy: message.Of("humidity above 85 %%"),
		Clock: &clock.Clock{State: clock.Closed}, ShelfL: &four, Expired: "2026-01-01"}
	state := map[string]State{}
	for _, c := range b.List() {
		state[c.Key] = c.State
		assert.NotEmpty(t, c.Text)
	}
	assert.Equal(t, map[string]State{"field": No, "hold": OK, "dry": No, "key": No, "clean": Ask, "mask": Ask,
		"tools": Ask, "shelf": No, "life": No}, state)
	b = Before{Sheet: product.Sheet{NoSolventWipe: true}, Cleaned: message.Of("it was washed on Fri"),
		Clock: &clock.Clock{State: clock.Open}}
	for _, c := range b.List() {
		switch c.Key {
		case "clean":
			assert.Equal(t, OK, c.State)
			assert.Contains(t, c.Text.String(), "No solvent on this one")
		case "key":
			assert.Equal(t, OK, c.State)
		}
	}
}

func TestGearFollowsTheChemistry(t *testing.T) {
	ratio := product.Ratio{Base: 2, Hardener: 1}
	for _, c := range []struct {
		sheet  product.Sheet
		method string
		want   string
		not    string
	}{
		{product.Sheet{Binder: product.Polyurethane, RatioByVolume: ratio}, "spray", "supplied air", ""},
		{product.Sheet{Binder: product.Polyurethane, RatioByVolume: ratio}, "brush", "sensitised stays away",
			"supplied air"},
		{product.Sheet{Binder: product.Epoxy, VolumeSolidsPct: 100}, "roller", "Nitrile", "Solvent"},
		{product.Sheet{Binder: product.Polyester, Doses: []product.Dose{{TempC: 20, Pct: 2}}}, "brush",
			"never with cobalt", ""},
		{product.Sheet{Kind: product.SoftAntifoul}, "roller", "never dry-sanded", ""},
		{product.Sheet{Binder: product.Alkyd, VolumeSolidsPct: 50}, "brush", "rags heat themselves", "Isocyanates"},
	} {
		all := ""
		for _, g := range Gear(c.sheet, c.method) {
			all += g.String() + "\n"
		}
		require.Contains(t, all, c.want)
		if c.not != "" {
			assert.NotContains(t, all, c.not)
		}
	}
}

func TestMindByWhatIsDoneAndWhere(t *testing.T) {
	old := func(k survey.LayerKind) []survey.Layer { return []survey.Layer{{Kind: k}} }
	two := product.Sheet{Name: "x", Binder: product.Polyurethane, RatioByVolume: product.Ratio{Base: 2, Hardener: 1},
		VolumeSolidsPct: 46}
	sand, degrease := step.Step{Work: step.Sand, Grit: 80}, step.Step{Work: step.Degrease, Agent: "solvent"}
	for name, c := range map[string]struct {
		s         step.Step
		at        Site
		want, not string
	}{
		"isocyanate in a locker": {step.Step{Work: step.Coat, Method: "brush", Sheet: two}, Site{Inside: true},
			"supplied air", ""},
		"isocyanate on deck": {step.Step{Work: step.Coat, Method: "brush", Sheet: two}, Site{}, "Isocyanates",
			"Closed space"},
		"old antifouling": {sand, Site{Old: old(survey.OldAntifouling)}, "wet only", "lead"},
		"planned antifouling": {sand, Site{Over: product.Sheet{Name: "a", Kind: product.SoftAntifoul}},
			"wet only", ""},
		"old paint": {sand, Site{Old: old(survey.OldOnePart), Substrate: survey.Steel},
			"lead or chromate", "Hardwood"},
		"old paint under new epoxy": {sand,
			Site{Old: old(survey.OldOnePart), Over: product.Sheet{Name: "e", Binder: product.Epoxy}}, "Epoxy dust",
			"lead"},
		"bare wood": {sand, Site{Substrate: survey.SolidWood}, "Hardwood", "Laminate"},
		"blasting": {step.Step{Work: step.Strip, Note: "blast to bright metal"},
			Site{Substrate: survey.Steel}, "helmet with air", ""},
		"solvent rags": {degrease, Site{}, "lidded metal tin", "Closed space"},
		"washing": {step.Step{Work: step.Wash}, Site{Old: old(survey.OldAntifouling)}, "",
			"wet only"},
	} {
		all := message.Join(Mind(c.s, c.at), "\n").String()
		assert.Contains(t, all, c.want, name)
		if c.not != "" {
			assert.NotContains(t, all, c.not, name)
		}
	}
}
