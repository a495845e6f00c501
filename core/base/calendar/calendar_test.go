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
