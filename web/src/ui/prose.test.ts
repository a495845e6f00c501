import { expect, it } from "vitest";
import { number } from "./prose";

it("writes numbers with a real minus and thin spaces", () => {
  expect(number(-3.26, 1)).toBe("\u22123.3");
  expect(number(12345, 0)).toBe("12\u2009345");
  expect(number(Number.NaN, 0)).toBe("–");
});
