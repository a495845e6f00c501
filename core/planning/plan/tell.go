package plan

import (
	"context"
	"slices"
	"sort"
	"time"

	"allcoats/core/base/calendar"
	"allcoats/core/base/message"
	"allcoats/core/base/parallel"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/film/step"
	"allcoats/core/job/task"
	"allcoats/core/planning/schedule"
)

// Item is a task, or what mends a missed window or limit, with its time.
type Item struct {
	TaskID    string           `json:"taskId"`
	BoatID    string           `json:"boatId"`
	Boat      string           `json:"boat"`
	SurfaceID string           `json:"surfaceId"`
	Surface   string           `json:"surface"`
	What      message.Sentence `json:"what"`
	Start     time.Time        `json:"start"`
	End       time.Time        `json:"end"`
	// Closes is when the window of the coat below it closes, nil if it does not.
	Closes *time.Time `json:"closes,omitempty"`
	// Limits run from its end until something else is done.
	Limits []Limit `json:"limits"`
	// Hours are of the job, SetupH what setting up again takes beside.
	Hours  float64 `json:"hours"`
	SetupH float64 `json:"setupH"`
	// Litres are what a mend takes that is not in the job.
	Litres float64 `json:"litres,omitempty"`
	// StepID and Work are of the task of the job that it is part of, SharePct how much of
	// it; Before names what comes first and is not done.
	StepID   string             `json:"stepId"`
	Work     step.Work          `json:"work"`
	SharePct float64            `json:"sharePct"`
	Before   []message.Sentence `json:"before"`
	People   []string           `json:"people"`
	Coat     bool               `json:"coat"`
	Rekey    bool               `json:"rekey"`
	Launch   bool               `json:"launch"`
	Pinned   bool               `json:"pinned"`
	Indoor   bool               `json:"indoor"` // does not wait for weather
	// Why says why it does not start earlier.
	Why message.Sentence `json:"why"`
}

// Named is what it is with its surface and its boat.
func (it Item) Named() message.Sentence {
	if it.Surface == "" {
		return message.Of("%s: %v", it.Boat, it.What)
	}
	return message.Of("%s: %s, %v", it.Boat, it.Surface, it.What)
}

// Limit is a time by which something must follow.
type Limit struct {
	Name  string           `json:"name"`
	Until message.Sentence `json:"until"`
	By    time.Time        `json:"by"`
}

// Plan is a yard's work in time.
type Plan struct {
	Headline message.Sentence `json:"headline"`
	Items    []Item           `json:"items"`
	Left     []LeftOut        `json:"left"`
	Launches []Launching      `json:"launches"`
	Hours    float64          `json:"hours"`
	// Open is when the next coat of each surface may begin by weather and light.
	Open []OpenHours `json:"open"`
	// Notes are what the plan does not count with.
	Notes []message.Sentence `json:"notes"`

	raw schedule.Plan // what it tells, for those who check it
}

// OpenHours are the stretches of starts of a surface's next coat.
type OpenHours struct {
	SurfaceID string             `json:"surfaceId"`
	Starts    []calendar.Stretch `json:"starts"`
}

// tell turns a plan of schedule into one for people.
func (m Model) tell(p schedule.Plan, before Kept) Plan {
	out := Plan{raw: p, Items: []Item{}, Left: m.leftOut(p), Launches: []Launching{}, Open: m.openHours(),
		Notes: m.notes()}
	in, outOf := m.linksOf()
	for _, b := range m.Boats {
		out.Launches = append(out.Launches, Launching{BoatID: b.ID, Boat: b.Name, Due: b.Launch,
			unplanned: b.unplanned()})
	}
	why := m.reasons(p, before)
	for i, t := range m.Tasks {
		if i == nowTask {
			continue
		}
		l := &out.Launches[t.Boat]
		if t.Of.ID != "" {
			l.Hours += t.Hours
			out.Hours += t.Hours
		} else {
			l.BesideH += t.Hours
		}
		l.BesideH += t.SetupH
		if p.Start[i] < 0 {
			l.Left++
			continue
		}
		it := m.item(p, i, in[i], outOf[i])
		it.Why = why[i]
		for _, k := range in[i] {
			if s := p.Sanding[k]; s >= 0 {
				mend := m.mended(p, k)
				l.Rekey++
				l.BesideH += mend.Hours
				out.Items = append(out.Items, mend)
			}
		}
		if t.Milestone {
			l.At = &it.Start
			if l.Due != nil && l.At.After(*l.Due) {
				l.LateH = l.At.Sub(*l.Due).Hours()
			}
		}
		out.Items = append(out.Items, it)
	}
	sort.SliceStable(out.Items, func(a, b int) bool { return out.Items[a].Start.Before(out.Items[b].Start) })
	for i := range out.Launches {
		out.Launches[i].Cents = (out.Launches[i].Hours + out.Launches[i].BesideH) * m.HourCents
		out.Launches[i].Says = out.Launches[i].says(m.Loc)
	}
	out.Headline = headline(out.Launches)
	return out
}

// reasons says of each task with a place why it does not start earlier.
func (m Model) reasons(p schedule.Plan, before Kept) []message.Sentence {
	out := make([]message.Sentence, len(m.Tasks))
	askers := make([]*asker, parallel.Workers())
	_ = parallel.Each(context.Background(), len(out), nil, func(worker, i int) { // never stopped
		if i == nowTask || p.Start[i] < 0 {
			return
		}
		if askers[worker] == nil {
			w := m.asker(p, before)
			askers[worker] = &w
		}
		out[i] = askers[worker].why(i)
	})
	return out
}

// linksOf lists the links to each task, and from it.
func (m Model) linksOf() (in, out [][]int) {
	in, out = make([][]int, len(m.Tasks)), make([][]int, len(m.Tasks))
	for k, l := range m.Problem.Links {
		in[l.To] = append(in[l.To], k)
		out[l.From] = append(out[l.From], k)
	}
	return in, out
}

// item is a task with its time.
func (m Model) item(p schedule.Plan, i int, in, out []int) Item {
	t, b := m.Tasks[i], m.Boats[m.Tasks[i].Boat]
	it := Item{TaskID: t.ID, BoatID: b.ID, Boat: b.Name, SurfaceID: t.SurfaceID, Surface: t.Surface, What: t.What,
		Start: m.At(p.Start[i]),
		End:   m.At(p.Start[i] + m.Problem.Tasks[i].Duration), Hours: t.Hours, SetupH: t.SetupH, Coat: t.Coat,
		Launch: t.Milestone, Pinned: t.pinned != nil,
		Indoor: t.anyWeather(), StepID: t.Of.StepID, Work: t.Of.Work, SharePct: t.SharePct, Before: m.namesBefore(in),
		People: m.names(p.Crew[i]), Limits: []Limit{}}
	end := func(k int) int {
		from := m.Problem.Links[k].From
		return p.Start[from] + m.Problem.Tasks[from].Duration
	}
	for _, k := range in {
		if m.causes[k].bind != "recoat window" || p.Sanding[m.Problem.Mend(k)] >= 0 {
			continue
		}
		if closes := m.Problem.Links[k].Closes(end(k)); closes < m.slots {
			if at := m.At(closes); it.Closes == nil || at.Before(*it.Closes) {
				it.Closes = &at
			}
		}
	}
	for _, k := range out {
		l := m.Problem.Links[k]
		name := m.causes[k].bind
		if name != "" && name != "recoat window" && !slices.ContainsFunc(it.Limits, func(l Limit) bool {
			return l.Name == name
		}) {
			if closes := l.Closes(end(k)); closes < m.slots {
				it.Limits = append(it.Limits, Limit{name, m.Tasks[l.To].What, m.At(closes)})
			}
		}
	}
	return it
}

// mended is the mend on a link with its time.
func (m Model) mended(p schedule.Plan, k int) Item {
	l := m.Problem.Links[k]
	t, next := m.sands[k], m.Tasks[l.To]
	b := m.Boats[t.Boat]
	why := message.Of("The recoat window has closed before %v can go on.", next.What)
	if name := m.causes[k].bind; name != "recoat window" {
		why = message.Of("The limit of “%v” is over before %v can be done.", message.Lit(name), next.What)
	}
	return Item{TaskID: next.ID + "~" + t.ID, BoatID: b.ID, Boat: b.Name, SurfaceID: t.SurfaceID, Surface: t.Surface,
		What: t.What, Start: m.At(p.Sanding[k]),
		End: m.At(p.Sanding[k] + l.Sanding.Duration), Hours: t.Hours, Litres: t.litres, Rekey: true,
		Before: []message.Sentence{}, People: m.names(p.SandCrew[k]), Limits: []Limit{}, Why: why}
}

// namesBefore names the tasks that links come from.
func (m Model) namesBefore(links []int) []message.Sentence {
	out, named := []message.Sentence{}, map[string]bool{}
	for _, k := range links {
		from := m.Problem.Links[k].From
		if from == nowTask {
			continue
		}
		name := m.Tasks[from].Name()
		if text := name.String(); !named[text] {
			named[text] = true
			out = append(out, name)
		}
	}
	return out
}

// openHours are the starts of the first coat left on every surface.
func (m Model) openHours() []OpenHours {
	out := []OpenHours{}
	for i, t := range m.Tasks {
		if !t.first || t.Milestone || t.Piece > 1 {
			continue
		}
		o := OpenHours{t.SurfaceID, []calendar.Stretch{}}
		for _, r := range m.allowed[i] {
			o.Starts = append(o.Starts, calendar.Stretch{From: m.At(r.First), To: m.At(r.Last + 1)})
		}
		out = append(out, o)
	}
	return out
}

// notes name what is missing: surfaces on which nothing is planned.
func (m Model) notes() []message.Sentence {
	out := []message.Sentence{}
	for _, k := range m.unmanned() {
		out = append(out, message.Of("nobody is named for %s: it is planned for anybody", k))
	}
	for _, b := range m.Boats {
		if b.Launch != nil && b.Launch.Before(m.Now) {
			out = append(out, message.Of("the launch of %s, %v, has passed: give her another day", b.Name,
				message.On(*b.Launch)))
		}
		for _, s := range b.Surfaces {
			if len(s.Tasks) == 0 && s.Last == nil {
				out = append(out, message.Of("%s: nothing is planned on %s; choose its coats in Build-up", b.Name,
					s.Name))
			}
			out = append(out, m.unsure(b, s)...)
		}
	}
	return out
}

// unsure names what the launch cannot be reckoned with: films that no sheet says the
// hardening of, or that are not hard within the weather known.
func (m Model) unsure(b Boat, s Surface) (out []message.Sentence) {
	silent := map[string]bool{}
	note := func(sheet product.Sheet) {
		if !silent[sheet.Name] {
			silent[sheet.Name] = true
			out = append(out, message.Of(
				"%s, %s: the sheet of %s does not say when it is hard enough for launching; the launch does not wait for it: ask its maker", b.Name, s.Name, sheet.Name))
		}
	}
	for _, t := range s.Tasks {
		if sheet := t.Step.Sheet; t.Films && t.Left() && len(clock.Hardening(sheet, s.Part.Underwater())) == 0 {
			note(sheet)
		}
	}
	h := s.Hard
	if h == nil {
		h = s.Hardens()
	}
	switch {
	case h == nil:
	case !h.Tabled:
		note(h.Sheet)
	case h.At == nil || !h.At.Before(m.Until):
		out = append(out, message.Of("%s, %s: %s is not hard enough for launching within the weather known", b.Name,
			s.Name, h.Sheet.Name))
	}
	return out
}

// unmanned are the skills that tasks take and nobody has, if anybody has any.
func (m Model) unmanned() []task.Skill {
	has := map[task.Skill]bool{"": true}
	for _, p := range m.People {
		for _, k := range p.Skills {
			has[k] = true
		}
	}
	var out []task.Skill
	for _, t := range m.Tasks {
		if len(has) > 1 && !has[t.Skill] {
			has[t.Skill] = true
			out = append(out, t.Skill)
		}
	}
	return out
}
