package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"allcoats/core/boat/area"
	"allcoats/core/conditions/field"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
	"allcoats/core/physics/cure"
)

// neighbours checks mask lines, top down and inside out on a boat.
func (f *foreman) neighbours(b Boat) {
	var coats []Item
	last := map[string]time.Time{}
	for _, it := range f.p.Items {
		if it.BoatID == b.ID && it.Coat {
			coats = append(coats, it)
			if it.Start.After(last[it.SurfaceID]) {
				last[it.SurfaceID] = it.Start
			}
		}
	}
	parts := map[string]area.Part{}
	stuck := map[string]bool{}
	for _, s := range b.Surfaces {
		parts[s.ID] = s.Part
		planned := 0
		for _, t := range s.Tasks {
			if t.Films && t.Left() {
				planned++
			}
		}
		seen := map[string]bool{}
		for _, c := range coats {
			if c.SurfaceID == s.ID {
				seen[whole(c.TaskID)] = true
			}
		}
		stuck[s.ID] = len(seen) < planned
	}
	for i, a := range coats {
		for _, z := range coats[:i] {
			if a.SurfaceID != z.SurfaceID && flowing(f.of(a)) && flowing(f.of(z)) &&
				parts[a.SurfaceID].Touches(parts[z.SurfaceID]) && a.Start.In(f.y.Loc).YearDay() == z.Start.In(
				f.y.Loc).YearDay() {
				f.says(a, "the neighbour %s is coated on the same day", z.Surface)
			}
		}
	}
	for id, when := range last {
		for other, then := range last {
			if x, y := parts[id].Info(), parts[other].Info(); !stuck[id] && !stuck[other] && !x.Inside && !y.Inside &&
				x.Level > y.Level && when.After(then) {
				f.found = append(f.found, fmt.Sprintf("%s: the last coat of %s after that of %s", b.Name, id, other))
			}
		}
	}
}

func flowing(t task.Task) bool {
	return t.Films && t.Work == step.Coat && !t.Step.Sheet.Kind.Info().Filler
}

// dust checks that nothing is sanded dry or stripped while a coat near by takes dust.
func (f *foreman) dust() {
	along := map[string]float64{}
	weathers := map[string]field.Weather{}
	for _, b := range f.y.Boats {
		along[b.ID] = b.AlongM
		for _, s := range b.Surfaces {
			weathers[s.ID] = s.Weather
		}
	}
	var dusty []Item
	for _, it := range f.p.Items {
		if t := f.of(it); !it.Launch && (it.Rekey && !slices.ContainsFunc([]string{"tape", "washed", "~tie", "~pull"},
			func(s string) bool { return strings.Contains(it.TaskID, s) }) || !it.Rekey && t.Work.Kind().Abrades &&
			!t.Step.Indoor) {
			dusty = append(dusty, it)
		}
	}
	for _, c := range f.p.Items {
		t := f.of(c)
		if !c.Coat || !flowing(t) || len(t.Step.Sheet.TouchDry) == 0 {
			continue
		}
		for _, d := range dusty {
			if d.End.Before(c.Start) || d.Start.Sub(c.End) > 48*time.Hour || !d.Start.Before(c.End.Add(48*time.Hour)) {
				continue
			}
			if c.BoatID != d.BoatID && (f.y.DustM == 0 || math.Abs(along[c.BoatID]-along[d.BoatID]) > f.y.DustM) {
				continue
			}
			over := d.End.After(c.Start) && d.Start.Before(c.End)
			if p := hoursAt(t.Step.Sheet.TouchDry, weathers[c.SurfaceID], c.End, d.Start, cure.Minimum,
				t.Step.Sheet.MinCureC); over || !d.Start.Before(c.End) && p < 0.9 {
				f.says(d, "dust on %s of %s %s, %.2f of its way to dry", c.What, c.Boat, c.Surface, p)
			}
		}
	}
}
