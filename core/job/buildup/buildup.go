// Package buildup adds up the coats planned on a surface: film, litres, tins,
// and what is wrong with them.
package buildup

import (
	"fmt"
	"math"

	"allcoats/core/base/fault"
	"allcoats/core/base/say"
	"allcoats/core/base/working"
	"allcoats/core/boat/area"
	"allcoats/core/catalog/tins"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
)

// Line is what a step comes to. Litres are of unthinned mix for all its coats,
// LitresLow to LitresHigh an 80 % range.
type Line struct {
	WFTUm         float64         `json:"wftUm"`
	FilmUm        float64         `json:"filmUm"`
	LitresPerCoat float64         `json:"litresPerCoat"`
	Litres        float64         `json:"litres"`
	LitresLow     float64         `json:"litresLow"`
	LitresHigh    float64         `json:"litresHigh"`
	ThinnerL      float64         `json:"thinnerL"`
	Purchase      tins.Purchase   `json:"purchase"`
	HoursPerCoat  float64         `json:"hoursPerCoat"`
	Working       working.Working `json:"working"`
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

// Compute adds up steps on a surface of area a, access times the hours of a flat
// one. Bad steps are faults at "steps[i].field".
func Compute(a area.Figure, access float64, steps []step.Step) (Result, error) {
	var bad fault.Errors
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
		if !s.Films() {
			l := work(a, access, s)
			out.Lines = append(out.Lines, l)
			out.Hours += l.HoursPerCoat
			removed += s.RemovedUm
			continue
		}
		l, err := line(a, s)
		if err != nil {
			bad.Under(fmt.Sprintf("steps[%d]", i), err)
			continue
		}
		out.Lines = append(out.Lines, l)
		out.Coats += s.Coats
		out.FilmUm += l.FilmUm
		variance += float64(s.Coats) * math.Pow(s.DFTUm*coatScatterPct/100, 2)
		out.Litres += l.Litres
		out.Hours += l.HoursPerCoat * float64(s.Coats)
		out.CostCents += l.Purchase.CostCents
		out.Priced = out.Priced && l.Purchase.Priced
		k.In(s.Sheet.Name+", film", l.FilmUm, "µm")
		k.In(s.Sheet.Name+", litres", l.Litres, "L")
	}
	k.Step("Dry film laid", "sum of coats · film each", out.FilmUm, "µm", "addition")
	out.NetUm = k.Step("Net of sanding", "laid less what is sanded off", math.Max(0, out.FilmUm-removed), "µm", "subtraction")
	sd := k.Step("Scatter of the film", "√Σ coats · (12 % of a coat)²", math.Sqrt(variance), "µm", "±12 % a coat: rule of thumb")
	out.NetLowUm, out.NetHighUm = math.Max(0, out.NetUm-z80*sd), out.NetUm+z80*sd
	k.Step("Litres in all", "sum of the steps", out.Litres, "L", "addition")
	k.Step("Hours in all", "laying and preparing, one person", out.Hours, "h", "rates: rules of thumb")
	return out, bad.Err()
}

// work is what a step without a film comes to.
func work(a area.Figure, access float64, s step.Step) Line {
	w := working.New()
	w.In("Area", a.AreaM2, "m²")
	kind := s.Work.Kind()
	rate := kind.RateM2H
	if s.Work == step.Sand { // coarse grits take long, fine ones less
		switch {
		case s.Grit <= 80:
			rate = 4
		case s.Grit > 180:
			rate = 8
		}
	}
	if !kind.Reached {
		access = 1
	}
	w.In("Access", access, "")
	l := Line{Purchase: tins.Purchase{Tins: []tins.Bought{}, Priced: true}}
	l.HoursPerCoat = w.StepOf("Hours", say.Of("A / rate · access"), a.AreaM2/rate*access, "h", say.Of("%s, %g m²/h: a rule of thumb", kind.Name, rate))
	l.Working = w
	return l
}

func line(a area.Figure, s step.Step) (Line, error) {
	f, err := film.Compute(film.Request{
		VolumeSolidsPct: s.Sheet.VolumeSolidsPct, DFTUm: s.DFTUm, ThinnerPct: s.ThinnerPct,
		AreaM2: a.AreaM2, Coats: s.Coats, LossPct: s.LossPct,
	})
	if err != nil {
		return Line{}, err
	}
	m, _ := film.MethodByKey(s.Method)
	w := f.Working
	// The loss range is read as ± 2 standard deviations.
	lossSD := 100 * (m.LossMaxPct - m.LossMinPct) / 4 / (100 - s.LossPct)
	sd := w.Step("Standard uncertainty of the litres", "√(area² + loss²)",
		math.Hypot(a.UncertaintyPct, lossSD), "%", "loss range of the method read as ± 2 standard deviations")
	l := Line{
		WFTUm: f.WFTUm, FilmUm: s.DFTUm * float64(s.Coats), Litres: f.PracticalL, LitresPerCoat: f.PracticalL / float64(s.Coats),
		LitresLow: f.PracticalL * math.Exp(-z80*sd/100), LitresHigh: f.PracticalL * math.Exp(z80*sd/100),
		ThinnerL: f.ThinnerL, HoursPerCoat: a.AreaM2 / m.RateM2H,
	}
	w.Step("80 % range, low", "litres · exp(−1.28 · uncertainty)", l.LitresLow, "L", "log-normal")
	w.Step("80 % range, high", "litres · exp(+1.28 · uncertainty)", l.LitresHigh, "L", "log-normal")
	w.StepOf("Hours to lay one coat", say.Of("A / laying rate, one person"), l.HoursPerCoat, "h",
		say.Of("%g m²/h by %s: a rule of thumb", m.RateM2H, m.Name))
	if s.Sheet.Example {
		w.Warn("Example figures: enter the data sheet of the tin in hand.")
	}
	l.Purchase, _ = tins.Cover(l.Litres, s.Sheet, tins.Stock{})
	if len(s.Sheet.Tins) == 0 {
		l.Purchase.Priced = false
		w.Warn("The data sheet names no tins: nothing can be bought by it.")
	}
	l.Working = w
	return l, nil
}
