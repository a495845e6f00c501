package step

import (
	"fmt"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
)

// Detail is what a step may say beside its kind, product and film.
type Detail struct {
	// Name is what it is called where its kind says too little, such as "set 46 bungs".
	Name string `json:"name,omitempty"`
	// Where is what it works of its surface, nil all of it.
	Where *Where `json:"where,omitempty"`
	// Hours are what a coat, or work without a film, takes of one person's time in all; 0 is
	// by the rates.
	Hours float64 `json:"hours,omitempty"`
	// WaitH is how long nothing follows, beside what the clocks of the films say.
	WaitH float64 `json:"waitH,omitempty"`
	// Crew is how many people it takes at once, 0 for as many as bring it into a day.
	Crew int `json:"crew,omitempty"`
	// Wet is sanded with water. Thinner is what it is thinned with, empty for the sheet's.
	Wet     bool   `json:"wet,omitempty"`
	Thinner string `json:"thinnerName,omitempty"`
	// Indoor is done under a roof, off the boat, whatever the weather.
	Indoor bool `json:"indoor,omitempty"`
	// KeyGrit is what the face is keyed with before each coat, taking RemovedUm; 0: it is not.
	KeyGrit int `json:"keyGrit,omitempty"`
	// TapeM is the masking tape, m, Tape its kind, TapeH how long it may stay, Pull when it
	// comes off.
	TapeM float64 `json:"tapeM,omitempty"`
	Tape  string  `json:"tape,omitempty"`
	TapeH float64 `json:"tapeH,omitempty"`
	Pull  Pull    `json:"pull,omitempty" enum:",wet,touch-dry,hard"`
	// How is the way that it is done.
	How message.Sentence `json:"how,omitempty"`
	// Origin is the bench that it came from, nil for the user's own.
	Origin *Origin `json:"origin,omitempty"`
}

// Origin names a step of a bench.
type Origin struct {
	Bench string `json:"bench"`
	Key   string `json:"key"`
}

// Pull is when tape comes off.
type Pull string

// Pulls.
const (
	WhileWet Pull = "wet"
	TouchDry Pull = "touch-dry"
	Hard     Pull = "hard"
)

// UsualTapeH is how long tape stands in the open where nothing is said of it, h: a rule of
// thumb.
const UsualTapeH = 72

// Where is a part of a surface: marked patches, or without them a share.
type Where struct {
	Name     string  `json:"name"`
	SharePct float64 `json:"sharePct,omitempty"`
	// Corner says that it is the inside corners and fillets of the surface.
	Corner  bool    `json:"corner,omitempty"`
	Patches []Patch `json:"patches,omitempty"`
}

// Patch is a marked place with its own area.
type Patch struct {
	Name   string  `json:"name"`
	AreaM2 float64 `json:"areaM2"`
}

// AreaM2 is what is worked of a surface of wholeM2.
func (w *Where) AreaM2(wholeM2 float64) float64 {
	switch {
	case w == nil:
		return wholeM2
	case len(w.Patches) == 0:
		return wholeM2 * w.SharePct / 100
	}
	sum := 0.0
	for _, p := range w.Patches {
		sum += p.AreaM2
	}
	return sum
}

// Part is the share, 0 to 1, that the named patches are of all of them.
func (w *Where) Part(names []string) float64 {
	if w == nil || len(w.Patches) == 0 {
		return 0
	}
	done, all := 0.0, 0.0
	for _, p := range w.Patches {
		all += p.AreaM2
		for _, n := range names {
			if n == p.Name {
				done += p.AreaM2
				break
			}
		}
	}
	return done / math.Max(all, 1e-9)
}

func (w *Where) validate() error {
	var bad fielderr.Errors
	if w == nil {
		return nil
	}
	if w.Name == "" {
		bad.Add("name", "say which part of the surface it is")
	}
	if len(w.Patches) == 0 {
		bad.Above("sharePct", w.SharePct, 0, 100, "%")
	}
	seen := map[string]bool{}
	for i, p := range w.Patches {
		at := fmt.Sprintf("patches[%d].", i)
		if p.Name == "" || seen[p.Name] {
			bad.Add(at+"name", "name each patch, no two alike")
		}
		seen[p.Name] = true
		bad.Above(at+"areaM2", p.AreaM2, 0, 5000, "m²")
	}
	return bad.Err()
}

func (d Detail) validate(k *Kind) error {
	var bad fielderr.Errors
	bad.Under("where", d.Where.validate())
	bad.Range("hours", d.Hours, 0, 1000, "h")
	bad.Range("waitH", d.WaitH, 0, 24*365, "h")
	bad.Range("crew", float64(d.Crew), 0, 20, "people")
	if d.KeyGrit != 0 {
		bad.Range("keyGrit", float64(d.KeyGrit), 16, 5000, "grit")
	}
	bad.Range("tapeM", d.TapeM, 0, 5000, "m")
	bad.Range("tapeH", d.TapeH, 0, 24*365, "h")
	fielderr.OneOf(&bad, "pull", d.Pull, []Pull{"", WhileWet, TouchDry, Hard})
	if k.Work == Other && d.Name == "" {
		bad.Add("name", "say what is to be done")
	}
	return bad.Err()
}
