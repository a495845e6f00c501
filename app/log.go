package app

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/conditions/clock"
	"allcoats/core/film/film"
	"allcoats/core/film/mix"
	"allcoats/core/film/step"
	"allcoats/core/job/buildup"
	"allcoats/core/job/logbook"
	"allcoats/core/job/task"
	"allcoats/store"
)

// Entry is something done to a boat. FilmUm is the dry film a coat left, FilmSDUm
// its scatter by the comb, FilmKnown how it is known.
type Entry struct {
	logbook.Logged
	Surface   string          `json:"surface"`
	Product   string          `json:"product"`
	FilmUm    float64         `json:"filmUm"`
	FilmSDUm  float64         `json:"filmSdUm"`
	FilmKnown string          `json:"filmKnown"`
	Working   working.Working `json:"working"`
	Deleted   bool            `json:"deleted"`
	// Flag says what is wrong with it, such as a sanding that went through.
	Flag message.Sentence `json:"flag,omitempty"`
	// Changed says that it was laid by another edition of the sheet, or from another batch,
	// than the coat of the same product below it.
	Changed message.Sentence `json:"changed,omitempty"`
	// Verdict is on the readings of the cured film, Mixed on what was weighed.
	Verdict *film.AcceptanceResult `json:"verdict,omitempty"`
	Mixed   *mix.Deviation         `json:"mixed,omitempty"`
	Photos  []Photo                `json:"photos"`
}

// validate checks an entry on its boat.
func (w work) validate(e logbook.Entry, now time.Time) error {
	var bad fielderr.Errors
	bad.Under("", e.Validate(now))
	if e.SurfaceID != "" && w.surface(e.SurfaceID).ID == "" {
		bad.Add("surfaceId", "choose a surface of this boat")
	}
	switch st := w.plannedStep(e); {
	case e.StepID != "" && st == nil:
		bad.Add("stepId", "is no step planned on this surface")
	case st != nil && len(e.Patches) > 0 && (st.Where == nil || st.Where.Part(e.Patches) == 0):
		bad.Add("patches", "are no patches of this step")
	}
	if e.OwnID != "" && !slices.ContainsFunc(w.choices.Own[w.survey.Boat.ID], func(o task.OwnTask) bool {
		return o.ID == e.OwnID
	}) {
		bad.Add("ownId", "is no task of your own on this boat")
	}
	if e.Kind.Kind().Lays {
		w.validateCoat(e, &bad)
	}
	return bad.Err()
}

// plannedStep is the step that an entry is of, nil for none.
func (w work) plannedStep(e logbook.Entry) *Step {
	for i, s := range w.steps[e.SurfaceID] {
		if e.StepID != "" && s.ID == e.StepID {
			return &w.steps[e.SurfaceID][i]
		}
	}
	return nil
}

func (w work) validateCoat(e logbook.Entry, bad *fielderr.Errors) {
	sheet, ok := w.products[e.ProductID]
	if !ok {
		bad.Add("productId", "choose the product that went on")
	}
	for i, um := range e.WetUm {
		bad.Above(fmt.Sprintf("wetUm[%d]", i), um, 0, 20e3, "µm")
	}
	um := sheet.Film.TypicalUm
	if st := w.plannedStep(e); st != nil {
		um = st.DFTUm
	}
	if ok && sheet.VolumeSolidsPct > 0 && logbook.Mils(e.WetUm, film.Wet(um, sheet.VolumeSolidsPct, e.ThinnerPct)) {
		bad.Add("wetUm",
			"these look like mils: for %.0f µm dry the comb should show about %.0f µm. Say in which unit they are", um,
			film.Wet(um, sheet.VolumeSolidsPct, e.ThinnerPct))
	}
}

// asks are the questions that a new entry has to answer: more litres than the shelf
// has, a coat before the window of the last one opened.
func (o boatState) asks(e logbook.Entry) error {
	var bad fielderr.Errors
	if e.Kind != step.Coat {
		return nil
	}
	sheet := o.products[e.ProductID]
	share := sheet.BaseShare()
	if shelf, noted := onShelf(o.shelf, e.ProductID, share); noted && !e.BeyondShelf && e.Litres > shelf.Mixed(share)+
		0.05 {
		bad.Add("litres", "the shelf has %.3g L of it left. If %.3g L is right, say so", shelf.Mixed(share), e.Litres)
	}
	for _, f := range o.s.Surfaces {
		if f.ID != e.SurfaceID || f.Last == nil || e.Early != "" {
			continue
		}
		if opens := clock.Run(*f.Last, sheet.Kind, f.Weather, o.now).Event(clock.RecoatOpens); f.Last.Abraded == nil &&
			e.StartedAt.After(f.Last.Started) && opens.At != nil && e.StartedAt.Before(*opens.At) {
			bad.Add("early", "the last coat may be recoated from %v: say why it went on before",
				message.Date(*opens.At))
		}
	}
	return bad.Err()
}

// entryRow and loggedOf are an entry on the way to the store and back.
func entryRow(e logbook.Logged) store.Entry {
	optional := func(s string) *string {
		if s == "" {
			return nil
		}
		return &s
	}
	wet := e.WetUm
	if wet == nil {
		wet = []float64{}
	}
	r := store.Entry{
		ID: e.ID, Version: e.Version, BoatID: e.BoatID, SurfaceID: store.Ref(e.SurfaceID), Kind: string(e.Kind),
		StartedAt: e.StartedAt.Unix(), ProductID: optional(e.ProductID),
		StepID: optional(e.StepID), Litres: e.Litres, WetUm: store.JSON[[]float64]{V: wet}, ThinnerPct: e.ThinnerPct,
		Grit: e.Grit, RemovedUm: e.RemovedUm,
		Hours: e.Hours, Who: e.Who, Note: e.Note, Detail: store.JSON[logbook.Detail]{V: e.Detail},
	}
	if e.DeletedAt != nil {
		at := e.DeletedAt.Unix()
		r.DeletedAt = &at
	}
	return r
}

func loggedOf(r store.Entry) logbook.Logged {
	text := func(s *string) string {
		if s == nil {
			return ""
		}
		return *s
	}
	e := logbook.Logged{ID: r.ID, Version: r.Version, Entry: logbook.Entry{
		BoatID: r.BoatID, SurfaceID: string(r.SurfaceID), Kind: step.Work(r.Kind),
		StartedAt: time.Unix(r.StartedAt, 0).UTC(), ProductID: text(r.ProductID), StepID: text(r.StepID),
		Litres: r.Litres, WetUm: r.WetUm.V, ThinnerPct: r.ThinnerPct, Grit: r.Grit, RemovedUm: r.RemovedUm,
		Hours: r.Hours, Who: r.Who, Note: r.Note, Detail: r.Detail.V,
	}}
	if r.DeletedAt != nil {
		at := time.Unix(*r.DeletedAt, 0).UTC()
		e.DeletedAt = &at
	}
	return e
}

func (w work) entry(r logbook.Logged) Entry {
	s := w.surface(r.SurfaceID)
	e := Entry{Logged: r, Surface: s.Name, Working: working.New(), Deleted: r.DeletedAt != nil, Photos: []Photo{}}
	for _, p := range w.photos {
		if string(p.EntryID) == r.ID {
			e.Photos = append(e.Photos, photoOf(p))
		}
	}
	if e.ProductID != "" {
		e.Product = w.products[e.ProductID].Name
		if d, ok := mix.Off(w.products[e.ProductID], e.BaseG, e.HardenerG); ok {
			e.Mixed = &d
		}
	}
	if e.Dry != nil {
		if v, err := e.Dry.Verdict(s.Area.AreaM2); err == nil {
			e.Verdict = &v
		}
	}
	if below := w.below(r); below != nil {
		e.Changed = w.changed(*below, r.Edition, r.Batch)
	}
	switch {
	case r.Kind.Kind().Films && r.ProductID != "":
		l := w.laid(r)
		e.FilmUm, e.FilmKnown, e.Working = l.Film()
		e.FilmSDUm = l.SDUm()
		if e.Early != "" {
			e.Flag = message.Of("It went on before the coat below might be recoated: %s.", e.Early)
		}
	case r.RemovedUm > 0 && r.DeletedAt == nil:
		// Checked against what lay above the layer that must stay by then.
		before := slices.IndexFunc(w.log[s.ID], func(o logbook.Logged) bool { return o.ID == r.ID })
		done := w.filmDone(s.ID)[:before+1]
		if _, m := buildup.Section("", s.Findings, done, nil, nil); m.ThroughUm > 0 && len(s.Findings.Layers) > 0 {
			e.Flag = m.Text()
		}
	}
	return e
}

// Log lists a boat's entries, the newest first, deleted ones too so that they
// can be restored.
func (a *App) Log(ctx context.Context, boatID string) ([]Entry, error) {
	q := a.store.Read(ctx)
	w, err := a.loadBoatWork(ctx, q, boatID)
	if err != nil {
		return nil, err
	}
	rows, err := q.BoatLog(ctx, boatID)
	out := make([]Entry, len(rows))
	for i, r := range rows {
		out[len(rows)-1-i] = w.entry(loggedOf(r))
	}
	return out, err
}

// Entry returns one log entry.
func (a *App) Entry(ctx context.Context, id string) (Entry, error) {
	q := a.store.Read(ctx)
	r, err := q.Entry(ctx, id)
	if err != nil {
		return Entry{}, err
	}
	w, err := a.loadBoatWork(ctx, q, r.BoatID)
	return w.entry(loggedOf(r)), err
}

// checked validates e against its boat, which it fills in, and at the instant
// the conditions of a record that has none.
func (a *App) checked(ctx context.Context, e *logbook.Entry, isNew bool) error {
	if e.SurfaceID != "" {
		f, err := a.store.Read(ctx).Surface(ctx, e.SurfaceID)
		if errors.Is(err, ErrNotFound) {
			return fielderr.At("surfaceId", "choose a surface")
		} else if err != nil {
			return err
		}
		e.BoatID = f.BoatID
	}
	o, err := a.look(ctx, e.BoatID)
	if errors.Is(err, ErrNotFound) {
		return fielderr.At("surfaceId", "choose a surface, or a boat")
	} else if err != nil {
		return err
	}
	if err := o.validate(*e, o.now); err != nil {
		return err
	}
	if isNew || e.Edition == 0 {
		o.freeze(e)
	}
	if e.Felt != nil {
		if err := o.feel(e); err != nil {
			return err
		}
	}
	if !isNew {
		return nil
	}
	if e.Conditions == nil {
		e.Conditions = o.conditions(e.SurfaceID, e.StartedAt)
	}
	return o.asks(*e)
}

// conditions are those at a surface at an instant, nil if the weather is not known.
func (o boatState) conditions(surfaceID string, at time.Time) *logbook.Conditions {
	w, ok := o.climate.Surface[surfaceID]
	if !ok {
		return nil
	}
	i := w.Air.Find(at)
	if i < 0 {
		return nil
	}
	h := w.Air[i]
	return &logbook.Conditions{AirC: h.TempC, RHPct: h.RHPct, SurfaceC: w.SurfaceC[i],
		SpreadK: w.SurfaceC[i] - h.DewPointC(), Measured: h.Measured}
}

// NewEntry is an entry to add. ID is made by who sends it, so that it can be sent
// again when no answer came; empty, one is made.
type NewEntry struct {
	ID string `json:"id,omitempty" format:"uuid"`
	logbook.Entry
}

// AddEntry logs something done. The same entry sent twice is stored once.
func (a *App) AddEntry(ctx context.Context, n NewEntry) (Entry, error) {
	return change(ctx, a, func(ctx context.Context) (Entry, error) {
		if n.ID == "" {
			n.ID = newID()
		}
		if e, sent, err := a.sentBefore(ctx, n); sent || err != nil {
			return e, err
		}
		if err := a.checked(ctx, &n.Entry, true); err != nil {
			return Entry{}, err
		}
		if err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
			return q.AddEntry(ctx, entryRow(logbook.Logged{ID: n.ID, Version: 1, Entry: n.Entry}))
		}); err != nil {
			return Entry{}, err
		}
		return a.Entry(ctx, n.ID)
	})
}

// sentBefore returns the entry of n's id if there is one: a Conflict if it was sent
// with other contents.
func (a *App) sentBefore(ctx context.Context, n NewEntry) (Entry, bool, error) {
	q := a.store.Read(ctx)
	old, err := q.Entry(ctx, n.ID)
	if errors.Is(err, ErrNotFound) {
		return Entry{}, false, nil
	} else if err != nil {
		return Entry{}, false, err
	}
	was := loggedOf(old)
	if former, err := q.EntryHistory(ctx, n.ID); err != nil {
		return Entry{}, false, err
	} else if len(former) > 0 {
		was = loggedOf(former[0].Entry.V)
	}
	e, err := a.Entry(ctx, n.ID)
	same := was.SurfaceID == n.SurfaceID && was.Kind == n.Kind && was.StartedAt.Unix() == n.StartedAt.Unix() &&
		was.ProductID == n.ProductID && was.Litres == n.Litres && was.Note == n.Note
	if err == nil && !same {
		err = Conflict{e}
	}
	return e, true, err
}

// EditEntry corrects a log entry; what it was stays in its history.
func (a *App) EditEntry(ctx context.Context, id string, version int, e logbook.Entry) (Entry, error) {
	return change(ctx, a, func(ctx context.Context) (Entry, error) {
		if err := a.checked(ctx, &e, false); err != nil {
			return Entry{}, err
		}
		return a.changeEntry(ctx, id, func(old logbook.Logged) logbook.Logged {
			if old.ProductID == e.ProductID { // a correction is no new coat
				e.Edition = old.Edition
				if old.StepID == e.StepID {
					e.Planned = old.Planned
				}
			}
			return logbook.Logged{ID: id, Version: version, DeletedAt: old.DeletedAt, Entry: e}
		})
	})
}

// MarkEntry deletes a log entry, or restores a deleted one.
func (a *App) MarkEntry(ctx context.Context, id string, deleted bool) (Entry, error) {
	now, err := a.Now(ctx)
	if err != nil {
		return Entry{}, err
	}
	return a.changeEntry(ctx, id, func(e logbook.Logged) logbook.Logged {
		e.DeletedAt = nil
		if deleted {
			e.DeletedAt = &now
		}
		return e
	})
}

func (a *App) changeEntry(ctx context.Context, id string, change func(logbook.Logged) logbook.Logged) (Entry, error) {
	now, err := a.Now(ctx)
	if err != nil {
		return Entry{}, err
	}
	err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		old, err := q.Entry(ctx, id)
		if err != nil {
			return err
		}
		return q.EditEntry(ctx, entryRow(change(loggedOf(old))), now)
	})
	if err != nil {
		return Entry{}, stale(err, func() (Entry, error) { return a.Entry(ctx, id) })
	}
	return a.Entry(ctx, id)
}

// Former is what an entry was before it was corrected at At.
type Former struct {
	Version int       `json:"version"`
	At      time.Time `json:"at"`
	logbook.Entry
	Product string `json:"product"`
	Deleted bool   `json:"deleted"`
}

// EntryHistory lists what an entry was before its corrections, the oldest first.
func (a *App) EntryHistory(ctx context.Context, id string) ([]Former, error) {
	q := a.store.Read(ctx)
	rows, err := q.EntryHistory(ctx, id)
	if err != nil {
		return nil, err
	}
	sheets, err := products(ctx, q)
	if err != nil {
		return nil, err
	}
	out := make([]Former, len(rows))
	for i, r := range rows {
		f := Former{Version: r.Version, At: time.Unix(r.At, 0).UTC(), Entry: loggedOf(r.Entry.V).Entry,
			Deleted: r.Entry.V.DeletedAt != nil}
		for _, p := range sheets {
			if p.ID == f.ProductID {
				f.Product = p.Sheet.Name
			}
		}
		out[i] = f
	}
	return out, nil
}
