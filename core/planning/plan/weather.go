package plan

import (
	"strings"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/film/step"
	"allcoats/core/physics/cure"
	"allcoats/core/planning/schedule"
)

type startsKey struct {
	boat                              int
	surface, step                     string
	coat, outdoors, light, dry, noisy bool
	slots                             int
	laying                            time.Duration
}

type dryKey struct {
	surface *float64
	roofed  bool
}

type clockKey struct {
	table *cure.Point
	at    *float64
	side  cure.Side
}

// may tells when weather and light allow a task to start.
func (m Model) may(t Task) []span {
	step, _, _ := strings.Cut(t.ID, "#")
	key := startsKey{t.Boat, t.SurfaceID, step, t.Coat, t.outdoors, t.light, t.dry, t.noisy, t.slots(), 0}
	if t.Coat {
		key.laying = t.laying()
	}
	out, ok := m.starts[key]
	if !ok {
		if t.Coat {
			out = m.coatStarts(t)
		} else {
			out = m.workStarts(t)
		}
		m.starts[key] = out
	}
	return out
}

// free tells for every record of w whether light allows laying.
func (m Model) free(w field.Weather, lights bool) field.Free {
	m.shared.mutex.Lock()
	defer m.shared.mutex.Unlock()
	key := lightKey{lights, len(w.Air)}
	if out, ok := m.shared.light[key]; ok {
		return out
	}
	at := make([]time.Time, len(w.Air))
	for i, h := range w.Air {
		at[i] = h.At
	}
	out := field.Job{Lights: lights, Daylight: m.Daylight}.Free(at)
	m.shared.light[key] = out
	return out
}

// coatStarts are the starts at which a coat keeps its field.
func (m Model) coatStarts(t Task) (out []span) {
	j := t.job
	j.Apply = t.laying()
	i0 := t.weather.Air.Find(m.Start)
	if i0 < 0 {
		return nil
	}
	starts := j.Starts(t.weather, m.free(t.weather, j.Lights))
	ok := func(h int) bool { return h < m.hours && i0+h < len(starts) && starts[i0+h] }
	for h := 0; h < m.hours; h++ {
		if !ok(h) {
			continue
		}
		first := h
		for ok(h + 1) {
			h++
		}
		out = append(out, span{First: first * perHour, Last: h * perHour})
	}
	return out
}

// workStarts are the starts of work without a field: dry, lit and in the hours of noise,
// where it takes that, from its start to its end.
func (m Model) workStarts(t Task) (out []span) {
	key := hoursKey{outdoors: t.outdoors, light: t.light, dry: t.dry, noisy: t.noisy}
	if len(t.weather.SurfaceC) > 0 {
		key.at = &t.weather.SurfaceC[0]
	}
	hours, ok := m.good[key]
	if !ok {
		hours = m.goodHours(t)
		m.good[key] = hours
	}
	for _, h := range hours {
		if last := (h.Last+1)*perHour - t.slots(); last >= h.First*perHour {
			out = append(out, span{First: h.First * perHour, Last: last})
		}
	}
	return out
}

// hoursKey is what the good hours of work depend on.
type hoursKey struct {
	at                          *float64 // a surface, by the place of its temperatures
	outdoors, light, dry, noisy bool
}

// goodHours are the stretches of whole hours in which work may go on.
func (m Model) goodHours(t Task) (out []span) {
	var lit field.Free
	i0 := -1
	if len(t.weather.Air) > 0 {
		i0, lit = t.weather.Air.Find(m.Start), m.free(t.weather, !t.light)
	}
	wet := len(t.weather.Wet) - 1
	ok := make([]bool, m.hours)
	for h := m.hours - 1; h >= 0; h-- {
		i := i0 + h
		ok[h] = (i0 < 0 || lit.At(i)) && (!t.noisy || !m.quiet[h])
		if !t.outdoors || i0 < 0 || i >= len(t.weather.Air) {
			continue
		}
		a := &t.weather.Air[i]
		for wet >= 0 && t.weather.Wet[wet].From.After(a.At) {
			wet--
		}
		isWet := wet >= 0 && t.weather.Wet[wet].To.After(a.At)
		ok[h] = ok[h] && (a.RainMM == nil || *a.RainMM <= 0.05) && (!t.dry || !isWet)
	}
	for h := 0; h < m.hours; h++ {
		if !ok[h] {
			continue
		}
		first := h
		for h+1 < m.hours && ok[h+1] {
			h++
		}
		out = append(out, span{First: first, Last: h})
	}
	return out
}

// quietHours are those in which no noise may be made.
func (m Model) quietHours() []bool {
	out := make([]bool, m.hours)
	for h := range out {
		hour := float64(m.At(h * perHour).In(m.Loc).Hour())
		out[h] = m.Noise.ToH > m.Noise.FromH && (hour < m.Noise.FromH || hour+1 > m.Noise.ToH)
	}
	return out
}

// progress is ∫ dt/τ along a surface's temperature.
func (m Model) progress(table cure.Table, side cure.Side, s product.Sheet, w field.Weather) *curve {
	if len(w.SurfaceC) == 0 {
		return newCurve(0, nil)
	}
	key := clockKey{&table[0], &w.SurfaceC[0], side}
	if c, ok := m.clocks[key]; ok {
		return c
	}
	rates, i0 := m.rates(table, side), w.Air.Find(m.Start)
	c := newCurve(m.hours, func(h int) float64 {
		i := i0 + h
		if i0 < 0 || i >= len(w.SurfaceC) || side == cure.Minimum && w.SurfaceC[i] < s.MinCureC {
			return 0
		}
		r := rates[min(len(rates)-1, max(0, int((w.SurfaceC[i]-coldest)*10+0.5)))]
		if s.Humidity != cure.Indifferent {
			r *= s.Humidity.Speed(w.SurfaceRH(i), side)
		}
		return r
	})
	m.clocks[key] = c
	return c
}

// The temperatures that rates are worked out for, °C.
const coldest, hottest = -30, 90

// rates are 1/τ of a table, per hour, at tenths of a degree.
func (m Model) rates(table cure.Table, side cure.Side) []float64 {
	key := clockKey{&table[0], nil, side}
	if r, ok := m.shared.rates[key]; ok {
		return r
	}
	r := make([]float64, 10*(hottest-coldest)+1)
	for i := range r {
		tau, _ := table.TauH(coldest+float64(i)/10, side)
		r[i] = 1 / tau
	}
	m.shared.rates[key] = r
	return r
}

// readyAfter is a lag until a table's hours have passed at the surface's temperature,
// counted from the end of a coat; without a table it is at once.
func (m Model) readyAfter(table cure.Table, s product.Sheet, w field.Weather) schedule.Lag {
	if len(table) == 0 {
		return schedule.After(0)
	}
	cured := m.progress(table, cure.Minimum, s, w)
	return func(end int) int {
		if end >= m.slots {
			return schedule.Never
		}
		out, _ := cured.after(end, 1)
		return out
	}
}

// until is a lag to the last slot before a table's hours have passed, counted from
// the start of a coat of d slots.
func (m Model) until(table cure.Table, s product.Sheet, w field.Weather, d int) schedule.Lag {
	if len(table) == 0 {
		return schedule.After(-1)
	}
	cured := m.progress(table, cure.Maximum, s, w)
	return func(end int) int {
		start := max(0, end-d)
		if start >= m.slots {
			return schedule.Never
		}
		_, out := cured.after(start, 1)
		return out
	}
}

// usualDryH is how long a coat takes dust where its sheet does not say, h: a rule of thumb.
const usualDryH = 6

// dry is a lag from the end of a coat until dust no longer sticks to it.
func (m Model) dry(t Task) schedule.Lag {
	table := t.sheet.TouchDry
	if r, ok := t.sheet.RecoatOver(t.sheet.Kind); len(table) == 0 && ok {
		table = r.Min
	}
	if len(table) == 0 {
		return schedule.After(usualDryH * perHour)
	}
	return m.readyAfter(table, t.sheet, t.weather)
}

// ready is what the film of task c must have come to before task t: its recoat interval for
// a coat, what the tape is pulled at, sandable for other work on it; and how that is said.
func ready(c, t Task) (cure.Table, message.Sentence) {
	below := c.sheet
	r, ok := below.RecoatOver(t.sheet.Kind)
	switch {
	case t.Coat && ok:
		return r.Min, message.Of("the recoat interval of %v", c.What)
	case t.Work == step.Unmask && t.Of.Step.Pull == step.Hard:
		return below.ThroughDry, message.Of("till it is hard: %v", c.What)
	case t.Work == step.Unmask && t.Of.Step.Pull == step.TouchDry:
		return below.TouchDry, message.Of("till it is dry to touch: %v", c.What)
	case t.Work == step.Unmask:
		return nil, message.Of("pulled while wet: %v", c.What)
	case len(below.Sandable) > 0:
		return below.Sandable, message.Of("till it can be sanded: %v", c.What)
	}
	r, _ = below.RecoatOver(below.Kind)
	return r.Min, message.Of("till it can be worked on: %v", c.What)
}

// dries is a lag until the water of a wash has left a surface, and the pores of an open
// film on it, by the air and the wind at it.
func (m Model) dries(s Surface, w field.Weather, under product.Sheet) schedule.Lag {
	if len(w.Air) == 0 {
		return schedule.After(0)
	}
	holds := s.HoldsMM + under.SoakMM(under.Film.TypicalUm)
	key := dryKey{&w.SurfaceC[0], s.Sheltered}
	dried, ok := m.dried[key]
	if !ok {
		i0 := max(0, w.Air.Find(m.Start))
		dried = newCurve(len(w.Air)-1-i0, func(h int) float64 { return w.DryingMMH(i0+h, s.Sheltered) })
		m.dried[key] = dried
	}
	return func(end int) int {
		out, _ := dried.after(end, holds)
		return max(out, end)
	}
}

// waitForFilms lets a task wait for the films that are on a surface. What no sheet says,
// and what is not hard within the weather known, is told as a note.
func (m *Model) waitForFilms(to int, s Surface, immersed bool, why cause) {
	h := s.Hard
	if h == nil || !immersed && s.Part.Underwater() {
		if got, ok := clock.Hardens(s.Films, immersed, s.Weather); ok {
			h = &got
		}
	}
	if h == nil || !h.Tabled || h.At == nil || !h.At.After(m.Now) {
		return
	}
	if at := m.Slot(*h.At); at < m.slots {
		m.link(schedule.Link{From: nowTask, To: to, Opens: func(int) int { return at }}, why)
	}
}

// hardBefore lets a task wait until the film of another one, if it is a coat, is hard.
func (m *Model) hardBefore(coat, to int, immersed bool, why cause) {
	t := m.Tasks[coat]
	if !t.Coat {
		return
	}
	for _, table := range clock.Hardening(t.sheet, immersed) {
		m.link(schedule.Link{From: coat, To: to, Opens: m.readyAfter(table, t.sheet, t.weather)}, why)
	}
}

// atLeast is a lag that is never shorter than so many hours.
func (m Model) atLeast(lag schedule.Lag, hours float64) schedule.Lag {
	wait := inSlots(hours)
	return func(end int) int {
		at := lag(end)
		if at == schedule.Never || end+wait >= m.slots {
			return schedule.Never
		}
		return max(at, end+wait)
	}
}
