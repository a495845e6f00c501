package enquiry

import (
	"testing"
	"time"

	"allcoats/core/catalog/product"
	"allcoats/core/physics/cure"
	"allcoats/core/physics/weather"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var morning = time.Date(2026, 5, 9, 8, 0, 0, 0, time.UTC)

// steady is air of a temperature and a dew point spread, from two days before the morning on.
func steady(tempC, rhPct float64, rainAt ...time.Time) Weather {
	w := Weather{LatitudeDeg: 52, Loc: time.UTC, Now: morning, Until: morning.Add(16 * time.Hour)}
	for at := morning.Add(-48 * time.Hour); at.Before(morning.Add(96 * time.Hour)); at = at.Add(time.Hour) {
		wind, cloud, rain := 3.0, 100.0, 0.0
		for _, r := range rainAt {
			if r.Equal(at) {
				rain = 2
			}
		}
		w.Air = append(w.Air, weather.Hour{At: at, TempC: tempC, RHPct: rhPct, WindMS: &wind, CloudPct: &cloud,
			RainMM: &rain})
	}
	return w
}

// paint is a coat that wants 10 °C for four hours and three dry ones; it dries in 4 h and is open from 16 h
// to 48 h at any temperature.
func paint() product.Sheet {
	flat := func(h float64) cure.Table { return cure.Table{{TempC: 0, Hours: h}, {TempC: 40, Hours: h}} }
	return product.Sheet{Name: "P", Kind: product.TopcoatTwo, VolumeSolidsPct: 50,
		Film:          product.Film{MinUm: 40, TypicalUm: 50, MaxUm: 60},
		RatioByVolume: product.Ratio{Base: 3, Hardener: 1}, BaseKgL: 1.2, HardenerKgL: 1, Methods: []string{"roller"},
		ThinnerMaxPct: 10,
		Limits:        product.Limits{AirMinC: f(10), HoldH: 4, RainFreeH: 3},
		TouchDry:      flat(4), PotLife: flat(2),
		Recoat: []product.Recoat{{Over: product.AnyKind, Min: flat(16), Max: flat(48)}},
		Tins: []product.Tin{{Name: "1 L", Litres: 1, PriceCents: 3000},
			{Name: "2.5 L", Litres: 2.5, PriceCents: 6000}}}
}

func f(v float64) *float64 { return &v }

func TestCoatToday(t *testing.T) {
	for name, c := range map[string]struct {
		ask  Ask
		says string
	}{
		// Under a roof in 15 °C and 50 % nothing binds: at once, until the known weather leaves no hold.
		"fine": {Ask{Sheet: paint(), Place: "shed", Weather: steady(15, 50)}, "Yes: begin now, by "},
		// 0.5 K above the limit is less than one usual error of a forecast.
		"narrow": {Ask{Sheet: paint(), Place: "shed", Weather: steady(10.5, 50)}, "Only just: begin now, by "},
		"cold": {Ask{Sheet: paint(), Place: "shed", Weather: steady(9, 50)},
			"Not today: even at the best hour the air is below 10 °C."},
		// 97 % is 0.5 K above the dew point, where 3 K is asked.
		"dew": {Ask{Sheet: paint(), Place: "shed", Weather: steady(15, 97)},
			"Not today: even at the best hour the surface is less than 3 K above the dew point."},
		// Rain at 14: laid in an hour and three hours dry, the last start is at 10.
		"rain": {Ask{Sheet: paint(), Place: "sides", Weather: steady(15, 50, morning.Add(6*time.Hour))},
			"Yes: begin now, by 10:00 at the latest."},
		"rain at noon, and a quarter of an hour to lay 3 m²": {
			Ask{Sheet: paint(), Place: "sides", AreaM2: 3, Weather: steady(15, 50, morning.Add(4*time.Hour))},
			"Yes: begin now, by 08:45 at the latest."},
	} {
		got, err := Find(CoatToday, c.ask)
		require.NoError(t, err, name)
		assert.Contains(t, got.Says.In(time.UTC), c.says, name)
		assert.NotEmpty(t, got.Hours, name)
	}
	got, err := Find(CoatToday, Ask{Sheet: paint(), Place: "deck", Weather: steady(15, 50, morning.Add(2*time.Hour),
		morning.Add(8*time.Hour))})
	require.NoError(t, err)
	assert.Contains(t, got.Says.In(time.UTC),
		"Not today: rain comes within the 3 h that it must stay dry. The next chance is Sunday ")
	assert.Contains(t, got.Says.In(time.UTC), "if the days go on as you said")
}

func TestWhenAgain(t *testing.T) {
	at := func(ask Ask) string {
		got, err := Find(WhenAgain, ask)
		require.NoError(t, err)
		return got.Says.In(time.UTC)
	}
	assert.Equal(t, "From Sunday 00:00 until Monday 08:00 without sanding; after that sand it first.",
		at(Ask{Sheet: paint(), Place: "shed", Weather: steady(15, 50)}))
	assert.Equal(t, "From 22:00 until Monday 06:00 without sanding; after that sand it first.",
		at(Ask{Sheet: paint(), Place: "shed", Weather: steady(15, 50), LaidAt: morning.Add(-2 * time.Hour)}))
	late := paint()
	late.Recoat[0].Max = cure.Table{{TempC: 0, Hours: 20}, {TempC: 40, Hours: 20}}
	assert.Equal(t, "Too late for tack: the time without sanding ended 06:00. Sand it first.",
		at(Ask{Sheet: late, Place: "shed", Weather: steady(15, 50), LaidAt: morning.Add(-22 * time.Hour)}))
	assert.Contains(t, at(Ask{Sheet: paint(), Place: "sides", Weather: steady(15, 50, morning.Add(2*time.Hour))}),
		"Look at it first: ")
	_, err := Find(WhenAgain, Ask{Sheet: paint(), Weather: steady(15, 50), LaidAt: morning.AddDate(0, -1, 0)})
	assert.ErrorContains(t, err, "laidAt")
}

func TestPot(t *testing.T) {
	// 24 m² · 50 µm / 50 % = 2.4 L a coat on the surface, 10 % lost: 2.667 L; two coats 5.333 L.
	got, err := Find(HowMuch, Ask{Sheet: paint(), AreaM2: 24, Coats: 2})
	require.NoError(t, err)
	assert.Equal(t, "Buy 1 × 1 L and 2 × 2.5 L: you need 5.33 L of P for 2 coats of 50 µm on 24 m².", got.Says.String())
	assert.Equal(t, "With 10 % lost by roller; between 5.05 L and 5.65 L as the hand is.",
		got.Detail.String()) // 4.8/0.95, 4.8/0.85
	assert.Equal(t, "about 2 h of one person a coat",
		says(got, "Laying")) // 24 / 12

	// 3 : 1 of 1.5 L: 1125 and 375 mL; 1350 g and 375 g.
	got, err = Find(HowMixed, Ask{Sheet: paint(), Litres: 1.5, TempC: 15})
	require.NoError(t, err)
	assert.Equal(t, "Pour 1125 mL of base (1350 g), then 375 mL of hardener (375 g).", got.Says.String())
	assert.Contains(t, got.Detail.String(), "Use it within")
	// A coat of 18 m² takes 1.8 / 0.9 = 2 L.
	got, err = Find(HowMixed, Ask{Sheet: paint(), AreaM2: 18, TempC: 15})
	require.NoError(t, err)
	assert.Equal(t, "Pour 1500 mL of base (1800 g), then 500 mL of hardener (500 g).", got.Says.String())
	cold := paint()
	cold.MinCureC = 12
	got, err = Find(HowMixed, Ask{Sheet: cold, Litres: 1, TempC: 8})
	require.NoError(t, err)
	assert.Contains(t, got.Says.String(), "Too cold to use: under 12 °C it does not cure. Pour 750 mL")

	// 50 µm dry of 50 %, 10 % thinner: 110 µm wet, between the teeth of 100 and 125.
	got, err = Find(HowThick, Ask{Sheet: paint(), DFTUm: 50, ThinnerPct: 10})
	require.NoError(t, err)
	assert.Equal(t, "Lay it 110 µm wet: the 100 µm tooth wet, the 125 µm tooth dry leaves 50 µm dry.",
		got.Says.String())
	got, err = Find(HowThick, Ask{Sheet: paint(), DFTUm: 90})
	require.NoError(t, err)
	assert.Contains(t, got.Detail.String(), "more than the sheet lays in one coat (60 µm)")

	for path, ask := range map[string]Ask{"areaM2": {Sheet: paint()},
		"productId": {Sheet: product.Sheet{Kind: "thinner"}}} {
		_, err := Find(HowMuch, ask)
		assert.ErrorContains(t, err, path)
	}
	_, err = Find("why", Ask{Sheet: paint()})
	assert.ErrorContains(t, err, "question")
}

func says(a Answer, fact string) string {
	for _, f := range a.Facts {
		if f.Name == fact {
			return f.Says.String()
		}
	}
	return ""
}
