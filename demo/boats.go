package demo

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math"
	"strings"

	"allcoats/app"
	"allcoats/core/boat/area"
	"allcoats/core/boat/outline"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/film/step"
	"allcoats/core/geometry/polygon"
)

// made describes a surface of the demo, measured as given; the first
// measurement counts unless Chosen says another.
func made(name string, p area.Part, s area.Side, substrate survey.Substrate, note string,
	measures ...area.Measure) app.SurfaceEdit {
	d := survey.Usual(p, substrate)
	d.SubstrateNote = note
	if len(measures) == 0 {
		measures = []area.Measure{{Method: area.ByPrincipal}}
	}
	return app.SurfaceEdit{Name: name, Part: p, Side: s, Description: d, Measured: area.Measured{Measures: measures}}
}

func strip(length, width float64, count int) area.Measure {
	return area.Measure{Method: area.ByShape,
		Shapes: []area.Shape{{Kind: "strip", AM: length, BM: width, Count: count}}}
}

func principal() area.Measure { return area.Measure{Method: area.ByPrincipal} }

// girths are taped at even stations over length; the way along the hull is
// each time a little longer than along the centreline.
func girths(length float64, sides int, longer float64, g ...float64) area.Measure {
	m := area.Girths{Sides: sides}
	for i, girth := range g {
		at := math.Round(100*length*float64(i)/float64(len(g)-1)) / 100
		path := math.Round(100*at*(1+longer)) / 100
		m.Stations = append(m.Stations, area.Station{AtM: at, PathM: &path, GirthM: girth})
	}
	return area.Measure{Method: area.ByGirth, Girths: &m}
}

func traced(margin float64, outer polygon.Ring, holes ...polygon.Ring) area.Measure {
	return area.Measure{Method: area.ByOutline,
		Outline: &area.Outline{Polygon: polygon.Polygon{Outer: outer, Holes: holes}, MarginM: margin, Count: 1}}
}

func box(x, y, w, h float64) polygon.Ring {
	return polygon.Ring{{X: x, Y: y}, {X: x + w, Y: y}, {X: x + w, Y: y + h}, {X: x, Y: y + h}}
}

// over puts old layers on a surface.
func over(s app.SurfaceEdit, stop int, layers ...survey.Layer) app.SurfaceEdit {
	s.Findings = survey.Findings{Layers: layers, Stop: stop, Moisture: []survey.Moisture{}}
	return s
}

func old(kind survey.LayerKind, colour string, um float64) survey.Layer {
	return survey.Layer{Kind: kind, Colour: colour, Um: um, Soundness: survey.Sound}
}

func flaw(kind, view string, x, y, length, width, depth float64, state, note string) survey.Defect {
	return survey.Defect{Kind: kind, Place: survey.Place{View: view, X: x, Y: y}, LengthMM: length, WidthMM: width,
		DepthMM: depth, Count: 1, State: state, Note: note}
}

var launchSides = []survey.Layer{old(survey.OldGelcoat, "white", 500), old(survey.OldTwoPart, "blue", 80)}

var boats = []boat{
	{
		BoatEdit: app.BoatEdit{Name: "Marsh Lantern", Type: "GRP pilot launch", HeadingDeg: 240,
			LaunchDate: "2026-05-30", DisplacementT: 12,
			Dimensions: area.Dimensions{HullForm: area.FullMotor, LOAM: 9.8, LWLM: 8.9, BeamM: 3.2, DraughtM: 1.05,
				BodyDraughtM: 0.9, FreeboardM: 1.1, HousesM2: 7.5}},
		surfaces: []surface{
			{over(made("Bottom", area.Bottom, area.Both, survey.GRP, "GRP", girths(8.9, 2, 0.025, 1.62, 1.82, 1.96,
				1.98, 1.82, 1.46, 0.8), principal()), 1,
				old(survey.OldGelcoat, "white", 450)),
				[]coats{{kind: product.Barrier, coats: 5, dftUm: 125, method: "roller"},
					{kind: product.SoftAntifoul, coats: 3, dftUm: 60, method: "roller"}},
				[]done{{5, 11, 0, 7.0, nil, "coat 1, grey"}, {4, 11.5, 0, 6.9, nil, "coat 2, green"},
					{2, 11, 0, 7.0, nil, "coat 3, grey"}},
				[]survey.Defect{
					flaw("blister", outline.StarboardSide, 3.1, -0.55, 18, 18, 4, "filled",
						"seven in a patch, dry since April"),
					flaw("screw-hole", outline.StarboardSide, 1.2, -0.7, 12, 12, 20, "filled", "old transducer"),
				}},
			{over(made("Topsides port", area.Topsides, area.Port, survey.Gelcoat, "GRP, old gelcoat",
				girths(10.4, 1, 0.015, 1.02, 1.1, 1.22, 1.36, 1.6), principal()), 1, launchSides...),
				[]coats{{kind: product.HighBuild, coats: 2, dftUm: 100, method: "roller"},
					{kind: product.TopcoatTwo, coats: 3, dftUm: 50, method: "roll-and-tip"}},
				[]done{{3, 12, 0, 3.1, []float64{180, 190, 200, 185}, ""}, {1, 13, 0, 3.0, []float64{185, 190, 180},
					"pinholes forward, spot-filled"}},
				[]survey.Defect{
					flaw("crack", outline.PortSide, 6.4, 0.62, 220, 4, 3, "found",
						"star crack below the rail, from a fender hook"),
					flaw("low", outline.PortSide, 4.0, 0.5, 600, 250, 1.5, "found", "shows in the evening light"),
				}},
			{over(made("Topsides starboard", area.Topsides, area.Starboard, survey.Gelcoat, "GRP, old gelcoat",
				strip(10.4, 1.05, 1), principal()), 1, launchSides...),
				[]coats{{kind: product.HighBuild, coats: 2, dftUm: 100, method: "roller"},
					{kind: product.TopcoatTwo, coats: 3, dftUm: 50, method: "roll-and-tip"}},
				[]done{{3, 13, 0, 2.5, nil, ""}},
				[]survey.Defect{flaw("chip", outline.StarboardSide, 8.6, 0.9, 40, 25, 2, "found",
					"at the stem, from the trailer")}},
			{made("Deck", area.Deck, area.Both, survey.GRP, "GRP sandwich",
				traced(0.04, polygon.Ring{{X: 0, Y: -1.4}, {X: 3, Y: -1.58}, {X: 6, Y: -1.45}, {X: 8.4, Y: -0.8},
					{X: 9.6, Y: 0}, {X: 8.4, Y: 0.8}, {X: 6, Y: 1.45}, {X: 3, Y: 1.58}, {X: 0, Y: 1.4}},
					box(2.6, -0.95, 3.4, 1.9), box(0.4, -0.6, 1.2, 1.2)), principal()),
				[]coats{{kind: product.Undercoat, coats: 1, dftUm: 40, method: "roller"},
					{kind: product.NonSkidPaint, coats: 2, dftUm: 90, method: "roller"}}, nil,
				[]survey.Defect{flaw("soft-spot", outline.Plan, 7.2, 0.3, 300, 200, 12, "opened",
					"sounds dull round the cleat; core wet")}},
			{made("Rudder", area.Rudder, area.Both, survey.GRP, "GRP", strip(1.1, 0.55, 2)),
				[]coats{{kind: product.Fairing, coats: 2, dftUm: 1500, method: "blade"},
					{kind: product.Barrier, coats: 4, dftUm: 125, method: "brush"}},
				[]done{{3, 12, 0, 2.2, nil, "round 1, proud"}}, nil},
		},
	},
	{
		BoatEdit: app.BoatEdit{Name: "Reed Warbler", Type: "strip-planked canoe yawl", HeadingDeg: 150,
			LaunchDate: "2026-06-06", DisplacementT: 1.6,
			Dimensions: area.Dimensions{HullForm: area.Medium, LOAM: 7.2, LWLM: 6.4, BeamM: 2.1, DraughtM: 0.85,
				FreeboardM: 0.62, HousesM2: 3.4}},
		surfaces: []surface{
			{made("Bottom", area.Bottom, area.Both, survey.StripPlank, "strip plank, epoxy sheathed",
				girths(6.4, 2, 0.03, 0.35, 0.92, 1.16, 1.22, 1.08, 0.72, 0.25), principal()),
				[]coats{{kind: product.TieCoat, coats: 1, dftUm: 50, method: "roller"},
					{kind: product.HardAntifoul, coats: 2, dftUm: 50, method: "roller"}},
				[]done{{6, 14, 0, 1.2, nil, ""}}, nil},
			{over(made("Topsides port", area.Topsides, area.Port, survey.StripPlank, "strip plank, bright"), 1,
				old(survey.OldStain, "brown", 10)),
				[]coats{{kind: product.WoodSealer, coats: 2, dftUm: 40, method: "roller"},
					{kind: product.Varnish, coats: 6, dftUm: 30, method: "brush"}},
				[]done{{17, 11, 0, 0.5, nil, ""}, {15, 14, 0, 0.5, nil, ""}, {13, 13, 1, 0.4, nil, ""},
					{8, 13, 1, 0.4, nil, ""}, {2, 11.5, 1, 0.42, nil, ""}}, nil},
			{over(made("Topsides starboard", area.Topsides, area.Starboard, survey.StripPlank, "strip plank, bright"),
				1, old(survey.OldStain, "brown", 10)),
				[]coats{{kind: product.WoodSealer, coats: 2, dftUm: 40, method: "roller"},
					{kind: product.Varnish, coats: 6, dftUm: 30, method: "brush"}},
				[]done{{9, 13.5, 0, 0.5, nil, ""}, {8, 16, 0, 0.5, nil, ""},
					{6, 13, 1, 0.4, nil, "hair in the last metre"}, {1, 17, -1, 0, nil, "scuffed for the next coat"}},
				nil},
			{made("Coamings", area.Coamings, area.Both, survey.SolidWood, "mahogany", strip(9.5, 0.22, 2)),
				[]coats{{kind: product.Varnish, coats: 7, dftUm: 30, method: "brush"}},
				[]done{{13, 11, 0, 0.35, nil, ""}, {8, 15, 0, 0.35, nil, ""}, {3, 9.5, 0, 0.36, nil, ""}}, nil},
			{made("Mizzen mast", area.Spars, area.Both, survey.SolidWood, "spruce", strip(4.8, 0.28, 1)),
				[]coats{{kind: product.Varnish, coats: 6, dftUm: 30, method: "brush"}}, nil, nil},
			{made("Deck", area.Deck, area.Both, survey.Plywood, "ply, sheathed"),
				[]coats{{kind: product.NonSkidGrit, coats: 1, dftUm: 250, method: "roller"},
					{kind: product.TopcoatTwo, coats: 2, dftUm: 50, method: "roller"}}, nil, nil},
		},
	},
	{
		BoatEdit: app.BoatEdit{Name: "Sounding Line", Type: "aluminium survey tender", HeadingDeg: 20,
			LaunchDate: "2026-05-23", Lights: true, DisplacementT: 2.9,
			Dimensions: area.Dimensions{HullForm: area.Medium, LOAM: 6.4, LWLM: 5.7, BeamM: 2.3, DraughtM: 0.45,
				FreeboardM: 0.8, HousesM2: 2.2}},
		offsets: tender(),
		surfaces: []surface{
			{made("Bottom", area.Bottom, area.Both, survey.Aluminium, "aluminium", principal()),
				[]coats{{kind: product.MetalPrimer, coats: 2, dftUm: 75, method: "roller"},
					{kind: product.Barrier, coats: 2, dftUm: 125, method: "roller"},
					{kind: product.HardAntifoul, coats: 2, dftUm: 50, method: "roller"}},
				[]done{{9, 10, 0, 2.6, nil, "abraded the same morning"}, {5, 12, 0, 2.5, nil, ""},
					{1, 15, 1, 3.5, nil, ""}},
				[]survey.Defect{flaw("pit", outline.PortSide, 2.2, -0.2, 8, 8, 1.5, "found",
					"eleven along the chine weld")}},
			{made("Topsides port", area.Topsides, area.Port, survey.Aluminium, "aluminium"),
				[]coats{{kind: product.MetalPrimer, coats: 2, dftUm: 75, method: "roller"},
					{kind: product.TopcoatTwo, coats: 2, dftUm: 50, method: "spray"}},
				[]done{{15, 12, 0, 1.0, nil, ""}}, nil},
			{made("Topsides starboard", area.Topsides, area.Starboard, survey.Aluminium, "aluminium"),
				[]coats{{work: step.Degrease}, {work: step.Sand, grit: 80}, {kind: product.MetalPrimer, coats: 2,
					dftUm: 75, method: "roller"}, {kind: product.TopcoatTwo, coats: 2, dftUm: 50, method: "spray"}},
				nil, nil},
			{made("Deck", area.Deck, area.Both, survey.Aluminium, "aluminium"), nil, nil, nil},
		},
	},
}

// tender draws the table of offsets of a hard-chine tender, heights from the
// keel: a V bottom to the chine, flared sides to the sheer.
func tender() string {
	var b strings.Builder
	b.WriteString("x,0.1,0.2,0.3,0.45,0.6,0.8,1.0,1.25,keel\n")
	for i := range 9 {
		x := 0.8 * float64(i)
		u := x / 6.4
		full := 1.15 * (1 - math.Pow(max(0, u-0.35)/0.65, 2.6)*0.97)
		keel := 0.55 * math.Pow(max(0, u-0.55)/0.45, 2)
		chine := 0.3 + 0.35*u*u
		fmt.Fprintf(&b, "%.1f", x)
		for _, z := range []float64{0.1, 0.2, 0.3, 0.45, 0.6, 0.8, 1.0, 1.25} {
			switch {
			case z < keel:
				b.WriteString(",")
			case z < chine:
				fmt.Fprintf(&b, ",%.3f", 0.86*full*(z-keel)/(chine-keel))
			default:
				fmt.Fprintf(&b, ",%.3f", full*(0.86+0.14*(z-chine)/(1.25-chine)))
			}
		}
		fmt.Fprintf(&b, ",%.3f\n", keel)
	}
	return b.String()
}

// photo draws a picture of a crack in a blue side.
func photo() []byte {
	img := image.NewRGBA(image.Rect(0, 0, 480, 320))
	for y := range 320 {
		for x := range 480 {
			grain := uint8((x*7919 + y*104729) % 13)
			c := color.RGBA{70 + grain, 105 + grain, 135 + grain, 255}
			fx, fy := float64(x-240), float64(y-150)
			d := math.Abs(fy - 18*math.Sin(fx/37) - fx/6)
			star := math.Abs(fx + 12*math.Sin(fy/23))
			if math.Abs(fx) < 170 && d < 2.2 || math.Abs(fy) < 90 && star < 1.6 {
				c = color.RGBA{235, 228, 214, 255}
			}
			img.SetRGBA(x, y, c)
		}
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		panic(err) // a picture in memory always encodes
	}
	return b.Bytes()
}
