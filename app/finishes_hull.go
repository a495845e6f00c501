package app

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/film/step"
	"allcoats/core/finish/antifoul"
	"allcoats/core/finish/brightwork"
	"allcoats/core/finish/completion"
	"allcoats/core/finish/metal"
	"allcoats/core/physics/psychrometrics"
)

// Bright is a brightwork job.
type Bright struct {
	Finish
	Says   message.Sentence  `json:"says"`
	Work   brightwork.Work   `json:"work"`
	Result brightwork.Result `json:"result"`
	// Nights are the starts after which the wood stays above the dew point for as long
	// as is asked.
	Nights []Stretch `json:"nights"`
	Now    time.Time `json:"now"`
}

// Stretch is from one instant to another.
type Stretch struct {
	From time.Time `json:"from"`
	To   time.Time `json:"to"`
}

// BrightBench plans brightwork.
var BrightBench = Craft[brightwork.Work, Bright]{Key: "brightwork",
	usual: func(o boatState, f Surface) brightwork.Work {
		w := brightwork.Usual()
		w.Covered = f.Shelter != survey.Open
		if f.Substrate == survey.Veneer {
			w.VeneerMM = f.ThicknessMM
		}
		for _, st := range o.steps[f.ID] {
			switch s := o.products[st.ProductID]; {
			case s.Kind == product.Varnish:
				w.Now = max(1, st.Coats)
			case s.Kind == product.WoodSealer && s.Binder == product.Epoxy:
				w.School = "epoxy"
			case s.Kind == product.WoodSealer:
				w.School = "sealer"
			}
		}
		return w
	}, answer: func(o boatState, head Finish, w brightwork.Work) (Bright, error) {
		f := *head.Surface
		out := Bright{Finish: head, Work: w, Nights: []Stretch{}, Now: o.now}
		id, sheet, err := o.sheetFor(f.ID, w.ProductID, product.Varnish)
		if err != nil {
			return out, err
		}
		out.Product, out.Work.ProductID = sheet.Name, id
		method := "brush"
		if len(sheet.Methods) > 0 {
			method = sheet.Methods[0]
		}
		c := brightwork.Case{AreaM2: f.Area.AreaM2, EdgeM: f.edgeM(), Access: f.accessFactor(),
			Face:  o.exposed(f).Exposure,
			Habit: o.habit(product.Varnish, ""), From: o.now,
			Winter: brightwork.Winter(o.now, o.survey.Place.LatitudeDeg), Sheet: sheet, Method: method}
		c.OwnFactor, c.OwnCoats = o.learned(f.ID)
		var sealerID string
		sealerID, c.Sealer = o.sealer(w.School)
		if out.Result, err = w.Plan(c); err != nil {
			return out, err
		}
		out.nights(o, f, w, sheet)
		r := out.Result
		out.hand(o, f.ID, o.hand(f.ID, "brightwork", r.Steps, map[string]string{"main": id, "sealer": sealerID},
			brightKinds...), r.Stopped())
		if stop := r.Stopped(); stop != nil {
			out.Says = stop
			return out, nil
		}
		now := r.Counts[0]
		out.Says = message.Of(
			"%v, %v in all, stop %.0f %% of the ultraviolet; to come %v and about %v of work, %.0f %% of a coat before the brush.", message.Strong(fmt.Sprintf("%d coats", now.Coats)), message.Val(math.Round(now.Um), "µm"), now.UVPct, message.Val(out.Handovers[0].Sum.LeftL, "L"), message.Val(math.Round(out.Handovers[0].Sum.LeftH), "h"), r.Share.PrepPC)
		return out, nil
	}}

// sealer is what a school of brightwork begins with: clear epoxy, or a thin sealer that is
// none; nil if the library has none.
func (o boatState) sealer(school string) (string, *product.Sheet) {
	best := ""
	for id, s := range o.products {
		if s.Kind == product.WoodSealer && s.Binder != product.Oil &&
			(s.Binder == product.Epoxy) == (school == "epoxy") && (best == "" || s.Name < o.products[best].Name) {
			best = id
		}
	}
	if s, ok := o.products[best]; ok && school != "varnish" {
		return best, &s
	}
	return "", nil
}

// nights finds the starts of a coat that stays above the dew point.
func (b *Bright) nights(o boatState, f Surface, w brightwork.Work, sheet product.Sheet) {
	none := 0.0
	at := o.climate.Surface[f.ID]
	_, end, ok := at.Air.Span()
	if !ok {
		return
	}
	job := field.Job{Limits: product.Limits{SpreadMinK: &none},
		Apply:    time.Duration(math.Max(0.25, b.Result.Share.LayH) * float64(time.Hour)),
		Hold:     time.Duration(w.AboveDewH * float64(time.Hour)),
		Dry:      time.Duration(sheet.Limits.RainFreeH * float64(time.Hour)),
		Daylight: o.s.Daylight, Lights: o.s.Lights, Work: o.s.Work, Sheltered: f.Shelter != survey.Open}
	for _, win := range job.Windows(at, o.now, end) {
		b.Nights = append(b.Nights, Stretch{win.From, win.To})
	}
}

// Antifouled is an antifouling job.
type Antifouled struct {
	Finish
	Says   message.Sentence `json:"says"`
	Work   antifoul.Work    `json:"work"`
	Result antifoul.Result  `json:"result"`
	TempC  float64          `json:"tempC"`
	Now    time.Time        `json:"now"`
}

// AntifoulBench plans antifouling.
var AntifoulBench = Craft[antifoul.Work, Antifouled]{Key: "antifouling",
	usual: func(o boatState, f Surface) antifoul.Work {
		w := antifoul.Usual(f.Area.AreaM2, o.survey.Boat.Dimensions.LWLM)
		if f.Part == area.Keel || f.Part == area.Rudder || f.Part == area.Skeg {
			w.Zones = []antifoul.Zone{{Name: "all of it", AreaM2: math.Max(0.1, math.Round(100*f.Area.AreaM2)/100),
				Extra: 1}}
		}
		for _, st := range o.steps[f.ID] {
			if slices.Contains(antifoulKinds, o.products[st.ProductID].Kind) {
				w.Coats = max(1, st.Coats)
			}
		}
		for _, l := range f.Findings.Layers {
			if l.Kind == survey.OldAntifouling {
				w.Old = "unknown"
			}
		}
		return w
	}, answer: func(o boatState, head Finish, w antifoul.Work) (Antifouled, error) {
		f := *head.Surface
		out := Antifouled{Finish: head, Work: w, TempC: o.meanC(f.ID, 4), Now: o.now}
		if w.Zones == nil {
			out.Work.Zones = []antifoul.Zone{}
		}
		id, sheet, err := o.sheetFor(f.ID, w.ProductID, antifoulKinds...)
		if err != nil {
			return out, err
		}
		out.Product, out.Work.ProductID = sheet.Name, id
		factor, _ := o.learned(f.ID)
		c := antifoul.Case{OwnFactor: factor, MonthsAfloat: o.survey.Boat.MonthsAfloat, NM: o.survey.Boat.SeasonNM,
			Substrate: f.Substrate, AreaM2: f.Area.AreaM2, Sheet: sheet, TempC: out.TempC, Now: o.now,
			Launch: o.launch()}
		tieID := w.TieID
		if _, ok := o.products[tieID]; !ok {
			tieID = ""
			for _, st := range o.steps[f.ID] {
				if o.products[st.ProductID].Kind.Info().Ties {
					tieID = st.ProductID
				}
			}
		}
		if tie, ok := o.products[tieID]; ok {
			c.Tie, out.Work.TieID = &tie, tieID
			for _, t := range o.s.Surfaces {
				if t.ID != f.ID {
					continue
				}
				c.Weather = t.Weather
				if t.Last != nil && t.Last.Sheet.Name == tie.Name && t.Next != nil && t.Next.Sheet.Kind == sheet.Kind {
					c.TieLaid = t.Last
					c.Tie = &t.Last.Sheet
				}
			}
		}
		if out.Result, err = w.Plan(c); err != nil {
			return out, err
		}
		r := out.Result
		out.hand(o, f.ID, o.hand(f.ID, "antifouling", r.Steps, map[string]string{"main": id, "tie": tieID},
			antifoulKinds...), r.Stopped())
		if stop := r.Stopped(); stop != nil {
			out.Says = stop
			return out, nil
		}
		out.Says = message.Of("%v of %v: %.2g %s, first to go: %s", message.Val(r.Litres, "L"),
			message.Strong(sheet.Name),
			r.Seasons, map[bool]string{true: "season", false: "seasons"}[r.Seasons == 1], r.First)
		switch {
		case r.LastFrom != nil && r.LastTo != nil && r.LastFrom.After(o.now):
			out.Says = message.Of("%v. The last coat goes on between %v and %v", out.Says,
				message.Clock(*r.LastFrom, o.now, o.s.Loc), message.Clock(*r.LastTo, o.now, o.s.Loc))
		case r.LastTo != nil:
			out.Says = message.Of("%v. The last coat goes on by %v", out.Says, message.Clock(*r.LastTo, o.now, o.s.Loc))
		}
		out.Says = message.Of("%v.", out.Says)
		return out, nil
	}}

// launch is the noon of the day on which the boat is to be launched, nil without one.
func (o boatState) launch() *time.Time {
	day, err := time.ParseInLocation(time.DateOnly, o.survey.Boat.LaunchDate, o.s.Loc)
	if err != nil {
		return nil
	}
	noon := day.Add(12 * time.Hour).UTC()
	return &noon
}

// Metalled is a bare metal job.
type Metalled struct {
	Finish
	Says   message.Sentence `json:"says"`
	Work   metal.Work       `json:"work"`
	Result metal.Result     `json:"result"`
	Now    time.Time        `json:"now"`
}

// MetalBench plans bare metal.
var MetalBench = Craft[metal.Work, Metalled]{Key: "metal", usual: func(o boatState, f Surface) metal.Work {
	w := metal.Usual(math.Round(100*f.Area.AreaM2) / 100)
	coats, um := 0, 0.0
	for _, st := range o.steps[f.ID] {
		if o.products[st.ProductID].Kind == product.MetalPrimer {
			coats, um = coats+st.Coats, um+float64(st.Coats)*st.DFTUm
		}
	}
	if coats > 0 {
		w.Coats, w.NominalUm = coats, um
	}
	return w
}, answer: func(o boatState, head Finish, w metal.Work) (Metalled, error) {
	f := *head.Surface
	out := Metalled{Finish: head, Work: w, Now: o.now}
	if !f.Substrate.Info().Metal {
		return out, fielderr.At("", "%s is of %s, no metal", f.Name, f.SubstrateName)
	}
	c := metal.Case{Substrate: f.Substrate, AreaM2: f.Area.AreaM2, Now: o.now, WashDryH: o.washDryH(f)}
	at := o.climate.Surface[f.ID]
	for i, h := range at.Air {
		c.Air = append(c.Air, metal.Hour{At: h.At,
			RH: math.Min(100, psychrometrics.HumidityAt(psychrometrics.VapourPressure(h.TempC, h.RHPct),
				at.SurfaceC[i]))})
	}
	for _, e := range o.log[f.ID] {
		t := e.StartedAt
		switch k := e.Kind.Kind(); {
		case k.Lays && (e.ProductID == "" || o.products[e.ProductID].Kind == product.MetalPrimer) &&
			(w.BlastedAt == nil || !t.Before(*w.BlastedAt)):
			c.Logged = append(c.Logged, t)
		case e.Kind == step.Wash:
			w.WashedAt = append(w.WashedAt, t)
		}
	}
	roles := map[string]string{}
	for role, kinds := range map[string][]product.Kind{"main": {product.MetalPrimer}, "filler": {product.Fairing}} {
		if id, sheet, err := o.sheetFor(f.ID, "", kinds...); err == nil {
			roles[role] = id
			if role == "main" {
				c.Primer, out.Product = &sheet, sheet.Name
			} else {
				c.Filler = &sheet
			}
		}
	}
	var err error
	if out.Result, err = w.Plan(c); err != nil {
		return out, err
	}
	r := out.Result
	if w.BlastedAt != nil {
		o.bared = map[string]time.Time{f.ID: *w.BlastedAt}
	}
	out.hand(o, f.ID, o.hand(f.ID, "metal", r.Steps, roles, product.MetalPrimer), r.Stopped())
	out.Result.Steps = r.Left(len(c.Logged))
	switch {
	case r.Stopped() != nil:
		out.Says = r.Stopped()
	case r.PrimeBy != nil && len(c.Logged) == 0:
		out.Says = message.Of("%v must be primed by %v: %.0f %% of that time has gone. %s", message.Strong(f.Name),
			message.Clock(*r.PrimeBy, o.now, o.s.Loc), r.UsedPct, map[bool]string{true: "The salt is washed off.",
				false: "Wash off salt first."}[r.Washes[0].At != nil])
	default:
		done := len(c.Logged)
		out.Says = message.Of("%v: %d of %d coats are on", message.Strong(f.Name), min(done, w.Coats), w.Coats)
		if done < w.Coats {
			out.Says = message.Of("%v; wash off salt with fresh water before the next", out.Says)
		}
		out.Says = message.Of("%v.", out.Says)
	}
	return out, nil
}}

// Refitted is the end of a job on a boat.
type Refitted struct {
	Finish
	Says   message.Sentence  `json:"says"`
	Work   completion.Work   `json:"work"`
	Result completion.Result `json:"result"`
	Now    time.Time         `json:"now"`
	// Surfaces are those that hardware and tape may be on.
	Surfaces []BenchSurface `json:"surfaces"`
}

// RefitBench plans bedding, masking, full cure and snags.
var RefitBench = Craft[completion.Work, Refitted]{Key: "refit", Boat: true,
	usual: func(boatState, Surface) completion.Work {
		return completion.Work{Hardware: []completion.Hardware{}, Lines: []completion.Line{},
			Snags: []completion.Snag{}}
	}, answer: func(o boatState, head Finish, w completion.Work) (Refitted, error) {
		out := Refitted{Finish: head, Work: w, Now: o.now, Surfaces: []BenchSurface{}}
		c := completion.Case{TempC: o.meanC("", 5), Now: o.now, Launch: o.launch()}
		known := map[string]bool{"": true}
		for _, f := range o.s.Surfaces {
			known[f.ID] = true
			out.Surfaces = append(out.Surfaces, BenchSurface{ID: f.ID, Name: f.Name})
			coat := completion.Coat{SurfaceID: f.ID, Surface: f.Name, Planned: f.Planned || f.Last != nil}
			switch {
			case !coat.Planned:
				continue
			case f.Last != nil:
				k := clock.Run(*f.Last, product.AnyKind, f.Weather, o.now)
				coat.Product, coat.Started, coat.TouchDry = f.Last.Sheet.Name, f.Last.Started,
					k.Event(clock.TouchDry).At
			case f.Next != nil:
				coat.Product = f.Next.Sheet.Name
			}
			dry, _ := clock.Hardens(f.Films, false, f.Weather)
			fit, _ := clock.Hardens(f.Films, f.Immersed, f.Weather)
			coat.Hard, coat.Immersion = dry.At, fit.At
			if !fit.Tabled {
				coat.Silent = fit.Sheet.Name
			}
			for _, t := range o.job.Chain(f.ID).Tasks {
				if t.Films && t.Left() {
					coat.Left++
				}
			}
			c.Coats = append(c.Coats, coat)
		}
		var bad fielderr.Errors
		for i, h := range w.Hardware {
			if !known[h.SurfaceID] {
				bad.Add(fmt.Sprintf("hardware[%d].surfaceId", i), "is no surface of this boat")
			}
		}
		for i, l := range w.Lines {
			if !known[l.SurfaceID] {
				bad.Add(fmt.Sprintf("lines[%d].surfaceId", i), "is no surface of this boat")
			}
		}
		for i, s := range w.Snags {
			if !known[s.SurfaceID] {
				bad.Add(fmt.Sprintf("snags[%d].surfaceId", i), "is no surface of this boat")
			}
		}
		if err := bad.Err(); err != nil {
			return out, err
		}
		var err error
		if out.Result, err = w.Plan(c); err != nil {
			return out, err
		}
		for id, steps := range w.Steps(c) {
			out.Handovers = append(out.Handovers, *o.hand(id, "refit", steps, nil))
		}
		slices.SortFunc(out.Handovers, func(a, b Handover) int { return strings.Compare(a.Surface, b.Surface) })
		out.Says = out.says(o, c.Launch)
		return out, nil
	}}

func (r Refitted) says(o boatState, launch *time.Time) message.Sentence {
	tapes, beds, late := 0, 0, 0
	for _, l := range r.Result.Lines {
		if l.PullAt != nil && !l.PullAt.After(o.now) {
			tapes++
		}
	}
	for _, b := range r.Result.Bedding {
		if b.SnuggedAt == nil {
			beds++
		}
	}
	for _, k := range r.Result.Ready {
		if k.Late {
			late++
		}
	}
	out := message.Sentence{}
	if launch == nil {
		out = message.Of("%vNo launch day is set. ", out)
	} else if late > 0 {
		out = message.Of("%v%d %s not be cured on the launch day. ", out, late, map[bool]string{true: "surface will",
			false: "surfaces will"}[late == 1])
	} else {
		out = message.Of("%vNothing that is finished will be soft on the launch day. ", out)
	}
	if tapes > 0 {
		out = message.Of("%v%v", out,
			message.Strong(fmt.Sprintf("Pull %d %s now. ", tapes,
				map[bool]string{true: "tape", false: "tapes"}[tapes == 1])))
	}
	if r.Result.Open == 1 {
		return message.Of("%v%d to bed, one snag open, %d to stop the launch.", out, beds, r.Result.Stops)
	}
	return message.Of("%v%d to bed, %d snags open, %d to stop the launch.", out, beds, r.Result.Open, r.Result.Stops)
}
