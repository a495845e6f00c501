package message

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

func TestIn(t *testing.T) {
	loc := time.FixedZone("quay", 2*3600)
	now := time.Date(2026, 5, 9, 20, 0, 0, 0, time.UTC)
	s := Sentence{Strong("Deck"), Text(": from "), Clock(now.Add(time.Hour), now, loc), Text(" to "),
		Clock(now.Add(3*time.Hour), now, loc), Text(", above "), Val(10, "°C")}
	assert.Equal(t, "Deck: from 23:00 to Sunday 01:00, above 10 °C", s.In(loc))
	assert.True(t, SameDay(now, now.Add(time.Hour), loc))
	assert.False(t, SameDay(now, now.Add(3*time.Hour), loc), "midnight is the place's")
	assert.True(t, SameDay(now, now.Add(3*time.Hour), time.UTC))
}

func TestOf(t *testing.T) {
	val := func(v float64, unit string, digits int) Sentence {
		return Sentence{{Value: &v, Unit: unit, Digits: &digits}}
	}
	text := func(s string) Sentence { return Sentence{{Text: s}} }
	for _, c := range []struct {
		got  Sentence
		key  string
		with []Sentence
		text string
	}{
		{Of("At %.0f °C it asks for %.1f °C.", 4.4, 10.0), "At {0} it asks for {1}.",
			[]Sentence{val(4, "°C", 0), val(10, "°C", 1)}, "At 4 °C it asks for 10.0 °C."},
		{Of("doses from %g °C to %g °C", -5.5, 30.), "doses from {0} to {1}",
			[]Sentence{val(-5.5, "°C", 1), val(30, "°C", 0)}, "doses from -5.5 °C to 30 °C"},
		{Of("10 µm a coat, 12 m²/h; 3 coats"), "{0} a coat, {1}; 3 coats",
			[]Sentence{val(10, "µm", 0), val(12, "m²/h", 0)}, "10 µm a coat, 12 m²/h; 3 coats"},
		{Of("%d pots, %.0f %% at most 25 m/h", 3, 50.), "{0} pots, {1} % at most 25 m/h",
			[]Sentence{text("3"), text("50")}, "3 pots, 50 % at most 25 m/h"},
		{Of("Not so: %v", Of("it is %g K off", 2.0)), "Not so: {0}", []Sentence{Of("it is 2 K off")},
			"Not so: it is 2 K off"},
		{Of("%v waits", Strong("Deck")), "{0} waits", []Sentence{{Strong("Deck")}}, "Deck waits"},
		{Of("mat 2.3 mm thick, %s", "no {0} of %s"), "mat {0} thick, {1}",
			[]Sentence{val(2.3, "mm", 1), text("no {0} of %s")}, "mat 2.3 mm thick, no {0} of %s"},
		{Lit("50 % of it"), "50 % of it", nil, "50 % of it"},
	} {
		assert.Equal(t, Sentence{{Say: c.key, With: c.with}}, c.got, c.text)
		assert.Equal(t, c.text, c.got.String())
	}
	assert.Equal(t, val(1230, "L", 0), Of("%.3g L", 1234.5), "a figure alone has no words to translate")
	assert.Equal(t, Sentence{{Text: "kit of two"}, {Text: ": "}, val(1.2, "m", 1)[0]},
		Of("%s: %.3g m", "kit of two", 1.2))
	assert.Equal(t, "At {0}: {1} of {2}", Key("At %.0f °C: %d of %s"))
	assert.Empty(t, Key("%v, %s: %.1f m"))
	assert.Equal(t, "a, b and c", Join([]Sentence{Of("a"), Join([]Sentence{Of("b"), Of("c")}, " and ")}, ", ").String())
}

func TestLower(t *testing.T) {
	for _, c := range []struct {
		of   Sentence
		want string
	}{
		{Of("Sand first."), "sand first."},
		{Of("%v waits.", Of("Either side")), "either side waits."},
		{Of("%v waits.", Strong("Deck")), "Deck waits."},
		{Of("%s waits.", "Épaisseur"), "épaisseur waits."},
		{Sentence{}, ""},
	} {
		before := c.of.String()
		assert.Equal(t, c.want, c.of.Lower().String())
		assert.Equal(t, before, c.of.String(), "what it was made of stays")
	}
}

func TestList(t *testing.T) {
	assert.Equal(t, "", List([]string{}).String())
	assert.Equal(t, "a", List([]string{"a"}).String())
	assert.Equal(t, "a and b", List([]string{"a", "b"}).String())
	assert.Equal(t, "a, b and c", List([]string{"a", "b", "c"}).String())
}

func TestQuantityHasSixFigures(t *testing.T) {
	q := Quantity(1.23456789, "L")[0]
	assert.Equal(t, 1.23457, *q.Value)
	assert.Equal(t, "L", q.Unit)
	assert.Equal(t, 5, *q.Digits)
}

func TestInstants(t *testing.T) {
	now := time.Date(2026, 5, 9, 12, 0, 0, 0, time.UTC)
	for _, c := range []struct {
		ahead     time.Duration
		day, date bool
	}{{time.Hour, false, false}, {13 * time.Hour, true, false}, {-13 * time.Hour, true, false},
		{6*24*time.Hour - 1, true, false},
		{6 * 24 * time.Hour, false, true}, {-6 * 24 * time.Hour, false, true}} {
		got := Clock(now.Add(c.ahead), now, time.UTC)
		assert.Equal(t, []bool{c.day, c.date}, []bool{got.Day, got.Date}, c.ahead)
	}
	assert.True(t, Date(now).Date)
	assert.False(t, Date(now).Day)
	assert.True(t, On(now).Day && On(now).Date)
	assert.True(t, Strong("her").Strong)
}
