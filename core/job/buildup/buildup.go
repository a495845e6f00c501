// Package buildup adds up the coats planned on a surface: film, litres, tins,
// and what is wrong with them.
package buildup

import (
	"fmt"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/boat/area"
	"allcoats/core/catalog/purchase"
	"allcoats/core/film/film"
	"allcoats/core/film/sand"
	"allcoats/core/film/step"
)

// Line is what a step comes to on AreaM2, what it works of its surface. Litres are of
// unthinned mix for all its coats, LitresLow to LitresHigh an 80 % range (Compute fills it in,
// and what the log taught). Hours are one
// person's, for a coat or for work in one go: LayH lays it, KeyH keys the face before,
// PullH pulls the tape after, HoursPerCoat is all of them with setting up and clearing
// away.
type Line struct {
	AreaM2        float64           `json:"areaM2"`
	WFTUm         float64           `json:"wftUm"`
	FilmUm        float64           `json:"filmUm"`
	LitresPerCoat float64           `json:"litresPerCoat"`
	Litres        float64           `json:"litres"`
	LitresLow     float64           `json:"litresLow"`
	LitresHigh    float64           `json:"litresHigh"`
	ThinnerL      float64           `json:"thinnerL"`
	Purchase      purchase.Purchase `json:"purchase"`
	LayH          float64           `json:"layH"`
	KeyH          float64           `json:"keyH"`
	PullH         float64           `json:"pullH"`
	HoursPerCoat  float64           `json:"hoursPerCoat"`
	Working       working.Working   `json:"working"`
}

// Own is what the log has taught of a surface's litres; nothing without Usage.
type Own struct {
	Usage   *purchase.Usage
	Surface string
}

// expect turns litres reckoned into those to expect, with their 80 % range.
func (o Own) expect(l *Line, a area.Figure, coats int, metered bool) {
	if o.Usage == nil || metered {
		o = Own{purchase.NewUsage(nil, map[string]float64{"": a.SDPct()}), ""}
	}
	w := &l.Working
	if n := o.Usage.Coats(); n > 0 {
		factor := w.StepOf("Your use over the reckoning here",
			message.Of("what %d logged coats took, this surface's telling most", n), o.Usage.On(o.Surface).Median, "",
			message.Of("see Stores"))
		l.LitresPerCoat *= factor
		l.ThinnerL *= factor
		l.Litres = w.Step("Litres to expect", "reckoned · your use", l.Litres*factor, "L", "learned from the log")
	}
	each := make([]float64, coats)
	for i := range each {
		each[i] = l.Litres / float64(coats) / o.Usage.On(o.Surface).Median
	}
	all := o.Usage.ToCome(map[string][]float64{o.Surface: each})
	source := fmt.Sprintf("person ±20 %%, a coat ±12 %%, area ±%.0f %%, less what the log told: rules of thumb",
		a.UncertaintyPct)
	l.LitresLow = w.Step("80 % range, low", "10 % quantile of the litres to come", all.At(0.1), "L", source)
	l.LitresHigh = w.Step("80 % range, high", "90 % quantile of the litres to come", all.At(0.9), "L", source)
}

// Result is the whole build-up. FilmUm is all dry film laid, NetUm what is left
// after the sandings, with an 80 % range.
type Result struct {
	Lines     []Line          `json:"lines"`
	Coats     int             `json:"coats"`
	FilmUm    float64         `json:"filmUm"`
	NetUm     float64         `json:"netUm"`
	NetLowUm  float64         `json:"netLowUm"`
	NetHighUm float64         `json:"netHighUm"`
	Litres    float64         `json:"litres"`
	CostCents int             `json:"costCents"`
	Priced    bool            `json:"priced"`
	Hours     float64         `json:"hours"`
	Working   working.Working `json:"working"`
}

// coatScatterPct is how much the mean film of one coat departs from what was
// meant, one standard deviation: a rule of thumb.
const coatScatterPct = 12

// z80: 80 % of a normal distribution lies within so many standard deviations.
const z80 = 1.2816

// Reckon is what a step comes to on a surface of area a, access times the hours of a
// flat one, without what is to be bought for it.
func Reckon(a area.Figure, access float64, s step.Step) (Line, error) {
	if err := s.Validate(); err != nil {
		return Line{}, err
	}
	a.AreaM2 = s.Where.AreaM2(a.AreaM2)
	if !s.Films() {
		return work(a, access, s), nil
	}
	return coating(a, access, s)
}

// Compute adds up steps on a surface of area a, access times the hours of a flat
// one, the litres as own tells. Bad steps are faults at "steps[i].field". The film is that of the
// surface at large: what marked patches get beside is in their sections.
func Compute(a area.Figure, access float64, steps []step.Step, own Own) (Result, error) {
	var bad fielderr.Errors
	for i, s := range steps {
		bad.Under(fmt.Sprintf("steps[%d]", i), s.Validate())
	}
	if err := bad.Err(); err != nil {
		return Result{}, err
	}
	out := Result{Lines: []Line{}, Priced: true, Working: working.New()}
	k := &out.Working
	removed, variance := 0.0, 0.0
	for i, s := range steps {
		l, err := Reckon(a, access, s)
		if err != nil {
			bad.Under(fmt.Sprintf("steps[%d]", i), err)
			continue
		}
		if s.Films() && s.Coats > 0 {
			own.expect(&l, a, s.Coats, s.Sheet.Kind.Info().Metered)
		}
		l.buy(s)
		out.Lines = append(out.Lines, l)
		out.Hours += l.HoursPerCoat * float64(max(1, s.Coats))
		if s.Where == nil {
			removed += s.RemovedUm * float64(max(1, s.Coats))
		}
		if !s.Films() {
			continue
		}
		out.Coats += s.Coats
		if s.Where == nil {
			out.FilmUm += l.FilmUm
			variance += float64(s.Coats) * math.Pow(s.DFTUm*coatScatterPct/100, 2)
		}
		out.Litres += l.Litres
		out.CostCents += l.Purchase.CostCents
		out.Priced = out.Priced && l.Purchase.Priced
		k.In(s.Sheet.Name+", film", l.FilmUm, "µm")
		k.In(s.Sheet.Name+", litres", l.Litres, "L")
	}
	k.Step("Dry film laid", "sum of coats · film each", out.FilmUm, "µm", "addition")
	out.NetUm = k.Step("Net of sanding", "laid less what is sanded off", math.Max(0, out.FilmUm-removed), "µm",
		"subtraction")
	sd := k.Step("Scatter of the film", "√Σ coats · (12 % of a coat)²", math.Sqrt(variance), "µm",
		"±12 % a coat: rule of thumb")
	out.NetLowUm, out.NetHighUm = math.Max(0, out.NetUm-z80*sd), out.NetUm+z80*sd
	k.Step("Litres in all", "sum of the steps", out.Litres, "L", "addition")
	k.Step("Hours in all", "laying and preparing, one person", out.Hours, "h", "rates: rules of thumb")
	return out, bad.Err()
}

// buy fills in what is to be bought.
func (l *Line) buy(s step.Step) {
	l.Purchase = purchase.Purchase{Tins: []purchase.Bought{}, Priced: true}
	if !s.Films() {
		return
	}
	l.Purchase, _ = purchase.Cover(l.Litres, s.Sheet, purchase.Stock{})
	if len(s.Sheet.Tins) == 0 {
		l.Purchase.Priced = false
		l.Working.Warn("The data sheet names no tins: nothing can be bought by it.")
	}
}

const ratesSource = "rates: rules of thumb"

// tapeMH is the masking tape that one person lays in an hour, m, and pullMH what one
// pulls: rules of thumb.
const tapeMH, pullMH = 25.0, 100.0

// hours fills in the hours of a coat, or of work in one go, that takes doH by the rates.
func (l *Line) hours(s step.Step, a area.Figure, access, doH float64) {
	w, kind := &l.Working, s.Work.Kind()
	l.LayH = doH
	if s.KeyGrit > 0 {
		l.KeyH = w.StepOf("Hours to key it before", message.Of("A / rate of %d grit · access", s.KeyGrit),
			sand.Hours(s.KeyGrit, a.AreaM2, access, s.Sheet.Kind.Info().Filler), "h", message.Of(ratesSource))
	}
	if kind.Taped {
		l.PullH = w.Step("Hours to pull the tape", "as much as is laid, at its own rate", pulling(s, a), "h",
			ratesSource)
	}
	if s.Hours > 0 {
		l.LayH = math.Min(doH, s.Hours)
		l.HoursPerCoat = w.Step("Hours in all", "set for this step, with keying and pulling", s.Hours+l.KeyH+l.PullH,
			"h", "your figure, or the bench's")
		return
	}
	l.HoursPerCoat = w.Step("Hours in all", "with keying and pulling, setting up and clearing away", doH+kind.SetupH+
		l.KeyH+l.PullH, "h", ratesSource)
}

func pulling(s step.Step, a area.Figure) float64 {
	if s.TapeM > 0 {
		return s.TapeM / pullMH
	}
	return a.AreaM2 / step.Unmask.Kind().RateM2H
}

// work is what a step without a film comes to.
func work(a area.Figure, access float64, s step.Step) Line {
	l := Line{AreaM2: a.AreaM2, Working: working.New()}
	w := &l.Working
	w.In("Area", a.AreaM2, "m²")
	kind := s.Work.Kind()
	if !kind.Reached {
		access = 1
	}
	w.In("Access", access, "")
	h := 0.0
	switch {
	case s.Work == step.Sand:
		h = w.StepOf("Hours", message.Of("A / rate of the grit and the tool · access"),
			sand.Hours(s.Grit, a.AreaM2, access, false), "h", message.Of(ratesSource))
	case s.TapeM > 0:
		h = w.StepOf("Hours", message.Of("tape / rate"), s.TapeM/tapeMH, "h",
			message.Of("%g m of tape an hour: a rule of thumb", tapeMH))
	case kind.RateM2H > 0:
		h = w.StepOf("Hours", message.Of("A / rate · access"), a.AreaM2/kind.RateM2H*access, "h",
			message.Of("%s, %g m²/h: a rule of thumb", kind.Name, kind.RateM2H))
	}
	l.hours(s, a, access, h)
	return l
}

// coating is what a step that leaves a film comes to.
func coating(a area.Figure, access float64, s step.Step) (Line, error) {
	f, err := film.Compute(film.Request{
		VolumeSolidsPct: s.Sheet.VolumeSolidsPct, DFTUm: s.DFTUm, ThinnerPct: s.ThinnerPct,
		AreaM2: a.AreaM2, Coats: s.Coats, LossPct: s.LossPct,
	})
	if err != nil {
		return Line{}, err
	}
	m, _ := film.MethodByKey(s.Method)
	w := f.Working
	l := Line{
		AreaM2: a.AreaM2, WFTUm: f.WFTUm, FilmUm: s.DFTUm * float64(s.Coats), Litres: f.PracticalL,
		LitresPerCoat: f.PracticalL / float64(s.Coats), ThinnerL: f.ThinnerL,
	}
	access = math.Max(1, access)
	h := w.StepOf("Hours to lay one coat", message.Of("A / laying rate · access, one person"),
		a.AreaM2/m.RateM2H*access, "h",
		message.Of("%g m²/h by %s: a rule of thumb", m.RateM2H, m.Name))
	if s.Sheet.Example {
		w.Warn("Example figures: enter the data sheet of the tin in hand.")
	}
	l.Working = w
	l.hours(s, a, access, h)
	return l, nil
}
