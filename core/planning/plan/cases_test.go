package plan

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"sync"
	"testing"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	exposed "allcoats/core/exposure/surface"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
	"allcoats/core/physics/solar"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/require"
)

var examples = sync.OnceValue(product.Examples)

// daylight is that of two years at the place of the cases.
var daylight = sync.OnceValue(func() []solar.Daytime {
	return solar.Daylight(52, 0, time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC),
		time.Date(2028, 1, 1, 0, 0, 0, 0, time.UTC))
})

// sheet is the example whose name begins so.
func sheet(t testing.TB, name string) product.Sheet {
	for _, s := range examples() {
		if strings.HasPrefix(s.Name, name) {
			return s
		}
	}
	t.Fatal("no example ", name)
	return product.Sheet{}
}

// drawn is a year's weather of a northern place by the day of the calendar: the same hour has
// the same weather whenever it is asked for. Showers wet what is out for two hours.
func drawn(from time.Time, days int, seed uint64) field.Weather {
	var w field.Weather
	for at := from.Add(-72 * time.Hour); at.Before(from.AddDate(0, 0, days+10)); at = at.Add(time.Hour) {
		day := uint64(at.Unix() / 86400)
		r := rand.New(rand.NewPCG(seed, day))
		wet, off, from := r.Float64() < 0.35, 2.5*r.NormFloat64(), r.IntN(18)
		hour, year := at.Hour(), float64(at.YearDay())
		h := weather.Hour{At: at, TempC: 10 + off + 8*math.Sin(2*math.Pi*(year-110)/365) +
			4*math.Sin(2*math.Pi*float64(hour-9)/24), RainMM: num(0), WindMS: num(3)}
		h.RHPct = math.Max(40, math.Min(98, 72-18*math.Sin(2*math.Pi*float64(hour-9)/24)+4*off))
		if wet && hour >= from && hour < from+5 {
			h.RainMM = num(0.8)
			w.Wet = append(w.Wet, exposed.Wet{From: at, To: at.Add(2 * time.Hour)})
		}
		w.Air = append(w.Air, h)
		w.SurfaceC = append(w.SurfaceC, h.TempC+0.5)
	}
	return w
}

// part is a surface of a case with its steps.
type part struct {
	name  string
	part  area.Part
	of    survey.Substrate
	m2    float64
	steps []task.Step
	tent  bool
}

func do(w step.Work, grit int) task.Step {
	return task.Step{Step: step.Step{Work: w, Grit: grit}}
}

func lay(s product.Sheet, coats, key int) task.Step {
	out := task.Step{ProductID: s.Name, Step: step.Step{Work: step.Coat, Coats: coats, DFTUm: s.Film.TypicalUm,
		Method: "roller", Sheet: s, LossPct: 10}}
	out.KeyGrit = key
	if s.Kind.Info().Filler {
		out.Work, out.Method = step.Fill, "blade"
	}
	return out
}

// boatOf makes a boat of parts, her job unfolded as everywhere.
func boatOf(t testing.TB, id string, w field.Weather, parts []part, own ...task.OwnTask) Boat {
	b := Boat{ID: id, Name: id, Own: own}
	var job task.Boat
	for _, p := range parts {
		s := task.Surface{ID: id + " " + p.name, Name: p.name, Part: p.part, Substrate: p.of,
			Area: area.Figure{AreaM2: p.m2}, Access: 1, Steps: p.steps}
		for i := range s.Steps {
			s.Steps[i].ID = fmt.Sprintf("%s/%s/%d", id, p.name, i)
			s.Steps[i].ID = strings.ReplaceAll(s.Steps[i].ID, "/", "-")
		}
		job.Surfaces = append(job.Surfaces, s)
	}
	job.Own = own
	j := task.Of(job)
	for i, s := range job.Surfaces {
		b.Surfaces = append(b.Surfaces, Surface{ID: s.ID, Name: s.Name, Part: s.Part, Side: area.Both,
			AreaM2: s.Area.AreaM2, Access: 1, Weather: w, HoldsMM: 0.1, Tented: parts[i].tent, Sheltered: parts[i].tent,
			Tasks: j.Surfaces[i].Tasks})
	}
	b.Work = j.Own
	require.Len(t, b.Work, len(own))
	return b
}

var (
	evenings = calendar.Week{0: {FromH: 9, ToH: 18}, 1: {FromH: 17, ToH: 20}, 2: {FromH: 17, ToH: 20},
		3: {FromH: 17, ToH: 20}, 4: {FromH: 17, ToH: 20}, 5: {FromH: 17, ToH: 20}, 6: {FromH: 9, ToH: 18}}
	workdays = calendar.Week{1: {FromH: 8, ToH: 17}, 2: {FromH: 8, ToH: 17}, 3: {FromH: 8, ToH: 17},
		4: {FromH: 8, ToH: 17}, 5: {FromH: 8, ToH: 15}}
)

// ketch is a steel ketch of 13 m in the open that her owner does on evenings and at weekends,
// from an autumn to the summer after.
func ketch(t testing.TB, from time.Time) Yard {
	prime, build, tie, af := sheet(t, "Epoxy metal primer"), sheet(t, "Epoxy high-build"), sheet(t, "Epoxy tie coat"),
		sheet(t, "Antifouling, soft")
	fairing, top, deck, oil := sheet(t, "Epoxy fairing"), sheet(t, "Topcoat, two-part"), sheet(t, "Non-skid deck"),
		sheet(t, "Varnish, one-part")
	mask := do(step.Mask, 0)
	parts := []part{
		{"bottom", area.Bottom, survey.Steel, 38, []task.Step{do(step.Strip, 0), lay(prime, 1, 0), lay(build, 3, 0),
			lay(tie, 1, 0), lay(af, 2, 0)}, false},
		{"topsides", area.Topsides, survey.Steel, 44, []task.Step{do(step.Strip, 0), lay(prime, 1, 0),
			lay(fairing, 1, 0), do(step.Sand, 80), do(step.Wash, 0), lay(build, 2, 0), do(step.Sand, 220),
			do(step.Wash, 0), mask, lay(top, 2, 320)}, false},
		{"deck", area.Deck, survey.Steel, 22, []task.Step{do(step.Strip, 0), lay(prime, 1, 0), lay(build, 1, 0),
			do(step.Sand, 120), do(step.Wash, 0), lay(deck, 2, 0)}, false},
		{"cabin sides", area.CabinSides, survey.Steel, 9, []task.Step{do(step.Wash, 0), do(step.Sand, 180), mask,
			lay(top, 2, 320)}, false},
		{"rails", area.Rails, survey.SolidWood, 5, []task.Step{do(step.Sand, 120), mask, lay(oil, 6, 320)}, false},
	}
	launch := time.Date(2027, 6, 20, 12, 0, 0, 0, time.UTC)
	until := launch.AddDate(0, 6, 0)
	days := int(until.Sub(from).Hours() / 24)
	y := Yard{Now: from, Until: until, Loc: time.UTC, Daylight: daylight(),
		People: []Person{{Name: "Owner", Week: evenings}}, TravelMin: 15}
	b := boatOf(t, "Ketch", drawn(from, days, 1), parts,
		task.OwnTask{ID: "engine", Own: task.Own{Name: "Service the engine", Hours: 14, Crew: 1}},
		task.OwnTask{ID: "wiring", Own: task.Own{Name: "Wiring", Hours: 20, Crew: 1}})
	b.Launch = &launch
	y.Boats = []Boat{b}
	return y
}

// spring is a yard of n boats in spring, done by twelve people.
func spring(t testing.TB, n int, seed uint64) Yard {
	r := rand.New(rand.NewPCG(seed, 60))
	from := time.Date(2026, 3, 2, 7, 0, 0, 0, time.UTC)
	until := from.AddDate(0, 7, 0)
	w := drawn(from, 220, seed)
	y := Yard{Now: from, Until: until, Loc: time.UTC, Daylight: daylight(), TravelMin: 15, DustM: 6, Guns: 2}
	skills := [][]task.Skill{{task.Spraying}, {task.Varnishing}, {task.Fairing}, nil}
	for i := range 12 {
		y.People = append(y.People, Person{Name: fmt.Sprintf("P%02d", i), Week: workdays, Skills: skills[i%4]})
	}
	for k := range n {
		launch := from.AddDate(0, 0, 30+r.IntN(90))
		b := boatOf(t, fmt.Sprintf("Boat %02d", k), w, someParts(t, r))
		b.Launch, b.AlongM = &launch, float64(5*k)
		y.Boats = append(y.Boats, b)
	}
	return y
}

// someParts are what a spring brings: a bottom always, and sides, a deck or brightwork.
func someParts(t testing.TB, r *rand.Rand) []part {
	af, top, oil, barrier, deck := sheet(t, "Antifouling, soft"), sheet(t, "Topcoat, two-part"),
		sheet(t, "Varnish, one-part"), sheet(t, "Epoxy barrier coat, high"), sheet(t, "Non-skid deck")
	m2 := 8 + 20*r.Float64()
	out := []part{{"bottom", area.Bottom, survey.GRP, m2, []task.Step{do(step.Wash, 0), do(step.Sand, 80),
		do(step.Wash, 0), lay(af, 1+r.IntN(2), 0)}, false}}
	switch r.IntN(4) {
	case 0:
		out[0].steps = []task.Step{do(step.Strip, 0), do(step.Wash, 0), lay(barrier, 4, 0), lay(af, 2, 0)}
	case 1:
		out = append(out, part{"topsides", area.Topsides, survey.GRP, 1.2 * m2,
			[]task.Step{do(step.Sand, 180), do(step.Wash, 0), do(step.Mask, 0), lay(top, 2, 0)}, r.IntN(2) == 0})
	case 2:
		out = append(out, part{"rails", area.Rails, survey.SolidWood, 3,
			[]task.Step{do(step.Sand, 180), do(step.Mask, 0), lay(oil, 2, 320)}, false})
	}
	if r.IntN(4) == 0 {
		out = append(out, part{"deck", area.Deck, survey.GRP, 0.7 * m2,
			[]task.Step{do(step.Sand, 120), do(step.Wash, 0), do(step.Mask, 0), lay(deck, 2, 0)}, false})
	}
	return out
}

// someYard is a small yard by chance: a few boats and people, any start of a season, some coats
// that are on already, pins and rules switched off.
func someYard(t testing.TB, seed uint64) Yard {
	r := rand.New(rand.NewPCG(seed, 500))
	from := time.Date(2026, time.Month(3+r.IntN(6)), 1+r.IntN(28), 6+r.IntN(6), 0, 0, 0, time.UTC)
	until := from.AddDate(0, 0, 60+r.IntN(60))
	w := drawn(from, 130, seed)
	y := Yard{Now: from, Until: until, Loc: time.UTC, Daylight: daylight(), TravelMin: float64(15 * r.IntN(3)),
		DustM: float64(6 * r.IntN(2)), Guns: r.IntN(3)}
	weeks := []calendar.Week{{}, evenings, workdays, {6: {FromH: 8, ToH: 16}, 0: {FromH: 8, ToH: 16}}}
	for i := range 1 + r.IntN(3) {
		p := Person{Name: fmt.Sprintf("P%d", i), Week: weeks[r.IntN(4)]}
		if r.IntN(2) == 0 {
			p.Skills = []task.Skill{task.Skills[r.IntN(3)]}
		}
		if r.IntN(3) == 0 {
			p.Off = []string{from.AddDate(0, 0, 3).Format(time.DateOnly)}
		}
		y.People = append(y.People, p)
	}
	for k := range 1 + r.IntN(4) {
		parts := someParts(t, r)
		if r.IntN(3) == 0 {
			parts[0].of = survey.Aluminium
		}
		if r.IntN(4) == 0 {
			parts[0].steps[0].Crew = 2
		}
		if r.IntN(4) == 0 {
			top := sheet(t, "Topcoat, one-part")
			spray := lay(top, 2, 0)
			spray.Method = "spray"
			parts = append(parts, part{"transom", area.Transom, survey.GRP, 3, []task.Step{do(step.Sand, 220), spray},
				false})
		}
		id := fmt.Sprintf("B%d", k)
		b := boatOf(t, id, w, parts,
			task.OwnTask{ID: id + "own", Own: task.Own{Name: "Engine", Hours: 1 + float64(r.IntN(9)), Crew: 1,
				Outdoors: r.IntN(2) == 0}})
		if r.IntN(2) == 0 {
			launch := from.AddDate(0, 0, 10+r.IntN(60))
			b.Launch = &launch
		}
		b.AlongM = 5 * float64(k)
		y.Boats = append(y.Boats, b)
	}
	return y
}
