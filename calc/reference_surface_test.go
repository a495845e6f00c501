package calc

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// face are the names of what drives a plate, in the files and in the calculator.
var face = map[string]string{
	"heat_capacity_J_m2K": "heatJM2K", "solar_absorptance": "absorptance", "emissivity": "emissivity",
	"sky_view_factor":          "skyView",
	"inside_conductance_W_m2K": "insideWM2K", "inside_temperature_C": "insideTempC",
	"initial_surface_temperature_C": "startC",
	"air_temperature_C_hourly":      "airTempsC", "plane_irradiance_W_m2_hourly": "lightWM2",
	"sky_temperature_C_hourly": "skyTempsC",
	"wind_m_s_hourly":          "windMS",
}

// water are those of the water on it.
var water = map[string]string{"dew_point_C_hourly": "dewPointsC", "rain_mm_h_hourly": "rainMMH",
	"film_cap_mm": "holdsMM", "initial_film_mm": "startMM"}

// put translates inputs, all of which must be there.
func (r reference) put(t *testing.T, req map[string]any, names map[string]string) {
	t.Helper()
	for from, to := range names {
		require.Contains(t, r.Input, from)
		req[to] = r.Input[from]
	}
}

func TestSurfaceTemperatureAgainstSciPy(t *testing.T) {
	for _, r := range references(t, "surface_temp.json") {
		t.Run(r.Name, func(t *testing.T) {
			req := map[string]any{}
			r.put(t, req, face)
			got := run(t, "surface-temp", req)
			want := r.Expect["surface_temperature_C_hourly"].([]any)
			temps := got["surfaceTempsC"].([]any)
			require.Len(t, temps, len(want))
			for i := range want {
				assert.InDelta(t, want[i], temps[i], r.Tol["surface_temperature_C_hourly"].Abs, "hour %d", i)
			}
		})
	}
}

func TestSunAgainstSPA(t *testing.T) {
	done := map[string]int{}
	for _, r := range references(t, "solar.json") {
		t.Run(r.Name, func(t *testing.T) {
			kind := r.Input["kind"].(string)
			done[kind]++
			req := map[string]any{"latitudeDeg": r.num("latitude_deg"), "longitudeDeg": r.num("longitude_east_deg"),
				"at": "2026-06-21T12:00:00Z",
				"plane": map[string]any{"tiltDeg": r.num("plane_tilt_deg"), "azimuthDeg": r.num("plane_azimuth_deg"),
					"albedo": r.num("ground_albedo")}}
			if at, ok := r.Input["time_utc"]; ok {
				req["at"] = at
			}
			switch kind {
			case "position":
				got := run(t, "sun", req)
				r.check(t, "solar_elevation_geometric_deg", got["elevationDeg"].(float64))
				d := math.Mod(got["azimuthDeg"].(float64)-r.Expect["solar_azimuth_from_north_clockwise_deg"].(float64)+
					540, 360) - 180
				assert.LessOrEqual(t, math.Abs(d), r.Tol["solar_azimuth_from_north_clockwise_deg"].Abs)
			case "rise_set":
				noon, err := time.Parse(time.DateOnly, r.Input["local_date"].(string))
				require.NoError(t, err)
				req["at"] = noon.Add(12*time.Hour - time.Duration(r.num("longitude_east_deg")/15*float64(time.Hour)))
				got := run(t, "sun", req)
				for key, name := range map[string]string{"sunrise_utc": "rise", "sunset_utc": "set"} {
					want, there := r.Expect[key].(string)
					if !there {
						assert.Nil(t, got[name], "a polar day or night")
						continue
					}
					at, err := time.Parse(time.RFC3339, want)
					require.NoError(t, err)
					is, err := time.Parse(time.RFC3339, got[name].(string))
					require.NoError(t, err)
					assert.WithinDuration(t, at, is, 2*time.Minute)
				}
				r.check(t, "day_length_min", got["daylightMin"].(float64))
			case "clear_sky":
				got := run(t, "sun", req)
				for key, name := range map[string]string{"ghi_W_m2": "globalWM2", "dni_W_m2": "beamWM2",
					"dhi_W_m2": "diffuseWM2", "vertical_plane_total_W_m2": "planeWM2"} {
					r.check(t, key, got[name].(float64))
				}
			case "transposition":
				req["sun"] = map[string]any{"elevationDeg": r.num("solar_elevation_deg"),
					"azimuthDeg": r.num("solar_azimuth_deg")}
				req["light"] = map[string]any{"globalWM2": r.num("ghi_W_m2"), "beamWM2": r.num("dni_W_m2"),
					"diffuseWM2": r.num("dhi_W_m2")}
				got := run(t, "sun", req)
				for key, name := range map[string]string{"beam_W_m2": "planeBeamWM2", "sky_W_m2": "planeSkyWM2",
					"ground_W_m2": "planeGroundWM2", "total_W_m2": "planeWM2", "cos_incidence": "cosIncidence"} {
					r.check(t, key, got[name].(float64))
				}
			default:
				t.Fatalf("no calculator answers %s", kind)
			}
		})
	}
	assert.Len(t, done, 4, "every kind of the reference")
}
