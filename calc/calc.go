// Package calc lists the stateless calculators: functions of the core, and of
// the core after a reader of package formats. Each takes and gives JSON, the
// same from Go, over HTTP and on the command line.
package calc

import (
	"allcoats/calc/pocket"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/catalog/purchase"
	"allcoats/core/film/step"
	"allcoats/core/finish/fair"
	"allcoats/core/finish/nonskid"
	"allcoats/core/geometry/mesh"
	"allcoats/core/geometry/polygon"
	"allcoats/core/job/rules"
	"allcoats/core/planning/schedule"
)

// Calculator is a named function from JSON to JSON, Info what it is.
type (
	Calculator = pocket.Calculator
	Info       = pocket.Info
)

// The calculators.
var (
	Findings = pocket.New(
		"findings",
		"What the trade has to say against steps on a surface: finding, place, reason, source, cure and mend.",
		rules.Request{}, pocket.Quick(rules.Compute),
	).Showing(exampleSteps)
	Straightedge = pocket.New(
		"straightedge",
		"A line's heights and filling from the gaps under a straightedge laid at places along it, and what those do not tell.",
		fair.EdgeRequest{EdgeM: 1, SpacingM: 0.25, GapLimitMM: 1, ReadingErrorMM: 0.25, Placements: []fair.Placement{
			{StartM: 0, GapsMM: pocket.Known(0, 0, 0, 0.5, 1.5)}, {StartM: 0.5, GapsMM: pocket.Known(0, 1, 2.5, 1, 0)},
			{StartM: 1, GapsMM: pocket.Known(1.5, 0.5, 0, 0, 0)}}}, pocket.Quick(fair.Straightedge),
	)
	Schedule = pocket.New(
		"schedule", "Tasks with lags, windows and crews put into time: the earliest end with the fewest sandings.",
		schedule.Request{HorizonH: 72, Crews: 1, Tasks: []schedule.TaskRequest{
			{ID: "prep", DurationH: 4, Crews: 1, AllowedStartH: [][2]int{{8, 14}, {32, 38}}},
			{ID: "primer", DurationH: 2, Crews: 1, AllowedStartH: [][2]int{{8, 16}, {32, 40}, {56, 64}}},
		}, Links: []schedule.LinkRequest{{From: "prep", To: "primer", MinLagH: 0, MaxLagH: new(24)}}}, schedule.Compute,
	)
	AreaPrincipal = pocket.New(
		"area-principal", "Bottom, topsides and deck from principal dimensions.",
		area.Dimensions{HullForm: area.FullMotor, LOAM: 9.8, LWLM: 8.9, BeamM: 3.2, DraughtM: 1.05, FreeboardM: 1.1,
			HousesM2: 7}, pocket.Quick(area.FromPrincipal),
	)
	AreaGirth = pocket.New(
		"area-girth",
		"A hull's area by girths taped at stations, along the hull at half girth or along the centreline.",
		area.Girths{Sides: 2, Stations: []area.Station{{AtM: 0, PathM: new(0.0), GirthM: 1.1},
			{AtM: 2, PathM: new(2.06), GirthM: 1.6},
			{AtM: 4, PathM: new(4.08), GirthM: 1.7}, {AtM: 6, PathM: new(6.12), GirthM: 1.4},
			{AtM: 8, PathM: new(8.35), GirthM: 0.7}}}, pocket.Quick(area.ByGirths),
	)
	AreaShapes = pocket.New(
		"area-shapes", "The area of a list of shapes, added and taken away.",
		area.ShapesRequest{Shapes: []area.Shape{{Kind: "rectangle", Name: "cabin side", AM: 2.4, BM: 0.45, Count: 2},
			{Kind: "ellipse", Name: "port light", AM: 0.4, BM: 0.18, Count: 4, Minus: true}}},
		pocket.Quick(area.ByShapes),
	)
	AreaOutline = pocket.New(
		"area-outline", "The area and edges of a traced outline with holes, after a margin and rounded corners.",
		area.OutlineRequest{Outline: area.Outline{
			Polygon: polygon.Polygon{Outer: polygon.Ring{{X: 0, Y: 0}, {X: 1.6, Y: 0}, {X: 1.4, Y: 0.6},
				{X: 0, Y: 0.7}},
				Holes: []polygon.Ring{{{X: 0.5, Y: 0.2}, {X: 0.8, Y: 0.2}, {X: 0.8, Y: 0.45}, {X: 0.5, Y: 0.45}}}},
			MarginM: 0.03, RadiusM: 0.04, Count: 1}},
		pocket.Quick(area.ByOutlines),
	)
	AreaHull = pocket.New(
		"area-hull", "The wetted surface of a hull of known form, to test a way of measuring on.",
		area.HullRequest{Form: "parabolic", LengthM: 10, BeamM: 3, DraughtM: 1.2}, pocket.Quick(area.OfHull),
	)
	AreaMesh = pocket.New(
		"area-mesh",
		"The areas of a 3-D file (STL, OBJ) or a table of offsets (CSV), split at the waterline, the boot-top and the centreline.",
		MeshRequest{Format: "obj",
			Data: []byte(
				"v 0 -1 -1\nv 4 -1 -1\nv 4 1 -1\nv 0 1 -1\nv 0 -1 1\nv 4 -1 1\nv 4 1 1\nv 0 1 1\nf 4 3 2 1\nf 1 2 6 5\nf 2 3 7 6\nf 3 4 8 7\nf 4 1 5 8\nf 5 6 7 8\n"),
			Placing: mesh.Placing{Unit: "m", Up: "+z", Forward: "+x", BootTopM: 0.1}, CutsM: []float64{-0.5}},
		pocket.Quick(measureMesh),
	)
	NonSkid = pocket.New(
		"non-skid-layout", "Panels of non-skid on a deck: margins, fittings, splits, tape, texture, order.",
		nonskid.Work{}, pocket.Quick(layOut),
	).Showing(exampleDeck)
	Consumption = pocket.New(
		"consumption",
		"How many litres coats to come will take, and how many tins are enough, from what logged coats took.",
		purchase.UseRequest{Logged: []purchase.Coat{{Surface: "bottom", ReckonedL: 4.05, LoggedL: 4.35}},
			AreaSDPct: map[string]float64{"bottom": 8}, PlannedSurface: "bottom",
			ReckonedToComeL: []float64{4.5, 4.5}, TinL: 0.75, StockL: 0.25, ServiceLevelPct: 80},
		pocket.Quick(purchase.Consumption),
	)
	Purchase = pocket.New(
		"purchase", "The cheapest packs that cover base and hardener, stock counted in.",
		purchase.PackRequest{NeedBaseML: 7500, NeedHardenerML: 2500, StockBaseML: 500,
			Items: []purchase.Item{{Name: "kit 2.5 L", BaseML: 1875, HardenerML: 625, PriceCents: 9400},
				{Name: "hardener 0.75 L", HardenerML: 750, PriceCents: 3100}}},
		purchase.Pack,
	)
	WettedSurface = pocket.New(
		"wetted-surface", "The wetted surface by Mumford's and Holtrop's formulas.",
		WettedRequest{Dimensions: area.Dimensions{HullForm: area.Medium, LOAM: 7.2, LWLM: 6.4, BeamM: 2.1,
			DraughtM: 0.85, FreeboardM: 0.62}}, pocket.Quick(wetted),
	)
)

// All lists the calculators by name.
var All = []Calculator{AreaGirth, AreaHull, AreaMesh, AreaOutline, AreaPrincipal, AreaShapes, Consumption,
	pocket.Convert, pocket.Field, pocket.Film, pocket.FilmAcceptance, Findings, pocket.Mix, pocket.MoistAir, NonSkid,
	pocket.Peroxide, Purchase, pocket.Recoat, Schedule, Straightedge, pocket.Sun, pocket.SurfaceTemp, WettedSurface}

// ByName returns the calculator of that name.
func ByName(name string) (Calculator, bool) { return pocket.Named(All, name) }

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
		return rules.StepRequest{Step: step.Step{Work: step.Coat, Coats: n, DFTUm: um, Method: "roller"},
			Sheet: sheet(name)}
	}
	return rules.Request{Part: area.Bottom, Substrate: survey.Aluminium,
		Steps: []rules.StepRequest{{Step: step.Step{Work: step.Strip}},
			{Step: step.Step{Work: step.Degrease, Agent: "solvent"}},
			coat("Epoxy metal primer, anticorrosive, two-part", 2, 75), coat("Antifouling, soft, wearing away", 2, 60)}}
}

func exampleDeck() nonskid.Work {
	w := nonskid.Usual([]polygon.Polygon{
		{Outer: polygon.Ring{{X: 0, Y: 0}, {X: 5, Y: 0}, {X: 3.6, Y: 1}, {X: 0, Y: 1.1}}}})
	w.Splits = []nonskid.Split{{X1: 2, Y1: -2, X2: 2, Y2: 2, WidthM: 0.03}}
	w.Fittings = []nonskid.Fitting{{Name: "fore hatch", Kind: "hatch", X: 3, LengthM: 0.5, WidthM: 0.5}}
	return w
}
