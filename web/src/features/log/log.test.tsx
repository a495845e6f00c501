// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import "fake-indexeddb/auto";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it } from "vitest";
import { Route, Switch } from "wouter";
import type { Schemas } from "../../api/client";
import { answers, DESCRIBED, kindOf, show, WORKS } from "../../testing";
import { Accounts, groups } from "./Accounts";
import { blank, draftOf, entryOf } from "./draft";
import { Files } from "./Files";
import { Log } from "./Log";
import { Films } from "./Upkeep";

const working = { inputs: [], steps: [], warnings: [] };
const units = { toMetric: (v: number) => v * 25.4, toShown: (v: number) => v / 25.4 };

const entry = (more: Record<string, unknown> = {}): Schemas["Entry"] =>
  ({
    id: "e1",
    version: 1,
    boatId: "b",
    surfaceId: "s",
    surface: "Deck",
    kind: "coat",
    startedAt: "2026-05-08T09:00:00Z",
    productId: "p",
    stepId: "st",
    product: "Primer",
    litres: 2,
    wetUm: [],
    thinnerPct: 0,
    grit: 0,
    removedUm: 0,
    who: "Ada",
    note: "",
    filmUm: 90,
    filmSdUm: 0,
    filmKnown: "litres used",
    working,
    deleted: false,
    flag: "",
    photos: [],
    ...more,
  }) as unknown as Schemas["Entry"];

const blemishes = [
  { key: "runs", name: "runs, sags, curtains", looks: "drips", remedy: "scrape" },
  { key: "pinholes", name: "pinholes", looks: "holes", remedy: "skim" },
];

function open(entries: Schemas["Entry"][], at = "/boats/b/log", routes: Record<string, unknown> = {}) {
  const calls = answers({
    "GET /api/boats/b/today": {
      boat: { id: "b", name: "Tern" },
      place: { id: "pl", timeZone: "UTC" },
      ribbon: { now: "2026-05-09T08:00:00Z" },
      answer: {
        surfaceId: "s",
        clocks: [{ say: "No clock runs: log what is done next." }],
        lanes: [{ surfaceId: "s", surface: "Deck", nextStepId: "st", mix: { litres: 2.634, wftUm: 180 } }],
      },
    },
    "GET /api/boats/b/log": entries,
    "GET /api/meta": { ...DESCRIBED, works: WORKS, log: { blemishes, stiffnesses: [] }, clock: { mode: "fixed" } },
    "GET /api/products": [
      {
        id: "p",
        version: 1,
        sheet: { name: "Primer", kind: "high-build-primer", ratioByVolume: { base: 1, hardener: 1 } },
      },
    ],
    "GET /api/surfaces/s/build-up": {
      steps: [{ id: "st", productId: "p", coats: 2, dftUm: 100, thinnerPct: 0 }],
      done: [1],
      dueUm: 100,
      surface: { area: { areaM2: 12 } },
    },
    "GET /api/boats/b/survey": { surfaces: [], views: [] },
    "GET /api/places/pl/instruments": [{ id: "g", kind: "gauge", name: "Film gauge" }],
    ...routes,
  });
  show(
    <Switch>
      <Route path="/boats/:boatId/log">
        <Log />
      </Route>
    </Switch>,
    at,
  );
  return calls;
}

it("logs a coat with two taps once the form is open, under an id of its own", async () => {
  const calls = open([], undefined, { "POST /api/log": entry() });
  await userEvent.click(await screen.findByRole("button", { name: "Log a coat or other work" }));
  await userEvent.click(await screen.findByRole("button", { name: "It took that" }));
  await userEvent.click(screen.getByRole("button", { name: "Log it" }));
  await waitFor(() => expect(calls.some((c) => c.method === "POST")).toBe(true));
  const body = calls.find((c) => c.method === "POST")?.body as Schemas["NewEntry"];
  expect(body).toMatchObject({ surfaceId: "s", kind: "coat", stepId: "st", productId: "p", litres: 2.63 });
  expect(body.id).toMatch(/^[0-9a-f-]{36}$/);
});

it("asks what the program asks, and sends the answer under the same id", async () => {
  const calls = open([], "/boats/b/log?surface=s", {
    "POST /api/log": {
      status: 422,
      title: "x",
      errors: [
        { location: "body.litres", message: "the shelf has 1 L of it left. If 4 L is right, say so" },
        { location: "body.early", message: "the last coat may be recoated from 12:00: say why it went on before" },
      ],
    },
  });
  await userEvent.type(await screen.findByRole("textbox", { name: /^Litres used/ }), "4");
  await userEvent.click(screen.getByRole("button", { name: "Log it" }));
  await userEvent.type(await screen.findByRole("textbox", { name: /^Why it went on/ }), "rain tomorrow");
  await userEvent.click(screen.getByRole("checkbox", { name: /The litres are right/ }));
  await userEvent.click(screen.getByRole("button", { name: "Log it" }));
  await waitFor(() => expect(calls.filter((c) => c.method === "POST")).toHaveLength(2));
  const [first, second] = calls.filter((c) => c.method === "POST").map((c) => c.body as Schemas["NewEntry"]);
  expect(second).toMatchObject({ id: first?.id, early: "rain tomorrow", beyondShelf: true });
});

it("takes blemishes by tap and readings from a gauge", async () => {
  const calls = open([], "/boats/b/log?surface=s", {
    "POST /api/log": entry(),
    "GET /api/instruments/g/values": [
      { at: "2026-05-09T08:00:00Z", value: 104, unit: "µm" },
      { at: "2026-05-09T08:00:01Z", value: 98, unit: "µm" },
    ],
  });
  await userEvent.click(await screen.findByText("Anything seen on it?"));
  await userEvent.click(screen.getByRole("button", { name: "pinholes" }));
  expect(screen.getByRole("button", { name: "✓ pinholes" }).getAttribute("aria-pressed")).toBe("true");
  await userEvent.click(screen.getByText("Dry film by the gauge"));
  await userEvent.click(await screen.findByRole("button", { name: "Take from Film gauge" }));
  await waitFor(() =>
    expect((screen.getByRole("textbox", { name: /^Readings, µm/ }) as HTMLInputElement).value).toBe("104 98"),
  );
  await userEvent.click(screen.getByRole("button", { name: "Log it" }));
  await waitFor(() => expect(calls.some((c) => c.method === "POST")).toBe(true));
  expect(calls.find((c) => c.method === "POST")?.body).toMatchObject({
    blemishes: ["pinholes"],
    dry: { nominalUm: 100, readingsUm: [104, 98] },
  });
});

it("judges the film, and tells causes and what it was before", async () => {
  const verdict = {
    accepted: false,
    reasons: ["reading-below-80-pct"],
    meanUm: 150,
    below80Pct: 1,
    from80Below100Pct: 0,
    aboveMaximum: 0,
    readingsNeeded: 15,
    working,
  };
  open([entry({ version: 2, verdict, dry: { nominalUm: 200, readingsUm: [150] }, blemishes: ["runs"] })], undefined, {
    "GET /api/log/e1/suspects": [
      {
        key: "runs",
        name: "runs",
        looks: "drips",
        remedy: "scrape",
        causes: [{ text: "laid too thick", told: "300 µm wet" }, { text: "thinned" }],
      },
    ],
    "GET /api/log/e1/history": [{ ...entry({ litres: 5 }), at: "2026-05-08T20:00:00Z" }],
  });
  const said = await screen.findByTestId("verdict");
  expect(said.textContent).toContain("The film is not accepted");
  expect(said.textContent).toContain("a reading is below 80 % of it");
  expect(said.textContent).toContain("1 reading, and this area takes 15");
  await userEvent.click(screen.getByRole("button", { name: /one blemish seen/ }));
  const causes = await screen.findByTestId("causes");
  expect(within(causes).getByText(/laid too thick: 300 µm wet/).className).toContain("font-semibold");
  await userEvent.click(screen.getByRole("button", { name: /corrected: what it was/ }));
  expect((await screen.findByTestId("history")).textContent).toContain("5.00 L");
});

it("keeps what a kind has and leaves out what it has not", () => {
  const d = {
    ...blank("s", "2026-05-09T08:00:00Z", "UTC"),
    wetUm: "8 9",
    litres: 3,
    grit: 120,
    removedUm: 20,
    round: { lows: 7, by: "", verdict: "" },
  };
  const of = (kind: string) =>
    entryOf(
      { ...d, kind },
      { boatId: "b", productId: "p", zone: "UTC", now: "2026-05-09T08:00:00Z", u: units, kind: kindOf(kind) },
    );
  expect(of("coat")).toMatchObject({ productId: "p", litres: 3, grit: 0, removedUm: 0 });
  expect(of("coat").wetUm?.map(Math.round)).toEqual([203, 229]); // mil as shown, µm as stored
  expect(of("sand")).toMatchObject({ litres: 0, grit: 120, removedUm: 20, wetUm: [] });
  expect(of("sand").productId).toBeUndefined();
  expect(of("fair")).toMatchObject({ litres: 3, round: { n: 1, lows: 7, pinholes: 0 } });
  expect(of("idle")).toMatchObject({ litres: 0, grit: 0 });
  const back = draftOf(entry({ wetUm: [203.2], litres: 2, batch: "L1", early: "haste" }), "UTC", units);
  expect(back).toMatchObject({ wetUm: "8", litres: 2, batch: "L1", early: "haste", startedAt: "2026-05-08T09:00" });
});

const line = (more: Partial<Schemas["LedgerLine"]>): Schemas["LedgerLine"] => ({
  what: "varnish",
  surface: "Deck",
  who: "Ada",
  month: "2026-05",
  entries: 1,
  doneH: 0,
  plannedH: 0,
  toComeH: 0,
  materialCents: 0,
  materialToComeCents: 0,
  otherCents: 0,
  unpricedEntries: 0,
  ...more,
});
const accounts = (more = {}): Schemas["Accounts"] => ({
  lines: [
    line({ doneH: 4, plannedH: 2, materialCents: 12300 }),
    line({ what: "sand", doneH: 2, plannedH: 1, month: "2026-04" }),
    line({ toComeH: 4, materialToComeCents: 5000, who: "Bo", month: "2026-06" }),
    line({ what: "yard rent", surface: "the whole boat", otherCents: 4000 }),
  ],
  untold: 2,
  unpriced: ["Primer"],
  hourCents: 0,
  hours: 6,
  monthH: 4,
  workDayH: 8,
  plannedH: 3,
  reckonedHours: 6,
  materialCents: 12300,
  otherCents: 4000,
  labourCents: 0,
  leftHours: 4,
  leftLowH: 3,
  leftHighH: 5,
  leftMaterialCents: 5000,
  leftLabourCents: 0,
  totalCents: 21300,
  totalLowCents: 20000,
  totalHighCents: 23000,
  budgetCents: 0,
  ...more,
});

it("adds lines up by work, surface, person and month", () => {
  const { lines } = accounts();
  const of = (by: Parameters<typeof groups>[1]) =>
    groups(lines, by).map((g) => [g.name, g.doneH, g.toComeH, g.otherCents]);
  expect(of("what")).toEqual([
    ["varnish", 4, 4, 0],
    ["sand", 2, 0, 0],
    ["yard rent", 0, 0, 4000],
  ]);
  expect(of("month")).toEqual([
    ["2026-04", 2, 0, 0],
    ["2026-05", 4, 0, 4000],
    ["2026-06", 0, 4, 0],
  ]);
  expect(of("who")).toEqual([
    ["Ada", 6, 0, 4000],
    ["Bo", 0, 4, 0],
  ]);
});

it("says how it stands against the budget", () => {
  for (const [budgetCents, said] of [
    [19000, "Over the budget of 190 by about 23, whatever happens."],
    [21000, "Likely over the budget of 210, by about 3."],
    [22000, "Likely within the budget of 220, not surely: about 7 to spare."],
    [30000, "Within the budget of 300, with about 87 to spare."],
  ] as const) {
    const { unmount, container } = show(<Accounts accounts={accounts({ budgetCents })} />);
    expect(container.textContent).toContain(said);
    unmount();
  }
});

it("sets hours and money against the plan and says what is missing", () => {
  show(<Accounts accounts={accounts()} />);
  expect(screen.getByText("6 h so far and 4 h to come; 163 spent, about 50 to finish.")).toBeTruthy();
  expect(screen.getByText(/took 100 % more/).textContent).toContain("2 entries tell no hours");
  expect(screen.getByText(/Without a price in Library: Primer/)).toBeTruthy();
});

it("lists what comes due, and says when nothing does", () => {
  const { unmount } = show(
    <Films upkeep={{ films: [], shelf: [], season: 2027 }} now="2026-05-01T00:00:00Z" zone="UTC" />,
  );
  expect(screen.getByText(/Nothing that was laid comes due/)).toBeTruthy();
  unmount();
  show(
    <Films
      upkeep={
        {
          films: [
            {
              surfaceId: "s",
              surface: "Rails",
              product: "Varnish",
              filmUm: 180,
              what: [{ text: "scuff and lay two coats" }],
              laidAt: "2026-05-01T00:00:00Z",
              at: "2027-05-01T00:00:00Z",
              from: "2027-01-05T00:00:00Z",
              to: "2027-10-01T00:00:00Z",
              seasons: 0,
              working,
            },
          ],
          shelf: [
            { id: "t", product: "Antifouling", leftL: 2.5, worry: [{ text: "its shelf life ends on 2026-06-01" }] },
          ],
        } as unknown as Schemas["Upkeep"]
      }
      now="2026-05-08T00:00:00Z"
      zone="UTC"
    />,
  );
  expect(screen.getByText(/between Jan 2027 and Oct 2027/)).toBeTruthy();
  expect(screen.getByText(/its shelf life ends/)).toBeTruthy();
});

it("asks before everything is replaced by a backup", async () => {
  answers({});
  show(<Files boatId="b" />);
  await userEvent.upload(screen.getByLabelText("Restore a backup"), new File(["x"], "old.db"));
  expect(await screen.findByText(/is replaced by what is in old.db/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Leave it" }));
  expect(screen.queryByText(/is replaced by/)).toBeNull();
});
