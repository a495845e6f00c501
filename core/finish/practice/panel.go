// Package practice is a bench to learn on: a panel that is filled and sanded, and days
// that ask whether to coat. What happens follows the same rules as the work.
package practice

import (
	"fmt"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/film/sand"
)

// Filler is one of the two on the practice bench.
type Filler struct {
	Key       string  `json:"key"`
	Name      string  `json:"name"`
	Shrink    float64 `json:"shrink"` // part of the thickness
	SandableH float64 `json:"sandableH"`
	MaxMM     float64 `json:"maxMM"` // a pass
	Hard      float64 `json:"hard"`  // against paint
}

// Fillers of the bench, in the still air of a workshop at 18 °C.
var Fillers = []Filler{
	{"light", "light sandable filler", 0.08, 12, 6, 0.6},
	{"hard", "hard structural filler", 0.04, 16, 10, 2},
}

// Move is something done to the panel: fill so thick, wait so long, or sand with a grit.
type Move struct {
	Do     string  `json:"do" enum:"fill,wait,sand,paint"`
	Filler string  `json:"filler,omitempty"`
	MM     float64 `json:"mm,omitempty"`
	Hours  float64 `json:"hours,omitempty"`
	Grit   int     `json:"grit,omitempty"`
}

// State is the panel: the dent left (−) or what stands proud (+), the scratch on it,
// and what lies on top. FilmUm is the sound paint beside the dent.
type State struct {
	HollowMM  float64            `json:"hollowMM"`
	ProudMM   float64            `json:"proudMM"`
	FilmUm    float64            `json:"filmUm"`
	ScratchUm float64            `json:"scratchUm"`
	CuredH    float64            `json:"curedH"` // since the last filler, of its time to sandable
	Passes    int                `json:"passes"`
	Papers    float64            `json:"papers"`
	Hours     float64            `json:"hours"`
	Painted   bool               `json:"painted"`
	Through   bool               `json:"through"`
	Last      string             `json:"last"`
	Said      []message.Sentence `json:"said"` // what came of each move, and why
	Verdict   string             `json:"verdict"`
}

// The panel: a dent so deep in sound paint so thick.
const (
	dentMM  = 7.0
	paintUm = 160.0
)

// Play plays moves on a new panel.
func Play(moves []Move) (State, error) {
	s := State{HollowMM: dentMM, FilmUm: paintUm, ScratchUm: 40, CuredH: math.Inf(1), Said: []message.Sentence{}}
	var bad fielderr.Errors
	if len(moves) > 60 {
		bad.Add("moves", "that is enough for one panel")
		return s, bad
	}
	for i, m := range moves {
		path := fmt.Sprintf("moves[%d]", i)
		switch {
		case s.Painted:
			bad.Add(path, "the panel is painted: take a new one")
		case m.Do == "fill":
			bad.Under(path, s.fill(m))
		case m.Do == "wait":
			bad.Range(path+".hours", m.Hours, 0.5, 200, "h")
			s.wait(m.Hours)
		case m.Do == "sand":
			bad.Range(path+".grit", float64(m.Grit), 16, 2000, "grit")
			if bad == nil {
				s.sand(m.Grit)
			}
		case m.Do == "paint":
			s.paint()
		default:
			bad.Add(path+".do", "fill, wait, sand or paint")
		}
		if bad != nil {
			return s, bad
		}
	}
	if math.IsInf(s.CuredH, 1) {
		s.CuredH = 1
	}
	return s, nil
}

func (s *State) tell(template string, args ...any) {
	s.Said = append(s.Said, message.Of(template, args...))
}

func fillerBy(key string) (Filler, bool) {
	for _, f := range Fillers {
		if f.Key == key {
			return f, true
		}
	}
	return Filler{}, false
}

func (s *State) fill(m Move) error {
	var bad fielderr.Errors
	f, ok := fillerBy(m.Filler)
	if !ok {
		bad.Add("filler", "light or hard")
	}
	bad.Above("mm", m.MM, 0, 20, "mm")
	if bad != nil {
		return bad
	}
	if s.CuredH < 1 && s.Passes > 0 {
		s.tell("Filled over filler that was not cured: it will go on shrinking under the new one.")
		s.HollowMM += 0.5
	}
	if s.Last == "light" && f.Key == "hard" {
		s.tell(
			"Hard filler over light: it cannot be sanded fair, the light beside it goes first. Hard goes under, light on top.")
	}
	lay := m.MM
	if lay > f.MaxMM {
		s.tell(
			"%.0f mm in one pass is more than %.0f mm: it slumps, traps air and cures hot. A quarter of it hangs off the lower edge.", lay, f.MaxMM)
		lay *= 0.75
	}
	left := s.HollowMM + s.ProudMM*-1 - lay*(1-f.Shrink)
	if f.Shrink*lay > 0.3 {
		s.tell("%.1f mm will shrink by %.1f mm as it cures: lay it proud by that.", lay, f.Shrink*lay)
	}
	s.HollowMM, s.ProudMM = math.Max(0, left), math.Max(0, -left)
	s.CuredH, s.Last = 0, f.Key
	s.Passes++
	s.Hours += 0.3
	switch {
	case s.HollowMM > 0.05:
		s.tell("%.1f mm of the dent are left: another pass when this one is hard.", s.HollowMM)
	case s.ProudMM > 1.5:
		s.tell("%.1f mm stand proud: all of that has to be sanded off again.", s.ProudMM)
	default:
		s.tell("It stands %.1f mm proud: right for boarding.", s.ProudMM)
	}
	return nil
}

func (s *State) wait(h float64) {
	s.Hours += h
	if f, ok := fillerBy(s.Last); ok && s.CuredH < 1 {
		s.CuredH += h / f.SandableH
		if s.CuredH >= 1 {
			s.tell("After %.0f h it is hard enough to sand: a fingernail leaves no mark and the dust is dry.", h)
		} else if s.CuredH > 0.35 && s.ProudMM > 1 {
			s.tell("It is green, like hard cheese: now the ridges can be knocked down with a surform, then wait.")
		} else {
			s.tell("Not hard yet: %.0f %% of its time.", 100*s.CuredH)
		}
		return
	}
	s.tell("Nothing was waiting to cure.")
}

// stroke is what a sanding of a few minutes takes off paint, mm, for each µm of grain.
const stroke = 0.004

func (s *State) sand(grit int) {
	s.Hours += 0.25
	grain := sand.Median(grit)
	if s.CuredH < 1 && s.Passes > 0 {
		s.Papers += 3
		s.tell("The paper clogs and skips: it is not cured. Three papers are gone and the surface is torn.")
		s.ScratchUm = math.Max(s.ScratchUm, grain)
		return
	}
	s.Papers++
	f, _ := fillerBy(s.Last)
	hard := f.Hard
	if hard == 0 {
		hard = 1
	}
	cut := stroke * grain
	if off := cut / hard; s.ProudMM > 0 {
		took := math.Min(s.ProudMM, off)
		s.ProudMM -= took
		if hard > 1 {
			// The board rides on the hard patch and eats the paint beside it.
			s.FilmUm -= 1000 * cut * 0.08
			s.tell("The hard patch stands while the paint beside it goes: %.1f mm off the patch.", took)
		} else {
			s.FilmUm -= 1000 * cut * 0.02
			s.tell("%.1f mm off the filler, %.1f mm stand proud.", took, s.ProudMM)
		}
	} else {
		s.FilmUm -= grain / 4
		s.tell("It is level: each stroke now takes the sound film beside it, %.0f µm are left.", math.Max(0, s.FilmUm))
	}
	if s.FilmUm <= 0 && !s.Through {
		s.Through = true
		s.tell("Through: a ring of the colour below shows round the patch. That has to be primed again.")
	}
	switch step := s.ScratchUm / (grain / 4); {
	case grain/4 >= s.ScratchUm:
		s.ScratchUm = grain / 4
	case step > sand.MostStep+0.01:
		s.ScratchUm = math.Max(grain/4, s.ScratchUm*0.7)
		s.tell("%d is too fine a leap: the deep scratches of the grit before are still there under the shine.", grit)
	default:
		s.ScratchUm = grain / 4
	}
}

// telegraphs is the scratch that shows through the paint, µm.
const telegraphs = 14.0

func (s *State) paint() {
	s.Painted = true
	s.Hours++
	if f, ok := fillerBy(s.Last); ok && s.CuredH < 2 {
		sunk := 0.1 * f.Shrink * dentMM * math.Max(0, 2-s.CuredH)
		if sunk > 0.02 {
			s.HollowMM += sunk
			s.tell("The filler was not through with shrinking: it sinks %.2f mm under the gloss within weeks.", sunk)
		}
	}
	faults := 0
	note := func(when bool, template string, args ...any) {
		if when {
			faults++
			s.tell(template, args...)
		}
	}
	note(s.HollowMM > 0.15, "A hollow of %.1f mm shows in the reflection.", s.HollowMM)
	note(s.ProudMM > 0.15, "The patch stands %.1f mm proud and shows as a bump.", s.ProudMM)
	note(s.ScratchUm > telegraphs, "Scratches of %.0f µm telegraph through: go finer in steps before paint.",
		s.ScratchUm)
	note(s.Through, "The sanded-through ring grins through the paint.")
	switch faults {
	case 0:
		s.Verdict = fmt.Sprintf("Fair: nothing shows. %d passes, %.0f papers, %.0f h.", s.Passes, s.Papers, s.Hours)
	case 1:
		s.Verdict = "Nearly: one thing shows."
	default:
		s.Verdict = fmt.Sprintf("Not fair: %d things show.", faults)
	}
}
