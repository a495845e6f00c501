package app

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"math"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/boat/outline"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/film/mix"
	"allcoats/core/finish/craft"
	"allcoats/core/finish/gelcoat"
	"allcoats/core/finish/mould"
	"allcoats/core/finish/nonskid"
	"allcoats/core/geometry/polygon"
	"allcoats/formats"
)

// NonSkid is the layout of a deck.
type NonSkid struct {
	Finish
	Says   message.Sentence `json:"says"`
	Work   nonskid.Work     `json:"work"`
	Result nonskid.Layout   `json:"result"`
	// Steps are the work on the deck.
	Steps []craft.Step `json:"steps"`
	// Ribbon and Field are for laying the whole set of panels without a break.
	Ribbon Ribbon       `json:"ribbon"`
	Field  field.Result `json:"field"`
	// Sketch is the plan of the deck on the boat's map, to begin with where nothing is
	// traced.
	Sketch polygon.Ring `json:"sketch"`
}

// NonSkidBench lays out non-skid.
var NonSkidBench = Craft[nonskid.Work, NonSkid]{Key: "non-skid", usual: func(_ boatState, f Surface) nonskid.Work {
	deck := []polygon.Polygon{}
	for _, m := range f.Measured.Measures {
		if m.Outline != nil && len(m.Outline.Outer) > 2 {
			deck = append(deck, m.Outline.Polygon)
			break
		}
	}
	return nonskid.Usual(deck)
}, answer: func(o boatState, head Finish, w nonskid.Work) (NonSkid, error) {
	f := *head.Surface
	out := NonSkid{Finish: head, Work: w, Ribbon: o.ribbon(f.ID), Sketch: polygon.Ring{}, Steps: []craft.Step{}}
	out.Field = field.Result{Hours: []field.Hour{}, Windows: []field.Window{}}
	for _, v := range o.survey.Views {
		for _, s := range v.Shapes {
			if s.SurfaceID == f.ID && v.Name == outline.Plan && len(out.Sketch) == 0 {
				for _, p := range s.Points {
					out.Sketch = append(out.Sketch, polygon.Point{X: math.Round(1000*p.X) / 1000,
						Y: -math.Round(1000*p.Y) / 1000}) // the map has starboard below
				}
			}
		}
	}
	got, err := nonskid.Lay(w, formats.Letters)
	out.Result = got
	if err != nil {
		return out, err
	}
	hand := func(id string, sheet product.Sheet) {
		steps := w.Plan(&out.Result, sheet, f.Area.AreaM2)
		out.Steps = steps
		if len(steps) > 0 {
			out.hand(o, f.ID, o.hand(f.ID, "non-skid", steps, map[string]string{"main": id}, nonskidKinds...),
				out.Result.Stopped())
		}
	}
	kinds, painted := map[nonskid.School][]product.Kind{nonskid.Paint: {product.NonSkidPaint},
		nonskid.Grit: {product.NonSkidGrit}}[w.School]
	if !painted {
		hand("", product.Sheet{})
		out.Says = out.says(o)
		return out, nil
	}
	id, sheet, err := o.sheetFor(f.ID, w.ProductID, kinds...)
	if err != nil {
		return out, err
	}
	out.Product, out.Work.ProductID = sheet.Name, id
	if err := out.window(o, id, sheet); err != nil {
		return out, err
	}
	hand(id, sheet)
	out.Says = out.says(o)
	return out, nil
}}

// window judges when the whole set may be laid and held.
func (n *NonSkid) window(o boatState, id string, sheet product.Sheet) error {
	job, f, err := o.fieldJob(sheet, VerdictQuery{SurfaceID: n.Surface.ID, ProductID: id})
	if err != nil {
		return err
	}
	if h := n.Result.Hours; h > 0 {
		job.Apply = time.Duration(h * float64(time.Hour))
	}
	_, end, _ := f.Weather.Air.Span()
	n.Field = job.Judge(f.Weather, o.now, end)
	return nil
}

func (n NonSkid) says(o boatState) message.Sentence {
	r := n.Result
	if len(n.Work.Deck) == 0 {
		return message.Of("Trace the deck first, here or in Survey: then the panels lay themselves out.")
	}
	if r.AreaM2 == 0 {
		return message.Of("The margins leave nothing to lay: narrow them.")
	}
	laid := 0
	for _, p := range r.Panels {
		if p.Order > 0 {
			laid++
		}
	}
	out := message.Of("%v, %v of non-skid and %v of tape edge",
		message.Strong(fmt.Sprintf("%d %s", laid, map[bool]string{true: "panel", false: "panels"}[laid == 1])),
		message.Val(r.AreaM2, "m²"), message.Val(r.MaskM+r.TwiceM, "m"))
	switch {
	case r.Takes.Coats > 1:
		out = message.Of("%v: %v in %d coats", out, message.Val(r.Takes.Litres, "L"), r.Takes.Coats)
	case r.Takes.Litres > 0:
		out = message.Of("%v: %v", out, message.Val(r.Takes.Litres, "L"))
	case r.Takes.GritKg > 0:
		out = message.Of("%v: %v of grit", out, message.Val(r.Takes.GritKg, "kg"))
	case r.Nest != nil && r.Nest.Sheets == 1:
		out = message.Of("%v: one sheet", out)
	case r.Nest != nil:
		out = message.Of("%v: %d sheets", out, r.Nest.Sheets)
	}
	if n.Work.School != nonskid.Paint && n.Work.School != nonskid.Grit {
		return message.Of("%v.", out)
	}
	if len(n.Field.Windows) == 0 {
		return message.Of("%v; in the weather known there is no stretch long enough to lay and hold the whole set.",
			out)
	}
	w := n.Field.Windows[0]
	if !w.From.After(o.now.Add(time.Minute)) {
		return message.Of("%v; the set may be begun now, until %v.", out, message.Clock(w.To, o.now, o.s.Loc))
	}
	return message.Of("%v; the set may be begun from %v to %v.", out, message.Clock(w.From, o.now, o.s.Loc),
		message.Clock(w.To, o.now, o.s.Loc))
}

// TemplateFile is a drawing of panels at 1:1.
type TemplateFile struct {
	Name string
	Kind string
	Data []byte
}

// Template draws the layout kept for a surface at 1:1 in millimetres: all panels, one by
// its name, or the "stencil"; paired adds the mirror image. The format is svg, dxf, or
// pdf for A4 pages to be glued.
func (a *App) Template(ctx context.Context, surfaceID, format, panel string, paired bool) (TemplateFile, error) {
	n, err := NonSkidBench.Get(ctx, a, surfaceID)
	if err != nil {
		return TemplateFile{}, err
	}
	if len(n.Trouble) > 0 {
		return TemplateFile{}, fielderr.Errors(n.Trouble)
	}
	t := formats.Template{Title: n.Surface.Name}
	for _, p := range n.Result.Panels {
		if (panel == "" || panel == p.Name) && len(p.Shape) > 0 {
			t.Pieces = append(t.Pieces, formats.Piece{Name: p.Name, Shape: p.Shape})
		}
	}
	if panel == "stencil" && n.Result.Stencil != nil {
		t.Pieces = append(t.Pieces, formats.Piece{Name: "stencil", Shape: n.Result.Stencil.Sheet})
	}
	if len(t.Pieces) == 0 {
		return TemplateFile{}, fielderr.At("panel", "is no panel of the layout kept")
	}
	if paired {
		t = t.Paired()
	}
	name := "panels"
	if panel != "" {
		name = panel
	}
	return templateFile(t, name, format)
}

// templateFile draws a template in a format.
func templateFile(t formats.Template, name, format string) (out TemplateFile, err error) {
	out = TemplateFile{Name: name + "." + format}
	switch format {
	case "svg":
		out.Kind = "image/svg+xml"
		out.Data, err = formats.WriteSVG(t)
	case "dxf":
		out.Kind = "application/dxf"
		out.Data, err = formats.WriteDXF(t)
	default:
		var b bytes.Buffer
		out.Kind = "application/pdf"
		_, err = formats.WriteTiles(&b, t)
		out.Data = b.Bytes()
	}
	return out, err
}

// Moulded is a set of moulded panels.
type Moulded struct {
	Finish
	Says   message.Sentence `json:"says"`
	Work   mould.Work       `json:"work"`
	Result mould.Result     `json:"result"`
	// Layout are the panels of the non-skid layout kept for the surface.
	Layout []mould.Panel `json:"layout"`
}

// panels are those of the non-skid layout kept for a surface.
func (o boatState) panels(surfaceID string) []mould.Panel {
	out := []mould.Panel{}
	var w nonskid.Work
	if row, ok := o.finishes[[2]string{surfaceID, NonSkidBench.Key}]; !ok || json.Unmarshal(row.Work.V, &w) != nil {
		return out
	}
	l, err := nonskid.Lay(w, formats.Letters)
	if err != nil {
		return out
	}
	for _, p := range l.Panels {
		if p.Order > 0 {
			out = append(out, mould.Panel{Name: p.Name, AreaM2: math.Round(1e4*p.AreaM2) / 1e4,
				LengthM: math.Ceil(1e3*p.LengthM) / 1e3, WidthM: math.Ceil(1e3*p.WidthM) / 1e3})
		}
	}
	return out
}

// MouldBench plans moulded panels.
var MouldBench = Craft[mould.Work, Moulded]{Key: "moulded", usual: func(o boatState, f Surface) mould.Work {
	w := mould.Usual()
	w.TempC = math.Max(5, o.meanC(f.ID, 2))
	w.Panels = o.panels(f.ID)
	return w
}, answer: func(o boatState, head Finish, w mould.Work) (Moulded, error) {
	out := Moulded{Finish: head, Work: w, Layout: o.panels(head.Surface.ID)}
	if w.Panels == nil {
		out.Work.Panels = []mould.Panel{}
	}
	id, sheet, err := o.sheetFor(head.Surface.ID, w.ProductID, product.Gelcoat)
	if err != nil {
		out.Result, _ = mould.Usual().Plan(product.Sheet{})
		return out, err
	}
	out.Product, out.Work.ProductID = sheet.Name, id
	out.Result, err = w.Plan(sheet)
	if err != nil {
		return out, err
	}
	r := out.Result
	if len(w.Panels) > 0 {
		out.hand(o, head.Surface.ID, o.hand(head.Surface.ID, "moulded", r.Steps, nil), r.Stopped())
	}
	switch {
	case len(w.Panels) == 0:
		out.Says = message.Of("Say which panels are wanted: take them from the layout, or type them in.")
	case r.Stopped() != nil:
		out.Says = message.Of("Not so: %v", r.Stopped())
	default:
		out.Says = message.Of("%v, %v, in %d %s of the mould; each comes out after %v",
			message.Strong(fmt.Sprintf("%d %s", len(w.Panels),
				map[bool]string{true: "panel", false: "panels"}[len(w.Panels) == 1])), message.Val(r.PanelM2, "m²"),
			r.Rounds, map[bool]string{true: "filling", false: "fillings"}[r.Rounds == 1],
			message.Val(math.Round(10*r.PartH)/10, "h"))
		if len(r.Seams) > 0 {
			out.Says = message.Of("%v; %d %s a seam", out.Says, len(r.Seams), map[bool]string{true: "panel wants",
				false: "panels want"}[len(r.Seams) == 1])
		}
		out.Says = message.Of("%v.", out.Says)
	}
	return out, nil
}}

// Gelcoated is a gelcoat job.
type Gelcoated struct {
	Finish
	Says   message.Sentence `json:"says"`
	Work   gelcoat.Work     `json:"work"`
	Result gelcoat.Result   `json:"result"`
	// Night is the catalyst that sets it before dark.
	Night mix.Night `json:"night"`
}

// lightH is how long it is light yet, h.
func (o boatState) lightH() float64 {
	for _, d := range o.s.Daylight {
		if !o.now.Before(d.Rise) && o.now.Before(d.Set) {
			return d.Set.Sub(o.now).Hours()
		}
	}
	return 0
}

// GelcoatBench plans gelcoat.
var GelcoatBench = Craft[gelcoat.Work, Gelcoated]{Key: "gelcoat", usual: func(o boatState, f Surface) gelcoat.Work {
	w := gelcoat.Usual(math.Round(100*f.Area.AreaM2) / 100)
	w.TempC = math.Max(5, o.meanC(f.ID, 2))
	return w
}, answer: func(o boatState, head Finish, w gelcoat.Work) (Gelcoated, error) {
	out := Gelcoated{Finish: head, Work: w}
	id, sheet, err := o.sheetFor(head.Surface.ID, w.ProductID, product.Gelcoat)
	if err != nil {
		return out, err
	}
	out.Product, out.Work.ProductID = sheet.Name, id
	out.Night = mix.ByNight(sheet, w.TempC, o.lightH())
	if out.Result, err = w.Plan(sheet, head.Surface.Area.AreaM2); err != nil {
		return out, err
	}
	r := out.Result
	out.hand(o, head.Surface.ID, o.hand(head.Surface.ID, "gelcoat", r.Steps, map[string]string{"main": id},
		product.Gelcoat), r.Stopped())
	if stop := r.Stopped(); stop != nil {
		out.Says = message.Of("Not so: %v", stop)
	} else {
		out.Says = message.Of("%v of %v with %.2g g of catalyst, %.2g %%",
			message.Strong(fmt.Sprintf("%d %s", r.Pots, map[bool]string{true: "pot", false: "pots"}[r.Pots == 1])),
			message.Val(r.PotL*1000, "mL"), r.Dose.G, r.Dose.Pct)
		if r.GelMin > 0 {
			out.Says = message.Of("%v: at %.0f °C it gels in %.0f min", out.Says, w.TempC, r.GelMin)
		}
		if r.SandH > 0 {
			out.Says = message.Of("%v and is sanded after %v", out.Says, message.Val(math.Round(10*r.SandH)/10, "h"))
		}
		out.Says = message.Of("%v.", out.Says)
	}
	return out, nil
}}
