package task

import (
	"math"
	"slices"
	"sync"

	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/catalog/purchase"
	"allcoats/core/film/step"
	"allcoats/core/job/buildup"
	"allcoats/core/job/logbook"
)

// Boat is what a job is made of: her surfaces, the user's own tasks, the entries of her
// log that are of no surface, and the tasks that the user skips.
type Boat struct {
	Surfaces []Surface
	Own      []OwnTask
	Log      []logbook.Logged
	Skipped  map[string]bool
	// Unlearned are the keys of lessons that do not count.
	Unlearned map[string]bool
}

// Chain are the tasks of a surface in their order.
type Chain struct {
	SurfaceID string `json:"surfaceId"`
	Surface   string `json:"surface"`
	Tasks     []Task `json:"tasks"`
	Sum       Sum    `json:"sum"`
}

// Sum adds tasks up: hours of one person and litres, done as told and still to come.
type Sum struct {
	TookH float64 `json:"tookH"`
	TookL float64 `json:"tookL"`
	LeftH float64 `json:"leftH"`
	LeftL float64 `json:"leftL"`
	Left  int     `json:"left"` // tasks
}

// Job is a boat's work.
type Job struct {
	Surfaces []Chain `json:"surfaces"`
	Own      []Task  `json:"own"`
	Sum      Sum     `json:"sum"`
	// Needs are the products still to be laid, by id.
	Needs map[string]Need `json:"-"`
	// Usage is what the log taught of the litres of coats on her surfaces, by id; metered is of
	// products that it teaches nothing of.
	Usage *purchase.Usage `json:"-"`

	metered *purchase.Usage
	taught  *purchase.Usage // what the log teaches, whether it counts or not
	told    map[string]Told
	done    map[string]float64
	pace    map[step.Work]Pace
	by      map[step.Work]map[string]Pace // of people
	off     map[string]bool
	skipped map[string]bool
}

// Need is what is still to be laid of a product.
type Need struct {
	// Forecast is what of it to buy, worked out when it is first asked for.
	Forecast  func() purchase.Forecast
	Coats     int
	ReckonedL float64
	// NextCoatL is the largest next coat of it on any surface.
	NextCoatL float64
	Surfaces  []string // names
}

// Of makes the job of a boat.
func Of(b Boat) Job {
	j := Job{Surfaces: []Chain{}, Own: []Task{}, Needs: map[string]Need{}, told: map[string]Told{},
		done: map[string]float64{}, pace: map[step.Work]Pace{}, by: map[step.Work]map[string]Pace{}, off: b.Unlearned,
		skipped: b.Skipped}
	for _, s := range b.Surfaces {
		j.Surfaces = append(j.Surfaces, s.chain(s.lines(), b.Skipped, j.told, j.done))
	}
	for _, o := range b.Own {
		t := Task{ID: o.ID, StepID: o.ID, Work: step.Other, What: message.Of("%s", o.Name), N: 1, Of: 1,
			ReckonedH: o.Hours, LayH: o.Hours, State: ToDo}
		if b.Skipped[o.ID] {
			t.State = Skipped
		}
		for _, e := range b.Log {
			if e.OwnID == o.ID && t.State != Done {
				t.tell(e, math.Min(1-t.DonePct/100, shareOf(t, e)))
				t.TookH += e.Hours
			}
		}
		j.Own = append(j.Own, t)
	}
	j.learn(b)
	j.need(b)
	for i := range j.Surfaces {
		j.figures(&j.Surfaces[i])
		j.Sum.join(j.Surfaces[i].Sum)
	}
	for i := range j.Own {
		j.figure("", &j.Own[i])
		j.Sum.add(j.Own[i])
	}
	return j
}

// chain settles the log of a surface over its tasks.
func (s Surface) chain(lines []buildup.Line, skipped map[string]bool, told map[string]Told,
	done map[string]float64) Chain {
	c := Chain{SurfaceID: s.ID, Surface: s.Name, Tasks: s.unfold(lines)}
	for i := range c.Tasks {
		if skipped[c.Tasks[i].ID] {
			c.Tasks[i].State = Skipped
		}
	}
	s.settle(c.Tasks, told, done)
	run(c.Tasks)
	return c
}

// With is the chain of a surface as it would be with other steps, by what the job has
// taught.
func (j Job) With(s Surface) Chain {
	c := s.chain(s.lines(), j.skipped, map[string]Told{}, map[string]float64{})
	j.figures(&c)
	return c
}

// figures fills in what the tasks of a chain take, and adds them up.
func (j Job) figures(c *Chain) {
	for k := range c.Tasks {
		j.figure(c.SurfaceID, &c.Tasks[k])
		c.Sum.add(c.Tasks[k])
	}
}

// learn takes the pace and the litres from what the log tells.
func (j *Job) learn(b Boat) {
	var laid []purchase.Coat
	sd := map[string]float64{}
	for _, s := range b.Surfaces {
		sd[s.ID] = s.Area.SDPct()
		for _, e := range s.Log {
			t := j.told[e.ID]
			if t.ReckonedH > 0 {
				p := j.pace[e.Kind]
				p.Add(e.Hours, t.ReckonedH)
				j.pace[e.Kind] = p
				if e.Who != "" {
					if j.by[e.Kind] == nil {
						j.by[e.Kind] = map[string]Pace{}
					}
					one := j.by[e.Kind][e.Who]
					one.Add(e.Hours, t.ReckonedH)
					j.by[e.Kind][e.Who] = one
				}
			}
			if t.Step != nil && t.Step.ProductID == e.ProductID && e.Litres > 0 && t.ReckonedL > 0 &&
				!t.Step.Sheet.Kind.Info().Metered {
				laid = append(laid, purchase.Coat{Surface: s.ID, ReckonedL: t.ReckonedL, LoggedL: e.Litres})
			}
		}
	}
	j.metered = purchase.NewUsage(nil, sd)
	j.taught = purchase.NewUsage(laid, sd)
	if j.Usage = j.taught; j.off[LitresKey] {
		j.Usage = j.metered
	}
}

// UsageOf is what is known of the litres of a kind of product.
func (j Job) UsageOf(k product.Kind) *purchase.Usage {
	if k.Info().Metered {
		return j.metered
	}
	return j.Usage
}

// need adds up what is still to be laid of each product.
func (j *Job) need(b Boat) {
	sheets, coming := map[string]product.Sheet{}, map[string]map[string][]float64{}
	for i, s := range b.Surfaces {
		for _, st := range s.Steps {
			if st.Films() {
				sheets[st.ProductID] = st.Sheet
				if coming[st.ProductID] == nil {
					coming[st.ProductID] = map[string][]float64{}
				}
			}
		}
		next := "" // the product of the surface's next coat
		for _, t := range j.Surfaces[i].Tasks {
			if !t.Films || !t.Left() {
				continue
			}
			n, left := j.Needs[t.ProductID], t.ReckonedL*(1-t.DonePct/100)
			coming[t.ProductID][s.ID] = append(coming[t.ProductID][s.ID], left)
			n.Coats++
			n.ReckonedL += left
			if next == "" {
				next = t.ProductID
			}
			if next == t.ProductID {
				n.NextCoatL = math.Max(n.NextCoatL, left*j.UsageOf(t.Step.Sheet.Kind).On(s.ID).Median)
			}
			if !slices.Contains(n.Surfaces, s.Name) {
				n.Surfaces = append(n.Surfaces, s.Name)
			}
			j.Needs[t.ProductID] = n
		}
	}
	for id, s := range sheets {
		n := j.Needs[id]
		usage, costs := j.UsageOf(s.Kind), purchase.Costs{StopCents: purchase.StopCents, SpareCents: purchase.SpareCents(s)}
		n.Forecast = sync.OnceValue(func() purchase.Forecast { return usage.Forecast(coming[id], costs) })
		j.Needs[id] = n
	}
}

// figure fills in what a task takes, with what was learned, and what is left of it.
func (j Job) figure(surfaceID string, t *Task) {
	work := t.Work
	if t.Films && work == step.Fill {
		work = step.Coat
	}
	p := j.Pace(work)
	t.Hours, t.HoursSD = t.ReckonedH*p.Factor(), p.SD()
	t.Litres = t.ReckonedL * j.UsageOf(t.Step.Sheet.Kind).On(surfaceID).Median
	if t.Left() {
		t.LeftH, t.LeftL = t.Hours*(1-t.DonePct/100), t.Litres*(1-t.DonePct/100)
	}
}

// With is the sum with one task more.
func (s Sum) With(t Task) Sum {
	s.add(t)
	return s
}

func (s *Sum) add(t Task) {
	s.TookH, s.TookL, s.LeftH, s.LeftL = s.TookH+t.TookH, s.TookL+t.TookL, s.LeftH+t.LeftH, s.LeftL+t.LeftL
	if t.Left() {
		s.Left++
	}
}

func (s *Sum) join(o Sum) {
	s.TookH, s.TookL, s.LeftH, s.LeftL, s.Left = s.TookH+o.TookH, s.TookL+o.TookL, s.LeftH+o.LeftH, s.LeftL+o.LeftL,
		s.Left+o.Left
}

// Chain returns the tasks of a surface.
func (j Job) Chain(surfaceID string) Chain {
	for _, c := range j.Surfaces {
		if c.SurfaceID == surfaceID {
			return c
		}
	}
	return Chain{SurfaceID: surfaceID, Tasks: []Task{}}
}

// Told returns what an entry of the log did.
func (j Job) Told(entryID string) Told { return j.told[entryID] }

// Coats counts the whole coats of a step that are told of.
func (j Job) Coats(stepID string) int { return int(math.Floor(j.done[stepID] + 1e-6)) }

// Pace is what work of a kind takes against the reckoning, as far as that counts.
func (j Job) Pace(w step.Work) Pace {
	if j.off[PaceKey(w)] {
		return Pace{}
	}
	return j.pace[w]
}

// First are the tasks to be done before the next film of a chain, and that film, nil when
// no film is left.
func (c Chain) First() (first []Task, film *Task) {
	for i, t := range c.Tasks {
		switch {
		case !t.Left():
		case t.Films:
			return first, &c.Tasks[i]
		case t.Work != step.Inspect && t.Work != step.Unmask && !t.Work.Kind().Aside:
			first = append(first, t)
		}
	}
	return first, nil
}

// Named is a task of the chain in words, by its id.
func (c Chain) Named(id string) message.Sentence { return taskByID(c.Tasks, id).Named() }
