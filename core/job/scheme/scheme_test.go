package scheme

import (
	"testing"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"

	"github.com/stretchr/testify/assert"
)

// Every step that lays a film finds its product among the examples, can be laid
// as it says, and no two schemes share a key.
func TestSchemesHoldTogether(t *testing.T) {
	library := product.Examples()
	keys := map[string]bool{}
	for _, s := range Schemes {
		assert.False(t, keys[s.Key], s.Key)
		keys[s.Key] = true
		assert.NotEmpty(t, s.School, s.Key)
		assert.NotEmpty(t, s.Reason, s.Key)
		coats := 0
		for _, st := range s.Steps {
			if st.Work != step.Coat && st.Kind == "" {
				continue
			}
			i, ok := st.Find(library)
			if assert.True(t, ok, "%s: %s %s %s", s.Key, st.Trait, st.Binder, st.Kind) {
				_, known := library[i].With(st.Grade)
				assert.True(t, known, "%s: grade %q of %s", s.Key, st.Grade, library[i].Name)
				if st.Kind == product.TopcoatTwo {
					assert.Positive(t, library[i].HidingUm, "%s: a colour, not %s", s.Key, library[i].Name)
				}
				assert.Contains(t, library[i].Methods, st.Method, "%s: %s", s.Key, library[i].Name)
				assert.LessOrEqual(t, st.ThinnerPct, library[i].ThinnerMaxPct, s.Key)
			}
			coats += st.Coats
		}
		assert.Positive(t, coats, s.Key)
	}
}

// A product is chosen by what its sheet says, not by its name.
func TestTraitsAreOfTheSheet(t *testing.T) {
	library := []product.Sheet{
		{Name: "Antifouling, better than copper-free", Kind: product.SoftAntifoul, Copper: true},
		{Name: "Red", Kind: product.SoftAntifoul},
		{Name: "Grey", Kind: product.MetalPrimer, Zinc: true},
		{Name: "Metal primer without zinc", Kind: product.MetalPrimer},
		{Name: "Clear", Kind: product.TopcoatTwo, UVPerUm: 0.01},
		{Name: "Unwaxed till now", Kind: product.Gelcoat, Waxed: true},
		{Name: "Light at hand", Kind: product.Fairing, BaseKgL: 1.3},
		{Name: "Low-temperature barrier", Kind: product.Barrier},
		{Name: "Barrier", Kind: product.Barrier, Grades: []product.Grade{{Name: "low-temperature"}}},
	}
	for want, st := range map[string]Step{
		"Red":                                  {Kind: product.SoftAntifoul, Trait: CopperFree},
		"Antifouling, better than copper-free": {Kind: product.SoftAntifoul, Trait: Coppered},
		"Grey":                                 {Kind: product.MetalPrimer, Trait: ZincRich},
		"Metal primer without zinc":            {Kind: product.MetalPrimer},
		"Unwaxed till now":                     {Kind: product.Gelcoat, Trait: Waxed},
		"Low-temperature barrier":              {Kind: product.Barrier},
		"Barrier":                              {Kind: product.Barrier, Step: step.Step{Grade: "low-temperature"}},
	} {
		i, ok := st.Find(library)
		if assert.True(t, ok, want) {
			assert.Equal(t, want, library[i].Name)
		}
	}
	for _, st := range []Step{{Kind: product.TopcoatTwo}, {Kind: product.Gelcoat, Trait: Unwaxed}, {Kind: product.Fairing, Trait: Light}, {Kind: product.SoftAntifoul, Step: step.Step{Grade: "low-temperature"}}} {
		_, ok := st.Find(library)
		assert.False(t, ok, "%+v", st)
	}
}

func TestEachSurfaceHasItsJob(t *testing.T) {
	jobs := map[string]int{}
	for _, s := range Schemes {
		jobs[s.Job]++
	}
	for _, c := range []struct {
		part      area.Part
		substrate survey.Substrate
		want      string
	}{
		{area.Bottom, survey.GRP, "Bottom: barrier and antifouling"},
		{area.Keel, survey.Steel, "Metal bottom"},
		{area.Topsides, survey.Aluminium, "Metal topsides"},
		{area.Topsides, survey.StripPlank, "Brightwork"},
		{area.Spars, survey.SolidWood, "Brightwork"},
		{area.Deck, survey.Plywood, "Non-skid deck"},
		{area.CabinTop, survey.GRP, "Non-skid deck"},
		{area.Sole, survey.Steel, "Metal deck"},
	} {
		got := JobFor(c.part, c.substrate)
		assert.Equal(t, c.want, got)
		assert.GreaterOrEqual(t, jobs[got], 2, "two schools of %s to compare", got)
	}
}
