package reading

import (
	"time"

	"allcoats/core/base/fielderr"
)

// Instruments that show one value when asked, at the bench; their values are not
// kept.
const (
	Scale Kind = "scale" // grams
	Gauge Kind = "gauge" // dry film, µm
)

// Benched tells whether a kind shows single values.
func (k Kind) Benched() bool { return k == Scale || k == Gauge }

// Value is what a bench instrument showed, in its own unit: g, kg, µm or mil.
type Value struct {
	At    time.Time `json:"at"`
	Value float64   `json:"value"`
	Unit  string    `json:"unit" enum:"g,kg,µm,mil"`
}

// units turn what is sent into grams or µm.
var units = map[Kind]map[string]float64{
	Scale: {"g": 1, "kg": 1000},
	Gauge: {"µm": 1, "um": 1, "mil": 25.4},
}

// In returns v in the unit of a kind, g or µm.
func (v Value) In(k Kind) (Value, error) {
	var bad fielderr.Errors
	factor, ok := units[k][v.Unit]
	if !ok {
		bad.Add("unit", "a %s does not show %q", k, v.Unit)
		return v, bad
	}
	v.Value *= factor
	if k == Scale {
		bad.Range("value", v.Value, -20e3, 200e3, "g")
		v.Unit = "g"
	} else {
		bad.Range("value", v.Value, 0, 50e3, "µm")
		v.Unit = "µm"
	}
	return v, bad.Err()
}
