package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/job/task"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/solar"
)

// foreman looks through a plan with nothing but the plan, the job, the people and the
// records of the weather, and lists every rule that it breaks.
type foreman struct {
	y     Yard
	p     Plan
	found []string
	tasks map[string]task.Task // of the job, by boat and id
}

// broken lists the rules that a plan breaks.
func broken(y Yard, p Plan) []string {
	f := &foreman{y: y, p: p, tasks: map[string]task.Task{}}
	for _, b := range y.Boats {
		for _, s := range b.Surfaces {
			for _, t := range s.Tasks {
				f.tasks[t.ID] = t
			}
		}
		for i, o := range b.Own {
			f.tasks[o.ID] = b.Work[i]
		}
	}
	f.people()
	f.whole()
	for k := range y.Boats {
		b := y.Boats[k]
		for _, s := range b.Surfaces {
			f.surface(b, s)
		}
		f.neighbours(b)
	}
	f.dust()
	return f.found
}

func (f *foreman) says(it Item, format string, args ...any) {
	f.found = append(f.found, fmt.Sprintf("%s %s %s %s–%s: ", it.Boat, it.Surface, it.What,
		it.Start.Format("Mon 2 Jan 15:04"), it.End.Format("15:04"))+fmt.Sprintf(format, args...))
}

// whole is the id of the task of the job that an item is a part of.
func whole(id string) string {
	id, _, _ = strings.Cut(id, "~")
	id, _, _ = strings.Cut(id, "/")
	return id
}

// of is the task of the job that an item is a part of.
func (f *foreman) of(it Item) task.Task { return f.tasks[whole(it.TaskID)] }

func (f *foreman) people() {
	by := map[string][]Item{}
	for _, it := range f.p.Items {
		if it.Launch {
			continue
		}
		if it.Start.Minute()%15 != 0 || it.End.Minute()%15 != 0 {
			f.says(it, "not in quarters of an hour")
		}
		f.crew(it)
		for _, who := range it.People {
			by[who] = append(by[who], it)
		}
	}
	for _, who := range f.y.People {
		items := by[who.Name]
		slices.SortFunc(items, func(a, b Item) int { return a.Start.Compare(b.Start) })
		for i, it := range items {
			f.atWork(who, it)
			if i == 0 {
				continue
			}
			before := items[i-1]
			if it.Start.Before(before.End) {
				f.says(it, "%s is at %s then", who.Name, before.What)
			} else if way := time.Duration(f.y.TravelMin) * time.Minute; it.BoatID != before.BoatID &&
				it.Start.Sub(before.End) < way {
				f.says(it, "%s has no time to come from %s", who.Name, before.Boat)
			}
		}
	}
}

// crew checks that those named are as many, and as skilled, as it takes.
func (f *foreman) crew(it Item) {
	t := f.of(it)
	took := it.End.Sub(it.Start).Hours() * float64(len(it.People))
	if len(it.People) == 0 || took < it.Hours+it.SetupH-1e-6 {
		f.says(it, "%d people for %.2f h", len(it.People), it.Hours+it.SetupH)
	}
	if len(it.People) < t.Step.Crew && !it.Rekey {
		f.says(it, "%d people where it takes %d", len(it.People), t.Step.Crew)
	}
	anybody, here := false, false
	for _, p := range f.y.People {
		can := slices.Contains(p.Skills, t.Skill)
		anybody = anybody || can
		here = here || can && slices.Contains(it.People, p.Name)
	}
	if t.Skill != "" && anybody && !here && !it.Rekey {
		f.says(it, "nobody of %v does %s", it.People, t.Skill)
	}
}

func (f *foreman) atWork(p Person, it Item) {
	day := it.Start.In(f.y.Loc)
	week := p.Week
	if p.Week == (Person{}.Week) {
		week = usualWeek
	}
	h := week[day.Weekday()]
	midnight := time.Date(day.Year(), day.Month(), day.Day(), 0, 0, 0, 0, f.y.Loc)
	from, to := it.Start.Sub(midnight).Hours(), it.End.Sub(midnight).Hours()
	if slices.Contains(p.Off, day.Format(time.DateOnly)) || from < h.FromH-1e-9 || to > h.ToH+1e-9 {
		f.says(it, "%s does not work then", p.Name)
	}
}

// whole checks that all of the job is in the plan or named as left out.
func (f *foreman) whole() {
	planned := map[string]float64{}
	for _, it := range f.p.Items {
		if !it.Rekey {
			planned[whole(it.TaskID)] += it.Hours
		}
	}
	left := map[string]bool{}
	for _, l := range f.p.Left {
		left[l.BoatID] = true
		if len(l.Needs) == 0 || len(l.Why) == 0 {
			f.found = append(f.found, l.Name.String()+" is left out without a word")
		}
	}
	for id, t := range f.tasks {
		boat := ""
		for _, b := range f.y.Boats {
			for _, s := range b.Surfaces {
				if s.ID == t.SurfaceID {
					boat = b.ID
				}
			}
			if slices.ContainsFunc(b.Own, func(o task.OwnTask) bool { return o.ID == id }) {
				boat = b.ID
			}
		}
		if t.Left() && math.Abs(planned[id]-t.LeftH) > 0.01 && !left[boat] {
			f.found = append(f.found, fmt.Sprintf("%s: %.2f h of %.2f", id, planned[id], t.LeftH))
		}
	}
}

// sameplace tells whether two items of a surface work on the same place: parts of a strip
// and of the coat on it do if they have the same number.
func samePlace(a, b Item, run map[string]bool) bool {
	_, x, one := strings.Cut(a.TaskID, "/")
	_, y, two := strings.Cut(b.TaskID, "/")
	return !one || !two || x == y || !run[whole(a.TaskID)] || !run[whole(b.TaskID)]
}

// surface checks the order, the clocks and the limits on one surface.
func (f *foreman) surface(b Boat, s Surface) {
	var items, mends []Item
	for _, it := range f.p.Items {
		if it.SurfaceID == s.ID && it.Rekey {
			mends = append(mends, it)
		} else if it.SurfaceID == s.ID {
			items = append(items, it)
		}
	}
	at := map[string]int{}
	run := map[string]bool{} // tasks that are done place by place
	for i, t := range s.Tasks {
		at[t.ID] = i
		for _, bind := range t.Binds {
			if bind.Name == "bare metal" {
				for _, o := range s.Tasks[i:] {
					run[o.ID] = true
					if o.ID == bind.Until {
						break
					}
				}
			}
		}
	}
	for _, it := range items {
		t := f.of(it)
		if t.Films {
			f.field(b, s, it)
		} else if !s.Sheltered && !t.Step.Indoor {
			f.dry(s, it)
		}
		for _, o := range items {
			if at[whole(o.TaskID)] < at[whole(it.TaskID)] && samePlace(it, o, run) && it.Start.Before(o.End) {
				f.says(it, "comes before %s, %s, is done", o.What, o.End.Format("Mon 2 Jan 15:04"))
			}
		}
		f.clock(s, it, items, mends, at, run)
		for _, bind := range t.Binds {
			f.bound(it, bind, items, mends, run)
			if bind.Name == "tape" {
				f.taped(items, mends, bind.MaxH)
			}
		}
	}
}

// field checks the limits of a coat along its laying, its hold and its rain-free hours.
func (f *foreman) field(b Boat, s Surface, it Item) {
	t := f.of(it)
	l := t.Step.Sheet.Limits
	lay := time.Duration(t.LayH * it.SharePct / 100 / float64(len(it.People)) * float64(time.Hour))
	for i, h := range s.Weather.Air {
		if h.At.Before(it.Start) ||
			h.At.After(it.Start.Add(lay).Add(time.Duration(max(l.HoldH, l.RainFreeH)*float64(time.Hour)))) {
			continue
		}
		since := h.At.Sub(it.Start).Hours()
		laying := since <= lay.Hours()
		if *h.RainMM > 0.05 && !s.Sheltered && since <= lay.Hours()+l.RainFreeH {
			f.says(it, "it rains at %s", h.At.Format("15:04"))
		}
		if since <= lay.Hours()+l.HoldH {
			f.limits(it, l, h.TempC, h.RHPct, s.Weather.SurfaceC[i], h.At)
		}
		if laying && !b.Lights && !f.light(h.At) {
			f.says(it, "it is dark at %s", h.At.Format("15:04"))
		}
	}
}

// limits checks air and surface with a dew point of its own (Magnus, WMO 2008).
func (f *foreman) limits(it Item, l product.Limits, air, rh, surface float64, when time.Time) {
	g := math.Log(rh/100) + 17.62*air/(243.12+air)
	dew := 243.12 * g / (17.62 - g)
	spread := 3.0
	if l.SpreadMinK != nil {
		spread = *l.SpreadMinK
	}
	for _, bad := range []bool{
		l.AirMinC != nil && air < *l.AirMinC, l.AirMaxC != nil && air > *l.AirMaxC, l.SurfaceMinC != nil &&
			surface < *l.SurfaceMinC,
		l.SurfaceMaxC != nil && surface > *l.SurfaceMaxC, l.RHMaxPct != nil && rh > *l.RHMaxPct,
		surface-dew < spread-0.05,
	} {
		if bad {
			f.says(it, "%.1f °C, %.0f %%, surface %.1f °C, dew point %.1f °C at %s", air, rh, surface, dew,
				when.Format("Mon 15:04"))
		}
	}
}

func (f *foreman) light(at time.Time) bool {
	return slices.ContainsFunc(f.y.Daylight, func(d solar.Daytime) bool {
		return !at.Before(d.Rise) && !at.After(d.Set)
	})
}

// dry checks work that needs a dry surface in the open.
func (f *foreman) dry(s Surface, it Item) {
	for _, h := range s.Weather.Air {
		if !h.At.Before(it.Start) && h.At.Before(it.End) && *h.RainMM > 0.05 {
			f.says(it, "it rains at %s", h.At.Format("15:04"))
		}
	}
}

// hoursAt is how much of a table's time passes on a surface between two instants, minute by
// minute at the temperature of the hour.
func hoursAt(table cure.Table, w field.Weather, from, to time.Time, side cure.Side, floor float64) float64 {
	sum := 0.0
	for at := from; at.Before(to); at = at.Add(10 * time.Minute) {
		i := int(at.Sub(w.Air[0].At).Hours())
		if i+1 >= len(w.SurfaceC) {
			break
		}
		part := at.Sub(w.Air[i].At).Hours()
		c := w.SurfaceC[i] + (w.SurfaceC[i+1]-w.SurfaceC[i])*part
		if side == cure.Minimum && c < floor {
			continue
		}
		tau, _ := table.TauH(c, side)
		sum += 1 / tau / 6
	}
	return sum
}

// clock checks the recoat window of the coat below a coat.
func (f *foreman) clock(s Surface, it Item, items, mends []Item, at map[string]int, run map[string]bool) {
	t := f.of(it)
	if !t.Films {
		return
	}
	below := -1
	for i := at[t.ID] - 1; i >= 0 && below < 0; i-- {
		if s.Tasks[i].Films {
			below = i
		}
	}
	if below < 0 {
		return
	}
	c := s.Tasks[below].Step.Sheet
	r, ok := c.RecoatOver(t.Step.Sheet.Kind)
	if !ok {
		return
	}
	abraded := slices.ContainsFunc(s.Tasks[below+1:at[t.ID]], func(o task.Task) bool { return o.Work.Kind().Abrades })
	for _, o := range items {
		if whole(o.TaskID) != s.Tasks[below].ID || !samePlace(it, o, run) {
			continue
		}
		if p := hoursAt(r.Min, s.Weather, o.End, it.Start, cure.Minimum, c.MinCureC); p < 0.9 {
			f.says(it, "on %s of %s at %.2f of its interval", o.What, o.End.Format("Mon 2 Jan 15:04"), p)
		}
		if len(r.Max) == 0 || abraded {
			continue
		}
		if p := hoursAt(r.Max, s.Weather, o.Start, it.Start, cure.Maximum, 0); p > 1.1 &&
			!mendedBetween(mends, o.End, it.Start) {
			f.says(it, "%.2f of the window of %s", p, o.What)
		}
	}
}

// mendedBetween tells whether a mend lies between two instants, three days before the last at
// most, or two weeks if it ends with a tie coat.
func mendedBetween(mends []Item, from, to time.Time) bool {
	return slices.ContainsFunc(mends, func(m Item) bool {
		lasts := 72 * time.Hour
		if strings.Contains(m.What.String(), "tie coat") {
			lasts = 14 * 24 * time.Hour
		}
		return !m.Start.Before(from) && !m.End.After(to) && to.Sub(m.End) <= lasts
	})
}

// bound checks a limit that runs from an item.
func (f *foreman) bound(it Item, b task.Bind, items, mends []Item, run map[string]bool) {
	for _, o := range items {
		if whole(o.TaskID) != b.Until || !samePlace(it, o, run) {
			continue
		}
		end := o.Start
		if late := end.Sub(it.End).Hours() - b.MaxH; late > 1e-6 && b.Name != "tape" &&
			!mendedBetween(mends, it.End, o.Start) {
			f.says(it, "%s: %s only %s, %.0f h too late", b.Name, o.What, o.Start.Format("Mon 2 Jan 15:04"), late)
		}
	}
}

// taped checks that no tape is on a surface for longer than it may be, put on anew or not.
func (f *foreman) taped(items, mends []Item, maxH float64) {
	all := slices.Concat(items, mends)
	slices.SortFunc(all, func(a, b Item) int { return a.Start.Compare(b.Start) })
	var on *Item
	for i, it := range all {
		if strings.HasPrefix(it.What.String(), "pull the tape") && on != nil {
			if h := it.Start.Sub(on.End).Hours(); h > maxH+1e-6 && !slices.ContainsFunc(mends, func(m Item) bool {
				return strings.HasPrefix(m.What.String(), "warm the tape") && m.Start.After(on.End) &&
					!m.Start.After(it.Start)
			}) {
				f.says(*on, "tape is on for %.0f h, to %s", h, it.Start.Format("Mon 2 Jan 15:04"))
			}
			on = nil
		}
		if strings.Contains(it.What.String(), "mask") {
			on = &all[i]
		}
	}
}
