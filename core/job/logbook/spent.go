package logbook

import (
	"slices"

	"allcoats/core/base/fielderr"
)

// Spent is money that went for what is no coating. Coatings are reckoned by their litres.
type Spent struct {
	On    Expense `json:"on" enum:"abrasives,tools,hire,rent,fittings,shop,transport,other"`
	Cents float64 `json:"cents"`
}

// Expense is a kind of it.
type Expense string

// ExpenseKind is one with its name.
type ExpenseKind struct {
	On   Expense `json:"on"`
	Name string  `json:"name"`
}

// Expenses lists the kinds.
var Expenses = []ExpenseKind{{"abrasives", "tape, paper and discs"}, {"tools", "tools and wear"}, {"hire", "hire"},
	{"rent", "yard rent"}, {"fittings", "fittings"}, {"shop", "work of others"},
	{"transport", "transport"}, {"other", "other expenses"}}

// Name is the kind in words.
func (e Expense) Name() string {
	if i := slices.IndexFunc(Expenses, func(k ExpenseKind) bool { return k.On == e }); i >= 0 {
		return Expenses[i].Name
	}
	return string(e)
}

// mostCents is the most that one expense may be.
const mostCents = 1e9

func (s *Spent) validate(wanted bool, bad *fielderr.Errors) {
	switch {
	case s == nil && wanted:
		bad.Add("spent.cents", "say how much it was")
	case s != nil:
		if !slices.ContainsFunc(Expenses, func(k ExpenseKind) bool { return k.On == s.On }) {
			bad.Add("spent.on", "say what it was for")
		}
		bad.Above("spent.cents", s.Cents, 0, mostCents, "cents")
	}
}
