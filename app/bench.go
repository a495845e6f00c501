package app

import (
	"context"
	"errors"
	"math"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/conditions/readiness"
	"allcoats/core/film/film"
	"allcoats/core/film/mix"
	"allcoats/core/film/step"
	"allcoats/core/job/application"
	"allcoats/core/job/buildup"
	"allcoats/core/job/logbook"
	"allcoats/core/physics/cure"
)

// BenchQuery asks what to pour and lay. Empty, it is the coat that Today leads
// with; without a surface a product is mixed freely, Litres of it. Figures that are
// nil are reckoned: litres from the area, the pot's temperature from the air.
type BenchQuery struct {
	SurfaceID, ProductID, Grade, Filler string
	Stiffness                           mix.Stiffness
	Litres, PotC, LitresH               *float64
	ThinnerPct                          *float64
	TareG, PumpBaseML, PumpHardenerML   float64
	CatalystKgL                         float64
	BaseG, HardenerG                    float64 // as weighed
	// Timers asks for nothing but the timers that run.
	Timers bool
}

// Bench is all that is wanted at the pot: what to pour, in how many pots, how to lay
// it, what to check first, and the timers that run.
type Bench struct {
	Says      message.Sentence `json:"says"`
	Now       time.Time        `json:"now"`
	Place     Place            `json:"place"`
	Surfaces  []BenchSurface   `json:"surfaces"`
	SurfaceID string           `json:"surfaceId"`
	Surface   string           `json:"surface"`
	StepID    string           `json:"stepId"`
	ProductID string           `json:"productId"`
	Product   string           `json:"product"`
	Coat      message.Sentence `json:"coat"` // such as "coat 2 of 3", empty when mixed freely
	Grade     string           `json:"grade"`
	Method    string           `json:"method"`
	Litres    float64          `json:"litres"`
	Thinner   float64          `json:"thinnerPct"`
	DFTUm     float64          `json:"dftUm"`
	WFTUm     float64          `json:"wftUm"`
	LayH      float64          `json:"layH"`
	LitresH   float64          `json:"litresH"`
	// OwnUse is what coats take of you here against the reckoning, from OwnCoats logged ones.
	OwnUse   float64 `json:"ownUse"`
	OwnCoats int     `json:"ownCoats"`
	// OwnRate says that LitresH is from what was logged.
	OwnRate bool `json:"ownRate"`
	// BeginsAt is when it may be laid, the program's time if at once; PotC is how warm a pot is then.
	BeginsAt time.Time `json:"beginsAt"`
	PotC     float64   `json:"potC"`
	Pot      mix.Pot   `json:"pot"`
	// Mixed is how far off the ratio the weights told are.
	Mixed   *mix.Deviation `json:"mixed,omitempty"`
	Batches mix.Batches    `json:"batches"`
	// Trouble says why there are no pots.
	Trouble []fielderr.Field     `json:"trouble"`
	Comb    application.Comb     `json:"comb"`
	Stripes *application.Stripes `json:"stripes,omitempty"`
	Order   []application.Piece  `json:"order"`
	Checks  []application.Check  `json:"checks"`
	Gear    []message.Sentence   `json:"gear"`
	// Stand says which stiffness the face wants, empty for a product without filler.
	Stand   string       `json:"stand"`
	Pots    []Pot        `json:"pots"`
	Clocks  []CoatTimers `json:"clocks"`
	Filler  []mix.Filler `json:"fillers"`
	TwoPart bool         `json:"twoPart"`
}

// BenchSurface is a surface with what waits to go on it.
type BenchSurface struct {
	ID        string           `json:"id"`
	Name      string           `json:"name"`
	ProductID string           `json:"productId"`
	Next      message.Sentence `json:"next"`
}

// standardGrade asks for the standard hardener where another one is planned.
const standardGrade = "standard"

// Bench answers for a boat at the program's time.
func (a *App) Bench(ctx context.Context, boatID string, ask BenchQuery) (Bench, error) {
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Bench{}, err
	}
	out := Bench{Now: o.now, Place: o.survey.Place, Coat: message.Sentence{}, Surfaces: []BenchSurface{},
		Order: []application.Piece{}, Checks: []application.Check{}, Gear: []message.Sentence{},
		Trouble: []fielderr.Field{},
		Pot:     mix.Pot{Targets: []mix.Target{}}, Batches: mix.Batches{Batches: []mix.Batch{}}, Filler: mix.Fillers}
	if out.Pots, err = a.pots(ctx, o); err != nil {
		return out, err
	}
	out.Clocks = o.coatTimers()
	if ask.Timers {
		return out, nil
	}
	if err := a.plan(ctx, &o); err != nil {
		return out, err
	}
	out.Surfaces = o.benchSurfaces()
	f := o.asked(ask)
	coat, err := o.coatAsked(&out, &f, ask)
	if err != nil || out.ProductID == "" {
		return out, err
	}
	if ask.ThinnerPct != nil {
		coat.ThinnerPct = *ask.ThinnerPct
	}
	out.SurfaceID, out.Surface, out.Product, out.Thinner, out.DFTUm, out.Method = f.ID, f.Name, coat.Sheet.Name,
		coat.ThinnerPct, coat.DFTUm, coat.Method
	out.TwoPart = coat.Sheet.BaseShare() < 1
	out.WFTUm = film.Wet(coat.DFTUm, coat.Sheet.VolumeSolidsPct, coat.ThinnerPct)
	out.Comb = application.OnComb(out.WFTUm)
	out.Gear = application.Gear(coat.Sheet, coat.Method)
	o.quantities(&out, ask, f, *coat)
	if f.ID != "" {
		o.laying(&out, f, *coat)
	}
	if d, ok := mix.Off(coat.Sheet, ask.BaseG, ask.HardenerG); ok && ask.HardenerG > 0 {
		out.Mixed = &d
	}
	out.Says = out.says()
	for _, c := range out.Checks {
		if c.State == application.No {
			out.Says = message.Of("%v: %v. When it may: %v", message.Of("Not now").Strong(), c.Short, out.Says.Lower())
			break
		}
	}
	return out, nil
}

// benchSurfaces are the surfaces with the coats that they wait for.
func (o boatState) benchSurfaces() []BenchSurface {
	out := []BenchSurface{}
	for _, f := range o.s.Surfaces {
		b := BenchSurface{ID: f.ID, Name: f.Name, Next: message.Sentence{}}
		if f.Next != nil {
			b.Next = f.Next.Sheet.Kind.Say()
			b.ProductID = f.Next.ProductID
		}
		out = append(out, b)
	}
	return out
}

// asked is the surface that a pot is for: the one asked for, or else the one that leads the day, or
// whose coat is the next of the plan where work that is no coat leads.
func (o boatState) asked(ask BenchQuery) (f readiness.Surface) {
	id := ask.SurfaceID
	if id == "" && ask.ProductID == "" {
		if id = readiness.Find(o.s).SurfaceID; id == "" {
			if i := slices.IndexFunc(o.s.Plan, func(p readiness.Planned) bool { return p.Coat }); i >= 0 {
				id = o.s.Plan[i].SurfaceID
			}
		}
	}
	for _, s := range o.s.Surfaces {
		if s.ID == id {
			f = s
		}
	}
	return f
}

// coatAsked is the coat that a pot is for, by the sheet of the hardener: the one that waits on f, or
// one of the product asked for. Without either, no product is set.
func (o boatState) coatAsked(out *Bench, f *readiness.Surface, ask BenchQuery) (*readiness.Coat, error) {
	coat := &readiness.Coat{Step: step.Step{Work: step.Coat, Method: "roller"}, AreaM2: f.AreaM2}
	switch {
	case f.Next != nil && (ask.ProductID == "" || ask.ProductID == f.Next.ProductID):
		*coat = *f.Next
		out.StepID, out.ProductID = f.NextStepID, coat.ProductID
		out.Coat = step.Ordinal(coat.N, coat.Of)
		if coat.Where != "" {
			out.Coat = message.Of("%v, %s", out.Coat, coat.Where)
		}
	case ask.ProductID != "":
		sheet, ok := o.products[ask.ProductID]
		if !ok {
			return coat, fielderr.At("productId", "is not in the library")
		}
		coat.Sheet, coat.DFTUm, out.ProductID = sheet, sheet.Film.TypicalUm, ask.ProductID
		if len(sheet.Methods) > 0 {
			coat.Method = sheet.Methods[0]
		}
		coat.LayH, coat.Litres = o.reckoned(*f, coat.Step)
		f.Next = coat
	default:
		out.Says = message.Of("No coat waits here: choose a product and mix freely.")
		return coat, nil
	}
	for _, st := range o.steps[f.ID] {
		if st.ID == out.StepID {
			out.Grade = st.Grade
		}
	}
	if ask.Grade != "" {
		out.Grade = strings.TrimPrefix(ask.Grade, standardGrade)
	}
	var known bool
	if coat.Sheet, known = o.products[out.ProductID].With(out.Grade); !known {
		return coat, fielderr.At("grade", "is no hardener of this product")
	}
	return coat, nil
}

// says is what to pour now, and how many times.
func (b Bench) says() message.Sentence {
	if len(b.Batches.Batches) == 0 {
		return message.Of("%v: no pot can be told yet.", message.Strong(b.Product))
	}
	first := b.Batches.Batches[0]
	out := message.Of("Mix %v of %v", message.Val(first.Litres, "L"), message.Strong(b.Product))
	if b.Surface != "" {
		out = message.Of("%v for %s, %v", out, strings.ToLower(b.Surface), b.Coat)
	}
	if n := len(b.Batches.Batches); n > 1 {
		out = message.Of("%v: the first of %d pots", out, n)
	}
	minutes := int(first.OnBy.Sub(first.MixAt).Minutes())
	switch {
	case b.Batches.PotLifeH <= 0:
		return message.Of("%v.", out)
	case minutes >= 100:
		return message.Of("%v, and have it on within %d h %02d.", out, minutes/60, minutes%60)
	}
	return message.Of("%v, and have it on within %d min.", out, minutes)
}

// reckoned is what a coat of a product that is not planned takes on a surface: the hours of
// one person to lay it, and the litres with what was learned of the product.
func (o boatState) reckoned(f readiness.Surface, s step.Step) (layH, litres float64) {
	s.Coats = 1
	own := o.surface(f.ID)
	l, err := buildup.Reckon(own.Area.Figure, own.accessFactor(), s)
	if err != nil || f.ID == "" {
		return 1, 1
	}
	return l.LayH, l.Litres * o.job.UsageOf(s.Sheet.Kind).On(f.ID).Median
}

// quantities fills in what to pour and in how many pots.
func (o boatState) quantities(out *Bench, ask BenchQuery, f readiness.Surface, c readiness.Coat) {
	out.Litres = 1
	out.LayH = 1
	if f.ID != "" {
		out.Litres = c.Litres
		out.LayH = c.LayH / float64(max(1, o.s.Crew))
	}
	out.LitresH, out.OwnRate = o.rate(out.ProductID, out.Litres, out.LayH)
	if own := o.job.UsageOf(c.Sheet.Kind); f.ID != "" && ask.Litres == nil {
		out.OwnUse, out.OwnCoats = own.On(f.ID).Median, own.Coats()
	}
	if ask.Litres != nil {
		out.Litres = *ask.Litres
	}
	if ask.LitresH != nil {
		out.LitresH, out.OwnRate = *ask.LitresH, false
	}
	out.BeginsAt = o.s.Begins(f)
	out.PotC = o.potC(out.BeginsAt)
	if ask.PotC != nil {
		out.PotC = *ask.PotC
	}
	refuse := func(err error) {
		var bad fielderr.Errors
		if errors.As(err, &bad) {
			out.Trouble = append(out.Trouble, bad...)
		}
	}
	var err error
	if out.Batches, err = o.share(c.Sheet, out.Litres, out.LitresH, out.PotC, out.BeginsAt); err != nil {
		out.Batches.Batches = []mix.Batch{}
		refuse(err)
	}
	pot := out.Litres
	if len(out.Batches.Batches) > 0 {
		pot = out.Batches.Batches[0].Litres
	}
	r := mix.PotRequest{Sheet: c.Sheet, Litres: pot, ThinnerPct: c.ThinnerPct, TareG: ask.TareG, TempC: out.PotC,
		CatalystKgL: ask.CatalystKgL, Filler: ask.Filler, Stiffness: ask.Stiffness,
		PumpBaseML: ask.PumpBaseML, PumpHardenerML: ask.PumpHardenerML}
	if out.Pot, err = mix.Fill(r); err != nil {
		out.Pot.Targets = []mix.Target{}
		refuse(err)
	}
	if c.Sheet.VolumeSolidsPct >= 95 || c.Sheet.Kind.Info().Filler {
		s := o.surface(f.ID)
		out.Stand = mix.Stands(s.Tilt(s.Part))
	}
}

// rate is how many litres are laid in an hour, all hands together: as the log tells of the
// product, which own says, or as reckoned.
func (o boatState) rate(productID string, litres, layH float64) (litresH float64, own bool) {
	if litresH, own = o.ownRate(productID); own {
		return litresH, true
	}
	return litres / math.Max(1e-6, layH), false
}

// potC is the temperature of a pot at an instant: that of the open air.
func (o boatState) potC(at time.Time) float64 {
	if i := o.s.Air.Find(at); i >= 0 {
		return o.s.Air[i].TempC
	}
	return 0
}

// share divides litres into the pots that can be laid in their time from an instant.
func (o boatState) share(sheet product.Sheet, litres, litresH, potC float64, at time.Time) (mix.Batches, error) {
	return mix.Share(mix.BatchRequest{Sheet: sheet, Litres: litres, LitresH: litresH, PotC: potC,
		ResidueL: mix.UsualResidue, Start: at})
}

// ownRate is how many litres of a product an hour of work has laid, from the log.
func (o boatState) ownRate(productID string) (litresH float64, ok bool) {
	var litres, hours float64
	for _, log := range o.log {
		for _, e := range log {
			if e.ProductID != "" && e.ProductID == productID && e.Litres > 0 && e.Hours > 0 {
				litres += e.Litres
				hours += e.Hours
			}
		}
	}
	if hours == 0 {
		return 0, false
	}
	return litres / hours * float64(max(1, o.s.Crew)), true
}

// laying fills in how a coat is laid and what to check before.
func (o boatState) laying(out *Bench, f readiness.Surface, c readiness.Coat) {
	method, _ := film.MethodByKey(c.Method)
	i := f.Weather.Air.Find(o.now)
	if i >= 0 {
		edge, _ := c.Sheet.TouchDry.TauH(f.Weather.SurfaceC[i], cure.Maximum)
		if math.IsInf(edge, 1) {
			edge = 0
		}
		s := application.Cut(c.AreaM2, method.RateM2H*float64(max(1, o.s.Crew)), edge*clock.WetEdgePart)
		out.Stripes = &s
	}
	for _, p := range o.s.Surfaces {
		if p.Next == nil || p.Next.ProductID != out.ProductID {
			continue
		}
		sum, n := 0.0, 0
		for k := max(0, p.Weather.Air.Find(o.now)); k < len(p.Weather.SurfaceC) && n < 4; k++ {
			sum += p.Weather.SurfaceC[k]
			n++
		}
		out.Order = append(out.Order, application.Piece{ID: p.ID, Name: p.Name, AreaM2: p.Next.AreaM2,
			SurfaceC: sum / float64(max(1, n))})
	}
	out.Order = application.Order(out.Order, c.Sheet.Kind)
	share := c.Sheet.BaseShare()
	before := application.Before{Sheet: c.Sheet, First: readiness.PrepNames(f.First), Part: o.surface(f.ID).Part,
		Litres: out.Litres, Wet: f.Weather.WetAt(o.now), Expired: o.expiredOn(out.ProductID), Cleaned: o.cleaned(f.ID)}
	if shelf, noted := onShelf(o.shelf, out.ProductID, share); noted {
		l := shelf.Mixed(share)
		before.ShelfL = &l
	}
	if f.Last != nil {
		k := clock.Run(*f.Last, c.Sheet.Kind, f.Weather, o.now)
		before.Clock = &k
	}
	if last := o.below(logbook.Logged{Entry: logbook.Entry{SurfaceID: f.ID, ProductID: out.ProductID,
		StartedAt: o.now}}); last != nil {
		before.Changed = o.changed(*last, o.versions[out.ProductID], "")
	}
	before.Again = o.repeats(out.ProductID)
	before.FieldWhy, before.HoldWhy = o.forbids(f, c)
	out.Checks = before.List()
}

// forbids says what forbids laying now, and what spoils the hold after.
func (o boatState) forbids(f readiness.Surface, c readiness.Coat) (now, hold message.Sentence) {
	job := o.s.JobFor(c, f)
	at := job
	at.Hold, at.Dry, at.Apply = 0, 0, 0
	_, end, ok := o.s.Air.Span()
	if !ok || !end.After(o.now) {
		return message.Of("the weather is not known"), message.Of("The weather is not known")
	}
	for _, h := range at.Hours(f.Weather) {
		if !h.At.After(o.now) && h.At.After(o.now.Add(-time.Hour)) && !h.Allowed {
			now = field.Words(h.Binding)
		}
	}
	windows := job.Windows(f.Weather, o.now, end)
	if len(windows) == 0 || windows[0].From.After(o.now.Add(time.Minute)) {
		hold = message.Of("Begun now it does not hold through laying and after")
		if len(windows) > 0 {
			hold = message.Of("%v: from %v it does", hold, message.Clock(windows[0].From, o.now, o.s.Loc))
		}
	}
	return now, hold
}

// cleaned is when and how a surface was cleaned since its last coat, empty if that
// is not logged.
func (o boatState) cleaned(surfaceID string) message.Sentence {
	var out message.Sentence
	for _, e := range o.log[surfaceID] {
		switch kind := e.Kind.Kind(); {
		case kind.Lays:
			out = nil
		case e.Kind == step.Wash || e.Kind == step.Degrease:
			out = message.Of("%s on %v", kind.Name, message.Date(e.StartedAt))
		}
	}
	return out
}

// air is the weather of the open air, as that of a pot that stands in it.
func (o boatState) air() field.Weather {
	w := field.Weather{Air: o.s.Air, SurfaceC: make([]float64, len(o.s.Air))}
	for i, h := range o.s.Air {
		w.SurfaceC[i] = h.TempC
	}
	return w
}
