package climate

import (
	"context"
	"time"

	"allcoats/core/base/working"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/tent"
	"allcoats/core/physics/cure"
)

// School is a way to get a coat on in the cold.
type School string

// Schools.
const (
	Wait      School = "wait"
	TentAlone School = "tent"
	TentHeat  School = "tent-heat"
	Hardener  School = "hardener"
)

// Coat is a coat that waits: its product, what goes over it, and the field job
// with the standard hardener in the open.
type Coat struct {
	SurfaceID string
	Sheet     product.Sheet
	Over      product.Kind
	Job       field.Job
	// From is the first start that counts, To the end of what is known.
	From, To time.Time
}

// Option is what a school gives for the coat. Start and Done are nil if there
// is no start within the weather known.
type Option struct {
	School School `json:"school"`
	Name   string `json:"name"`
	// Hardener is the grade used, empty for the standard one.
	Hardener string     `json:"hardener"`
	Start    *time.Time `json:"start,omitempty"`
	// Done is when the next coat may follow, or it is touch-dry if the sheet
	// does not tell.
	Done *time.Time `json:"done,omitempty"`
	// StartH are the hours of starts within the weather known.
	StartH float64   `json:"startH"`
	Cost   tent.Cost `json:"cost"`
	Cents  float64   `json:"cents"`
	// ChancePct is the share of futures in which a coat started then keeps its
	// field.
	ChancePct float64 `json:"chancePct"`
	// WorthCents is the money with what a coat that fails costs, as often as it does; the least is
	// the best. Best marks it.
	WorthCents float64 `json:"worthCents"`
	Best       bool    `json:"best"`
	// WarmAt is when the surface first has the temperature of the tent's
	// thermostat, nil if it does not within the weather known.
	WarmAt  *time.Time      `json:"warmAt,omitempty"`
	Hours   []Inside        `json:"hours"`
	Working working.Working `json:"working"`
}

// Inside is an hour at the surface under an option.
type Inside struct {
	At       time.Time `json:"at"`
	AirC     float64   `json:"airC"`
	RHPct    float64   `json:"rhPct"`
	SurfaceC float64   `json:"surfaceC"`
	DewC     float64   `json:"dewPointC"`
}

// failCents is what a coat that fails costs, a day of sanding and its paint, cents: a rule of thumb.
const failCents = 15_000

// asked is what all options of a comparison share.
type asked struct {
	stands bool // a tent does
	coat   Coat
	prices tent.Prices
	warmC  float64
	f      Ensemble
}

// Compare sets the schools side by side for a coat: wait as the surface lies
// now, in tent t without heat, with it, and with the hardener for the cold if the
// sheet has one. Odds are of f.
func (b Boat) Compare(ctx context.Context, coat Coat, t tent.Tent, f Ensemble) []Option {
	a := asked{b.Tent != nil, coat, t.Prices, t.Thermostat.SetC, f}
	cold := t
	cold.Heaters, cold.DryL = nil, 0
	out := []Option{b.option(ctx, a, Wait, "Wait for weather", nil, "")}
	out = append(out, b.option(ctx, a, TentAlone, "A tent, no heat", &cold, ""))
	if t.PowerKW() > 0 || t.DryL > 0 {
		out = append(out, b.option(ctx, a, TentHeat, "Tent and heat", &t, ""))
	}
	grade, least := "", coat.Sheet.MinCureC
	for _, g := range coat.Sheet.Grades {
		if g.MinCureC < least {
			grade, least = g.Name, g.MinCureC
		}
	}
	if grade != "" {
		out = append(out, b.option(ctx, a, Hardener, "Hardener for the cold", nil, grade))
	}
	best := -1
	for i, o := range out {
		if o.Start != nil && o.Done != nil && (best < 0 || o.WorthCents < out[best].WorthCents) {
			best = i
		}
	}
	if best >= 0 {
		out[best].Best = true
	}
	return out
}

// option computes one of them; a tent puts the surface under it.
func (b Boat) option(ctx context.Context, a asked, school School, name string, t *tent.Tent, grade string) Option {
	coat, prices := a.coat, a.prices
	o := Option{School: school, Name: name, Hardener: grade, Hours: []Inside{}, Working: working.New()}
	w := &o.Working
	sheet, _ := coat.Sheet.With(grade)
	job := coat.Job
	if grade != "" {
		job.Limits = sheet.Limits
	}
	b.Surfaces = append([]Surface(nil), b.Surfaces...)
	for i, s := range b.Surfaces {
		if t != nil && s.ID == coat.SurfaceID {
			b.Surfaces[i].Shelter, b.Surfaces[i].Face.Roofed = survey.Tent, true
			job.Sheltered = true
		}
	}
	if t != nil {
		b.Tent = t
		// What a logger showed in the tent that stands says nothing of this one.
		b.Instruments = without(b.Instruments)
	}
	c := Of(b)
	at := c.Surface[coat.SurfaceID]
	for i, h := range at.Air {
		if !h.At.Before(b.Now.Add(-time.Hour)) {
			o.Hours = append(o.Hours, Inside{h.At, h.TempC, h.RHPct, at.SurfaceC[i], h.DewPointC()})
		}
	}
	o.WarmAt = warm(at, b.Now, a.warmC)
	var last time.Time // of the window that the start is in
	windows := job.Windows(at, coat.From, coat.To)
	for _, win := range windows {
		o.StartH += win.To.Sub(win.From).Hours()
		if o.Start == nil && win.To.Sub(win.From) >= 10*time.Minute {
			from := win.From
			o.Start, last = &from, win.To
		}
	}
	w.Step("Hours of starts", "every limit kept while laying and through the hold", o.StartH, "h",
		"data sheet, weather at the surface")
	if o.Start == nil {
		return o
	}
	done := ready(sheet, coat.Over, at, o.Start.Add(job.Apply))
	o.Done = done
	end := coat.To
	if done != nil {
		end = *done
	}
	if t != nil && c.Tent != nil {
		o.Cost = c.Tent.Sum(*t, b.Now, end, w)
	}
	days := end.Sub(b.Now).Hours() / 24
	money := func(label, formula string, cents float64) float64 {
		w.Step(label, formula, cents/100, "", "your prices, in your currency")
		return cents
	}
	o.Cents = o.Cost.Cents + money("Days on the hard until then", "days · price", days*prices.DayCents)
	if grade != "" {
		o.Cents += money("The other hardener", "what it costs more", prices.HardenerCents)
	}
	if t != nil && !a.stands {
		o.Cents += money("The tent itself", "film by its area and frame by its length, as none stands", t.BuildCents())
	}
	money("In all", "energy + days + hardener + tent", o.Cents)
	if odds, err := b.Chances(ctx, c, a.f, []Ask{{coat.SurfaceID, job}}, nil); err == nil {
		for i, h := range odds[0].At {
			near := h.Sub(*o.Start).Abs() <= 30*time.Minute
			if inside := !h.Before(*o.Start) && !h.After(last) && h.Sub(*o.Start) < time.Hour; inside || near &&
				o.ChancePct == 0 {
				o.ChancePct = 100 * odds[0].P[i]
			}
		}
		o.WorthCents = o.Cents + money("What a failure costs, as often as it comes",
			"(1 − chance) · a day of sanding and its paint", (1-o.ChancePct/100)*failCents)
		w.Step("Chance that it holds", "share of futures in which a start at the next whole hour keeps its field",
			o.ChancePct, "%", "ensemble of futures, seeded")
	}
	return o
}

// ready is when the next coat may follow a coat laid at start, nil if the sheet
// does not tell or the weather known does not reach it.
func ready(s product.Sheet, over product.Kind, w field.Weather, start time.Time) *time.Time {
	r, _ := s.RecoatOver(over)
	return cure.Clock{Table: r.Min, FloorC: s.MinCureC}.Run(w.Path(s.Humidity), start, 1).Reached
}

// warm is when a surface first has tC after now, straight between the records.
func warm(w field.Weather, now time.Time, tC float64) *time.Time {
	for i := 1; i < len(w.Air); i++ {
		a, b := w.Air[i-1].At, w.Air[i].At
		if !b.After(now) || w.SurfaceC[i] < tC {
			continue
		}
		at := a
		if w.SurfaceC[i-1] < tC {
			at = a.Add(time.Duration((tC - w.SurfaceC[i-1]) / (w.SurfaceC[i] - w.SurfaceC[i-1]) * float64(b.Sub(a))))
		}
		if at.Before(now) {
			at = now
		}
		return &at
	}
	return nil
}
