import { expect, it } from "vitest";
import { readNumber, readNumbers } from "./numbers";

it.each([
  ["1.20", 1.2],
  ["1,20", 1.2],
  [" -3 ", -3],
  ["\u22120,5", -0.5],
  [".5", 0.5],
  ["1.234,5", Number.NaN],
  ["1e3", Number.NaN],
  ["", Number.NaN],
  ["two", Number.NaN],
])("reads %s", (text, v) => expect(readNumber(text)).toBe(v));

it.each([
  ["1.20, 0.45", [1.2, 0.45]],
  ["1,20 0,45", [1.2, 0.45]],
  ["1,20; 0,45", [1.2, 0.45]],
  ["1,20, 0,45", [1.2, 0.45]],
  ["1.2,0.45", [1.2, 0.45]],
  ["1\t-2", [1, -2]],
  ["1,20,0,45", [Number.NaN]],
  ["1,2", [Number.NaN]], // one number or two?
  ["1.2 x", [1.2, Number.NaN]],
])("reads the line %s", (line, all) => expect(readNumbers(line)).toEqual(all));
