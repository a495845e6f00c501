package rules

import (
	"math"
	"slices"

	"allcoats/core/base/say"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/sand"
	"allcoats/core/film/step"
)

const (
	trade = "practice of the trade; the data sheet comes first"
	sheet = "the product's data sheet"
)

func each(c Case, check func(i int, s Step) say.Sentence) []hit {
	var out []hit
	for i, s := range c.Steps {
		if text := check(i, s); text != nil {
			out = append(out, hit{i, text})
		}
	}
	return out
}

func coats(c Case, check func(i int, s Step) say.Sentence) []hit {
	return each(c, func(i int, s Step) say.Sentence {
		if !s.Films() {
			return nil
		}
		return check(i, s)
	})
}

// under names the binder of what step i goes over, from the steps or, without
// any, from the outermost old layer that was left; "" if neither tells.
func (c Case) under(i int) (product.Binder, string) {
	if k := c.below(i); k >= 0 {
		s := c.Steps[k].Sheet
		return s.Binder, s.Name
	}
	if _, stripped := c.between(-1, i, step.Strip); stripped || len(c.Findings.Layers) == 0 {
		return "", ""
	}
	top := c.Findings.Layers[len(c.Findings.Layers)-1]
	switch top.Kind {
	case survey.OldEpoxy:
		return product.Epoxy, "the old epoxy"
	case survey.OldGelcoat:
		return product.Polyester, "the old gelcoat"
	case survey.OldOnePart, survey.OldVarnish:
		return product.Alkyd, "the old " + string(top.Kind)
	case survey.OldTwoPart:
		return product.Polyurethane, "the old two-part paint"
	default: // it does not tell
		return "", ""
	}
}

// Catalogue lists the rules.
var Catalogue = []Rule{
	{"polyester-over-epoxy", "Polyester, vinylester or gelcoat over epoxy", "Amine left in the epoxy keeps the polyester from curing at the joint: it peels.", Stop, trade,
		"Stay with epoxy, or put a tie coat between that both sheets name.", func(c Case) []hit {
			return coats(c, func(i int, s Step) say.Sentence {
				b, name := c.under(i)
				if b == product.Epoxy && (s.Sheet.Binder == product.Polyester || s.Sheet.Binder == product.VinylEster) {
					return say.Of("%s over %s will not bond.", s.Sheet.Name, name)
				}
				return nil
			})
		}},
	{"one-part-under-strong-solvent", "One-part coating under a strong solvent", "The solvent of a two-part coating lifts and wrinkles one-part paint and varnish.", Stop, trade,
		"Strip the one-part coating, or stay with one-part coatings over it.", func(c Case) []hit {
			return coats(c, func(i int, s Step) say.Sentence {
				b, name := c.under(i)
				soft := b == product.Alkyd || b == product.Oil || b == product.Acrylic
				if k := c.below(i); k >= 0 && c.Steps[k].Sheet.Kind.Info().Antifouling && s.Sheet.Kind.Info().Antifouling {
					return nil // antifoulings are made to melt into their own kind
				}
				if soft && s.Sheet.StrongSolvent {
					return say.Of("The solvent of %s lifts %s.", s.Sheet.Name, name)
				}
				return nil
			})
		}},
	{"oil-under-film", "Oil under a film", "Oil keeps bleeding out: films over it cure slowly and let go.", Warning, trade,
		"Leave the wood oiled, or scrape and degrease it until it takes water evenly.", func(c Case) []hit {
			return coats(c, func(i int, s Step) say.Sentence {
				if b, name := c.under(i); b == product.Oil && s.Sheet.Binder != product.Oil && !s.Sheet.StrongSolvent {
					return say.Of("%s holds badly on %s.", s.Sheet.Name, name)
				}
				return nil
			})
		}},
	{"silicone-near", "Anything over silicone", "Nothing bonds to silicone but silicone.", Stop, trade,
		"Remove it wholly first, with its tools kept apart.", func(c Case) []hit {
			return coats(c, func(i int, s Step) say.Sentence {
				if b, name := c.under(i); b == product.Silicone && s.Sheet.Binder != product.Silicone {
					return say.Of("%s does not stick to %s.", s.Sheet.Name, name)
				}
				return nil
			})
		}},
	{"underwater", "Not made for standing under water", "Two-part topcoats, varnishes and deck paints blister when they never dry out.", Stop, trade,
		"End under the waterline with a barrier or antifouling.", func(c Case) []hit {
			if !c.underwater() || c.Part == area.BootTop {
				return nil
			}
			last := c.below(len(c.Steps))
			if last < 0 {
				return nil
			}
			if s := c.Steps[last]; !s.Sheet.Underwater && !s.Sheet.Kind.Info().Filler {
				return []hit{{last, say.Of("%s is not made to stand under water.", s.Sheet.Name)}}
			}
			return nil
		}},
	{"antifouling-on-bare-metal", "Antifouling on bare metal", "It neither holds nor keeps the water off; copper eats the metal under it.", Stop, trade,
		"Build up an epoxy metal primer and a barrier first.", func(c Case) []hit {
			if !c.Substrate.Info().Metal {
				return nil
			}
			return coats(c, func(i int, s Step) say.Sentence {
				if s.Sheet.Kind.Info().Antifouling && c.below(i) < 0 && bareBelow(c, i) {
					return say.Of("%s lies on bare %s.", s.Sheet.Name, c.Substrate.Info().Name)
				}
				return nil
			})
		}},
	{"copper-near-aluminium", "Copper near aluminium", "Copper in sea water dissolves aluminium at every scratch.", Stop, trade,
		"Use a copper-free antifouling on aluminium, also beside aluminium fittings.", func(c Case) []hit {
			if c.Substrate != survey.Aluminium {
				return nil
			}
			return coats(c, func(_ int, s Step) say.Sentence {
				if s.Sheet.Copper {
					return say.Of("%s holds copper, and this is aluminium.", s.Sheet.Name)
				}
				return nil
			})
		}},
	{"porous-unsealed", "Porous filler left unsealed", "Light filler drinks water and the next coat: it must be sealed with primer.", Warning, trade,
		"Put a primer, tie coat or barrier straight over it.", func(c Case) []hit {
			return coats(c, func(i int, s Step) say.Sentence {
				if !s.Sheet.Porous {
					return nil
				}
				for k := i + 1; k < len(c.Steps); k++ {
					n := c.Steps[k]
					if !n.Films() || n.Sheet.Kind.Info().Filler {
						continue
					}
					if n.Sheet.Kind.Info().Seals {
						return nil
					}
					return say.Of("%s goes straight over porous filler; seal it with a primer first.", n.Sheet.Name)
				}
				return say.Of("Nothing seals the porous filler.")
			})
		}},
	{"filler-solvent-wiped", "Filler wiped with solvent", "Solvent soaks into the filler and comes out under the next coat.", Warning, sheet,
		"Wash it with water, or dust it off and wipe it dry.", func(c Case) []hit {
			return each(c, func(i int, s Step) say.Sentence {
				if s.Work == step.Degrease && s.Agent != "detergent" {
					if k := c.below(i); k >= 0 && c.Steps[k].Sheet.NoSolventWipe {
						return say.Of("The sheet of %s forbids wiping it with solvent.", c.Steps[k].Sheet.Name)
					}
				}
				return nil
			})
		}},
	{"blush-not-washed", "Blush not washed off before sanding", "Sanding rubs the amine blush in; the next coat lets go or stays soft.", Warning, trade,
		"Wash with warm water and detergent before sanding, or use peel ply.", func(c Case) []hit {
			return each(c, func(i int, s Step) say.Sentence {
				k := c.below(i)
				if s.Work != step.Sand || k < 0 || !c.Steps[k].Sheet.Blushes {
					return nil
				}
				if _, washed := c.between(k, i, step.Wash); washed {
					return nil
				}
				return say.Of("%s blushes: wash it before it is sanded.", c.Steps[k].Sheet.Name)
			})
		}},
	{"left-to-the-sun", "Laminate or epoxy left to the sun", "Ultraviolet light chalks epoxy and bare laminate within weeks.", Warning, trade,
		"Finish with a coat that stands the sun.", func(c Case) []hit {
			if !c.inTheSun() || c.Sheltered {
				return nil
			}
			last := c.below(len(c.Steps))
			if last < 0 {
				return nil
			}
			if s := c.Steps[last]; s.Sheet.NeedsCover {
				return []hit{{last, say.Of("%s is the last coat and the sun gets at it.", s.Sheet.Name)}}
			}
			return nil
		}},
	{"bare-steel-overnight", "Bare steel left overnight", "Blasted or ground steel rusts within hours; the rust works under every coat.", Warning, trade,
		"Prime the same day: no step but washing and masking between the bare steel and its primer.", func(c Case) []hit {
			if c.Substrate != survey.Steel && c.Substrate != survey.CastIron {
				return nil
			}
			bare, first := -1, slices.IndexFunc(c.Steps, Step.Films)
			for i, s := range c.Steps {
				if (s.Work == step.Strip || s.Work == step.Sand) && (first < 0 || i < first) {
					bare = i
				}
			}
			switch {
			case bare >= 0 && first < 0:
				return []hit{{bare, say.Of("Nothing covers the bare steel afterwards.")}}
			case first >= 0 && !c.Steps[first].Sheet.Kind.Info().Metal && bareBelow(c, first):
				return []hit{{first, say.Of("The first coat on steel is %s, no metal primer.", c.Steps[first].Sheet.Name)}}
			}
			return nil
		}},
	{"least-total", "Total film under what protects", "A barrier keeps water out, and a varnish the sun, only from a certain thickness on.", Warning, sheet,
		"Add a coat, or lay each thicker within its range.", func(c Case) []hit {
			total, last, least := map[product.Kind]float64{}, map[product.Kind]int{}, map[product.Kind]float64{}
			for i, s := range c.Steps {
				if s.Films() && s.Sheet.LeastTotalUm > 0 {
					k := s.Sheet.Kind
					total[k] += s.DFTUm * float64(s.Coats)
					last[k], least[k] = i, max(least[k], s.Sheet.LeastTotalUm)
				}
			}
			var out []hit
			for k, i := range last {
				if total[k] < least[k] {
					out = append(out, hit{i, say.Of("%g µm of %s in all; it protects from %g µm on.", total[k], k.Name(), least[k])})
				}
			}
			return out
		}},
	{"few-uv-coats", "Too few coats against the sun", "Each micrometre of clear film stops a share of the ultraviolet light; under 95 % stopped the wood greys and the film lets go.", Warning, "Beer-Lambert with the sheet's absorbance; 95 % is a rule of thumb",
		"Add coats; five to seven is usual in the sun.", func(c Case) []hit {
			if !c.inTheSun() || !c.Substrate.Info().Wood {
				return nil
			}
			absorb, last := 0.0, -1
			for i, s := range c.Steps {
				if s.Films() && s.Sheet.UVPerUm > 0 {
					absorb += s.Sheet.UVPerUm * s.DFTUm * float64(s.Coats)
					last = i
				} else if s.Films() && s.Sheet.HidingUm > 0 {
					return nil // a coat of colour covers it
				}
			}
			if stopped := 1 - math.Exp(-absorb); last >= 0 && stopped < 0.95 {
				return []hit{{last, say.Of("The clear coats stop %.0f %% of the ultraviolet light; 95 %% is wanted.", 100*stopped)}}
			}
			return nil
		}},
	{"sag", "Wet film over the sag limit", "More runs, and traps solvent.", Warning, sheet,
		"Lay it thinner in one more coat.", func(c Case) []hit {
			return coats(c, func(_ int, s Step) say.Sentence {
				limit, how := s.Sheet.SagUprightUm, "upright"
				if c.TiltDeg > 120 {
					limit, how = s.Sheet.SagOverheadUm, "overhead"
				}
				if c.TiltDeg < 45 || limit == 0 || s.WetUm() <= limit {
					return nil
				}
				return say.Of("%.0f µm wet sags %s: the sheet allows %g µm.", s.WetUm(), how, limit)
			})
		}},
	{"hides", "A colour thinner than hides", "The colour or the patches below grin through.", Note, sheet,
		"Add a coat of this colour.", func(c Case) []hit {
			return coats(c, func(i int, s Step) say.Sentence {
				total := s.DFTUm * float64(s.Coats)
				if s.Sheet.HidingUm == 0 || total >= s.Sheet.HidingUm || !s.Sheet.Kind.Info().Hides {
					return nil
				}
				return say.Of("%g µm of this colour; it hides from %g µm: %d coats of %g µm.", total, s.Sheet.HidingUm, int(math.Ceil(s.Sheet.HidingUm/s.DFTUm)), s.DFTUm)
			})
		}},
	{"grit-step", "A grit too far from the one before", "Scratches of one grit are only taken out by one up to 1.65 times finer; a skipped one shows through the last coat.", Note, "FEPA P grades; 1.65 is a rule of thumb",
		"Put the grit between in.", func(c Case) []hit {
			last, lastAt := 0, -1
			return each(c, func(i int, s Step) say.Sentence {
				if s.Films() {
					last = 0
				}
				if s.Work != step.Sand || s.Grit == 0 {
					return nil
				}
				var text say.Sentence
				if last > 0 && lastAt >= 0 && sand.Median(last)/sand.Median(s.Grit) > 1.65 {
					text = say.Of("From %d to %d skips a grit.", last, s.Grit)
				}
				last, lastAt = s.Grit, i
				return text
			})
		}},
	{"grit-for-coat", "A grit too coarse or too fine for what follows", "Too coarse shows through; too fine gives no key.", Warning, "usual ladders of the trade",
		"Sand with a grit from the range before this coat.", func(c Case) []hit {
			return coats(c, func(i int, s Step) say.Sentence {
				lo, hi := s.Sheet.Kind.Info().FromGrit, s.Sheet.Kind.Info().ToGrit
				for k := i - 1; k > c.below(i); k-- {
					if p := c.Steps[k]; p.Work == step.Sand && p.Grit > 0 {
						if p.Grit < lo || p.Grit > hi {
							return say.Of("Sanded with %d before %s; %d to %d is usual.", p.Grit, s.Sheet.Kind.Name(), lo, hi)
						}
						return nil
					}
				}
				return nil
			})
		}},
	{"filler-pass", "Filler pass too thick", "Thick passes slump, trap air and heat, and shrink into hollows.", Warning, sheet,
		"Fill in more, thinner passes.", func(c Case) []hit {
			return coats(c, func(_ int, s Step) say.Sentence {
				if most := s.Sheet.MaxPassMM; most > 0 && s.DFTUm > 1000*most {
					return say.Of("%.3g mm a pass; the sheet allows %g mm.", s.DFTUm/1000, most)
				}
				return nil
			})
		}},
	{"air-seal", "Last gelcoat without a seal from the air", "Air keeps the surface of polyester tacky for good.", Stop, trade,
		"Use waxed gelcoat for the last coat, or seal it with film or PVA.", func(c Case) []hit {
			last := c.below(len(c.Steps))
			if last >= 0 && c.Steps[last].Sheet.AirInhibited && !c.Steps[last].Sheet.Waxed {
				return []hit{{last, say.Of("%s is the last coat and holds no wax.", c.Steps[last].Sheet.Name)}}
			}
			return nil
		}},
	{"holes-after-coating", "Holes and open defects after coating", "Holes drilled through a finished coat let water under it.", Note, trade,
		"Fill and seal the defects before the first coat; put a filling step in.", func(c Case) []hit {
			if c.OpenDefects == 0 || c.below(len(c.Steps)) < 0 || slices.ContainsFunc(c.Steps, func(s Step) bool {
				return s.Work == step.Fill || s.Work == step.Fair || s.Sheet.Kind.Info().Filler
			}) {
				return nil
			}
			return []hit{{slices.IndexFunc(c.Steps, Step.Films), say.Of("%d defects wait on this surface and no step fills them.", c.OpenDefects)}}
		}},
	{"sand-through", "Sand-through margin", "Sanding more than lies above the layer that must stay goes into it.", Warning, "film planned less film removed",
		"Sand less, or lay a coat more before it.", func(c Case) []hit {
			above, known := c.Findings.AboveStop()
			if len(c.Findings.Layers) == 0 {
				above, known = 0, true
			}
			return each(c, func(_ int, s Step) say.Sentence {
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
					return say.Of("It takes %g µm of the %.3g µm that may go.", s.RemovedUm, before)
				}
				return nil
			})
		}},
	{"film-range", "Film outside the sheet's range", "Thinner may not cover or protect, thicker may sag and trap solvent.", Warning, sheet,
		"Lay each coat within the range.", func(c Case) []hit {
			return coats(c, func(_ int, s Step) say.Sentence {
				switch f := s.Sheet.Film; {
				case s.DFTUm < f.MinUm:
					return say.Of("Thinner than the sheet's least film of %g µm a coat: it may not cover or protect.", f.MinUm)
				case s.DFTUm > f.MaxUm:
					return say.Of("Thicker than the sheet's greatest film of %g µm a coat: it may sag and trap solvent.", f.MaxUm)
				}
				return nil
			})
		}},
	{"thinner", "More thinner than allowed", "Too much thinner makes it run, and leaves a thin, weak film.", Warning, sheet,
		"Thin less.", func(c Case) []hit {
			return coats(c, func(_ int, s Step) say.Sentence {
				if s.ThinnerPct > s.Sheet.ThinnerMaxPct {
					return say.Of("More thinner than the sheet's %g %% allows.", s.Sheet.ThinnerMaxPct)
				}
				return nil
			})
		}},
	{"shelf-life", "Product outside its shelf life", "Old hardener cures soft, old antifouling settles hard, old gelcoat gels in the tin.", Warning, sheet,
		"Mix and cure a spoonful first, or buy fresh.", func(c Case) []hit {
			return coats(c, func(_ int, s Step) say.Sentence {
				if s.ExpiredOn == "" {
					return nil
				}
				return say.Of("All of it on the shelf is past its shelf life, the last since %s.", s.ExpiredOn)
			})
		}},
	{"method", "Laid otherwise than the sheet says", "Film, flow and solvent are made for the tools that the sheet names.", Note, sheet,
		"Choose one of the sheet's methods.", func(c Case) []hit {
			return coats(c, func(_ int, s Step) say.Sentence {
				if len(s.Sheet.Methods) == 0 || slices.Contains(s.Sheet.Methods, s.Method) {
					return nil
				}
				m, _ := film.MethodByKey(s.Method)
				return say.Of("The sheet does not list %s as a way to lay it.", m.Name)
			})
		}},
}

// bareBelow reports whether step i meets the bare substrate: there are no old
// layers, or they were stripped before.
func bareBelow(c Case, i int) bool {
	_, stripped := c.between(-1, i, step.Strip)
	return stripped || len(c.Findings.Layers) == 0
}
