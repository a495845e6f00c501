package ledger

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Two sandings of May are one line; June's, and another's, are their own.
func TestLinesAreMerged(t *testing.T) {
	sand := func(who, month string, h float64) Line {
		return Line{What: "sand", Surface: "Deck", Who: who, Month: month,
			Sum: Sum{Entries: 1, DoneH: h, PlannedH: h / 2}}
	}
	got := Lines{sand("Ada", "2026-06", 1), sand("Ada", "2026-05", 2), sand("Bo", "2026-05", 4),
		sand("Ada", "2026-05", 8),
		{What: "varnish", Surface: "Rails", Month: "", Sum: Sum{ToComeH: 3, MaterialToCome: 700}},
		{What: "yard rent", Month: "2026-05", Sum: Sum{Entries: 1, Other: 12000}}}.Merged()
	assert.Equal(t, Lines{
		{What: "varnish", Surface: "Rails", Sum: Sum{ToComeH: 3, MaterialToCome: 700}},
		{What: "yard rent", Month: "2026-05", Sum: Sum{Entries: 1, Other: 12000}},
		{What: "sand", Surface: "Deck", Who: "Ada", Month: "2026-05", Sum: Sum{Entries: 2, DoneH: 10, PlannedH: 5}},
		{What: "sand", Surface: "Deck", Who: "Bo", Month: "2026-05", Sum: Sum{Entries: 1, DoneH: 4, PlannedH: 2}},
		{What: "sand", Surface: "Deck", Who: "Ada", Month: "2026-06", Sum: Sum{Entries: 1, DoneH: 1, PlannedH: 0.5}},
	}, got)
	assert.Equal(t, Sum{Entries: 5, DoneH: 15, PlannedH: 7.5, ToComeH: 3, MaterialToCome: 700, Other: 12000}, got.Sum())
}

// Four tasks of 10 h, a quarter off each: 40 h, √(4 · 2.5²) = 5 of their own, 4.8 shared.
func TestHoursToComeAreARange(t *testing.T) {
	one := Unsure{10, 0.25}
	u := Hours([]Unsure{one, one, one, one})
	assert.InDelta(t, 40, u.Mean, 1e-9)
	assert.InDelta(t, 6.931, u.SD, 1e-3)
	low, high := u.Range()
	assert.InDelta(t, 40-8.883, low, 1e-2)
	assert.InDelta(t, 40+8.883, high, 1e-2)
	money := u.Times(2500).Plus(Unsure{30_000, 10_000})
	assert.InDelta(t, 130_000, money.Mean, 1e-6)
	assert.InDelta(t, 20_000, money.SD, 20)
	low, high = Between(50, 40, 60).Range()
	assert.InDelta(t, 40, low, 1e-9)
	assert.InDelta(t, 60, high, 1e-9)
	low, _ = Unsure{1, 5}.Range()
	assert.Zero(t, low)
}
