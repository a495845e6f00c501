// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { expect, it } from "vitest";
import { Route, Switch } from "wouter";
import type { Schemas } from "../../api/client";
import { answers, DESCRIBED, show } from "../../testing";
import { Curve, drawable } from "./Curve";
import { RecoatFields } from "./RecoatFields";
import { Sheet } from "./Sheet";
import { TinFields } from "./TinFields";

const meta = {
  kinds: DESCRIBED.kinds,
  methods: [
    { key: "roller", name: "roller" },
    { key: "brush", name: "brush" },
  ],
  binders: ["epoxy", "alkyd"],
};

const sheet = {
  name: "Amber",
  kind: "varnish",
  chemistry: "",
  colour: "",
  example: false,
  source: "",
  film: { minUm: 20, typicalUm: 30, maxUm: 40 },
  ratioByVolume: { base: 0, hardener: 0 },
  ratioByWeight: { base: 0, hardener: 0 },
  baseKgL: 0,
  hardenerKgL: 0,
  inductionMin: 0,
  thinnerMaxPct: 5,
  volumeSolidsPct: 45,
  minCureC: 5,
  methods: ["brush"],
  limits: { holdH: 0, rainFreeH: 0 },
  tins: [],
  cautions: [],
  notes: "",
} as unknown as Schemas["ProductSheet"];

const atSheet = (doubts: string[]) => {
  const stored = { id: "p", version: 2, says: [], doubts: [], sheet };
  const calls = answers({
    "GET /api/meta": meta,
    "GET /api/products": [stored],
    "POST /api/products/doubts": doubts,
    "PUT /api/products/p": { ...stored, version: 3 },
  });
  show(
    <Switch>
      <Route path="/library/:productId">
        <Sheet />
      </Route>
    </Switch>,
    "/library/p",
  );
  return calls;
};

it("stores what a sheet says beyond film and hours", async () => {
  const calls = atSheet([]);
  await userEvent.selectOptions(
    await screen.findByLabelText("Binder"),
    await screen.findByRole("option", { name: "alkyd" }),
  );
  await userEvent.type(screen.getByLabelText("Sags, upright, above"), "120");
  await userEvent.click(screen.getByLabelText("Strong solvents"));
  await userEvent.type(screen.getByLabelText("Keeps, unopened"), "24");
  await userEvent.type(screen.getByLabelText("Loss, brush"), "7");
  await userEvent.click(screen.getByRole("button", { name: "Add a grade" }));
  await userEvent.type(screen.getByLabelText("Grade"), "slow");
  await userEvent.click(screen.getByRole("button", { name: "Save the sheet" }));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  const put = calls.find((c) => c.method === "PUT")?.body as { version: number; value: Schemas["ProductSheet"] };
  expect(put.version).toBe(2);
  expect(put.value).toMatchObject({
    binder: "alkyd",
    sagUprightUm: 120,
    strongSolvent: true,
    shelfLifeMonths: 24,
    lossPct: { brush: 7 },
    grades: [{ name: "slow", minCureC: 5 }],
  });
});

it("asks once about hours that do not fall, then stores them", async () => {
  const calls = atSheet(["potLife: 4 h at 20 °C is not shorter than 2 h at 10 °C. Is it so on the sheet?"]);
  await userEvent.click(await screen.findByRole("button", { name: "Save the sheet" }));
  expect((await screen.findByRole("alert")).textContent).toContain("is not shorter than");
  expect(calls.some((c) => c.method === "PUT")).toBe(false);
  await userEvent.click(screen.getByRole("button", { name: "It is so: save the sheet" }));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
});

it("draws hours over temperature on a scale of equal ratios", () => {
  expect(drawable([{ tempC: 20, hours: 4 }, { tempC: 10 }, { tempC: 5, hours: 0 }, { tempC: 10, hours: 8 }])).toEqual([
    { tempC: 10, hours: 8 },
    { tempC: 20, hours: 4 },
  ]);
  show(
    <Curve
      lines={[
        {
          label: "Pot life",
          points: [
            { tempC: 0, hours: 100 },
            { tempC: 10, hours: 10 },
            { tempC: 20, hours: 1 },
          ],
        },
      ]}
    />,
  );
  const points =
    document
      .querySelector("polyline")
      ?.getAttribute("points")
      ?.split(" ")
      .map((p) => p.split(",").map(Number)) ?? [];
  expect(points).toHaveLength(3);
  const [a, b, c] = points as [number[], number[], number[]];
  expect((b[1] ?? 0) - (a[1] ?? 0)).toBeCloseTo((c[1] ?? 0) - (b[1] ?? 0), 6);
});

it("draws nothing from a single point", () => {
  const { container } = show(<Curve lines={[{ label: "Pot life", points: [{ tempC: 10, hours: 2 }] }]} />);
  expect(container.querySelector("svg")).toBeNull();
});

function Kept<T>({ start, children }: { start: T; children: (v: T, set: (v: T) => void) => React.ReactNode }) {
  const [v, set] = useState(start);
  return (
    <>
      {children(v, set)}
      <output>{JSON.stringify(v)}</output>
    </>
  );
}

const kept = () => JSON.parse(screen.getByRole("status").textContent ?? "");

it("sells a part alone only of two-part products", async () => {
  show(
    <Kept start={[] as Schemas["ProductTin"][]}>
      {(tins, set) => <TinFields tins={tins} twoPart onChange={set} />}
    </Kept>,
  );
  await userEvent.click(screen.getByRole("button", { name: "Add a tin" }));
  await userEvent.type(screen.getByLabelText("Tin"), "1 L");
  await userEvent.selectOptions(screen.getByLabelText("Holds"), "hardener");
  await userEvent.clear(screen.getByLabelText("Price"));
  await userEvent.type(screen.getByLabelText("Price"), "12.5");
  expect(kept()).toEqual([{ name: "1 L", litres: 1, priceCents: 1250, part: "hardener" }]);
});

it("closes a window, or says that it never does", async () => {
  answers({ "GET /api/meta": meta });
  show(
    <Kept start={[{ over: "any", min: [], max: [{ tempC: 20, hours: 72 }] }] as Schemas["ProductRecoat"][]}>
      {(w, set) => <RecoatFields name="recoat" windows={w} onChange={set} />}
    </Kept>,
  );
  expect(within(screen.getByRole("group", { name: "Maximum" })).getByDisplayValue("72")).toBeTruthy();
  await userEvent.click(screen.getByLabelText("No maximum stated"));
  expect(screen.queryByRole("group", { name: "Maximum" })).toBeNull();
  expect(kept()).toEqual([{ over: "any", min: [], max: [], neverCloses: true }]);
});
