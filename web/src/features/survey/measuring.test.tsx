// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { answers, show } from "../../testing";
import { unsendable } from "../../ui/Form";
import { blank, type Edit, type Measure, newSurface, type Words } from "./edit";
import { GirthFields } from "./GirthFields";
import { Layers } from "./Layers";
import { Measuring } from "./Measuring";
import { ModelFields } from "./ModelFields";
import { OutlineFields } from "./OutlineFields";
import { ShapeFields } from "./ShapeFields";

const kinds: Schemas["AreaShapeKind"][] = [
  {
    kind: "rectangle",
    name: "rectangle",
    fields: [
      { key: "aM", label: "Length", mayBeZero: false },
      { key: "bM", label: "Width", mayBeZero: false },
    ],
  },
  { kind: "circle", name: "circle", fields: [{ key: "aM", label: "Diameter", mayBeZero: false }] },
];

const words = {
  parts: [
    { part: "deck", name: "deck", tiltDeg: 0, byRule: true },
    { part: "other", name: "other", tiltDeg: 90, byRule: false },
  ],
  shapes: kinds,
  methods: {
    girths: "girths",
    shapes: "shapes",
    outline: "outline",
    model: "3-D model",
    consumption: "a coat",
    principal: "principal dimensions",
    stated: "stated",
  },
  substrates: [{ key: "grp", name: "bare GRP laminate" }],
  layerKinds: ["unknown", "gelcoat"],
  soundnesses: ["sound", "loose"],
  zones: ["bottom", "deck"],
} as unknown as Words;

const survey = { boat: { id: "boat" }, models: [] } as unknown as Schemas["Survey"];
const working = { inputs: [], steps: [], warnings: [] };
const figure = (areaM2: number): Schemas["AreaFigure"] => ({ areaM2, uncertaintyPct: 5, working });

/** Keeps what a form changes, and tells it. */
function Kept<T>({
  start,
  told,
  children,
}: {
  start: T;
  told?: (v: T) => void;
  children: (v: T, set: (v: T) => void) => React.ReactNode;
}) {
  const [value, setValue] = useState(start);
  return children(value, (v) => {
    setValue(v);
    told?.(v);
  });
}

it.each(["girths", "shapes", "consumption", "stated"] as Measure["method"][])(
  "cannot send a blank measurement by %s",
  (method) => {
    expect(Object.keys(unsendable(blank(method))).length).toBeGreaterThan(0);
  },
);

it.each(["principal", "outline", "model"] as Measure["method"][])(
  "leaves it to the server to judge a blank one by %s",
  (method) => {
    expect(unsendable(blank(method))).toEqual({});
  },
);

it("names the missing figures of a new surface by the server's paths", () => {
  expect(Object.keys(unsendable(newSurface()))).toEqual([
    "measured.measures[0].shapes[0].aM",
    "measured.measures[0].shapes[0].bM",
  ]);
});

it("keeps the lengths that the next shape has too, and drops the others", async () => {
  const told = vi.fn();
  show(
    <Kept start={[{ kind: "rectangle", aM: 3, bM: 2, count: 1 }] as Schemas["AreaShape"][]} told={told}>
      {(v, set) => <ShapeFields path="s" shapes={v} set={set} kinds={kinds} />}
    </Kept>,
  );
  await userEvent.selectOptions(screen.getByLabelText("Shape"), "circle");
  expect(told.mock.lastCall?.[0]).toEqual([{ kind: "circle", aM: 3, count: 1 }]);
  await userEvent.selectOptions(screen.getByLabelText("Is"), "minus");
  expect(told.mock.lastCall?.[0][0].minus).toBe(true);
  await userEvent.selectOptions(screen.getByLabelText("Shape"), "rectangle");
  expect(told.mock.lastCall?.[0][0].bM).toBeNaN();
  await userEvent.click(screen.getByText("Add a shape"));
  expect(told.mock.lastCall?.[0]).toHaveLength(2);
  await userEvent.click(screen.getByLabelText("Remove shape 1"));
  expect(told.mock.lastCall?.[0]).toHaveLength(1);
  expect(screen.getByLabelText<HTMLButtonElement>("Remove shape 1").disabled).toBe(true);
});

it("goes on with the spacing of the last two stations", async () => {
  const told = vi.fn();
  const start: Schemas["AreaGirths"] = {
    sides: 2,
    stations: [
      { atM: 0, girthM: 1 },
      { atM: 1.2, girthM: 1.4 },
      { atM: 2.7, girthM: 1.5 },
    ],
  };
  show(
    <Kept start={start} told={told}>
      {(v, set) => <GirthFields path="g" girths={v} set={set} />}
    </Kept>,
  );
  expect(screen.getByLabelText<HTMLButtonElement>("Remove station 2").disabled).toBe(true);
  await userEvent.click(screen.getByText("Add a station"));
  expect(told.mock.lastCall?.[0].stations[3].atM).toBe(4.2);
  expect(told.mock.lastCall?.[0].stations[3].girthM).toBeNaN();
  await userEvent.click(screen.getByLabelText("Remove station 2"));
  expect(told.mock.lastCall?.[0].stations.map((s: { atM: number }) => s.atM)).toEqual([0, 2.7, 4.2]);
  await userEvent.selectOptions(screen.getByLabelText("The girths are"), "1");
  expect(told.mock.lastCall?.[0].sides).toBe(1);
  const along = screen.getByLabelText("Along the hull");
  await userEvent.type(along, "0");
  await userEvent.clear(along);
  expect(told.mock.lastCall?.[0].stations[0].pathM).toBeUndefined();
});

it("reads corners as lines of two numbers, and says which it cannot read", async () => {
  const told = vi.fn();
  show(
    <Kept start={{ outer: [], marginM: 0, radiusM: 0, count: 1 } as Schemas["AreaOutline"]} told={told}>
      {(v, set) => <OutlineFields path="o" outline={v} set={set} />}
    </Kept>,
  );
  const text = screen.getByLabelText("Corners, x and y in m, one a line");
  fireEvent.change(text, { target: { value: "0, 0\n2;0\n\n2 1.5" } });
  expect(told.mock.lastCall?.[0].outer).toEqual([
    { x: 0, y: 0 },
    { x: 2, y: 0 },
    { x: 2, y: 1.5 },
  ]);
  fireEvent.change(text, { target: { value: "0, 0\nwide" } });
  expect(screen.getByRole("alert").textContent).toContain("two lengths");
  expect(Object.keys(unsendable(told.mock.lastCall?.[0]))).toEqual(["outer[1].x", "outer[1].y"]);
  await userEvent.click(screen.getByText("Undo the last corner"));
  expect(told.mock.lastCall?.[0].outer).toEqual([{ x: 0, y: 0 }]);
});

it("draws holes beside the outline", async () => {
  const told = vi.fn();
  const outer = [
    { x: 0, y: 0 },
    { x: 3, y: 0 },
    { x: 3, y: 2 },
  ];
  show(
    <Kept start={{ outer, marginM: 0, radiusM: 0, count: 1 } as Schemas["AreaOutline"]} told={told}>
      {(v, set) => <OutlineFields path="o" outline={v} set={set} />}
    </Kept>,
  );
  await userEvent.click(screen.getByText("Add a hole"));
  fireEvent.change(screen.getByLabelText("Corners, x and y in m, one a line"), {
    target: { value: "1 0.2\n2 0.2\n2 0.6" },
  });
  expect(told.mock.lastCall?.[0].outer).toEqual(outer);
  expect(told.mock.lastCall?.[0].holes).toHaveLength(1);
  expect(screen.getAllByRole("tab").map((t) => t.textContent)).toEqual(["Outline", "Hole 1"]);
  expect(document.querySelectorAll("[data-testid=trace] circle")).toHaveLength(3);
  await userEvent.click(screen.getByText("Remove this hole"));
  expect(told.mock.lastCall?.[0].holes).toEqual([]);
});

it("adds a corner where the grid is pressed, on a 5 cm step", () => {
  const told = vi.fn();
  show(
    <Kept start={{ outer: [], marginM: 0, radiusM: 0, count: 1 } as Schemas["AreaOutline"]} told={told}>
      {(v, set) => <OutlineFields path="o" outline={v} set={set} />}
    </Kept>,
  );
  const svg = screen.getByTestId("trace");
  svg.getBoundingClientRect = () => ({ left: 0, top: 0, width: 640, height: 400 }) as DOMRect;
  // 3 m wide from −0.2 m: 213.3 px a metre; 400 px is −0.2 m at the bottom.
  fireEvent.pointerDown(svg, { clientX: 213.3 * 1.21, clientY: 400 - 213.3 * 0.72 });
  expect(told.mock.lastCall?.[0].outer).toEqual([{ x: 1, y: 0.5 }]);
});

it("takes a zone, a group or all of a model", async () => {
  const told = vi.fn();
  const model = { id: "m", name: "Hull", areas: { groups: { "fin: port": 2 } } } as unknown as Schemas["Model"];
  show(
    <Kept start={{ modelId: "m" } as Schemas["AreaModel"]} told={told}>
      {(v, set) => <ModelFields path="m" model={v} set={set} models={[model]} zones={["bottom"]} />}
    </Kept>,
  );
  const what = screen.getByLabelText("What of it");
  await userEvent.selectOptions(what, "zone:bottom");
  expect(told.mock.lastCall?.[0]).toEqual({ modelId: "m", zone: "bottom" });
  await userEvent.selectOptions(what, "group:fin: port");
  expect(told.mock.lastCall?.[0]).toEqual({ modelId: "m", groups: ["fin: port"] });
  await userEvent.selectOptions(what, "all");
  expect(told.mock.lastCall?.[0]).toEqual({ modelId: "m" });
});

it("says where to add a model when there is none", () => {
  show(<ModelFields path="m" model={{ modelId: "" }} set={() => {}} models={[]} zones={[]} />);
  expect(screen.getByText(/no 3-D file or table of offsets yet/)).toBeTruthy();
});

const stated = (areaM2: number): Measure => ({ method: "stated", areaM2, uncertaintyPct: 5 });
const measured = (measures: Measure[], chosen: number): Edit => ({
  ...newSurface(),
  name: "Deck",
  part: "deck",
  measured: { measures, chosen },
});

function side(edit: Edit, told: (e: Edit) => void, found?: Schemas["AreaAssessment"]) {
  return show(
    <Kept start={edit} told={told}>
      {(v, set) => (
        <Measuring edit={v} change={(e) => set({ ...v, ...e })} words={words} survey={survey} found={found} />
      )}
    </Kept>,
  );
}

it.each([
  [0, 2, 1], // the one before goes: the choice moves up with its measurement
  [2, 2, 1], // the chosen one itself, the last: the one before it
  [2, 0, 0], // one after it: stays
])("removing measurement %i with %i chosen leaves %i chosen", async (drop, chosen, left) => {
  const told = vi.fn();
  side(measured([stated(1), stated(2), stated(3)], chosen), told);
  await userEvent.click(screen.getByLabelText(`Remove measurement ${drop + 1}`));
  expect(told.mock.lastCall?.[0].measured.chosen).toBe(left);
  expect(told.mock.lastCall?.[0].measured.measures).toHaveLength(2);
});

it("offers principal dimensions only for parts that have a rule", () => {
  side(measured([stated(1)], 0), vi.fn());
  expect(within(screen.getByLabelText("Measurement 1, by")).queryByText("principal dimensions")).toBeTruthy();
  side({ ...measured([stated(1)], 0), part: "other" }, vi.fn());
  const lists = screen.getAllByLabelText("Measurement 1, by");
  expect(within(lists[1] as HTMLElement).queryByText("principal dimensions")).toBeNull();
});

it("shows every figure with its ±, warns of a disagreement, lets one count or all", async () => {
  const told = vi.fn();
  side(measured([stated(10), stated(14)], 0), told, {
    ...figure(10),
    figures: [figure(10), figure(14)],
    disagreeing: [
      {
        a: 0,
        b: 1,
        text: [{ text: "Stated and stated differ by " }, { value: 4, unit: "m²", digits: 0 }, { text: "." }],
      },
    ],
  });
  expect(screen.getByTestId("area-found").textContent).toContain("10.0 m² ±5.0 %");
  expect(screen.getByRole("alert").textContent).toContain("differ by 4 m²");
  await userEvent.click(screen.getByLabelText("Measurement 2 counts"));
  expect(told.mock.lastCall?.[0].measured.chosen).toBe(1);
  await userEvent.click(screen.getByLabelText("combine all by their ±"));
  expect(told.mock.lastCall?.[0].measured.combine).toBe(true);
  expect(screen.queryByLabelText("Measurement 2 counts")).toBeNull();
  await userEvent.selectOptions(screen.getByLabelText("Measurement 1, by"), "girths");
  expect(told.mock.lastCall?.[0].measured.measures[0].girths.stations).toHaveLength(3);
});

const layer = (colour: string): Schemas["SurveyLayer"] => ({
  kind: "unknown",
  colour,
  um: 50,
  soundness: "sound",
  note: "",
});
const layered = (colours: string[], stop: number): Edit => ({
  ...newSurface(),
  findings: { layers: colours.map(layer), stop, moisture: [], veneerMM: 0 },
});

function old(edit: Edit, told: (e: Edit) => void) {
  return show(
    <Kept start={edit} told={told}>
      {(v, set) => (
        <Layers
          edit={v}
          change={(e) => set({ ...v, ...e })}
          words={words}
          cautions={[[{ text: "Test it for lead." }]]}
        />
      )}
    </Kept>,
  );
}

it("lists old layers as they lie, the outermost on top, with their cautions", () => {
  old(layered(["white", "blue"], 1), vi.fn());
  expect(screen.getAllByLabelText<HTMLInputElement>("Colour").map((c) => c.value)).toEqual(["blue", "white"]);
  expect(screen.getByText("Test it for lead.")).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>("Layer 1 must stay").checked).toBe(true);
});

it("moves the line that must not be passed with its layer when one below is removed", async () => {
  const told = vi.fn();
  old(layered(["white", "grey", "blue"], 2), told);
  await userEvent.click(screen.getByLabelText("Remove layer 1"));
  expect(told.mock.lastCall?.[0].findings.stop).toBe(1);
  await userEvent.click(screen.getByLabelText("Remove layer 2"));
  expect(told.mock.lastCall?.[0].findings.stop).toBe(1);
  await userEvent.click(screen.getByText(/all may go/));
  expect(told.mock.lastCall?.[0].findings.stop).toBe(0);
});

it("swaps layers and keeps moisture readings", async () => {
  const told = vi.fn();
  old(layered(["white", "blue"], 0), told);
  await userEvent.click(screen.getByLabelText("Layer 1 up"));
  expect(told.mock.lastCall?.[0].findings.layers.map((l: { colour: string }) => l.colour)).toEqual(["blue", "white"]);
  await userEvent.click(screen.getByText("Add a moisture reading"));
  await userEvent.type(screen.getByLabelText("Reading 1, where"), "keel");
  await userEvent.type(screen.getByLabelText("Moisture"), "14");
  expect(told.mock.lastCall?.[0].findings.moisture).toEqual([{ where: "keel", pct: 14 }]);
});

it("asks the server to make layers of rings and puts them on top", async () => {
  const calls = answers({ "POST /api/rings": [layer("red"), layer("green")] });
  const told = vi.fn();
  old(layered(["white"], 1), told);
  await userEvent.type(screen.getByLabelText("Rings of colour that sanding showed"), "green, red");
  await userEvent.click(screen.getByText("Make layers of them"));
  await waitFor(() => expect(told).toHaveBeenCalled());
  expect(calls[0]?.body).toEqual({ rings: "green, red" });
  expect(told.mock.lastCall?.[0].findings.layers.map((l: { colour: string }) => l.colour)).toEqual([
    "white",
    "red",
    "green",
  ]);
  expect(told.mock.lastCall?.[0].findings.stop).toBe(1);
});
