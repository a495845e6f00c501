package app_test

import (
	"encoding/csv"
	"maps"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/core/film/step"
	"allcoats/core/job/ledger"
	"allcoats/core/job/logbook"
	"allcoats/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A litre of the enamel is 20.00 in the 4 L tin, the cheapest. Two coats are logged, 6 L in 3 h by Ada in
// May and 5 L in 2 h by Bo in June, one is left; tape was 12.50.
func TestALedgerByHand(t *testing.T) {
	a := withDemo(t)
	p := sheet(t, a)
	boat, s := square(t, a)
	plan, err := a.SetBuildUp(ctx, s.ID, s.Version,
		[]app.Step{{ProductID: p.ID, Step: step.Step{Work: step.Coat, Coats: 3, DFTUm: 50, Method: "roller",
			LossPct: 10}}})
	require.NoError(t, err)
	at := demo.Now.AddDate(0, 0, -3)
	log := func(e logbook.Entry) {
		t.Helper()
		e.BoatID = boat
		_, err := a.AddEntry(ctx, app.NewEntry{Entry: e})
		require.NoError(t, err)
	}
	coat := logbook.Entry{SurfaceID: s.ID, Kind: step.Coat, StartedAt: at, ProductID: p.ID, StepID: plan.Steps[0].ID,
		Litres: 6, Hours: 3, Who: "Ada", WetUm: []float64{}}
	log(coat)
	coat.StartedAt, coat.Litres, coat.Hours, coat.Who, coat.Early = at.AddDate(0, 0, 2), 5, 2, "Bo", "a test"
	log(coat)
	log(logbook.Entry{Kind: step.Spend, StartedAt: at, Who: "Ada", WetUm: []float64{},
		Detail: logbook.Detail{Spent: &logbook.Spent{On: "abrasives", Cents: 1250}}})

	acc := must(a.Accounts(ctx, boat))
	month, surface := at.Format("2006-01"), s.Name
	var done ledger.Lines
	left, buy := 0.0, 0.0
	for _, l := range acc.Lines {
		left, buy = left+l.ToComeH, buy+l.MaterialToCome
		if l.Entries > 0 {
			l.PlannedH, l.ToComeH, l.MaterialToCome = 0, 0, 0
			done = append(done, l)
		}
	}
	assert.Equal(t, ledger.Lines{
		{What: "one-part topcoat", Surface: surface, Who: "Ada", Month: month, Sum: ledger.Sum{Entries: 1, DoneH: 3,
			Material: 12000}},
		{What: "one-part topcoat", Surface: surface, Who: "Bo", Month: month, Sum: ledger.Sum{Entries: 1, DoneH: 2,
			Material: 10000}},
		{What: "tape, paper and discs", Surface: "the whole boat", Who: "Ada", Month: month,
			Sum: ledger.Sum{Entries: 1, Other: 1250}},
	}, done)
	assert.InDelta(t, 5, acc.Hours, 1e-9)
	assert.InDelta(t, 22000, acc.MaterialCents, 1e-9)
	assert.InDelta(t, 1250, acc.OtherCents, 1e-9)
	assert.InDelta(t, acc.LeftHours, left, 1e-9)
	assert.InDelta(t, acc.LeftMaterial, buy, 1e-6)
	assert.InDelta(t, 22000+1250+5*acc.HourCents+acc.LeftHours*acc.HourCents+acc.LeftMaterial, acc.TotalCents, 1e-6)
	assert.Zero(t, acc.Untold, "an expense has no hours to tell")

	table := must(a.LedgerTable(ctx, boat))
	raw, err := table.CSV()
	require.NoError(t, err)
	rows, err := csv.NewReader(strings.NewReader(string(raw))).ReadAll()
	require.NoError(t, err)
	found := false
	for _, r := range rows[1:] {
		if r[2] == "tape, paper and discs" {
			found = true
			first, err := time.Parse("2006-01-02 15:04", r[0])
			require.NoError(t, err)
			assert.Equal(t, month, first.Format("2006-01"))
			assert.Equal(t, []string{"", "", "", "", "", "12.5"}, r[5:11], "what is not known is empty")
		}
	}
	assert.True(t, found)
}

// The lines of each boat of the demo make up what is to come, and that is what Stores says to buy.
func TestLinesMakeUpWhatIsToCome(t *testing.T) {
	a := withDemo(t)
	for _, b := range must(a.Boats(ctx)) {
		acc := must(a.Accounts(ctx, b.ID))
		sum := acc.Lines.Sum()
		assert.InDelta(t, acc.LeftMaterial, sum.MaterialToCome, 1e-6, b.Name)
		assert.InDelta(t, acc.LeftHours, sum.ToComeH, 1e-6, b.Name)
		assert.InDelta(t, must(a.Stores(ctx, b.ID)).CostCents, sum.MaterialToCome, 1e-6, b.Name)
	}
}

// What the log taught can be looked at, and switched off: the hours to come are as reckoned again.
func TestALessonIsSwitchedOff(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Reed Warbler").ID
	before := must(a.Accounts(ctx, boat)).LeftHours
	all := must(a.Lessons(ctx, boat))
	require.NotEmpty(t, all)
	assert.Equal(t, "pace:coat", all[0].Key)
	assert.Greater(t, math.Abs(all[0].Factor-1), 0.05)
	_, err := a.SetLesson(ctx, boat, "weather", true)
	require.ErrorContains(t, err, "key")
	off := must(a.SetLesson(ctx, boat, "pace:coat", true))
	assert.True(t, off[0].Off && !off[0].Counts)
	assert.InDelta(t, all[0].Factor, off[0].Factor, 1e-9, "it is still told")
	reckoned := must(a.Accounts(ctx, boat)).LeftHours
	if all[0].Factor < 1 {
		assert.Greater(t, reckoned, before)
	} else {
		assert.Less(t, reckoned, before)
	}
	_, err = a.SetLesson(ctx, boat, "pace:coat", false)
	require.NoError(t, err)
	assert.InDelta(t, before, must(a.Accounts(ctx, boat)).LeftHours, 1e-9)
}

// A coat that was found sticky after twice its time makes its product slower, here and in the plan, until
// that is switched off.
func TestACoatThatDriesSlowly(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Reed Warbler").ID
	last := map[string]app.Entry{} // the last coat of each surface
	for _, e := range slices.Backward(must(a.Log(ctx, boat))) {
		if e.Kind == step.Coat && e.ProductID != "" {
			last[e.SurfaceID] = e
		}
	}
	coat := slices.MinFunc(slices.Collect(maps.Values(last)), func(a, b app.Entry) int {
		return a.StartedAt.Compare(b.StartedAt)
	})
	opens := func() time.Time {
		for _, l := range must(a.Today(ctx, boat)).Answer.Lanes {
			if l.SurfaceID == coat.SurfaceID {
				if at := l.Clock.Event("recoat-opens").At; at != nil {
					return *at
				}
			}
		}
		return time.Time{}
	}
	before := opens()
	felt := logbook.Entry{BoatID: boat, SurfaceID: coat.SurfaceID, Kind: step.Feel, StartedAt: demo.Now,
		WetUm: []float64{}, Detail: logbook.Detail{Felt: &logbook.Felt{State: logbook.Sticky}}}
	e, err := a.AddEntry(ctx, app.NewEntry{Entry: felt})
	require.NoError(t, err)
	assert.Equal(t, coat.ProductID, e.Felt.ProductID)
	assert.Greater(t, e.Felt.Progress, 1.0, "it went on days ago")
	all := must(a.Lessons(ctx, boat))
	lesson := all[len(all)-1]
	assert.Equal(t, "drying:"+coat.ProductID, lesson.Key)
	assert.Greater(t, lesson.Factor, 1.0)
	assert.True(t, opens().After(before) || opens().IsZero(), "%v and %v", opens(), before)
	_, err = a.SetLesson(ctx, boat, lesson.Key, true)
	require.NoError(t, err)
	assert.Equal(t, before, opens())
}

// Grades of a walk-round count: what failed is due now, and renewing it puts a wash, a scuff and coats
// into the job, once.
func TestAFinishIsGradedAndRenewed(t *testing.T) {
	a := withDemo(t)
	boat := boatNamed(a, "Reed Warbler").ID
	up := must(a.Upkeep(ctx, boat))
	require.GreaterOrEqual(t, len(up.Films), 2)
	for i := 1; i < len(up.Films); i++ {
		assert.False(t, up.Films[i].At.Before(up.Films[i-1].At))
	}
	worst, other := up.Films[len(up.Films)-1], up.Films[0]
	_, err := a.AddEntry(ctx, app.NewEntry{Entry: logbook.Entry{BoatID: boat, SurfaceID: worst.SurfaceID,
		Kind: step.Grade, StartedAt: demo.Now, WetUm: []float64{},
		Detail: logbook.Detail{Held: logbook.Held{"cracks": 4, "gloss": 2}}}})
	require.NoError(t, err)
	of := func(id string) app.DueFilm {
		for _, f := range must(a.Upkeep(ctx, boat)).Films {
			if f.SurfaceID == id {
				return f
			}
		}
		return app.DueFilm{}
	}
	now := of(worst.SurfaceID)
	assert.Equal(t, demo.Now.Unix(), now.At.Unix())
	assert.Equal(t, 4, now.Held.Worst())
	assert.Equal(t, 1, of(other.SurfaceID).Graded, "it tells of the others too")
	assert.True(t, of(other.SurfaceID).At.Before(other.At))

	_, err = a.AddEntry(ctx, app.NewEntry{Entry: logbook.Entry{BoatID: boat, SurfaceID: other.SurfaceID,
		Kind: step.Grade, StartedAt: demo.Now, WetUm: []float64{}, Detail: logbook.Detail{Held: logbook.Held{}}}})
	require.NoError(t, err)
	assert.NotNil(t, of(other.SurfaceID).HeldAt, "nothing wrong is a grade")
	assert.Equal(t, 2, of(other.SurfaceID).Graded)

	steps := len(must(a.BuildUp(ctx, worst.SurfaceID)).Steps)
	made := must(a.Renew(ctx, worst.SurfaceID))
	require.Len(t, made.Steps, steps+3)
	assert.Equal(t, []step.Work{step.Wash, step.Sand, step.Coat},
		[]step.Work{made.Steps[steps].Work, made.Steps[steps+1].Work, made.Steps[steps+2].Work})
	assert.Equal(t, worst.ProductID, made.Steps[steps+2].ProductID)
	assert.True(t, of(worst.SurfaceID).Planned)
}
