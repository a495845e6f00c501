package rules

import (
	"strings"
	"testing"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// sheetOf returns the example whose name begins so.
func sheetOf(t *testing.T, name string) product.Sheet {
	for _, s := range product.Examples() {
		if strings.HasPrefix(s.Name, name) {
			return s
		}
	}
	t.Fatalf("no example begins with %q", name)
	return product.Sheet{}
}

func coat(t *testing.T, name string, n int) Step {
	s := sheetOf(t, name)
	return Step{Step: step.Step{Work: step.Coat, Sheet: s, Coats: n, DFTUm: s.Film.TypicalUm,
		Method: append(s.Methods, "brush")[0]}}
}

func sanded(grit int, um float64) Step {
	return Step{Step: step.Step{Work: step.Sand, Grit: grit, RemovedUm: um}}
}

// found lists the rules broken, with their step.
func found(c Case) map[string]int {
	out := map[string]int{}
	for _, f := range Check(c) {
		out[f.Rule] = f.Step
	}
	return out
}

// Each rule with a case that breaks it, the step it is found at, and what mends
// it.
func TestEveryRule(t *testing.T) {
	old := func(k survey.LayerKind, um float64) survey.Findings {
		return survey.Findings{Layers: []survey.Layer{{Kind: k, Um: um, Soundness: survey.Sound}}}
	}
	thick := coat(t, "Epoxy high-build", 1)
	thick.DFTUm = 190
	thinned := coat(t, "Topcoat, two-part", 3)
	thinned.ThinnerPct = 40
	bladed := coat(t, "Varnish, one-part", 6)
	bladed.Method = "blade"
	pass := coat(t, "Epoxy fairing", 1)
	pass.DFTUm = 12000
	stale := coat(t, "Topcoat, two-part", 2)
	stale.ExpiredOn = "2026-04-30"
	primed := coat(t, "Epoxy high-build", 1)
	top := coat(t, "Topcoat, two-part", 2)
	for id, c := range map[string]struct {
		bad  Case
		step int
		good Case
	}{
		"polyester-over-epoxy": {Case{Part: area.Topsides, Findings: old(survey.OldEpoxy, 100),
			Steps: []Step{coat(t, "Gelcoat, waxed", 1)}}, 0,
			Case{Part: area.Topsides, Findings: old(survey.OldGelcoat, 100),
				Steps: []Step{coat(t, "Gelcoat, waxed", 1)}}},
		"one-part-under-strong-solvent": {Case{Part: area.Topsides, Steps: []Step{coat(t, "Undercoat, one-part", 1),
			top}}, 1,
			Case{Part: area.Topsides, Steps: []Step{coat(t, "Undercoat, two-part", 1), top}}},
		"oil-under-film": {Case{Part: area.Rails, Substrate: survey.SolidWood, Steps: []Step{coat(t, "Wood oil", 1),
			coat(t, "Varnish, one-part", 6)}}, 1,
			Case{Part: area.Rails, Substrate: survey.SolidWood, Steps: []Step{coat(t, "Varnish, one-part", 6)}}},
		"silicone-near": {Case{Part: area.Bottom, Steps: []Step{coat(t, "Foul-release", 1),
			coat(t, "Antifouling, soft", 2)}}, 1,
			Case{Part: area.Bottom, Steps: []Step{coat(t, "Foul-release", 1)}}},
		"underwater": {Case{Part: area.Bottom, Steps: []Step{primed, top}}, 1,
			Case{Part: area.Topsides, Steps: []Step{primed, top}}},
		"antifouling-on-bare-metal": {Case{Part: area.Bottom, Substrate: survey.Steel,
			Steps: []Step{{Step: step.Step{Work: step.Strip}}, coat(t, "Antifouling, hard matrix, copper-free", 2)}}, 1,
			Case{Part: area.Bottom, Substrate: survey.Steel, Steps: []Step{{Step: step.Step{Work: step.Strip}},
				coat(t, "Epoxy metal", 2), coat(t, "Antifouling, hard matrix, copper-free", 2)}}},
		"copper-near-aluminium": {Case{Part: area.Bottom, Substrate: survey.Aluminium,
			Steps: []Step{coat(t, "Epoxy metal", 2), coat(t, "Antifouling, soft", 2)}}, 1,
			Case{Part: area.Bottom, Substrate: survey.Aluminium, Steps: []Step{coat(t, "Epoxy metal", 2),
				coat(t, "Antifouling, self-polishing, copper-free", 2)}}},
		"porous-unsealed": {Case{Part: area.Topsides, Steps: []Step{coat(t, "Epoxy fairing", 1), top}}, 1,
			Case{Part: area.Topsides, Steps: []Step{coat(t, "Epoxy fairing", 1), primed, top}}},
		"filler-solvent-wiped": {Case{Part: area.Topsides, Steps: []Step{coat(t, "Epoxy fairing", 1),
			{Step: step.Step{Work: step.Degrease, Agent: "solvent"}}, primed}}, 1,
			Case{Part: area.Topsides, Steps: []Step{coat(t, "Epoxy fairing", 1),
				{Step: step.Step{Work: step.Degrease, Agent: "detergent"}}, primed}}},
		"blush-not-washed": {Case{Part: area.Bottom, Steps: []Step{coat(t, "Epoxy barrier coat, high", 5),
			sanded(120, 10)}}, 1,
			Case{Part: area.Bottom, Steps: []Step{coat(t, "Epoxy barrier coat, high", 5),
				{Step: step.Step{Work: step.Wash}}, sanded(120, 10)}}},
		"left-to-the-sun": {Case{Part: area.Deck, Steps: []Step{primed}}, 0,
			Case{Part: area.Deck, Steps: []Step{primed, top}}},
		"no-metal-primer": {Case{Part: area.Topsides, Substrate: survey.Steel,
			Steps: []Step{{Step: step.Step{Work: step.Strip}}, primed}}, 1,
			Case{Part: area.Topsides, Substrate: survey.Steel, Steps: []Step{{Step: step.Step{Work: step.Strip}},
				coat(t, "Zinc-rich", 1), primed}}},
		"bare-steel-overnight": {Case{Part: area.Topsides, Substrate: survey.Steel,
			Steps: []Step{{Step: step.Step{Work: step.Strip}}}}, 0,
			Case{Part: area.Topsides, Substrate: survey.Steel, Steps: []Step{{Step: step.Step{Work: step.Strip}},
				coat(t, "Epoxy metal", 2)}}},
		"least-total": {Case{Part: area.Bottom, Steps: []Step{coat(t, "Epoxy barrier coat, high", 2)}}, 0,
			Case{Part: area.Bottom, Steps: []Step{coat(t, "Epoxy barrier coat, high", 4)}}},
		"few-uv-coats": {Case{Part: area.Coamings, Substrate: survey.SolidWood,
			Steps: []Step{coat(t, "Varnish, one-part", 4)}}, 0,
			Case{Part: area.Coamings, Substrate: survey.SolidWood, Steps: []Step{coat(t, "Varnish, one-part", 7)}}},
		"sag": {Case{Part: area.Topsides, TiltDeg: 90, Steps: []Step{thick}}, 0,
			Case{Part: area.Deck, TiltDeg: 0, Steps: []Step{thick, top}}},
		"hides": {Case{Part: area.Topsides, Steps: []Step{primed, coat(t, "Topcoat, two-part", 1)}}, 1,
			Case{Part: area.Topsides, Steps: []Step{primed, coat(t, "Topcoat, two-part", 2)}}},
		"grit-step": {Case{Part: area.Topsides, Steps: []Step{sanded(80, 0), sanded(220, 0), primed, top}}, 1,
			Case{Part: area.Topsides, Steps: []Step{sanded(80, 0), sanded(120, 0), sanded(180, 0), primed, top}}},
		"grit-for-coat": {Case{Part: area.Topsides, Steps: []Step{primed, sanded(120, 0), top}}, 2,
			Case{Part: area.Topsides, Steps: []Step{primed, sanded(320, 0), top}}},
		"filler-pass": {Case{Part: area.Topsides, Steps: []Step{pass, primed, top}}, 0,
			Case{Part: area.Topsides, Steps: []Step{coat(t, "Epoxy fairing", 2), primed, top}}},
		"air-seal": {Case{Part: area.Topsides, Steps: []Step{coat(t, "Gelcoat, unwaxed", 1)}}, 0,
			Case{Part: area.Topsides, Steps: []Step{coat(t, "Gelcoat, unwaxed", 1), coat(t, "Gelcoat, waxed", 1)}}},
		"holes-after-coating": {Case{Part: area.Topsides, OpenDefects: 2, Steps: []Step{primed, top}}, 0,
			Case{Part: area.Topsides, OpenDefects: 2,
				Steps: []Step{{Step: step.Step{Work: step.Fill, Sheet: sheetOf(t, "Epoxy filler"), Coats: 1,
					DFTUm: 3000, Method: "blade"}}, primed, top}}},
		"sand-through": {Case{Part: area.Topsides, Steps: []Step{primed, sanded(220, 90), top}}, 1,
			Case{Part: area.Topsides, Steps: []Step{primed, sanded(220, 40), top}}},
		"film-range": {Case{Part: area.Topsides, Steps: []Step{thick, top}}, 0,
			Case{Part: area.Topsides, Steps: []Step{primed, top}}},
		"thinner": {Case{Part: area.Topsides, Steps: []Step{primed, thinned}}, 1,
			Case{Part: area.Topsides, Steps: []Step{primed, top}}},
		"shelf-life": {Case{Part: area.Topsides, Steps: []Step{primed, stale}}, 1,
			Case{Part: area.Topsides, Steps: []Step{primed, top}}},
		"method": {Case{Part: area.Coamings, Substrate: survey.SolidWood, Steps: []Step{bladed}}, 0,
			Case{Part: area.Coamings, Substrate: survey.SolidWood, Steps: []Step{coat(t, "Varnish, one-part", 6)}}},
	} {
		bad := found(c.bad)
		require.Contains(t, bad, id)
		assert.Equal(t, c.step, bad[id], "%s: the step", id)
		assert.NotContains(t, found(c.good), id, "%s: mended", id)
	}
}

// Every rule is in the test above by its id, says why and how to mend it, and
// is found nowhere on a surface without steps.
func TestCatalogue(t *testing.T) {
	seen := map[string]bool{}
	for _, r := range Catalogue {
		assert.False(t, seen[r.ID], r.ID)
		seen[r.ID] = true
		for _, text := range []string{r.What, r.Why, r.Source, r.Fix} {
			assert.NotEmpty(t, text, r.ID)
		}
		assert.Contains(t, []Severity{Note, Warning, Stop}, r.Severity)
		assert.Empty(t, r.check(Case{Part: area.Deck}), r.ID)
	}
	assert.GreaterOrEqual(t, len(Catalogue), 20)
}

func TestFindingsComeInTheOrderOfTheSteps(t *testing.T) {
	c := Case{Part: area.Bottom, Substrate: survey.Aluminium, Steps: []Step{coat(t, "Epoxy barrier coat, high", 1),
		sanded(60, 200), coat(t, "Antifouling, soft", 2)}}
	got := Check(c)
	require.NotEmpty(t, got)
	for i := 1; i < len(got); i++ {
		assert.GreaterOrEqual(t, got[i].Step, got[i-1].Step)
	}
	f := got[0]
	assert.NotEmpty(t, f.Why)
	assert.NotEmpty(t, f.Fix)
}

// Stripped old layers count no more.
func TestStrippingClearsTheOldLayers(t *testing.T) {
	c := Case{Part: area.Topsides, Findings: survey.Findings{Layers: []survey.Layer{{Kind: survey.OldOnePart, Um: 80}}},
		Steps: []Step{coat(t, "Epoxy high-build", 1), coat(t, "Topcoat, two-part", 2)}}
	assert.Contains(t, found(c), "one-part-under-strong-solvent")
	c.Steps = append([]Step{{Step: step.Step{Work: step.Strip}}}, c.Steps...)
	assert.NotContains(t, found(c), "one-part-under-strong-solvent")
}

// From nine tenths of solids on there is too little vapour to gather; isocyanates harm at any share.
func TestVapourInAClosedSpace(t *testing.T) {
	for solids, tells := range map[float64]bool{60: true, 89: true, 90: false, 100: false} {
		s := sheetOf(t, "Epoxy high-build")
		s.VolumeSolidsPct = solids
		c := Case{Part: area.Lockers, Substrate: survey.GRP,
			Steps: []Step{{Step: step.Step{Work: step.Coat, Sheet: s, Coats: 1, DFTUm: 100, Method: "brush"}}}}
		_, ok := found(c)["closed-space"]
		assert.Equal(t, tells, ok, "%g %%", solids)
		c.Part = area.Deck
		_, ok = found(c)["closed-space"]
		assert.False(t, ok, "in the open")
	}
}
