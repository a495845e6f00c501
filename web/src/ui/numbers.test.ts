import { expect, it } from "vitest";
import { readDegrees, readNumber, readPosition, readQuantities, readQuantity } from "./numbers";

const near = (got: number | undefined, want: number) =>
  Number.isNaN(want) ? expect(got).toBeNaN() : expect(got).toBeCloseTo(want, 9);

it.each([
  ["1.20", 1.2],
  ["1,20", 1.2],
  [" -3 ", -3],
  ["\u22120,5", -0.5],
  [".5", 0.5],
  ["1.234,5", 1234.5],
  ["1,234.5", 1234.5],
  ["12 500", 12500],
  ["1,234.5,6", Number.NaN],
  ["1.2.3", Number.NaN],
  ["1e3", Number.NaN],
  ["", Number.NaN],
  ["two", Number.NaN],
])("reads %s", (text, v) => expect(readNumber(text)).toBe(v));

const same = (v: number) => v;
const feet = (v: number) => v * 0.3048;

it.each([
  [`34' 6"`, 34.5 * 0.3048],
  ["34'6", 34.5 * 0.3048],
  ["34’6″", 34.5 * 0.3048],
  [`34' 6 1/2"`, (34 + 6.5 / 12) * 0.3048],
  [`6 1/2"`, 6.5 * 0.0254],
  [`1/2"`, 0.0127],
  ["34 ft 6 in", 34.5 * 0.3048],
  ["120 cm", 1.2],
  ["1200mm", 1.2],
  ["1,2 m", 1.2],
  ["34' x", Number.NaN],
  ["'", Number.NaN],
])("reads the length %s", (text, m) => {
  near(readQuantity(text, "m", same), m);
  near(readQuantity(text, "m", feet), m); // whatever is shown
});

it("reads a bare number in the unit shown, and no feet for litres", () => {
  expect(readQuantity("10", "m", feet)).toBeCloseTo(3.048, 9);
  expect(readQuantity(`6"`, "mm", same)).toBeCloseTo(152.4, 9);
  expect(readQuantity(`6"`, "L", same)).toBeNaN();
});

it.each([
  [`51°30'36"N`, 51.51],
  ["51° 30,6' N", 51.51],
  ["51 30 36", 51.51],
  ["S 4 30", -4.5],
  [`0° 7' 30" W`, -0.125],
  ["4.25W", -4.25],
  ["-4:15", -4.25],
  ["51°60'", Number.NaN],
  ["N 4 N", Number.NaN],
  ["here", Number.NaN],
])("reads the place %s", (text, v) => near(readDegrees(text), v));

it.each([
  ["1.20, 0.45", [1.2, 0.45]],
  ["1,20 0,45", [1.2, 0.45]],
  ["1,20; 0,45", [1.2, 0.45]],
  ["1,20, 0,45", [1.2, 0.45]],
  ["1.2,0.45", [1.2, 0.45]],
  ["1\t-2", [1, -2]],
  ["1,20,0,45", [1.2, 0.45]],
  ["1,2", [1, 2]], // two numbers are known to stand here
  ["1,20,5", [Number.NaN]], // 1,20 and 5, or 1 and 20,5?
  ["1.2 x", [1.2, Number.NaN]],
  [`3' 6", 2' 1"`, [1.0668, 0.635]],
  [`3' 6" 2' 1"`, [1.0668, 0.635]],
  [`3'6 1/2"; -2'`, [1.0795, -0.6096]],
])("reads the corner %s", (line, all) => {
  const got = readQuantities(line, "m", same, 2);
  expect(got).toHaveLength(all.length);
  for (const [i, v] of all.entries()) near(got[i], v);
});

it("takes no side where how many there are is not known", () => {
  expect(readQuantities("1,20,0,45", "m", same)).toEqual([Number.NaN]);
  expect(readQuantities("1,2", "m", same)).toEqual([Number.NaN]);
  expect(readQuantities("85 90 100", "µm", same)).toEqual([85, 90, 100]);
});

// Whatever is typed, an answer comes: a number or NaN, and a plain number is read as itself.
it("never breaks, and reads what it writes", () => {
  let seed = 7;
  const random = (n: number) => {
    seed = (seed * 48271) % 2147483647;
    return seed % n;
  };
  const alphabet = "0123456789.,-+'\" /°NSEWftincm;\t#xµ";
  for (let i = 0; i < 4000; i++) {
    const text = Array.from({ length: random(14) }, () => alphabet[random(alphabet.length)]).join("");
    for (const v of [
      readNumber(text),
      readDegrees(text),
      readQuantity(text, "m", same),
      ...readQuantities(text, "m", same, 2),
    ])
      expect(typeof v).toBe("number");
    const n = (random(2_000_000) - 1_000_000) / 1000;
    expect(readNumber(String(n))).toBe(n);
    expect(readNumber(String(n).replace(".", ","))).toBe(n);
    expect(readQuantity(`${n} mm`, "m", same)).toBeCloseTo(n / 1000, 9);
  }
});

it.each([
  ["52.95, 0.85", 52.95, 0.85],
  ["52.95,0.85", 52.95, 0.85],
  ["52,95 0,85", 52.95, 0.85],
  ["52,95; -0,85", 52.95, -0.85],
  ["-33.86 151.2", -33.86, 151.2],
  ["52°57'N 0°51'E", 52.95, 0.85],
  ["52°57'N0°51'W", 52.95, -0.85],
  ["N 52 57.0 E 0 51.0", 52.95, 0.85],
  ["52° 57' 0\" N, 0° 51' 0\" W", 52.95, -0.85],
])("reads the position %s", (text, lat, lng) => {
  const at = readPosition(text);
  expect(at?.latitudeDeg).toBeCloseTo(lat, 6);
  expect(at?.longitudeDeg).toBeCloseTo(lng, 6);
});

it.each(["", "52.95", "52 57 0 51", "0°51'E 52°57'N", "95, 0.85", "the quay"])("takes %j for no position", (text) => {
  expect(readPosition(text)).toBeUndefined();
});
