package formats

import (
	"strings"
	"testing"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestCalendarRoundTrip(t *testing.T) {
	at := time.Date(2026, 5, 9, 10, 0, 0, 0, time.UTC)
	raw := WriteCalendar("Plan", at, []Event{
		{ID: "a", Start: at, End: at.Add(2 * time.Hour), Summary: "Tern: Hull, primer; coat 1, \"grey\"", Description: "Not before Friday.\nThen.", AlarmMin: 30},
		{ID: "b", Start: at.Add(5 * time.Hour), End: at.Add(5 * time.Hour), Summary: "Window closes"},
	})
	c, err := ics.ParseCalendar(strings.NewReader(string(raw)))
	require.NoError(t, err)
	events := c.Events()
	require.Len(t, events, 2)
	start, err := events[0].GetStartAt()
	require.NoError(t, err)
	end, err := events[0].GetEndAt()
	require.NoError(t, err)
	assert.Equal(t, []time.Time{at, at.Add(2 * time.Hour)}, []time.Time{start.UTC(), end.UTC()})
	assert.Contains(t, string(raw), "TRIGGER:-PT30M")
	assert.Contains(t, events[0].GetProperty(ics.ComponentPropertySummary).Value, "primer")
	assert.Empty(t, events[1].Alarms())
}
