// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { answers, DESCRIBED, show } from "../../testing";
import { FieldChart } from "../../ui/FieldChart";
import { readFace } from "../../ui/faceLanes";
import { BestChances } from "./Chances";
import { Days } from "./Days";
import { InstrumentForm } from "./InstrumentForm";
import { Months } from "./Months";
import { Schools } from "./Schools";
import { Headline } from "./Tent";
import { TentFields } from "./TentFields";

const working = { inputs: [], steps: [], warnings: [] };
const place = {
  id: "p",
  version: 2,
  name: "Quay",
  latitudeDeg: 53,
  longitudeDeg: 0,
  timeZone: "UTC",
  weatherSource: "imported",
} as Schemas["Place"];
const meta = {
  now: "2026-05-09T08:24:00Z",
  kinds: DESCRIBED.kinds,
  weather: {
    ...DESCRIBED.weather,
    instruments: [
      { key: "air", name: "logger in the open", surface: false, humidity: true },
      { key: "surface", name: "probe on a surface", surface: true, humidity: false },
    ],
    faults: [{ key: "", name: "none" }],
    heaters: [
      { key: "electric", name: "electric heater" },
      { key: "gas", name: "gas burner without a flue" },
    ],
  },
};

it("reads a surface at an instant, between the hours and when it is wet", () => {
  const face = {
    surfaceId: "a",
    surface: "Deck",
    surfaceC: [10, 14],
    spreadK: [2, 4],
    wet: [{ from: "1970-01-01T00:00:00Z", to: "1970-01-01T00:15:00Z", rain: false }],
    probed: false,
  };
  const plain = (v: number, unit: string) => ({ text: v.toFixed(1), unit });
  const read = readFace(face, [0, 3_600_000], plain);
  expect(read(1_800_000)).toBe("12.0 °C, 3.0 K above dew");
  expect(read(600_000)).toBe("10.7 °C, wet with dew");
  expect(read(9_000_000)).toBe("not known");
  expect(readFace(face, [0, 3_600_000], plain, true)(600_000)).toBe("10.7 °C wet");
});

it("draws the limits as a field, and adds the corner that is clicked", async () => {
  const add = vi.fn();
  const limits = { airMinC: 10, airMaxC: 30, rhMaxPct: 85, holdH: 0, rainFreeH: 0 } as Schemas["ProductLimits"];
  show(
    <FieldChart
      limits={limits}
      tracks={[{ name: "read", look: "read", states: [{ tempC: 12, rhPct: 70 }] }]}
      now={{ tempC: 12, rhPct: 70 }}
      onAdd={add}
    />,
  );
  expect(screen.getByText(/the limits of the sheet/)).toBeTruthy();
  expect(screen.getByText(/Ring: now, 12.0 °C, 70 %/)).toBeTruthy();
  const svg = screen.getByRole("img");
  svg.getBoundingClientRect = () => ({ left: 0, top: 0, width: 560, height: 300 }) as DOMRect;
  await userEvent.pointer({ target: svg, keys: "[MouseLeft]", coords: { clientX: 297, clientY: 136 } });
  expect(add).toHaveBeenCalledTimes(1);
  const corner = add.mock.calls[0]?.[0];
  expect(corner.tempC).toBeCloseTo(17.5, 0);
  expect(corner.rhPct).toBeCloseTo(50, -1);
});

it("tells the chances of each coat as they come, and what to do if it rains", async () => {
  const best = (surface: string, pct: number) => ({
    surfaceId: surface,
    surface,
    what: "varnish, coat 1 of 6",
    sentence: [{ text: `${surface}: best for varnish` }],
    options: [
      {
        from: "2026-05-09T10:00:00Z",
        to: "2026-05-09T12:00:00Z",
        at: "2026-05-09T11:00:00Z",
        chancePct: pct,
        sand: true,
        forecast: true,
      },
    ],
  });
  const lines = [
    { done: 0.5 },
    {
      done: 1,
      result: {
        place: {
          id: "p",
          version: 1,
          name: "Quay",
          latitudeDeg: 53,
          longitudeDeg: 0,
          timeZone: "UTC",
          weatherSource: "imported",
          enoughForecasts: 14,
          learned: {
            errors: { tempK: { atOnce: 0.7, perDay: 0.2, most: 2.1 } },
            forecasts: 30,
            hours: 4000,
            rain: true,
            cloud: true,
          },
        },
        futures: 400,
        known: "2026-05-16T09:00:00Z",
        coats: [best("Deck", 60), best("Mast", 92)],
        wetDay: [{ surfaceId: "", text: "Count the shelf" }],
      },
    },
  ];
  vi.stubGlobal("fetch", async () => new Response(lines.map((l) => `${JSON.stringify(l)}\n`).join("")));
  show(<BestChances boatId="b" zone="UTC" first />);
  await screen.findByText("Count the shelf");
  expect(screen.getByTestId("answer").textContent).toContain("Mast: best for varnish");
  expect(screen.getByText("92 %")).toBeTruthy();
  expect(screen.getAllByText(/after sanding/).length).toBe(2);
  expect(
    screen.getByText(/Quay were off by 0.9 K a day ahead and 1.7 K five days ahead: learned from 30 of them/),
  ).toBeTruthy();
  vi.stubGlobal("fetch", async () => new Response("{}", { status: 500 }));
  show(<BestChances boatId="c" zone="UTC" />);
  expect((await screen.findByRole("alert")).textContent).toContain("500");
});

it("asks where a probe sits, and shows what is refused at its field", async () => {
  const calls = answers({
    "GET /api/meta": meta,
    "POST /api/places/p/instruments": {
      status: 422,
      errors: [{ location: "body.name", message: "give the instrument a name" }],
    },
  });
  const survey = {
    boat: { id: "b" },
    place,
    surfaces: [
      { id: "s1", name: "Deck" },
      { id: "s2", name: "Rudder" },
    ],
  } as unknown as Schemas["Survey"];
  show(<InstrumentForm survey={survey} done={() => undefined} />);
  await screen.findByText("probe on a surface");
  expect(screen.queryByLabelText("On the surface")).toBeNull();
  await userEvent.selectOptions(screen.getByLabelText("It measures"), "surface");
  await userEvent.selectOptions(screen.getByLabelText("On the surface"), "s2");
  await userEvent.click(screen.getByRole("button", { name: "Add" }));
  await screen.findByText("give the instrument a name");
  expect(calls.find((c) => c.method === "POST")?.body).toMatchObject({ kind: "surface", surfaceId: "s2", boatId: "b" });
});

it("takes days in words only with their figures", async () => {
  const calls = answers({
    "GET /api/meta": meta,
    "POST /api/places/p/days": {
      rows: 24,
      measured: 0,
      forecast: 24,
      from: "2026-05-09T00:00:00Z",
      to: "2026-05-09T23:00:00Z",
    },
  });
  show(<Days place={place} />);
  await userEvent.click(await screen.findByRole("button", { name: "Use these days" }));
  expect(screen.getAllByText("this figure is needed").length).toBe(2);
  await userEvent.type(screen.getByLabelText("Coldest"), "8");
  await userEvent.type(screen.getByLabelText("Warmest"), "16");
  await userEvent.selectOptions(screen.getByLabelText("Rain"), "afternoon");
  await userEvent.click(screen.getByRole("button", { name: "Use these days" }));
  await screen.findByText(/24 hours are in/);
  expect(calls.find((c) => c.method === "POST")?.body).toMatchObject({
    days: [{ minC: 8, maxC: 16, rain: "afternoon" }],
  });
});

it("begins the months of a place from the usual coast", async () => {
  const months = Array.from({ length: 12 }, (_, i) => ({
    meanC: i,
    swingK: 7,
    rhPct: 78,
    windMS: 4,
    cloudPct: 60,
    wetDayPct: 40,
    wetAfterWetPct: 60,
  }));
  const calls = answers({ "GET /api/usual-months": months, "PUT /api/places/p": place });
  show(<Months place={place} />);
  await userEvent.click(screen.getByRole("button", { name: /look at the months/ }));
  const may = await screen.findByLabelText("May, Mean");
  await userEvent.clear(may);
  await userEvent.type(may, "13");
  await userEvent.click(screen.getByRole("button", { name: "Use these months" }));
  await screen.findByText("These months count now.");
  const sent = calls.find((c) => c.method === "PUT")?.body as {
    version: number;
    value: { normals: { meanC: number }[] };
  };
  expect(sent.version).toBe(2);
  expect(sent.value.normals[4]?.meanC).toBe(13);
});

it("sets the schools side by side and names the soonest", () => {
  const option = (school: string, more: object) => ({
    school,
    name: school,
    hardener: "",
    startH: 20,
    chancePct: 80,
    cents: 1234,
    cost: { electricKWh: 0, fuelKg: 0, waterKg: 0, cents: 0 },
    hours: [],
    working,
    ...more,
  });
  const comparison = {
    surface: "Bottom",
    product: { sheet: { name: "Primer" } },
    options: [
      option("wait", {}),
      option("tent-heat", {
        start: "2026-05-09T10:00:00Z",
        done: "2026-05-09T20:00:00Z",
        cost: { electricKWh: 12, fuelKg: 2, waterKg: 3.2, cents: 800 },
      }),
    ],
  } as unknown as Schemas["Comparison"];
  show(<Schools comparison={comparison} zone="UTC" setC={14} />);
  const [, wait, heat] = screen.getAllByRole("row") as HTMLElement[];
  expect(within(wait as HTMLElement).getByText("no start")).toBeTruthy();
  expect(within(heat as HTMLElement).getByText("soonest")).toBeTruthy();
  expect(heat?.textContent).toContain("3.2 kg of water from burning");
  expect(heat?.textContent).toContain("12.34");
});

it("tells the best school by price and odds, and by how much", () => {
  const option = (name: string, done: string, worthCents: number, cents: number) => ({
    name,
    done,
    worthCents,
    cents,
    start: "2026-05-09T10:00:00Z",
    chancePct: 92,
  });
  const comparison = {
    surface: "Bottom",
    options: [
      option("Wait for weather", "2026-05-09T23:00:00Z", 1900, 700),
      option("Tent and heat", "2026-05-09T18:00:00Z", 4100, 4000),
      { name: "A tent", worthCents: 0 },
    ],
  } as unknown as Schemas["Comparison"];
  const { container } = show(<Headline comparison={comparison} zone="UTC" />);
  expect(container.textContent).toMatch(
    /^Bottom: wait for weather is best, from .*10:00: it holds 92 times in a hundred and costs .*7\./,
  );
  expect(container.textContent).toMatch(/Tent and heat is .*22 dearer, failures reckoned, for 5 h sooner\.$/);
});

function Held({ start, told }: { start: Schemas["Tent"]; told: (t: Schemas["Tent"]) => void }) {
  const [t, set] = useState(start);
  told(t);
  return <TentFields tent={t} set={set} />;
}

it("keeps prices in cents and types them as money", async () => {
  answers({ "GET /api/meta": meta });
  const usual: Schemas["Tent"] = {
    lengthM: 8,
    widthM: 4,
    heightM: 3,
    layers: 1,
    airChanges: 1.5,
    dryL: 0,
    heaters: [],
    thermostat: { setC: 14, fromH: 6, toH: 22 },
    prices: { kWhCents: 30, fuelKgCents: 220, dayCents: 1200, hardenerCents: 2500 },
  };
  let now = usual;
  show(
    <Held
      start={usual}
      told={(t) => {
        now = t;
      }}
    />,
  );
  const kWh = screen.getByLabelText("A kWh of electricity") as HTMLInputElement;
  expect(kWh.value).toBe("0.3");
  await userEvent.clear(kWh);
  await userEvent.type(kWh, "0.345");
  expect(now.prices.kWhCents).toBe(34.5);
  await userEvent.click(screen.getByRole("button", { name: "another heater" }));
  await waitFor(() => expect(now.heaters).toEqual([{ kind: "electric", powerKW: 2 }]));
  await userEvent.click(screen.getByRole("button", { name: "Remove heater 1" }));
  expect(now.heaters).toEqual([]);
});
