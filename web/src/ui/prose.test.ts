import { expect, it } from "vitest";
import { METRIC, number, written } from "./prose";

it("writes numbers with a real minus and thin spaces", () => {
  expect(number(-3.26, 1)).toBe("\u22123.3");
  expect(number(12345, 0)).toBe("12\u2009345");
  expect(number(Number.NaN, 0)).toBe("–");
});

it("tells hours in sentences as tables do", () => {
  const told = (value: number, digits?: number) => written([{ value, unit: "h", digits }], METRIC, "UTC");
  expect([told(13.7), told(13.7, 1), told(0.5), told(6), told(50.1, 1)]).toEqual([
    "13 h 42",
    "13 h 42",
    "30 min",
    "6 h",
    "50 h",
  ]);
  expect([told(0), told(13.7, 0)]).toEqual(["0 h", "14 h"]);
});
