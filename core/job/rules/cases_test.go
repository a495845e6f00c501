package rules

import (
	"encoding/json"
	"os"
	"slices"
	"strings"
	"testing"

	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// caseFile is a file of sequences of steps with what must be said of them, and what not.
type caseFile struct {
	Products map[string]struct{ Name string }
	Cases    []struct {
		Name    string
		Surface struct {
			Part          area.Part
			Substrate     survey.Substrate
			SubstrateNote string
			Tone          survey.Tone
			Shelter       survey.Shelter
			TiltDeg       *float64
			Layers        []survey.Layer
			Moisture      []survey.Moisture
			Stop          int
			Defects       []struct{ Count int }
			Beside        []Beside
		}
		Steps  []caseStep
		Expect struct {
			Must, MustNot []want
			Clean         bool
		}
		Why string
	}
}

type caseStep struct {
	Work                           step.Work
	Product                        json.RawMessage
	Coats, Grit                    int
	DFTUm, RemovedUm, ThinnerPct   float64
	Method, Grade, Colour          string
	Agent, Note, Thinner, Catalyst string
	Wet                            *bool
}

type want struct {
	SeverityAtLeast Severity
	AboutStep       json.RawMessage
	Topic           []string
}

var library = product.Examples()

// sheetNamed is a product of the examples, or a copy of one with figures changed.
func (f caseFile) sheetNamed(t *testing.T, raw json.RawMessage) (s product.Sheet) {
	var key string
	if json.Unmarshal(raw, &key) == nil {
		i := slices.IndexFunc(library, func(s product.Sheet) bool { return s.Name == f.Products[key].Name })
		require.GreaterOrEqual(t, i, 0, key)
		return library[i]
	}
	var copied struct {
		Like json.RawMessage
		Set  json.RawMessage
	}
	require.NoError(t, json.Unmarshal(raw, &copied))
	s = f.sheetNamed(t, copied.Like)
	require.NoError(t, json.Unmarshal(copied.Set, &s))
	return s
}

var levels = map[Severity]int{Note: 1, Warning: 2, Stop: 3}

// says tells whether a finding is about one of topics; a&b needs both.
func (f Finding) about(topics []string) bool {
	told := strings.ToLower(strings.Join([]string{strings.ReplaceAll(f.Rule, "-", " "), f.Text, f.Why, f.Fix}, " "))
	return slices.ContainsFunc(topics, func(topic string) bool {
		return !slices.ContainsFunc(strings.Split(topic, "&"), func(part string) bool {
			return !strings.Contains(told, part)
		})
	})
}

// at tells whether a finding is at one of the steps asked for.
func (w want) at(t *testing.T, step int) bool {
	var one *int
	if json.Unmarshal(w.AboutStep, &one) == nil {
		return one == nil || *one == step
	}
	var several []int
	require.NoError(t, json.Unmarshal(w.AboutStep, &several))
	return slices.Contains(several, step)
}

func (w want) met(t *testing.T, found []Finding) bool {
	return slices.ContainsFunc(found, func(f Finding) bool {
		return levels[f.Severity] >= levels[w.SeverityAtLeast] && f.about(w.Topic) &&
			(len(w.AboutStep) == 0 || w.at(t, f.Step))
	})
}

// caseOf makes the case; refused is a step whose hardener no sheet has, −1 without one.
func (f caseFile) caseOf(t *testing.T, n int) (c Case, refused int) {
	one, refused := f.Cases[n], -1
	s := one.Surface
	c = Case{Part: s.Part, Substrate: s.Substrate, SubstrateNote: s.SubstrateNote, Tone: s.Tone,
		TiltDeg: survey.Description{TiltDeg: s.TiltDeg}.Tilt(s.Part), Sheltered: s.Shelter == survey.Shed,
		Findings: survey.Findings{Layers: s.Layers, Stop: s.Stop, Moisture: s.Moisture}, Beside: s.Beside}
	for i := range c.Findings.Layers {
		if c.Findings.Layers[i].Soundness == "" {
			c.Findings.Layers[i].Soundness = survey.Sound
		}
	}
	for _, d := range s.Defects {
		c.OpenDefects += max(1, d.Count)
	}
	for i, w := range one.Steps {
		st := step.Step{Work: w.Work, Coats: w.Coats, DFTUm: w.DFTUm, Method: w.Method, ThinnerPct: w.ThinnerPct,
			Colour: w.Colour, Grit: w.Grit, RemovedUm: w.RemovedUm, Agent: w.Agent, Note: w.Note}
		st.Wet = w.Wet != nil && *w.Wet
		if w.Thinner != "" {
			st.Thinner = f.Products[w.Thinner].Name
		}
		if w.Work.Kind().Films {
			st = filled(st, f.sheetNamed(t, w.Product))
			if _, ok := st.Sheet.With(w.Grade); !ok {
				refused = i
			}
		}
		c.Steps = append(c.Steps, Step{Step: st})
	}
	return c, refused
}

// filled is a step of a product with what it leaves open.
func filled(st step.Step, s product.Sheet) step.Step {
	st.Sheet = s
	st.Coats = max(1, st.Coats)
	if st.DFTUm == 0 {
		st.DFTUm = s.Film.TypicalUm
	}
	if st.Method == "" {
		st.Method = append(s.Methods, "brush")[0]
	}
	return st
}

func caseFiles(t *testing.T) (out []caseFile) {
	for _, name := range []string{"rules.json", "more.json"} {
		raw, err := os.ReadFile("testdata/" + name)
		require.NoError(t, err)
		var file caseFile
		require.NoError(t, json.Unmarshal(raw, &file))
		require.GreaterOrEqual(t, len(file.Cases), 69)
		out = append(out, file)
	}
	return out
}

// Sequences that a good coatings engineer would warn of are warned of, and those that he would
// pass pass.
func TestSequences(t *testing.T) {
	for _, file := range caseFiles(t) {
		for n, one := range file.Cases {
			c, refused := file.caseOf(t, n)
			found := Check(c)
			if refused >= 0 { // what no sheet has is refused before any rule is asked
				found = append(found, Finding{Step: refused, Severity: Stop, Text: "hardener"})
			}
			for _, w := range one.Expect.Must {
				assert.True(t, w.met(t, found), "%s: must say at least a %s about %v at %s; %s\n%v", one.Name,
					w.SeverityAtLeast, w.Topic, w.AboutStep, one.Why, list(found))
			}
			for _, w := range one.Expect.MustNot {
				assert.False(t, w.met(t, found), "%s: must not say a %s about %v\n%v", one.Name, w.SeverityAtLeast,
					w.Topic, list(found))
			}
			if one.Expect.Clean {
				assert.False(t, slices.ContainsFunc(found, func(f Finding) bool {
					return levels[f.Severity] >= 2
				}), "%s: must be clean\n%v", one.Name, list(found))
			}
		}
	}
}

// apply puts a mend in, with the first example of each kind asked for.
func apply(t *testing.T, c Case, m *Mend) Case {
	var steps []Step
	for _, w := range m.Steps {
		st := w.Step
		switch {
		case w.From >= 0:
			st = filled(st, c.Steps[w.From].Sheet)
			if !st.Films() {
				st.Sheet, st.Coats = product.Sheet{}, 0
			}
		case w.Kind != "":
			i := slices.IndexFunc(library, func(s product.Sheet) bool {
				return s.Kind == w.Kind && s.Binder == w.Binder && !s.Zinc
			})
			require.GreaterOrEqual(t, i, 0, "%s of %s", w.Kind, w.Binder)
			st = filled(st, library[i])
		}
		steps = append(steps, Step{Step: st})
	}
	c.Steps = slices.Concat(c.Steps[:m.At], steps, c.Steps[m.At+m.Take:])
	return c
}

// A mend that is offered takes its finding away and brings no stop with it.
func TestMendsMend(t *testing.T) {
	mended := map[string]bool{}
	for _, file := range caseFiles(t) {
		for n, one := range file.Cases {
			c, _ := file.caseOf(t, n)
			found := Check(c)
			count := func(all []Finding, rule string, least int) (n int) {
				for _, f := range all {
					if (rule == "" || f.Rule == rule) && levels[f.Severity] >= least {
						n++
					}
				}
				return n
			}
			for _, f := range found {
				if f.Mend == nil {
					continue
				}
				then := Check(apply(t, c, f.Mend))
				assert.Less(t, count(then, f.Rule, 1), count(found, f.Rule, 1), "%s: %s by %v\n%v", one.Name, f.Text,
					f.Mend.Says, list(then))
				assert.LessOrEqual(t, count(then, "", 3), count(found, "", 3), "%s: %s by %v\n%v", one.Name, f.Text,
					f.Mend.Says, list(then))
				mended[f.Rule] = true
			}
		}
	}
	assert.GreaterOrEqual(t, len(mended), 25, "%v", mended)
}

func list(found []Finding) (out []string) {
	for _, f := range found {
		out = append(out, "\n   "+string(f.Severity)+" "+f.Rule+": "+f.Text)
	}
	return out
}
