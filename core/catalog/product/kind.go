package product

import (
	"allcoats/core/base/message"
	"slices"
)

// Kind is what a product is for.
type Kind string

// Kinds of products.
const (
	Fairing      Kind = "fairing-compound"
	TieCoat      Kind = "tie-coat"
	Barrier      Kind = "barrier"
	MetalPrimer  Kind = "metal-primer"
	HighBuild    Kind = "high-build-primer"
	Undercoat    Kind = "undercoat"
	TopcoatOne   Kind = "topcoat-one-part"
	TopcoatTwo   Kind = "topcoat-two-part"
	Gelcoat      Kind = "gelcoat"
	WoodSealer   Kind = "wood-sealer"
	Varnish      Kind = "varnish"
	NonSkidPaint Kind = "non-skid-paint"
	NonSkidGrit  Kind = "non-skid-grit"
	SoftAntifoul Kind = "antifouling-soft"
	HardAntifoul Kind = "antifouling-hard"
	Thinner      Kind = "thinner"
)

// AnyKind is the Over of a window that holds for every kind not listed.
const AnyKind Kind = "any"

// KindInfo is all that rules and screens ask of a kind of product.
type KindInfo struct {
	Kind Kind   `json:"kind"`
	Name string `json:"name"`
	// Coat leaves a film.
	Coat bool `json:"coat"`
	// Metered is laid by measured lows, a notch or a scale: what one's coats take of paint tells
	// nothing of it.
	Metered bool `json:"-"`
	// Filler is trowelled into lows and drinks what goes over it; Seals closes it.
	Filler bool `json:"filler"`
	Seals  bool `json:"seals"`
	// Metal goes on bare metal; OnMetal is of the system over it.
	Metal   bool `json:"metal"`
	OnMetal bool `json:"onMetal"`
	// Antifouling keeps growth off; Wears does so by wearing away; Ties is what it ties to.
	Antifouling bool `json:"antifouling"`
	Wears       bool `json:"wears"`
	Ties        bool `json:"ties"`
	// Clear lets the wood be seen; Gloss shows every spot; Hides covers what is below by
	// its colour.
	Clear bool `json:"clear"`
	Gloss bool `json:"gloss"`
	Hides bool `json:"hides"`
	// Practice wants a try on the smallest piece first; Grit is sown with.
	Practice bool `json:"practice"`
	Grit     bool `json:"grit"`
	// FromGrit to ToGrit are the usual grits before a coat of it.
	FromGrit int `json:"fromGrit"`
	ToGrit   int `json:"toGrit"`
	// Years is how long it keeps its looks in the open where only its kind tells, a rule of
	// thumb; 0 if the film or the season tells, or nothing does.
	Years float64 `json:"years"`
}

// Kinds lists every kind in the order of the work.
var Kinds = []KindInfo{
	{Kind: MetalPrimer, Name: "metal primer", Coat: true, Seals: true, Metal: true, OnMetal: true, FromGrit: 60,
		ToGrit: 220},
	{Kind: WoodSealer, Name: "wood sealer", Coat: true, Seals: true, FromGrit: 120, ToGrit: 400},
	{Kind: Fairing, Name: "fairing compound", Coat: true, Filler: true, Metered: true, FromGrit: 36, ToGrit: 120},
	{Kind: Barrier, Name: "barrier coat", Coat: true, Seals: true, OnMetal: true, Ties: true, FromGrit: 60,
		ToGrit: 220},
	{Kind: HighBuild, Name: "high-build primer", Coat: true, Seals: true, OnMetal: true, FromGrit: 60, ToGrit: 220},
	{Kind: TieCoat, Name: "tie coat", Coat: true, Seals: true, Ties: true, FromGrit: 60, ToGrit: 220},
	{Kind: Undercoat, Name: "undercoat", Coat: true, FromGrit: 80, ToGrit: 320},
	{Kind: TopcoatOne, Name: "one-part topcoat", Coat: true, Gloss: true, Hides: true, FromGrit: 220, ToGrit: 400,
		Years: 4},
	{Kind: TopcoatTwo, Name: "two-part topcoat", Coat: true, Gloss: true, Hides: true, FromGrit: 220, ToGrit: 400,
		Years: 8},
	{Kind: Gelcoat, Name: "gelcoat", Coat: true, Hides: true, Practice: true, FromGrit: 60, ToGrit: 180, Years: 8},
	{Kind: Varnish, Name: "varnish", Coat: true, Clear: true, Gloss: true, FromGrit: 120, ToGrit: 400},
	{Kind: NonSkidPaint, Name: "textured non-skid", Coat: true, Metered: true, Hides: true, Practice: true,
		FromGrit: 80, ToGrit: 320, Years: 4},
	{Kind: NonSkidGrit, Name: "broadcast grit system", Coat: true, Practice: true, Grit: true, FromGrit: 60,
		ToGrit: 220},
	{Kind: SoftAntifoul, Name: "soft antifouling", Coat: true, Antifouling: true, Wears: true, FromGrit: 80,
		ToGrit: 180},
	{Kind: HardAntifoul, Name: "hard antifouling", Coat: true, Antifouling: true, FromGrit: 80, ToGrit: 180},
	{Kind: Thinner, Name: "thinner"},
}

// Info returns what there is to know of k, not to be changed; its name and the usual
// grits for a kind that is none.
func (k Kind) Info() *KindInfo {
	i := slices.IndexFunc(Kinds, func(n KindInfo) bool { return n.Kind == k })
	if i < 0 {
		return &KindInfo{Kind: k, Name: string(k), FromGrit: 80, ToGrit: 320}
	}
	return &Kinds[i]
}

// Order is the place of k in the order of the work, past the last of Kinds for a kind that is none.
func (k Kind) Order() int {
	if i := slices.IndexFunc(Kinds, func(n KindInfo) bool { return n.Kind == k }); i >= 0 {
		return i
	}
	return len(Kinds)
}

// Name returns the kind in words.
func (k Kind) Name() string { return k.Info().Name }

// Say is the name as a sentence has it.
func (k Kind) Say() message.Sentence { return message.Lit(k.Name()) }

// betweenGloss is the coarsest grit between coats that show every scratch.
const betweenGloss = 220

// Grits are the usual grits before a coat of k on a film of another kind.
func (k Kind) Grits(over Kind) (from, to int) {
	from, to = k.Info().FromGrit, k.Info().ToGrit
	if k.Info().Gloss && over.Info().Gloss {
		from = max(from, betweenGloss)
	}
	return from, to
}
