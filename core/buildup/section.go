package buildup

import (
	"fmt"

	"allcoats/core/film"
	"allcoats/core/product"
	"allcoats/core/working"
)

// Laid is a coat that went on, as logged. WetUm are comb readings; Litres is
// what was used; StepUm is the film that was planned.
type Laid struct {
	Sheet      product.Sheet
	WetUm      []float64
	Litres     float64
	ThinnerPct float64
	LossPct    float64
	StepUm     float64
}

// How a laid film is known.
const (
	ByComb     = "comb readings"
	ByLitres   = "litres used"
	AsPlanned  = "as planned"
	ByTheSheet = "as the sheet's typical film"
)

// Film returns the dry film of a laid coat on areaM2 with its working, and how
// it is known.
func (l Laid) Film(areaM2 float64) (um float64, how string, w working.Working) {
	w = working.New()
	um, how = l.FilmUm(areaM2)
	w.In("Volume solids", l.Sheet.VolumeSolidsPct, "%")
	switch how {
	case ByComb:
		for i, r := range l.WetUm {
			w.In(fmt.Sprintf("Comb reading %d", i+1), r, "µm")
		}
		w.In("Thinner added", l.ThinnerPct, "%")
		w.Step("Dry film", "mean wet film · (VS/100) / (1 + thinner/100)", um, "µm", "volume solids by ISO 3233")
	case ByLitres:
		w.In("Litres used", l.Litres, "L")
		w.In("Area", areaM2, "m²")
		w.In("Loss", l.LossPct, "%")
		w.Step("Dry film", "litres · (1 − loss/100) · 10 · VS / A", um, "µm", "ISO 23811, turned round")
		w.Warn("A mean over the surface, as good as the loss and the area.")
	default:
		w.Step("Dry film", "taken "+how, um, "µm", "no readings and no litres were logged")
	}
	return um, how, w
}

// FilmUm returns the dry film of a laid coat on areaM2, and how it is known:
// by the mean of the comb readings, else by the litres used less their loss,
// else as planned or as the sheet says.
func (l Laid) FilmUm(areaM2 float64) (um float64, how string) {
	switch vs := l.Sheet.VolumeSolidsPct; {
	case len(l.WetUm) > 0:
		sum := 0.0
		for _, w := range l.WetUm {
			sum += w
		}
		return film.Dry(sum/float64(len(l.WetUm)), vs, l.ThinnerPct), ByComb
	case l.Litres > 0 && areaM2 > 0:
		return l.Litres * (1 - l.LossPct/100) * 10 * vs / areaM2, ByLitres
	case l.StepUm > 0:
		return l.StepUm, AsPlanned
	}
	return l.Sheet.Film.TypicalUm, ByTheSheet
}

// Layer is a layer of the cut section, from the substrate outward. Known says
// how the film of a laid coat is known; it is empty for a planned one.
type Layer struct {
	Product string       `json:"product"`
	Kind    product.Kind `json:"kind"`
	Colour  string       `json:"colour"`
	Um      float64      `json:"um"`
	Laid    bool         `json:"laid"`
	Known   string       `json:"known"`
}

// Section lists the layers of a surface of areaM2: the coats laid, in their
// order, then what is left of steps. done[i] coats of steps[i] have gone on.
func Section(areaM2 float64, laid []Laid, steps []Step, done []int) []Layer {
	out := []Layer{}
	for _, l := range laid {
		um, how := l.FilmUm(areaM2)
		out = append(out, Layer{l.Sheet.Name, l.Sheet.Kind, l.Sheet.Colour, um, true, how})
	}
	for i, s := range steps {
		for range s.Coats - done[i] {
			out = append(out, Layer{s.Sheet.Name, s.Sheet.Kind, s.Sheet.Colour, s.DFTUm, false, ""})
		}
	}
	return out
}
