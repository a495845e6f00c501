package plan

import (
	"sort"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
	"allcoats/core/planning/schedule"
)

// cross adds the rules between the surfaces of a boat; numbers are the tasks of
// each surface, then own tasks.
func (m *Model) cross(k int, numbers [][]int) {
	b := m.Boats[k]
	for i, s := range b.Surfaces {
		for j, o := range b.Surfaces {
			if i != j {
				m.between(b, s, o, numbers[i], numbers[j])
			}
			if i < j {
				m.maskLine(b, s, o, numbers[i], numbers[j])
			}
		}
		m.corners(b, numbers[i])
	}
	m.owns(b, numbers)
}

// on tells whether a cross-rule holds for a boat.
func (b Boat) on(rule string) bool { _, off := b.Off[rule]; return !off }

func (m *Model) after(from, to int, rule string) {
	m.link(schedule.Link{From: from, To: to, Opens: schedule.After(0)}, cause{cross: rule})
}

// which are the tasks of which something holds.
func (m *Model) which(all []int, holds func(t Task) bool) (out []int) {
	for _, n := range all {
		if holds(m.Tasks[n]) {
			out = append(out, n)
		}
	}
	return out
}

// between orders the work on a surface before that on another one.
func (m *Model) between(b Boat, s, o Surface, upper, lower []int) {
	isLast := func(t Task) bool { return t.last }
	in, out := s.Part.Info(), o.Part.Info()
	rule := ""
	switch {
	case !in.Inside && !out.Inside && in.Level > out.Level && b.on(TopDown):
		rule = TopDown
	case in.Inside && !out.Inside && b.on(InsideOut):
		rule = InsideOut
	}
	if rule != "" {
		for _, a := range m.which(upper, isLast) {
			for _, z := range m.which(lower, isLast) {
				m.after(a, z, rule)
			}
		}
	}
	if in.Inside || in.Level <= out.Level || !b.on(Overspray) {
		return
	}
	sands := m.which(lower, func(t Task) bool { return t.Work == step.Sand })
	if len(sands) == 0 {
		return
	}
	for _, n := range m.which(upper, func(t Task) bool { return t.Skill == task.Spraying }) {
		m.after(n, sands[len(sands)-1], Overspray)
	}
}

// flows tells whether a task lays a coat that flows, which tape and its line can spoil.
func flows(t Task) bool { return t.Coat && !t.trowelled() }

// maskLine keeps the coats of neighbours on different days.
func (m *Model) maskLine(b Boat, s, o Surface, one, other []int) {
	if !b.on(MaskLines) || !s.Part.Touches(o.Part) || s.Side != o.Side && s.Side != "both" && o.Side != "both" {
		return
	}
	m.apart(m.which(one, flows), m.which(other, flows))
}

// apart keeps tasks on different days, but for those that are pinned.
func (m *Model) apart(one, other []int) {
	for _, i := range one {
		for _, j := range other {
			if m.Tasks[i].pinned == nil && m.Tasks[j].pinned == nil {
				m.Problem.Apart = append(m.Problem.Apart, [2]int{i, j})
			}
		}
	}
}

// corners keeps the filling of the corners of a surface and of its flats on different days.
func (m *Model) corners(b Boat, own []int) {
	if !b.on(Corners) {
		return
	}
	fills := func(corner bool) []int {
		return m.which(own, func(t Task) bool {
			w := t.Of.Step.Where
			return t.trowelled() && (w != nil && w.Corner) == corner
		})
	}
	m.apart(fills(true), fills(false))
}

// owns orders the user's own tasks, among themselves and about the coats of a surface.
func (m *Model) owns(b Boat, numbers [][]int) {
	byID := map[string][]int{}
	for i, o := range b.Own {
		byID[o.ID] = numbers[len(b.Surfaces)+i]
	}
	all := func(from, to []int, rule string) {
		for _, a := range from {
			for _, z := range to {
				m.after(a, z, rule)
			}
		}
	}
	for _, o := range b.Own {
		for _, id := range o.After {
			all(byID[id], byID[o.ID], "your order")
		}
		if len(byID[o.ID]) == 0 || !b.on(DrillFirst) {
			continue
		}
		for j, s := range b.Surfaces {
			if o.SurfaceID != s.ID || o.When == "" {
				continue
			}
			if o.When == "before" {
				all(byID[o.ID], numbers[j][:min(1, len(numbers[j]))], DrillFirst)
				continue
			}
			all(m.before(numbers[j]), byID[o.ID], DrillFirst)
			for _, to := range byID[o.ID] {
				m.waitForFilms(to, s, false, cause{cross: DrillFirst})
				for _, n := range numbers[j] {
					m.hardBefore(n, to, false, cause{cross: DrillFirst})
				}
			}
		}
	}
}

// pitchH is what it takes two people to strike a tent and to pitch it again, h: a
// rule of thumb.
const pitchH = 4

// tents lets boats that share the yard's tents have them one after the other, the
// earlier launch first: what is done in the tent of one is hard before it moves on.
func (m *Model) tents(chains [][][]int) {
	if m.Tents == 0 {
		return
	}
	type stay struct {
		boat int
		work [][]int // of each surface in the tent
	}
	var stays []stay
	for k, b := range m.Boats {
		s := stay{boat: k}
		for i, f := range b.Surfaces {
			if f.Tented && len(chains[k][i]) > 0 {
				s.work = append(s.work, chains[k][i])
			}
		}
		if b.on(TentMoves) && len(s.work) > 0 {
			stays = append(stays, s)
		}
	}
	due := func(k int) time.Time {
		if l := m.Boats[k].Launch; l != nil {
			return *l
		}
		return m.Until
	}
	sort.SliceStable(stays, func(i, j int) bool { return due(stays[i].boat).Before(due(stays[j].boat)) })
	for i := m.Tents; i < len(stays); i++ {
		from, to := stays[i-m.Tents], stays[i]
		crew := min(2, len(m.People))
		pitch := m.place(Task{ID: "tent:" + m.Boats[to.boat].ID, Boat: to.boat,
			What:  message.Of("move the tent over from %s", m.Boats[from.boat].Name),
			Hours: pitchH * float64(crew), Crew: crew, weather: m.Boats[to.boat].Surfaces[0].Weather, light: true})
		for _, work := range from.work {
			for _, n := range m.before(work) {
				l := schedule.Link{From: n, To: pitch, Opens: schedule.After(0)}
				if t := m.Tasks[n]; t.Coat {
					l.Opens = m.readyAfter(t.sheet.ThroughDry, t.sheet, t.weather)
				}
				m.link(l, cause{cross: TentMoves})
			}
		}
		for _, work := range to.work {
			m.after(pitch, work[0], TentMoves)
		}
	}
}
