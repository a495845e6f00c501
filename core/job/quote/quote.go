// Package quote holds what a shop asks for a part of the work against doing it oneself.
package quote

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/job/ledger"
	"allcoats/core/job/task"
)

// Quote is what a shop asks for work on some surfaces, with its material; none named are all. Coats says
// that it only lays the coats: what comes before the first and after the last stays with the owner.
type Quote struct {
	ID       string   `json:"id"`
	Who      string   `json:"who"`
	Surfaces []string `json:"surfaces"`
	Coats    bool     `json:"coats"`
	Cents    float64  `json:"cents"`
	// ReadyOn is the day by which it is done, empty if that is not said; LastsYears what it is said to
	// hold.
	ReadyOn    string  `json:"readyOn"`
	LastsYears float64 `json:"lastsYears"`
	Note       string  `json:"note"`
}

// Validate reports what cannot be.
func (q Quote) Validate() error {
	var bad fielderr.Errors
	if strings.TrimSpace(q.Who) == "" {
		bad.Add("who", "say who asks it")
	}
	bad.Above("cents", q.Cents, 0, 1e10, "cents")
	if _, err := time.Parse(time.DateOnly, q.ReadyOn); err != nil && q.ReadyOn != "" {
		bad.Add("readyOn", "%q is not a day such as 2026-05-30", q.ReadyOn)
	}
	bad.Range("lastsYears", q.LastsYears, 0, 50, "years")
	return bad.Err()
}

// ValidateAll reports what cannot be among quotes.
func ValidateAll(all []Quote) error {
	var bad fielderr.Errors
	for i, q := range all {
		bad.Under(fmt.Sprintf("quotes[%d]", i), q.Validate())
	}
	return bad.Err()
}

// Takes are the tasks left of a chain that the shop would do.
func (q Quote) Takes(c task.Chain) (out []task.Task) {
	if len(q.Surfaces) > 0 && !slices.Contains(q.Surfaces, c.SurfaceID) {
		return nil
	}
	left := slices.DeleteFunc(slices.Clone(c.Tasks), func(t task.Task) bool { return !t.Left() })
	if !q.Coats {
		return left
	}
	films := func(t task.Task) bool { return t.Films }
	first := slices.IndexFunc(left, films)
	if first < 0 {
		return nil
	}
	last := first
	for i, t := range left {
		if t.Films {
			last = i
		}
	}
	return left[first : last+1]
}

// Own is what the same work takes oneself: hours, eight times in ten between low and high, and money.
type Own struct {
	Hours    float64 `json:"hours"`
	LowH     float64 `json:"lowH"`
	HighH    float64 `json:"highH"`
	Material float64 `json:"materialCents"`
	Labour   float64 `json:"labourCents"`
}

// Cents is all of it, with one's hours at their price.
func (o Own) Cents() float64 { return o.Material + o.Labour }

// OwnOf adds up tasks; material is what one takes, hourCents what an hour costs.
func OwnOf(tasks []task.Task, material func(task.Task) float64, hourCents float64) (o Own) {
	var hours []ledger.Unsure
	for _, t := range tasks {
		hours = append(hours, ledger.Unsure{Mean: t.LeftH, SD: t.HoursSD})
		o.Material += material(t)
	}
	sum := ledger.Hours(hours)
	o.Hours = sum.Mean
	o.LowH, o.HighH = sum.Range()
	o.Labour = o.Hours * hourCents
	return o
}

// SavedHour is what an hour that the shop saves costs, money spent on material either way left out; ok
// is false where it saves none.
func (q Quote) SavedHour(o Own) (cents float64, ok bool) {
	if o.Hours <= 0 {
		return 0, false
	}
	return (q.Cents - o.Material) / o.Hours, true
}
