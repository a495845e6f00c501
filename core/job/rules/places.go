package rules

import (
	"slices"
	"strings"

	"allcoats/core/base/message"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
)

// heatLimit is the temperature that what lies under a colour stands, °C: rules of thumb, the
// glass transition of what cures cold.
func (c Case) heatLimit() (limitC float64, what string) {
	limitC = 200
	least := func(t float64, name string) {
		if t < limitC {
			limitC, what = t, name
		}
	}
	switch c.Substrate {
	case survey.Carbon:
		least(60, "epoxy laminate")
	case survey.FoamCore:
		least(65, "foam core")
	case survey.GRP, survey.Gelcoat, survey.BalsaCore:
		least(75, "polyester laminate")
	case survey.StripPlank, survey.Veneer:
		least(65, "epoxy glue of the wood")
	default: // metal and solid wood stand what the sun gives
	}
	for _, s := range c.Steps {
		if !s.Films() {
			continue
		}
		switch ClassOf(s.Sheet) {
		case EpoxyFiller:
			least(55, "epoxy filler")
		case PolyesterFill:
			least(70, "polyester filler")
		default:
		}
	}
	return limitC, what
}

// placeRules are of where a surface stands: water, sun, unlike metals, holes.
var placeRules = []Rule{
	{ID: "underwater", What: "Not made for standing under water",
		Why: "Topcoats, varnishes, deck paints and polyester filler take water up and blister when they never dry out, covered or not.", Severity: Stop, Source: trade,
		Fix: "Under the waterline build up with epoxy, end with barrier or antifouling.", check: func(c Case) []hit {
			if !c.underwater() || c.Part == area.BootTop {
				return nil
			}
			var out []hit
			last := c.below(len(c.Steps))
			for i, s := range c.Steps {
				if !s.Films() || s.Sheet.Underwater {
					continue
				}
				switch filler := s.Sheet.Kind.Info().Filler; {
				case i == last && !filler:
					out = append(out, hit{step: i, text: message.Of("%s is not made to stand under water.",
						s.Sheet.Name)})
				case i != last && s.Sheet.Binder != product.Epoxy, filler && s.Sheet.Binder == product.Polyester:
					out = append(out, hit{step: i,
						text: message.Of("%s is not made to stand under water, even covered: it blisters.",
							s.Sheet.Name), level: Warning})
				}
			}
			return out
		}},
	{ID: "left-to-the-sun", What: "Laminate or epoxy left to the sun",
		Why: "Ultraviolet light chalks epoxy and bare laminate within weeks.", Severity: Warning, Source: trade,
		Fix: "Finish with a coat that stands the sun.", check: func(c Case) []hit {
			last := c.below(len(c.Steps))
			if !c.inTheSun() || c.Sheltered || last < 0 || !c.Steps[last].Sheet.NeedsCover {
				return nil
			}
			return []hit{{step: last, text: message.Of("%s is the last coat and the sun gets at it.",
				c.Steps[last].Sheet.Name),
				mend: &Mend{Says: message.Lit("Finish with two coats of topcoat"), At: len(c.Steps),
					Steps: []Want{washing(), sanding(240, 8, false), laying(product.TopcoatTwo, product.Polyurethane,
						2)}}}}
		}},
	{ID: "filler-last", What: "Filler as the last coat",
		Why: "Light filler drinks water and the sun breaks it down: nothing seals it.", Severity: Warning,
		Source: trade,
		Fix:    "Seal it with a primer, and finish over that.", check: func(c Case) []hit {
			last := c.below(len(c.Steps))
			if last < 0 || !c.Steps[last].Sheet.Porous {
				return nil
			}
			return []hit{{step: last, text: message.Of("Nothing seals the porous filler (%s).",
				c.Steps[last].Sheet.Name),
				mend: &Mend{Says: message.Lit("Seal it with a primer"), At: len(c.Steps),
					Steps: []Want{washing(), sanding(120, 20, false), laying(product.HighBuild, product.Epoxy, 1)}}}}
		}},
	{ID: "air-seal", What: "Last gelcoat without a seal from the air",
		Why: "Air keeps the surface of polyester tacky for good.", Severity: Stop, Source: trade,
		Fix: "Use waxed gelcoat for the last coat, or seal it with film or PVA.", check: func(c Case) []hit {
			last := c.below(len(c.Steps))
			if last >= 0 && c.Steps[last].Sheet.AirInhibited && !c.Steps[last].Sheet.Waxed {
				return []hit{{step: last, text: message.Of("%s is the last coat and holds no wax.",
					c.Steps[last].Sheet.Name)}}
			}
			return nil
		}},
	{ID: "dark-in-the-sun", What: "A dark colour over what softens with heat",
		Why: "A dark face comes to 60 °C and more in the sun: in that heat an epoxy laminate or filler softens, and weave, ribs and repairs print through.", Severity: Note, Source: "the sun on this face by the surface model; limits are rules of thumb",
		Fix: "Choose a pale colour, or a laminate and filler cured warm.", check: func(c Case) []hit {
			last := c.below(len(c.Steps))
			if !c.inTheSun() || last < 0 || !c.Steps[last].Sheet.Kind.Info().Hides || c.underwater() {
				return nil
			}
			limit, what := c.heatLimit()
			dark := c.Tone == survey.Dark || c.Tone == survey.Black
			switch {
			case what == "" || c.HottestC == 0 && !dark || c.HottestC > 0 && c.HottestC <= limit:
				return nil
			case c.HottestC > 0:
				return []hit{{step: last,
					text: message.Of(
						"On a clear summer day it comes to %v; its %s softens and prints through from about %v on.",
						message.Val(c.HottestC, "°C"), what, message.Val(limit, "°C"))}}
			}
			return []hit{{step: last,
				text: message.Of(
					"A dark colour gets hot in the sun: its %s softens and prints through from about %v on.", what,
					message.Val(limit, "°C"))}}
		}},
	{ID: "copper-near-aluminium", What: "Copper near aluminium",
		Why: "Copper in sea water dissolves aluminium at every scratch.", Severity: Stop, Source: trade,
		Fix: "Use a copper-free antifouling on aluminium, also beside aluminium fittings.", check: func(c Case) []hit {
			i := slices.IndexFunc(c.Beside, func(b Beside) bool {
				return b.Substrate == survey.Aluminium && b.Part.Underwater()
			})
			hits := coats(c, func(_ int, s Step) message.Sentence {
				switch {
				case !s.Sheet.Copper:
					return nil
				case c.Substrate == survey.Aluminium:
					return message.Of("%s holds copper, and this is aluminium.", s.Sheet.Name)
				case i >= 0 && c.underwater():
					return message.Of(
						"%s holds copper, and %s beside it is aluminium: keep it 50 mm off, or take one without.",
						s.Sheet.Name, c.Beside[i].Name)
				}
				return nil
			})
			if c.Substrate != survey.Aluminium {
				for k := range hits {
					hits[k].level = Note
				}
			}
			return hits
		}},
	{ID: "moving-planks", What: "A rigid film on planks that move",
		Why: "Planks swell and shrink with the season: two-part paint and epoxy crack at each seam.", Severity: Note,
		Source: trade,
		Fix:    "Stay with one-part paints, which give; or glue and sheathe the hull first.",
		check: func(c Case) []hit {
			note := strings.ToLower(c.SubstrateNote)
			moves := c.Substrate == survey.SolidWood &&
				slices.ContainsFunc([]string{"carvel", "clinker", "lapstrake", "caulk", "planked", "seam"},
					func(w string) bool { return strings.Contains(note, w) })
			if !moves {
				return nil
			}
			for i, s := range c.Steps {
				if s.Films() && ClassOf(s.Sheet).has(stiff) {
					return []hit{{step: i, text: message.Of(
						"%s is rigid, and the seams of these planks move: it cracks there.", s.Sheet.Name)}}
				}
			}
			return nil
		}},
	{ID: "texture-buried", What: "Non-skid texture under gloss",
		Why: "Each coat of gloss fills the texture: the grip is gone.", Severity: Note, Source: trade,
		Fix: "One thin coat to seal it, or none; renew it with textured paint.", check: func(c Case) []hit {
			return coats(c, func(i int, s Step) message.Sentence {
				f := c.Meets(i)
				if f.Step < 0 || f.Sheet.Kind != product.NonSkidPaint || !s.Sheet.Kind.Info().Gloss {
					return nil
				}
				return message.Of("%s fills the texture of %s: its grip is lost.", s.Sheet.Name, f.Name)
			})
		}},
	{ID: "holes-after-coating", What: "Holes and open defects after coating",
		Why: "Holes drilled through a finished coat let water under it.", Severity: Note, Source: trade,
		Fix: "Fill and seal the defects before the first coat; put a filling step in.", check: func(c Case) []hit {
			if c.OpenDefects == 0 || c.below(len(c.Steps)) < 0 || slices.ContainsFunc(c.Steps, func(s Step) bool {
				return s.Work == step.Fill || s.Work == step.Fair || s.Sheet.Kind.Info().Filler
			}) {
				return nil
			}
			if c.OpenDefects == 1 {
				return []hit{{step: c.first(), text: message.Of("A defect waits on this surface and no step fills it.")}}
			}
			return []hit{{step: c.first(), text: message.Of("%d defects wait on this surface and no step fills them.",
				c.OpenDefects)}}
		}},
	{ID: "drilled-late", What: "Holes drilled through finished coats",
		Why: "Raw core, laminate or metal lies open at the edge of every hole.", Severity: Note, Source: trade,
		Fix: "Drill before the first coat and seal the edges; drilled late, seal each edge with epoxy before bedding.",
		check: func(c Case) []hit {
			first := c.first()
			return each(c, func(i int, s Step) message.Sentence {
				if s.Work == step.Drill && first >= 0 && i > first {
					return message.Of(
						"These holes go through coats that are on: drill first, or seal every hole's edge.")
				}
				return nil
			})
		}},
	{ID: "bedded-before-coats", What: "Fittings bedded before the last coat",
		Why:      "The coat ends at the fitting's edge: water gets in there, and the fitting has to be masked.",
		Severity: Note, Source: trade,
		Fix: "Bed fittings after the last coat, when it is hard.", check: func(c Case) []hit {
			return each(c, func(i int, s Step) message.Sentence {
				if s.Work == step.Bed && c.below(len(c.Steps)) > i {
					return message.Of("Coats go on after these fittings are bedded.")
				}
				return nil
			})
		}},
	{ID: "unlike-metals", What: "Fittings of another metal",
		Why:      "In salt water the less noble of two metals that touch is eaten; holes through the coat are bare.",
		Severity: Note, Source: "galvanic series in sea water",
		Fix: "Isolate every fitting with sleeves, pads and bedding; seal the holes' edges.", check: func(c Case) []hit {
			if !c.Substrate.Info().Metal {
				return nil
			}
			return each(c, func(_ int, s Step) message.Sentence {
				if s.Work == step.Bed {
					return message.Of(
						"Isolate fittings of another metal from the %s, and seal the holes drilled for them.",
						c.Substrate.Info().Name)
				}
				return nil
			})
		}},
}

// careRules ask for care whatever is done.
var careRules = []Rule{
	{ID: "closed-space", What: "Vapour in a closed space",
		Why: "Solvent vapour is heavier than air and gathers where there is no draught; isocyanates of polyurethane harm lungs for good.", Severity: Note, Source: "safety data sheets; local rules for confined spaces", Care: true,
		Fix: "Blow fresh air in at the lowest place, wear a mask with fresh filters or supplied air, have somebody outside, no flame and no switch.", check: func(c Case) []hit {
			if !c.Part.Info().Inside {
				return nil
			}
			return coats(c, func(_ int, s Step) message.Sentence {
				switch {
				case s.Sheet.Isocyanate():
					return message.Of(
						"%s has isocyanates, and this is an enclosed space: ventilate, and wear what its sheet asks for.", s.Sheet.Name)
				case s.Sheet.VolumeSolidsPct < 90 && s.Sheet.Binder != product.Acrylic:
					return message.Of("The vapour of %s gathers in this enclosed space: ventilate.", s.Sheet.Name)
				}
				return nil
			})
		}},
	{ID: "stripper-on-laminate", What: "Chemical stripper on gelcoat or laminate",
		Why:      "Solvent strippers soften polyester and soak into it; what stays in comes out under the next coat.",
		Severity: Note, Source: sheet, Care: true,
		Fix: "Take one made for laminates and wash it off in time, or scrape and sand.", check: func(c Case) []hit {
			if !c.Substrate.Info().Laminate && c.Substrate != survey.Carbon {
				return nil
			}
			return each(c, func(_ int, s Step) message.Sentence {
				said := strings.ToLower(s.Agent + " " + s.Note)
				if s.Work == step.Strip && (strings.Contains(said, "stripper") || strings.Contains(said, "chemical")) {
					return message.Of("A solvent stripper attacks and softens %s.", c.Substrate.Info().Name)
				}
				return nil
			})
		}},
	{ID: "old-paint-dust", What: "Dust of old paint",
		Why:      "Old paint may hold lead, chromate or tin; its dust poisons who works there and who lives there.",
		Severity: Note, Source: "local rules for old paint", Care: true,
		Fix: "Test it before it is sanded; if it holds any, stop: its removal is for licensed people.",
		check: func(c Case) []hit {
			risky := slices.ContainsFunc(c.Findings.Layers, func(l survey.Layer) bool {
				return l.Kind == survey.OldUnknown || l.Kind == survey.OldOnePart || l.Kind == survey.OldTwoPart ||
					l.Kind == survey.OldPrimer && c.Substrate.Info().Metal
			})
			if !risky {
				return nil
			}
			for i, s := range c.Steps {
				if s.Films() {
					return nil
				}
				if s.Work.Kind().Removes && !s.wet() {
					return []hit{{step: i, text: message.Lit(
						"Test the old paint for lead and chromate before its dust is made.")}}
				}
			}
			return nil
		}},
}
