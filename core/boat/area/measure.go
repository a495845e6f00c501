package area

import (
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/geometry/mesh"
	"allcoats/core/geometry/polygon"
)

// Method is a way to find an area.
type Method string

// The ways to find an area.
const (
	ByPrincipal   Method = "principal"
	ByGirth       Method = "girths"
	ByShape       Method = "shapes"
	ByOutline     Method = "outline"
	ByModel       Method = "model"
	ByConsumption Method = "consumption"
	Stated        Method = "stated"
)

// Methods lists the ways to find an area.
var Methods = []Method{ByPrincipal, ByGirth, ByShape, ByOutline, ByModel, ByConsumption, Stated}

// Outline is a traced or drawn area with the margin left around it and the
// corners rounded, Count times.
type Outline struct {
	polygon.Polygon
	MarginM float64 `json:"marginM"`
	RadiusM float64 `json:"radiusM"`
	Count   int     `json:"count"`
}

// Model is a part of a 3-D file or lofted table of offsets that the boat has:
// a zone of the hull, named groups of the file, or, with neither, all of it.
type Model struct {
	ModelID string    `json:"modelId"`
	Zone    mesh.Zone `json:"zone,omitempty" enum:"bottom,boot-top,topsides,deck"`
	Groups  []string  `json:"groups,omitempty"`
}

// Consumption is a coat that was laid: litres of mix and its mean dry film by
// Readings readings with standard deviation SDUm.
type Consumption struct {
	Litres          float64 `json:"litres"`
	LossPct         float64 `json:"lossPct"`
	VolumeSolidsPct float64 `json:"volumeSolidsPct"`
	DFTUm           float64 `json:"dftUm"`
	SDUm            float64 `json:"sdUm,omitempty"`
	Readings        int     `json:"readings,omitempty"`
	// What names the coat.
	What string `json:"what,omitempty"`
}

// Measure is one measurement of a surface. Of the parts only that of its
// method counts. UncertaintyPct, if given, replaces the method's own.
type Measure struct {
	Method         Method       `json:"method"`
	Note           string       `json:"note,omitempty"`
	Girths         *Girths      `json:"girths,omitempty"`
	Shapes         []Shape      `json:"shapes,omitempty"`
	Outline        *Outline     `json:"outline,omitempty"`
	Model          *Model       `json:"model,omitempty"`
	Consumption    *Consumption `json:"consumption,omitempty"`
	AreaM2         float64      `json:"areaM2,omitempty"`
	UncertaintyPct float64      `json:"uncertaintyPct,omitempty"`
}

// ModelAreas is a boat's 3-D file or table of offsets as measured.
type ModelAreas struct {
	Name   string
	Lofted bool
	Areas  mesh.Areas
	Report mesh.Report
}

// Boat is what measurements of her surfaces rest on; Models by id.
type Boat struct {
	Dimensions Dimensions
	Models     map[string]ModelAreas
}

// Of measures a part on a side of the boat. Faults name the field of m.
func (b Boat) Of(part Part, side Side, m Measure) (Figure, error) {
	f, err := b.figure(part, side, m)
	if err != nil {
		return Figure{}, err
	}
	if m.UncertaintyPct > 0 && m.Method != Stated {
		f.UncertaintyPct = f.Working.Step("Uncertainty", "as you set it", m.UncertaintyPct, "%", "your own figure")
	}
	return f, nil
}

func (b Boat) figure(part Part, side Side, m Measure) (Figure, error) {
	var bad fielderr.Errors
	bad.Range("uncertaintyPct", m.UncertaintyPct, 0, 50, "%")
	missing := func(given bool) bool {
		if !given {
			bad.Add("method", "the measurement itself is missing")
		}
		return !given
	}
	switch m.Method {
	case ByPrincipal:
		if !part.Info().ByRule {
			bad.Add("method", "principal dimensions do not give %s: measure the part or state its area",
				part.Info().Name)
		}
	case ByGirth:
		missing(m.Girths != nil)
	case ByOutline:
		missing(m.Outline != nil)
	case ByModel:
		missing(m.Model != nil)
	case ByConsumption:
		missing(m.Consumption != nil)
	case Stated:
		bad.Above("areaM2", m.AreaM2, 0, 5000, "m²")
	case ByShape:
	default:
		fielderr.OneOf(&bad, "method", m.Method, Methods)
	}
	if err := bad.Err(); err != nil {
		return Figure{}, err
	}
	var f Figure
	var err error
	prefix := ""
	switch m.Method {
	case ByPrincipal:
		if err := b.Dimensions.Validate(); err != nil {
			return Figure{}, err
		}
		return byRule(b.Dimensions, part, side), nil
	case ByGirth:
		var g GirthResult
		g, err = ByGirths(*m.Girths)
		f, prefix = Figure{AreaM2: g.AreaM2, UncertaintyPct: g.UncertaintyPct, Working: g.Working, Line: &g.Line},
			"girths"
		if err == nil && f.AreaM2 <= 0 {
			err = fielderr.At("stations", "girths of nothing give no area")
		}
	case ByShape:
		return ByShapes(ShapesRequest{m.Shapes})
	case ByOutline:
		f, err = m.Outline.figure()
		prefix = "outline"
	case ByModel:
		f, err = b.byModel(*m.Model, side)
		prefix = "model"
	case ByConsumption:
		f, err = m.Consumption.figure()
		prefix = "consumption"
	case Stated:
		w := working.New()
		w.In("Stated area", m.AreaM2, "m²")
		w.Warn("Your own figure; the program has not checked it.")
		return Figure{AreaM2: m.AreaM2, UncertaintyPct: m.UncertaintyPct, Working: w}, nil
	}
	bad.Under(prefix, err)
	return f, bad.Err()
}

// tracePct and traceM are the uncertainty of a traced outline: a share of its
// area, and an error of its edge.
const (
	tracePct = 2.5
	traceM   = 0.006
)

// OutlineResult is an outline's area after margin and rounding, and how long
// its edges are: what is masked.
type OutlineResult struct {
	AreaM2         float64           `json:"areaM2"`
	EdgeLengthM    float64           `json:"edgeLengthM"`
	OuterLengthM   float64           `json:"outerLengthM"`
	CentroidXM     float64           `json:"centroidXM"`
	CentroidYM     float64           `json:"centroidYM"`
	Holes          int               `json:"holes"`
	Parts          []polygon.Polygon `json:"parts"`
	UncertaintyPct float64           `json:"uncertaintyPct"`
	Working        working.Working   `json:"working"`
}

// OutlineRequest is the input of the area-outline calculator. Join is what a
// margin makes of corners that point inwards; empty is round.
type OutlineRequest struct {
	Outline
	Join polygon.Join `json:"join,omitempty" enum:"round,mitre"`
}

// ByOutlines measures an outline. A margin that leaves nothing gives an area
// of 0 and no parts.
func ByOutlines(r OutlineRequest) (OutlineResult, error) {
	var bad fielderr.Errors
	r.Polygon = r.Tidy()
	bad.Under("", r.Polygon.Validate())
	bad.Range("marginM", r.MarginM, 0, 10, "m")
	bad.Range("radiusM", r.RadiusM, 0, 10, "m")
	bad.Range("count", float64(r.Count), 0, 1000, "pieces")
	if r.Join == "" {
		r.Join = polygon.Round
	}
	fielderr.OneOf(&bad, "join", r.Join, polygon.Joins)
	if err := bad.Err(); err != nil {
		return OutlineResult{}, err
	}
	count := float64(max(1, r.Count))
	w := working.New()
	w.In("Corners", float64(len(r.Outer)), "")
	w.In("Holes", float64(len(r.Holes)), "")
	w.In("Margin", r.MarginM, "m")
	w.In("Corner radius", r.RadiusM, "m")
	w.Step("Outline as traced", "shoelace formula, less holes", r.Area(), "m²", "geometry")
	parts, err := r.Inset(r.MarginM, r.Join)
	if err != nil {
		return OutlineResult{}, err
	}
	out := OutlineResult{Parts: []polygon.Polygon{}}
	for _, p := range parts {
		rounded, err := p.Rounded(r.RadiusM)
		if err != nil {
			return OutlineResult{}, err
		}
		out.Parts = append(out.Parts, rounded...)
	}
	for _, p := range out.Parts {
		a, c := p.Area(), p.Centroid()
		out.AreaM2 += a
		out.EdgeLengthM += p.EdgeLength()
		out.OuterLengthM += p.Outer.Length()
		out.CentroidXM += a * c.X
		out.CentroidYM += a * c.Y
		out.Holes += len(p.Holes)
	}
	if out.AreaM2 > 0 {
		out.CentroidXM /= out.AreaM2
		out.CentroidYM /= out.AreaM2
	}
	if r.MarginM > 0 || r.RadiusM > 0 {
		w.Step("After margin and rounding", "strip along every edge taken off, corners rounded", out.AreaM2, "m²",
			"geometry")
	}
	w.Step("Edges to mask", "outer edges and holes", out.EdgeLengthM, "m", "geometry")
	if out.AreaM2 > 0 {
		out.UncertaintyPct = w.Step("Uncertainty", "√(2.5 %² + (6 mm · edges / area)²), an 80 % range",
			math.Hypot(tracePct, 100*traceM*out.EdgeLengthM/out.AreaM2), "%", "tracing: rule of thumb")
	}
	out.AreaM2 *= count
	if count > 1 {
		w.StepOf("Area", message.Of("%g pieces", count), out.AreaM2, "m²", message.Lit("multiplication"))
	}
	out.Working = w
	return out, nil
}

func (o Outline) figure() (Figure, error) {
	r, err := ByOutlines(OutlineRequest{Outline: o})
	if err == nil && r.AreaM2 == 0 {
		path := "marginM"
		if o.RadiusM > o.MarginM {
			path = "radiusM"
		}
		err = fielderr.At(path, "eats the whole outline: nothing is left to coat")
	}
	return Figure{AreaM2: r.AreaM2, UncertaintyPct: r.UncertaintyPct, Working: r.Working}, err
}

// Uncertainties of models, %.
const (
	meshPct = 2
	loftPct = 4
)

func (b Boat) byModel(m Model, side Side) (Figure, error) {
	var bad fielderr.Errors
	model, ok := b.Models[m.ModelID]
	if !ok {
		bad.Add("modelId", "choose a 3-D file or table of offsets of this boat")
		return Figure{}, bad
	}
	w := working.New()
	model.Report.Explain(&w, model.Lofted)
	var a float64
	switch {
	case m.Zone != "":
		fielderr.OneOf(&bad, "zone", m.Zone, mesh.Zones)
		h := model.Areas.Zones[m.Zone]
		w.In("Port", h.PortM2, "m²")
		w.In("Starboard", h.StarboardM2, "m²")
		a = w.StepOf("Area", message.Of("facets in the zone %s, %s, cut at the waterlines", m.Zone, side),
			map[Side]float64{Port: h.PortM2, Starboard: h.StarboardM2}[side], "m²", message.Lit("sum of facets"))
		if side == Both {
			a = h.PortM2 + h.StarboardM2
			w.Steps[len(w.Steps)-1].Value = a
		}
	case len(m.Groups) > 0:
		for _, g := range m.Groups {
			part, ok := model.Areas.Groups[g]
			if !ok {
				bad.Add("groups", "the file has no group %q", g)
			}
			w.In(g, part, "m²")
			a += part
		}
		w.Step("Area", "sum of the groups' facets", a, "m²", "sum of facets")
	default:
		a = w.Step("Area", "all facets", model.Areas.TotalM2, "m²", "sum of facets")
	}
	if bad == nil && a <= 0 {
		bad.Add("zone", "the model has no facets there")
	}
	pct := float64(meshPct)
	if model.Lofted {
		pct = loftPct
		w.Warn("Lofted by straight lines between stations: a little small where the hull curves between them.")
	}
	return Figure{AreaM2: a, UncertaintyPct: pct, Working: w}, bad.Err()
}

// litresPct is the standard uncertainty of litres read off a tin.
const litresPct = 3

func (c Consumption) figure() (Figure, error) {
	var bad fielderr.Errors
	bad.Above("litres", c.Litres, 0, 1000, "L")
	bad.Range("lossPct", c.LossPct, 0, 90, "%")
	bad.Pct("volumeSolidsPct", c.VolumeSolidsPct)
	bad.Above("dftUm", c.DFTUm, 0, 50e3, "µm")
	bad.Range("sdUm", c.SDUm, 0, 50e3, "µm")
	bad.Range("readings", float64(c.Readings), 0, 10000, "readings")
	if err := bad.Err(); err != nil {
		return Figure{}, err
	}
	w := working.New()
	w.In("Litres used", c.Litres, "L")
	w.In("Loss", c.LossPct, "%")
	w.Share("Loss", c.LossPct)
	w.In("Volume solids", c.VolumeSolidsPct, "%")
	w.In("Mean dry film", c.DFTUm, "µm")
	a := w.Step("Area", "litres · (1 − loss/100) · 10 · VS / DFT",
		c.Litres*(1-c.LossPct/100)*10*c.VolumeSolidsPct/c.DFTUm, "m²", "ISO 23811, turned round")
	film := 15.0
	if c.Readings >= 3 && c.SDUm > 0 {
		film = w.Step("Uncertainty of the film", "standard deviation / √readings / mean",
			100*c.SDUm/math.Sqrt(float64(c.Readings))/c.DFTUm, "%", "statistics")
	} else {
		w.Warn("Fewer than three film readings: the film is taken as known to ±15 %%.")
	}
	// A loss is seldom known better than to a quarter of itself.
	loss := w.Step("Uncertainty of the loss", "¼ · loss / (1 − loss)", 25*c.LossPct/(100-c.LossPct), "%",
		"rule of thumb")
	pct := w.Step("Uncertainty", "1.28 · √(litres² + film² + loss²), an 80 % range",
		Half*math.Sqrt(litresPct*litresPct+film*film+loss*loss), "%",
		"litres ±3 %: rule of thumb; 80 % of a normal spread")
	return Figure{AreaM2: a, UncertaintyPct: pct, Working: w}, nil
}
