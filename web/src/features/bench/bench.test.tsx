// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import "fake-indexeddb/auto";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { Route, Switch } from "wouter";
import type { Schemas } from "../../api/client";
import { answers, DESCRIBED, show } from "../../testing";
import { alarmsOf } from "../../ui/Alarms";
import { Bench } from "./Bench";

const working = { inputs: [], steps: [], warnings: [] };
const timer = (key: string, at: string, more = {}) => ({
  key,
  label: key,
  at,
  tempC: 18,
  forecast: true,
  ring: true,
  ...more,
});

const bench = (more: Partial<Schemas["Bench"]> = {}): Schemas["Bench"] =>
  ({
    says: [{ text: "Mix 0.9 L." }],
    now: "2026-05-09T08:00:00Z",
    place: { id: "p", timeZone: "UTC" },
    surfaces: [
      { id: "s", name: "Deck", productId: "e", next: "primer" },
      { id: "t", name: "Hull", productId: "", next: "" },
    ],
    surfaceId: "s",
    surface: "Deck",
    stepId: "st",
    productId: "e",
    product: "Epoxy",
    coat: "coat 1 of 2",
    grade: "",
    method: "roller",
    litres: 1.8,
    thinnerPct: 0,
    dftUm: 100,
    wftUm: 182,
    layH: 1,
    litresH: 1.8,
    ownUse: 1.1,
    ownCoats: 2,
    ownRate: true,
    beginsAt: "2026-05-09T08:24:00Z",
    potC: 18,
    twoPart: true,
    stand: "",
    fillers: [],
    trouble: [],
    pot: {
      targets: [
        { what: "base", part: "base", addG: 660, scaleG: 710, addML: 600, markML: 600, strokes: 20 },
        { what: "hardener", part: "hardener", addG: 300, scaleG: 1010, addML: 300, markML: 900, strokes: 20 },
      ],
      potL: 0.9,
      potG: 960,
      curedKgL: 0,
      sanding: "",
      working,
    },
    batches: {
      batches: [
        { litres: 0.9, mixAt: "2026-05-09T08:00:00Z", layAt: "2026-05-09T08:15:00Z", onBy: "2026-05-09T09:24:00Z" },
        { litres: 0.96, mixAt: "2026-05-09T08:30:00Z", layAt: "2026-05-09T08:45:00Z", onBy: "2026-05-09T09:54:00Z" },
      ],
      mostL: 0.96,
      potLifeH: 2,
      working: { ...working, warnings: ["Measure what is still bare."] },
    },
    comb: { wetUm: 175, dryUm: 200 },
    stripes: { n: 2, m2: 6, min: 30, each: "2 stripes of 6 m², 30 min each" },
    order: [
      { id: "s", name: "Deck", areaM2: 12, surfaceC: 15, why: "the coolest first" },
      { id: "t", name: "Hull", areaM2: 9, surfaceC: 21, why: "6 K warmer" },
    ],
    checks: [
      { key: "field", state: "no", text: "Not now: it rains" },
      { key: "mask", state: "ask", text: "Masked, edges pressed down" },
    ],
    gear: ["Nitrile gloves"],
    pots: [],
    clocks: [
      {
        surfaceId: "t",
        surface: "Hull",
        product: "Primer",
        timers: [
          timer("sandable", "2026-05-09T10:05:09Z"),
          timer("recoat-closes", "2026-05-12T08:00:00Z", { ring: false }),
        ],
      },
    ],
    ...more,
  }) as unknown as Schemas["Bench"];

const meta = { ...DESCRIBED, clock: { mode: "fixed" }, works: [], log: { stiffnesses: ["putty"], blemishes: [] } };

function open(more: Partial<Schemas["Bench"]> = {}, routes: Record<string, unknown> = {}) {
  const calls = answers({
    "GET /api/boats/b/bench": bench(more),
    "GET /api/products": [{ id: "e", version: 1, sheet: { name: "Epoxy", kind: "high-build-primer", grades: [] } }],
    "GET /api/meta": meta,
    "GET /api/places/p/instruments": [{ id: "i", kind: "scale", name: "Bench scale" }],
    ...routes,
  });
  show(
    <Switch>
      <Route path="/boats/:boatId/bench">
        <Bench />
      </Route>
    </Switch>,
    "/boats/b/bench",
  );
  return calls;
}

it("shows what the scale reads after each pour, the marks of a cup, and the strokes of pumps", async () => {
  open();
  const targets = await screen.findByTestId("targets");
  expect(within(targets).getByText("710 g")).toBeTruthy();
  expect(within(targets).getByText("1 010 g")).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "by volume" }));
  expect(within(targets).getByText("900 mL")).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "by strokes" }));
  expect(within(targets).getAllByText("20.0 strokes")).toHaveLength(2);
  expect(screen.getByText(/your own rate, from the log/)).toBeTruthy();
  expect(screen.getByText(/at 08:24, when it may be laid/)).toBeTruthy();
  expect(screen.getAllByText("Measure what is still bare.")).not.toHaveLength(0);
});

it("says what is wrong before the tin is opened, and lets the rest be ticked", async () => {
  open();
  const checks = await screen.findByTestId("checks");
  expect(within(checks).getByText("Not now: it rains").closest("li")?.dataset.check).toBe("no");
  const mask = within(checks).getByRole("button", { name: "Masked, edges pressed down" });
  expect(mask.getAttribute("aria-pressed")).toBe("false");
  await userEvent.click(mask);
  expect(mask.getAttribute("aria-pressed")).toBe("true");
  expect(screen.getByText("Nitrile gloves")).toBeTruthy();
});

it("orders the surfaces, tells the teeth of the comb, and counts down to what is to come", async () => {
  open();
  expect(await screen.findByText(/6 K warmer/)).toBeTruthy();
  expect(screen.getByText(/2 stripes of 6 m²/)).toBeTruthy();
  const timers = screen.getByTestId("timers");
  expect(within(timers).getByText("2:05:09")).toBeTruthy();
  expect(within(timers).getByText("3 d 0 h")).toBeTruthy();
});

it("starts the timers of a pot with an id of its own, and empties it", async () => {
  const pot = {
    id: "x",
    surfaceId: "s",
    surface: "Deck",
    productId: "e",
    product: "Epoxy",
    litres: 0.9,
    mixedAt: "2026-05-09T07:50:00Z",
    timers: [timer("pot", "2026-05-09T07:59:00Z")],
  };
  const calls = open({ pots: [pot] as unknown as Schemas["Bench"]["pots"] }, { "PUT /api/boats/b/pots": [] });
  await userEvent.click(await screen.findByRole("button", { name: "It is mixed: start the timers" }));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  const sent = calls.find((c) => c.method === "PUT")?.body as Schemas["PotEdit"];
  expect(sent).toMatchObject({ surfaceId: "s", productId: "e", litres: 0.9, mixedAt: "2026-05-09T08:00:00.000Z" });
  expect(sent.id).toMatch(/^[0-9a-f-]{36}$/);
  expect(screen.getByText("now")).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "The first of it is on" }));
  await waitFor(() => expect(calls.filter((c) => c.method === "PUT")).toHaveLength(2));
  expect(calls.filter((c) => c.method === "PUT")[1]?.body).toMatchObject({
    id: "x",
    laidAt: "2026-05-09T08:00:00.000Z",
  });
  await userEvent.click(screen.getByRole("button", { name: "The pot is empty" }));
  await waitFor(() => expect(calls.filter((c) => c.method === "PUT")).toHaveLength(3));
  expect(calls.filter((c) => c.method === "PUT")[2]?.body).toMatchObject({
    id: "x",
    emptiedAt: "2026-05-09T08:00:00.000Z",
  });
});

it("walks through the pours with a scale and sends what was weighed", async () => {
  const fetched = vi.fn();
  let grams = 709;
  const calls = open({}, {});
  const answer = globalThis.fetch;
  vi.stubGlobal("fetch", async (r: Request) => {
    const url = new URL(r.url, "http://test");
    if (url.pathname.endsWith("/values"))
      return new Response(JSON.stringify([{ at: "2026-05-09T08:00:00Z", value: grams, unit: "g" }]), {
        status: 200,
        headers: { "Content-Type": "application/json" },
      });
    if (url.pathname.endsWith("/bench")) fetched(url.searchParams.get("baseG"), url.searchParams.get("hardenerG"));
    return answer(r);
  });
  await userEvent.click(await screen.findByRole("button", { name: "Weigh on Bench scale" }));
  await userEvent.click(await screen.findByRole("button", { name: "base is in" }));
  grams = 1012;
  await waitFor(() => expect(screen.getByText("1 012 g")).toBeTruthy(), { timeout: 3000 });
  await userEvent.click(screen.getByRole("button", { name: "hardener is in" }));
  // 709 g less the empty pot of 50 g, and 303 g more.
  await waitFor(() => expect(fetched).toHaveBeenLastCalledWith("659", "303"));
  expect(calls.length).toBeGreaterThan(0);
});

it("tells how far off the ratio is and what mends it", async () => {
  open({
    mixed: { offPct: -12, tolerancePct: 5, within: false, addBaseG: 0, addHardenerG: 32.7, means: "it stays soft" },
  });
  const ratio = await screen.findByTestId("ratio");
  expect(ratio.textContent).toContain("hardener 12.0 % short");
  expect(ratio.textContent).toContain("Add 32.7 g of hardener");
});

it("rings for timers that are worth it, the soonest first", () => {
  const pot = { id: "x", product: "Epoxy", surface: "Deck", timers: [timer("pot", "2026-05-09T09:00:00Z")] };
  const all = alarmsOf(bench({ pots: [pot] as unknown as Schemas["Bench"]["pots"] }));
  expect(all.map((a) => a.id)).toEqual(["x pot", "t sandable"]);
  expect(all[0]?.what).toBe("Epoxy, Deck");
});

it("offers a free mix when nothing waits", async () => {
  open({ surfaceId: "", surface: "", productId: "", product: "", says: [{ text: "No coat waits here." }] });
  expect(await screen.findByText("No coat waits here.")).toBeTruthy();
  expect(screen.queryByTestId("targets")).toBeNull();
});

it("logs the usual by two taps, and takes it back", async () => {
  const task = {
    id: "k",
    stepId: "st",
    what: "primer, coat 1 of 2",
    films: true,
    productId: "e",
    state: "to do",
    work: "coat",
  };
  const calls = open(
    {},
    { "GET /api/surfaces/s/build-up": { tasks: [task], steps: [], done: [] }, "POST /api/log": { id: "made" } },
  );
  vi.stubGlobal("fetch", withDelete(fetch));
  await userEvent.click(await screen.findByRole("button", { name: "It is on, as planned, now" }));
  expect(await screen.findByText(/primer, coat 1 of 2, begun Sat 9 May/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Log it" }));
  const logged = await screen.findByTestId("logged");
  expect(logged.textContent).toContain("Logged: Deck, primer, coat 1 of 2");
  const entry = calls.find((c) => c.method === "POST" && c.path === "/api/log")?.body as Schemas["NewEntry"];
  expect(entry).toMatchObject({ surfaceId: "s", kind: "coat", productId: "e", stepId: "st", litres: 0 });
  expect(within(logged).getByRole("link", { name: "Add litres, film, photos" }).getAttribute("href")).toBe(
    `/boats/b/log?entry=${entry.id}`,
  );
  await userEvent.click(within(logged).getByRole("button", { name: "Take it back" }));
  expect(await screen.findByText("Taken back: it is not in the log.")).toBeTruthy();
  expect(calls.some((c) => c.method === "DELETE" && c.path === `/api/log/${entry.id}`)).toBe(true);
});

/** Deletions of any path are done. */
const withDelete = (answer: typeof fetch) => async (r: Request) => {
  const got = await answer(r);
  return r.method === "DELETE" ? new Response("{}", { status: 200, headers: got.headers }) : got;
};
