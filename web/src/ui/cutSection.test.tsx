// @vitest-environment happy-dom
import { expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { show } from "../testing";
import { CutSection } from "./CutSection";

const layer = (kind: string, um: number, more: Partial<Schemas["BuildupLayer"]> = {}): Schemas["BuildupLayer"] => ({
  product: kind,
  kind,
  colour: "",
  um,
  laid: true,
  known: "comb readings",
  old: false,
  keep: false,
  ...more,
});

const heights = () =>
  [...document.querySelectorAll("svg > g > rect[stroke-width='0.7']")].map((r) => Number(r.getAttribute("height")));
const labels = () => [...document.querySelectorAll("svg > g > text")].map((t) => t.textContent ?? "");

it("draws thickness to scale, from the substrate up", () => {
  show(
    <CutSection
      substrate="GRP"
      layers={[layer("barrier", 100), layer("barrier", 200), layer("antifouling-soft", 50)]}
    />,
  );
  const h = heights();
  expect(h).toHaveLength(3);
  expect((h[1] as number) / (h[0] as number)).toBeCloseTo(2, 9);
  expect((h[2] as number) / (h[0] as number)).toBeCloseTo(0.5, 9);
  const ys = [...document.querySelectorAll("svg > g > rect[stroke-width='0.7']")].map((r) =>
    Number(r.getAttribute("y")),
  );
  expect(ys[0]).toBeGreaterThan(ys[2] as number);
});

it("fits thick films into the same height", () => {
  show(<CutSection substrate="GRP" layers={[layer("fairing-compound", 3000), layer("barrier", 1000)]} />);
  expect(heights().reduce((a, b) => a + b)).toBeLessThan(320);
});

it("tells old, laid and planned layers apart in words and draws the line that must not be passed", () => {
  show(
    <CutSection
      substrate="GRP"
      layers={[
        layer("gelcoat", 500, { old: true, keep: true, colour: "white", product: "old gelcoat", known: "" }),
        layer("unknown", 0, { old: true, colour: "blue", product: "old unknown", known: "thickness not known" }),
        layer("high-build-primer", 100),
        layer("topcoat-two-part", 50, { laid: false, known: "" }),
      ]}
    />,
  );
  const text = labels().join("|");
  expect(text).toContain("500 µm white old gelcoat, must stay");
  expect(text).toContain("? blue old unknown, thickness not known");
  expect(text).toContain("100 µm high build primer laid, comb readings");
  expect(text).toContain("50 µm topcoat two part, planned");
  expect(document.querySelector("[data-testid=stop]")).toBeTruthy();
  expect(heights()[1]).toBeGreaterThan(0);
});

it("has no such line where nothing must stay", () => {
  show(<CutSection substrate="oak" layers={[layer("varnish", 30)]} />);
  expect(document.querySelector("[data-testid=stop]")).toBeNull();
});

it("keeps the labels of thin coats at least 13 px apart and inside the picture", () => {
  show(<CutSection substrate="oak" layers={Array.from({ length: 14 }, () => layer("varnish", 8))} />);
  const ys = [...document.querySelectorAll("svg > g > text")]
    .filter((t) => t.textContent?.includes("varnish"))
    .map((t) => Number(t.getAttribute("y")));
  expect(ys).toHaveLength(14);
  for (let i = 1; i < ys.length; i++) expect((ys[i - 1] as number) - (ys[i] as number)).toBeGreaterThanOrEqual(13);
  expect(Math.min(...ys)).toBeGreaterThan(5);
});

it("says the film in the user's units", () => {
  localStorage.setItem("units", "imperial");
  show(<CutSection substrate="oak" layers={[layer("varnish", 25.4)]} />);
  expect(labels().join()).toContain("1.0 mil varnish laid");
});
