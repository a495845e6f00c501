package formats

import (
	"bytes"
	"strings"
	"testing"
	"time"
	"unicode/utf8"

	ical "github.com/emersion/go-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Read by a parser that shares nothing with the writer.
func TestCalendarRoundTrip(t *testing.T) {
	at := time.Date(2026, 5, 9, 10, 0, 0, 0, time.UTC)
	name, why := `Tern: Hull, primer; coat 1, "grey" \ `+strings.Repeat("ä", 60), "Not before Friday.\nThen."
	raw := WriteCalendar("Plan", at, []Event{
		{ID: "a", Start: at, End: at.Add(2 * time.Hour), Summary: name, Description: why, AlarmMin: 30},
		{ID: "b", Start: at.Add(5 * time.Hour), End: at.Add(5 * time.Hour), Summary: "Window closes"},
	})
	c, err := ical.NewDecoder(bytes.NewReader(raw)).Decode()
	require.NoError(t, err)
	events := c.Events()
	require.Len(t, events, 2)
	start, err := events[0].DateTimeStart(time.UTC)
	require.NoError(t, err)
	end, err := events[0].DateTimeEnd(time.UTC)
	require.NoError(t, err)
	assert.Equal(t, []time.Time{at, at.Add(2 * time.Hour)}, []time.Time{start, end})
	for prop, want := range map[string]string{ical.PropSummary: name, ical.PropDescription: why} {
		got, err := events[0].Props.Text(prop)
		require.NoError(t, err)
		assert.Equal(t, want, got)
	}
	require.Len(t, events[0].Children, 1)
	assert.Equal(t, "-PT30M", events[0].Children[0].Props.Get(ical.PropTrigger).Value)
	assert.Empty(t, events[1].Children)
	strict(t, raw)
}

// strict holds a calendar against RFC 5545 itself: lines end with CR LF, have 75 octets at most and are
// whole characters; the calendar has its version, its maker and a component, an event its stamp and an
// identifier of its own, an alarm what it does, when and what it says.
func strict(t *testing.T, raw []byte) {
	t.Helper()
	require.True(t, bytes.HasSuffix(raw, []byte("\r\n")))
	for _, line := range strings.Split(strings.TrimSuffix(string(raw), "\r\n"), "\r\n") {
		assert.LessOrEqual(t, len(line), 75, line)
		assert.True(t, utf8.ValidString(line), "a character is cut: %q", line)
		assert.NotContains(t, line, "\r")
		assert.NotContains(t, line, "\n")
	}
	c, err := ical.NewDecoder(bytes.NewReader(raw)).Decode()
	require.NoError(t, err)
	assert.Equal(t, "2.0", c.Props.Get(ical.PropVersion).Value)
	assert.NotEmpty(t, c.Props.Get(ical.PropProductID).Value)
	require.NotEmpty(t, c.Children)
	seen := map[string]bool{}
	for _, e := range c.Events() {
		id := e.Props.Get(ical.PropUID).Value
		assert.False(t, seen[id], "%s twice", id)
		seen[id] = true
		for _, prop := range []string{ical.PropDateTimeStamp, ical.PropDateTimeStart} {
			assert.Regexp(t, `^\d{8}T\d{6}Z$`, e.Props.Get(prop).Value)
		}
		for _, a := range e.Children {
			assert.Equal(t, "DISPLAY", a.Props.Get(ical.PropAction).Value)
			assert.NotEmpty(t, a.Props.Get(ical.PropTrigger).Value)
			assert.NotNil(t, a.Props.Get(ical.PropDescription))
		}
	}
}
