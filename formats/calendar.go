package formats

import (
	"fmt"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"
)

// Event is an entry of a calendar. An End at Start is an instant. AlarmMin is how
// long before Start an alarm rings, 0 for none.
type Event struct {
	ID, Summary, Description string
	Start, End               time.Time
	AlarmMin                 int
}

// oneEnd writes every end of a line as the one that the format escapes.
var oneEnd = strings.NewReplacer("\r\n", "\n", "\r", "\n")

// WriteCalendar writes events as an iCalendar file (RFC 5545) called name, made at
// an instant.
func WriteCalendar(name string, made time.Time, events []Event) []byte {
	c := ics.NewCalendar()
	c.SetProductId("-//All Coats//plan//EN")
	c.SetMethod(ics.MethodPublish)
	c.SetName(oneEnd.Replace(name))
	c.SetXWRCalName(oneEnd.Replace(name))
	for _, e := range events {
		v := c.AddEvent(strings.Join(strings.Fields(e.ID), " ") + "@allcoats")
		v.SetDtStampTime(made)
		v.SetStartAt(e.Start)
		if e.End.After(e.Start) {
			v.SetEndAt(e.End)
		}
		v.SetSummary(oneEnd.Replace(e.Summary))
		v.SetDescription(oneEnd.Replace(e.Description))
		if e.AlarmMin > 0 {
			a := v.AddAlarm()
			a.SetAction(ics.ActionDisplay)
			a.SetDescription(oneEnd.Replace(e.Summary))
			a.SetTrigger(fmt.Sprintf("-PT%dM", e.AlarmMin))
		}
	}
	return []byte(c.Serialize(ics.WithNewLineWindows))
}
