// Package logbook holds what is told of work done beside its time and place:
// conditions, readings of the cured film, blemishes and what caused them.
package logbook

import (
	"fmt"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/boat/survey"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
)

// Conditions are those when the work began; Measured says that they were read,
// not forecast. SpreadK is the surface above the dew point.
type Conditions struct {
	AirC     float64 `json:"airC"`
	RHPct    float64 `json:"rhPct"`
	SurfaceC float64 `json:"surfaceC"`
	SpreadK  float64 `json:"spreadK"`
	Measured bool    `json:"measured"`
}

// Dry are gauge readings of the cured film, all coats on the surface together.
// ProfileUm is what a blasted profile adds to every reading; MaximumUm 0 is none.
type Dry struct {
	NominalUm  float64   `json:"nominalUm"`
	MaximumUm  float64   `json:"maximumUm"`
	ProfileUm  float64   `json:"profileUm"`
	ReadingsUm []float64 `json:"readingsUm"`
	ReadAt     time.Time `json:"readAt"`
}

// Round is a round of fairing, or a look that found what the next one has to do: what was found, how,
// and what was thought of it.
type Round struct {
	N        int    `json:"n"`
	Lows     int    `json:"lows"`
	Pinholes int    `json:"pinholes"`
	By       string `json:"by,omitempty" enum:",edge,guide coat,wet surface,low light,hand"`
	// Verdict is the eye's: fair enough, or another round.
	Verdict string `json:"verdict,omitempty" enum:",fair enough,another round"`
}

// Ways of finding what is left, and what is thought of it.
var (
	FoundBy  = []string{"", "edge", "guide coat", "wet surface", "low light", "hand"}
	Verdicts = []string{"", FairEnough, "another round"}
)

// FairEnough is the verdict that ends the rounds.
const FairEnough = "fair enough"

// Detail is what an entry may tell beyond its figures. Early is why a coat went
// on before the last one's minimum. BaseG and HardenerG are what was weighed.
type Detail struct {
	Place       *survey.Place `json:"place,omitempty"`
	Batch       string        `json:"batch,omitempty"`
	BaseG       float64       `json:"baseG,omitempty"`
	HardenerG   float64       `json:"hardenerG,omitempty"`
	Conditions  *Conditions   `json:"conditions,omitempty"`
	Dry         *Dry          `json:"dry,omitempty"`
	Blemishes   []string      `json:"blemishes,omitempty"`
	Round       *Round        `json:"round,omitempty"`
	Early       string        `json:"early,omitempty"`
	BeyondShelf bool          `json:"beyondShelf,omitempty"`
	// SharePct is how much was done of a coat, or of work in one go, 0 all of it; Patches
	// are those of the step that were.
	SharePct float64  `json:"sharePct,omitempty"`
	Patches  []string `json:"patches,omitempty"`
	// Outcome is what came of a test panel.
	Outcome Outcome `json:"outcome,omitempty" enum:",passed,failed"`
	// Felt is what the film was like.
	Felt *Felt `json:"felt,omitempty"`
	// Held is how the finish held.
	Held Held `json:"held,omitempty"`
	// Spent is what was paid.
	Spent *Spent `json:"spent,omitempty"`
	// OwnID is the own task that it was of.
	OwnID string `json:"ownId,omitempty"`
	// Edition is the version of the data sheet that it was laid by, Planned what its step
	// asked for then.
	Edition int      `json:"edition,omitempty"`
	Planned *Planned `json:"planned,omitempty"`
}

// Planned is a coat as it was meant when it went on; Where is the part of the surface.
type Planned struct {
	DFTUm   float64     `json:"dftUm"`
	LossPct float64     `json:"lossPct"`
	Grade   string      `json:"grade,omitempty"`
	Where   *step.Where `json:"where,omitempty"`
}

// Outcome is what came of a trial.
type Outcome string

// Outcomes.
const (
	Passed Outcome = "passed"
	Failed Outcome = "failed"
)

// Validate reports what cannot be.
func (d Detail) Validate() error {
	var bad fielderr.Errors
	bad.Range("baseG", d.BaseG, 0, 1e6, "g")
	bad.Range("hardenerG", d.HardenerG, 0, 1e6, "g")
	for i, b := range d.Blemishes {
		if _, ok := BlemishByKey(b); !ok {
			bad.Add(fmt.Sprintf("blemishes[%d]", i), "%q is no blemish of a coat", b)
		}
	}
	if r := d.Round; r != nil {
		bad.Range("round.n", float64(r.N), 1, 100, "rounds")
		bad.Range("round.lows", float64(r.Lows), 0, 1e5, "lows")
		bad.Range("round.pinholes", float64(r.Pinholes), 0, 1e6, "pinholes")
		fielderr.OneOf(&bad, "round.by", r.By, FoundBy)
		fielderr.OneOf(&bad, "round.verdict", r.Verdict, Verdicts)
	}
	bad.Range("sharePct", d.SharePct, 0, 100, "%")
	fielderr.OneOf(&bad, "outcome", d.Outcome, []Outcome{"", Passed, Failed})
	if d.Dry != nil {
		bad.Under("dry", d.Dry.Validate())
	}
	return bad.Err()
}

// Validate reports what cannot be, and readings that look like mils.
func (d Dry) Validate() error {
	var bad fielderr.Errors
	bad.Above("nominalUm", d.NominalUm, 0, 50e3, "µm")
	bad.Range("maximumUm", d.MaximumUm, 0, 200e3, "µm")
	bad.Range("profileUm", d.ProfileUm, 0, 200, "µm")
	if len(d.ReadingsUm) == 0 {
		bad.Add("readingsUm", "there are no readings")
	}
	for i, v := range d.ReadingsUm {
		bad.Range(fmt.Sprintf("readingsUm[%d]", i), v, 0, 200e3, "µm")
	}
	if bad == nil && Mils(d.ReadingsUm, d.NominalUm) {
		bad.Add("readingsUm",
			"these look like mils: about %.3g where %.4g µm is wanted, and %.4g µm if they are. Say in which unit they are", mean(d.ReadingsUm), d.NominalUm, 25.4*mean(d.ReadingsUm))
	}
	return bad.Err()
}

// Mils tells whether readings said to be in µm are likely mils: far too little as
// they are, and within a factor of three of what is expected as mils.
func Mils(readings []float64, expectedUm float64) bool {
	m := mean(readings)
	return m > 0 && expectedUm > 0 && m < expectedUm/8 && 25.4*m > expectedUm/3 && 25.4*m < 3*expectedUm
}

func mean(v []float64) float64 {
	sum := 0.0
	for _, x := range v {
		sum += x
	}
	return sum / float64(max(1, len(v)))
}

// Verdict judges the readings on areaM2 in the style of ISO 19840, the profile
// taken off each.
func (d Dry) Verdict(areaM2 float64) (film.AcceptanceResult, error) {
	r := film.AcceptanceRequest{NominalUm: d.NominalUm, MaximumUm: d.MaximumUm, AreaM2: areaM2}
	for _, v := range d.ReadingsUm {
		r.ReadingsUm = append(r.ReadingsUm, max(0, v-d.ProfileUm))
	}
	return film.Accept(r)
}
