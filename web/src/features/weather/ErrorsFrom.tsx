import type { Schemas } from "../../api/client";
import { tr } from "../../words/words";

/** Whose errors the futures count with: the usual ones, or those that the place's own forecasts have shown. */
export function ErrorsFrom({ place }: { place: Schemas["Place"] }) {
  const { learned, enoughForecasts } = place;
  if (learned && learned.forecasts >= enoughForecasts)
    return (
      <>
        {tr(
          "The forecasts of {place} were off by {near} K a day ahead and {far} K five days ahead: learned from {forecasts} of them, held against {hours} hours measured.",
          {
            place: place.name,
            near: off(learned.errors.tempK, 1),
            far: off(learned.errors.tempK, 5),
            forecasts: learned.forecasts,
            hours: learned.hours,
          },
        )}
      </>
    );
  return (
    <>
      {tr(
        "Forecasts are taken to be as far off as they usually are; from {enough} on those of {place} count, {kept} are kept so far.",
        {
          enough: enoughForecasts,
          place: place.name,
          kept: learned?.forecasts ?? 0,
        },
      )}
    </>
  );
}

/** What a growing error is so many days ahead. */
const off = (g: Schemas["WeatherGrowth"], days: number) => Math.min(g.atOnce + g.perDay * days, g.most).toFixed(1);
