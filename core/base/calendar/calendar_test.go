package calendar

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestBetween(t *testing.T) {
	london, err := time.LoadLocation("Europe/London")
	require.NoError(t, err)
	weekends := Week{0: {9, 17.5}, 6: {8, 18}}
	from := time.Date(2026, 10, 23, 12, 0, 0, 0, london) // the Friday before the clocks go back
	got := weekends.Between(from, from.AddDate(0, 0, 7), london)
	require.Len(t, got, 2)
	assert.Equal(t, time.Date(2026, 10, 24, 7, 0, 0, 0, time.UTC), got[0].From, "08:00 summer time")
	assert.Equal(t, time.Date(2026, 10, 25, 9, 0, 0, 0, time.UTC), got[1].From, "09:00 winter time")
	assert.Equal(t, time.Date(2026, 10, 25, 17, 30, 0, 0, time.UTC), got[1].To)
	assert.Nil(t, Week{}.Between(from, from.AddDate(0, 0, 7), london))
	inside := weekends.Between(got[0].From.Add(time.Hour), got[0].From.Add(2*time.Hour), london)
	assert.Equal(t, got[:1], inside, "a stretch that has begun counts")
}

func TestValidate(t *testing.T) {
	assert.NoError(t, Week{}.Validate())
	assert.NoError(t, Week{3: {17, 21}}.Validate())
	assert.ErrorContains(t, Week{3: {21, 17}}.Validate(), "end after it begins")
	assert.ErrorContains(t, Week{3: {-1, 17}}.Validate(), "[3].fromH")
	assert.ErrorContains(t, Week{3: {8, 8}}.Validate(), "no working hours")
}

// Eight to noon on weekdays: six hours from Friday at ten end on Monday at noon, the same from Thursday evening on Friday at noon and Monday at
// ten; without hours they run on.
func TestDone(t *testing.T) {
	week := Daily(8, 12)
	week[0], week[6] = Hours{}, Hours{}
	at := func(day, hour int) time.Time { return time.Date(2026, 5, day, hour, 0, 0, 0, time.UTC) } // the 8th is a Friday
	for _, c := range []struct {
		from  time.Time
		hours float64
		want  time.Time
	}{
		{at(8, 10), 6, at(11, 12)}, {at(7, 20), 6, at(11, 10)}, {at(8, 10), 2, at(8, 12)},
		{at(8, 9), 0.5, at(8, 9).Add(30 * time.Minute)},
		{at(9, 3), 0.25, at(11, 8).Add(15 * time.Minute)}, {at(8, 10), 2 + 20 + 3, at(18, 11)},
	} {
		assert.Equal(t, c.want, week.Done(c.from, c.hours, time.UTC), "%v %g", c.from, c.hours)
	}
	assert.Equal(t, at(8, 16), Week{}.Done(at(8, 10), 6, time.UTC))
	assert.Equal(t, at(8, 16), Daily(8, 8).Done(at(8, 10), 6, time.UTC))
}

func TestAt(t *testing.T) {
	week := Week{5: {8, 17.5}}
	at := func(hour, minute int) time.Time { return time.Date(2026, 5, 8, hour, minute, 0, 0, time.UTC) }
	for _, c := range []struct {
		hour, minute int
		in           bool
	}{{7, 59, false}, {8, 0, true}, {17, 29, true}, {17, 30, false}, {17, 31, false}} {
		assert.Equal(t, c.in, week.At(at(c.hour, c.minute), time.UTC), c)
	}
	assert.False(t, week.At(at(10, 0).AddDate(0, 0, 1), time.UTC))
	assert.True(t, Week{}.At(at(3, 0), time.UTC), "a week without hours has all")
}
