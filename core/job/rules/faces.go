package rules

import (
	"slices"
	"strings"

	"allcoats/core/base/message"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/sand"
	"allcoats/core/film/step"
)

// alike compares names of products.
func alike(a, b string) bool { return strings.EqualFold(strings.TrimSpace(a), strings.TrimSpace(b)) }

// wetWoodPct is the moisture above which wood is too wet to be coated, %: a rule of thumb.
const wetWoodPct = survey.WetWoodPct

// Readies reports a rule of how a face is made ready for a coat, which tells nothing once that is
// on.
func Readies(rule string) bool {
	return slices.Contains([]string{"not-keyed", "wax-not-sanded", "alkyd-over-epoxy", "degrease-first",
		"blush-not-washed", "flash-rust", "wet-wood", "loose-below", "grit-step", "grit-for-coat"}, rule)
}

// faceRules are of how a face is made ready: clean, dry, dull and sound.
var faceRules = []Rule{
	{ID: "degrease-first", What: "Gelcoat sanded before it is degreased",
		Why: "Sanding drives wax and grease into the scratches, where nothing reaches them.", Severity: Warning,
		Source: trade,
		Fix:    "Wipe it with solvent and two rags, or wash it with detergent, before the first abrasive.",
		check: func(c Case) []hit {
			first := c.first()
			if c.Substrate != survey.Gelcoat || len(c.Findings.Layers) > 0 || first < 0 {
				return nil
			}
			for i, s := range c.Steps[:first+1] {
				switch {
				case s.Work == step.Degrease, s.Work == step.Wash && s.Agent == "detergent", s.Work == step.Strip:
					return nil
				case s.Work == step.Sand || s.Films():
					return []hit{{step: i, text: message.Lit(
						"The gelcoat still has wax and grease on it: degrease it first."),
						mend: before(i, "Degrease it first", work(step.Degrease, "solvent"))}}
				}
			}
			return nil
		}},
	{ID: "blush-not-washed", What: "Blush not washed off",
		Why:      "Amine blush is rubbed in by sanding and keeps varnish and paint soft; the next coat lets go.",
		Severity: Warning, Source: trade,
		Fix: "Wash with warm water and detergent before sanding or painting, or use peel ply.",
		check: func(c Case) []hit {
			var out []hit
			told := map[int]bool{}
			for i, s := range c.Steps {
				f := c.Meets(i)
				late := s.Films() && ClassOf(s.Sheet).has([]Class{OnePart, Waterborne, OilFilm, TwoPart, Polyester,
					VinylEster})
				if f.Step < 0 || !f.Sheet.Blushes || f.Washed || told[f.Step] || s.Work != step.Sand && !late {
					continue
				}
				told[f.Step] = true
				out = append(out, hit{step: i, text: message.Of("%s blushes: wash it first.", f.Name),
					mend: before(i, "Wash it first", washing())})
			}
			return out
		}},
	{ID: "filler-solvent-wiped", What: "Filler wiped with solvent",
		Why: "Solvent soaks into the filler and comes out under the next coat.", Severity: Warning, Source: sheet,
		Fix: "Wash it with water, or dust it off and wipe it dry.", check: func(c Case) []hit {
			return mended(each(c, func(i int, s Step) message.Sentence {
				if f := c.Meets(i); s.Work == step.Degrease && s.Agent != "detergent" && f.Step >= 0 &&
					f.Sheet.NoSolventWipe {
					return message.Of("The sheet of %s forbids wiping it with solvent.", f.Name)
				}
				return nil
			}), func(at int) *Mend {
				return c.instead(at, message.Lit("Wash it with water instead"), func(s *step.Step) { s.Work, s.Agent = step.Wash, "water" })
			})
		}},
	{ID: "antifouling-dry-sanded", What: "Antifouling sanded dry",
		Why:      "Its dust is a biocide that is breathed in and spread over the yard; older ones hold tin.",
		Severity: Warning, Source: "local rules for antifouling waste; practice of the trade",
		Fix: "Sand it wet, or scrape it; catch dust, slurry and wash water.", check: func(c Case) []hit {
			return mended(each(c, func(i int, s Step) message.Sentence {
				f := c.Meets(i)
				if s.Work != step.Sand || s.wet() || !f.Class.has(allFoul) {
					return nil
				}
				return message.Of("%s is sanded dry: never make dust of antifouling.", strings.ToUpper(f.Name[:1])+
					f.Name[1:])
			}), func(at int) *Mend {
				return c.instead(at, message.Lit("Sand it wet"), func(s *step.Step) { s.Wet, s.Agent = true, "" })
			})
		}},
	{ID: "flash-rust", What: "Water on blasted or ground steel",
		Why: "White steel flash-rusts within minutes of water; the rust works under the primer.", Severity: Warning,
		Source: trade,
		Fix:    "Wash before blasting, then blow and vacuum it clean, and prime the same day.",
		check: func(c Case) []hit {
			first := c.first()
			if !ferrous(c.Substrate) || first < 0 {
				return nil
			}
			return mended(each(c, func(i int, s Step) message.Sentence {
				f := c.Meets(i)
				if i < first && f.Bare && f.Keyed && (s.Work == step.Wash || s.Work == step.Degrease &&
					s.Agent != "solvent" && s.Agent != "") {
					return message.Of("Washing the bright steel before the primer makes flash rust.")
				}
				return nil
			}), func(at int) *Mend { return &Mend{Says: message.Lit("Leave the washing out"), At: at, Take: 1} })
		}},
	{ID: "bare-steel-overnight", What: "Bare steel left uncovered",
		Why: "Blasted or ground steel rusts within hours; the rust works under every coat.", Severity: Warning,
		Source: trade,
		Fix:    "Prime the same day.", check: func(c Case) []hit {
			if !ferrous(c.Substrate) || c.first() >= 0 {
				return nil
			}
			for i := len(c.Steps) - 1; i >= 0; i-- {
				if w := c.Steps[i].Work; w == step.Strip || w == step.Sand {
					return []hit{{step: i, text: message.Lit("Nothing covers the bare steel afterwards."),
						mend: &Mend{Says: message.Lit("Put a metal primer on"), At: i + 1,
							Steps: []Want{laying(product.MetalPrimer, product.Epoxy, 2)}}}}
				}
			}
			return nil
		}},
	{ID: "wet-wood", What: "Wood too wet to be coated",
		Why: "Moisture leaves in the first sun: the film whitens, blisters and lifts.", Severity: Warning,
		Source: "a rule of thumb: 18 % at the most",
		Fix:    "Dry it under cover till the meter shows less, then coat it.", check: func(c Case) []hit {
			first := c.first()
			if !c.Substrate.Info().Wood || first < 0 {
				return nil
			}
			for _, m := range c.Findings.Moisture {
				if m.Pct > wetWoodPct {
					return []hit{{step: first, text: message.Of("%.3g %% moisture (%s): too wet, %d %% at the most.",
						m.Pct, m.Where, wetWoodPct)}}
				}
			}
			return nil
		}},
	{ID: "loose-below", What: "Over a layer that is loose",
		Why: "A loose layer carries nothing: what goes on it comes off with it.", Severity: Warning, Source: trade,
		Fix: "Take it off down to what is sound.", check: func(c Case) []hit {
			first := c.first()
			if _, off := c.between(-1, first, step.Strip); first < 0 || off {
				return nil
			}
			for _, l := range c.stack() {
				if l.step < 0 && l.old.Soundness == survey.Loose && (l.um > 0 || l.old.Um == 0) {
					return []hit{{step: first, text: message.Of("%s is loose below it.",
						strings.ToUpper(oldName(l.old)[:1])+oldName(l.old)[1:]),
						mend: before(0, "Strip it first", work(step.Strip, ""))}}
				}
			}
			return nil
		}},
	{ID: "grit-step", What: "A grit too far from the one before",
		Why: "Scratches of one grit are only taken out by one up to 1.65 times finer; a skipped one shows through the last coat.", Severity: Note, Source: "FEPA P grades; 1.65 is a rule of thumb",
		Fix: "Put the grit between in.", check: func(c Case) []hit {
			last := 0
			var out []hit
			for i, s := range c.Steps {
				if s.Films() || s.Work == step.Strip {
					last = 0
				}
				if s.Work != step.Sand || s.Grit == 0 {
					continue
				}
				if last > 0 && sand.Median(last)/sand.Median(s.Grit) > 1.65 {
					h := hit{step: i, text: message.Of("From %d to %d skips a grit.", last, s.Grit)}
					if between := sand.Ladder(last, s.Grit); len(between) > 1 {
						var steps []Want
						for _, g := range between[1 : len(between)-1] {
							steps = append(steps, sanding(g, s.RemovedUm, s.wet()))
						}
						if len(steps) > 0 {
							h.mend = before(i, "Put the grits between in", steps...)
						}
					}
					out = append(out, h)
				}
				last = s.Grit
			}
			return out
		}},
	{ID: "grit-for-coat", What: "A grit too coarse or too fine for what follows",
		Why: "Too coarse shows through; too fine gives no key.", Severity: Warning,
		Source: "usual ladders of the trade",
		Fix:    "Sand with a grit from the range before this coat.", check: func(c Case) []hit {
			var out []hit
			for i, s := range c.Steps {
				if !s.Films() {
					continue
				}
				over := c.Meets(i).Sheet.Kind
				if f := c.Meets(i); f.old() && s.Sheet.Kind.Info().Clear {
					over = s.Sheet.Kind // clear over what can be seen through
				}
				lo, hi := s.Sheet.Kind.Grits(over)
				for k := i - 1; k > c.below(i); k-- {
					p := c.Steps[k]
					if p.Work != step.Sand || p.Grit == 0 {
						continue
					}
					if p.Grit < lo || p.Grit > hi {
						fine := "is too coarse: it shows through"
						want := lo
						if p.Grit > hi {
							fine, want = "is too fine: it gives no key", hi
						}
						out = append(out, hit{step: i,
							text: message.Of("Sanded with %d before %s, which %s; %d to %d is usual.", p.Grit,
								s.Sheet.Kind.Name(), fine, lo, hi),
							mend: c.instead(k, message.Of("Sand with %d", want), func(s *step.Step) { s.Grit = want })})
					}
					break
				}
			}
			return out
		}},
	{ID: "sand-through", What: "Sand-through margin",
		Why: "Sanding more than lies above the layer that must stay goes into it.", Severity: Warning,
		Source: "film planned less film removed",
		Fix:    "Sand less, or lay a coat more before it.", check: func(c Case) []hit {
			above, known := c.Findings.AboveStop()
			if len(c.Findings.Layers) == 0 {
				above, known = 0, true
			}
			return each(c, func(_ int, s Step) message.Sentence {
				if s.Films() {
					above += s.DFTUm * float64(s.Coats)
				}
				if s.Work == step.Strip {
					above = 0
				}
				if s.Work != step.Sand || s.RemovedUm == 0 {
					return nil
				}
				before := above
				above = max(0, above-s.RemovedUm)
				if known && before > 0 && s.RemovedUm > 0.8*before {
					return message.Of("It takes %g µm of the %.3g µm that may go.", s.RemovedUm, before)
				}
				return nil
			})
		}},
}
