package app

import (
	"errors"
	"math"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fault"
	"allcoats/core/base/say"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/finish/fair"
	"allcoats/core/job/scheme"
	"allcoats/core/physics/cure"
)

func newFairing(r Readings) Fairing {
	return Fairing{Readings: r, Depth: [][]*float64{}, Heights: [][]*float64{}, Curves: []FairCurve{}, Jobs: []FairJob{}, Patches: []FairPatch{}, Notes: []say.Sentence{}}
}

// walked works lines out that were read placement by placement. The edge is the batten of the
// target too.
func (o outlook) walked(surfaceID string, r Readings) (Fairing, error) {
	out := newFairing(r)
	class, known := fair.ClassByKey(r.Class)
	var bad fault.Errors
	if !known {
		bad.Add("class", "choose how fair it is to be")
	}
	bad.Range("round", float64(r.Round), 1, 100, "rounds")
	got, err := fair.Walk(r.Lines, r.BattenM, r.SpacingM, max(0.05, class.GapMM), r.ErrorMM)
	bad.Under("", renamed(err))
	if err := bad.Err(); err != nil {
		return out, err
	}
	if f := o.surface(surfaceID); got.AreaM2 > fair.OffSurface*f.Area.AreaM2 {
		return out, fault.At("lines", "the lines stand for %.3g m² and %s has %.3g: they are not all on it", got.AreaM2, f.Name, f.Area.AreaM2)
	}
	out.Result = FairFigures{FillL: got.FillL, FillM2: got.FillM2, MaxFillMM: got.DeepestMM, BeforeMM: got.BeforeMM, AfterMM: got.AfterMM, TargetMM: class.GapMM, AreaM2: got.AreaM2}
	if got.TiltsNotObserved > 0 {
		out.Result.LowL, out.Result.HighL = got.LowL, got.HighL
	}
	for _, l := range got.Lines {
		out.Depth, out.Heights = append(out.Depth, pointers(l.FillMM)), append(out.Heights, pointers(l.HeightsMM))
	}
	out.Notes = got.Notes
	for _, p := range got.Patches {
		out.Patches = append(out.Patches, FairPatch{p, []int{}})
	}
	if got.DeepestMM > r.MaxFillMM {
		out.Short = say.Of("The deepest low wants %.1f mm, and at most %.1f mm may be filled: build it up structurally first, or be content with less fair.", got.DeepestMM, r.MaxFillMM)
	}
	o.fillerOf(&out, surfaceID, fair.Result{FillL: got.FillL, FillM2: got.FillM2, MaxFillMM: got.DeepestMM})
	out.Says = out.says(class)
	return out, nil
}

// renamed gives the faults of edges the names that readings have, what is the same of all lines once.
func renamed(err error) error {
	var bad, out fault.Errors
	if !errors.As(err, &bad) {
		return err
	}
	for _, f := range bad {
		for edge, name := range map[string]string{".edgeM": "battenM", ".spacingM": "spacingM", ".readingErrorMM": "errorMM"} {
			if strings.HasSuffix(f.Path, edge) {
				f.Path = name
			}
		}
		if !slices.ContainsFunc(out, func(o fault.Field) bool { return o.Path == f.Path }) {
			out = append(out, f)
		}
	}
	return out
}

func pointers(v []float64) []*float64 {
	out := make([]*float64, len(v))
	for i := range v {
		out[i] = &v[i]
	}
	return out
}

// Working hours of a day at which passes are laid where nothing else is said.
const fairFromH, fairToH = 8, 17

// filledBy is when the last pass of a filling may be sanded, by the sheet's clock over the surface's
// own weather: every pass is laid in a day's working hours, the next when it may be boarded. nil
// where the weather known does not reach.
func (o outlook) filledBy(surfaceID string, sheet product.Sheet, j fair.Job) *time.Time {
	if len(sheet.Sandable) == 0 || j.Passes == 0 {
		return nil
	}
	w := o.climate.Surface[surfaceID]
	clock := cure.Clock{Table: sheet.Sandable, FloorC: sheet.MinCureC}
	path := w.Path(sheet.Humidity)
	at := o.now
	for range j.Passes {
		at = o.worked(at, j.Hours/float64(j.Passes))
		ready := clock.Run(path, at, 1).Reached
		if ready == nil {
			return nil
		}
		at = *ready
	}
	return &at
}

// worked is when so many hours of work are done that begin at an instant or the next working hour.
func (o outlook) worked(at time.Time, hours float64) time.Time {
	for hours > 1e-9 {
		day := at.In(o.s.Loc)
		from := time.Date(day.Year(), day.Month(), day.Day(), fairFromH, 0, 0, 0, o.s.Loc)
		to := from.Add((fairToH - fairFromH) * time.Hour)
		if at.Before(from) {
			at = from
		}
		if !at.Before(to) {
			at = from.AddDate(0, 0, 1)
			continue
		}
		h := math.Min(hours, to.Sub(at).Hours())
		at, hours = at.Add(time.Duration(h*float64(time.Hour))), hours-h
	}
	return at
}

// primed puts what must lie under a filling on bare metal before it, and what closes it after it,
// on the same patches, where nothing on or to come does so.
func (o outlook) primed(surfaceID string, at *step.Where, steps []craft.Step) ([]craft.Step, map[string]string) {
	f := o.surface(surfaceID)
	roles := map[string]string{}
	under, over := f.Substrate.Info().Metal, true
	for _, e := range o.log[surfaceID] {
		under = under && !o.products[e.ProductID].IsCoat()
	}
	for _, s := range o.steps[surfaceID] {
		p := o.planned(s)
		if p.Origin != nil && p.Origin.Bench == "fairing" {
			continue
		}
		info := p.Sheet.Kind.Info()
		under = under && !info.Metal
		over = over && !(info.Seals && !info.Metal && p.Where == nil && o.job.Coats(s.ID) < s.Coats)
	}
	add := func(role string, kind product.Kind, how string) (craft.Step, bool) {
		id, ok := o.choose(scheme.Step{Kind: kind}, f)
		if !ok {
			return craft.Step{}, false
		}
		roles[role] = id
		roller, _ := film.MethodByKey("brush")
		return craft.Coats(steps[0].Key+"-"+role, role, 1, o.products[id].Film.TypicalUm, roller, 0, say.Of("%s", how)).At(at).First(), true
	}
	if under {
		if s, ok := add("under", product.MetalPrimer, "on the bright metal of the lows, the same day; filler does not hold on bare metal"); ok {
			bright := craft.Work(steps[0].Key+"-bright", "sand it bright", say.Of("the lows, to bright metal with fresh paper that is kept for it; wipe, and prime it the same day"), 0, 0).With(80, 0).At(at).First()
			steps = append([]craft.Step{bright, s}, steps...)
		}
	}
	if over {
		kind := product.HighBuild
		if f.Part.Underwater() {
			kind = product.Barrier
		}
		if s, ok := add("over", kind, "over the filler once it is fair: it drinks, and shows through whatever lies right on it"); ok {
			steps = append(steps, s)
		}
	}
	return steps, roles
}
