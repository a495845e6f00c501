package demo

import (
	"context"
	"fmt"
	"time"

	"allcoats/app"
	"allcoats/core/film/step"
	"allcoats/core/finish/antifoul"
	"allcoats/core/finish/brightwork"
	"allcoats/core/finish/completion"
	"allcoats/core/finish/gelcoat"
	"allcoats/core/finish/metal"
	"allcoats/core/finish/mould"
	"allcoats/core/finish/nonskid"
)

// onSurface keeps what edit makes of the usual work of a craft on a surface.
func onSurface[W, R any](ctx context.Context, a *app.App, c app.Craft[W, R], id string, work func(R) W,
	edit func(w *W)) error {
	got, err := c.Get(ctx, a, id)
	if err != nil {
		return err
	}
	w := work(got)
	edit(&w)
	_, err = c.Set(ctx, a, id, 0, w)
	if err != nil {
		return fmt.Errorf("%s: %w", c.Key, err)
	}
	return nil
}

// finish sets the workbenches of the finishes up as they stand at now.
func finish(ctx context.Context, a *app.App, now time.Time) error {
	boats, err := a.Boats(ctx)
	if err != nil {
		return err
	}
	id := map[string]string{} // of a surface, by boat and name
	boat := map[string]string{}
	for _, b := range boats {
		s, err := a.Survey(ctx, b.ID)
		if err != nil {
			return err
		}
		boat[b.Name] = b.ID
		for _, f := range s.Surfaces {
			id[b.Name+", "+f.Name] = f.ID
		}
	}
	if err := finishDeck(ctx, a, id["Marsh Lantern, Deck"]); err != nil {
		return err
	}
	if err := finishHulls(ctx, a, now, id); err != nil {
		return err
	}
	return refit(ctx, a, now, boat["Marsh Lantern"], id)
}

// finishDeck lays the deck of the launch out for non-skid, and for moulded panels.
func finishDeck(ctx context.Context, a *app.App, deck string) error {
	if err := onSurface(ctx, a, app.NonSkidBench, deck, func(r app.NonSkid) nonskid.Work {
		return r.Work
	}, func(w *nonskid.Work) {
		box := func(name, kind string, x, y, l, b float64) nonskid.Fitting {
			return nonskid.Fitting{Name: name, Kind: kind, X: x, Y: y, LengthM: l, WidthM: b, Mirror: y != 0}
		}
		w.Fittings = []nonskid.Fitting{box("fore hatch", "hatch", 7.3, 0, 0.55, 0.55),
			box("bow cleat", "cleat", 8.55, 0.3, 0.25, 0.08), box("side cleat", "cleat", 4.6, 1.28, 0.25, 0.08),
			box("quarter cleat", "cleat", 0.35, 1.15, 0.25, 0.08), {Name: "fuel filler", Kind: "filler", X: 1.9, Y: 1.2,
				LengthM: 0.09, Round: true, Mirror: true},
			box("stanchion", "stanchion", 6.1, 1.28, 0.08, 0.08), box("stanchion", "stanchion", 3.1, 1.45, 0.08, 0.08)}
		across := func(x, width float64) nonskid.Split {
			return nonskid.Split{X1: x, Y1: -2, X2: x, Y2: 2, WidthM: width}
		}
		w.Splits = []nonskid.Split{across(2.1, 0.03), across(4.2, 0.03), across(6.3, 0.06), across(8.2, 0.03),
			{X1: 5.9, X2: 9.8, WidthM: 0.05}, {X1: 0, X2: 0.5, WidthM: 0.05}, {X1: 1.5, X2: 2.7, WidthM: 0.05}}
		w.Stencil = &nonskid.Stencil{Text: "LANTERN", X: 7.45, Y: 0.43, HeightM: 0.12, BridgeM: 0.006}
		w.Laid = map[string]float64{}
	}); err != nil {
		return err
	}
	if err := onSurface(ctx, a, app.MouldBench, deck, func(r app.Moulded) mould.Work {
		return r.Work
	}, func(w *mould.Work) {
		w.SourceLengthM, w.SourceWidthM, w.TempC = 2, 1.5, 18
	}); err != nil {
		return err
	}
	return nil
}

// finishHulls fills in the benches of gelcoat, brightwork, antifouling and metal.
func finishHulls(ctx context.Context, a *app.App, now time.Time, id map[string]string) error {
	if err := onSurface(ctx, a, app.GelcoatBench, id["Marsh Lantern, Topsides starboard"],
		func(r app.Gelcoated) gelcoat.Work { return r.Work }, func(w *gelcoat.Work) {
			day := func(n int) string { return now.AddDate(0, 0, -n).Format(time.DateOnly) }
			w.Way, w.Seal, w.TempC, w.FromGrit = gelcoat.Repair, gelcoat.Film, 17, 240
			w.Gouges = []gelcoat.Gouge{{LengthMM: 60, WidthMM: 40, DepthMM: 2, Count: 1},
				{LengthMM: 25, WidthMM: 10, DepthMM: 1, Count: 4}}
			w.Patches = []gelcoat.Patch{{On: day(6), Recipe: "off-white 100, black 0.5", Judged: "too dark",
				Note: "looked right wet"}, {On: day(3), Recipe: "off-white 100, black 0.2, ochre 0.1", Judged: "match"}}
		}); err != nil {
		return err
	}
	if err := onSurface(ctx, a, app.BrightBench, id["Reed Warbler, Mizzen mast"], func(r app.Bright) brightwork.Work {
		return r.Work
	}, func(w *brightwork.Work) {
		w.Seen, w.Strip, w.School, w.Now, w.Later, w.Bungs, w.Thinned = "amber-gum", "heat", "sealer", 4, 3, 6, false
	}); err != nil {
		return err
	}
	if err := onSurface(ctx, a, app.AntifoulBench, id["Marsh Lantern, Bottom"], func(r app.Antifouled) antifoul.Work {
		return r.Work
	}, func(w *antifoul.Work) {
		w.First, w.Second, w.NM, w.Seasons, w.Brass = "dull red", "black", 600, 2, true
	}); err != nil {
		return err
	}
	if err := onSurface(ctx, a, app.MetalBench, id["Sounding Line, Topsides starboard"],
		func(r app.Metalled) metal.Work { return r.Work }, func(w *metal.Work) {
			w.BlastedAt, w.WashedAt = ago(now, 2), []time.Time{*ago(now, 1)}
			w.Profile, w.AreaM2, w.EdgeM, w.OldUm, w.Pits, w.PitM2, w.PitMM = "medium", 2.4, 6, 220, 4, 0.3, 1.2
			w.Pairs = []metal.Pair{{A: "stainless", B: "aluminium", Where: "fender eyes"},
				{A: "bronze", B: "aluminium", Where: "cooling inlet", Isolated: true}}
			w.Posts = []metal.Post{{Name: "the davit", AcrossMM: 76, CollarMM: 60, RiseMM: 6}}
		}); err != nil {
		return err
	}
	return nil
}

// refit notes what is left of the launch's job beside her coats.
func refit(ctx context.Context, a *app.App, now time.Time, boat string, id map[string]string) error {
	return onSurface(ctx, a, app.RefitBench, boat, func(r app.Refitted) completion.Work {
		return r.Work
	}, func(w *completion.Work) {
		w.Hardware = []completion.Hardware{{Name: "rubbing strake, port", SurfaceID: id["Marsh Lantern, Topsides port"],
			Compound: "polyether", Sealed: true},
			{Name: "log transducer", SurfaceID: id["Marsh Lantern, Bottom"], Compound: "polysulphide", Sealed: true,
				BeddedAt: ago(now, 20)}, {Name: "side cleats", SurfaceID: id["Marsh Lantern, Deck"], Compound: "butyl"}}
		w.Lines = []completion.Line{{Name: "waterline", SurfaceID: id["Marsh Lantern, Bottom"], Tape: "fine-line",
			LengthM: 19, Pull: step.TouchDry, MaskedAt: ago(now, 60)},
			{Name: "rail, port", SurfaceID: id["Marsh Lantern, Topsides port"], Tape: "crepe", LengthM: 10,
				Pull: step.WhileWet, MaskedAt: ago(now, 30), Twice: true}}
		w.Snags = []completion.Snag{{Text: "run below the rail, a metre from the stem",
			SurfaceID: id["Marsh Lantern, Topsides port"]},
			{Text: "anode not connected", SurfaceID: id["Marsh Lantern, Bottom"], Stops: true},
			{Text: "fingerprint in the primer", SurfaceID: id["Marsh Lantern, Rudder"], Done: true}}
	})
}

func ago(now time.Time, h float64) *time.Time {
	t := now.Add(-time.Duration(h * float64(time.Hour)))
	return &t
}
