// Package buildup adds up the coats planned on a surface: film, litres, tins,
// and what is wrong with them.
package buildup

import (
	"fmt"
	"math"

	"allcoats/core/area"
	"allcoats/core/fault"
	"allcoats/core/film"
	"allcoats/core/product"
	"allcoats/core/tins"
	"allcoats/core/working"
)

// Step is a number of equal coats of one product. LossPct and ThinnerPct are
// the user's own figures.
type Step struct {
	Sheet      product.Sheet
	Coats      int
	DFTUm      float64
	Method     string
	LossPct    float64
	ThinnerPct float64
}

// Validate reports impossible figures.
func (s Step) Validate() error {
	var bad fault.Errors
	bad.Range("coats", float64(s.Coats), 1, 50, "coats")
	bad.Above("dftUm", s.DFTUm, 0, 50e3, "µm")
	bad.Range("lossPct", s.LossPct, 0, 90, "%")
	bad.Range("thinnerPct", s.ThinnerPct, 0, 50, "%")
	if _, ok := film.MethodByKey(s.Method); !ok {
		bad.Add("method", "choose how it is laid")
	}
	if !s.Sheet.IsCoat() {
		bad.Add("productId", "%s leaves no film; it cannot be a coat", s.Sheet.Name)
	}
	return bad.Err()
}

// Severity of a finding.
type Severity string

// Severities.
const (
	Note    Severity = "note"
	Warning Severity = "warning"
)

// Finding is something about a step that the sheet or the trade has a word on.
type Finding struct {
	Severity Severity `json:"severity"`
	Text     string   `json:"text"`
}

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
	Findings      []Finding       `json:"findings"`
	Working       working.Working `json:"working"`
}

// Result is the whole build-up. FilmUm is all dry film together, nothing
// sanded away.
type Result struct {
	Lines     []Line          `json:"lines"`
	Coats     int             `json:"coats"`
	FilmUm    float64         `json:"filmUm"`
	Litres    float64         `json:"litres"`
	CostCents int             `json:"costCents"`
	Priced    bool            `json:"priced"`
	Hours     float64         `json:"hours"`
	Working   working.Working `json:"working"`
}

// Compute adds up steps on a surface of area a. Bad steps are faults at
// "steps[i].field".
func Compute(a area.Figure, steps []Step) (Result, error) {
	var bad fault.Errors
	for i, s := range steps {
		bad.Under(fmt.Sprintf("steps[%d]", i), s.Validate())
	}
	if err := bad.Err(); err != nil {
		return Result{}, err
	}
	out := Result{Lines: []Line{}, Priced: true, Working: working.New()}
	k := &out.Working
	for i, s := range steps {
		l, err := line(a, s)
		if err != nil {
			bad.Under(fmt.Sprintf("steps[%d]", i), err)
			continue
		}
		out.Lines = append(out.Lines, l)
		out.Coats += s.Coats
		out.FilmUm += l.FilmUm
		out.Litres += l.Litres
		out.Hours += l.HoursPerCoat * float64(s.Coats)
		out.CostCents += l.Purchase.CostCents
		out.Priced = out.Priced && l.Purchase.Priced
		k.In(s.Sheet.Name+", film", l.FilmUm, "µm")
		k.In(s.Sheet.Name+", litres", l.Litres, "L")
	}
	k.Step("Dry film in all", "sum of coats · film each; nothing sanded away", out.FilmUm, "µm", "addition")
	k.Step("Litres in all", "sum of the steps", out.Litres, "L", "addition")
	k.Step("Hours of laying", "sum of coats · A / laying rate, one person", out.Hours, "h", "laying rates: rules of thumb")
	return out, bad.Err()
}

func line(a area.Figure, s Step) (Line, error) {
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
	// 80 % of a normal distribution lies within 1.2816 standard deviations.
	const z80 = 1.2816
	l := Line{
		WFTUm: f.WFTUm, FilmUm: s.DFTUm * float64(s.Coats), Litres: f.PracticalL, LitresPerCoat: f.PracticalL / float64(s.Coats),
		LitresLow: f.PracticalL * math.Exp(-z80*sd/100), LitresHigh: f.PracticalL * math.Exp(z80*sd/100),
		ThinnerL: f.ThinnerL, HoursPerCoat: a.AreaM2 / m.RateM2H, Findings: findings(s),
	}
	w.Step("80 % range, low", "litres · exp(−1.28 · uncertainty)", l.LitresLow, "L", "log-normal")
	w.Step("80 % range, high", "litres · exp(+1.28 · uncertainty)", l.LitresHigh, "L", "log-normal")
	w.Step("Hours to lay one coat", "A / laying rate, one person", l.HoursPerCoat, "h",
		fmt.Sprintf("%g m²/h by %s: a rule of thumb", m.RateM2H, m.Name))
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

func findings(s Step) []Finding {
	out := []Finding{}
	say := func(sev Severity, format string, args ...any) {
		out = append(out, Finding{sev, fmt.Sprintf(format, args...)})
	}
	if f := s.Sheet.Film; s.DFTUm < f.MinUm {
		say(Warning, "Thinner than the sheet's least film of %g µm a coat: it may not cover or protect.", f.MinUm)
	} else if s.DFTUm > f.MaxUm {
		say(Warning, "Thicker than the sheet's greatest film of %g µm a coat: it may sag and trap solvent.", f.MaxUm)
	}
	if s.ThinnerPct > s.Sheet.ThinnerMaxPct {
		say(Warning, "More thinner than the sheet's %g %% allows.", s.Sheet.ThinnerMaxPct)
	}
	listed := len(s.Sheet.Methods) == 0
	for _, m := range s.Sheet.Methods {
		listed = listed || m == s.Method
	}
	if !listed {
		m, _ := film.MethodByKey(s.Method)
		say(Warning, "The sheet does not list %s as a way to lay it.", m.Name)
	}
	return out
}
