// Package brightwork plans clear finished wood: what to strip to, patch by patch, bungs
// and stain, seam lines, the school and its coats, what they keep of the sun, and when
// they want doing again.
package brightwork

import (
	"fmt"
	"math"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/catalog/product"
	"allcoats/core/film/film"
	"allcoats/core/film/sand"
	"allcoats/core/finish/craft"
	"allcoats/core/job/upkeep"
)

// School is a way to finish wood clear.
type School struct {
	Key   string `json:"key"`
	Name  string `json:"name"`
	Why   string `json:"why"`
	Price string `json:"price"`
}

// Schools lists them.
var Schools = []School{
	{"varnish", "varnish only", "Moves with the wood, is mended at any place, comes off with heat.",
		"Lifts where water gets under it; the first coats are many."},
	{"sealer", "thin sealer, then varnish", "Soaks in and holds the varnish; damp from behind still gets out.",
		"A coat more, and its own recoat window."},
	{"epoxy", "epoxy sealed, then varnish", "Builds fast and keeps the wood still; five coats of film in two days.",
		"Epoxy needs the sun kept off for ever: when the varnish fails it goes as well, and stripping it is hard."},
}

// Seen is what comes off under the sanding block, and what it tells.
type Seen struct {
	Key    string `json:"key"`
	Name   string `json:"name"`
	Layer  string `json:"layer"`
	Advice string `json:"advice"`
}

// Dusts lists what one sees: rules of thumb.
var Dusts = []Seen{
	{"amber-gum", "amber dust that gums the paper", "old varnish",
		"Go on: scraper and heat are faster than paper. Open the windows."},
	{"white-dry", "white, dry, hard dust, the face stays glossy in patches", "epoxy",
		"Stop if it is sound and clear: key it and varnish over it. Below it lie the stain, and the wood."},
	{"coloured", "dust of the stain's colour, red or brown", "the stain in the wood's face",
		"Stop: the wood below is pale, and every stroke more shows as a light patch. Stain again, or take all of it down evenly."},
	{"wood", "pale dust that smells of wood", "bare wood",
		"Stop: note what is left of the veneer, go on by hand with 120 and finer, with the grain."},
	{"two-colours", "rings of two colours round a bare spot", "the edge between two layers",
		"You are through in the middle: feather outwards from here and go no deeper."},
}

// Seam is a set of lines drawn between coats, such as caulking seams on a clear deck.
type Seam struct {
	SpacingMM float64 `json:"spacingMM"` // from middle to middle
	LineMM    float64 `json:"lineMM"`
	LengthM   float64 `json:"lengthM"` // of one line
	WidthM    float64 `json:"widthM"`  // of the face that they cover
	After     int     `json:"after"`   // the coat that they go on
}

// Work is brightwork to be done. AreaM2 and EdgeM are the surface's.
type Work struct {
	School    string  `json:"school"`
	ProductID string  `json:"productId"`
	Seen      string  `json:"seen" enum:",amber-gum,white-dry,coloured,wood,two-colours"`
	Strip     string  `json:"strip" enum:"none,heat,chemical,scrape,sand"`
	ReachM    float64 `json:"reachM"`   // a patch is as long and high
	VeneerMM  float64 `json:"veneerMM"` // 0: solid
	LeaveMM   float64 `json:"leaveMM"`  // of it that must stay
	Bungs     int     `json:"bungs"`
	Stain     bool    `json:"stain"`
	Thinned   bool    `json:"thinned"` // the first coats
	Now       int     `json:"now"`     // coats before this season
	Later     int     `json:"later"`   // next winter
	Covered   bool    `json:"covered"`
	Seams     *Seam   `json:"seams,omitempty"`
	// AboveDewH is how long after a coat the wood must stay above the dew point.
	AboveDewH float64 `json:"aboveDewH"`
}

// Usual is brightwork to begin with.
func Usual() Work {
	return Work{School: "varnish", Strip: "none", ReachM: 0.6, LeaveMM: 0.6, Thinned: true, Now: 6, AboveDewH: 14}
}

// Case is the surface that it is done on. OwnFactor is what OwnCoats logged coats of the
// product took against the reckoning.
type Case struct {
	AreaM2    float64
	EdgeM     float64
	Access    float64
	From      time.Time // of the last coat
	Winter    time.Time // when the next ones would go on
	Sheet     product.Sheet
	OwnFactor float64
	OwnCoats  int
	Method    string
	// Face is where the work lies to the weather, Habit how varnish held on this boat.
	Face  upkeep.Exposure
	Habit upkeep.Habit
	// Sealer is what the school begins with, nil if the library has none.
	Sealer *product.Sheet
}

// Share is how the hours of a coat divide.
type Share struct {
	SandH  float64 `json:"sandH"`
	MaskH  float64 `json:"maskH"`
	CleanH float64 `json:"cleanH"`
	LayH   float64 `json:"layH"`
	PrepPC float64 `json:"prepPct"` // all but the laying
}

// Count is what a number of coats comes to.
type Count struct {
	Coats  int     `json:"coats"`
	Um     float64 `json:"um"`
	UVPct  float64 `json:"uvPct"` // stopped
	Litres float64 `json:"litres"`
	// DueAt is the day on which it most likely wants doing again, DueFrom and DueTo between which eight
	// times in ten; Years are until then.
	DueAt   string  `json:"dueAt"`
	DueFrom string  `json:"dueFrom"`
	DueTo   string  `json:"dueTo"`
	Years   float64 `json:"years"`
}

// Result is what is to be done.
type Result struct {
	craft.Plan
	Dust    *Seen            `json:"dust,omitempty"`
	Patches int              `json:"patches"`
	Share   Share            `json:"share"`
	Counts  []Count          `json:"counts"` // now, and with what follows next winter
	LitreM2 float64          `json:"litreM2"`
	OwnFrom string           `json:"ownFrom,omitempty"` // the coats that LitreM2 was learned from
	Lines   int              `json:"lines"`
	TapeM   float64          `json:"tapeM"`
	Holds   string           `json:"holds"` // whether it holds till next winter
	Veneer  message.Sentence `json:"veneer,omitempty"`
}

// Rules of thumb.
const (
	maskMH    = 25.0 // metres of tape an hour
	cleanM2H  = 12.0
	bungH     = 0.08 // a bung set, 0.04 to trim it
	stainM2H  = 3.0
	stainLM2  = 0.08
	sandUm    = 8.0 // a scuff between coats takes
	machineUm = 60.0
)

// Validate reports what cannot be done.
func (w Work) Validate() error {
	var bad fielderr.Errors
	if w.school().Key == "" {
		bad.Add("school", "is no way to finish wood")
	}
	if w.strip().Key == "" {
		bad.Add("strip", "is no way to strip")
	}
	if w.Seen != "" && w.dust() == nil {
		bad.Add("seen", "is not in the list")
	}
	bad.Range("reachM", w.ReachM, 0.1, 2, "m")
	bad.Range("veneerMM", w.VeneerMM, 0, 30, "mm")
	bad.Range("leaveMM", w.LeaveMM, 0, 10, "mm")
	bad.Range("bungs", float64(w.Bungs), 0, 5000, "bungs")
	bad.Range("now", float64(w.Now), 1, 20, "coats")
	bad.Range("later", float64(w.Later), 0, 20, "coats")
	bad.Range("aboveDewH", w.AboveDewH, 1, 48, "h")
	if s := w.Seams; s != nil {
		bad.Range("seams.spacingMM", s.SpacingMM, 10, 500, "mm")
		bad.Range("seams.lineMM", s.LineMM, 1, 50, "mm")
		bad.Above("seams.lengthM", s.LengthM, 0, 50, "m")
		bad.Above("seams.widthM", s.WidthM, 0, 20, "m")
		bad.Range("seams.after", float64(s.After), 0, float64(w.Now), "coats")
		if bad == nil && s.LineMM >= s.SpacingMM {
			bad.Add("seams.lineMM", "must be less than the spacing")
		}
	}
	return bad.Err()
}

func (w Work) school() School {
	for _, s := range Schools {
		if s.Key == w.School {
			return s
		}
	}
	return School{}
}

func (w Work) dust() *Seen {
	for i := range Dusts {
		if Dusts[i].Key == w.Seen {
			return &Dusts[i]
		}
	}
	return nil
}

// Plan plans w on c.
func (w Work) Plan(c Case) (Result, error) {
	out := Result{Plan: craft.New(
		"Rags with oil or varnish heat themselves: flat outdoors, or under water in a closed tin.",
		"Wood and varnish dust: a mask, extraction; some hardwoods sensitise."), Counts: []Count{}}
	if err := w.Validate(); err != nil {
		return out, err
	}
	out.Dust = w.dust()
	out.stripping(w, c)
	out.coats(w, c)
	out.hold(w, c)
	return out, nil
}

// keyGrit is what varnish is scuffed with between coats.
const keyGrit = 320

// The first coats are thinned by a quarter and a tenth, as far as the sheet allows.
const firstThinnedPct, secondThinnedPct = 25, 10

// coats works out the hours of a coat and its litres, and lays them: the first two thinned,
// each scuffed before, seam lines after the coat that they go on.
func (r *Result) coats(w Work, c Case) {
	m, ok := film.MethodByKey(c.Method)
	if !ok {
		m = method("brush")
	}
	r.Share.SandH = sand.Hours(keyGrit, math.Max(0.01, c.AreaM2), c.Access, false)
	r.Share.MaskH = c.EdgeM / maskMH
	r.Share.CleanH = 2 * c.AreaM2 / cleanM2H // vacuum and tack cloth, each once over
	r.Share.LayH = c.AreaM2 / m.RateM2H * math.Max(1, c.Access)
	all := r.Share.SandH + r.Share.MaskH + r.Share.CleanH + r.Share.LayH
	r.Share.PrepPC = 100 * (1 - r.Share.LayH/all)
	wk := &r.Working
	wk.Step("Hours of a coat", "sanding + masking at 25 m/h + cleaning at 12 m²/h, twice + laying", all, "h",
		"rules of thumb; your log corrects them")
	um := c.Sheet.Film.TypicalUm
	r.LitreM2 = wk.Step("What a coat takes", "film / (10 · solids) / (1 − loss)",
		film.Litres(1, um, c.Sheet.VolumeSolidsPct, m.LossPct), "L/m²", "data sheet")
	if c.OwnCoats > 0 {
		r.OwnFrom = count(c.OwnCoats, "coat of yours", "coats of yours")
		r.LitreM2 = wk.StepOf("What it takes of you", message.Of("that · what your coats took against it"),
			r.LitreM2*c.OwnFactor, "L/m²", message.Of("the log: %d coats", c.OwnCoats))
	}
	hours := r.Share.MaskH + r.Share.CleanH + r.Share.LayH
	lay := func(key string, from, to int, thinnerPct float64) {
		if to <= from {
			return
		}
		how := message.Of("full strength, dust down, wet edge, in the morning after the dew is off")
		if thinnerPct > 0 {
			how = message.Of("thinned by %.0f %%, dust down, wet edge, in the morning after the dew is off", thinnerPct)
		}
		s := craft.Coats(key, "main", to-from, um, m, hours, how).Of(r.LitreM2*c.AreaM2*float64(to-from), "L")
		s.ThinnerPct = thinnerPct
		if from > 0 || !w.bare() {
			s.KeyGrit, s.RemovedUm = keyGrit, sandUm
			s.WorkH = r.Share.SandH * float64(to-from)
		}
		r.Do(s)
	}
	at := 0
	upTo := func(n int) { // lays coats to the nth
		for i, pct := range []float64{firstThinnedPct, secondThinnedPct} {
			pct = math.Min(pct, c.Sheet.ThinnerMaxPct)
			if !w.Thinned {
				pct = 0
			}
			if (pct > 0 || i == 0 && w.bare()) && at == i && n > i { // the first on bare wood is keyed by its grain
				lay(fmt.Sprintf("coat-%d", i+1), i, i+1, pct)
				at = i + 1
			}
		}
		lay(fmt.Sprintf("coats-to-%d", n), at, n, 0)
		at = max(at, n)
	}
	if w.Thinned && c.Sheet.ThinnerMaxPct < firstThinnedPct {
		r.Find(false, "The sheet of %s allows no more than %.3g %% of thinner: the first coats are thinned no further.",
			c.Sheet.Name, c.Sheet.ThinnerMaxPct)
	}
	if w.Seams != nil {
		upTo(w.Seams.After)
		r.seams(w)
	}
	upTo(w.Now)
	r.Take(c.Sheet.Name, "coats · area · what a coat takes", r.LitreM2*c.AreaM2*float64(w.Now), "L", "")
}

// seams lays tape for lines drawn between coats.
func (r *Result) seams(w Work) {
	s := w.Seams
	r.Lines = int(math.Floor(1000*s.WidthM/s.SpacingMM+1e-9)) + 1
	r.TapeM = r.Working.Step("Tape for seam lines", "lines · 2 edges · length", float64(2*r.Lines)*s.LengthM, "m",
		"the spacing")
	one := craft.Work("seams", fmt.Sprintf("%d seam lines after coat %d", r.Lines, s.After),
		message.Of(
			"first line on the middle, then every %.0f mm both ways; two tapes %.0f mm apart, edges pressed down with a coin, sealed with a breath of varnish; colour on, tape off while it is wet", s.SpacingMM, s.LineMM),
		r.TapeM/maskMH+float64(r.Lines)*s.LengthM/20, 16).Of(r.TapeM, "m")
	one.TapeM = r.TapeM
	r.Do(one)
	if s.After < 2 {
		r.Find(false, "Lines on fewer than two coats bleed into the grain: put them on later.")
	}
	if s.After > w.Now-2 {
		r.Find(false, "Lines want at least two coats over them, or the next scuff takes them off.")
	}
}

// hold compares the coats now with those that follow next winter.
func (r *Result) hold(w Work, c Case) {
	add := func(n int) Count {
		scuff := sandUm * float64(n-1)
		um := math.Max(0, float64(n)*c.Sheet.Film.TypicalUm-scuff)
		if w.Thinned { // the thinned ones leave a quarter and a tenth less
			um -= 0.35 * c.Sheet.Film.TypicalUm
		}
		out := Count{Coats: n, Um: um, UVPct: 100 * (1 - math.Exp(-c.Sheet.UVPerUm*um)),
			Litres: float64(n) * r.LitreM2 * c.AreaM2}
		face := c.Face
		face.Covered = face.Covered || w.Covered
		if d, ok := (upkeep.Film{Sheet: c.Sheet, LastAt: c.From, Um: um, Exposure: face}).Next(c.Habit, nil); ok {
			out.DueAt, out.DueFrom, out.DueTo, out.Years = d.At.Format(time.DateOnly), d.From.Format(time.DateOnly),
				d.To.Format(time.DateOnly), d.Years
		}
		return out
	}
	now := add(w.Now)
	r.Counts = append(r.Counts, now)
	wk := &r.Working
	wk.Step("Film now", "coats · film − 8 µm a scuff", now.Um, "µm", "scuff is a rule of thumb")
	wk.Step("Ultraviolet stopped", "1 − exp(−absorbance · film)", now.UVPct, "%", "the sheet's absorbance")
	if w.Now < 3 {
		r.Find(false, "Three coats are the floor in the weather: with %d the wood greys in its first summer.", w.Now)
	}
	if w.Later > 0 {
		r.Counts = append(r.Counts, add(w.Now+w.Later))
	}
	from, err := time.Parse(time.DateOnly, now.DueFrom)
	to, _ := time.Parse(time.DateOnly, now.DueTo)
	between := fmt.Sprintf("between %s and %s", from.Format("January 2006"), to.Format("January 2006"))
	switch {
	case err != nil:
		r.Holds = "The sheet does not say how it weathers."
	case from.Before(c.Winter) && w.Later > 0:
		r.Holds = fmt.Sprintf(
			"%d coats now may not hold till the winter: they want doing %s. What it risks: cracks, grey wood, and stripping instead of %d coats.", w.Now, between, w.Later)
		r.Find(true, "%s", r.Holds)
	case from.Before(c.Winter):
		r.Holds = fmt.Sprintf("It may want doing before the winter (%s): put two coats on in between, or more now.",
			between)
		r.Find(false, "%s", r.Holds)
	case w.Later > 0:
		r.Holds = fmt.Sprintf(
			"%d coats now hold till the winter, and %d more go on then over a light scuff. What it risks: one knock through a thin film lets water under it; look every month.", w.Now, w.Later)
	default:
		r.Holds = fmt.Sprintf("Wants scuffing and two coats %s, before it cracks.", between)
	}
}

func count(n int, one, more string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, more)
}

// Winter is when boats are next laid up for it, more than a month from now: the first of
// November, south of the equator of May.
func Winter(now time.Time, latitudeDeg float64) time.Time {
	month := time.November
	if latitudeDeg < 0 {
		month = time.May
	}
	at := time.Date(now.Year(), month, 1, 0, 0, 0, 0, time.UTC)
	if at.Before(now.AddDate(0, 1, 0)) {
		at = at.AddDate(1, 0, 0)
	}
	return at
}
