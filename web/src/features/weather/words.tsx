import type { Schemas } from "../../api/client";
import { Quantity } from "../../ui/Working";

/** What a limit is called when it is not kept. */
export const NAMES: Record<string, string> = {
  "air-min": "air too cold",
  "air-max": "air too warm",
  "surface-min": "surface too cold",
  "surface-max": "surface too warm",
  humidity: "too humid",
  "dew-spread": "too near the dew point",
  polygon: "outside the product's field",
  rain: "rain",
  wind: "too windy to spray",
  daylight: "dark",
  "working-hours": "outside working hours",
  "surface-wet": "surface wet",
  "no-weather": "weather not known",
};

const NEAREST: Record<string, string> = {
  "air-min": "air",
  "air-max": "air",
  "surface-min": "surface",
  "surface-max": "surface",
  humidity: "humidity",
  "dew-spread": "above dew point",
  rain: "rain",
  wind: "wind",
};

const BARE = new Set(["daylight", "no-weather", "polygon", "working-hours", "surface-wet"]);

/** The margin of a check in words: "surface too cold: 8.2 °C, needs 10 °C". */
export function Binding({ check, allowed }: { check: Schemas["FieldCheck"]; allowed: boolean }) {
  if (BARE.has(check.limit)) return <>{allowed ? "all limits kept" : NAMES[check.limit]}</>;
  return (
    <>
      {allowed ? `nearest limit ${NEAREST[check.limit] ?? check.limit}` : NAMES[check.limit]}:{" "}
      <Quantity value={check.value} unit={check.unit} digits={1} />, {allowed ? "limit" : "needs"}{" "}
      <Quantity value={check.need} unit={check.unit} digits={check.unit === "mm" ? 2 : 0} />
    </>
  );
}
