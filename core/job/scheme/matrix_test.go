package scheme_test

import (
	"testing"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/job/rules"
	"allcoats/core/job/scheme"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// caseOf is a scheme on a surface, with what the examples have for it.
func caseOf(t *testing.T, s scheme.Scheme, part area.Part, of survey.Substrate) rules.Case {
	c := rules.Case{Part: part, Substrate: of, TiltDeg: part.Info().TiltDeg, Tone: survey.Pale}
	if s.Over != "" {
		c.Findings.Layers = []survey.Layer{{Kind: s.Over, Um: 200, Soundness: survey.Sound}}
	}
	library := product.Examples()
	for _, st := range s.Steps {
		one := rules.Step{Step: st.Step}
		if st.Kind != "" {
			i, ok := st.Find(library, scheme.Place{Part: part, Substrate: of})
			require.True(t, ok, "%s: %s %s %s", s.Key, st.Kind, st.Binder, st.Trait)
			one.Step = scheme.Laid(st.Step, library[i])
			one.Sheet, _ = library[i].With(st.Grade)
		}
		c.Steps = append(c.Steps, one)
	}
	return c
}

// Every scheme passes the rules, without a finding, on every substrate and part that it is for;
// and every substrate has a scheme above and below the water.
func TestSchemesPassTheRules(t *testing.T) {
	tried := map[string]int{}
	for _, s := range scheme.Schemes() {
		for _, of := range s.On {
			for _, p := range area.Parts {
				job := scheme.JobFor(p.Part, of)
				other := s.Job == scheme.Fairing && (job == scheme.Topsides || job == scheme.MetalTopsides) ||
					s.Job == scheme.GelcoatRepair && (job == scheme.Topsides || job == scheme.Deck) ||
					s.Job == scheme.Topsides && job == scheme.Brightwork && !p.Underwater
				if job != s.Job && !other {
					continue
				}
				tried[s.Key]++
				for _, f := range rules.Check(caseOf(t, s, p.Part, of)) {
					assert.True(t, f.Care, "%s on %s, %s: %s %s: %s", s.Key, of, p.Part, f.Severity, f.Rule, f.Text)
				}
			}
		}
		assert.Positive(t, tried[s.Key], "%s is for some surface", s.Key)
	}
	for _, of := range survey.Substrates {
		if of.Key == survey.OtherSubstr {
			continue
		}
		for _, p := range area.Parts {
			if of.Key == survey.Lead && !p.Underwater {
				continue // lead is for keels
			}
			job, some := scheme.JobFor(p.Part, of.Key), false
			for _, s := range scheme.Schemes() {
				some = some || s.Job == job && s.Over == "" && s.Suits(of.Key, nil)
			}
			assert.True(t, some, "no scheme begins %s of %s (%s)", p.Part, of.Key, job)
		}
	}
}

// What is never proposed: varnish on laminate, copper on aluminium, copper-free on steel
// because it is metal.
func TestWhatIsNeverProposed(t *testing.T) {
	for _, s := range scheme.Schemes() {
		for _, of := range s.On {
			for i, st := range s.Steps {
				if st.Kind == "" {
					continue
				}
				sheet := caseOf(t, s, area.Bottom, of).Steps[i].Sheet
				assert.False(t, sheet.Kind == product.Varnish && !of.Info().Wood, "%s on %s", s.Key, of)
				assert.False(t, sheet.Copper && of == survey.Aluminium, "%s on %s", s.Key, of)
				assert.False(t, sheet.Kind.Info().Antifouling && !sheet.Copper && of == survey.Steel, "%s on %s", s.Key,
					of)
				assert.NotEqual(t, product.Silicone, sheet.Binder, "%s on %s", s.Key, of)
			}
		}
	}
}
