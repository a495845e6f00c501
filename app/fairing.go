package app

import (
	"fmt"
	"math"
	"slices"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/readiness"
	"allcoats/core/film/film"
	"allcoats/core/film/mix"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
	"allcoats/core/finish/fair"
	"allcoats/core/job/task"
	"allcoats/core/physics/cure"
)

// FairJob is the filling by a school, with what it puts into the build-up. Ready is when the last
// pass may be sanded, begun at the next hour that goes; nil where the weather known does not reach.
// LateDays are those that nine of ten futures stay within, 0 if they do not within ten days.
type FairJob struct {
	fair.Job
	Ready    *time.Time `json:"ready,omitempty"`
	Days     float64    `json:"days"`
	LateDays float64    `json:"lateDays"`
	// Batches are the pots of the first pass of the light filler, as the bench has them.
	Batches  *mix.Batches `json:"batches,omitempty"`
	Hard     string       `json:"hard"` // the name of what goes under
	Handover *Handover    `json:"handover,omitempty"`
}

// FairPatch is a low with the passes that each school, in their order, takes on it.
type FairPatch struct {
	fair.Patch
	Passes []int `json:"passes"`
}

// FairCurve is what another stiffness would come to.
type FairCurve struct {
	StiffnessM float64 `json:"stiffnessM"`
	FillL      float64 `json:"fillL"`
	GrindL     float64 `json:"grindL"`
	MaxFillMM  float64 `json:"maxFillMM"`
	AfterMM    float64 `json:"afterMM"`
	Chosen     bool    `json:"chosen"`
}

// Fairing is a set of readings with the fair surface through it and what that takes.
type Fairing struct {
	ID      string    `json:"id"`
	Version int       `json:"version"`
	ReadAt  time.Time `json:"readAt"`
	Readings
	Says  message.Sentence `json:"says"`
	Depth [][]*float64     `json:"depth"` // filler +, grinding −, mm
	// Heights are of the surface as read, outward, mm, row by row or line by line.
	Heights [][]*float64 `json:"heights"`
	Patches []FairPatch  `json:"patches"`
	// Notes say what these placements do not tell.
	Notes  []message.Sentence `json:"notes"`
	Result FairFigures        `json:"result"`
	Curves []FairCurve        `json:"curves"`
	Jobs   []FairJob          `json:"jobs"`
	// Contours are the depths drawn on the boat's map, or on a drawing of their own.
	Contours []fair.Contour `json:"contours"`
	chart    fair.Chart
	Product  string  `json:"product"`
	CureH    float64 `json:"cureH"`
	SurfaceC float64 `json:"surfaceC"`
	// Stand says which stiffness of filler the face wants.
	Stand string `json:"stand"`
	// Short says where the limits do not admit a surface as fair as is wanted.
	Short message.Sentence `json:"short,omitempty"`
}

// FairFigures sum a result up.
type FairFigures struct {
	FillL     float64 `json:"fillL"`
	GrindL    float64 `json:"grindL"`
	FillM2    float64 `json:"fillM2"`
	GrindM2   float64 `json:"grindM2"`
	MaxFillMM float64 `json:"maxFillMM"`
	MaxGrind  float64 `json:"maxGrindMM"`
	BeforeMM  float64 `json:"beforeMM"`
	AfterMM   float64 `json:"afterMM"`
	TargetMM  float64 `json:"targetMM"`
	AreaM2    float64 `json:"areaM2"`
	// LowL to HighL is the range where the edge was laid end to end.
	LowL  float64 `json:"lowL,omitempty"`
	HighL float64 `json:"highL,omitempty"`
}

// fairing works readings out on a surface.
func (o boatState) fairing(surfaceID string, r Readings) (Fairing, error) {
	if len(r.Lines) > 0 || len(r.Gaps) == 0 && len(r.Lows) > 0 {
		return o.walked(surfaceID, r)
	}
	g, err := r.grid()
	if err != nil {
		return Fairing{}, err
	}
	f := o.surface(surfaceID)
	g = g.Hardened(r.On, f.Findings.HardLines)
	if g.NY > 1 && g.AreaM2() > fair.OffSurface*f.Area.AreaM2 {
		return Fairing{}, fielderr.At("spacingM", "the readings cover %.3g m² and %s has %.3g: they are not all on it",
			g.AreaM2(), f.Name, f.Area.AreaM2)
	}
	out := newFairing(r)
	got, err := fair.Fit(g, r.Limits)
	if err != nil {
		return out, err
	}
	class, _ := fair.ClassByKey(r.Class)
	chart, patches, err := fair.FitChart(g, got, r.On, r.Lows, r.ErrorMM)
	if err != nil {
		return out, err
	}
	need := chart.Need(patches)
	out.Result = FairFigures{FillL: need.FillL, GrindL: got.GrindL, FillM2: need.FillM2, GrindM2: got.GrindM2,
		MaxFillMM: need.DeepestMM, MaxGrind: got.MaxGrind,
		BeforeMM: got.BeforeMM, AfterMM: got.AfterMM, TargetMM: class.GapMM, AreaM2: g.AreaM2()}
	out.Contours, out.chart = chart.Contours(r.ErrorMM), chart
	out.patched(patches)
	for y := range g.NY {
		row, heights := make([]*float64, g.NX), make([]*float64, g.NX)
		for x := range g.NX {
			if d := got.Depth[y*g.NX+x]; !math.IsNaN(d) {
				row[x] = &d
			}
			if v := g.Gaps[y*g.NX+x]; !math.IsNaN(v) {
				h := -v
				heights[x] = &h
			}
		}
		out.Depth, out.Heights = append(out.Depth, row), append(out.Heights, heights)
	}
	for _, factor := range []float64{0.5, 1, 2} {
		l := r.Limits
		l.StiffnessM *= factor
		one := got
		if factor != 1 {
			if one, err = fair.Fit(g, l); err != nil {
				return out, err
			}
		}
		out.Curves = append(out.Curves, FairCurve{l.StiffnessM, one.FillL, one.GrindL, one.MaxFillMM, one.AfterMM,
			factor == 1})
	}
	l := r.Limits
	l.MaxFillMM = 200
	free, err := fair.Fit(g, l)
	if err != nil {
		return out, err
	}
	if extra, at, short := g.Short(got, free, class); short {
		out.Short = message.Of(
			"Within these limits it stays %.1f mm off where %.1f mm are wanted. At reading %d of row %d another %.1f mm of filler would be needed, or a softer curve.",
			got.AfterMM, class.GapMM, at%g.NX+1, at/g.NX+1, extra)
	}
	o.fillerOf(&out, surfaceID, need)
	out.Says = out.says(class)
	return out, nil
}

// fillerOf reckons the filler of a fairing: the product chosen, or the first filler of
// the library.
func (o boatState) fillerOf(out *Fairing, surfaceID string, need fair.Need) {
	sheet, ok := o.products[out.ProductID]
	if !ok {
		ids := []string{}
		for id, s := range o.products {
			if s.Kind.Info().Filler {
				ids = append(ids, id)
			}
		}
		slices.SortFunc(ids, func(a, b string) int {
			if o.products[a].Name < o.products[b].Name {
				return -1
			}
			return 1
		})
		if len(ids) == 0 {
			return
		}
		out.ProductID, sheet = ids[0], o.products[ids[0]]
	}
	out.Product = sheet.Name
	w := o.climate.Surface[surfaceID]
	if i := w.Air.Find(o.now); i >= 0 {
		out.SurfaceC = w.SurfaceC[i]
	}
	out.CureH, _ = sheet.Sandable.TauH(out.SurfaceC, cure.Minimum)
	if math.IsInf(out.CureH, 1) {
		out.CureH = 0
	}
	f := o.surface(surfaceID)
	hardID, hard := o.hardUnder(sheet)
	for _, s := range fair.Schools {
		j := FairJob{Job: s.Fill(need, sheet, hard, fair.Face{TiltDeg: f.Tilt(f.Part), Access: f.accessFactor()})}
		if j.Under != nil {
			j.Under.ProductID, j.Hard = hardID, hard.Name
		}
		o.readied(surfaceID, &j, sheet, hard)
		for i, p := range out.Patches {
			out.Patches[i].Passes = append(p.Passes, j.PassesTo(p.DeepestMM, sheet, hard))
		}
		if litres := j.Litres / float64(max(1, j.Passes)); litres > 0 {
			one := step.Step{Work: step.Fair, Coats: 1, DFTUm: 1000, Method: "blade", Sheet: sheet,
				Detail: step.Detail{Where: &step.Where{Name: "lows",
					Patches: []step.Patch{{Name: "lows", AreaM2: need.FillM2}}}}}
			layH, _ := o.reckoned(readiness.Surface{ID: surfaceID}, one)
			rate, _ := o.rate(out.ProductID, litres, layH)
			if b, err := o.share(sheet, litres, rate, o.potC(o.now), o.now); err == nil {
				j.Batches = &b
			}
		}
		j.Handover = o.handFair(surfaceID, *out, j.Job)
		out.Jobs = append(out.Jobs, j)
	}
	out.Stand = mix.Stands(f.Tilt(f.Part))
}

// says answers how much, how many passes, and whether it is fair enough.
func (f Fairing) says(c fair.Class) message.Sentence {
	guessed := len(f.Patches) > 0 && !slices.ContainsFunc(f.Patches, func(p FairPatch) bool { return !p.Circled })
	if guessed {
		return message.Of(
			"Fill about %v in %d %s, the deepest about %v by guess: lay an edge over that one before you mix.",
			message.Val(f.Result.FillL, "L"), len(f.Patches), plural(len(f.Patches), "low", "lows"),
			message.Val(round1(f.Result.MaxFillMM), "mm"))
	}
	if len(f.Patches) == 0 && f.Result.BeforeMM <= c.GapMM {
		return message.Of("It is fair enough for a %s: %v under a straightedge a metre long, and %v are allowed.",
			c.Name, message.Val(round1(f.Result.BeforeMM), "mm"), message.Val(c.GapMM, "mm"))
	}
	out := message.Of("Fill %v", message.Val(f.Result.FillL, "L"))
	switch n := len(f.Patches); {
	case n == 1:
		out = message.Of("%v in one patch", out)
	case n > 1:
		out = message.Of("%v in %d patches", out, n)
	}
	if len(f.Patches) > 0 {
		out = message.Of("%v and leave the rest", out)
	}
	if f.Result.GrindL > 0.001 {
		out = message.Of("%v and grind off at most %v", out, message.Val(round1(f.Result.MaxGrind), "mm"))
	}
	return message.Of("%v, deepest %v: the gap goes from %v to %v, %s asks for %v.", out,
		message.Val(round1(f.Result.MaxFillMM), "mm"), message.Val(round1(f.Result.BeforeMM), "mm"),
		message.Val(round1(f.Result.AfterMM), "mm"), c.Name, message.Val(c.GapMM, "mm"))
}

func round1(v float64) float64 { return math.Round(10*v) / 10 }

// handFair is what the filling of a set of readings by a school puts into the build-up:
// the passes, on the lows that are filled.
func (o boatState) handFair(surfaceID string, f Fairing, j fair.Job) *Handover {
	sheet := o.products[f.ProductID]
	if j.Passes == 0 || f.Result.FillM2 <= 0 {
		return nil
	}
	blade, _ := film.MethodByKey("blade")
	at := &step.Where{Name: fmt.Sprintf("lows of round %d", f.Round)}
	deep := &step.Where{Name: fmt.Sprintf("deep lows of round %d", f.Round)}
	for i, p := range f.Patches {
		one := step.Patch{Name: p.Name, AreaM2: p.AreaM2}
		at.Patches = append(at.Patches, one)
		if f.Patches[i].DeepestMM > fair.DeepMM {
			deep.Patches = append(deep.Patches, one)
		}
	}
	pass := func(key, role string, n int, litres, lossPct, hours float64, s product.Sheet,
		where *step.Where) craft.Step {
		um := 1000 * litres * (1 - lossPct/100) * s.VolumeSolidsPct / 100 / where.AreaM2(0) / float64(n)
		c := craft.Coats(key, role, n, um, blade, hours/float64(n),
			message.Of("%s: %s", j.School.Name, j.School.Why)).At(where).First()
		c.Work, c.LossPct, c.KeyGrit = step.Fair, lossPct, fair.BoardGrit
		return c
	}
	key := fmt.Sprintf("round-%d", f.Round)
	steps := []craft.Step{pass(key, "main", j.Passes, j.Litres, j.LossPct, j.LayH, sheet, at)}
	if u := j.Under; u != nil && len(deep.Patches) > 0 {
		steps = append([]craft.Step{pass(key+task.HardKey, "hard", u.Passes, u.Litres, 0, u.LayH,
			o.products[u.ProductID], deep)}, steps...)
	}
	look := craft.Work(key+"-look", "guide coat, and count what it leaves",
		message.Of("a mist or dust of another colour, boarded off both ways: what stays coloured is low"), 0, 0).As(
		step.Inspect).At(at).First()
	steps, roles := o.primed(surfaceID, key, at, append(steps, look))
	roles["main"] = f.ProductID
	if j.Under != nil {
		roles["hard"] = j.Under.ProductID
	}
	return o.hand(surfaceID, "fairing", steps, roles)
}

func (s Sanding) says(name string, o boatState) message.Sentence {
	out := message.Sentence{message.Strong(name), message.Text(": ")}
	for i, st := range s.Steps {
		if i > 0 {
			out = message.Of("%v, ", out)
		}
		out = message.Of("%v%d", out, st.Grit)
	}
	out = message.Of("%v before the %s, about %v", out, s.Next, message.Val(round1(s.Hours), "h"))
	for _, m := range s.Margins {
		if m.Through {
			return message.Of("%v; at the %s that goes through.", out, m.Place)
		}
	}
	if s.Sandable != nil && !s.Ready {
		return message.Of("%v; not before %v.", out, message.Clock(*s.Sandable, o.now, o.s.Loc))
	}
	return message.Of("%v.", out)
}
