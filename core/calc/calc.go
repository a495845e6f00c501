// Package calc lists the stateless calculators. Each takes and gives JSON, the
// same from Go, over HTTP and on the command line.
package calc

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"time"

	"allcoats/core/air"
	"allcoats/core/area"
	"allcoats/core/clock"
	"allcoats/core/cure"
	"allcoats/core/fault"
	"allcoats/core/field"
	"allcoats/core/film"
	"allcoats/core/product"
	"allcoats/core/units"
	"allcoats/core/weather"
)

// Info describes a calculator with a request that works.
type Info struct {
	Name    string `json:"name"`
	Summary string `json:"summary"`
	Example any    `json:"example"`
}

// Calculator is a named function from JSON to JSON.
type Calculator interface {
	Info() Info
	// Run answers a JSON request. Unknown fields and text in number fields
	// are faults at their path.
	Run(request []byte) (any, error)
}

// Of is a calculator with its request and result types.
type Of[Req, Res any] struct {
	Name    string
	Summary string
	Example Req
	Compute func(Req) (Res, error)
}

// Info implements Calculator.
func (c Of[Req, Res]) Info() Info { return Info{c.Name, c.Summary, c.Example} }

// Run implements Calculator.
func (c Of[Req, Res]) Run(request []byte) (any, error) {
	var req Req
	d := json.NewDecoder(bytes.NewReader(request))
	d.DisallowUnknownFields()
	if err := d.Decode(&req); err != nil {
		return nil, decodeFault(err)
	}
	if _, err := d.Token(); err != io.EOF {
		return nil, fault.Errors{{Path: "", Message: "there is more after the request"}}
	}
	return c.Compute(req)
}

func decodeFault(err error) error {
	var mistyped *json.UnmarshalTypeError
	if errors.As(err, &mistyped) {
		return fault.Errors{{Path: mistyped.Field, Message: fmt.Sprintf("a %s does not fit here", mistyped.Value)}}
	}
	return fault.Errors{{Path: "", Message: err.Error()}}
}

// ConvertRequest is the input of the convert calculator.
type ConvertRequest struct {
	Value float64 `json:"value"`
	From  string  `json:"from"`
	To    string  `json:"to"`
}

// ConvertResult is its answer.
type ConvertResult struct {
	Value float64 `json:"value"`
}

func at(h float64) *float64 { return &h }

// The calculators.
var (
	Film = Of[film.Request, film.Result]{
		"film", "Wet and dry film, spreading rate, litres for an area.",
		film.Request{VolumeSolidsPct: 55, DFTUm: 100, ThinnerPct: 5, AreaM2: 24, Coats: 2, LossPct: 12}, film.Compute,
	}
	Convert = Of[ConvertRequest, ConvertResult]{
		"convert", "A quantity from one unit to another.",
		ConvertRequest{4, "mil", "µm"},
		func(r ConvertRequest) (ConvertResult, error) {
			v, err := units.Convert(r.Value, r.From, r.To)
			return ConvertResult{v}, err
		},
	}
	MoistAir = Of[air.Request, air.Result]{
		"moist-air", "Dew point, vapour pressure, humidity at a surface and after heating.",
		air.Request{TempC: 12, RHPct: 80, SurfaceTempC: at(10.5), HeatedToC: at(18)}, air.Compute,
	}
	Recoat = Of[clock.Request, clock.Result]{
		"recoat", "When a recoat window opens and closes over hourly surface temperatures.",
		clock.Request{
			Min: cure.Table{{TempC: 10, Hours: 14}, {TempC: 20, Hours: 6}}, Max: cure.Table{{TempC: 10, Hours: 30}, {TempC: 20, Hours: 14}},
			MinCureC: 5, SurfaceTempsC: []float64{12, 12, 13, 14, 15, 16, 17, 18, 18, 17, 16, 15, 14, 13, 12, 12, 11, 11, 11, 11, 12, 13, 14, 15, 16, 17, 18, 18},
		}, clock.Compute,
	}
	Field = Of[field.Request, field.Result]{
		"field", "Every hour allowed or not with the binding reason, and the windows of starts.",
		field.Request{
			Limits: product.Limits{AirMinC: at(8), RHMaxPct: at(85), SpreadMinK: at(3), HoldH: 1, RainFreeH: 2}, ApplyH: 1,
			LatitudeDeg: 53, LongitudeDeg: 0.5, Air: exampleAir(),
		}, field.Compute,
	}
	AreaPrincipal = Of[area.Dimensions, area.Principal]{
		"area-principal", "Bottom, topsides and deck from principal dimensions.",
		area.Dimensions{HullForm: area.FullMotor, LOAM: 9.8, LWLM: 8.9, BeamM: 3.2, DraughtM: 1.05, FreeboardM: 1.1, HousesM2: 7}, area.FromPrincipal,
	}
)

// All lists the calculators by name.
var All = []Calculator{AreaPrincipal, Convert, Field, Film, MoistAir, Recoat}

// ByName returns the calculator of that name.
func ByName(name string) (Calculator, bool) {
	for _, c := range All {
		if c.Info().Name == name {
			return c, true
		}
	}
	return nil, false
}

func exampleAir() weather.Series {
	start := time.Date(2026, 5, 9, 6, 0, 0, 0, time.UTC)
	temps := []float64{6, 7, 8.5, 10, 11.5, 13, 14, 14.5, 14.5, 14, 13, 11.5}
	humid := []float64{95, 92, 86, 79, 73, 67, 63, 62, 62, 65, 71, 78}
	s := make(weather.Series, len(temps))
	for i := range s {
		rain := 0.0
		if i == len(s)-1 {
			rain = 0.6
		}
		s[i] = weather.Hour{At: start.Add(time.Duration(i) * time.Hour), TempC: temps[i], RHPct: humid[i], RainMM: &rain}
	}
	return s
}
