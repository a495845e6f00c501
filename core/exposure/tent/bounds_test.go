package tent

import (
	"testing"

	"allcoats/core/base/fielderr/bounds"
)

func TestBounds(t *testing.T) {
	tent := Tent{LengthM: 12, WidthM: 5, HeightM: 4, Layers: 1, AirChanges: 1,
		Heaters: []Heater{{Kind: Electric, PowerKW: 3}}}
	bounds.Try(t, tent, Tent.Validate, map[string]bounds.Bound{
		"lengthM": bounds.From(1, 100), "widthM": bounds.From(1, 40), "heightM": bounds.From(0.5, 30),
		"airChanges": bounds.From(0.1, 100), "doorM2": bounds.From(0, 60), "openC": bounds.From(10, 45), "heaters[0].powerKW": bounds.From(0.1, 200),
		"dryL": bounds.From(0, 200), "thermostat.setC": bounds.From(-5, 40), "thermostat.fromH": bounds.From(0, 24),
		"thermostat.toH": bounds.From(0, 24), "prices.kWhCents": bounds.From(0, 100000),
		"prices.fuelKgCents": bounds.From(0, 100000), "prices.dayCents": bounds.From(0, 10000000),
		"prices.hardenerCents": bounds.From(0, 100000000)})
}
