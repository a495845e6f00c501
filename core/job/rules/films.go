package rules

import (
	"math"
	"slices"

	"allcoats/core/base/message"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
)

// layer is a film of the stack with what is left of it, µm; Step is −1 of an old one.
type layer struct {
	step int
	old  survey.Layer
	um   float64
}

// stack is what lies on the substrate after the steps, from it outward, less what sanding took.
func (c Case) stack() (out []layer) {
	for _, l := range c.Findings.Layers {
		out = append(out, layer{-1, l, l.Um})
	}
	for i, s := range c.Steps {
		switch {
		case s.Work == step.Strip:
			out = out[:0]
		case s.Films():
			out = append(out, layer{step: i, um: s.DFTUm * float64(s.Coats)})
		case s.Work.Kind().Removes:
			for k, um := len(out)-1, s.RemovedUm; k >= 0 && um > 0; k-- {
				off := min(um, out[k].um)
				out[k].um, um = out[k].um-off, um-off
			}
		}
	}
	return out
}

// net is what is left of a step's film, µm.
func (c Case) net(at int) float64 {
	for _, l := range c.stack() {
		if l.step == at {
			return l.um
		}
	}
	return 0
}

// oldVarnish is the sound varnish that is left under the steps, µm.
func (c Case) oldVarnish() (um float64) {
	for _, l := range c.stack() {
		if l.step < 0 && l.old.Kind == survey.OldVarnish && l.old.Soundness == survey.Sound {
			um += l.um
		}
	}
	return um
}

// usualUVPerUm is the absorbance of old varnish, whose sheet is not known: a rule of thumb.
const usualUVPerUm = 0.0155

// more lays so many coats more.
func (c Case) more(at, coats int) *Mend {
	return c.instead(at, message.Of("Lay %d coats of it", c.Steps[at].Coats+coats), func(s *step.Step) { s.Coats += coats })
}

// filmRules are of how thick, how many and how they are laid.
var filmRules = []Rule{
	{ID: "least-total", What: "Total film under what protects",
		Why: "A barrier keeps water out, and a varnish the sun, only from a certain thickness on.", Severity: Warning,
		Source: sheet,
		Fix:    "Add a coat, or lay each thicker within its range.", check: func(c Case) []hit {
			total, last, least := map[product.Kind]float64{}, map[product.Kind]int{}, map[product.Kind]float64{}
			for i, s := range c.Steps {
				if s.Films() && s.Sheet.LeastTotalUm > 0 {
					k := s.Sheet.Kind
					total[k] += c.net(i)
					last[k], least[k] = i, max(least[k], s.Sheet.LeastTotalUm)
				}
			}
			var out []hit
			for k, i := range last {
				if k == product.Varnish {
					total[k] += c.oldVarnish()
				}
				if short := least[k] - total[k]; short > 0.5 {
					out = append(out, hit{step: i,
						text: message.Of("%.0f µm of %s in all, net of sanding; it protects from %g µm on.", total[k],
							k.Name(), least[k]),
						mend: c.more(i, int(math.Ceil(short/max(1, c.Steps[i].DFTUm))))})
				}
			}
			return out
		}},
	{ID: "few-uv-coats", What: "Too few coats against the sun",
		Why: "Each micrometre of clear film stops a share of the ultraviolet light; under 95 % stopped the wood greys and the film lets go.", Severity: Warning, Source: "Beer-Lambert with the sheet's absorbance; 95 % is a rule of thumb",
		Fix: "Add coats; five to seven is usual in the sun.", check: func(c Case) []hit {
			if !c.inTheSun() || !c.Substrate.Info().Wood {
				return nil
			}
			absorb, last := usualUVPerUm*c.oldVarnish(), -1
			for i, s := range c.Steps {
				if s.Films() && s.Sheet.UVPerUm > 0 && s.Sheet.Binder != product.Oil {
					absorb += s.Sheet.UVPerUm * c.net(i)
					last = i
				} else if s.Films() && s.Sheet.HidingUm > 0 {
					return nil // a coat of colour covers it
				}
			}
			stopped := 1 - math.Exp(-absorb)
			if last < 0 || stopped >= 0.95 {
				return nil
			}
			s := c.Steps[last]
			return []hit{{step: last,
				text: message.Of("The clear coats stop %.0f %% of the ultraviolet light; 95 %% is wanted.",
					100*stopped),
				mend: c.more(last, int(math.Ceil((math.Log(20)-absorb)/(s.Sheet.UVPerUm*max(1, s.DFTUm)))))}}
		}},
	{ID: "sag", What: "Wet film over the sag limit", Why: "More runs, and traps solvent.", Severity: Warning,
		Source: sheet,
		Fix:    "Lay it thinner in one more coat.", check: func(c Case) []hit {
			limit := func(s Step) (um float64, how string) {
				if c.TiltDeg > 120 {
					return s.Sheet.SagOverheadUm, "overhead"
				}
				return s.Sheet.SagUprightUm, "upright"
			}
			return mended(coats(c, func(_ int, s Step) message.Sentence {
				um, how := limit(s)
				if c.TiltDeg < 45 || um == 0 || s.WetUm() <= um {
					return nil
				}
				return message.Of("%.0f µm wet sags %s: the sheet allows %g µm.", s.WetUm(), how, um)
			}), func(at int) *Mend {
				s := c.Steps[at]
				um, _ := limit(s)
				dry, total := math.Floor(s.DFTUm*um/s.WetUm()), s.DFTUm*float64(s.Coats)
				return c.instead(at, message.Of("Lay %g µm a coat, in %d coats", dry,
					int(math.Ceil(total/max(1, dry)))), func(s *step.Step) {
					s.DFTUm, s.Coats = dry, int(math.Ceil(total/max(1, dry)))
				})
			})
		}},
	{ID: "hides", What: "A colour thinner than hides",
		Why:      "The colour or the patches below grin through; a gloss coat sanded through loses its stabilisers too.",
		Severity: Note, Source: sheet,
		Fix: "Add a coat of this colour, or sand less of it.", check: func(c Case) []hit {
			return mended(coats(c, func(i int, s Step) message.Sentence {
				total, net := s.DFTUm*float64(s.Coats), c.net(i)
				if s.Sheet.HidingUm == 0 || !s.Sheet.Kind.Info().Hides || net >= s.Sheet.HidingUm {
					return nil
				}
				if net < total-0.5 {
					return message.Of(
						"%g µm of this colour are laid and %.0f µm net are left after sanding; it hides from %g µm.",
						total, net, s.Sheet.HidingUm)
				}
				return message.Of("%g µm of this colour; it hides from %g µm: %d coats of %g µm.", total,
					s.Sheet.HidingUm, int(math.Ceil(s.Sheet.HidingUm/s.DFTUm)), s.DFTUm)
			}), func(at int) *Mend {
				s := c.Steps[at]
				return c.more(at, int(math.Ceil((s.Sheet.HidingUm-c.net(at))/max(1, s.DFTUm))))
			})
		}},
	{ID: "filler-pass", What: "Filler pass too thick",
		Why: "Thick passes slump, trap air and heat, and shrink into hollows.", Severity: Warning, Source: sheet,
		Fix: "Fill in more, thinner passes.", check: func(c Case) []hit {
			return mended(coats(c, func(_ int, s Step) message.Sentence {
				if most := s.Sheet.MaxPassMM; most > 0 && s.DFTUm > 1000*most {
					return message.Of("%.3g mm a pass; the sheet allows %g mm.", s.DFTUm/1000, most)
				}
				return nil
			}), func(at int) *Mend {
				s := c.Steps[at]
				n := int(math.Ceil(s.DFTUm * float64(s.Coats) / (1000 * s.Sheet.MaxPassMM)))
				return c.instead(at, message.Of("Fill in %d passes", n), func(t *step.Step) { t.DFTUm, t.Coats = s.DFTUm*float64(s.Coats)/float64(n), n })
			})
		}},
	{ID: "one-colour-barrier", What: "A barrier of one colour",
		Why:      "Where every coat has the same colour a miss is not seen, and no ring tells how deep a sanding went.",
		Severity: Note, Source: trade,
		Fix: "Change the colour with every coat, or at least half way.", check: func(c Case) []hit {
			coats, last, colours := 0, -1, map[string]bool{}
			for i, s := range c.Steps {
				if s.Films() && s.Sheet.Kind == product.Barrier {
					coats, last = coats+s.Coats, i
					colours[s.Colour] = true
				}
			}
			if coats < 2 || len(colours) > 1 {
				return nil
			}
			h := hit{step: last, text: message.Of("All %d coats of barrier have one colour.", coats)}
			if n := c.Steps[last].Coats; n > 1 {
				one, two := Want{Step: c.Steps[last].Step, From: last}, Want{Step: c.Steps[last].Step, From: last}
				one.Coats, one.Colour, two.Coats, two.Colour = (n+1)/2, "grey", n/2, "green"
				h.mend = &Mend{Says: message.Lit("Lay it in two colours"), At: last, Take: 1, Steps: []Want{one, two}}
			}
			return []hit{h}
		}},
	{ID: "film-range", What: "Film outside the sheet's range",
		Why: "Thinner may not cover or protect, thicker may sag and trap solvent.", Severity: Warning, Source: sheet,
		Fix: "Lay each coat within the range.", check: func(c Case) []hit {
			return mended(coats(c, func(_ int, s Step) message.Sentence {
				switch f := s.Sheet.Film; {
				case s.DFTUm < f.MinUm:
					return message.Of(
						"Thinner than the sheet's least film of %g µm a coat: it may not cover or protect.", f.MinUm)
				case s.DFTUm > f.MaxUm:
					return message.Of(
						"Thicker than the sheet's greatest film of %g µm a coat: it may sag and trap solvent.", f.MaxUm)
				}
				return nil
			}), func(at int) *Mend {
				s := c.Steps[at]
				um := min(max(s.DFTUm, s.Sheet.Film.MinUm), s.Sheet.Film.MaxUm)
				return c.instead(at, message.Of("Lay %g µm a coat", um), func(t *step.Step) {
					t.DFTUm, t.Coats = um, max(t.Coats, int(math.Ceil(s.DFTUm*float64(s.Coats)/um)))
				})
			})
		}},
	{ID: "thinner", What: "More thinner than allowed",
		Why: "Too much thinner makes it run, and leaves a thin, weak film.", Severity: Warning, Source: sheet,
		Fix: "Thin less.", check: func(c Case) []hit {
			return mended(coats(c, func(_ int, s Step) message.Sentence {
				if s.ThinnerPct > s.Sheet.ThinnerMaxPct {
					return message.Of("More thinner than the sheet's %g %% allows.", s.Sheet.ThinnerMaxPct)
				}
				return nil
			}), func(at int) *Mend {
				most := c.Steps[at].Sheet.ThinnerMaxPct
				return c.instead(at, message.Of("Thin with %g %%", most), func(s *step.Step) { s.ThinnerPct = most })
			})
		}},
	{ID: "thinner-kind", What: "Thinner or hardener of another kind",
		Why: "A thinner that does not belong throws the binder out of solution, keeps it soft or eats what is below; another hardener has another ratio.", Severity: Warning, Source: sheet,
		Fix: "Take what the sheet names.", check: func(c Case) []hit {
			return mended(coats(c, func(_ int, s Step) message.Sentence {
				switch {
				case s.Thinner != "" && s.Sheet.ThinnerName != "" && !alike(s.Thinner, s.Sheet.ThinnerName):
					return message.Of("%s is not the thinner for it: the sheet names %s.", s.Thinner,
						s.Sheet.ThinnerName)
				case s.Thinner != "" && s.Sheet.ThinnerMaxPct == 0:
					return message.Of("The sheet lets no thinner in, and %s is named.", s.Thinner)
				}
				return nil
			}), func(at int) *Mend {
				name := c.Steps[at].Sheet.ThinnerName
				return c.instead(at, message.Of("Thin with %s", name), func(s *step.Step) { s.Thinner = name })
			})
		}},
	{ID: "shelf-life", What: "Product outside its shelf life",
		Why: "Old hardener cures soft, old antifouling settles hard, old gelcoat gels in the tin.", Severity: Warning,
		Source: sheet,
		Fix:    "Mix and cure a spoonful first, or buy fresh.", check: func(c Case) []hit {
			return coats(c, func(_ int, s Step) message.Sentence {
				if s.ExpiredOn == "" {
					return nil
				}
				return message.Of("All of it on the shelf is past its shelf life, the last since %s.", s.ExpiredOn)
			})
		}},
	{ID: "method", What: "Laid otherwise than the sheet says",
		Why: "Film, flow and solvent are made for the tools that the sheet names.", Severity: Note, Source: sheet,
		Fix: "Choose one of the sheet's methods.", check: func(c Case) []hit {
			return mended(coats(c, func(_ int, s Step) message.Sentence {
				if len(s.Sheet.Methods) == 0 || slices.Contains(s.Sheet.Methods, s.Method) {
					return nil
				}
				m, _ := film.MethodByKey(s.Method)
				return message.Of("The sheet does not list %s as a way to lay it.", m.Name)
			}), func(at int) *Mend {
				first := c.Steps[at].Sheet.Methods[0]
				m, _ := film.MethodByKey(first)
				return c.instead(at, message.Of("Lay it by %s", m.Name), func(s *step.Step) { s.Method = first })
			})
		}},
}
