package weather

import (
	"testing"
	"time"

	"allcoats/core/base/fielderr/bounds"
)

func TestBoundsOfAnHour(t *testing.T) {
	v := 0.0
	bounds.Try(t, Hour{TempC: 12, RHPct: 70, WindMS: &v, RainMM: &v, CloudPct: &v, ShortwaveWM2: &v}, Hour.Validate,
		map[string]bounds.Bound{"tempC": bounds.From(-60, 60), "rhPct": bounds.From(1, 100), "windMS": bounds.From(0, 90),
			"rainMM": bounds.From(0, 300), "cloudPct": bounds.From(0, 100), "shortwaveWM2": bounds.From(0, 1500)})
}

func TestBoundsOfNormals(t *testing.T) {
	bounds.Try(t, UsualNormals(53), Normals.Validate, map[string]bounds.Bound{
		"[3].meanC": bounds.From(-40, 45), "[3].swingK": bounds.From(0, 35), "[3].rhPct": bounds.From(1, 100),
		"[3].windMS": bounds.From(0, 30), "[3].cloudPct": bounds.From(0, 100), "[3].wetDayPct": bounds.From(0, 100),
		"[3].wetAfterWetPct": bounds.From(0, 100), "[3].wetHoursPct": bounds.From(0, 100), "[3].spreadK": bounds.From(0, 15)})
}

func TestBoundsOfASimpleDay(t *testing.T) {
	wind, rh := 3.0, 70.0
	day := SimpleDay{Date: "2026-05-09", MinC: 0, MaxC: 12, Sky: "clear", Wind: "light", Air: "dry", Rain: RainHours,
		RainFromH: 2, RainToH: 5, WindMS: &wind, RHPct: &rh}
	of := func(d SimpleDay) error { _, err := d.Hours(time.UTC); return err }
	bounds.Try(t, day, of, map[string]bounds.Bound{"rainFromH": bounds.From(0, 24), "rainToH": bounds.From(0, 24),
		"windMS": bounds.From(0, 60), "rhPct": bounds.From(5, 100)})
	day.MaxC = 45
	bounds.Try(t, day, of, map[string]bounds.Bound{"minC": bounds.From(-30, 45)})
	day.MinC = -30
	bounds.Try(t, day, of, map[string]bounds.Bound{"maxC": bounds.From(-30, 45)})
}
