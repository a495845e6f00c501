package task

import (
	"testing"
	"time"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/job/logbook"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var (
	barrier = product.Sheet{Name: "barrier", Kind: product.Barrier, VolumeSolidsPct: 50,
		Film: product.Film{TypicalUm: 100}, Methods: []string{"roller"}}
	filling = product.Sheet{Name: "filler", Kind: product.Fairing, VolumeSolidsPct: 100,
		Film: product.Film{TypicalUm: 1000}, Methods: []string{"blade"}}
	noon = time.Date(2026, 6, 5, 12, 0, 0, 0, time.UTC)
)

func coated(id string, n int) Step {
	return Step{ID: id, ProductID: "p", Step: step.Step{Work: step.Coat, Sheet: barrier, Coats: n, DFTUm: 100,
		Method: "roller", LossPct: 10}}
}

func plain(id string, w step.Work) Step {
	s := Step{ID: id, Step: step.Step{Work: w}}
	if w == step.Sand {
		s.Grit = 80
	}
	return s
}

// bottom is 24 m² of aluminium: two hours of rolling a coat.
func bottom(log []logbook.Logged, steps ...Step) Boat {
	return Boat{Surfaces: []Surface{{ID: "s", Name: "Bottom", Part: area.Bottom, Substrate: survey.Aluminium,
		Area: area.Figure{AreaM2: 24}, Access: 1, Steps: steps, Log: log}}}
}

// entries are told an hour apart.
func entries(es ...logbook.Entry) (out []logbook.Logged) {
	for i, e := range es {
		e.SurfaceID, e.StartedAt = "s", noon.Add(time.Duration(i)*time.Hour)
		if e.Kind == step.Coat && e.StepID != "" {
			e.ProductID = "p"
		}
		out = append(out, logbook.Logged{ID: string(rune('a' + i)), Entry: e})
	}
	return out
}

func of(kind step.Work, stepID string) logbook.Entry {
	return logbook.Entry{Kind: kind, StepID: stepID}
}

func states(c Chain) map[string]State {
	out := map[string]State{}
	for _, t := range c.Tasks {
		out[t.ID] = t.State
	}
	return out
}

func TestStepsUnfold(t *testing.T) {
	mask := plain("m", step.Mask)
	mask.TapeM, mask.Pull = 50, step.WhileWet
	keyed := coated("b", 2)
	keyed.KeyGrit = 320
	j := Of(bottom(nil, plain("strip", step.Strip), mask, coated("a", 1), keyed, plain("look", step.Inspect)))
	var ids []string
	for _, k := range j.Surfaces[0].Tasks {
		ids = append(ids, k.ID)
	}
	assert.Equal(t, []string{"strip", "m", "a#1", "b#1:key", "b#1", "b#2:key", "b#2", "m:pull", "look"}, ids,
		"tape comes off after the coats that it was put on for")
	hours := map[string]float64{}
	for _, k := range j.Surfaces[0].Tasks {
		hours[k.ID] = k.Hours
	}
	assert.InDelta(t, 24/1.5+0.5, hours["strip"], 1e-9)
	assert.InDelta(t, 50./25+0.25, hours["m"], 1e-9)
	assert.InDelta(t, 24./12+0.5, hours["b#2"], 1e-9)
	assert.InDelta(t, 24./9, hours["b#2:key"], 1e-9)
	assert.InDelta(t, 50./100, hours["m:pull"], 1e-9)
	sum := 0.0
	for _, h := range hours {
		sum += h
	}
	assert.InDelta(t, sum, j.Sum.LeftH, 1e-9, "the job is the sum of its tasks")
	assert.InDelta(t, 3*24./5/0.9, j.Sum.LeftL, 1e-9)
	assert.Equal(t, 9, j.Sum.Left)
}

// What has no entry is not done; entries tick by their step, or by their kind before the
// next film.
func TestTheLogIsTheOnlyTruthOfDone(t *testing.T) {
	steps := []Step{plain("w", step.Wash), plain("s", step.Sand), plain("w2", step.Wash), coated("a", 2),
		plain("i", step.Inspect), plain("s2", step.Sand), coated("b", 1)}
	part := func(e logbook.Entry, pct float64) logbook.Entry { e.SharePct = pct; return e }
	for name, c := range map[string]struct {
		log  []logbook.Entry
		next string
		left []string // before the next film
	}{
		"nothing told": {nil, "a#1", []string{"w", "s", "w2"}},
		"one wash is one": {[]logbook.Entry{of(step.Wash, "")}, "a#1",
			[]string{"s", "w2"}},
		"by its step": {[]logbook.Entry{of(step.Wash, "w2")}, "a#1",
			[]string{"w", "s"}},
		"in any order": {[]logbook.Entry{of(step.Sand, ""), of(step.Wash, ""),
			of(step.Wash, "")}, "a#1", nil},
		"a part leaves the rest": {[]logbook.Entry{part(of(step.Sand, ""), 40), of(step.Wash, ""),
			of(step.Wash, "")}, "a#1", []string{"s"}},
		"two parts are the whole": {[]logbook.Entry{part(of(step.Sand, ""), 40),
			part(of(step.Sand, ""), 60), of(step.Wash, ""), of(step.Wash, "")}, "a#1", nil},
		"the rest is all that is left": {[]logbook.Entry{part(of(step.Sand, ""), 40), of(step.Sand, ""),
			of(step.Wash, ""), of(step.Wash, "")}, "a#1", nil},
		"a coat overtakes what is below": {[]logbook.Entry{of(step.Coat, "a")}, "a#2", nil},
		"half a coat":                    {[]logbook.Entry{part(of(step.Coat, "a"), 50)}, "a#1", nil},
		"sanded before a coat is not sanded after it": {[]logbook.Entry{of(step.Sand, ""), of(step.Coat, "a"),
			of(step.Coat, "a")}, "b#1", []string{"s2"}},
		"sanded after it": {[]logbook.Entry{of(step.Coat, "a"), of(step.Coat, "a"),
			of(step.Sand, "")}, "b#1", nil},
		"a coat of another product lies over the wash": {[]logbook.Entry{of(step.Wash, ""), of(step.Sand, ""),
			{Kind: step.Coat, ProductID: "q"}}, "a#1", []string{"w", "s", "w2"}},
		"all": {[]logbook.Entry{of(step.Coat, "a"), of(step.Coat, "a"), of(step.Sand, ""), of(step.Coat, "b")}, "",
			nil},
	} {
		chain := Of(bottom(entries(c.log...), steps...)).Surfaces[0]
		first, next := chain.First()
		var left []string
		for _, k := range first {
			left = append(left, k.ID)
		}
		id := ""
		if next != nil {
			id = next.ID
		}
		assert.Equal(t, c.next, id, name)
		assert.Equal(t, c.left, left, name)
	}
	over := states(Of(bottom(entries(of(step.Coat, "a")), steps...)).Surfaces[0])
	assert.Equal(t, Overtaken, over["s"], "nothing says that it was sanded, and now it cannot be")
	assert.Equal(t, Done, over["a#1"])
}

// Twenty hours told for ten of stripping make the rest slower: 26 of 16, with six hours
// that went as reckoned; a coat that took a quarter more makes those to come take more.
func TestTheJobLearns(t *testing.T) {
	strip := plain("strip", step.Strip)
	strip.Hours = 20
	half := of(step.Strip, "strip")
	half.SharePct, half.Hours = 50, 20
	coat := of(step.Coat, "a")
	coat.Litres = 1.25 * 24. / 5 / 0.9
	j := Of(bottom(entries(half), strip, coated("a", 2)))
	k := j.Surfaces[0].Tasks[0]
	assert.Equal(t, Begun, k.State)
	assert.InDelta(t, 50, k.DonePct, 1e-9)
	assert.InDelta(t, 26./16*20*0.5, k.LeftH, 1e-9)
	assert.InDelta(t, 20, k.TookH, 1e-9)
	j = Of(bottom(entries(coat), coated("a", 3)))
	last := j.Surfaces[0].Tasks[2]
	assert.Greater(t, last.Litres, last.ReckonedL)
	assert.Less(t, last.Litres, 1.25*last.ReckonedL)
	assert.InDelta(t, 2*last.Litres, j.Sum.LeftL, 1e-9)
	assert.InDelta(t, j.Sum.LeftL, j.Needs["p"].Forecast().LitresL, 1e-9, "stores buy what the tasks take")
	assert.Equal(t, 2, j.Needs["p"].Coats)
	assert.Equal(t, 1, j.Coats("a"))
}

func TestPatches(t *testing.T) {
	strip := plain("strip", step.Strip)
	strip.Where = &step.Where{Name: "reach", Patches: []step.Patch{{Name: "1", AreaM2: 1}, {Name: "2", AreaM2: 1},
		{Name: "3", AreaM2: 2}}}
	done := of(step.Strip, "strip")
	done.Patches = []string{"1", "3"}
	k := Of(bottom(entries(done), strip)).Surfaces[0].Tasks[0]
	assert.InDelta(t, 75, k.DonePct, 1e-9)
	assert.Equal(t, []string{"1", "3"}, k.Patches)
	assert.InDelta(t, 4, k.AreaM2, 1e-9)
	assert.InDelta(t, 0.25*(4/1.5+0.5), k.LeftH, 1e-9)
}

// A test panel is done when it has passed, and not before.
func TestATrialWaitsForItsVerdict(t *testing.T) {
	told := func(v logbook.Outcome) logbook.Entry {
		e := of(step.Trial, "t")
		e.Outcome = v
		return e
	}
	state := func(es ...logbook.Entry) State {
		return states(Of(bottom(entries(es...), plain("t", step.Trial), coated("a", 1))).Surfaces[0])["t"]
	}
	assert.Equal(t, ToDo, state())
	assert.Equal(t, Failed, state(told(logbook.Failed)))
	assert.Equal(t, Done, state(told(logbook.Failed), told(logbook.Passed)))
}

// Metal that is stripped wants a film within hours, tape wants pulling within days; the
// limits run from what is done.
func TestLimitsRun(t *testing.T) {
	mask := plain("m", step.Mask)
	mask.TapeH = 24
	fill := Step{ID: "f", ProductID: "f", Step: step.Step{Work: step.Fill, Sheet: filling, Coats: 1, DFTUm: 1000,
		Method: "blade"}}
	steps := []Step{plain("strip", step.Strip), coated("a", 1), fill, mask, coated("b", 1)}
	tasks := Of(bottom(entries(of(step.Strip, "strip")), steps...)).Surfaces[0].Tasks
	require.Len(t, tasks[0].Binds, 1)
	bare := tasks[0].Binds[0]
	assert.Equal(t, "a#1", bare.Until)
	require.NotNil(t, bare.By)
	assert.Equal(t, noon.Add(8*time.Hour), *bare.By)
	assert.Equal(t, "open filler", tasks[2].Binds[0].Name)
	assert.Nil(t, tasks[2].Binds[0].By, "it is not laid yet")
	assert.Equal(t, "m:pull", tasks[3].Binds[0].Until)
	tasks = Of(bottom(entries(of(step.Strip, "strip"), of(step.Coat, "a")), steps...)).Surfaces[0].Tasks
	assert.Nil(t, tasks[0].Binds[0].By, "it is covered")
}

// Own tasks are done by the entries that name them; what the user skips is not to come.
func TestOwnAndSkippedTasks(t *testing.T) {
	b := bottom(nil, plain("w", step.Wash), coated("a", 1))
	b.Own = []OwnTask{{ID: "o", Own: Own{Name: "Rewire", Hours: 4, Crew: 1}}}
	b.Skipped = map[string]bool{"w": true}
	e := of(step.Other, "")
	e.OwnID, e.SharePct = "o", 25
	b.Log = []logbook.Logged{{ID: "x", Entry: e}}
	j := Of(b)
	assert.InDelta(t, 3, j.Own[0].LeftH, 1e-9)
	assert.Equal(t, Skipped, j.Surfaces[0].Tasks[0].State)
	assert.InDelta(t, 2.5+3, j.Sum.LeftH, 1e-9)
	half, rest := e, e
	half.SharePct, rest.SharePct = 50, 60
	half.Hours, rest.Hours = 2, 1.5
	b.Log = append(b.Log, logbook.Logged{ID: "y", Entry: half})
	assert.InDelta(t, 75, Of(b).Own[0].DonePct, 1e-9)
	assert.InDelta(t, 1, Of(b).Own[0].LeftH, 1e-9)
	b.Log = append(b.Log, logbook.Logged{ID: "z", Entry: rest})
	assert.Equal(t, Done, Of(b).Own[0].State, "no more than all of it")
	assert.InDelta(t, 3.5, Of(b).Own[0].TookH, 1e-9)
}
