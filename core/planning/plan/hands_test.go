package plan

import (
	"context"
	"fmt"
	"slices"
	"testing"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/boat/area"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
	"allcoats/core/physics/weather"
	"allcoats/core/planning/schedule"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// When a day is rained off the rest keeps its order, and what moved is told.
func TestReplanMovesLittle(t *testing.T) {
	fine := fair(20, nil)
	surfaces := func(w field.Weather) []Surface {
		return []Surface{surface("Sides", area.Topsides, w, 3, 3), surface("Rudder", area.Rudder, w, 2, 1),
			surface("Deck", area.Deck, w, 2, 2)}
	}
	_, _, before := make_(t, yard(18, surfaces(fine)...), nil)
	m, err := yard(18, surfaces(fine)...).Model()
	require.NoError(t, err)
	same, _ := m.Make(t.Context(), Kept{Starts: before}, Effort{Rounds: 0})
	assert.Empty(t, Changes(before, same), "nothing new, nothing moved")
	wet := fair(20, func(i int, h *weather.Hour) {
		if i < 16 {
			h.RainMM = num(2)
		}
	})
	_, after, _ := make_(t, yard(18, surfaces(wet)...), before)
	moved := Changes(before, after)
	require.NotEmpty(t, moved)
	for _, c := range moved {
		assert.NotEmpty(t, c.Why)
	}
}

func TestNoiseHoursAndCorners(t *testing.T) {
	w := fair(20, nil)
	sanded := surface("Sides", area.Topsides, w, 1, 2)
	sanded.Tasks = append([]task.Task{work("s", step.Sand, 2)}, sanded.Tasks...)
	y := yard(16, sanded)
	y.Noise = calendar.Hours{FromH: 13, ToH: 17}
	_, p, _ := make_(t, y, nil)
	assert.Equal(t, 13, item(t, p, "s").Start.Hour(), "sanding is loud")

	flat := surface("Side", area.Other, w, 2, 2)
	for n := range flat.Tasks {
		flat.Tasks[n].Step.Sheet.Kind = product.Fairing
		flat.Tasks[n].Where, flat.Tasks[n].Step.Where = []string{"flats", "corners"}[n],
			&step.Where{Name: "x", SharePct: 50, Corner: n == 1}
	}
	y = yard(16, flat)
	y.People = []Person{{Name: "Ada"}, {Name: "Wim"}}
	_, p, _ = make_(t, y, nil)
	assert.NotEqual(t, item(t, p, "Side-1#1").Start.YearDay(), item(t, p, "Side-1#2").Start.YearDay(),
		"flats and corners")
	y.Boats[0].Off = map[string]string{Corners: "two teams"}
	_, p, _ = make_(t, y, nil)
	assert.Equal(t, item(t, p, "Side-1#1").Start.YearDay(), item(t, p, "Side-1#2").Start.YearDay())
}

func TestNotesAndOpenHours(t *testing.T) {
	w := fair(12, func(i int, h *weather.Hour) {
		if i < 30 {
			h.TempC = 5
		}
	})
	_, p, _ := make_(t, yard(8, surface("Hull", area.Topsides, w, 1, 2),
		Surface{ID: "Deck", Name: "Deck", Part: area.Deck, Weather: w}), nil)
	assert.Equal(t, "[Tern: nothing is planned on Deck; choose its coats in Build-up]", fmt.Sprint(p.Notes))
	require.Len(t, p.Open, 1)
	assert.False(t, p.Open[0].Starts[0].From.Before(now.Add(29*time.Hour)), "not in the cold")
}

// Two coats at once that two skills are needed for, when only Ada has both: the
// others help, and nobody does what he cannot.
func TestSkillsAreKept(t *testing.T) {
	w := fair(20, nil)
	bright, sides := surface("Rails", area.Rails, w, 2, 2), surface("Sides", area.Rudder, w, 2, 2)
	for n := range bright.Tasks {
		bright.Tasks[n].Skill = task.Varnishing
		sides.Tasks[n].Skill = task.Spraying
	}
	y := yard(16, bright, sides)
	y.People = []Person{{Name: "Wim"}, {Name: "Ada", Skills: []task.Skill{task.Varnishing, task.Spraying}},
		{Name: "Kim"}}
	m, p, _ := make_(t, y, nil)
	for _, it := range p.Items {
		if it.Coat {
			assert.Equal(t, []string{"Ada"}, it.People, it.Surface)
		}
	}
	assert.False(t, item(t, p, "Sides-1#1").Start.Before(item(t, p, "Rails-1#1").End) &&
		item(t, p, "Rails-1#1").Start.Before(item(t, p, "Sides-1#1").End))
	assert.Empty(t, m.unmanned())

	y.People[2].Skills = []task.Skill{task.Varnishing}
	_, p, _ = make_(t, y, nil)
	assert.Equal(t, item(t, p, "Sides-1#1").Start, item(t, p, "Rails-1#1").Start, "Kim varnishes while Ada sprays")
	assert.Equal(t, []string{"Kim"}, item(t, p, "Rails-1#1").People)

	y.People[1].Week = calendar.Week{2: {FromH: 8, ToH: 18}}
	_, p, _ = make_(t, y, nil)
	sprayed := item(t, p, "Sides-1#1")
	assert.Equal(t, time.Tuesday, sprayed.Start.Weekday())
	assert.Contains(t, sprayed.Why.In(time.UTC),
		"the work of Ada begins Tuesday 08:00, and nobody else who does spraying is there before")

	y.People = []Person{{Name: "Wim", Skills: []task.Skill{task.Spraying}}}
	_, p, _ = make_(t, y, nil)
	assert.Contains(t, fmt.Sprint(p.Notes), "nobody is named for varnishing: it is planned for anybody")
}

func TestATentIsShared(t *testing.T) {
	w := fair(30, nil)
	tented := func(id string) Boat {
		s := surface(id+" deck", area.Deck, w, 2, 2)
		s.Tented = true
		open := surface(id+" keel", area.Keel, w, 1, 1)
		return Boat{ID: id, Name: id, Surfaces: []Surface{s, open}, Off: map[string]string{TopDown: "covered"}}
	}
	y := yard(26)
	y.Boats = []Boat{tented("Tern"), tented("Rail")}
	soon := now.AddDate(0, 0, 9)
	y.Boats[1].Launch = &soon
	y.People = []Person{{Name: "Ada"}, {Name: "Wim"}}
	_, p, _ := make_(t, y, nil)
	assert.Len(t, p.Items, 8, "each boat has her own tent: three coats and a launch")
	y.Tents = 1
	_, p, _ = make_(t, y, nil)
	move := item(t, p, "tent:Tern")
	assert.Equal(t, "move the tent over from Rail", move.What.String())
	assert.ElementsMatch(t, []string{"Ada", "Wim"}, move.People)
	assert.False(t, move.Start.Before(item(t, p, "Rail deck-1#2").End.Add(24*time.Hour)),
		"the coat in it is through-dry")
	assert.False(t, item(t, p, "Tern deck-1#1").Start.Before(move.End))
	assert.True(t, item(t, p, "Tern keel-1#1").Start.Before(move.Start), "the keel is not in the tent")
	y.Boats[0].Off[TentMoves] = "a second one is lent"
	_, p, _ = make_(t, y, nil)
	assert.Len(t, p.Items, 8)
}

func TestPeopleAndTasksThatCannotBe(t *testing.T) {
	for path, err := range map[string]error{
		"name":      Person{}.Validate(),
		"off[0]":    Person{Name: "Ada", Off: []string{"Saturday"}}.Validate(),
		"skills[0]": Person{Name: "Ada", Skills: []task.Skill{" "}}.Validate(),
		"week[2]":   Person{Name: "Ada", Week: calendar.Week{2: {FromH: 9, ToH: 30}}}.Validate(),
		"hours":     task.Own{Name: "Engine", Crew: 1}.Validate(),
		"crew":      task.Own{Name: "Engine", Hours: 1}.Validate(),
		"when":      task.Own{Name: "Engine", Hours: 1, Crew: 1, SurfaceID: "s", When: "during"}.Validate(),
		"surfaceId": task.Own{Name: "Engine", Hours: 1, Crew: 1, When: "after"}.Validate(),
	} {
		assert.ErrorContains(t, err, path)
	}
	assert.NoError(t, Person{Name: "Ada", Off: []string{"2026-06-06"}, Skills: task.Skills}.Validate())
	assert.NoError(t, task.Own{Name: "Engine", Hours: 1, Crew: 1, SurfaceID: "s", When: "after",
		Skill: "mechanic"}.Validate())
}

// Planning anew searches: of twenty yards some are better for it and none is worse, and
// progress is told.
func TestRoundsMakeABetterPlan(t *testing.T) {
	better, told := 0, 0
	for seed := range uint64(20) {
		m, err := someYard(t, seed).Model()
		require.NoError(t, err)
		first, _ := m.Make(t.Context(), Kept{}, Effort{Seed: 1})
		then, _ := m.Make(t.Context(), Kept{}, Effort{Seed: 1, Rounds: 60, Told: func(float64) { told++ }})
		one, two := m.Problem.Score(first.raw), m.Problem.Score(then.raw)
		require.LessOrEqual(t, slices.Compare(two[:], one[:]), 0)
		if slices.Compare(two[:schedule.Sanded], one[:schedule.Sanded]) < 0 {
			better++
		}
		ctx, stop := context.WithCancel(t.Context())
		stop()
		stopped, _ := m.Make(ctx, Kept{}, Effort{Seed: 1, Rounds: 400})
		assert.Equal(t, first.raw.Start, stopped.raw.Start, "stopped at once it is the first plan")
	}
	assert.Greater(t, better, 5)
	assert.Greater(t, told, 20)
}
