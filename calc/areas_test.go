package calc

import (
	"fmt"
	"os"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// points turns [[x, y], …] into corners.
func points(v any) []map[string]any {
	out := []map[string]any{}
	for _, p := range v.([]any) {
		xy := p.([]any)
		out = append(out, map[string]any{"x": xy[0], "y": xy[1]})
	}
	return out
}

func TestAreasAgainstReferences(t *testing.T) {
	shape := func(t *testing.T, kind string, a, b, c float64) float64 {
		s := map[string]any{"kind": kind, "aM": a, "bM": b, "cM": c, "count": 1}
		return run(t, "area-shapes", map[string]any{"shapes": []any{s}})["areaM2"].(float64)
	}
	kinds := map[string]func(t *testing.T, r reference){
		"cylinder": func(t *testing.T, r reference) {
			side := shape(t, "cylinder", 2*r.num("radius_m"), r.num("height_m"), 0)
			r.check(t, "lateral_area_m2", side)
			r.check(t, "with_both_ends_m2", side+2*shape(t, "circle", 2*r.num("radius_m"), 0, 0))
		},
		"cone_frustum": func(t *testing.T, r reference) {
			r.check(t, "lateral_area_m2", shape(t, "cone-frustum", 2*r.num("radius_1_m"), 2*r.num("radius_2_m"),
				r.num("height_m")))
		},
		"sphere_cap": func(t *testing.T, r reference) {
			r.check(t, "curved_area_m2", shape(t, "sphere-cap", 2*r.num("radius_m"), r.num("cap_height_m"), 0))
		},
		"ellipsoid_half": func(t *testing.T, r reference) {
			l, b := 2*r.num("semi_axis_x_m"), 2*r.num("semi_axis_y_m")
			r.check(t, "curved_area_m2", shape(t, "half-ellipsoid", l, b, r.num("semi_axis_z_m")))
			r.check(t, "lid_area_m2", shape(t, "ellipse", l, b, 0))
		},
		"ellipsoid_below": func(t *testing.T, r reference) {
			got := run(t, "area-hull", map[string]any{"form": "ellipsoid", "lengthM": 2 * r.num("semi_axis_x_m"),
				"beamM":    2 * r.num("semi_axis_y_m"),
				"draughtM": r.num("semi_axis_z_m"), "cutM": r.num("cut_above_centre_m")})
			r.check(t, "curved_area_m2", got["wettedM2"].(float64))
		},
		"wigley": func(t *testing.T, r reference) {
			got := run(t, "area-hull", map[string]any{"form": "parabolic", "lengthM": r.num("length_m"),
				"beamM": r.num("beam_m"), "draughtM": r.num("draught_m")})
			wet, lateral := got["wettedM2"].(float64), got["lateralM2"].(float64)
			r.check(t, "wetted_area_m2", wet)
			r.check(t, "lateral_projection_m2", lateral)
			r.check(t, "waterplane_area_m2", got["waterplaneM2"].(float64))
			r.check(t, "volume_m3", got["volumeM3"].(float64))
			r.check(t, "wetted_over_twice_lateral", wet/(2*lateral))
		},
		"polygon":       polygonCase,
		"polygon_inset": polygonCase,
		"girth": func(t *testing.T, r reference) {
			x, g := r.Input["station_x_m"].([]any), r.Input["half_girth_m"].([]any)
			stations := make([]any, len(x))
			for i := range x {
				stations[i] = map[string]any{"atM": x[i].(float64) - x[0].(float64), "girthM": g[i]}
			}
			got := run(t, "area-girth", map[string]any{"stations": stations, "sides": 2})
			r.check(t, "trapezoid_m2", got["trapezoidM2"].(float64))
			r.check(t, "simpson_m2", got["simpsonM2"].(float64))
		},
		"mesh":       meshCase,
		"mesh_group": meshCase,
	}
	done := map[string]int{}
	for _, r := range references(t, "areas.json") {
		kind := r.Input["kind"].(string)
		t.Run(r.Name, func(t *testing.T) {
			require.Contains(t, kinds, kind)
			kinds[kind](t, r)
		})
		done[kind]++
	}
	assert.Len(t, done, len(kinds))
}

func polygonCase(t *testing.T, r reference) {
	holes := []any{}
	for _, h := range r.Input["holes_m"].([]any) {
		holes = append(holes, points(h))
	}
	req := map[string]any{"outer": points(r.Input["exterior_m"]), "holes": holes, "marginM": r.num("margin_m"),
		"radiusM": 0, "count": 1}
	if j, ok := r.Input["join"]; ok {
		req["join"] = j
	}
	got := run(t, "area-outline", req)
	for key, name := range map[string]string{"area_m2": "areaM2", "total_edge_length_m": "edgeLengthM",
		"exterior_length_m": "outerLengthM",
		"centroid_x_m":      "centroidXM", "centroid_y_m": "centroidYM", "holes": "holes"} {
		if _, ok := r.Expect[key]; ok {
			r.check(t, key, got[name].(float64))
		}
	}
	if _, ok := r.Expect["parts"]; ok {
		r.check(t, "parts", float64(len(got["parts"].([]any))))
	}
}

func meshCase(t *testing.T, r reference) {
	file := r.Input["file"].(string)
	data, err := os.ReadFile("testdata/" + file)
	require.NoError(t, err)
	req := map[string]any{"format": file[strings.LastIndex(file, ".")+1:], "data": data, "unit": r.Input["file_unit"],
		"up": "+z", "forward": "+x", "waterlineM": 0, "cutsM": r.Input["cut_z_m"]}
	if g, ok := r.Input["group"]; ok {
		req["group"] = g
	}
	got := run(t, "area-mesh", req)
	report := got["report"].(map[string]any)
	r.check(t, "total_area_m2", got["totalM2"].(float64))
	for i, z := range r.Input["cut_z_m"].([]any) {
		r.check(t, "area_below_z_"+strconv.FormatFloat(z.(float64), 'g', -1, 64)+"_m_m2",
			got["belowCutsM2"].([]any)[i].(float64))
	}
	for key, name := range map[string]string{"facets": "facets", "distinct_vertices": "vertices", "size_x_m": "sizeXM",
		"size_y_m": "sizeYM", "size_z_m": "sizeZM",
		"boundary_edges": "boundaryEdges", "nonmanifold_edges": "nonManifoldEdges",
		"edges_with_clashing_direction": "clashingEdges"} {
		if _, ok := r.Expect[key]; ok {
			r.check(t, key, report[name].(float64))
		}
	}
	if _, ok := r.Expect["volume_m3"]; ok {
		r.check(t, "volume_m3", got["volumeM3"].(float64))
	}
	sum := 0.0
	for _, h := range got["zones"].(map[string]any) {
		sum += h.(map[string]any)["portM2"].(float64) + h.(map[string]any)["starboardM2"].(float64)
	}
	assert.InDelta(t, got["totalM2"].(float64), sum, 1e-9, "the zones add up to the whole")
}

// A hull's table of offsets, lofted, comes within the 3 % that it claims.
func TestLoftedOffsetsOfAParabolicHull(t *testing.T) {
	const l, b, depth = 10.0, 3.0, 1.2
	var csv strings.Builder
	csv.WriteString("x,0,0.3,0.6,0.9,1.2,keel\n")
	for i := range 11 {
		x := -l/2 + float64(i)*l/10
		fmt.Fprintf(&csv, "%g", x+l/2)
		for _, z := range []float64{0, 0.3, 0.6, 0.9, 1.2} {
			u := (depth - z) / depth
			fmt.Fprintf(&csv, ",%.4f", b/2*(1-4*x*x/(l*l))*(1-u*u))
		}
		csv.WriteString(",0\n")
	}
	got := run(t, "area-mesh", map[string]any{"format": "offsets", "data": []byte(csv.String()), "unit": "m",
		"up": "+z", "forward": "+x", "waterlineM": 1.2})
	want := run(t, "area-hull", map[string]any{"form": "parabolic", "lengthM": l, "beamM": b,
		"draughtM": depth})["wettedM2"].(float64)
	bottom := got["zones"].(map[string]any)["bottom"].(map[string]any)
	assert.InDelta(t, want, bottom["portM2"].(float64)+bottom["starboardM2"].(float64), 0.03*want)
	assert.InDelta(t, want/2, bottom["portM2"].(float64), 0.015*want)
}
