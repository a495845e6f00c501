import { describe, expect, it } from "vitest";
import { clock, elapsed, fromLocalField, onDay, span, toLocalField } from "./time";

describe("local fields", () => {
  it.each([
    ["2026-05-09T09:24", "Europe/London", "2026-05-09T08:24:00.000Z"],
    ["2026-01-09T09:24", "Europe/London", "2026-01-09T09:24:00.000Z"],
    ["2026-03-29T03:30", "Europe/Berlin", "2026-03-29T01:30:00.000Z"], // just after the clocks went on
    ["2026-10-25T03:30", "Europe/Berlin", "2026-10-25T02:30:00.000Z"], // just after they went back
    ["2026-05-09T09:24", "Pacific/Auckland", "2026-05-08T21:24:00.000Z"],
  ])("%s in %s is %s", (field, zone, instant) => {
    expect(fromLocalField(field, zone)).toBe(instant);
    expect(toLocalField(instant, zone)).toBe(field);
  });
  it("is empty for an empty field", () => expect(fromLocalField("", "UTC")).toBe(""));
});

it("shows the place's time, not the browser's", () => {
  expect(clock("2026-05-09T08:24:00Z", "Europe/London")).toBe("09:24");
  expect(clock("2026-05-09T00:05:00Z", "UTC")).toBe("00:05");
});

it.each([
  [0.5, "30 min"],
  [1.3333, "1 h 20"],
  [6, "6 h"],
  [2.0833, "2 h 05"],
  [48.4, "48 h"],
  [314, "314 h"],
])("says %d hours as %s", (h, text) => expect(span(h)).toBe(text));

it.each([
  [6, "6 h"],
  [60, "60 h"],
  [84, "3.5 days"],
  [960, "40 days"],
])("says %d hours that pass as %s", (h, text) => expect(elapsed(h)).toBe(text));

it("writes a day without a time as people do, in every zone the same", () => {
  expect(onDay("2026-05-20")).toBe("Wed 20 May 2026");
});
