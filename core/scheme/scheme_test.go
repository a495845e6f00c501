package scheme

import (
	"testing"

	"allcoats/core/area"
	"allcoats/core/product"
	"allcoats/core/rules"
	"allcoats/core/survey"

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
			if st.Work != rules.Coat && st.Kind == "" {
				continue
			}
			i, ok := st.Find(library)
			if assert.True(t, ok, "%s: %s %s %s", s.Key, st.Named, st.Binder, st.Kind) {
				_, known := library[i].With(st.Grade)
				assert.True(t, known, "%s: grade %q of %s", s.Key, st.Grade, library[i].Name)
				if st.Kind == product.TopcoatTwo {
					assert.Positive(t, library[i].HidingUm, "%s: a colour, not %s", s.Key, library[i].Name)
				}
				assert.Contains(t, library[i].Methods, st.Method, "%s: %s", s.Key, library[i].Name)
				assert.LessOrEqual(t, st.Thinner, library[i].ThinnerMaxPct, s.Key)
			}
			coats += st.Coats
		}
		assert.Positive(t, coats, s.Key)
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
	} {
		got := JobFor(c.part, c.substrate)
		assert.Equal(t, c.want, got)
		assert.GreaterOrEqual(t, jobs[got], 2, "two schools of %s to compare", got)
	}
}
