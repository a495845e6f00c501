// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it } from "vitest";
import { Route, Switch } from "wouter";
import type { Schemas } from "../../api/client";
import { answers, DESCRIBED, show } from "../../testing";
import { Finishes } from "./Finishes";
import { readAt, writeAt } from "./useWork";

const working = { inputs: [], steps: [], warnings: [] };
const place = {
  id: "p",
  name: "Yard",
  timeZone: "Europe/London",
  latitudeDeg: 52,
  longitudeDeg: 1,
  weatherSource: "simulated",
  version: 1,
};
const surface = (id: string, name: string, substrate: string, crafts: string[]) => ({
  id,
  name,
  substrate,
  substrateName: substrate,
  crafts,
});
const survey = {
  boat: { id: "b", name: "Tern" },
  place,
  surfaces: [
    surface("d", "Deck", "grp", ["non-skid", "moulded"]),
    surface("h", "Bottom", "grp", ["antifouling"]),
    surface("m", "Mast", "solid-wood", ["brightwork"]),
  ],
};
const head = { version: 2, boatId: "b", place, trouble: [], handovers: [], steps: [], product: "a product" };
const square = (x: number) => [
  {
    outer: [
      { x, y: -0.5 },
      { x: x + 1, y: -0.5 },
      { x: x + 1, y: 0.5 },
      { x, y: 0.5 },
    ],
  },
];
const panel = (name: string, order: number, x: number, flag = ""): Schemas["NonskidPanel"] => ({
  name,
  order,
  flag,
  shape: order > 0 ? square(x) : [],
  label: { x: x + 0.5, y: 0 },
  areaM2: order > 0 ? 1 : 0,
  cellM2: 1.2,
  maskM: 4,
  lengthM: 1,
  widthM: 1,
  minutes: 15,
  amount: 0.4,
});
const deck = {
  ...head,
  surface: survey.surfaces[0],
  says: [{ text: "Two panels." }],
  sketch: [],
  work: {
    deck: square(0),
    symmetric: true,
    edgeM: 0.05,
    openingM: 0.04,
    outsideRM: 0.04,
    insideRM: 0.04,
    tapeMM: 19,
    fittings: [
      { name: "", kind: "cleat", x: 0.5, y: 0.2, lengthM: 0.2, widthM: 0.1, turnDeg: 0, round: false, mirror: false },
    ],
    splits: [],
    school: "paint",
    texture: { tool: "roller", grade: "medium", widthMM: 3, pitchMM: 6, depthMM: 3, wastePct: 8 },
    sheet: { lengthM: 2, widthM: 1, oneWay: false, spaceM: 0 },
    productId: "",
    rateM2H: 4,
    laid: { S1: 0.6 },
  },
  result: {
    deck: square(0),
    fittings: [],
    gaps: [],
    panels: [panel("S1", 2, 0), panel("P1", 1, 2), panel("C1", 0, 3, "the margins leave nothing of it")],
    findings: [{ stop: true, text: "The stencil lies on no panel: move it." }],
    deckM2: 3,
    areaM2: 2,
    maskM: 8,
    twiceM: 1,
    hours: 0.5,
    takes: { litres: 0.9, gritKg: 0, perM2: 0.4, unit: "L", tapeM: 10, spread: "Roll it on." },
    even: [{ panel: "S1", planned: 0.4, laid: 0.6, perM2: 0.6, offPct: 50, says: "coarser than the others" }],
    working,
  },
  ribbon: {
    now: "2026-05-09T08:00:00Z",
    from: "2026-05-08T08:00:00Z",
    to: "2026-05-12T08:00:00Z",
    hours: [],
    light: [],
    faces: [],
  },
  field: { hours: [], windows: [], working },
};
const words = {
  schools: [{ key: "paint", name: "textured paint", why: "One material." }],
  fittings: [{ key: "cleat", name: "cleat", marginM: 0.025, lengthM: 0.25, widthM: 0.08, round: false }],
  grades: [{ key: "medium", name: "medium", litreM2: 0.4, kgM2: 0.6 }],
  bright: [],
  dusts: [],
  strips: [],
  olds: [{ key: "primed", name: "primed" }],
  profiles: [],
  metals: [],
  compounds: [{ key: "butyl", name: "butyl tape", note: "" }],
  tapes: [{ key: "crepe", name: "crêpe", stayH: 24 }],
};
const at = "/api/surfaces/d/finishes/non-skid";
const routes = (more: Record<string, unknown> = {}) => ({
  "GET /api/meta": DESCRIBED,
  "GET /api/boats/b/survey": survey,
  "GET /api/finishes": words,
  "GET /api/products": [],
  [`GET ${at}`]: deck,
  ...more,
});
const open = (query: string) =>
  show(
    <Switch>
      <Route path="/boats/:boatId/finishes">
        <Finishes />
      </Route>
    </Switch>,
    `/boats/b/finishes${query}`,
  );

it("reads and writes work by path without changing what it was given", () => {
  const work = { zones: [{ name: "a", areaM2: 1 }], seams: undefined as unknown };
  expect(readAt(work, "zones[0].areaM2")).toBe(1);
  const next = writeAt(work, "zones[0].areaM2", 2);
  expect(next.zones[0]?.areaM2).toBe(2);
  expect(work.zones[0]?.areaM2).toBe(1);
  expect(writeAt(work, "zones[1]", { name: "b", areaM2: 3 }).zones).toHaveLength(2);
  expect("name" in (writeAt(work, "zones[0].name", undefined).zones[0] ?? {})).toBe(false);
});

it("lists panels in their order, what is wrong with one, and how even they are", async () => {
  answers(routes());
  open("?craft=non-skid");
  const rows = within(await screen.findByTestId("panels")).getAllByRole("row");
  expect(rows[1]?.textContent).toContain("1. P1");
  expect(rows[2]?.textContent).toContain("+50 %: coarser than the others");
  expect(rows[3]?.textContent).toContain("✗ the margins leave nothing of it");
  expect(screen.getByTestId("findings").textContent).toContain("✗ The stencil lies on no panel");
  expect(screen.getByRole("group", { name: /bow to the right, 3 panels/ })).toBeTruthy();
  expect(within(screen.getByTestId("panels")).getAllByText("DXF")).toHaveLength(2);
});

it("previews a change, keeps it by itself under its version, and goes back on it", async () => {
  const changed = { ...deck, says: [{ text: "One panel." }] };
  const calls = answers(routes({ [`POST ${at}`]: changed, [`PUT ${at}`]: { ...changed, version: 3 } }));
  open("?craft=non-skid");
  const edge = await screen.findByLabelText("Along rails and edges");
  await userEvent.clear(edge);
  await userEvent.type(edge, "0.1");
  await screen.findByText("One panel.");
  await screen.findByText("keeping…");
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true), { timeout: 4000 });
  expect(calls.find((c) => c.method === "PUT")?.body).toMatchObject({ edgeM: 0.1 });
  await userEvent.click(screen.getByRole("button", { name: "Undo" }));
  await waitFor(
    () => expect(calls.filter((c) => c.method === "PUT").at(-1)?.body).toMatchObject({ edgeM: deck.work.edgeM }),
    {
      timeout: 4000,
    },
  );
});

it("shows a refused preview at its field and the last good answer with it", async () => {
  answers(
    routes({
      [`POST ${at}`]: {
        status: 422,
        title: "Unprocessable",
        errors: [{ location: "body.edgeM", message: "must be between 0 m and 1 m" }],
      },
    }),
  );
  open("?craft=non-skid");
  const edge = await screen.findByLabelText("Along rails and edges");
  await userEvent.clear(edge);
  await userEvent.type(edge, "7");
  await waitFor(() =>
    expect(document.querySelector("[data-field=edgeM]")?.textContent).toContain("must be between 0 m and 1 m"),
  );
  expect(screen.getByTestId("panels")).toBeTruthy();
  expect(screen.getByText("not kept: see what is marked")).toBeTruthy();
});

it("offers the surfaces that a craft suits first, and says when there is none", async () => {
  answers(routes());
  open("?craft=metal");
  await screen.findByText("No surface of hers is one that metal is done on.");
  const options = within(screen.getByLabelText("Surface")).getAllByRole("option");
  expect(options[0]?.textContent).toBe("none that metal suits");
  expect(options[1]?.textContent).toBe("Deck (grp)");
});

it("stacks the coats of a zone from below, the signal colour marked", async () => {
  const zone = (name: string, colours: string[]) => ({
    name,
    areaM2: 5,
    extra: 0,
    coats: colours.length,
    dftUm: 100,
    litres: 1,
    seasons: 2,
    colours,
  });
  answers(
    routes({
      "GET /api/surfaces/h/finishes/antifouling": {
        ...head,
        surface: survey.surfaces[1],
        says: [{ text: "Two seasons." }],
        tempC: 12,
        now: "2026-05-09T08:00:00Z",
        work: {
          productId: "",
          coats: 2,
          zones: [],
          old: "primed",
          oldCopper: false,
          tieId: "",
          first: "red",
          second: "black",
          habit: 0,
          nm: 0,
          seasons: 1,
          brass: false,
        },
        result: {
          steps: [],
          takes: [],
          findings: [],
          cautions: ["Dust is toxic."],
          working,
          zones: [zone("flats", ["red", "black"]), zone("edges", ["black", "red", "black"])],
          areaM2: 10,
          litres: 2,
          seasons: 2,
          first: "edges",
          need: 1,
          tie: "A thumb tells.",
          tieLaid: false,
          tieOpens: "2026-05-09T12:00:00Z",
          tieCloses: "2026-05-09T18:00:00Z",
          dryH: 12,
          maxH: 0,
          lastFrom: "2025-12-01T12:00:00Z",
          lastTo: "2026-05-30T00:00:00Z",
          wear: "When red shows, it is worn.",
        },
      },
    }),
  );
  open("?craft=antifouling");
  const texts = [...(await screen.findByTestId("zones")).querySelectorAll("text")].map(
    (t) => [t.textContent, Number(t.getAttribute("y"))] as const,
  );
  expect(texts.map(([c]) => c)).toEqual(["red", "black", "black", "red", "black"]);
  expect(texts[0]?.[1]).toBeGreaterThan(texts[1]?.[1] ?? 0);
  const windows = screen.getByTestId("windows").textContent;
  expect(windows).toContain("Sat 9 May, 13:00 to Sat 9 May, 19:00");
  expect(windows).toContain("no end by the sheet");
  expect(windows).not.toContain("from Mon 1 Dec");
});

it("ticks a snag off with a large box", async () => {
  const refit = {
    ...head,
    now: "2026-05-09T08:00:00Z",
    says: [{ text: "1 snag open." }],
    surfaces: [{ id: "d", name: "Deck", productId: "", next: "" }],
    work: { hardware: [], lines: [], snags: [{ text: "a run", surfaceId: "d", stops: true, done: false }] },
    result: {
      steps: [],
      takes: [],
      findings: [],
      cautions: [],
      working,
      bedding: [],
      lines: [],
      ready: [],
      tapeM: 0,
      open: 1,
      stops: 1,
    },
  };
  const calls = answers(
    routes({ "GET /api/boats/b/finishes/refit": refit, "POST /api/boats/b/finishes/refit": refit }),
  );
  open("?craft=refit");
  const snags = await screen.findByTestId("snags");
  expect(snags.textContent).toContain("stops the launch: a run Deck");
  await userEvent.click(within(snags).getByRole("checkbox"));
  await waitFor(() =>
    expect(
      (calls.find((c) => c.method === "POST")?.body as { snags: { done: boolean }[] } | undefined)?.snags[0]?.done,
    ).toBe(true),
  );
});
