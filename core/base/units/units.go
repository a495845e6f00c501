// Package units converts between the metric units that everything is computed
// and stored in and the others that people read and type.
package units

import (
	"math"

	"allcoats/core/base/fielderr"
)

// A unit is a multiple of its dimension's base unit, after adding Offset:
// base = (value + offset) · factor.
type unit struct {
	dimension string
	factor    float64
	offset    float64
}

// Exact by definition: inch 0.0254 m, pound 0.45359237 kg, US gallon
// 3.785411784 L, imperial gallon 4.54609 L. inHg is the conventional 3386.389 Pa.
const (
	foot     = 0.3048
	usGallon = 3.785411784
	gallon   = 4.54609
	pound    = 0.45359237
)

var table = map[string]unit{
	"m": {"length", 1, 0}, "mm": {"length", 1e-3, 0}, "µm": {"length", 1e-6, 0}, "in": {"length", 0.0254, 0},
	"ft": {"length", foot, 0}, "mil": {"length", 25.4e-6, 0},
	"m²": {"area", 1, 0}, "ft²": {"area", foot * foot, 0},
	"L": {"volume", 1, 0}, "mL": {"volume", 1e-3, 0},
	"US gal": {"volume", usGallon, 0}, "US qt": {"volume", usGallon / 4, 0}, "US fl oz": {"volume", usGallon / 128, 0},
	"imp gal": {"volume", gallon, 0}, "imp pt": {"volume", gallon / 8, 0}, "imp fl oz": {"volume", gallon / 160, 0},
	"kg": {"mass", 1, 0}, "g": {"mass", 1e-3, 0}, "lb": {"mass", pound, 0}, "oz": {"mass", pound / 16, 0},
	"L/m²": {"volume on an area", 1, 0}, "US fl oz/ft²": {"volume on an area", usGallon / 128 / (foot * foot), 0},
	"m²/L": {"spreading rate", 1, 0}, "ft²/US gal": {"spreading rate", foot * foot / usGallon, 0},
	"m²/h": {"laying rate", 1, 0}, "ft²/h": {"laying rate", foot * foot, 0},
	"kg/L": {"density", 1, 0}, "lb/US gal": {"density", pound / usGallon, 0},
	"°C": {"temperature", 1, 0}, "°F": {"temperature", 5. / 9, -32},
	"K": {"temperature difference", 1, 0}, "°F difference": {"temperature difference", 5. / 9, 0},
	"hPa": {"pressure", 1, 0}, "inHg": {"pressure", 33.86389, 0},
	"m/s": {"speed", 1, 0}, "mph": {"speed", 0.44704, 0}, "kn": {"speed", 1852. / 3600, 0},
}

// spelt lists plain-keyboard spellings.
var spelt = map[string]string{
	"um": "µm", "m2": "m²", "ft2": "ft²", "m2/L": "m²/L", "ft2/US_gal": "ft²/US gal", "degC": "°C", "degF": "°F",
	"degF difference": "°F difference", "US_gal": "US gal", "US_qt": "US qt", "US_fl_oz": "US fl oz",
	"imp_gal": "imp gal", "imp_pt": "imp pt", "imp_fl_oz": "imp fl oz",
}

// Convert returns value, given in unit from, in unit to. Units are the symbols
// of this package or their plain spellings ("um", "m2", "degF"). An unknown
// unit or a pair of different dimensions is a fault at "from" or "to", a result
// that is no finite number one at "value".
func Convert(value float64, from, to string) (float64, error) {
	var bad fielderr.Errors
	f, okF := lookup(from)
	t, okT := lookup(to)
	if !okF {
		bad.Add("from", "unit %q is not known", from)
	}
	if !okT {
		bad.Add("to", "unit %q is not known", to)
	}
	if okF && okT && f.dimension != t.dimension {
		bad.Add("to", "%s is a %s, %s a %s", to, t.dimension, from, f.dimension)
	}
	if err := bad.Err(); err != nil {
		return 0, err
	}
	out := (value+f.offset)*f.factor/t.factor - t.offset
	if math.IsNaN(out) || math.IsInf(out, 0) || out == 0 && value+f.offset != 0 && t.offset == 0 {
		bad.Add("value", "%g %s is no figure in %s", value, from, to)
		return 0, bad
	}
	return out, nil
}

func lookup(name string) (unit, bool) {
	if s, ok := spelt[name]; ok {
		name = s
	}
	u, ok := table[name]
	return u, ok
}

// Display says how a quantity kept in the metric unit Metric is shown: as it is
// with MetricSymbol, or as value · Factor + Offset with ImperialSymbol.
type Display struct {
	Metric         string  `json:"metric"`
	MetricSymbol   string  `json:"metricSymbol"`
	MetricDigits   int     `json:"metricDigits"`
	ImperialSymbol string  `json:"imperialSymbol"`
	Factor         float64 `json:"factor"`
	Offset         float64 `json:"offset"`
	ImperialDigits int     `json:"imperialDigits"`
}

// Displays lists every unit that results and forms use, each with its imperial
// partner. The client converts with these figures and no others.
func Displays() []Display {
	pairs := []struct {
		metric   string
		digits   int
		imperial string
		iDigits  int
	}{
		{"m", 2, "ft", 1}, {"mm", 1, "in", 2}, {"µm", 0, "mil", 1}, {"m²", 1, "ft²", 0}, {"L", 2, "US qt", 2},
		{"kg", 2, "lb", 2}, {"g", 0, "oz", 1}, {"mL", 0, "US fl oz", 1}, {"m²/L", 1, "ft²/US gal", 0},
		{"L/m²", 3, "US fl oz/ft²", 2},
		{"m²/h", 1, "ft²/h", 0}, {"kg/L", 2, "lb/US gal", 2}, {"°C", 1, "°F", 0}, {"K", 1, "°F difference", 1},
		{"hPa", 1, "inHg", 2}, {"m/s", 1, "mph", 0},
	}
	out := make([]Display, len(pairs))
	for i, p := range pairs {
		m, im := table[p.metric], table[p.imperial]
		out[i] = Display{
			Metric: p.metric, MetricSymbol: symbol(p.metric), MetricDigits: p.digits,
			ImperialSymbol: symbol(p.imperial), ImperialDigits: p.iDigits,
			Factor: m.factor / im.factor, Offset: m.offset*m.factor/im.factor - im.offset,
		}
	}
	return out
}

// symbol is how a unit is written beside a figure: differences of temperature
// are said in degrees.
func symbol(name string) string {
	switch name {
	case "K":
		return "°C"
	case "°F difference":
		return "°F"
	}
	return name
}
