// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, it, vi } from "vitest";
import { Route, Switch } from "wouter";
import type { Schemas } from "../../api/client";
import { answers, DESCRIBED, kindOf, show, WORKS } from "../../testing";
import { Editor } from "./Editor";
import { Findings } from "./Findings";
import { Goal } from "./Goal";
import { Overview } from "./Overview";
import { freshStep, needed } from "./plan";
import { SaveSystem } from "./SaveSystem";
import { Start } from "./Start";

const working = { inputs: [], steps: [], warnings: [] };
const surface = {
  id: "hull",
  version: 4,
  name: "Bottom",
  substrateName: "GRP",
  area: { areaM2: 20, uncertaintyPct: 5, working, figures: [], disagreeing: [] },
} as unknown as Schemas["Surface"];
const other = { ...surface, id: "keel", name: "Keel" };

const product = (id: string, name: string): Schemas["Product"] => ({
  id,
  version: 1,
  says: [],
  doubts: [],
  sheet: {
    name,
    kind: "barrier",
    film: { minUm: 50, typicalUm: 100, maxUm: 150 },
    methods: ["roller"],
    volumeSolidsPct: 50,
  } as unknown as Schemas["ProductSheet"],
});
const products = [product("grey", "Grey barrier"), product("red", "Red bottom")];

const coat = (id: string, productId: string, coats: number): Schemas["Step"] => ({
  id,
  work: "coat",
  productId,
  coats,
  dftUm: 100,
  method: "roller",
  lossPct: 10,
  thinnerPct: 0,
});

const finding = (more: Partial<Schemas["Finding"]> = {}): Schemas["Finding"] => ({
  step: 0,
  rule: "least-total",
  severity: "stop",
  text: "Only 100 µm of barrier.",
  says: [{ text: "Only 100 µm of barrier." }],
  care: false,
  why: "It keeps water out from 250 µm.",
  fix: "Add coats.",
  source: "the sheet",
  overruled: false,
  reason: "",
  overruledAt: "",
  ...more,
});

const buildUp = (steps: Schemas["Step"][], more: Partial<Schemas["BuildUp"]> = {}): Schemas["BuildUp"] =>
  ({
    surface,
    steps,
    done: steps.map(() => 0),
    findings: [],
    mind: [],
    lastsYears: 0,
    consumables: [{ name: "rollers", amount: 3, unit: "pieces", source: "rule of thumb" }],
    layers: [],
    margin: {},
    tasks: [],
    places: [],
    sum: { tookH: 0, tookL: 0, leftH: 6, leftL: 12, left: 1 },
    workDayH: 8,
    marginText: "",
    job: "Bottoms",
    result: {
      coats: steps.reduce((n, s) => n + s.coats, 0),
      netUm: 300,
      netLowUm: 280,
      netHighUm: 320,
      litres: 12,
      hours: 6,
      priced: true,
      costCents: 45000,
      working,
      lines: [],
    },
    ...more,
  }) as unknown as Schemas["BuildUp"];

const meta = {
  ...DESCRIBED,
  works: WORKS,
  methods: [{ key: "roller", name: "roller", lossPct: 10 }],
};

const scheme = (key: string, job: string, school: string, planned: Schemas["Step"][], missing: string[] = []) => ({
  key,
  job,
  school,
  reason: `Why ${school}.`,
  planned,
  missing,
});

beforeEach(() => {
  HTMLDialogElement.prototype.showModal ??= vi.fn();
});

it("knows which figures a step needs", () => {
  expect(
    needed(
      ["coat", "wash", "sand"].map((k) => freshStep(kindOf(k))),
      kindOf,
    ),
  ).toEqual(["steps.0.coats", "steps.0.dftUm", "steps.0.lossPct", "steps.0.thinnerPct", "steps.2.grit"]);
  expect(freshStep(kindOf("wash")).agent).toBe("detergent");
});

it("plans a step, shows what it comes to before it is saved, and saves it", async () => {
  const plan = buildUp([coat("a", "grey", 2)]);
  const calls = answers({
    "GET /api/meta": meta,
    "GET /api/products": products,
    "POST /api/surfaces/hull/build-up/preview": buildUp([coat("a", "grey", 2), coat("", "grey", 1)]),
    "PUT /api/surfaces/hull/build-up": buildUp([coat("a", "grey", 2), coat("b", "grey", 1)]),
  });
  show(<Editor stored={plan} surfaces={[surface]} />);
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("2 coats make 300 µm dry and take 12.0 L.");
  expect(screen.getByText("rollers", { exact: false }).closest("tr")?.textContent).toContain("3");
  await screen.findByRole("option", { name: "sand" });
  await userEvent.selectOptions(screen.getByLabelText("Add a step"), "coat");
  await waitFor(() => expect(screen.getByRole("heading", { level: 1 }).textContent).toContain("3 coats"));
  await userEvent.click(screen.getByRole("button", { name: "Save the build-up" }));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  const put = calls.find((c) => c.method === "PUT")?.body as { version: number; steps: Schemas["Step"][] };
  expect(put.version).toBe(4);
  expect(put.steps.map((s) => [s.id, s.productId, s.coats])).toEqual([
    ["a", "grey", 2],
    [undefined, "grey", 1],
  ]);
});

it("names the product whose price is missing", async () => {
  const plan = buildUp([coat("a", "grey", 2), coat("b", "red", 1)]);
  plan.result.priced = false;
  const line = (priced: boolean) =>
    ({
      wftUm: 200,
      litres: 4,
      litresLow: 3,
      litresHigh: 5,
      working,
      purchase: { tins: [], litres: 0, leftoverL: 0, costCents: 0, priced },
    }) as unknown as Schemas["BuildupLine"];
  plan.result.lines = [line(true), line(false)];
  answers({ "GET /api/meta": meta, "GET /api/products": products });
  show(<Editor stored={plan} surfaces={[surface]} />);
  expect(await screen.findByText("no price for Red bottom", { exact: false })).toBeTruthy();
});

it("moves and removes steps, but not one that has been begun", async () => {
  const plan = buildUp([coat("a", "grey", 2), coat("b", "red", 1)], { done: [1, 0] });
  answers({ "GET /api/meta": meta, "GET /api/products": products, "POST /api/surfaces/hull/build-up/preview": plan });
  show(<Editor stored={plan} surfaces={[surface]} />);
  expect((await screen.findByRole("button", { name: "Remove step 1" })).hasAttribute("disabled")).toBe(true);
  expect(screen.getByRole("button", { name: "Move step 1 earlier" }).hasAttribute("disabled")).toBe(true);
  await userEvent.click(screen.getByRole("button", { name: "Move step 2 earlier" }));
  const chosen = screen.getAllByLabelText("Product").map((e) => (e as HTMLSelectElement).value);
  await waitFor(() => expect(chosen).toEqual(["red", "grey"]));
  await userEvent.click(screen.getByRole("button", { name: "Undo the changes" }));
  expect(screen.queryByRole("button", { name: "Undo the changes" })).toBeNull();
});

it("asks for a reason before a finding may stand", async () => {
  const calls = answers({ "POST /api/surfaces/hull/overrule": buildUp([]) });
  const view = show(<Findings findings={[finding()]} surfaceId="hull" stepId="a" saved take={() => undefined} />);
  expect(screen.getByText("This fails:", { exact: false })).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "overrule" }));
  await userEvent.type(screen.getByLabelText("Why it may stand"), "a test panel");
  await userEvent.click(screen.getByRole("button", { name: "Let it stand" }));
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(calls[0]?.body).toEqual({ stepId: "a", rule: "least-total", reason: "a test panel", on: true });
  view.unmount();
  show(
    <Findings
      findings={[finding({ overruled: true, reason: "a test panel" })]}
      surfaceId="hull"
      stepId="a"
      saved
      take={() => undefined}
    />,
  );
  expect(screen.getByText("“a test panel”", { exact: false })).toBeTruthy();
  expect(screen.queryByText("This fails:", { exact: false })).toBeNull();
});

it("puts a mend in by a press", async () => {
  const mended = [coat("a", "grey", 3)];
  const took: Schemas["Step"][][] = [];
  const mend = { says: [{ text: "Lay 3 coats of it" }], at: 0, take: 1, steps: [] };
  show(
    <Findings
      findings={[finding({ mend, mended })]}
      surfaceId="hull"
      stepId="a"
      saved
      take={(steps) => took.push(steps)}
    />,
  );
  await userEvent.click(screen.getByRole("button", { name: "Lay 3 coats of it" }));
  expect(took).toEqual([mended]);
});

it("does not offer to overrule what is not saved", () => {
  show(
    <Findings
      findings={[finding({ severity: "warning" })]}
      surfaceId="hull"
      stepId=""
      saved={false}
      take={() => undefined}
    />,
  );
  expect(screen.getByText("Warning:", { exact: false })).toBeTruthy();
  expect(screen.queryByRole("button", { name: "overrule" })).toBeNull();
});

it("sets two ways side by side, and puts one on other surfaces too", async () => {
  const water = [coat("", "grey", 5)];
  const calls = answers({
    "GET /api/products": products,
    "GET /api/surfaces/hull/schemes": [
      scheme("rag", "Decks", "paint", []),
      scheme("water", "Bottoms", "clean with water", water),
      scheme("solvent", "Bottoms", "clean with solvent", [coat("", "red", 3)], ["tie coat"]),
    ],
    "GET /api/systems": [],
    "POST /api/surfaces/hull/build-up/preview": buildUp(water, { findings: [finding()] }),
    "GET /api/surfaces/keel/build-up": buildUp([coat("k1", "red", 1), coat("k2", "red", 1)], {
      surface: { ...other, version: 9 },
      done: [1, 0],
    }),
    "PUT /api/surfaces/keel/build-up": buildUp(water),
  });
  const take = vi.fn();
  show(<Start surface={surface} surfaces={[surface, other]} usual="Bottoms" kept={[]} take={take} close={() => {}} />);
  const left = (await screen.findByRole("heading", { name: "clean with water" })).closest("[data-way]") as HTMLElement;
  const right = screen.getByRole("heading", { name: "clean with solvent" }).closest("[data-way]") as HTMLElement;
  expect(within(right).getByText("The library has no tie coat", { exact: false })).toBeTruthy();
  expect(await within(left).findByText("450.00")).toBeTruthy();
  expect(within(left).getByText("Only 100 µm of barrier.")).toBeTruthy();
  await userEvent.click(screen.getByLabelText("Keel"));
  await userEvent.click(within(left).getByRole("button", { name: "Take this way" }));
  await waitFor(() => expect(take).toHaveBeenCalled());
  const put = calls.find((c) => c.method === "PUT")?.body as { version: number; steps: Schemas["Step"][] };
  expect(put.version).toBe(9);
  expect(put.steps.map((s) => s.id ?? "new")).toEqual(["k1", "new"]);
});

const laid = (um: number, known: string): Schemas["BuildupLayer"] => ({
  product: "Grey barrier",
  kind: "barrier",
  colour: "",
  um,
  laid: true,
  known,
  old: false,
  keep: false,
});

it("counts coats for a film, from the film that coats here really had", async () => {
  const calls = answers({ "POST /api/coats-for": { coats: 3, filmUm: 300, working } });
  show(
    <Goal
      products={products}
      layers={[laid(80, "litres used"), laid(90, "comb readings"), laid(100, "as planned")]}
      close={() => {}}
    />,
  );
  await userEvent.type(screen.getByLabelText("Film wanted"), "250");
  await userEvent.click(screen.getByRole("button", { name: "Count" }));
  expect((await screen.findByRole("status")).textContent).toContain("300 µm in all.");
  expect(calls[0]?.body).toEqual({ productId: "grey", dftUm: 85, filmUm: 250, hide: false, uvStopPct: 0, years: 0 });
});

it("keeps steps as a system, or as the next version of one", async () => {
  const calls = answers({
    "GET /api/systems": [{ id: "s1", version: 2, name: "Our bottom", note: "old", steps: [], versions: [] }],
    "PUT /api/systems/s1": {},
  });
  const done = vi.fn();
  show(<SaveSystem steps={[coat("a", "grey", 5)]} surface={surface} done={done} />);
  await userEvent.selectOptions(
    await screen.findByLabelText("As"),
    await screen.findByRole("option", { name: "version 3 of Our bottom" }),
  );
  await userEvent.click(screen.getByRole("button", { name: "Keep it" }));
  await waitFor(() => expect(done).toHaveBeenCalled());
  const put = calls.find((c) => c.method === "PUT")?.body as { version: number; value: Schemas["SystemEdit"] };
  expect(put.version).toBe(2);
  expect(put.value.note).toBe("old");
  expect(put.value.steps[0]?.id).toBeUndefined();
});

it("adds a whole boat up and opens a surface", async () => {
  answers({
    "GET /api/boats/boat/overview": {
      surfaces: [
        {
          surfaceId: "hull",
          name: "Bottom",
          areaM2: 20,
          coats: 5,
          done: 2,
          netUm: 300,
          litres: 12,
          sum: { tookH: 0, tookL: 0, leftH: 6, leftL: 12, left: 1 },
          costCents: 45000,
          priced: true,
          findings: 1,
          worst: "stop",
          working,
        },
      ],
      own: [{ id: "own", what: [{ text: "Bed the cleats" }], leftH: 5 }],
      products: [{ product: "Grey barrier", coats: 1, litres: 12 }],
      consumables: [{ name: "masking tape", amount: 44, unit: "m", source: "edges of the surface" }],
      stops: 1,
      sum: { tookH: 0, tookL: 0, leftH: 6, leftL: 12, left: 1 },
      workDayH: 4,
      litres: 12,
      costCents: 45000,
      priced: true,
    },
  });
  const open = vi.fn();
  show(
    <Switch>
      <Route>
        <Overview boatId="boat" open={open} />
      </Route>
    </Switch>,
  );
  expect((await screen.findByRole("heading", { level: 1 })).textContent).toContain("5 coats on one surface");
  expect(screen.getByText("One finding would make a coat fail.", { exact: false })).toBeTruthy();
  expect(screen.getByText("1 coat")).toBeTruthy();
  expect(screen.getByText("Bed the cleats").closest("tr")?.textContent).toContain("5 h");
  expect(screen.getByText("masking tape").closest("tr")?.textContent).toContain("44.00 m");
  await userEvent.click(screen.getByRole("button", { name: "Bottom" }));
  expect(open).toHaveBeenCalledWith("hull");
});
