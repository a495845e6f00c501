package buildup

import (
	"math"
	"strconv"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
)

func itoa(n int) string { return strconv.Itoa(n) }

// Goal is what coats are to reach: a dry film, hiding what lies below, a share
// of the ultraviolet light stopped and that for years.
type Goal struct {
	FilmUm    float64 `json:"filmUm,omitempty"`
	Hide      bool    `json:"hide,omitempty"`
	UVStopPct float64 `json:"uvStopPct,omitempty"`
	Years     float64 `json:"years,omitempty"`
}

// CoatCount is how many coats reach a goal.
type CoatCount struct {
	Coats   int             `json:"coats"`
	FilmUm  float64         `json:"filmUm"`
	Working working.Working `json:"working"`
}

// weatherUmYear is the clear film that the weather takes in a year in the open:
// a rule of thumb.
const weatherUmYear = 10

// CoatsFor returns how many coats of dftUm each reach a goal; the hardest part
// of it decides.
func CoatsFor(s product.Sheet, dftUm float64, g Goal) (CoatCount, error) {
	var bad fielderr.Errors
	bad.Above("dftUm", dftUm, 0, 50e3, "µm")
	bad.Range("filmUm", g.FilmUm, 0, 50e3, "µm")
	bad.Range("uvStopPct", g.UVStopPct, 0, 99.99, "%")
	bad.Range("years", g.Years, 0, 50, "years")
	switch {
	case g.Years > 0 && g.UVStopPct == 0:
		bad.Add("uvStopPct", "for years of sun, say what share of it is to be stopped")
	case g.FilmUm == 0 && !g.Hide && g.UVStopPct == 0:
		bad.Add("filmUm", "say what the coats are to reach")
	case g.Hide && s.HidingUm == 0:
		bad.Add("hide", "the sheet does not say what film hides")
	case g.UVStopPct > 0 && s.UVPerUm == 0:
		bad.Add("uvStopPct", "the sheet gives no absorbance for ultraviolet light")
	}
	if err := bad.Err(); err != nil {
		return CoatCount{}, err
	}
	w := working.New()
	w.In("Dry film of a coat", dftUm, "µm")
	need := 0.0
	if g.FilmUm > 0 {
		need = w.Step("For the film", "as wanted", g.FilmUm, "µm", "the goal")
	}
	if g.Hide {
		need = max(need, w.Step("To hide", "the sheet's hiding film", s.HidingUm, "µm", "the product's data sheet"))
	}
	if g.UVStopPct > 0 {
		um := w.Step("Against the sun", "−ln(1 − share stopped) / absorbance", -math.Log1p(-g.UVStopPct/100)/s.UVPerUm,
			"µm", "Beer-Lambert with the sheet's absorbance")
		if g.Years > 0 {
			um = w.Step("For so many years", "film + 10 µm a year", um+weatherUmYear*g.Years, "µm",
				"weathering 10 µm a year in the open: rule of thumb")
		}
		need = max(need, um)
	}
	n := int(math.Ceil(need/dftUm - 1e-9))
	w.Step("Coats", "film / film of a coat, rounded up", float64(n), "coats", "division")
	return CoatCount{n, float64(n) * dftUm, w}, nil
}
