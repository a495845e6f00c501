package brightwork

import (
	"fmt"
	"math"

	"allcoats/core/base/message"
	"allcoats/core/film/film"
	"allcoats/core/film/sand"
	"allcoats/core/film/step"
	"allcoats/core/finish/craft"
)

// Strip is a way of taking the old film off, with the minutes of a pass on a patch of
// arm's reach and the passes it takes: rules of thumb.
type Strip struct {
	Key     string  `json:"key"`
	Name    string  `json:"name"`
	Passes  int     `json:"passes"`
	Minutes float64 `json:"minutes"`
	WaitMin float64 `json:"waitMin"`
	Note    string  `json:"note"`
}

// Strips lists them.
var Strips = []Strip{
	{"none", "not stripped: scuff and go on", 0, 0, 0, "only where the old film is whole and holds"},
	{"heat", "heat and scraper", 1, 25, 0,
		"melts varnish, softens glue and epoxy: keep it moving, a bucket of water beside it, no vapour near"},
	{"chemical", "paste stripper", 3, 12, 20,
		"softens epoxy and filler as well; gloves and goggles; wash off what its maker says and let it dry two days"},
	{"scrape", "scraper, cold", 2, 18, 0, "a sharp one every ten minutes; with the grain"},
	{"sand", "sanding", 2, 15, 0, "eats veneer: never the whole way by machine"},
}

func (w Work) strip() Strip {
	for _, s := range Strips {
		if s.Key == w.Strip {
			return s
		}
	}
	return Strip{}
}

// mostPatches are as many as are told apart one by one.
const mostPatches = 80

// stripping plans patches of arm's reach, the bare wood, bungs and stain.
func (r *Result) stripping(w Work, c Case) {
	if w.Strip != "none" {
		r.strip(w, c)
	}
	if w.VeneerMM > 0 {
		r.veneer(w)
	}
	if w.Bungs > 0 {
		r.Do(craft.Work("bungs", "set "+count(w.Bungs, "bung", "bungs"),
			message.Of(
				"set in varnish where they must come out again, in epoxy where not; grain along; trim with a chisel from the low side of the grain, never flush in one cut"),
			bungH*1.5*float64(w.Bungs), 16).Of(float64(w.Bungs), "bungs"))
	}
	if w.bare() {
		for _, grit := range bareGrits {
			r.Do(craft.Work(fmt.Sprintf("bare-%d", grit), "",
				message.Of("along the grain, dust off; no shiny spot left"), sand.Hours(grit, c.AreaM2, c.Access,
					false), 0).With(grit, 0))
		}
	}
	if w.Stain {
		r.Take("Stain", "area · 0.08 L/m²", c.AreaM2*stainLM2, "L", "rule of thumb")
		r.Do(craft.Work("stain", "stain, evened out",
			message.Of(
				"filler of the stain's colour first, one board at a time with the grain, wipe off across it; look at it wet, from both ends; a second coat only where it is pale"),
			c.AreaM2/stainM2H+0.5, 24).Of(c.AreaM2*stainLM2, "L"))
		if w.School == "epoxy" {
			r.Find(false,
				"Stain under epoxy: only one that its maker allows, wholly dry, or the epoxy lets go with the stain on its back.")
		}
	}
	if w.School != "varnish" {
		r.seal(w, c)
	}
}

// strip plans taking the old film off, by patches.
func (r *Result) strip(w Work, c Case) {
	st := w.strip()
	r.Patches = max(1, int(math.Ceil(c.AreaM2/(w.ReachM*w.ReachM)-1e-9)))
	each := float64(st.Passes) * st.Minutes / 60
	r.Working.Step("Patches", "area / reach²", float64(r.Patches), "", "an arm's reach each")
	wait := st.WaitMin / 60 * float64(st.Passes)
	if w.Strip == "chemical" {
		wait += 48
	}
	one := craft.Work("strip", fmt.Sprintf("strip %s, %s each", count(r.Patches, "patch", "patches"),
		count(st.Passes, "pass", "passes")),
		message.Of("%s: %s. Finish a patch before the next is begun; work up and down from a corner.", st.Name,
			st.Note),
		float64(r.Patches)*each*math.Max(1, c.Access), wait).As(step.Strip).Of(float64(r.Patches), "patches")
	if r.Patches <= mostPatches {
		one.Where = &step.Where{Name: "all of it, by patches"}
		for i := range r.Patches {
			one.Where.Patches = append(one.Where.Patches,
				step.Patch{Name: fmt.Sprint(i + 1), AreaM2: c.AreaM2 / float64(r.Patches)})
		}
	}
	r.Do(one)
}

// veneer tells what is left of a veneer, and whether that is enough.
func (r *Result) veneer(w Work) {
	takes := machineUm / 1000
	if w.Strip == "sand" {
		takes *= 3
	}
	left := r.Working.Step("Veneer after sanding",
		"what is there − 0.06 mm, three times that where it is sanded off", w.VeneerMM-takes, "mm",
		"rule of thumb: measure at a hole or an edge")
	r.Veneer = message.Of("%.2g mm of veneer are left of %.2g mm; %.2g mm must stay.", left, w.VeneerMM, w.LeaveMM)
	if left < w.LeaveMM {
		r.Find(true,
			"Sanding leaves %.2g mm of veneer and %.2g mm must stay: scrape and scuff only, or stay on sound epoxy.", math.Max(0, left), w.LeaveMM)
	}
}

// seal plans what goes on bare wood before the varnish.
func (r *Result) seal(w Work, c Case) {
	name := map[string]string{"epoxy": "clear epoxy wood sealer", "sealer": "wood sealer"}[w.School]
	if c.Sealer == nil {
		r.Find(false,
			"The library has no %s: it is planned as work, and nothing of it is in Stores till its sheet is added.",
			name)
	}
	seal := func(n int, m film.Method, hours, waitH float64, how message.Sentence) {
		if c.Sealer != nil {
			r.Do(craft.Coats("sealer", "sealer", n, c.Sealer.Film.TypicalUm, m, hours, how))
			return
		}
		r.Do(craft.Work("sealer", fmt.Sprintf("%s of %s", count(n, "coat", "coats"), name), how, hours*float64(n),
			waitH))
	}
	brush, roller := method("brush"), method("roller")
	switch w.School {
	case "epoxy":
		seal(2, roller, c.AreaM2/6*math.Max(1, c.Access)+0.3, 48,
			message.Of("thin, on wood that cools, not that warms"))
		r.Do(craft.Work("blush", "", message.Of("warm water and detergent take the blush off"), c.AreaM2/12+0.2, 0).As(
			step.Wash))
		r.Do(craft.Work("epoxy-180", "", message.Of("no glossy spot left: varnish holds on its key"),
			sand.Hours(180, c.AreaM2, c.Access, false), 0).With(180, 12))
	case "sealer":
		seal(1, brush, c.AreaM2/8*math.Max(1, c.Access)+0.3, 16,
			message.Of("flood it on, wipe off what stands after ten minutes"))
	}
}

// bareGrits are those that bare wood gets.
var bareGrits = []int{120, 180}

// bare reports whether the wood is bared.
func (w Work) bare() bool { return w.Strip != "none" }

func method(key string) film.Method {
	m, _ := film.MethodByKey(key)
	return m
}
