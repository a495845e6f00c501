package app

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/parallel"
	"allcoats/core/boat/outline"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/climate"
	"allcoats/core/conditions/field"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/finish/fair"
	"allcoats/core/geometry/polygon"
	"allcoats/core/job/scheme"
	"allcoats/formats"
)

func newFairing(r Readings) Fairing {
	return Fairing{Readings: r, Depth: [][]*float64{}, Heights: [][]*float64{}, Curves: []FairCurve{},
		Jobs: []FairJob{}, Contours: []fair.Contour{}, Patches: []FairPatch{}, Notes: []message.Sentence{}}
}

// walked works out lines that were read placement by placement, and lows that were circled. The edge
// is the batten of the target too.
func (o boatState) walked(surfaceID string, r Readings) (Fairing, error) {
	out := newFairing(r)
	class, known := fair.ClassByKey(r.Class)
	var bad fielderr.Errors
	if !known {
		bad.Add("class", "choose how fair it is to be")
	}
	bad.Range("round", float64(r.Round), 1, 100, "rounds")
	f := o.surface(surfaceID)
	got, err := fair.Walk(fair.WalkRequest{Lines: r.Lines, Lows: r.Lows, Hard: f.Findings.HardLines, EdgeM: r.BattenM,
		SpacingM: r.SpacingM, LimitMM: max(0.05, class.GapMM), ErrorMM: r.ErrorMM})
	bad.Under("", renamed(err))
	if err := bad.Err(); err != nil {
		return out, err
	}
	if got.AreaM2 > fair.OffSurface*f.Area.AreaM2 {
		return out, fielderr.At("lines", "the lines stand for %.3g m² and %s has %.3g: they are not all on it",
			got.AreaM2, f.Name, f.Area.AreaM2)
	}
	out.Result = FairFigures{FillL: got.Need.FillL, FillM2: got.Need.FillM2, MaxFillMM: got.Need.DeepestMM,
		BeforeMM: got.BeforeMM, AfterMM: got.AfterMM, TargetMM: class.GapMM, AreaM2: got.AreaM2}
	if got.HighL > got.Need.FillL || got.LowL < got.Need.FillL {
		out.Result.LowL, out.Result.HighL = got.LowL, got.HighL
	}
	for _, l := range got.Lines {
		out.Depth, out.Heights = append(out.Depth, pointers(l.FillMM)), append(out.Heights, pointers(l.HeightsMM))
	}
	out.Notes, out.Contours, out.chart = got.Notes, got.Chart.Contours(r.ErrorMM), got.Chart
	out.patched(got.Patches)
	if len(r.Lines) > 0 && got.Need.DeepestMM > r.MaxFillMM {
		out.Short = message.Of(
			"The deepest low wants %.1f mm, and at most %.1f mm may be filled: build it up structurally first, or be content with less fair.", got.Need.DeepestMM, r.MaxFillMM)
	}
	o.fillerOf(&out, surfaceID, got.Need)
	out.Says = out.says(class)
	return out, nil
}

func (f *Fairing) patched(patches []fair.Patch) {
	for _, p := range patches {
		f.Patches = append(f.Patches, FairPatch{p, []int{}})
	}
}

// renamed gives the faults of edges the names that readings have, what is the same of all lines once.
func renamed(err error) error {
	var bad, out fielderr.Errors
	if !errors.As(err, &bad) {
		return err
	}
	for _, f := range bad {
		for edge, name := range map[string]string{".edgeM": "battenM", ".spacingM": "spacingM",
			".readingErrorMM": "errorMM"} {
			if strings.HasSuffix(f.Path, edge) {
				f.Path = name
			}
		}
		if !slices.ContainsFunc(out, func(o fielderr.Field) bool { return o.Path == f.Path }) {
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

// readyFutures is in how many futures a filling is played.
const readyFutures = 24

// readied fills in when the last pass of a filling may be sanded, over the forecast, and in nine of
// ten futures.
func (o boatState) readied(surfaceID string, j *FairJob, sheet product.Sheet, hard *product.Sheet) {
	passes, err := j.Laid(sheet, hard, func(s product.Sheet) (field.Job, error) {
		job, _, err := o.fieldJob(s, VerdictQuery{SurfaceID: surfaceID, Method: "blade"})
		return job, err
	})
	if err != nil || len(passes) == 0 {
		return
	}
	ready := func(w field.Weather) *time.Time {
		return fair.Ready(passes, w, o.survey.Boat.Week, o.s.Loc, o.now)
	}
	if j.Ready = ready(o.climate.Surface[surfaceID]); j.Ready != nil {
		j.Days = j.Ready.Sub(o.now).Hours() / 24
	}
	boat, f := o.boat, o.futures()
	boat.Surfaces = slices.DeleteFunc(slices.Clone(boat.Surfaces), func(s climate.Surface) bool {
		return s.ID != surfaceID
	})
	boat.Memory = nil
	days := make([]float64, readyFutures)
	_ = parallel.Each(context.Background(), readyFutures, nil, func(_, i int) {
		days[i] = math.Inf(1)
		if at := ready(boat.Ahead(f.Make(futuresSeed, uint64(i), nil))[surfaceID]); at != nil {
			days[i] = at.Sub(o.now).Hours() / 24
		}
	})
	slices.Sort(days)
	if late := days[readyFutures*9/10]; !math.IsInf(late, 1) {
		j.LateDays = late
	}
}

// hardUnder is the filler of the library that goes under a light one where it is deep, nil if there is
// none.
func (o boatState) hardUnder(light product.Sheet) (string, *product.Sheet) {
	best := ""
	for id, s := range o.products {
		if fair.GoesUnder(s, light) && (best == "" || s.Name < o.products[best].Name) {
			best = id
		}
	}
	if best == "" {
		return "", nil
	}
	s := o.products[best]
	return best, &s
}

// primed puts what must lie under a filling on bare metal before it, and what closes it after it,
// on the same patches, where nothing on or to come does so.
func (o boatState) primed(surfaceID, key string, at *step.Where, steps []craft.Step) ([]craft.Step, map[string]string) {
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
		return craft.Coats(key+"-"+role, role, 1, o.products[id].Film.TypicalUm, roller, 0, message.Of("%s", how)).At(
			at).First(), true
	}
	if under {
		if s, ok := add("under", product.MetalPrimer,
			"on the bright metal of the lows, the same day; filler does not hold on bare metal"); ok {
			bright := craft.Work(key+"-bright", "sand it bright",
				message.Of(
					"the lows, to bright metal with fresh paper that is kept for it; wipe, and prime it the same day"),
				0, 0).With(80, 0).At(at).First()
			steps = append([]craft.Step{bright, s}, steps...)
		}
	}
	if over {
		kind := product.HighBuild
		if f.Part.Underwater() {
			kind = product.Barrier
		}
		if s, ok := add("over", kind,
			"over the filler once it is fair: it drinks, and shows through whatever lies right on it"); ok {
			steps = append(steps, s)
		}
	}
	return steps, roles
}

// PatchTemplate draws a patch of a set of readings at 1:1, to be taped to the hull: a line for each
// depth, as one sees them standing before it. Formats are those of Template.
func (a *App) PatchTemplate(ctx context.Context, id, patch, format string) (TemplateFile, error) {
	row, err := a.store.Read(ctx).Fairing(ctx, id)
	if err != nil {
		return TemplateFile{}, err
	}
	view, err := a.Fairing(ctx, row.SurfaceID, id)
	if err != nil {
		return TemplateFile{}, err
	}
	k := slices.IndexFunc(view.Now.Patches, func(p FairPatch) bool { return p.Name == patch })
	if k < 0 {
		return TemplateFile{}, fielderr.At("patch", "is no patch of these readings")
	}
	p := view.Now.Patches[k]
	t := formats.Template{Title: fmt.Sprintf("%s, %s", view.Surface.Name, p.Name)}
	seen := func(q outline.Point) polygon.Point {
		out := polygon.Point{X: q.X, Y: q.Y}
		if !outline.Up(p.View) {
			out.Y = -out.Y
		}
		if p.View == outline.PortSide { // the bow to the left
			out.X = -out.X
		}
		return out
	}
	for _, c := range view.Now.chart.Of(p.Patch, view.Now.ErrorMM) {
		rings := make([]polygon.Ring, len(c.Rings))
		for i, r := range c.Rings {
			for _, q := range r {
				rings[i] = append(rings[i], seen(q))
			}
		}
		t.Pieces = append(t.Pieces, formats.Piece{Name: fmt.Sprintf("%g mm", c.DepthMM),
			Shape: polygon.FromRings(rings)})
	}
	if len(t.Pieces) == 0 {
		return TemplateFile{}, fielderr.At("patch", "is nowhere deeper than a reading may be out")
	}
	return templateFile(t, "patch", format)
}
