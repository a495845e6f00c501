package scheme

import (
	"slices"
	"testing"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/job/buildup"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every step that lays a film finds its product among the examples, can be laid
// as it says, and no two schemes share a key.
func TestSchemesHoldTogether(t *testing.T) {
	library := product.Examples()
	grits := []int{24, 36, 40, 50, 60, 80, 100, 120, 150, 180, 220, 240, 280, 320, 360, 400, 500, 600, 800,
		1000} // FEPA P, 43-1 and 43-2
	keys := map[string]bool{}
	for _, s := range Schemes() {
		assert.False(t, keys[s.Key], s.Key)
		keys[s.Key] = true
		assert.NotEmpty(t, s.School, s.Key)
		assert.NotEmpty(t, s.Reason, s.Key)
		coats := 0
		for _, st := range s.Steps {
			if st.Grit != 0 {
				assert.Contains(t, grits, st.Grit, "%s: paper that is sold", s.Key)
			}
			if st.Work != step.Coat && st.Kind == "" {
				continue
			}
			i, ok := st.Find(library, Place{})
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
		i, ok := st.Find(library, Place{})
		if assert.True(t, ok, want) {
			assert.Equal(t, want, library[i].Name)
		}
	}
	for _, st := range []Step{{Kind: product.TopcoatTwo}, {Kind: product.Gelcoat, Trait: Unwaxed},
		{Kind: product.Fairing, Trait: Light},
		{Kind: product.SoftAntifoul, Step: step.Step{Grade: "low-temperature"}}} {
		_, ok := st.Find(library, Place{})
		assert.False(t, ok, "%+v", st)
	}
}

func TestEachSurfaceHasItsJob(t *testing.T) {
	jobs := map[string]int{}
	for _, s := range Schemes() {
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
		{area.Sole, survey.Steel, "Inside"},
		{area.Coamings, survey.GRP, "Topsides in colour"},
		{area.Spars, survey.Carbon, "Topsides in colour"},
		{area.Lockers, survey.GRP, "Inside"},
	} {
		got := JobFor(c.part, c.substrate)
		assert.Equal(t, c.want, got)
		assert.GreaterOrEqual(t, jobs[got], 2, "two schools of %s to compare", got)
	}
}

// The school that fills spots buys for the spots: a tenth of a side of 20 m² takes a tenth of
// the primer that it takes all over, and of the filler.
func TestSpotsAreBoughtAsSpots(t *testing.T) {
	i := slices.IndexFunc(Schemes(), func(s Scheme) bool { return s.Key == "topsides-spot" })
	require.GreaterOrEqual(t, i, 0)
	sheet := product.Sheet{Name: "x", Kind: product.HighBuild, VolumeSolidsPct: 50}
	var primer []float64
	for _, s := range Schemes()[i].Steps {
		if s.Kind != product.HighBuild && s.Work != step.Fill {
			continue
		}
		one := s.Step
		one.Sheet, one.DFTUm = sheet, 100
		l, err := buildup.Reckon(area.Figure{AreaM2: 20}, 1, one)
		require.NoError(t, err)
		if s.Work == step.Fill {
			assert.InDelta(t, 2, l.AreaM2, 1e-9)
			continue
		}
		primer = append(primer, l.Litres)
	}
	require.Len(t, primer, 2)
	assert.InDelta(t, 20./5, primer[0], 1e-9)
	assert.InDelta(t, 0.1*primer[0], primer[1], 1e-9)
}
