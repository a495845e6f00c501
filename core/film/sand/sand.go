// Package sand plans the sanding of a surface: the ladder of grits, how long, how much
// film it takes, and whether that goes through.
package sand

import (
	"fmt"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
	"allcoats/core/catalog/product"
)

// grades are FEPA P grits with the median of their grain, µm.
var grades = []struct{ p, um float64 }{{40, 425}, {60, 269}, {80, 201}, {100, 162}, {120, 125}, {150, 100}, {180, 82},
	{220, 68}, {240, 58.5}, {280, 52.2}, {320, 46.2},
	{360, 40.5}, {400, 35}, {500, 30.2}, {600, 25.8}, {800, 21.8}, {1000, 18.3}, {1200, 15.3}, {1500, 12.6},
	{2000, 10.3}}

// Median is the grain of a grit, µm, between the grades in proportion (FEPA P).
func Median(grit int) float64 {
	g := float64(grit)
	if g <= grades[0].p {
		return grades[0].um * grades[0].p / g
	}
	for i := 1; i < len(grades); i++ {
		if a, b := grades[i-1], grades[i]; g <= b.p {
			return a.um * math.Pow(b.um/a.um, math.Log(g/a.p)/math.Log(b.p/a.p))
		}
	}
	last := grades[len(grades)-1]
	return last.um * last.p / g
}

// GreenPart is the part of its time to sandable after which a filler is green, so that
// ridges can be knocked down: a rule of thumb.
const GreenPart = 0.4

// MostStep is how much finer the next grit may be.
const MostStep = 1.6

// Ladder lists the grits from one to another, none more than MostStep finer than the
// one before, as few as do it.
func Ladder(from, to int) []int {
	out := []int{from}
	for at := from; at < to; {
		next := 0
		for _, g := range grades {
			if p := int(g.p); p > at && p <= to && Median(at)/g.um <= MostStep+0.02 {
				next = p
			}
		}
		if next == 0 { // the grades themselves leap here
			for _, g := range grades {
				if p := int(g.p); p > at {
					next = min(p, to)
					break
				}
			}
		}
		if next == 0 {
			next = to
		}
		out = append(out, next)
		at = next
	}
	return out
}

// Finer is the next finer grade.
func Finer(grit int) int {
	for _, g := range grades {
		if int(g.p) > grit {
			return int(g.p)
		}
	}
	return grit + 1
}

// Tool is what the paper is on.
type Tool struct {
	Key  string  `json:"key"`
	Name string  `json:"name"`
	Rate float64 `json:"rate"` // against a machine on a flat
	Note string  `json:"note"`
}

// Tools lists them.
var Tools = []Tool{
	{"machine", "Random orbital machine", 1, "low speed on paint: heat melts it and clogs the disc; never on edges"},
	{"board", "Long board", 0.5, "the only one that makes it flat; diagonal strokes, both ways"},
	{"hand", "By hand on a block", 0.35, "edges, corners and tape lines; a finger digs, a block does not"},
}

// Request is a sanding to be planned. FilmUm is what may be sanded of it before
// something that must stay, SDUm its scatter; SoftC is how soft fillers are: 1 paint.
type Request struct {
	From, To  int // grits: the scratch that is there, the one that the next coat wants
	AreaM2    float64
	EdgeM     float64
	Access    float64
	TiltDeg   float64
	Wet       bool
	FilmUm    float64
	SDUm      float64
	FilmKnown bool
	Next      product.Kind
	// Filler says that it is filler that is sanded: flat, by the board.
	Filler bool
	// Antifoul says that there is antifouling under the paper: it is sanded wet only.
	Antifoul bool
}

// Step is a grit of the ladder.
type Step struct {
	Grit      int     `json:"grit"`
	RemovedUm float64 `json:"removedUm"`
	Hours     float64 `json:"hours"`
	Discs     int     `json:"discs"`
	// Water is how often it is changed with this grit, wet.
	Water int    `json:"water"`
	Why   string `json:"why"`
}

// Margin is what is left at a kind of place.
type Margin struct {
	Place   string  `json:"place"`
	LeftUm  float64 `json:"leftUm"`
	Through bool    `json:"through"`
}

// Plan is the sanding.
type Plan struct {
	Steps     []Step   `json:"steps"`
	Tool      Tool     `json:"tool"`
	RemovedUm float64  `json:"removedUm"`
	Hours     float64  `json:"hours"`
	Margins   []Margin `json:"margins"`
	// Wet is how it is sanded; WetOnly says that it must not be done dry.
	Wet     bool            `json:"wet"`
	WetOnly bool            `json:"wetOnly"`
	Water   int             `json:"waterChanges"`
	Dust    string          `json:"dust"`
	Notes   []string        `json:"notes"`
	Working working.Working `json:"working"`
}

// Rules of thumb: a grit takes as much film as half the grain of the one before it left
// as scratches, or as its own for the first; edges lose twice and corners three times
// as much as the flat; a machine does so many m² an hour with a grit, and so many a disc.
const (
	scratchPart = 0.25
	edgeFactor  = 2.0
	cornerFact  = 3.0
	discM2      = 1.2
	// Wet it goes slower, and the paper lasts longer, a bucket for so many m².
	wetSlower = 1.4
	wetLasts  = 1.6
	bucketM2  = 4.0
	z80       = 1.2816
)

// rate is m² an hour of a machine on a flat, by grit: a rule of thumb.
func rate(grit int) float64 {
	switch {
	case grit <= 80:
		return 4
	case grit <= 180:
		return 6
	}
	return 9
}

// tool is what is taken to areaM2.
func tool(areaM2, access float64, filler bool) Tool {
	switch {
	case areaM2 < 0.5 || access >= 2.5:
		return Tools[2]
	case filler && areaM2 >= 2:
		return Tools[1]
	}
	return Tools[0]
}

// Hours are those of one person who sands areaM2 once with a grit.
func Hours(grit int, areaM2, access float64, filler bool) float64 {
	return areaM2 / (rate(grit) * tool(areaM2, access, filler).Rate) * math.Max(1, access)
}

// Make plans r.
func Make(r Request) (Plan, error) {
	var bad fielderr.Errors
	bad.Range("from", float64(r.From), 16, 5000, "grit")
	bad.Range("to", float64(r.To), 16, 5000, "grit")
	bad.Above("areaM2", r.AreaM2, 0, 1e4, "m²")
	if bad == nil && r.To < r.From {
		bad.Add("to", "is coarser than what is there: begin with that")
	}
	if err := bad.Err(); err != nil {
		return Plan{}, err
	}
	if r.Antifoul {
		r.Wet = true
	}
	out := Plan{Wet: r.Wet, WetOnly: r.Antifoul, Steps: []Step{}, Margins: []Margin{}, Notes: []string{},
		Working: working.New()}
	out.Tool = tool(r.AreaM2, r.Access, r.Filler)
	w := &out.Working
	w.In("Area", r.AreaM2, "m²")
	w.In("Access", r.Access, "")
	ladder := Ladder(r.From, r.To)
	for i, g := range ladder {
		lasts, slower := discM2, 1.0
		s := Step{Grit: g}
		if r.Wet {
			lasts, slower = discM2*wetLasts, wetSlower
			s.Water = int(math.Ceil(r.AreaM2 / bucketM2))
		}
		s.Discs = int(math.Ceil(r.AreaM2 / lasts))
		left := Median(g)
		s.Why = "cuts the surface level"
		if i > 0 {
			left = Median(ladder[i-1])
			s.Why = fmt.Sprintf("till no scratch of %d is seen: guide coat tells", ladder[i-1])
		}
		s.RemovedUm = scratchPart * left
		s.Hours = slower * Hours(g, r.AreaM2, r.Access, r.Filler)
		out.Water += s.Water
		out.RemovedUm += s.RemovedUm
		out.Hours += s.Hours
		out.Steps = append(out.Steps, s)
	}
	w.Step("Film taken off", "Σ a quarter of the grain whose scratches go", out.RemovedUm, "µm",
		"rule of thumb; gauge readings correct it")
	w.Step("Hours", "Σ area / (rate · tool) · access, wet 1.4 times as long", out.Hours, "h", "rule of thumb")
	if r.FilmKnown {
		out.margins(r)
	}
	out.minds(r)
	return out, nil
}

// margins are what is left of the film on flats, edges and corners.
func (p *Plan) margins(r Request) {
	for _, m := range []struct {
		place  string
		factor float64
	}{{"flats", 1}, {"edges", edgeFactor}, {"corners", cornerFact}} {
		sd := math.Hypot(r.SDUm, 0.3*p.RemovedUm*m.factor)
		left := p.Working.Step("Left at "+m.place, "film − factor · taken off − 1.28 · spread",
			r.FilmUm-m.factor*p.RemovedUm-z80*sd, "µm", "edges twice, corners three times: rule of thumb")
		p.Margins = append(p.Margins, Margin{m.place, left, left < 0})
	}
}

// minds are what to wear and mind.
func (p *Plan) minds(r Request) {
	if r.Wet {
		p.Notes = append(p.Notes,
			"Wet: fresh water and a clean bucket with every grit, or the last grit's grain scratches on. Never near power tools, never over bare filler that drinks.")
	} else {
		p.Notes = append(p.Notes, "Dry: extraction at the tool, and wipe between the grits.")
	}
	p.Dust = "P2 mask and goggles; extraction"
	switch {
	case r.Antifoul:
		p.Dust = "Antifouling is never dry-sanded: wet, everything caught, P3 mask, coverall; local rules on wash water"
	case r.Next.Info().Filler || r.From <= 120:
		p.Dust = "P3 mask, goggles, extraction: filler and fibre dust"
	}
	p.Notes = append(p.Notes,
		"Edges and corners by hand, last, with the paper nearly worn: they have a fraction of the film.",
		"Rings of another colour are the layer below coming through: stop there, and beside them.",
		"Feather the edge of a patch: each coarser grit stops two fingers short of the finer one, so that the bands lie side by side.",
		"Spots that still shine after the last grit are low: scuff them by hand until they are dull, and leave them. Sanding down to them takes the film around off.")
}
