package app

import (
	"cmp"
	"context"
	"maps"
	"slices"
	"time"

	"allcoats/core/film/step"
	"allcoats/core/job/ledger"
	"allcoats/core/job/logbook"
	"allcoats/core/job/task"
	"allcoats/formats"
)

// Accounts are the hours and the money of a boat: to date from the log, and to
// finish from her job and its plan. Money is in cents.
type Accounts struct {
	Lines ledger.Lines `json:"lines"`
	// Untold counts the entries of work without hours; Unpriced names products without a price.
	Untold   int      `json:"untold"`
	Unpriced []string `json:"unpriced"`
	// HourCents is what an hour costs, 0 if that is not said in Plan. A working day has WorkDayH hours.
	HourCents float64 `json:"hourCents"`
	WorkDayH  float64 `json:"workDayH"`
	// Hours are those told, MonthH those of the month that is now.
	Hours  float64 `json:"hours"`
	MonthH float64 `json:"monthH"`
	// PlannedH is what was reckoned, ReckonedHours what the same work took.
	PlannedH      float64 `json:"plannedH"`
	ReckonedHours float64 `json:"reckonedHours"`
	MaterialCents float64 `json:"materialCents"`
	OtherCents    float64 `json:"otherCents"`
	LabourCents   float64 `json:"labourCents"`
	// LeftHours and LeftMaterial are still to come: the work of the job, the tins to buy; Low and High
	// are between what they are eight times in ten.
	LeftHours    float64 `json:"leftHours"`
	LeftLowH     float64 `json:"leftLowH"`
	LeftHighH    float64 `json:"leftHighH"`
	LeftMaterial float64 `json:"leftMaterialCents"`
	LeftLabour   float64 `json:"leftLabourCents"`
	// TotalCents is what it all comes to, between TotalLow and TotalHigh; BudgetCents what it may, 0 if
	// that is not said.
	TotalCents  float64 `json:"totalCents"`
	TotalLow    float64 `json:"totalLowCents"`
	TotalHigh   float64 `json:"totalHighCents"`
	BudgetCents float64 `json:"budgetCents"`
}

// Accounts adds up the log of a boat and what is left of her job.
func (a *App) Accounts(ctx context.Context, boatID string) (Accounts, error) {
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Accounts{}, err
	}
	yard, _, err := a.showYard(ctx, o.survey.Place.ID)
	if err != nil {
		return Accounts{}, err
	}
	need, _, err := a.toBuy(ctx, boatID)
	if err != nil {
		return Accounts{}, err
	}
	out := Accounts{HourCents: o.choices.HourCents, WorkDayH: o.workDayH(), BudgetCents: o.survey.Boat.BudgetCents}
	lines := append(o.toDate(&out), o.toCome(yard, o.litreToBuy(need.Needs))...)
	out.Lines = lines.Merged()
	out.LeftHours, out.LeftMaterial = o.job.Sum.LeftH, float64(need.CostCents)
	out.LabourCents, out.LeftLabour = out.Hours*out.HourCents, out.LeftHours*out.HourCents

	hours := ledger.Hours(o.unsureHours())
	out.LeftLowH, out.LeftHighH = hours.Range()
	money := hours.Times(out.HourCents)
	for _, n := range need.Needs { // of a purchase what may be more or less is bought by the litre
		litre := litreCents(o.products[n.ProductID])
		money = money.Plus(ledger.Between(float64(n.Purchase.CostCents), litre*n.Forecast.LowL, litre*n.Forecast.HighL))
	}
	spent := out.MaterialCents + out.OtherCents + out.LabourCents
	out.TotalCents = spent + money.Mean
	low, high := money.Range()
	out.TotalLow, out.TotalHigh = spent+low, spent+high
	return out, nil
}

// unsureHours are the hours to come of every task, each with its spread.
func (o boatState) unsureHours() (out []ledger.Unsure) {
	add := func(t task.Task) {
		if t.Left() {
			out = append(out, ledger.Unsure{Mean: t.LeftH, SD: t.HoursSD})
		}
	}
	for _, c := range o.job.Surfaces {
		for _, t := range c.Tasks {
			add(t)
		}
	}
	for _, t := range o.job.Own {
		add(t)
	}
	return out
}

// whatOf names the line of the ledger that work stands on: a coat by the kind of its product.
func (w work) whatOf(kind step.Work, productID string) string {
	if kind.Kind().Films && productID != "" {
		return w.products[productID].Kind.Name()
	}
	return kind.Kind().Name
}

// wholeBoat is the surface of what belongs to none.
const wholeBoat = "the whole boat"

const month = "2006-01"

// toDate are the lines of the log.
func (o boatState) toDate(out *Accounts) (lines ledger.Lines) {
	unpriced := map[string]bool{}
	now := o.now.In(o.s.Loc).Format(month)
	for id, log := range o.log {
		for _, e := range log {
			l := o.line(id, e, unpriced)
			switch kind := e.Kind.Kind(); {
			case e.Hours == 0 && e.Kind != step.Idle && !kind.Felt && !kind.Graded && !kind.Spent:
				out.Untold++
			case l.Month == now:
				out.MonthH += l.DoneH
			}
			out.Hours += l.DoneH
			out.PlannedH += l.PlannedH
			if l.PlannedH > 0 {
				out.ReckonedHours += l.DoneH
			}
			out.MaterialCents += l.Material
			out.OtherCents += l.Other
			lines = append(lines, l)
		}
	}
	out.Unpriced = slices.Sorted(maps.Keys(unpriced))
	if out.Unpriced == nil {
		out.Unpriced = []string{}
	}
	return lines
}

// line is an entry of the log in the ledger.
func (o boatState) line(surfaceID string, e logbook.Logged, unpriced map[string]bool) ledger.Line {
	l := ledger.Line{What: o.whatOf(e.Kind, e.ProductID), Surface: cmp.Or(o.surface(surfaceID).Name, wholeBoat),
		Who: e.Who, Month: e.StartedAt.In(o.s.Loc).Format(month),
		Sum: ledger.Sum{Entries: 1, DoneH: e.Hours}}
	if e.Spent != nil {
		l.What, l.Other = e.Spent.On.Name(), e.Spent.Cents
	}
	if e.Hours > 0 {
		l.PlannedH = o.job.Told(e.ID).ReckonedH
	}
	if e.ProductID != "" && e.Litres > 0 {
		sheet := o.products[e.ProductID]
		if c := litreCents(sheet); c > 0 {
			l.Material = e.Litres * c
		} else {
			unpriced[sheet.Name] = true
			l.UnpricedEntries = 1
		}
	}
	return l
}

// litreToBuy is what the tins to buy of a product cost for each litre to come, cents: with what is on
// the shelf less than a litre costs, with what is over more.
func (o boatState) litreToBuy(needs []Need) map[string]float64 {
	left := map[string]float64{}
	for _, c := range o.job.Surfaces {
		for _, t := range c.Tasks {
			if t.Left() {
				left[t.ProductID] += t.LeftL
			}
		}
	}
	out := map[string]float64{}
	for _, n := range needs {
		if l := left[n.ProductID]; l > 0 {
			out[n.ProductID] = float64(n.Purchase.CostCents) / l
		}
	}
	return out
}

// toCome are the lines of what is left, by whom and in which month the plan has it, with its part of
// what is bought for it; what has no place in the plan has none.
func (o boatState) toCome(yard yardState, litre map[string]float64) (lines ledger.Lines) {
	type part struct {
		who, month string
		hours      float64
	}
	parts := map[string][]part{} // by task
	for _, p := range ofBoat(yard.view.Plan, o.survey.Boat.ID) {
		for _, who := range p.People {
			parts[p.Whole] = append(parts[p.Whole], part{who, p.Start.In(o.s.Loc).Format(month),
				p.Hours / float64(len(p.People))})
		}
	}
	add := func(surface string, t task.Task) {
		if !t.Left() {
			return
		}
		l := ledger.Line{What: o.whatOf(t.Work, t.ProductID), Surface: surface}
		all := parts[t.ID]
		sum := 0.0
		for _, p := range all {
			sum += p.hours
		}
		if sum == 0 {
			all, sum = []part{{hours: 1}}, 1
		}
		for _, p := range all {
			l.Who, l.Month = p.who, p.month
			l.Sum = ledger.Sum{ToComeH: t.LeftH * p.hours / sum,
				MaterialToCome: t.LeftL * litre[t.ProductID] * p.hours / sum}
			lines = append(lines, l)
		}
	}
	for _, c := range o.job.Surfaces {
		for _, t := range c.Tasks {
			add(c.Surface, t)
		}
	}
	for _, t := range o.job.Own {
		add(wholeBoat, t)
	}
	return lines
}

// LedgerTable returns the ledger of a boat as a table.
func (a *App) LedgerTable(ctx context.Context, boatID string) (formats.Table, error) {
	t := formats.Table{Name: "Ledger", Header: []string{"month", "surface", "what", "who", "entries", "hours done",
		"hours reckoned", "hours to come", "material", "material to come", "other expenses", "currency"}}
	acc, err := a.Accounts(ctx, boatID)
	if err != nil {
		return t, err
	}
	currency, err := a.Currency(ctx)
	if err != nil {
		return t, err
	}
	for _, l := range acc.Lines {
		var at any
		if first, err := time.Parse(month, l.Month); err == nil {
			at = first
		}
		t.Rows = append(t.Rows, []any{at, l.Surface, l.What, l.Who, blank(l.Entries), blank(round(l.DoneH)),
			blank(round(l.PlannedH)), blank(round(l.ToComeH)),
			blank(round(l.Material / 100)), blank(round(l.MaterialToCome / 100)), blank(round(l.Other / 100)),
			currency})
	}
	return t, nil
}
