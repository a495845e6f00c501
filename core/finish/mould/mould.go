// Package mould plans panels of patterned laminate, cast in a mould that was taken off a
// good deck: whether the source is large enough, the release, the layers, the catalyst,
// when it comes out, and whether the pattern ends up the right way.
package mould

import (
	"fmt"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/film/mix"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/physics/cure"
)

// Panel is a piece that is wanted.
type Panel struct {
	Name    string  `json:"name"`
	AreaM2  float64 `json:"areaM2"`
	LengthM float64 `json:"lengthM"`
	WidthM  float64 `json:"widthM"`
}

// Ply is a layer of glass: GSM in g/m², chopped mat or cloth.
type Ply struct {
	GSM   float64 `json:"gsm"`
	Cloth bool    `json:"cloth"`
}

// Work is a set of panels to be cast.
type Work struct {
	SourceLengthM float64 `json:"sourceLengthM"` // good pattern on the source
	SourceWidthM  float64 `json:"sourceWidthM"`
	// Hollow says that the source is itself a mould: its pattern is hollow.
	Hollow bool `json:"hollow"`
	// Casts is how many times one is cast off the other: a mould off a deck and a panel
	// off the mould are two.
	Casts int `json:"casts"`
	// TrimM is what is cut off all round each panel.
	TrimM    float64 `json:"trimM"`
	Panels   []Panel `json:"panels"`
	Moulds   int     `json:"moulds"`
	FirstUse bool    `json:"firstUse"`

	ProductID string  `json:"productId"` // the gelcoat
	GelUm     float64 `json:"gelUm"`
	FillerMM  float64 `json:"fillerMM"` // thickened resin that fills the pattern
	Plies     []Ply   `json:"plies"`
	TempC     float64 `json:"tempC"`
	Pct       float64 `json:"pct"` // of catalyst, 0 as the sheet doses
	BondMM    float64 `json:"bondMM"`
}

// Usual is a set to begin with.
func Usual() Work {
	return Work{SourceLengthM: 1.2, SourceWidthM: 0.6, Casts: 2, TrimM: 0.02, Panels: []Panel{}, Moulds: 1,
		FirstUse: true,
		GelUm:    500, FillerMM: 1, Plies: []Ply{{300, false}, {450, false}, {450, false}}, TempC: 20, BondMM: 2}
}

// Rules of thumb: resin to glass by weight, what is added for the brush and the pot,
// densities, and minutes of work.
const (
	resinMat   = 2.3
	resinCloth = 1.1
	wasteResin = 1.1
	resinKgL   = 1.12
	fillerKgL  = 1.15
	pvaLM2     = 0.06
	waxNew     = 6
	waxUsed    = 1
	pvaCoats   = 2
	waxHazeH   = 0.25
	waxHardH   = 1.0
	pvaDryH    = 0.5
	laminateM2 = 1.5 // an hour and a ply
	coolH      = 1.0
	bondWaste  = 1.15
)

// Seam is a panel that the source cannot give in one piece: Long by Wide pieces, with
// the source turned along or across it.
type Seam struct {
	Panel   string  `json:"panel"`
	Pieces  int     `json:"pieces"`
	Long    int     `json:"long"`
	Wide    int     `json:"wide"`
	Turned  bool    `json:"turned"`
	LengthM float64 `json:"lengthM"` // of its seams
}

// Result is how they are cast.
type Result struct {
	craft.Plan
	Seams []Seam `json:"seams"`
	// Right says that the pattern comes out as on a deck.
	Right     bool    `json:"right"`
	Chain     string  `json:"chain"`
	Rounds    int     `json:"rounds"` // times that a mould is filled
	PanelM2   float64 `json:"panelM2"`
	CastM2    float64 `json:"castM2"` // with what is trimmed
	GelMin    float64 `json:"gelMin"`
	DemouldH  float64 `json:"demouldH"`
	PartH     float64 `json:"partH"` // one filling of the mould, release to demoulding
	CatalystG float64 `json:"catalystG"`
	Pct       float64 `json:"pct"`
}

// Validate reports what cannot be cast.
func (w Work) Validate() error {
	var bad fielderr.Errors
	bad.Above("sourceLengthM", w.SourceLengthM, 0, 20, "m")
	bad.Above("sourceWidthM", w.SourceWidthM, 0, 20, "m")
	bad.Range("casts", float64(w.Casts), 1, 6, "casts")
	bad.Range("trimM", w.TrimM, 0, 0.3, "m")
	bad.Range("moulds", float64(w.Moulds), 1, 20, "moulds")
	bad.Range("gelUm", w.GelUm, 200, 1500, "µm")
	bad.Range("fillerMM", w.FillerMM, 0, 10, "mm")
	bad.Range("tempC", w.TempC, 0, 45, "°C")
	bad.Range("bondMM", w.BondMM, 0.5, 20, "mm")
	if len(w.Plies) == 0 {
		bad.Add("plies", "a panel of gelcoat alone breaks: give it a ply")
	}
	for i, p := range w.Plies {
		bad.Range(fmt.Sprintf("plies[%d].gsm", i), p.GSM, 50, 1200, "g/m²")
	}
	for i, p := range w.Panels {
		at := fmt.Sprintf("panels[%d].", i)
		bad.Above(at+"areaM2", p.AreaM2, 0, 100, "m²")
		bad.Above(at+"lengthM", p.LengthM, 0, 50, "m")
		bad.Above(at+"widthM", p.WidthM, 0, 50, "m")
		if bad == nil && p.AreaM2 > 1.001*p.LengthM*p.WidthM {
			bad.Add(at+"areaM2", "is more than its length by its width")
		}
	}
	return bad.Err()
}

// Plan plans w with the sheet of the gelcoat.
func (w Work) Plan(s product.Sheet) (Result, error) {
	out := Result{Plan: craft.New(
		"Peroxide: goggles before the bottle is opened, never with cobalt or acetone. Styrene: moving air, no flame.",
		"PVA and wax keep every coat off: nothing of them near what is to be painted."), Seams: []Seam{}}
	if err := w.Validate(); err != nil {
		return out, err
	}
	dose, err := mix.Catalyse(s, w.TempC, w.Pct, 1)
	if err != nil {
		return out, err
	}
	out.Pct = dose.Pct
	out.Findings = append(out.Findings, dose.Findings...)
	out.chain(w)
	out.seams(w)
	for _, p := range w.Panels {
		out.PanelM2 += p.AreaM2
		out.CastM2 += (p.LengthM + 2*w.TrimM) * (p.WidthM + 2*w.TrimM)
	}
	out.Rounds = w.rounds()
	out.materials(w, s)
	out.steps(w, s, dose)
	return out, nil
}

// chain counts the castings: each turns the pattern over.
func (r *Result) chain(w Work) {
	hollow := w.Hollow
	name := map[bool]string{false: "raised", true: "hollow"}
	r.Chain = "source " + name[hollow]
	for i := range w.Casts {
		hollow = !hollow
		what := "panel"
		if i < w.Casts-1 {
			what = "mould"
		}
		r.Chain += " → " + what + " " + name[hollow]
	}
	if r.Right = !hollow; !r.Right {
		r.Find(true, "The pattern comes out hollow: %s. Cast once more, or once less.", r.Chain)
	}
}

// seams finds the panels that are larger than the source, and the fewest pieces.
func (r *Result) seams(w Work) {
	var list []message.Sentence
	for _, p := range w.Panels {
		l, b := p.LengthM+2*w.TrimM, p.WidthM+2*w.TrimM
		best := Seam{Pieces: math.MaxInt}
		for _, turned := range []bool{false, true} {
			sl, sb := w.SourceLengthM, w.SourceWidthM
			if turned {
				sl, sb = sb, sl
			}
			nl, nb := int(math.Ceil(l/sl-1e-9)), int(math.Ceil(b/sb-1e-9))
			if nl*nb < best.Pieces {
				best = Seam{p.Name, nl * nb, nl, nb, turned, float64(nl-1)*p.WidthM + float64(nb-1)*p.LengthM}
			}
		}
		if best.Pieces > 1 {
			r.Seams = append(r.Seams, best)
			list = append(list, message.Of("%s %d pieces, %.2g m of seam", p.Name, best.Pieces, best.LengthM))
		}
	}
	if len(list) > 0 {
		r.Find(false,
			"The source of %.3g m × %.3g m cannot give every panel in one piece: %v. Match the pattern across the seam, or find a larger source.",
			w.SourceLengthM, w.SourceWidthM, message.Join(list, "; "))
	}
}

// rounds is how often the moulds are filled: panels are laid into a mould as long as
// their boxes fit its area.
func (w Work) rounds() int {
	area, n := 0.0, 0
	mould := w.SourceLengthM * w.SourceWidthM
	for _, p := range w.Panels {
		a := (p.LengthM + 2*w.TrimM) * (p.WidthM + 2*w.TrimM)
		if a > mould {
			n += int(math.Ceil(a / mould))
			continue
		}
		if area+a > mould {
			n, area = n+1, 0
		}
		area += a
	}
	if area > 0 {
		n++
	}
	return int(math.Ceil(float64(n) / float64(w.Moulds)))
}

// materials adds up what the panels take.
func (r *Result) materials(w Work, s product.Sheet) {
	wk := &r.Working
	wk.In("Panels", r.PanelM2, "m²")
	wk.In("Cast with trim", r.CastM2, "m²")
	kgL := s.BaseKgL
	if kgL == 0 {
		kgL = 1.2
	}
	gel := r.Take("Gelcoat", "area · wet film · density · 1.1", r.CastM2*w.GelUm/1000*kgL*wasteResin, "kg",
		"sheet's density; 10 % for brush and pot")
	filler := r.Take("Filler coat", "area · depth · density · 1.1", r.CastM2*w.FillerMM*fillerKgL*wasteResin, "kg",
		"resin with silica and chopped strand; rule of thumb")
	glass, resin := 0.0, 0.0
	for _, p := range w.Plies {
		kg := r.CastM2 * p.GSM / 1000
		glass += kg
		if p.Cloth {
			resin += kg * resinCloth
		} else {
			resin += kg * resinMat
		}
	}
	r.Take("Glass", "Σ area · g/m² of the plies", glass, "kg", "the plies")
	resin = r.Take("Laminating resin", "Σ glass · 2.3 for mat, 1.1 for cloth · 1.1", resin*wasteResin, "kg",
		"rule of thumb")
	r.CatalystG = r.Take("Catalyst", "per cent of gelcoat, filler coat and resin", (gel+filler+resin)*1000*r.Pct/100,
		"g", "the gelcoat's sheet, at the shop's temperature")
	r.Take("Release PVA", "mould · 0.06 L/m² · coats · fillings",
		w.SourceLengthM*w.SourceWidthM*pvaLM2*pvaCoats*float64(max(1, r.Rounds)), "L", "rule of thumb")
	r.Take("Bonding paste", "panels · bed · 1.15", r.PanelM2*w.BondMM*bondWaste, "L", "an even notched bed")
	thick := w.GelUm/1000 + w.FillerMM
	for _, p := range w.Plies {
		if p.Cloth {
			thick += p.GSM / 1000 * 1.1
		} else {
			thick += p.GSM / 1000 * 2.3
		}
	}
	wk.Step("Thickness of a panel", "gelcoat + filler coat + plies (mat 2.3 mm, cloth 1.1 mm a kg/m²)", thick, "mm",
		"rule of thumb")
}

// steps are those of one filling of a mould, and of bonding.
func (r *Result) steps(w Work, s product.Sheet, dose mix.Dose) {
	m2 := w.SourceLengthM * w.SourceWidthM
	wax := waxUsed
	if w.FirstUse {
		wax = waxNew
	}
	r.GelMin = dose.GelH * 60
	tack, _ := s.TackFree.TauH(w.TempC, cure.Minimum)
	cured, outside := s.Sandable.TauH(w.TempC, cure.Minimum)
	if len(s.Sandable) == 0 || math.IsInf(cured, 1) {
		tack, cured = 3, 12
		r.Working.Warn("The sheet has no times: 12 h to demould at 20 °C are taken.")
	} else if outside {
		r.Working.Warn("%.0f °C lies outside the sheet's times.", w.TempC)
	}
	if w.TempC < s.MinCureC {
		r.Find(true, "At %.0f °C it does not cure: the sheet asks for %.0f °C. Warm the shop, or wait.", w.TempC,
			s.MinCureC)
	}
	r.DemouldH = r.Working.Step("Demould after", "the sheet's sandable time at the shop's temperature", cured, "h",
		"data sheet; it must be cold to the hand as well")
	if w.Casts > 1 && w.FirstUse {
		r.Do(craft.Work("mould", "take the mould off the source",
			message.Of(
				"release the source as below, tooling gelcoat, plies and ribs; leave it on till it is cold and cured"),
			2+float64(len(w.Plies)+2)*m2/laminateM2, cured+coolH))
	}
	if w.FirstUse {
		r.Do(craft.Work("trial", "release test",
			message.Of(
				"a hand's breadth with all the coats of release, gelcoat and a ply: it must come off clean, or nothing is cast"), 0.5, cured).As(step.Trial))
	}
	begun := len(r.Steps)
	r.Do(craft.Work("clean", "clean the mould",
		message.Of("wash, dry, look along it: what is in it will be in every panel"), 0.3+0.2*m2, 0.5))
	r.Do(craft.Work("wax", fmt.Sprintf("wax, %d coats", wax),
		message.Of("thin, till it hazes, then polish; an hour between coats"), float64(wax)*0.2*math.Max(1, m2),
		float64(wax)*(waxHazeH+waxHardH)).Of(float64(wax), "coats"))
	r.Do(craft.Work("pva", fmt.Sprintf("PVA, %d coats", pvaCoats),
		message.Of("sponge or spray it on in a closed film, dry between coats, no touching after"), 0.3,
		pvaCoats*pvaDryH).Of(m2*pvaLM2*pvaCoats, "L"))
	r.Do(craft.Work("gelcoat", "gelcoat into the mould",
		message.Of(
			"even, into every corner of the pattern, no air in it; ready when a finger leaves a print and comes away clean"), 0.2*math.Max(1, m2), tack).Of(w.GelUm, "µm"))
	if w.FillerMM > 0 {
		r.Do(craft.Work("filler", "filler coat",
			message.Of(
				"resin stiff with silica and chopped strand, level with the pattern's backs: no air under the first ply"), 0.3*math.Max(1, m2), tack).Of(w.FillerMM, "mm"))
	}
	r.Do(craft.Work("plies", fmt.Sprintf("%d plies", len(w.Plies)),
		message.Of("wet out from below, roll the air out, the lightest first"), float64(len(w.Plies))*m2/laminateM2,
		cured+coolH).Of(float64(len(w.Plies)), "plies"))
	r.Do(craft.Work("demould", "demould",
		message.Of("cold and cured: wedges of wood along the edge, water to float the PVA, never a screwdriver"), 0.5,
		0))
	work := 0.0
	for _, s := range r.Steps[begun:] {
		r.PartH += s.WorkH + s.WaitH
		work += s.WorkH
	}
	if more := r.Rounds - 1; more > 0 {
		r.Do(craft.Work("more", fmt.Sprintf("%d more %s of the mould", more,
			map[bool]string{true: "filling", false: "fillings"}[more == 1]),
			message.Of("each as above, from cleaning to demoulding"), float64(more)*work, float64(more)*(r.PartH-work)))
	}
	r.Do(craft.Work("fit", "trim and dry-fit",
		message.Of("cut %.0f mm off all round, number the backs, dry-fit on the deck before anything is bonded",
			1000*w.TrimM), 0.3*float64(len(w.Panels)), 0))
	for i := range r.Steps {
		r.Steps[i].Indoor = true
	}
	r.Do(craft.Work("bond", "bond the panels",
		message.Of("wash off PVA, grind both faces, notched bed, from the middle out, weights"),
		0.4*float64(len(w.Panels))+r.PanelM2/2, cured).Of(r.PanelM2, "m²"))
}
