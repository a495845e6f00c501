package task

import (
	"cmp"
	"maps"
	"math"
	"slices"

	"allcoats/core/base/message"
	"allcoats/core/film/step"
)

// Lesson is something that the log taught, with what it is multiplied by. Spread is by how much one
// time differs from the next, as a factor up and down, eight times in ten.
type Lesson struct {
	Key     string           `json:"key"`
	Says    message.Sentence `json:"says"`
	Entries int              `json:"entries"`
	Factor  float64          `json:"factor"`
	Spread  float64          `json:"spread"`
	// Off says that it was told not to count; Counts that it does.
	Off    bool `json:"off"`
	Counts bool `json:"counts"`
	// By is what each person takes, those with the most entries first.
	By []PersonPace `json:"by,omitempty"`
}

// PersonPace is what work took one person against the reckoning.
type PersonPace struct {
	Who     string  `json:"who"`
	Entries int     `json:"entries"`
	Factor  float64 `json:"factor"`
}

// LitresKey is the key of the lesson on litres.
const LitresKey = "litres"

// PaceKey is the key of the lesson on the hours of a kind of work.
func PaceKey(w step.Work) string { return "pace:" + string(w) }

// Tenth makes a standard deviation of a logarithm a factor up and down, eight times in ten.
func Tenth(sd float64) float64 { return math.Exp(1.2816 * sd) }

// Lessons are what the log taught of hours and litres.
func (j Job) Lessons() []Lesson {
	out := []Lesson{}
	for _, k := range step.Kinds {
		p := j.pace[k.Work]
		if p.Told() == 0 {
			continue
		}
		key := PaceKey(k.Work)
		l := Lesson{Key: key, Says: message.Of("Hours: %s", message.Lit(k.Name)), Entries: p.Told(), Factor: p.Factor(),
			Spread: Tenth(p.SD()), Off: j.off[key], Counts: !j.off[key]}
		for _, who := range slices.Sorted(maps.Keys(j.by[k.Work])) {
			one := j.by[k.Work][who]
			l.By = append(l.By, PersonPace{who, one.Told(), one.Factor()})
		}
		slices.SortStableFunc(l.By, func(a, b PersonPace) int { return cmp.Compare(b.Entries, a.Entries) })
		out = append(out, l)
	}
	if n := j.taught.Coats(); n > 0 {
		r := j.taught.Factor()
		out = append(out, Lesson{Key: LitresKey, Says: message.Of("Litres of coats"), Entries: n, Factor: r.Median,
			Spread: math.Sqrt(r.High / r.Low), Off: j.off[LitresKey], Counts: !j.off[LitresKey]})
	}
	return out
}
