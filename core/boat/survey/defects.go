package survey

import (
	"fmt"
	"math"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
	"allcoats/core/boat/area"
	"allcoats/core/boat/outline"
)

// DefectKind is a kind of defect with the usual way to mend it: hours for one
// and for every further dm² of it, and how the filler's volume comes from its
// size. All of it rules of thumb.
type DefectKind struct {
	Kind   string `json:"kind"`
	Name   string `json:"name"`
	Action string `json:"action" doc:"what is usually done"`
	hours  float64
	perDM2 float64
	fill   float64 // share of length · width · depth
}

// DefectKinds lists the kinds of defects.
var DefectKinds = []DefectKind{
	{"void", "void", "grind open, fill with structural filler", 0.5, 0.15, 0.8},
	{"crack", "crack", "open to a V, find the cause, fill", 0.4, 0.2, 0.5},
	{"screw-hole", "screw hole", "drill over size, fill from both sides, re-drill", 0.25, 0, 0.8},
	{"soft-spot", "soft spot", "sound it out, open, dry, mend the core", 3, 0.4, 1},
	{"blister", "blister", "open, wash, dry, fill", 0.4, 0.15, 0.5},
	{"pit", "corrosion pit", "blast or grind bright, fill", 0.2, 0.1, 0.5},
	{"delamination", "delamination", "grind back on a bevel of 1:12, laminate anew", 4, 0.5, 1},
	{"chip", "chip", "feather the edges, fill", 0.25, 0.1, 0.6},
	{"low", "low spot", "key, fill in thin passes, board off", 0.3, 0.05, 0.5},
	{"other", "other", "say what is to be done", 0.5, 0.1, 0.5},
}

// DefectStates are where a repair has got to, in their order.
var DefectStates = []string{"found", "opened", "drying", "filled", "faired", "left as it is"}

// Place is where on the map a defect is pinned: a view of package outline and
// a point on it, m.
type Place struct {
	View string  `json:"view"`
	X    float64 `json:"x"`
	Y    float64 `json:"y"`
}

// Defect is something wrong on a surface. Sizes are in mm; hours and litres are
// the user's own where given.
type Defect struct {
	Kind     string  `json:"kind"`
	Place    Place   `json:"place"`
	LengthMM float64 `json:"lengthMM"`
	WidthMM  float64 `json:"widthMM"`
	DepthMM  float64 `json:"depthMM"`
	Count    int     `json:"count"`
	Action   string  `json:"action"`
	State    string  `json:"state"`
	Note     string  `json:"note"`
	// Frame is the frame, or the landmark, that it lies at.
	Frame string `json:"frame,omitempty"`
	// History is what state it was in before, the first first; one that is found again keeps it.
	History []DefectChange `json:"history,omitempty"`
	Hours   *float64       `json:"hours,omitempty"`
	FillerL *float64       `json:"fillerL,omitempty"`
}

// DefectChange is a state that a defect left, and when.
type DefectChange struct {
	At    time.Time `json:"at"`
	State string    `json:"state"`
}

// Changed is the defect with the history that was, and what of it the change adds.
func (d Defect) Changed(was Defect, at time.Time) Defect {
	d.History = was.History
	if d.State != was.State {
		d.History = append(slices.Clone(was.History), DefectChange{at, was.State})
	}
	return d
}

// Validate reports impossible figures.
func (d Defect) Validate() error {
	var bad fielderr.Errors
	kinds := make([]string, len(DefectKinds))
	for i, k := range DefectKinds {
		kinds[i] = k.Kind
	}
	fielderr.OneOf(&bad, "kind", d.Kind, kinds)
	fielderr.OneOf(&bad, "state", d.State, DefectStates)
	OnMap(&bad, "place.view", d.Place.View)
	bad.Range("place.x", d.Place.X, -200, 200, "m")
	bad.Range("place.y", d.Place.Y, -200, 200, "m")
	bad.Range("lengthMM", d.LengthMM, 0, 20e3, "mm")
	bad.Range("widthMM", d.WidthMM, 0, 20e3, "mm")
	bad.Range("depthMM", d.DepthMM, 0, 500, "mm")
	bad.Range("count", float64(d.Count), 1, 5000, "pieces")
	if d.Hours != nil {
		bad.Range("hours", *d.Hours, 0, 1000, "h")
	}
	if d.FillerL != nil {
		bad.Range("fillerL", *d.FillerL, 0, 1000, "L")
	}
	return bad.Err()
}

// Repair is what a defect implies.
type Repair struct {
	Hours   float64         `json:"hours"`
	FillerL float64         `json:"fillerL"`
	Open    bool            `json:"open"`
	Working working.Working `json:"working"`
}

// Repair estimates hours and filler of a valid defect.
func (d Defect) Repair() Repair {
	k := DefectKinds[slices.IndexFunc(DefectKinds, func(k DefectKind) bool { return k.Kind == d.Kind })]
	w := working.New()
	n := float64(d.Count)
	w.In("Pieces", n, "")
	w.In("Length", d.LengthMM, "mm")
	w.In("Width", d.WidthMM, "mm")
	w.In("Depth", d.DepthMM, "mm")
	r := Repair{Open: d.State != "faired" && d.State != "left as it is"}
	if d.FillerL != nil {
		r.FillerL = w.Step("Filler", "as you set it", *d.FillerL, "L", "your own figure")
	} else {
		width := d.WidthMM
		if width == 0 {
			width = d.LengthMM
		}
		r.FillerL = w.Step("Filler", fmt.Sprintf("pieces · length · width · depth · %g + 15 %% proud", k.fill),
			1.15*n*k.fill*d.LengthMM*width*d.DepthMM/1e6, "L", "rule of thumb for a "+k.Name)
	}
	if d.Hours != nil {
		r.Hours = w.Step("Hours", "as you set them", *d.Hours, "h", "your own figure")
	} else {
		dm2 := d.LengthMM * max(d.WidthMM, 10) / 1e4
		r.Hours = w.Step("Hours", fmt.Sprintf("%g h for the first, each further one 60 %% of it, + %g h for each dm²",
			k.hours, k.perDM2),
			k.hours*(1+0.6*(n-1))+n*k.perDM2*dm2, "h", "rule of thumb for a "+k.Name)
	}
	r.Working = w
	return r
}

// walkOrder is how one walks round a boat on the hard: from the stern along
// starboard to the bow, back along port, then under her, on deck, and to what
// lies apart.
var walkOrder = []string{outline.StarboardSide, outline.PortSide, outline.Under, outline.Plan, outline.Apart}

// WalkRound compares two places in the order in which one comes by them.
func WalkRound(a, b Place) int {
	if d := slices.Index(walkOrder, a.View) - slices.Index(walkOrder, b.View); d != 0 {
		return d
	}
	d := a.X - b.X
	if a.View == outline.PortSide || a.View == outline.Plan { // from the bow aft
		d = -d
	}
	switch {
	case math.Abs(d) < 0.25: // within reach: from above down
		switch {
		case a.Y > b.Y:
			return -1
		case a.Y < b.Y:
			return 1
		}
		return 0
	case d < 0:
		return -1
	}
	return 1
}

// Template is what a type of hull usually has for surfaces.
type Template struct {
	Key      string            `json:"key"`
	Name     string            `json:"name"`
	Surfaces []TemplateSurface `json:"surfaces"`
}

// TemplateSurface is one of them.
type TemplateSurface struct {
	Name string    `json:"name"`
	Part area.Part `json:"part"`
	Side area.Side `json:"side"`
}

func one(name string, p area.Part) TemplateSurface { return TemplateSurface{name, p, area.Both} }

func pair(name string, p area.Part) []TemplateSurface {
	return []TemplateSurface{{name + " port", p, area.Port}, {name + " starboard", p, area.Starboard}}
}

func set(parts ...[]TemplateSurface) []TemplateSurface { return slices.Concat(parts...) }

// Templates lists the hull types.
var Templates = []Template{
	{"motor-launch", "motor launch or cruiser",
		set([]TemplateSurface{one("Bottom", area.Bottom), one("Boot-top", area.BootTop)},
			pair("Topsides", area.Topsides),
			[]TemplateSurface{one("Transom", area.Transom), one("Side decks", area.SideDecks),
				one("Cabin top", area.CabinTop), one("Cabin sides", area.CabinSides), one("Cockpit", area.Cockpit)})},
	{"sailing-fin", "sailing yacht, fin keel",
		set([]TemplateSurface{one("Bottom", area.Bottom), one("Fin keel", area.Keel), one("Skeg", area.Skeg),
			one("Rudder", area.Rudder), one("Boot-top", area.BootTop)},
			pair("Topsides", area.Topsides), []TemplateSurface{one("Transom", area.Transom), one("Deck", area.Deck),
				one("Cabin sides", area.CabinSides), one("Coamings", area.Coamings), one("Cockpit", area.Cockpit)})},
	{"sailing-long", "sailing yacht, long keel",
		set([]TemplateSurface{one("Bottom", area.Bottom), one("Rudder", area.Rudder), one("Boot-top", area.BootTop)},
			pair("Topsides", area.Topsides), []TemplateSurface{one("Transom", area.Transom), one("Deck", area.Deck),
				one("Cabin sides", area.CabinSides), one("Coamings", area.Coamings), one("Cockpit", area.Cockpit)})},
	{"wooden-long-keel", "wooden yacht, long keel, brightwork",
		set([]TemplateSurface{one("Bottom", area.Bottom), one("Rudder", area.Rudder), one("Boot-top", area.BootTop)},
			pair("Topsides", area.Topsides), []TemplateSurface{one("Transom", area.Transom), one("Deck", area.Deck),
				one("Cabin sides", area.CabinSides), one("Coamings", area.Coamings),
				one("Rails", area.Rails), one("Cockpit", area.Cockpit), one("Spars", area.Spars)})},
	{"open-dinghy", "open dinghy", set([]TemplateSurface{one("Bottom", area.Bottom)}, pair("Topsides", area.Topsides),
		[]TemplateSurface{one("Transom", area.Transom), one("Rails", area.Rails), one("Inside", area.OpenInside),
			one("Rudder", area.Rudder), one("Spars", area.Spars)})},
	{"multihull", "catamaran or trimaran",
		set([]TemplateSurface{one("Bottoms", area.Bottom), one("Boot-tops", area.BootTop)},
			pair("Topsides", area.Topsides),
			[]TemplateSurface{one("Decks", area.Deck), one("Cabin sides", area.CabinSides),
				one("Cockpit", area.Cockpit),
				one("Rudders", area.Rudder)})},
	{"metal-workboat", "metal work boat",
		set([]TemplateSurface{one("Bottom", area.Bottom), one("Boot-top", area.BootTop)},
			pair("Topsides", area.Topsides),
			[]TemplateSurface{one("Transom", area.Transom), one("Deck", area.Deck), one("Cabin sides", area.CabinSides),
				one("Cabin top", area.CabinTop), one("Rails", area.Rails)})},
	{"plain", "hull and deck only", set([]TemplateSurface{one("Bottom", area.Bottom)}, pair("Topsides", area.Topsides),
		[]TemplateSurface{one("Deck", area.Deck)})},
}

// TemplateFor is the hull type that a form of hull made of a substrate usually is.
func TemplateFor(f area.HullForm, s Substrate) string {
	kind := s.Info()
	switch f {
	case area.FullMotor:
		if kind.Metal {
			return "metal-workboat"
		}
		return "motor-launch"
	case area.FinKeel:
		return "sailing-fin"
	case area.OpenChine:
		return "open-dinghy"
	case area.Catamaran, area.Trimaran:
		return "multihull"
	case area.Medium:
		if kind.Wood {
			return "wooden-long-keel"
		}
	}
	return "sailing-long"
}

// TemplateName is the name of a hull type, empty for none.
func TemplateName(key string) string {
	for _, t := range Templates {
		if t.Key == key {
			return t.Name
		}
	}
	return ""
}
