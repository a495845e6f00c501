package calc

import (
	"encoding/json"
	"math"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A reference is a case of testdata, made by independent libraries. Its keys
// carry their own names; the tests below translate.
type reference struct {
	Name   string
	Input  map[string]any
	Expect map[string]any
	Tol    map[string]struct{ Abs, Rel float64 }
}

func references(t *testing.T, file string) []reference {
	t.Helper()
	raw, err := os.ReadFile("testdata/" + file)
	require.NoError(t, err)
	var doc struct{ Cases []reference }
	require.NoError(t, json.Unmarshal(raw, &doc))
	require.NotEmpty(t, doc.Cases)
	return doc.Cases
}

// num returns a number of the input, 0 if it is not there.
func (r reference) num(key string) float64 {
	v, _ := r.Input[key].(float64)
	return v
}

// check compares one expected key.
func (r reference) check(t *testing.T, key string, got float64) {
	t.Helper()
	want, ok := r.Expect[key].(float64)
	require.True(t, ok, "%s is not expected", key)
	tol := r.Tol[key]
	assert.LessOrEqual(t, math.Abs(got-want), math.Max(tol.Abs, tol.Rel*math.Abs(want))+1e-12, "%s: got %v, want %v",
		key, got, want)
}

// run sends a request through the calculator of that name as JSON, as every
// other way in does, and returns the JSON answer.
func run(t *testing.T, name string, request map[string]any) map[string]any {
	t.Helper()
	raw, err := json.Marshal(request)
	require.NoError(t, err)
	c, ok := ByName(name)
	require.True(t, ok)
	res, err := c.Run(t.Context(), raw)
	require.NoError(t, err)
	raw, err = json.Marshal(res)
	require.NoError(t, err)
	var out map[string]any
	require.NoError(t, json.Unmarshal(raw, &out))
	return out
}

func TestMoistAirAgainstPsychrolib(t *testing.T) {
	names := map[string]string{
		"dew_point_C": "dewPointC", "sat_vapour_pressure_hPa": "saturationPressureHPa",
		"vapour_pressure_hPa":    "vapourPressureHPa",
		"absolute_humidity_g_m3": "absoluteHumidityGM3", "mixing_ratio_g_kg": "mixingRatioGKg",
		"relative_humidity_2_unclamped_pct": "heatedRHPct", "surface_relative_humidity_unclamped_pct": "surfaceRHPct",
		"surface_minus_dew_point_K": "dewPointSpreadK",
	}
	for _, r := range references(t, "psychro.json") {
		t.Run(r.Name, func(t *testing.T) {
			req := map[string]any{}
			for from, to := range map[string]string{
				"air_temperature_C": "tempC", "relative_humidity_pct": "rhPct", "pressure_hPa": "pressureHPa",
				"air_temperature_1_C":     "tempC",
				"relative_humidity_1_pct": "rhPct", "air_temperature_2_C": "heatedToC",
				"surface_temperature_C": "surfaceTempC",
			} {
				if v, ok := r.Input[from]; ok {
					req[to] = v
				}
			}
			got := run(t, "moist-air", req)
			checked := 0
			for key, want := range r.Expect {
				switch key {
				case "frost_point_C": // over ice; the program means liquid water
				case "condenses":
					assert.Equal(t, want, got["heatedRHPct"].(float64) >= 100)
				case "wet":
					assert.Equal(t, want, got["condenses"])
				case "at_least_3K_above_dew_point":
					assert.Equal(t, want, got["dewPointSpreadK"].(float64) >= 3)
				default:
					require.Contains(t, names, key)
					r.check(t, key, got[names[key]].(float64))
					checked++
				}
			}
			assert.NotZero(t, checked)
		})
	}
}

func TestFilmAgainstExactFractions(t *testing.T) {
	done := map[string]int{}
	for _, r := range references(t, "film.json") {
		kind := r.Input["kind"].(string)
		t.Run(r.Name, func(t *testing.T) {
			film := func() map[string]any {
				return run(t, "film", map[string]any{
					"volumeSolidsPct": r.num("volume_solids_pct"), "dftUm": r.num("dft_um") + r.num("dft_per_coat_um"),
					"wftUm":      r.num("wft_um"),
					"thinnerPct": r.num("thinner_pct_of_paint_volume"), "areaM2": r.num("area_m2"),
					"coats": r.num("coats"), "lossPct": r.num("loss_pct"),
				})
			}
			var keys map[string]string
			switch kind {
			case "spreading_rate":
				got := film()["spreadingRateM2L"].(float64)
				r.check(t, "theoretical_m2_per_L", got)
				r.check(t, "theoretical_ft2_per_US_gal",
					run(t, "convert", map[string]any{"value": got, "from": "m²/L",
						"to": "ft²/US gal"})["value"].(float64))
			case "convert", "convert_difference":
				to := r.Input["to"]
				if kind == "convert_difference" {
					got := run(t, "convert", map[string]any{"value": r.num("value"), "from": "degF difference",
						"to": to})
					r.check(t, "value", got["value"].(float64))
					break
				}
				got := run(t, "convert", map[string]any{"value": r.num("value"), "from": r.Input["from"], "to": to})
				r.check(t, "value", got["value"].(float64))
			case "wet_film":
				keys = map[string]string{"wft_um": "wftUm", "volume_solids_after_thinning_pct": "solidsThinnedPct"}
			case "dry_film":
				keys = map[string]string{"dft_um": "dftUm"}
			case "quantity":
				keys = map[string]string{"theoretical_L_all_coats": "theoreticalL",
					"practical_L_all_coats": "practicalL", "thinner_L": "thinnerL",
					"practical_m2_per_L": "practicalRateM2L", "dry_film_volume_on_surface_L": "dryVolumeOnSurfaceL"}
			case "mix_by_volume_total", "mix_by_volume_from_base", "mix_volume_ratio_weighed",
				"mix_weight_ratio_by_volume", "peroxide_by_weight", "peroxide_by_weight_from_litres":
				mixCase(t, r, kind)
			case "dft_acceptance":
				acceptanceCase(t, r)
			default:
				t.Fatalf("no calculator answers %s", kind)
			}
			for want, got := range keys {
				r.check(t, want, film()[got].(float64))
			}
			done[kind]++
		})
	}
	assert.Len(t, done, 13, "every kind of the reference")
}

func mixCase(t *testing.T, r reference, kind string) {
	req, name := map[string]any{}, "mix"
	for from, to := range map[string]string{"base_density_kg_L": "baseKgL", "hardener_density_kg_L": "hardenerKgL",
		"total_mixed_L": "totalL", "total_mixed_kg": "totalKg",
		"base_L": "baseL", "resin_kg": "resinKg", "resin_L": "resinL", "resin_density_kg_L": "resinKgL",
		"catalyst_pct_by_weight_of_resin": "pct", "catalyst_density_g_mL": "catalystKgL"} {
		if v, ok := r.Input[from]; ok {
			req[to] = v
		}
	}
	ratio := func(suffix string) map[string]any {
		return map[string]any{"base": r.Input["base_parts"+suffix], "hardener": r.Input["hardener_parts"+suffix]}
	}
	switch kind {
	case "mix_weight_ratio_by_volume":
		req["ratioByWeight"] = ratio("_by_weight")
	case "mix_volume_ratio_weighed":
		req["ratioByVolume"] = ratio("_by_volume")
	case "peroxide_by_weight", "peroxide_by_weight_from_litres":
		name = "peroxide"
	default:
		req["ratioByVolume"] = ratio("")
	}
	got := run(t, name, req)
	names := map[string]string{"base_L": "baseL", "hardener_L": "hardenerL", "total_mixed_L": "totalL",
		"base_kg": "baseKg", "hardener_kg": "hardenerKg",
		"hardener_g_per_100_g_base": "hardenerGPer100GBase", "volume_ratio_base_to_hardener": "baseToHardenerByVolume",
		"mixed_density_kg_L_ideal": "mixedKgL",
		"catalyst_g":               "catalystG", "catalyst_mL": "catalystML"}
	for key := range r.Expect {
		require.Contains(t, names, key)
		r.check(t, key, got[names[key]].(float64))
	}
}

func acceptanceCase(t *testing.T, r reference) {
	got := run(t, "film-acceptance", map[string]any{"nominalUm": r.Input["nominal_um"],
		"maximumUm": r.num("maximum_um"), "readingsUm": r.Input["readings_um"]})
	r.check(t, "mean_um", got["meanUm"].(float64))
	for key, name := range map[string]string{"readings_below_80_pct": "below80Pct",
		"readings_from_80_below_100_pct": "from80Below100Pct", "readings_above_maximum": "aboveMaximum",
		"accepted": "accepted"} {
		assert.Equal(t, r.Expect[key], got[name], key)
	}
	var reasons []string
	for _, v := range got["reasons"].([]any) {
		reasons = append(reasons, strings.ReplaceAll(v.(string), "-", "_"))
	}
	var want []string
	for _, v := range r.Expect["reasons"].([]any) {
		want = append(want, v.(string))
	}
	assert.ElementsMatch(t, want, reasons)
}

// Least cost and least left over of every purchase, exactly.
func TestPurchaseAgainstIntegerPrograms(t *testing.T) {
	for _, r := range references(t, "pack.json") {
		t.Run(r.Name, func(t *testing.T) {
			items := []any{}
			for _, v := range r.Input["items"].([]any) {
				it := v.(map[string]any)
				item := map[string]any{"name": it["name"], "baseML": it["base_mL"], "hardenerML": it["activator_mL"],
					"priceCents": it["price_cents"]}
				if n, ok := it["available"]; ok {
					item["available"] = n
				}
				items = append(items, item)
			}
			got := run(t, "purchase", map[string]any{"needBaseML": r.Input["need_base_mL"],
				"needHardenerML": r.Input["need_activator_mL"],
				"stockBaseML":    r.Input["stock_base_mL"], "stockHardenerML": r.Input["stock_activator_mL"],
				"items": items})
			assert.Equal(t, r.Expect["possible"], got["possible"])
			if r.Expect["possible"] == true {
				assert.Equal(t, r.Expect["min_cost_cents"], got["costCents"])
				assert.Equal(t, r.Expect["min_leftover_mL_at_min_cost"], got["leftoverML"])
			}
		})
	}
}

func rows(v any) []map[string]any {
	list, _ := v.([]any)
	out := make([]map[string]any, len(list))
	for i, row := range list {
		out[i] = map[string]any{"tempC": row.([]any)[0], "hours": row.([]any)[1]}
	}
	return out
}

// The program holds minimum clocks above their table and extrapolates maximum
// ones, so of the cases outside the table each rule takes its own half. The file lets
// maximum clocks stand below the least cure temperature; the program's never do, so
// there its window closes no later than the file's.
func TestRecoatAgainstQuadrature(t *testing.T) {
	sooner := 0
	for _, r := range references(t, "cure.json") {
		t.Run(r.Name, func(t *testing.T) {
			got := run(t, "recoat", map[string]any{
				"min": rows(r.Input["tau_min_recoat_h_at_C"]), "max": rows(r.Input["tau_max_recoat_h_at_C"]),
				"minCureC": r.Input["no_progress_below_C"], "appliedAtH": r.Input["applied_at_h"],
				"surfaceTempsC": r.Input["surface_temperature_C_hourly"],
			})
			outside := r.Input["outside_table"]
			cold := false
			for _, v := range r.Input["surface_temperature_C_hourly"].([]any) {
				cold = cold || v.(float64) < r.num("no_progress_below_C")
			}
			for _, side := range []struct{ key, end, got, progress, skip string }{
				{"min_recoat_h_after_application", "min_progress_at_end", "opensAfterH", "minProgress", "extrapolate"},
				{"max_recoat_h_after_application", "max_progress_at_end", "closesAfterH", "maxProgress", "hold"},
			} {
				if outside == side.skip {
					continue
				}
				want, ends := r.Expect[side.key].(float64)
				switch maximum := side.skip == "hold"; {
				case maximum && cold && ends:
					assert.LessOrEqual(t, got[side.got].(float64), want+1e-3, side.key)
					sooner++
				case maximum && cold:
				case !ends:
					assert.Nil(t, got[side.got], side.key)
				default:
					r.check(t, side.key, got[side.got].(float64))
				}
				if _, ok := r.Expect[side.end]; ok && !(cold && side.skip == "hold") {
					r.check(t, side.end, got[side.progress].(float64))
				}
			}
		})
	}
	assert.Positive(t, sooner)
}

func TestHumidityAgainstQuadrature(t *testing.T) {
	for _, r := range references(t, "evaporation.json") {
		t.Run(r.Name, func(t *testing.T) {
			got := run(t, "recoat", map[string]any{
				"min": rows(r.Input["tau_min_recoat_h_at_C"]), "max": rows(r.Input["tau_max_recoat_h_at_C"]),
				"drying":   r.Input["drying"],
				"minCureC": r.Input["no_progress_below_C"], "appliedAtH": r.Input["applied_at_h"],
				"surfaceTempsC": r.Input["surface_temperature_C_hourly"],
				"surfaceRHPct":  r.Input["surface_humidity_pct_hourly"],
			})
			for key, name := range map[string]string{"min_recoat_h_after_application": "opensAfterH",
				"max_recoat_h_after_application": "closesAfterH",
				"min_progress_at_end":            "minProgress", "max_progress_at_end": "maxProgress"} {
				if want, ok := r.Expect[key]; ok && want == nil {
					assert.Nil(t, got[name], key)
				} else if ok {
					r.check(t, key, got[name].(float64))
				}
			}
		})
	}
}

// Dew, rain and washing on plates, with the water in their heat balance.
func TestDryingAgainstSciPy(t *testing.T) {
	for _, r := range references(t, "drying.json") {
		t.Run(r.Name, func(t *testing.T) {
			req := map[string]any{}
			r.put(t, req, face)
			r.put(t, req, water)
			got := run(t, "surface-temp", req)
			thickest := 0.0
			for key, name := range map[string]string{"surface_temperature_C_hourly": "surfaceTempsC",
				"film_mm_hourly": "waterMM"} {
				tol := r.Tol[key]
				for i, v := range r.Expect[key].([]any) {
					have := got[name].([]any)[i].(float64)
					assert.InDelta(t, v, have, math.Max(tol.Abs, tol.Rel*math.Abs(v.(float64))), "%s at hour %d", key,
						i)
					if name == "waterMM" {
						thickest = math.Max(thickest, have)
					}
				}
			}
			r.check(t, "thickest_film_mm_at_an_hour", thickest)
			r.check(t, "hours_wet", got["hoursWet"].(float64))
			for key, name := range map[string]string{"first_dries_at_h": "firstDriesAtH",
				"dry_for_good_from_h": "dryForGoodFromH"} {
				if r.Expect[key] == nil {
					assert.Nil(t, got[name], key)
				} else if assert.NotNil(t, got[name], key) {
					r.check(t, key, got[name].(float64))
				}
			}
		})
	}
}
