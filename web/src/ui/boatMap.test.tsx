// @vitest-environment happy-dom
import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { show } from "../testing";
import { BoatMap } from "./BoatMap";
import { COATS, coatMark, DEFECTS, type MapMark, MEASURING } from "./mapMarks";

const box = (x: number, y: number, w: number, h: number) => [
  { x, y },
  { x: x + w, y },
  { x: x + w, y: y + h },
  { x, y: y + h },
];

const shape = (surfaceId: string, x: number, y: number, w: number, h: number) => ({
  surfaceId,
  points: box(x, y, w, h),
  label: { x: x + w / 2, y: y + h / 2 },
});

/** A side view 10 m long, bow to the left: topsides over bottom, and small parts close together. */
const side: Schemas["OutlineView"] = {
  name: "port side",
  up: true,
  mirror: true,
  shapes: [
    shape("top", 0, 0, 10, 1),
    shape("low", 0, -1, 10, 1),
    shape("a", 4.8, 0.4, 0.3, 0.2),
    shape("b", 4.9, 0.4, 0.3, 0.2),
    shape("gone", 0, 0, 1, 1),
  ],
  lines: [box(0, 0, 10, 0)],
  min: { x: 0, y: -1 },
  max: { x: 10, y: 1 },
};
const surfaces = [
  { id: "top", name: "Topsides port" },
  { id: "low", name: "Bottom" },
  { id: "a", name: "A hatch with a long name" },
  { id: "b", name: "Another one with a long name" },
];
const marks: Record<string, MapMark> = {
  top: MEASURING.good as MapMark,
  low: MEASURING.rough as MapMark,
  a: MEASURING.good as MapMark,
  b: MEASURING.good as MapMark,
};

function draw(props: Partial<Parameters<typeof BoatMap>[0]> = {}) {
  const onPick = vi.fn();
  show(<BoatMap views={[side]} surfaces={surfaces} marks={marks} picked="low" onPick={onPick} {...props} />);
  return onPick;
}

const part = (name: string) => document.querySelector(`[data-surface="${name}"]`) as SVGElement;

it("picks by pointer and by keyboard, and says the state in words", () => {
  const onPick = draw();
  fireEvent.click(part("Topsides port"));
  fireEvent.keyDown(part("Bottom"), { key: "Enter" });
  fireEvent.keyDown(part("Bottom"), { key: " " });
  fireEvent.keyDown(part("Bottom"), { key: "a" });
  expect(onPick.mock.calls).toEqual([["top"], ["low"], ["low"]]);
  expect(part("Bottom").getAttribute("aria-label")).toBe("Bottom: measured roughly");
  expect(part("Bottom").getAttribute("aria-pressed")).toBe("true");
  expect(document.querySelectorAll("[data-surface]")).toHaveLength(4);
});

it("explains each tone and pattern once", () => {
  draw();
  const legend = screen.getByLabelText("Legend");
  expect([...legend.querySelectorAll("li")].map((l) => l.textContent?.trim())).toEqual([
    "well measured",
    "measured roughly",
  ]);
  expect(new Set(Object.values({ ...MEASURING, ...DEFECTS }).map((m) => m.word)).size).toBe(6);
});

it("keeps names apart from one another and from pins, and uses numbers where a name does not fit", () => {
  const pins = [{ id: "d", number: 1, open: true, view: "port side", x: 5, y: 0.5, title: "Defect 1" }];
  draw({ pins });
  const texts = [...document.querySelectorAll("svg g text")].map((t) => ({
    text: t.textContent ?? "",
    x: Number(t.getAttribute("x") ?? Number.NaN),
    y: Number(t.getAttribute("y")),
  }));
  const names = texts.filter((t) => !Number.isNaN(t.x) && t.text !== "");
  expect(names.map((n) => n.text)).toContain("Bottom");
  expect(names.map((n) => n.text)).toContain("Topsides port");
  for (const [i, a] of names.entries())
    for (const b of names.slice(i + 1)) {
      const near = Math.abs(a.y - b.y) < 13;
      expect(near && Math.abs(a.x - b.x) < (a.text.length + b.text.length) * 3.3).toBe(false);
    }
  expect(names.some((n) => n.text.includes("long name"))).toBe(false);
});

it("asks for a place in metres on the boat, whichever way she is drawn", () => {
  const onPlace = vi.fn();
  draw({ onPlace });
  const svg = part("Bottom").closest("svg") as SVGSVGElement;
  svg.getBoundingClientRect = () => ({ left: 100, top: 50, width: 900, height: 200 }) as DOMRect;
  // One view has all of the 900 px; 10 px of edge; so 88 px a metre.
  const k = (900 - 20) / 10;
  fireEvent.click(part("Bottom"), { clientX: 100 + 10 + 2 * k, clientY: 50 + 10 + 1.5 * k });
  const at = onPlace.mock.calls[0]?.[0];
  expect(at.surfaceId).toBe("low");
  expect(at.x).toBeCloseTo(8, 6); // 2 m from the left end, which is the bow
  expect(at.y).toBeCloseTo(-0.5, 6); // 1.5 m below the top
  fireEvent.keyDown(part("Topsides port"), { key: "Enter" });
  expect(onPlace.mock.calls[1]?.[0]).toEqual({ view: "port side", x: 5, y: 0.5, surfaceId: "top" });
});

it("opens a pin, also by keyboard, and shows mended ones hollow", () => {
  const onPin = vi.fn();
  const pin = { view: "port side", x: 2, y: 0.5, title: "a crack" };
  draw({
    onPin,
    pins: [
      { id: "one", number: 1, open: true, ...pin },
      { id: "two", number: 2, open: false, ...pin },
      { id: "far", number: 3, open: true, ...pin, view: "plan" },
    ],
  });
  const drawn = [...document.querySelectorAll("[data-pin]")];
  expect(drawn.map((d) => d.getAttribute("data-pin"))).toEqual(["1", "2"]);
  fireEvent.click(drawn[0] as Element);
  fireEvent.keyDown(drawn[1] as Element, { key: "Enter" });
  expect(onPin.mock.calls).toEqual([["one"], ["two"]]);
  const fills = drawn.map((d) => d.querySelector("path")?.getAttribute("fill"));
  expect(fills[0]).not.toBe(fills[1]);
});

it.each([
  ["bare", { chance: "now" }],
  ["unplanned", { chance: "unplanned" }],
  ["finished", { chance: "finished", clock: { state: "open" } }],
  ["closing", { chance: "today", clock: { state: "closing" } }],
])("marks a surface as %s", (key, lane) => {
  expect(coatMark(lane as Schemas["ReadinessLane"])).toBe(COATS[key]);
});

it("marks a surface without a lane as bare", () => expect(coatMark(undefined)).toBe(COATS.bare));

it("drags a pin to where it belongs, and opens it when it is only pressed", () => {
  const onMovePin = vi.fn();
  const onPin = vi.fn();
  draw({
    onMovePin,
    onPin,
    pins: [{ id: "d", number: 3, open: true, view: "port side", x: 2, y: 0.5, title: "Defect 3" }],
  });
  const pin = () => screen.getByRole("button", { name: "Defect 3" });
  const svg = pin().closest("svg") as SVGSVGElement;
  svg.getBoundingClientRect = () => ({ left: 0, top: 0, width: 900, height: 200 }) as DOMRect;
  const k = (900 - 20) / 10;
  fireEvent.pointerDown(pin(), { clientX: 10 + 8 * k, clientY: 10 + 0.5 * k });
  fireEvent.pointerUp(svg);
  expect(onMovePin).not.toHaveBeenCalled();
  fireEvent.click(pin());
  expect(onPin).toHaveBeenCalledWith("d");
  fireEvent.pointerDown(pin(), { clientX: 10 + 8 * k, clientY: 10 + 0.5 * k });
  fireEvent.pointerMove(svg, { clientX: 10 + 4 * k, clientY: 10 + 0.25 * k });
  fireEvent.pointerUp(svg);
  expect(onMovePin).toHaveBeenCalledTimes(1);
  const [id, to] = onMovePin.mock.calls[0] as [string, { x: number; y: number }];
  expect(id).toBe("d");
  expect(to.x).toBeCloseTo(6, 6); // 4 m from the bow, which is to the left
});
