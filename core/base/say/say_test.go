package say

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

func TestIn(t *testing.T) {
	loc := time.FixedZone("quay", 2*3600)
	now := time.Date(2026, 5, 9, 20, 0, 0, 0, time.UTC)
	s := Sentence{Strong("Deck"), Text(": from "), Clock(now.Add(time.Hour), now, loc), Text(" to "), Clock(now.Add(3*time.Hour), now, loc), Text(", above "), Val(10, "°C")}
	assert.Equal(t, "Deck: from 23:00 to Sunday 01:00, above 10 °C", s.In(loc))
	assert.True(t, SameDay(now, now.Add(time.Hour), loc))
	assert.False(t, SameDay(now, now.Add(3*time.Hour), loc), "midnight is the place's")
	assert.True(t, SameDay(now, now.Add(3*time.Hour), time.UTC))
}

func TestOf(t *testing.T) {
	val := func(v float64, unit string, digits int) Span { return Span{Value: &v, Unit: unit, Digits: &digits} }
	for _, c := range []struct {
		got  Sentence
		want Sentence
		text string
	}{
		{Of("At %.0f °C it asks for %.1f °C.", 4.4, 10.0), Sentence{{Text: "At "}, val(4, "°C", 0), {Text: " it asks for "}, val(10, "°C", 1), {Text: "."}}, "At 4 °C it asks for 10.0 °C."},
		{Of("doses from %g °C to %g °C", -5.5, 30.), Sentence{{Text: "doses from "}, val(-5.5, "°C", 1), {Text: " to "}, val(30, "°C", 0)}, "doses from -5.5 °C to 30 °C"},
		{Of("10 µm a coat, 12 m²/h; 3 coats"), Sentence{val(10, "µm", 0), {Text: " a coat, "}, val(12, "m²/h", 0), {Text: "; 3 coats"}}, "10 µm a coat, 12 m²/h; 3 coats"},
		{Of("%s: 2.4 m × %.3g m", "kit 2.5 L", 1.2), Sentence{{Text: "kit 2.5 L: "}, val(2.4, "m", 1), {Text: " × "}, val(1.2, "m", 1)}, "kit 2.5 L: 2.4 m × 1.2 m"},
		{Of("%d pots, %.0f %% at most 25 m/h", 3, 50.), Sentence{{Text: "3 pots, 50 % at most 25 m/h"}}, "3 pots, 50 % at most 25 m/h"},
		{Of("Not so: %v", Of("it is %g K off", 2.0)), Sentence{{Text: "Not so: it is "}, val(2, "K", 0), {Text: " off"}}, "Not so: it is 2 K off"},
		{Of("%v waits", Strong("Deck")), Sentence{{Text: "Deck", Strong: true}, {Text: " waits"}}, "Deck waits"},
		{Of("%.3g L", 1234.5), Sentence{val(1230, "L", 0)}, "1230 L"},
		{Of("mat 2.3 mm thick, %s", "no %s"), Sentence{{Text: "mat "}, val(2.3, "mm", 1), {Text: " thick, no %s"}}, "mat 2.3 mm thick, no %s"},
	} {
		assert.Equal(t, c.want, c.got, c.text)
		assert.Equal(t, c.text, c.got.String())
	}
}
