// Package pocket has the calculators that go along on a phone: the same functions of the core, small
// enough to be carried. Package calc lists these with all others.
package pocket

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"io"
	"reflect"
	"sync"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/units"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/clock"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/surface"
	"allcoats/core/film/film"
	"allcoats/core/film/mix"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/psychrometrics"
	"allcoats/core/physics/solar"
	"allcoats/core/physics/weather"
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
	// Request is the type of its request, whose schema says what is taken; MaxBytes how long one
	// may be.
	Request() reflect.Type
	MaxBytes() int64
	// Run answers a JSON request. Unknown fields and text in number fields
	// are faults at their path. When ctx ends the work does.
	Run(ctx context.Context, request []byte) (any, error)
}

// Of is a calculator with its request and result types.
type Of[Req, Res any] struct {
	Name    string
	Summary string
	Example func() Req
	Compute func(context.Context, Req) (Res, error)
}

// New makes a calculator.
func New[Req, Res any](name, summary string, example Req, compute func(context.Context, Req) (Res, error)) Of[Req,
	Res] {
	return Of[Req, Res]{name, summary, func() Req { return example }, compute}
}

// Showing is the calculator with an example that is made when it is asked for.
func (c Of[Req, Res]) Showing(example func() Req) Of[Req, Res] {
	c.Example = sync.OnceValue(example)
	return c
}

// usualLimit is the longest request of a calculator, limits of those that take files, bytes.
const usualLimit = 8 << 20

var limits = map[string]int64{"area-mesh": 128 << 20}

// Request implements Calculator.
func (c Of[Req, Res]) Request() reflect.Type { return reflect.TypeFor[Req]() }

// MaxBytes implements Calculator.
func (c Of[Req, Res]) MaxBytes() int64 {
	if limit, ok := limits[c.Name]; ok {
		return limit
	}
	return usualLimit
}

// Quick is a function that needs no way to be stopped.
func Quick[Req, Res any](f func(Req) (Res, error)) func(context.Context, Req) (Res, error) {
	return func(_ context.Context, r Req) (Res, error) { return f(r) }
}

// Info implements Calculator.
func (c Of[Req, Res]) Info() Info { return Info{c.Name, c.Summary, c.Example()} }

// Run implements Calculator.
func (c Of[Req, Res]) Run(ctx context.Context, request []byte) (any, error) {
	var req Req
	d := json.NewDecoder(bytes.NewReader(request))
	d.DisallowUnknownFields()
	if err := d.Decode(&req); err != nil {
		return nil, decodeFault(err)
	}
	if _, err := d.Token(); err != io.EOF {
		return nil, fielderr.At("", "there is more after the request")
	}
	return c.Answer(ctx, req)
}

// Answer computes; figures that overflow are a fault, since JSON has no word for them.
func (c Of[Req, Res]) Answer(ctx context.Context, req Req) (Res, error) {
	res, err := c.Compute(ctx, req)
	if err != nil {
		return res, err
	}
	var overflow *json.UnsupportedValueError
	if _, err := json.Marshal(res); errors.As(err, &overflow) {
		return res, fielderr.At("",
			"the figures are too large or too small to be reckoned with: the answer is no finite number")
	}
	return res, nil
}

func decodeFault(err error) error {
	var mistyped *json.UnmarshalTypeError
	if errors.As(err, &mistyped) {
		return fielderr.At(mistyped.Field, "a %s does not fit here", mistyped.Value)
	}
	return fielderr.At("", "%v", err)
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

// Known are values, none of them missing.
func Known(v ...float64) []*float64 {
	out := make([]*float64, len(v))
	for i := range v {
		out[i] = &v[i]
	}
	return out
}

// The calculators.
var (
	Film = New(
		"film", "Wet and dry film, spreading rate, litres for an area.",
		film.Request{VolumeSolidsPct: 55, DFTUm: 100, ThinnerPct: 5, AreaM2: 24, Coats: 2, LossPct: 12},
		Quick(film.Compute),
	)
	Convert = New(
		"convert", "A quantity from one unit to another.",
		ConvertRequest{4, "mil", "µm"},
		Quick(func(r ConvertRequest) (ConvertResult, error) {
			v, err := units.Convert(r.Value, r.From, r.To)
			return ConvertResult{v}, err
		}),
	)
	MoistAir = New(
		"moist-air", "Dew point, vapour pressure, humidity at a surface and after heating.",
		psychrometrics.Request{TempC: 12, RHPct: 80, SurfaceTempC: new(10.5), HeatedToC: new(18.0)},
		Quick(psychrometrics.Compute),
	)
	Recoat = New(
		"recoat", "When a recoat window opens and closes over hourly surface temperatures.",
		clock.Request{
			Min: cure.Table{{TempC: 10, Hours: 14}, {TempC: 20, Hours: 6}}, Max: cure.Table{{TempC: 10, Hours: 30},
				{TempC: 20, Hours: 14}},
			MinCureC: 5, SurfaceTempsC: Known(12, 12, 13, 14, 15, 16, 17, 18, 18, 17, 16, 15, 14, 13, 12, 12, 11, 11,
				11, 11, 12, 13, 14, 15, 16, 17, 18, 18),
		}, Quick(clock.Compute),
	)
	Sun = New(
		"sun", "Where the sun is, when it rises and sets, and its light on a plane.",
		solar.Request{LatitudeDeg: 52.9, LongitudeDeg: 0.8, At: time.Date(2026, 5, 9, 9, 0, 0, 0, time.UTC),
			CloudPct: 40, Plane: &solar.PlaneRequest{TiltDeg: 90, AzimuthDeg: 150}},
		Quick(solar.Compute),
	)
	SurfaceTemp = New(
		"surface-temp", "The temperature of a surface from air, sun, sky and wind, hour by hour.",
		surface.Request{HeatJM2K: 14400, Absorptance: 0.9, Emissivity: 0.9, SkyView: 0.5, InsideWM2K: 6,
			InsideTempC: 12, StartC: 10,
			AirTempsC: []float64{10, 10, 11, 12, 13}, LightWM2: []float64{0, 80, 220, 380, 500},
			SkyTempsC: []float64{-4, -4, -3, -2, -1},
			WindMS:    []float64{1, 1, 2, 2, 3}, DewPointsC: []float64{8, 8, 8, 8, 8}}, Quick(surface.Compute),
	)
	Field = New(
		"field", "Every hour allowed or not with the binding reason, and the windows of starts.",
		field.Request{
			Limits: product.Limits{AirMinC: new(8.0), RHMaxPct: new(85.0), SpreadMinK: new(3.0), HoldH: 1,
				RainFreeH: 2}, ApplyH: 1,
			LatitudeDeg: 53, LongitudeDeg: 0.5, Air: exampleAir(),
		}, Quick(field.Compute),
	)
	Mix = New(
		"mix", "Base and hardener of a mix, by volume and by weight.",
		mix.Request{ByVolume: product.Ratio{Base: 4, Hardener: 1}, BaseKgL: 1.45, HardenerKgL: 0.98, TotalL: 1.5},
		Quick(mix.Compute),
	)
	Peroxide = New(
		"peroxide", "The peroxide catalyst of a resin or gelcoat.",
		mix.PeroxideRequest{ResinL: 1, ResinKgL: 1.1, Pct: 2, CatalystKgL: 1.15}, Quick(mix.Peroxide),
	)
	FilmAcceptance = New(
		"film-acceptance", "Dry film readings judged in the style of ISO 19840.",
		film.AcceptanceRequest{NominalUm: 125, MaximumUm: 375, ReadingsUm: []float64{100, 130, 140, 150, 160},
			AreaM2: 0.9}, Quick(film.Accept),
	)
)

// All lists the calculators by name.
var All = []Calculator{Convert, Field, Film, FilmAcceptance, Mix, MoistAir, Peroxide, Recoat, Sun, SurfaceTemp}

// ByName returns the calculator of that name.
func ByName(name string) (Calculator, bool) { return Named(All, name) }

// Named returns the calculator of that name among some.
func Named(all []Calculator, name string) (Calculator, bool) {
	for _, c := range all {
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
		s[i] = weather.Hour{At: start.Add(time.Duration(i) * time.Hour), TempC: temps[i], RHPct: humid[i],
			RainMM: &rain}
	}
	return s
}
