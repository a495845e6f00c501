package buildup

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/step"

	"gonum.org/v1/gonum/stat"
)

// Laid is a coat that went on AreaM2, as logged. WetUm are comb readings; Litres is
// what was used; StepUm is the film that was planned.
type Laid struct {
	Sheet      product.Sheet
	AreaM2     float64
	WetUm      []float64
	Litres     float64
	ThinnerPct float64
	LossPct    float64
	StepUm     float64
	// At is when it went on, Batch what stands on its tin.
	At    time.Time
	Batch string
}

// How a laid film is known.
const (
	ByComb     = "comb readings"
	ByLitres   = "litres used"
	AsPlanned  = "as planned"
	ByTheSheet = "as the sheet's typical film"
)

// Film returns the dry film of a laid coat with its working, and how it is known.
func (l Laid) Film() (um float64, how string, w working.Working) {
	w = working.New()
	um, how = l.FilmUm()
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
		w.In("Area", l.AreaM2, "m²")
		w.In("Loss", l.LossPct, "%")
		w.Step("Dry film", "litres · (1 − loss/100) · 10 · VS / A", um, "µm", "ISO 23811, turned round")
		w.Warn("A mean over the surface, as good as the loss and the area.")
	default:
		w.Step("Dry film", "taken "+how, um, "µm", "no readings and no litres were logged")
	}
	return um, how, w
}

// SDUm returns the standard deviation of the dry film by comb readings, 0 with
// fewer than two.
func (l Laid) SDUm() float64 {
	if len(l.WetUm) < 2 {
		return 0
	}
	dry := make([]float64, len(l.WetUm))
	for i, w := range l.WetUm {
		dry[i] = film.Dry(w, l.Sheet.VolumeSolidsPct, l.ThinnerPct)
	}
	return stat.StdDev(dry, nil)
}

// FilmUm returns the dry film of a laid coat, and how it is known:
// by the mean of the comb readings, else by the litres used less their loss,
// else as planned or as the sheet says.
func (l Laid) FilmUm() (um float64, how string) {
	switch vs := l.Sheet.VolumeSolidsPct; {
	case len(l.WetUm) > 0:
		sum := 0.0
		for _, w := range l.WetUm {
			sum += w
		}
		return film.Dry(sum/float64(len(l.WetUm)), vs, l.ThinnerPct), ByComb
	case l.Litres > 0 && l.AreaM2 > 0:
		return l.Litres * (1 - l.LossPct/100) * 10 * vs / l.AreaM2, ByLitres
	case l.StepUm > 0:
		return l.StepUm, AsPlanned
	}
	return l.Sheet.Film.TypicalUm, ByTheSheet
}

// Layer is a layer of the cut section, from the substrate outward. Known says
// how the film of a laid coat is known; it is empty for a planned one. Old
// layers were there before, Keep marks those that sanding must not reach into.
type Layer struct {
	Product string       `json:"product"`
	Kind    product.Kind `json:"kind"`
	Colour  string       `json:"colour"`
	Um      float64      `json:"um"`
	Laid    bool         `json:"laid"`
	Known   string       `json:"known"`
	Old     bool         `json:"old"`
	Keep    bool         `json:"keep"`
	// At is when it went on, nil if that is not logged; Batch is its tin's.
	At    *time.Time `json:"at,omitempty"`
	Batch string     `json:"batch,omitempty"`
}

// Done is a coat that went on or, without one, film that was sanded off; Where is the
// part of the surface, empty all of it.
type Done struct {
	Coat      *Laid
	RemovedUm float64
	Where     string
}

// Places lists the parts of a surface that get a film apart, in their order.
func Places(steps []step.Step) []step.Where {
	var out []step.Where
	for _, s := range steps {
		if s.Films() && s.Where != nil && !slices.ContainsFunc(out, func(w step.Where) bool {
			return w.Name == s.Where.Name
		}) {
			out = append(out, *s.Where)
		}
	}
	return out
}

// at reports whether work at a part of a surface is of a place; place "" is where no part
// is marked.
func at(where, place string) bool { return where == "" || where == place }

// Margin is the film, µm, that lies above the old layer that must stay, or,
// without one, above the substrate. Through is what sandings took beyond it.
// Known is false if the thickness of a layer in it is not known.
type Margin struct {
	AboveUm   float64 `json:"aboveUm"`
	ThroughUm float64 `json:"throughUm"`
	Known     bool    `json:"known"`
	Keeps     string  `json:"keeps"`
}

// Section lists the layers at a place of a surface: the old ones, the coats laid
// less what was sanded off, in their order, then what is left of steps. counts[i]
// coats of steps[i] have gone on. The place is the name of a part that steps work apart,
// "" for the rest.
func Section(place string, old survey.Findings, done []Done, steps []step.Step, counts []int) ([]Layer, Margin) {
	out := []Layer{}
	m := Margin{Known: true, Keeps: "the substrate"}
	for i, l := range old.Layers {
		known := ""
		if l.Um == 0 {
			known = "thickness not known"
			m.Known = m.Known && i < old.Stop
		}
		out = append(out, Layer{Product: "old " + string(l.Kind), Kind: product.Kind(l.Kind), Colour: l.Colour,
			Um: l.Um, Laid: true, Known: known, Old: true, Keep: i < old.Stop})
		if i < old.Stop {
			m.Keeps = strings.TrimSpace("the old " + string(l.Kind) + " " + l.Colour)
		}
	}
	for _, d := range done {
		if !at(d.Where, place) {
			continue
		}
		if d.Coat != nil {
			um, how := d.Coat.FilmUm()
			l := Layer{Product: d.Coat.Sheet.Name, Kind: d.Coat.Sheet.Kind, Colour: d.Coat.Sheet.Colour, Um: um,
				Laid: true, Known: how, Batch: d.Coat.Batch}
			if at := d.Coat.At; !at.IsZero() {
				l.At = &at
			}
			out = append(out, l)
			continue
		}
		var left float64
		out, left = sandOff(out, d.RemovedUm)
		m.ThroughUm += left
	}
	for _, l := range out {
		if !l.Keep {
			m.AboveUm += l.Um
		}
	}
	begun := -1 // what was planned before the last coat that went on is past
	for i, n := range counts {
		if n > 0 {
			begun = i
		}
	}
	for i, s := range steps {
		if s.Where != nil && !at(s.Where.Name, place) {
			continue
		}
		if !s.Films() {
			if i > begun {
				out, _ = sandOff(out, s.RemovedUm)
			}
			continue
		}
		for range s.Coats - counts[i] {
			out, _ = sandOff(out, s.RemovedUm)
			out = append(out, Layer{Product: s.Sheet.Name, Kind: s.Sheet.Kind, Colour: s.Sheet.Colour, Um: s.DFTUm})
		}
	}
	return out, m
}

// sandOff takes um off the layers from above, down to those that must stay, and
// tells what could not be taken.
func sandOff(layers []Layer, um float64) ([]Layer, float64) {
	for um > 0 && len(layers) > 0 && !layers[len(layers)-1].Keep {
		top := &layers[len(layers)-1]
		if top.Um > um {
			top.Um -= um
			if top.Laid {
				top.Known += ", sanded"
			}
			return layers, 0
		}
		um -= top.Um
		layers = layers[:len(layers)-1]
	}
	return layers, um
}

// Text says the margin in a sentence; empty if there is nothing above.
func (m Margin) Text() message.Sentence {
	switch {
	case m.ThroughUm > 0:
		return message.Of("Sanding went %.3g µm through into %s.", m.ThroughUm, m.Keeps)
	case !m.Known:
		return message.Of("How much may be sanded is not known: an old layer's thickness is missing in Survey.")
	case m.AboveUm == 0:
		return nil
	}
	return message.Of("%.3g µm lie above %s: sanding may take no more than that.", m.AboveUm, m.Keeps)
}
