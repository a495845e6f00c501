// Package film relates wet film, dry film, area and litres of one product.
// Film thickness is in µm, area in m², volume in L of unthinned mix, shares in
// per cent.
package film

import (
	"fmt"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
)

const (
	sourceSpread = "ISO 23811"
	sourceSolids = "volume solids by ISO 3233"
)

// Method is a way of laying a coat, with its usual loss and how much one
// person lays in an hour on open shapes. All of it rules of thumb.
type Method struct {
	Key        string  `json:"key"`
	Name       string  `json:"name"`
	LossPct    float64 `json:"lossPct"`
	LossMinPct float64 `json:"lossMinPct"`
	LossMaxPct float64 `json:"lossMaxPct"`
	RateM2H    float64 `json:"rateM2H"`
	Spray      bool    `json:"spray"`
}

// Methods lists the ways of laying a coat.
var Methods = []Method{
	{"brush", "brush", 10, 5, 15, 5, false},
	{"roller", "roller", 10, 5, 15, 12, false},
	{"roll-and-tip", "roll and tip", 12, 5, 15, 9, false},
	{"blade", "blade or trowel", 15, 10, 25, 3, false},
	{"airless", "airless spray", 25, 20, 30, 40, true},
	{"hvlp", "HVLP spray", 42, 35, 50, 18, true},
	{"spray", "conventional spray", 50, 40, 60, 25, true},
}

// MethodByKey returns the method with that key.
func MethodByKey(key string) (Method, bool) {
	for _, m := range Methods {
		if m.Key == key {
			return m, true
		}
	}
	return Method{}, false
}

// Wet returns the wet film in µm that dries to dftUm: DFT · (1 + t/100) /
// (VS/100), thinner t in per cent of the unthinned volume.
func Wet(dftUm, solidsPct, thinnerPct float64) float64 {
	return dftUm * (1 + thinnerPct/100) / (solidsPct / 100)
}

// Dry returns the dry film in µm that a wet film leaves, the inverse of Wet.
func Dry(wftUm, solidsPct, thinnerPct float64) float64 {
	return wftUm * (solidsPct / 100) / (1 + thinnerPct/100)
}

// SpreadingRate returns the theoretical m²/L of unthinned mix: 10 · VS / DFT.
func SpreadingRate(solidsPct, dftUm float64) float64 { return 10 * solidsPct / dftUm }

// Litres returns the practical litres of unthinned mix for one coat: A · DFT /
// (10 · VS) / (1 − loss). Loss is a share of what is drawn from the tin.
func Litres(areaM2, dftUm, solidsPct, lossPct float64) float64 {
	return areaM2 / SpreadingRate(solidsPct, dftUm) / (1 - lossPct/100)
}

// Request is the input of the film calculator. Give dftUm or wftUm, not both.
// AreaM2 0 leaves the quantities out; coats 0 means 1.
type Request struct {
	VolumeSolidsPct float64 `json:"volumeSolidsPct"`
	DFTUm           float64 `json:"dftUm,omitempty"`
	WFTUm           float64 `json:"wftUm,omitempty"`
	ThinnerPct      float64 `json:"thinnerPct,omitempty"`
	AreaM2          float64 `json:"areaM2,omitempty"`
	Coats           int     `json:"coats,omitempty" minimum:"1"`
	LossPct         float64 `json:"lossPct,omitempty"`
	// DeadLM2 is the dead volume of a rough profile, L/m², filled once.
	DeadLM2 float64 `json:"deadLM2,omitempty"`
	// ResidueL is what stays in tray, roller and pot at every mixing, with
	// Batches mixings a coat.
	ResidueL float64 `json:"residueL,omitempty"`
	Batches  int     `json:"batches,omitempty"`
}

// Result is the film of one coat and the quantities of all coats.
type Result struct {
	DFTUm               float64         `json:"dftUm"`
	WFTUm               float64         `json:"wftUm"`
	SolidsThinnedPct    float64         `json:"solidsThinnedPct"`
	SpreadingRateM2L    float64         `json:"spreadingRateM2L"`
	PracticalRateM2L    float64         `json:"practicalRateM2L"`
	TheoreticalL        float64         `json:"theoreticalL"`
	PracticalL          float64         `json:"practicalL"`
	ThinnerL            float64         `json:"thinnerL"`
	DryVolumeOnSurfaceL float64         `json:"dryVolumeOnSurfaceL"`
	Working             working.Working `json:"working"`
}

// Compute answers r, or names the impossible fields.
func Compute(r Request) (Result, error) {
	var bad fielderr.Errors
	bad.Pct("volumeSolidsPct", r.VolumeSolidsPct)
	switch {
	case r.DFTUm == 0 && r.WFTUm == 0:
		bad.Add("dftUm", "give the dry film, or the wet film in wftUm")
	case r.DFTUm != 0 && r.WFTUm != 0:
		bad.Add("wftUm", "give either the dry or the wet film, not both")
	}
	bad.Range("dftUm", r.DFTUm, 0, 50e3, "µm")
	bad.Range("wftUm", r.WFTUm, 0, 100e3, "µm")
	bad.Range("thinnerPct", r.ThinnerPct, 0, 100, "%")
	bad.Range("areaM2", r.AreaM2, 0, 1e5, "m²")
	bad.Range("coats", float64(r.Coats), 0, 100, "coats")
	bad.Range("lossPct", r.LossPct, 0, 90, "%")
	bad.Range("deadLM2", r.DeadLM2, 0, 10, "L/m²")
	bad.Range("residueL", r.ResidueL, 0, 100, "L")
	bad.Range("batches", float64(r.Batches), 0, 1000, "batches")
	if err := bad.Err(); err != nil {
		return Result{}, err
	}
	coats := float64(max(r.Coats, 1))

	w := working.New()
	w.In("Volume solids", r.VolumeSolidsPct, "%")
	w.In("Thinner added", r.ThinnerPct, "%")
	w.Share("Thinner", r.ThinnerPct)
	w.Share("Loss", r.LossPct)
	var out Result
	if r.DFTUm != 0 {
		w.In("Dry film", r.DFTUm, "µm")
		out.DFTUm = r.DFTUm
		out.WFTUm = w.Step("Wet film to lay", "DFT · (1 + thinner/100) / (VS/100)",
			Wet(r.DFTUm, r.VolumeSolidsPct, r.ThinnerPct), "µm", sourceSolids)
	} else {
		w.In("Wet film", r.WFTUm, "µm")
		out.WFTUm = r.WFTUm
		out.DFTUm = w.Step("Dry film it leaves", "WFT · (VS/100) / (1 + thinner/100)",
			Dry(r.WFTUm, r.VolumeSolidsPct, r.ThinnerPct), "µm", sourceSolids)
	}
	out.SolidsThinnedPct = r.VolumeSolidsPct / (1 + r.ThinnerPct/100)
	out.SpreadingRateM2L = w.Step("Theoretical spreading rate", "10 · VS / DFT",
		SpreadingRate(r.VolumeSolidsPct, out.DFTUm), "m²/L", sourceSpread)
	out.PracticalRateM2L = w.Step("Practical spreading rate", "theoretical · (1 − loss/100)",
		out.SpreadingRateM2L*(1-r.LossPct/100), "m²/L", "loss factor: a rule of thumb")
	if r.AreaM2 > 0 {
		w.In("Area", r.AreaM2, "m²")
		w.In("Coats", coats, "")
		w.In("Loss", r.LossPct, "%")
		out.TheoreticalL = w.Step("Litres without loss", "coats · A / theoretical rate",
			coats*r.AreaM2/out.SpreadingRateM2L, "L", sourceSpread)
		formula, extra := "coats · A / practical rate", 0.0
		if r.DeadLM2 > 0 {
			extra += w.Step("Dead volume of the profile", "A · dead volume", r.AreaM2*r.DeadLM2, "L", "filled once")
			formula += " + dead volume"
		}
		if r.ResidueL > 0 {
			extra += w.Step("Left in tray and roller", "coats · batches · residue",
				coats*float64(max(r.Batches, 1))*r.ResidueL, "L", "rule of thumb")
			formula += " + left in tray and roller"
		}
		out.PracticalL = w.Step("Litres to have", formula,
			coats*Litres(r.AreaM2, out.DFTUm, r.VolumeSolidsPct, r.LossPct)+extra, "L", sourceSpread)
		out.ThinnerL = w.Step("Thinner", fmt.Sprintf("%g %% of the litres", r.ThinnerPct),
			out.PracticalL*r.ThinnerPct/100, "L", "share of the unthinned volume")
		out.DryVolumeOnSurfaceL = w.Step("Dry film on the surface", "coats · A · DFT / 1000",
			coats*r.AreaM2*out.DFTUm/1000, "L", "geometry")
	}
	out.Working = w
	return out, nil
}
