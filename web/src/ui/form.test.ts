import { expect, it } from "vitest";
import { unsendable } from "./Form";

it("names text in number fields by the path that the server uses", () => {
  expect(unsendable({ a: Number.NaN, b: { c: [1, Number.NaN] }, d: "text", e: 3 })).toEqual({
    a: "this is not a number",
    "b.c[1]": "this is not a number",
  });
});

it("names figures that are needed", () => {
  expect(unsendable({ dimensions: { loaM: 7 } }, ["dimensions.loaM", "dimensions.beamM"])).toEqual({
    "dimensions.beamM": "this figure is needed",
  });
  expect(unsendable({ days: [{ minC: 4 }, {}] }, ["days[0].minC", "days[1].minC"])).toEqual({
    "days[1].minC": "this figure is needed",
  });
  expect(unsendable({ n: 0 }, ["n"])).toEqual({});
});
