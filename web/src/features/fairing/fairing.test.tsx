// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it } from "vitest";
import { Route, Switch } from "wouter";
import type { Schemas } from "../../api/client";
import { answers, show } from "../../testing";
import { Fairing } from "./Fairing";

const working = { inputs: [], steps: [], warnings: [] };
const classes = [
  { key: "work", name: "work boat", gapMM: 3, lows: 6, worth: 2 },
  { key: "yard", name: "yard finish", gapMM: 1.5, lows: 2, worth: 1 },
];
const outlook = (more = {}) => ({
  fitted: false,
  ratio: 0.45,
  left: 0,
  leftLow: 0,
  leftHigh: 0,
  hoursLeft: 0,
  allowed: 2,
  enough: false,
  stopAfter: 0,
  course: [],
  working,
  ...more,
});

const handover = {
  surfaceId: "s",
  surface: "Side",
  steps: [],
  findings: [],
  mind: [],
  changes: [{ was: [], will: [{ text: "6 × Varnish, keyed with 320" }] }],
  sum: { tookH: 0, tookL: 0, leftH: 6, leftL: 12, left: 1 },
};

const set: Schemas["Fairing"] = {
  id: "f",
  version: 3,
  round: 2,
  readAt: "2026-05-09T08:00:00Z",
  battenM: 1,
  spacingM: 0.2,
  rowsM: 0.3,
  gaps: [
    [0, 2, 1],
    [1, null, 0],
    [0, 1, 0],
  ],
  maxFillMM: 5,
  maxGrindMM: 1,
  stiffnessM: 0.8,
  class: "yard",
  says: [{ text: "Fill 1 L." }],
  heights: [
    [0, -2, -1],
    [-1, null, 0],
    [0, -1, 0],
  ],
  patches: [],
  contours: [],
  notes: [],
  depth: [
    [0, 1.5, 0.5],
    [0.5, null, -0.4],
    [0, 0.5, 0],
  ],
  result: {
    fillL: 1,
    grindL: 0.1,
    fillM2: 1,
    grindM2: 0.2,
    maxFillMM: 1.5,
    maxGrindMM: 0.4,
    beforeMM: 2,
    afterMM: 0.2,
    targetMM: 1.5,
    areaM2: 0.24,
  },
  curves: [
    { stiffnessM: 0.4, fillL: 0.7, grindL: 0, maxFillMM: 1, afterMM: 0.9, chosen: false },
    { stiffnessM: 0.8, fillL: 1, grindL: 0.1, maxFillMM: 1.5, afterMM: 0.2, chosen: true },
  ],
  jobs: [
    {
      school: {
        key: "heavy",
        name: "few heavy coats",
        why: "fewer waits",
        risk: "slumps",
        passMM: 0,
        proudMM: 0.6,
        layLH: 3,
        boardM2H: 1,
      },
      passes: 1,
      litres: 1.4,
      kg: 1,
      hours: 2,
      passMM: 10,
      ready: "2026-05-11T10:00:00Z",
      days: 2.1,
      lateDays: 3.4,
      handover,
      working,
    },
    {
      school: {
        key: "skims",
        name: "many thin skims",
        why: "no slumps",
        risk: "waits",
        passMM: 1.5,
        proudMM: 0.2,
        layLH: 2,
        boardM2H: 3,
      },
      passes: 2,
      litres: 1.2,
      kg: 0.9,
      hours: 3,
      passMM: 1.5,
      days: 3.2,
      lateDays: 0,
      handover,
      working,
    },
  ],
  product: "Light filler",
  cureH: 14,
  surfaceC: 15,
  stand: "A flat face takes a soft mix",
  short: "",
} as unknown as Schemas["Fairing"];

const view = (more: Record<string, unknown> = {}) => ({
  surface: { id: "s", name: "Deck", area: { areaM2: 12 } },
  classes,
  sets: [],
  rounds: [],
  outlook: outlook(),
  roundsSay: [{ text: "No round of fairing is logged on this surface yet." }],
  lows: [],
  ...more,
});

const box = [
  { x: 0, y: 0 },
  { x: 4, y: 0 },
  { x: 4, y: 1 },
  { x: 0, y: 1 },
];

function open(v: Record<string, unknown>, at = "/boats/b/fairing", routes: Record<string, unknown> = {}) {
  const calls = answers({
    "GET /api/boats/b/survey": {
      boat: { id: "b" },
      place: { timeZone: "UTC" },
      views: [
        {
          name: "starboard side",
          up: true,
          mirror: false,
          shapes: [{ surfaceId: "s", points: box, label: { x: 2, y: 0.5 } }],
          lines: [],
          min: { x: 0, y: 0 },
          max: { x: 4, y: 1 },
        },
      ],
      surfaces: [{ id: "s", version: 7, name: "Deck", findings: { layers: [], stop: 0, moisture: [], veneerMM: 0 } }],
    },
    "GET /api/surfaces/s/fairing": v,
    "GET /api/products": [],
    ...routes,
  });
  show(
    <Switch>
      <Route path="/boats/:boatId/fairing">
        <Fairing />
      </Route>
      <Route path="/boats/:boatId/build-up">
        <p>the build-up</p>
      </Route>
    </Switch>,
    at,
  );
  return calls;
}

it("takes gaps in the order of the walk and leaves out what was not read", async () => {
  const calls = open(view(), undefined, { "PUT /api/surfaces/s/fairing": view({ now: set }) });
  await userEvent.click(await screen.findByRole("button", { name: "Read the first gaps" }));
  await userEvent.selectOptions(await screen.findByRole("combobox", { name: "Read" }), "grid");
  const first = await screen.findByRole("textbox", { name: "Row 1, reading 1, mm" });
  await userEvent.click(first);
  await userEvent.keyboard("1,5{Enter}0{Enter}-{Enter}2{Enter}");
  await userEvent.click(screen.getByRole("button", { name: "Find the fair surface" }));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  const body = calls.find((c) => c.method === "PUT")?.body as Schemas["FairingEdit"];
  expect(body.id).toBe("");
  expect(body.value.gaps?.[0]?.slice(0, 5)).toEqual([1.5, 0, null, 2, null]);
  expect(body.value.gaps).toHaveLength(4);
});

// Half over: five readings of a metre, the edge moved on by half of it.
it("takes gaps by thumb, and moves the edge on by itself", async () => {
  const calls = open(view(), undefined, { "PUT /api/surfaces/s/fairing": view({ now: { ...set, gaps: [] } }) });
  await userEvent.click(await screen.findByRole("button", { name: "Read the first gaps" }));
  const spacing = await screen.findByRole("textbox", { name: /^Between readings/ });
  await userEvent.clear(spacing);
  await userEvent.type(spacing, "0.25");
  const press = (name: string) => userEvent.click(screen.getByRole("button", { name }));
  expect(screen.getByTestId("walk").textContent).toContain("Placement 1, reading 1 of 5");
  for (const key of ["touching", "1", "same", "not read", "2.5"]) await press(key);
  expect(screen.getByTestId("walk").textContent).toContain("Move the edge on: it begins at 0.5");
  await userEvent.type(screen.getByLabelText("Another gap, mm"), "3,2{Enter}");
  await press("touching");
  await press("Take the last reading back");
  await press("Find the fair surface");
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  const value = (calls.find((c) => c.method === "PUT")?.body as Schemas["FairingEdit"] | undefined)?.value;
  expect(value?.errorMM).toBe(0.25);
  expect(value?.lines?.[0]?.placements).toEqual([
    { startM: 0, gapsMM: [0, 1, 1, null, 2.5] },
    { startM: 0.5, gapsMM: [3.2] },
  ]);
});

it("shows where a reading is refused", async () => {
  open(view({ now: set }), undefined, {
    "PUT /api/surfaces/s/fairing": {
      status: 422,
      title: "x",
      errors: [{ location: "body.value.gaps[0][1]", message: "a gap is not below nothing" }],
    },
  });
  await userEvent.click(await screen.findByRole("button", { name: "Find the fair surface" }));
  expect(await screen.findAllByText(/a gap is not below nothing/)).not.toHaveLength(0);
});

it("draws filling and grinding apart, both schools and the curves, and plans one", async () => {
  const calls = open(view({ now: set, sets: [{ id: "f", round: 2, readAt: "2026-05-09T08:00:00Z" }] }), undefined, {
    "POST /api/fairings/f/plan": {},
  });
  const map = await screen.findByTestId("fair-map");
  expect(map.querySelectorAll("[data-depth]")).toHaveLength(9);
  expect(map.querySelector('[data-depth="1.5"]')?.textContent).toBe("+1.5");
  expect(map.querySelector('[data-depth="-0.4"]')?.textContent).toBe("−0.4");
  expect(map.querySelector('[data-depth="-0.4"] rect[fill="url(#grind)"]')).toBeTruthy();
  expect(within(screen.getByTestId("curves")).getByText("(chosen)")).toBeTruthy();
  const schools = screen.getByTestId("schools");
  expect(within(schools).getAllByRole("button", { name: "Plan it" })).toHaveLength(2);
  await userEvent.click(within(schools).getAllByRole("button", { name: "Plan it" })[1] as HTMLElement);
  expect(await screen.findByText("the build-up")).toBeTruthy();
  expect(calls.find((c) => c.path.endsWith("/plan"))?.body).toEqual({ school: "skims" });
});

it("begins the next round beside the ones before", async () => {
  open(view({ now: set, sets: [{ id: "f", round: 2, readAt: "2026-05-09T08:00:00Z" }] }));
  await userEvent.click(await screen.findByRole("button", { name: "next round" }));
  expect(screen.getByText("A new set of gaps")).toBeTruthy();
  expect((screen.getByRole("textbox", { name: /^Round/ }) as HTMLInputElement).value).toBe("3");
  expect(screen.getByRole("button", { name: "round 2" })).toBeTruthy();
});

it("says how many rounds are left, or that it is fair enough", async () => {
  open(
    view({
      rounds: [{ n: 1, lows: 40, pinholes: 9, litres: 1, hours: 5, grit: 80 }],
      roundsSay: [{ text: "One more round: about 4 h for 55 % of the lows that are left." }],
      outlook: outlook({
        left: 1,
        stopAfter: 3,
        course: [
          { n: 1, lows: 40, pinholes: 9, ahead: false },
          { n: 2, lows: 18, pinholes: 4, ahead: true },
        ],
      }),
    }),
    "/boats/b/fairing?view=rounds",
  );
  expect((await screen.findByRole("heading", { level: 1 })).textContent).toContain("for 55 % of the lows");
  expect(screen.getByTestId("course").querySelectorAll("circle")).toHaveLength(2);
  expect(screen.getByText(/After round 3 an hour takes fewer lows away/)).toBeTruthy();
});

it("practises: what was done is sent as a whole, and the reason is told", async () => {
  const state = {
    hollowMM: 3,
    proudMM: 0,
    filmUm: 160,
    scratchUm: 40,
    curedH: 0,
    passes: 1,
    papers: 0,
    hours: 0.3,
    painted: false,
    through: false,
    last: "hard",
    said: ["3 mm are left"],
    verdict: "",
  };
  const day = {
    seed: 1,
    product: "topcoat",
    limits: "air from 8 °C",
    hour: 11,
    hours: Array.from({ length: 24 }, (_, hour) => ({ hour, airC: 12, rhPct: 70, surfaceC: 11, dewC: 6, rainMM: 0 })),
  };
  const calls = open(view(), "/boats/b/fairing?view=practice", {
    "POST /api/practice/panel": state,
    "GET /api/practice/day": day,
    "POST /api/practice/day": { right: false, coat: true, reason: "It holds." },
  });
  await userEvent.click(await screen.findByRole("button", { name: "Hard filler, 4 mm" }));
  await userEvent.click(screen.getByRole("button", { name: "Wait 24 h" }));
  await waitFor(() =>
    expect(calls.filter((c) => c.path.endsWith("/panel")).at(-1)?.body).toEqual({
      moves: [
        { do: "fill", filler: "hard", mm: 4 },
        { do: "wait", hours: 24 },
      ],
    }),
  );
  expect(screen.getByText("3 mm are left")).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Take the last step back" }));
  await waitFor(() =>
    expect(calls.filter((c) => c.path.endsWith("/panel")).at(-1)?.body).toEqual({
      moves: [{ do: "fill", filler: "hard", mm: 4 }],
    }),
  );
  await userEvent.click(screen.getByRole("button", { name: "Leave it" }));
  expect(await screen.findByText("Not so.")).toBeTruthy();
  expect(screen.getByText("0 of 1 right")).toBeTruthy();
});

it("warns where sanding goes through", async () => {
  open(view(), "/boats/b/fairing?view=sanding", {
    "GET /api/surfaces/s/sanding": {
      says: [{ text: "Deck: 80, 120." }],
      steps: [
        { grit: 80, removedUm: 50, hours: 1.5, discs: 8, why: "cuts level" },
        { grit: 120, removedUm: 50, hours: 1, discs: 8, why: "till no scratch of 80 is seen" },
      ],
      tool: { key: "board", name: "Long board", rate: 0.5, note: "both ways" },
      removedUm: 100,
      hours: 2.5,
      margins: [
        { place: "flats", leftUm: 40, through: false },
        { place: "edges", leftUm: -60, through: true },
      ],
      waterChanges: 0,
      clogs: [{ text: "If the paper clogs it is not cured." }],
      dust: "P3 mask",
      notes: [],
      working,
      from: 80,
      to: 120,
      ready: false,
      green: "2026-05-09T12:00:00Z",
      next: "primer",
      filmUm: 140,
    },
  });
  const margins = await screen.findByTestId("margins");
  expect(within(margins).getByText(/✓ flats/)).toBeTruthy();
  expect(within(margins).getByText(/✗ edges/).textContent).toContain("it goes through");
  expect(screen.getByText(/Ridges may be knocked down, green, from Sat/)).toBeTruthy();
});

const surface = async () => (await screen.findByTestId("hull-map")).querySelector("[data-surface]") as SVGElement;
const at = (x: number, y: number) => ({ clientX: 10 + x * 220, clientY: 10 + (1 - y) * 220 }); // 900 wide: 4 m in 880

it("places a line by its two ends, and circles a low with a stroke", async () => {
  const calls = open(view(), undefined, { "PUT /api/surfaces/s/fairing": view({ now: { ...set, gaps: [] } }) });
  await userEvent.click(await screen.findByRole("button", { name: "Read the first gaps" }));
  await userEvent.click(await screen.findByRole("button", { name: "Place line 1" }));
  const maps = () => screen.getAllByTestId("hull-map");
  const drawn = () => maps().at(-1)?.querySelector("[data-surface]") as SVGElement;
  fireEvent.click(drawn(), at(1, 0.5));
  expect(screen.getByText("Now press where line 1 ends.")).toBeTruthy();
  fireEvent.click(drawn(), at(3, 0.5));
  await userEvent.click(screen.getByRole("button", { name: "Circle a low" }));
  fireEvent.pointerDown(drawn(), at(2, 0.2));
  for (const [x, y] of [
    [2.2, 0.2],
    [2.2, 0.4],
    [2, 0.4],
  ] as const)
    fireEvent.pointerMove(drawn(), at(x, y));
  fireEvent.pointerUp(drawn(), at(2, 0.2));
  await userEvent.selectOptions(screen.getByRole("combobox", { name: "Found" }), "light");
  await userEvent.click(screen.getByRole("button", { name: "Find the fair surface" }));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  const value = (calls.find((c) => c.method === "PUT")?.body as Schemas["FairingEdit"] | undefined)?.value;
  expect(value?.lines?.[0]?.on).toEqual({ view: "starboard side", from: { x: 1, y: 0.5 }, to: { x: 3, y: 0.5 } });
  expect(value?.lows).toEqual([
    {
      name: "",
      view: "starboard side",
      by: "light",
      depthMM: 2,
      points: [
        { x: 2, y: 0.2 },
        { x: 2.2, y: 0.2 },
        { x: 2.2, y: 0.4 },
        { x: 2, y: 0.4 },
      ],
    },
  ]);
});

it("draws a chine on the surface, and shows depths where they lie", async () => {
  const contours = [{ view: "starboard side", depthMM: 2, rings: [box] }];
  const calls = open(view({ now: { ...set, contours } }), undefined, { "PUT /api/surfaces/s": {} });
  expect((await surface()).closest("svg")?.querySelectorAll("[data-contour]")).toHaveLength(1);
  expect(screen.getByText(/The lines are depths of 2 mm/)).toBeTruthy();
  await userEvent.click(screen.getByText("Hard lines: none is drawn"));
  await userEvent.selectOptions(screen.getByRole("combobox", { name: "Draw" }), "chine");
  fireEvent.click(await surface(), at(0, 0.25));
  fireEvent.click(await surface(), at(4, 0.25));
  await userEvent.click(screen.getByRole("button", { name: "Keep this chine" }));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  const body = calls.find((c) => c.method === "PUT")?.body as { version: number; value: Schemas["SurfaceEdit"] };
  expect(body.version).toBe(7);
  expect(body.value.findings.hardLines).toEqual([
    {
      kind: "chine",
      view: "starboard side",
      points: [
        { x: 0, y: 0.25 },
        { x: 4, y: 0.25 },
      ],
    },
  ]);
});

it("plans the spot-filling of pinholes over the primer", async () => {
  const spots = { rounds: [], outlook: outlook(), says: [{ text: "Fill 60 pinholes one by one." }], handover };
  const calls = open(view({ spots }), "/boats/b/fairing?view=rounds", { "POST /api/surfaces/s/fairing/spots": {} });
  expect((await screen.findByTestId("spots")).textContent).toContain("Fill 60 pinholes");
  await userEvent.click(screen.getByRole("button", { name: "Plan the spot-filling" }));
  expect(await screen.findByText("the build-up")).toBeTruthy();
  expect(calls.some((c) => c.method === "POST")).toBe(true);
});

it("moves the practice edge on, and tells what was there once all is read", async () => {
  const side = { seed: 1, lengthM: 4, edgeM: 1, spacingM: 0.1 };
  const calls = answers({
    "GET /api/boats/b/survey": {
      boat: { id: "b" },
      place: { timeZone: "UTC" },
      views: [],
      surfaces: [{ id: "s", name: "Deck" }],
    },
    "POST /api/practice/edge": {
      ...side,
      placements: [],
      heightsMM: [],
      truthMM: [],
      done: false,
      says: [{ text: "Lay the edge." }],
    },
    "POST /api/practice/panel": {
      said: [],
      passes: 0,
      papers: 0,
      hours: 0,
      curedH: 0,
      hollowMM: 7,
      proudMM: 0,
      verdict: "",
    },
    "GET /api/practice/day": { hours: [], limits: [], product: "", hour: 9, seed: 1 },
    "GET /api/surfaces/s/fairing": view(),
  });
  show(
    <Switch>
      <Route path="/boats/:boatId/fairing">
        <Fairing />
      </Route>
    </Switch>,
    "/boats/b/fairing?view=practice",
  );
  await userEvent.click(await screen.findByRole("button", { name: "Lay the edge" }));
  await userEvent.click(await screen.findByRole("button", { name: "Move it on by half" }));
  await userEvent.click(await screen.findByRole("button", { name: "Move it on by all of it" }));
  await waitFor(() => {
    const asked = calls.filter((c) => JSON.stringify(c.body ?? {}).includes("starts"));
    expect(asked.at(-1)?.body).toEqual({ seed: 1, starts: [0, 0.5, 1.5] });
  });
});
