import "fake-indexeddb/auto";
// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { answers, DESCRIBED, show, WORKS } from "../../testing";
import { Hands } from "./Hands";
import { Launches } from "./Launches";
import { Risk } from "./Risk";
import { Season } from "./Season";
import { Week } from "./Week";

const item = (more: Partial<Schemas["PlanItem"]>): Schemas["PlanItem"] => ({
  taskId: "t1",
  boatId: "b",
  boat: "Tern",
  surfaceId: "s",
  surface: "Deck",
  what: [{ text: "undercoat" }],
  start: "2026-05-09T10:00:00Z",
  end: "2026-05-09T12:00:00Z",
  hours: 2,
  setupH: 0,
  limits: [],
  stepId: "t1",
  work: "coat",
  sharePct: 100,
  before: [],
  people: ["Ada"],
  coat: true,
  rekey: false,
  launch: false,
  pinned: false,
  indoor: false,
  why: [{ text: "Free to begin at once." }],
  ...more,
});

const plan = (more: Partial<Schemas["YardPlan"]> = {}): Schemas["YardPlan"] => ({
  version: 4,
  oddsStale: false,
  place: {
    id: "p",
    version: 1,
    name: "Quay",
    latitudeDeg: 53,
    longitudeDeg: 0,
    timeZone: "UTC",
    weatherSource: "imported",
    enoughForecasts: 14,
  },
  now: "2026-05-09T08:00:00Z",
  until: "2026-06-09T08:00:00Z",
  known: "2026-05-16T08:00:00Z",
  settings: {
    people: [{ name: "Ada", week: [], off: [], skills: ["polishing"] }],
    guns: 1,
    tents: 0,
    noise: { fromH: 0, toH: 0 },
    hourCents: 2500,
    travelMin: 15,
    dustM: 0,
    alongM: {},
    own: {},
    off: {},
    marks: {},
  },
  rules: [{ id: "top-down", name: "top down", why: "drips fall" }],
  boats: [{ id: "b", name: "Tern", launch: "2026-05-20", surfaces: [{ id: "s", name: "Deck" }], workDayH: 8 }],
  days: [{ day: "2026-05-09", minC: 8, maxC: 15, rainH: 3, forecast: true }],
  trouble: [],
  moved: [],
  undo: 0,
  redo: 0,
  plan: {
    headline: [{ text: "Tern can be launched." }],
    hours: 4,
    left: [],
    items: [
      item({}),
      item({
        taskId: "t2",
        what: [{ text: "topcoat" }],
        start: "2026-05-11T09:00:00Z",
        end: "2026-05-11T11:00:00Z",
        closes: "2026-05-12T09:00:00Z",
      }),
      item({
        taskId: "t2~",
        what: [{ text: "sand to re-key" }],
        rekey: true,
        coat: false,
        start: "2026-05-11T08:00:00Z",
        end: "2026-05-11T09:00:00Z",
      }),
      item({
        taskId: "launch",
        surfaceId: "",
        surface: "",
        what: [{ text: "launch Tern" }],
        launch: true,
        start: "2026-05-14T09:00:00Z",
        end: "2026-05-14T09:00:00Z",
      }),
    ],
    launches: [
      {
        boatId: "b",
        boat: "Tern",
        at: "2026-05-14T09:00:00Z",
        due: "2026-05-13T22:59:00Z",
        lateH: 10,
        hours: 4,
        besideH: 1,
        cents: 10000,
        rekey: 1,
        left: 0,
        says: [{ text: "Tern is late." }],
      },
    ],
    open: [],
    notes: [[{ text: "Tern: nothing is planned on Bottom" }]],
  },
  ...more,
});

it("lists the week with reasons, and moves a task by button and by key", async () => {
  const calls = answers({
    "POST /api/places/p/plan/move": plan(),
    "PUT /api/places/p/plan": plan(),
    "GET /api/meta": { ...DESCRIBED, works: WORKS },
  });
  show(<Week plan={plan()} boatId="b" />);
  expect(screen.getByText(/window closes Tue 12 May, 09:00/)).toBeTruthy();
  expect(screen.getByText(/mends a missed window/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Change Tern: Deck, topcoat" }));
  await userEvent.click(screen.getByRole("button", { name: "a day later" }));
  await waitFor(() => expect(calls.at(-1)?.body).toEqual({ version: 4, taskId: "t2", at: "2026-05-12T09:00:00.000Z" }));
  await userEvent.keyboard("{ArrowLeft}");
  await waitFor(() => expect(calls.at(-1)?.body).toEqual({ version: 4, taskId: "t2", at: "2026-05-11T08:00:00.000Z" }));
  expect(screen.queryByRole("button", { name: "done: log it" })).toBeNull();
  expect(screen.getByText("log the coat").getAttribute("href")).toContain("step=t1&kind=coat");
  await userEvent.click(screen.getByRole("button", { name: "skip" }));
  await waitFor(() =>
    expect(calls.at(-1)?.body).toMatchObject({ version: 4, value: { marks: { t2: { state: "skipped" } } } }),
  );
});

it("writes an entry of the log for what is done", async () => {
  const calls = answers({ "POST /api/log": {}, "GET /api/meta": { ...DESCRIBED, works: WORKS } });
  const sanding = item({
    taskId: "st/2",
    stepId: "st",
    work: "sand",
    what: [{ text: "sand with 80, part 2 of 4" }],
    coat: false,
    sharePct: 25,
  });
  const p = plan();
  show(<Week plan={{ ...p, plan: { ...(p.plan as Schemas["Plan"]), items: [sanding] } }} boatId="b" />);
  await userEvent.click(screen.getByRole("button", { name: "Change Tern: Deck, sand with 80, part 2 of 4" }));
  await userEvent.click(screen.getByRole("button", { name: "done: log it" }));
  await waitFor(() =>
    expect(calls.find((c) => c.path === "/api/log")?.body).toMatchObject({
      boatId: "b",
      surfaceId: "s",
      stepId: "st",
      kind: "sand",
      sharePct: 25,
    }),
  );
});

it("shows a pin that cannot stand where it was asked for", async () => {
  answers({
    "POST /api/places/p/plan/move": {
      status: 422,
      detail: "some fields need another value",
      errors: [{ location: "body.plan", message: "cannot begin when it is pinned" }],
    },
  });
  show(<Week plan={plan()} boatId="b" />);
  await userEvent.click(screen.getByRole("button", { name: "Change Tern: Deck, undercoat" }));
  await userEvent.click(screen.getByRole("button", { name: "pin here" }));
  expect(await screen.findByText(/cannot begin when it is pinned/)).toBeTruthy();
});

it("draws the season by surface and by person", async () => {
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {}
      disconnect() {}
    },
  );
  const { container } = show(<Season plan={plan()} boatId="b" />);
  expect(container.querySelectorAll("[data-bar]").length).toBe(3);
  expect(container.querySelector('[data-read="bs"]')?.textContent).toBe("undercoat, Sat 9 May, 10:00");
  expect(container.querySelector('[data-read="weather"]')?.textContent).toBe("8 °C to 15 °C, 3 h rain");
  await userEvent.click(screen.getByRole("button", { name: "by person" }));
  expect(container.querySelector('[data-read="Ada"]')?.textContent).toContain("Tern: Deck, undercoat");
});

/** Streams answer by the last part of their address. */
const streams = (results: Record<string, unknown>) =>
  vi.stubGlobal("fetch", async (asked: RequestInfo | URL) => {
    const name = Object.keys(results).find((k) =>
      new RegExp(`/${k}(\\?|$)`).test(String(asked instanceof Request ? asked.url : asked)),
    );
    return new Response(
      `${JSON.stringify({ done: 0.4 })}\n${JSON.stringify({ done: 1, result: results[name ?? ""] })}\n`,
    );
  });

it("tells late boats, what would help, and what closes soon", async () => {
  const ways = [
    {
      name: [{ text: "launch later" }],
      cents: 1200,
      odds: [{ half: "2026-05-20T10:00:00Z", duePct: 10 }],
      enough: true,
      daysGained: 0,
      later: true,
    },
    {
      name: [{ text: "a tent" }],
      cents: 50000,
      odds: [{ half: "2026-05-12T10:00:00Z", nine: "2026-05-13T10:00:00Z", duePct: 95 }],
      enough: true,
      daysGained: 8,
      dayCents: 6250,
      later: false,
    },
    {
      name: [{ text: "a helper" }],
      cents: 90000,
      odds: [{ duePct: 20 }],
      enough: false,
      daysGained: 2,
      dayCents: 45000,
      later: false,
    },
  ];
  streams({ ways });
  show(<Launches plan={plan()} />);
  expect(screen.getByText("late by 1 day")).toBeTruthy();
  expect(screen.getByText(/nothing is planned on Bottom/)).toBeTruthy();
  expect(screen.getByText(/topcoat is planned for/)).toBeTruthy();
  expect((await screen.findByText("launch later")).closest("tr")?.textContent).toContain("20 May – later");
  const tent = screen.getByText("a tent").closest("tr")?.textContent;
  expect(tent).toContain("in time nine times in ten");
  expect(tent).toContain("500");
  expect(
    screen.getByText(/The cheapest that is enough: a tent gains 8 days for .*500.* Next: a helper, 2 days for .*900/),
  ).toBeTruthy();
  expect(tent).toContain("12 May – Wed 13 May");
});

it("plays the futures by itself and shows the odds", async () => {
  const risk = {
    futures: 200,
    boats: [
      {
        boatId: "b",
        boat: "Tern",
        due: "2026-05-13",
        duePct: 40,
        weekPct: 90,
        median: "2026-05-15",
        curve: [
          { day: "2026-05-12", pct: 10 },
          { day: "2026-05-15", pct: 60 },
        ],
      },
    ],
    causes: [{ taskId: "t2", name: "Tern: Deck, topcoat", meanH: 30 }],
  };
  streams({ risk, ways: [] });
  show(<Risk plan={plan()} boatId="b" />);
  expect(await screen.findByText(/40 % ready by Wednesday 13 May/)).toBeTruthy();
  expect(await screen.findByText("None of these brings a boat forward.")).toBeTruthy();
  expect(
    screen.getByText(/as far off as they usually are; from 14 on those of Quay count, 0 are kept so far/),
  ).toBeTruthy();
  expect(screen.getByText(/Deck, topcoat waits/)).toBeTruthy();
});

it("keeps people, own tasks and rules in one document", async () => {
  const calls = answers({ "PUT /api/places/p/plan": plan({ version: 5 }) });
  show(<Hands plan={plan()} boatId="b" />);
  await userEvent.type(screen.getByLabelText("Days off"), "2026-05-16 2026-05-23");
  await userEvent.click(screen.getByRole("button", { name: "another task" }));
  await userEvent.type(screen.getByLabelText("What"), "Engine");
  await userEvent.click(screen.getByRole("button", { name: "Save hands and tasks" }));
  expect(screen.getByText("this is not a number")).toBeTruthy();
  await userEvent.type(screen.getByLabelText("Hours"), "6");
  await userEvent.type(screen.getByLabelText("Does not hold here, because"), "covered");
  await userEvent.click(screen.getByRole("button", { name: "Save hands and tasks" }));
  await waitFor(() =>
    expect(calls.at(-1)?.body).toMatchObject({
      version: 4,
      value: {
        people: [{ off: ["2026-05-16", "2026-05-23"] }],
        own: { b: [{ name: "Engine", hours: 6 }] },
        off: { b: { "top-down": "covered" } },
      },
    }),
  );
});
