import { expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { inImperial, number } from "./settings";

const unit = (metric: string, imperialSymbol: string, factor: number, offset = 0): Schemas["UnitsDisplay"] => ({
  metric,
  metricSymbol: metric,
  metricDigits: 1,
  imperialSymbol,
  imperialDigits: 1,
  factor,
  offset,
});
const table = [unit("m", "ft", 1 / 0.3048), unit("°C", "°F", 1.8, 32), unit("µm", "mil", 1 / 25.4)];

it.each([
  ["must be between 1 m and 150 m, not 200 m", "must be between 3.28 ft and 492 ft, not 656 ft"],
  ["24 h at 5 °C, 6 h at 20 °C", "24 h at 41 °F, 6 h at 68 °F"],
  ["at least −10 °C.", "at least 14 °F."],
  ["75 µm a coat; 3 months", "2.95 mil a coat; 3 months"],
])("says %s in imperial units", (metric, imperial) => expect(inImperial(metric, table)).toBe(imperial));

it("writes numbers with a real minus and thin spaces", () => {
  expect(number(-3.26, 1)).toBe("\u22123.3");
  expect(number(12345, 0)).toBe("12\u2009345");
  expect(number(Number.NaN, 0)).toBe("–");
});
