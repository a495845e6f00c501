package demo

import (
	"context"
	"fmt"

	"allcoats/app"
	"allcoats/core/exposure/reading"
	"allcoats/core/exposure/tent"
)

// wire puts the yard's instruments up, simulated, and the tent over the tender.
func wire(ctx context.Context, a *app.App, placeID string) error {
	boats, err := a.Boats(ctx)
	if err != nil {
		return err
	}
	surface := func(boat, name string) string {
		for _, b := range boats {
			if b.Name != boat {
				continue
			}
			if s, err := a.Survey(ctx, b.ID); err == nil {
				for _, f := range s.Surfaces {
					if f.Name == name {
						return f.ID
					}
				}
			}
		}
		return ""
	}
	for _, e := range []app.InstrumentEdit{
		{Name: "Logger on the slip post", Kind: reading.InOpen, Feed: app.Simulator},
		{Name: "Probe, launch, port side", Kind: reading.OnSurface,
			SurfaceID: surface("Marsh Lantern", "Topsides port"), Feed: app.Simulator},
		{Name: "Hand-held infra-red", Kind: reading.Spot, SurfaceID: surface("Marsh Lantern", "Topsides starboard"),
			Feed: app.ByFile},
		{Name: "Bench scale", Kind: reading.Scale, Feed: app.Simulator},
		{Name: "Film gauge", Kind: reading.Gauge, Feed: app.Simulator},
	} {
		if _, err := a.AddInstrument(ctx, placeID, e); err != nil {
			return fmt.Errorf("%s: %w", e.Name, err)
		}
	}
	for _, b := range boats {
		if b.Name != "Sounding Line" {
			continue
		}
		t := tent.Usual(b.Dimensions.LOAM, b.Dimensions.BeamM)
		t.Heaters = []tent.Heater{{Kind: tent.Electric, PowerKW: 3}, {Kind: tent.Gas, PowerKW: 4}}
		t.Thermostat = tent.Thermostat{SetC: 14, FromH: 6, ToH: 23}
		if _, err := a.SetTent(ctx, b.ID, 1, &t); err != nil {
			return fmt.Errorf("tent: %w", err)
		}
	}
	return nil
}
