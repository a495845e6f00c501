// Package calc lists the stateless calculators: functions of the core, and of
// the core after a reader of package formats. Each takes and gives JSON, the
// same from Go, over HTTP and on the command line.
package calc

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"io"
	"reflect"
	"time"

	"allcoats/core/base/fault"
	"allcoats/core/base/units"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/catalog/tins"
	"allcoats/core/exposure/surface"
	"allcoats/core/film/film"
	"allcoats/core/film/mix"
	"allcoats/core/film/step"
	"allcoats/core/finish/fair"
	"allcoats/core/finish/nonskid"
	"allcoats/core/geometry/mesh"
	"allcoats/core/geometry/polygon"
	"allcoats/core/job/rules"
	"allcoats/core/physics/air"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/sky"
	"allcoats/core/physics/weather"
	"allcoats/core/planning/schedule"
	"allcoats/core/readiness/clock"
	"allcoats/core/readiness/field"
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
	Example Req
	Compute func(context.Context, Req) (Res, error)
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

// quick is a function that needs no way to be stopped.
func quick[Req, Res any](f func(Req) (Res, error)) func(context.Context, Req) (Res, error) {
	return func(_ context.Context, r Req) (Res, error) { return f(r) }
}

// Info implements Calculator.
func (c Of[Req, Res]) Info() Info { return Info{c.Name, c.Summary, c.Example} }

// Run implements Calculator.
func (c Of[Req, Res]) Run(ctx context.Context, request []byte) (any, error) {
	var req Req
	d := json.NewDecoder(bytes.NewReader(request))
	d.DisallowUnknownFields()
	if err := d.Decode(&req); err != nil {
		return nil, decodeFault(err)
	}
	if _, err := d.Token(); err != io.EOF {
		return nil, fault.At("", "there is more after the request")
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
		return res, fault.At("", "the figures are too large or too small to be reckoned with: the answer is no finite number")
	}
	return res, nil
}

func decodeFault(err error) error {
	var mistyped *json.UnmarshalTypeError
	if errors.As(err, &mistyped) {
		return fault.At(mistyped.Field, "a %s does not fit here", mistyped.Value)
	}
	return fault.At("", "%v", err)
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

func day(h int) *int { return &h }

func known(v ...float64) []*float64 {
	out := make([]*float64, len(v))
	for i := range v {
		out[i] = &v[i]
	}
	return out
}

// The calculators.
var (
	Film = Of[film.Request, film.Result]{
		"film", "Wet and dry film, spreading rate, litres for an area.",
		film.Request{VolumeSolidsPct: 55, DFTUm: 100, ThinnerPct: 5, AreaM2: 24, Coats: 2, LossPct: 12}, quick(film.Compute),
	}
	Findings = Of[rules.Request, rules.Result]{
		"findings", "What the trade has to say against steps on a surface: finding, place, reason, source, cure and mend.",
		exampleSteps(), quick(rules.Compute),
	}
	Convert = Of[ConvertRequest, ConvertResult]{
		"convert", "A quantity from one unit to another.",
		ConvertRequest{4, "mil", "µm"},
		quick(func(r ConvertRequest) (ConvertResult, error) {
			v, err := units.Convert(r.Value, r.From, r.To)
			return ConvertResult{v}, err
		}),
	}
	MoistAir = Of[air.Request, air.Result]{
		"moist-air", "Dew point, vapour pressure, humidity at a surface and after heating.",
		air.Request{TempC: 12, RHPct: 80, SurfaceTempC: at(10.5), HeatedToC: at(18)}, quick(air.Compute),
	}
	Recoat = Of[clock.Request, clock.Result]{
		"recoat", "When a recoat window opens and closes over hourly surface temperatures.",
		clock.Request{
			Min: cure.Table{{TempC: 10, Hours: 14}, {TempC: 20, Hours: 6}}, Max: cure.Table{{TempC: 10, Hours: 30}, {TempC: 20, Hours: 14}},
			MinCureC: 5, SurfaceTempsC: known(12, 12, 13, 14, 15, 16, 17, 18, 18, 17, 16, 15, 14, 13, 12, 12, 11, 11, 11, 11, 12, 13, 14, 15, 16, 17, 18, 18),
		}, quick(clock.Compute),
	}
	Straightedge = Of[fair.EdgeRequest, fair.EdgeResult]{
		"straightedge", "A line's heights and filling from the gaps under a straightedge laid at places along it, and what those do not tell.",
		fair.EdgeRequest{EdgeM: 1, SpacingM: 0.25, GapLimitMM: 1, ReadingErrorMM: 0.25, Placements: []fair.Placement{
			{StartM: 0, GapsMM: known(0, 0, 0, 0.5, 1.5)}, {StartM: 0.5, GapsMM: known(0, 1, 2.5, 1, 0)}, {StartM: 1, GapsMM: known(1.5, 0.5, 0, 0, 0)}}}, quick(fair.Straightedge),
	}
	Sun = Of[sky.Request, sky.Result]{
		"sun", "Where the sun is, when it rises and sets, and its light on a plane.",
		sky.Request{LatitudeDeg: 52.9, LongitudeDeg: 0.8, At: time.Date(2026, 5, 9, 9, 0, 0, 0, time.UTC), CloudPct: 40, Plane: &sky.PlaneRequest{TiltDeg: 90, AzimuthDeg: 150}},
		quick(sky.Compute),
	}
	Schedule = Of[schedule.Request, schedule.Answer]{
		"schedule", "Tasks with lags, windows and crews put into time: the earliest end with the fewest sandings.",
		schedule.Request{HorizonH: 72, Crews: 1, Tasks: []schedule.TaskRequest{
			{ID: "prep", DurationH: 4, Crews: 1, AllowedStartH: [][2]int{{8, 14}, {32, 38}}},
			{ID: "primer", DurationH: 2, Crews: 1, AllowedStartH: [][2]int{{8, 16}, {32, 40}, {56, 64}}},
		}, Links: []schedule.LinkRequest{{From: "prep", To: "primer", MinLagH: 0, MaxLagH: day(24)}}}, schedule.Compute,
	}
	SurfaceTemp = Of[surface.Request, surface.Result]{
		"surface-temp", "The temperature of a surface from air, sun, sky and wind, hour by hour.",
		surface.Request{HeatJM2K: 14400, Absorptance: 0.9, Emissivity: 0.9, SkyView: 0.5, InsideWM2K: 6, InsideTempC: 12, StartC: 10,
			AirTempsC: []float64{10, 10, 11, 12, 13}, LightWM2: []float64{0, 80, 220, 380, 500}, SkyTempsC: []float64{-4, -4, -3, -2, -1},
			WindMS: []float64{1, 1, 2, 2, 3}, DewPointsC: []float64{8, 8, 8, 8, 8}}, quick(surface.Compute),
	}
	Field = Of[field.Request, field.Result]{
		"field", "Every hour allowed or not with the binding reason, and the windows of starts.",
		field.Request{
			Limits: product.Limits{AirMinC: at(8), RHMaxPct: at(85), SpreadMinK: at(3), HoldH: 1, RainFreeH: 2}, ApplyH: 1,
			LatitudeDeg: 53, LongitudeDeg: 0.5, Air: exampleAir(),
		}, quick(field.Compute),
	}
	AreaPrincipal = Of[area.Dimensions, area.Principal]{
		"area-principal", "Bottom, topsides and deck from principal dimensions.",
		area.Dimensions{HullForm: area.FullMotor, LOAM: 9.8, LWLM: 8.9, BeamM: 3.2, DraughtM: 1.05, FreeboardM: 1.1, HousesM2: 7}, quick(area.FromPrincipal),
	}
	AreaGirth = Of[area.Girths, area.GirthResult]{
		"area-girth", "A hull's area by girths taped at stations, along the hull at half girth or along the centreline.",
		area.Girths{Sides: 2, Stations: []area.Station{{AtM: 0, PathM: at(0), GirthM: 1.1}, {AtM: 2, PathM: at(2.06), GirthM: 1.6},
			{AtM: 4, PathM: at(4.08), GirthM: 1.7}, {AtM: 6, PathM: at(6.12), GirthM: 1.4}, {AtM: 8, PathM: at(8.35), GirthM: 0.7}}}, quick(area.ByGirths),
	}
	AreaShapes = Of[area.ShapesRequest, area.Figure]{
		"area-shapes", "The area of a list of shapes, added and taken away.",
		area.ShapesRequest{Shapes: []area.Shape{{Kind: "rectangle", Name: "cabin side", AM: 2.4, BM: 0.45, Count: 2}, {Kind: "ellipse", Name: "port light", AM: 0.4, BM: 0.18, Count: 4, Minus: true}}},
		quick(area.ByShapes),
	}
	AreaOutline = Of[area.OutlineRequest, area.OutlineResult]{
		"area-outline", "The area and edges of a traced outline with holes, after a margin and rounded corners.",
		area.OutlineRequest{Outline: area.Outline{Polygon: polygon.Polygon{Outer: polygon.Ring{{X: 0, Y: 0}, {X: 1.6, Y: 0}, {X: 1.4, Y: 0.6}, {X: 0, Y: 0.7}},
			Holes: []polygon.Ring{{{X: 0.5, Y: 0.2}, {X: 0.8, Y: 0.2}, {X: 0.8, Y: 0.45}, {X: 0.5, Y: 0.45}}}}, MarginM: 0.03, RadiusM: 0.04, Count: 1}},
		quick(area.ByOutlines),
	}
	AreaHull = Of[area.HullRequest, area.HullResult]{
		"area-hull", "The wetted surface of a hull of known form, to test a way of measuring on.",
		area.HullRequest{Form: "parabolic", LengthM: 10, BeamM: 3, DraughtM: 1.2}, quick(area.OfHull),
	}
	AreaMesh = Of[MeshRequest, MeshResult]{
		"area-mesh", "The areas of a 3-D file (STL, OBJ) or a table of offsets (CSV), split at the waterline, the boot-top and the centreline.",
		MeshRequest{Format: "obj", Data: []byte("v 0 -1 -1\nv 4 -1 -1\nv 4 1 -1\nv 0 1 -1\nv 0 -1 1\nv 4 -1 1\nv 4 1 1\nv 0 1 1\nf 4 3 2 1\nf 1 2 6 5\nf 2 3 7 6\nf 3 4 8 7\nf 4 1 5 8\nf 5 6 7 8\n"),
			Placing: mesh.Placing{Unit: "m", Up: "+z", Forward: "+x", BootTopM: 0.1}, CutsM: []float64{-0.5}}, quick(measureMesh),
	}
	Mix = Of[mix.Request, mix.Result]{
		"mix", "Base and hardener of a mix, by volume and by weight.",
		mix.Request{ByVolume: product.Ratio{Base: 4, Hardener: 1}, BaseKgL: 1.45, HardenerKgL: 0.98, TotalL: 1.5}, quick(mix.Compute),
	}
	NonSkid = Of[nonskid.Work, nonskid.Layout]{
		"non-skid-layout", "Panels of non-skid on a deck: margins, fittings, splits, tape, texture, order.", exampleDeck(), quick(layOut),
	}
	Peroxide = Of[mix.PeroxideRequest, mix.PeroxideResult]{
		"peroxide", "The peroxide catalyst of a resin or gelcoat.",
		mix.PeroxideRequest{ResinL: 1, ResinKgL: 1.1, Pct: 2, CatalystKgL: 1.15}, quick(mix.Peroxide),
	}
	FilmAcceptance = Of[film.AcceptanceRequest, film.AcceptanceResult]{
		"film-acceptance", "Dry film readings judged in the style of ISO 19840.",
		film.AcceptanceRequest{NominalUm: 125, MaximumUm: 375, ReadingsUm: []float64{100, 130, 140, 150, 160}, AreaM2: 0.9}, quick(film.Accept),
	}
	Consumption = Of[tins.UseRequest, tins.UseResult]{
		"consumption", "How many litres coats to come will take, and how many tins are enough, from what logged coats took.",
		tins.UseRequest{Logged: []tins.Coat{{Surface: "bottom", ReckonedL: 4.05, LoggedL: 4.35}}, AreaSDPct: map[string]float64{"bottom": 8}, PlannedSurface: "bottom",
			ReckonedToComeL: []float64{4.5, 4.5}, TinL: 0.75, StockL: 0.25, ServiceLevelPct: 80}, quick(tins.Consumption),
	}
	Purchase = Of[tins.PackRequest, tins.PackResult]{
		"purchase", "The cheapest packs that cover base and hardener, stock counted in.",
		tins.PackRequest{NeedBaseML: 7500, NeedHardenerML: 2500, StockBaseML: 500, Items: []tins.Item{{Name: "kit 2.5 L", BaseML: 1875, HardenerML: 625, PriceCents: 9400}, {Name: "hardener 0.75 L", HardenerML: 750, PriceCents: 3100}}},
		tins.Pack,
	}
	WettedSurface = Of[WettedRequest, WettedResult]{
		"wetted-surface", "The wetted surface by Mumford's and Holtrop's formulas.",
		WettedRequest{Dimensions: area.Dimensions{HullForm: area.Medium, LOAM: 7.2, LWLM: 6.4, BeamM: 2.1, DraughtM: 0.85, FreeboardM: 0.62}}, quick(wetted),
	}
)

// All lists the calculators by name.
var All = []Calculator{AreaGirth, AreaHull, AreaMesh, AreaOutline, AreaPrincipal, AreaShapes, Consumption, Convert, Field, Film, FilmAcceptance, Findings, Mix, MoistAir, NonSkid, Peroxide, Purchase, Recoat, Schedule, Straightedge, Sun, SurfaceTemp, WettedSurface}

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

// exampleSteps are a metal primer and copper antifouling on aluminium.
func exampleSteps() rules.Request {
	sheet := func(name string) *product.Sheet {
		for _, s := range product.Examples() {
			if s.Name == name {
				return &s
			}
		}
		return nil
	}
	coat := func(name string, n int, um float64) rules.StepRequest {
		return rules.StepRequest{Step: step.Step{Work: step.Coat, Coats: n, DFTUm: um, Method: "roller"}, Sheet: sheet(name)}
	}
	return rules.Request{Part: area.Bottom, Substrate: survey.Aluminium, Steps: []rules.StepRequest{{Step: step.Step{Work: step.Strip}}, {Step: step.Step{Work: step.Degrease, Agent: "solvent"}},
		coat("Epoxy metal primer, anticorrosive, two-part", 2, 75), coat("Antifouling, soft, wearing away", 2, 60)}}
}

func exampleDeck() nonskid.Work {
	w := nonskid.Usual([]polygon.Polygon{{Outer: polygon.Ring{{X: 0, Y: 0}, {X: 5, Y: 0}, {X: 3.6, Y: 1}, {X: 0, Y: 1.1}}}})
	w.Splits = []nonskid.Split{{X1: 2, Y1: -2, X2: 2, Y2: 2, WidthM: 0.03}}
	w.Fittings = []nonskid.Fitting{{Name: "fore hatch", Kind: "hatch", X: 3, LengthM: 0.5, WidthM: 0.5}}
	return w
}
