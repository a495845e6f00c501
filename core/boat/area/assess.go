package area

import (
	"fmt"
	"math"
	"strings"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
)

// Measured is a surface's measurements side by side, and which of them counts.
// Combine takes all of them by inverse variance; else Chosen does. SharePct is
// the share of what was measured that this surface is, 100 unless it was split.
type Measured struct {
	Measures []Measure `json:"measures"`
	Chosen   int       `json:"chosen"`
	Combine  bool      `json:"combine,omitempty"`
	SharePct float64   `json:"sharePct,omitempty"`
}

// Assessment is what a surface's measurements come to.
type Assessment struct {
	Figure
	Figures []Figure `json:"figures"`
	// Disagreeing are pairs of measurements that differ by more than their ±
	// together, each with a sentence.
	Disagreeing []Disagreement `json:"disagreeing"`
}

// tapedToPct is what four girths with the path, or a tape on a plain part, usually come to: ± %.
const tapedToPct = 5

// Better says what one more measurement of a part would buy, of its area or, with litres to come,
// of those; nothing where it is measured well.
func (m Measured) Better(part Part, f Figure, litres float64) message.Sentence {
	byRule := len(m.Measures) > 0 && !m.Combine && m.Measures[m.Chosen].Method == ByPrincipal
	if !byRule && f.UncertaintyPct < 10 {
		return nil
	}
	how := "Measure it with a tape"
	if part.Info().Girthed {
		how = "Tape four girths and the way along the hull"
	}
	less := 2 * max(0, f.UncertaintyPct-tapedToPct) / 100
	out := message.Of("%s: ±%.0f %% becomes about ±%d %%, ", how, f.UncertaintyPct, tapedToPct)
	if litres > 0 {
		return message.Of("%v%v less doubt in what to buy.", out, message.Val(less*litres, "L"))
	}
	return message.Of("%v%v less doubt.", out, message.Val(less*f.AreaM2, "m²"))
}

// Disagreement is between measurements A and B.
type Disagreement struct {
	A    int              `json:"a"`
	B    int              `json:"b"`
	Text message.Sentence `json:"text"`
}

// MethodName says how an area was found.
var MethodName = map[Method]string{
	ByPrincipal: "principal dimensions", ByGirth: "girths", ByShape: "shapes", ByOutline: "outline",
	ByModel:       "3-D model",
	ByConsumption: "a coat's consumption", Stated: "stated",
}

// Assess measures a part by every measurement, and chooses or combines. Faults
// name "measures[i].field".
func (b Boat) Assess(part Part, side Side, m Measured) (Assessment, error) {
	var bad fielderr.Errors
	out := Assessment{Figures: []Figure{}, Disagreeing: []Disagreement{}}
	if len(m.Measures) == 0 {
		bad.Add("measures", "measure the surface in one way at least")
	}
	if len(m.Measures) > 20 {
		bad.Add("measures", "at most 20 measurements are kept")
	}
	if m.Chosen < 0 || m.Chosen >= max(1, len(m.Measures)) {
		bad.Add("chosen", "choose one of the measurements")
	}
	share := m.SharePct
	if share == 0 {
		share = 100
	}
	bad.Above("sharePct", share, 0, 100, "%")
	for i, one := range m.Measures {
		f, err := b.Of(part, side, one)
		bad.Under(fmt.Sprintf("measures[%d]", i), err)
		out.Figures = append(out.Figures, f)
	}
	if err := bad.Err(); err != nil {
		return Assessment{}, err
	}
	for i, f := range out.Figures {
		for k, g := range out.Figures[:i] {
			if d := math.Abs(f.AreaM2 - g.AreaM2); d > f.plusMinus()+g.plusMinus() {
				out.Disagreeing = append(out.Disagreeing,
					Disagreement{k, i, message.Of(
						"%s and %s differ by %.3g m², more than their ± of %.3g m² and %.3g m² together.",
						capital(MethodName[m.Measures[k].Method]), MethodName[m.Measures[i].Method], d, g.plusMinus(),
						f.plusMinus())})
			}
		}
	}
	out.Figure = out.Figures[m.Chosen]
	out.Working.Steps = append([]working.Step{}, out.Working.Steps...)
	out.Working.Warnings = append([]message.Sentence{}, out.Working.Warnings...)
	if m.Combine && len(out.Figures) > 1 {
		out.Figure = combined(m, out.Figures)
	}
	for _, d := range out.Disagreeing {
		out.Working.Warn("%s", d.Text)
	}
	if share < 100 {
		out.AreaM2 = out.Working.StepOf("This surface's share", message.Of("%g %% of what was measured", share),
			out.AreaM2*share/100, "m²", message.Lit("the surface was split"))
	}
	return out, nil
}

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// combined weighs figures by 1/±². Where they scatter more than their ± say,
// the uncertainty is widened by the Birge ratio √(χ²/(n − 1)).
func combined(m Measured, figures []Figure) Figure {
	w := working.New()
	var sum, weight float64
	for i, f := range figures {
		s := max(f.plusMinus(), 1e-3*f.AreaM2) // a stated area without ± is not infinitely sure
		label := MethodName[m.Measures[i].Method]
		w.In(label, f.AreaM2, "m²")
		w.In(label+", ±", s, "m²")
		sum += f.AreaM2 / (s * s)
		weight += 1 / (s * s)
	}
	a := w.Step("Combined area", "Σ(A/±²) / Σ(1/±²)", sum/weight, "m²", "inverse-variance mean")
	chi2 := 0.0
	for _, f := range figures {
		s := max(f.plusMinus(), 1e-3*f.AreaM2)
		chi2 += Half * Half * (f.AreaM2 - a) * (f.AreaM2 - a) / (s * s)
	}
	plusMinus := w.Step("Its ±", "√(1 / Σ(1/±²))", math.Sqrt(1/weight), "m²", "inverse-variance mean")
	if birge := math.Sqrt(chi2 / float64(len(figures)-1)); birge > 1 {
		plusMinus = w.Step("Widened for scatter", "± · √(χ²/(n − 1)), χ² = Σ(1.28 · difference / ±)²", plusMinus*birge,
			"m²", "Birge 1932")
	}
	return Figure{AreaM2: a, UncertaintyPct: 100 * plusMinus / a, Working: w}
}
