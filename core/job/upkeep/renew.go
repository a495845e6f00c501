package upkeep

import (
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
)

// How a film is renewed: over a scuff of renewGrit that takes renewUm, µm, by two coats of varnish and
// antifouling, one of other finishes that shine. Rules of thumb.
const (
	renewGrit  = 320
	renewUm    = 8
	renewCoats = 2
)

// Renewal is the work that renews a film of a product laid in a way, before it is gone: a wash, a scuff
// and coats of its usual film.
func Renewal(s product.Sheet, method string) []step.Step {
	coats := renewCoats
	if s.Kind.Info().Gloss && s.Kind != product.Varnish {
		coats = 1
	}
	return []step.Step{
		{Work: step.Wash, Agent: step.Wash.Kind().Usual.Agent},
		{Work: step.Sand, Grit: renewGrit, RemovedUm: renewUm},
		{Work: step.Coat, Coats: coats, DFTUm: s.Film.TypicalUm, Method: method},
	}
}
