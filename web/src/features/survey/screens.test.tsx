// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, it, vi } from "vitest";
import { Route, Switch } from "wouter";
import type { Schemas } from "../../api/client";
import { answers, show } from "../../testing";
import { DefectForm, DefectList } from "./Defects";
import { newSurface } from "./edit";
import { Models } from "./Models";
import { MeasuringSheet, WalkRound } from "./Sheets";
import { SplitForm } from "./SplitForm";
import { SurfaceList } from "./SurfaceList";
import { TemplateForm } from "./TemplateForm";

const working = { inputs: [], steps: [], warnings: [] };
const area = { areaM2: 12, uncertaintyPct: 4.4, working, figures: [], disagreeing: [] };

const surface = (id: string, name: string, more: Partial<Schemas["Surface"]> = {}): Schemas["Surface"] => ({
  ...newSurface(),
  id,
  name,
  crafts: [],
  version: 1,
  boatId: "boat",
  area,
  measuring: "good",
  substrateName: "GRP",
  cautions: [],
  openDefects: 0,
  measured: { chosen: 0, measures: [{ method: "principal" }] },
  ...more,
});

const defect = (id: string, number: number, more: Partial<Schemas["Defect"]> = {}): Schemas["Defect"] => ({
  id,
  version: 1,
  number,
  foundAt: "2026-05-01T08:00:00Z",
  surfaceId: "hull",
  kind: "crack",
  place: { view: "port side", x: 3.25, y: 0.4 },
  lengthMM: 200,
  widthMM: 4,
  depthMM: 1.5,
  count: 1,
  action: "",
  state: "found",
  note: "below the rail",
  repair: { hours: 0.5, fillerL: 0.012, open: true, working },
  photos: [],
  ...more,
});

const survey = (more: Partial<Schemas["Survey"]> = {}): Schemas["Survey"] =>
  ({
    boat: { id: "boat", name: "Tern", dimensions: { loaM: 6, lwlM: 5.4 } },
    surfaces: [
      surface("hull", "Bottom", { part: "bottom" }),
      surface("rail", "Rail", { group: "Brightwork", part: "rails" }),
      surface("mast", "Mast", { group: "Brightwork", part: "spars" }),
    ],
    models: [],
    defects: [
      defect("one", 1),
      defect("two", 2, { state: "faired", repair: { hours: 1, fillerL: 1, open: false, working } }),
    ],
    views: [],
    drawnFrom: "her dimensions",
    ...more,
  }) as Schemas["Survey"];

const meta = {
  survey: {
    parts: [{ part: "bottom", name: "bottom", girthed: true }],
    methods: { principal: "principal dimensions", girths: "girths" },
    defectKinds: [
      { kind: "crack", name: "crack", action: "open to a V" },
      { kind: "void", name: "void", action: "grind open" },
    ],
    defectStates: ["found", "faired"],
    templates: [
      { key: "motor-launch", name: "motor launch", surfaces: [{ name: "Bottom" }, { name: "Deck" }] },
      { key: "plain", name: "hull only", surfaces: [{ name: "Bottom" }] },
    ],
    substrates: [
      { key: "grp", name: "GRP" },
      { key: "steel", name: "steel" },
    ],
  },
};

beforeEach(() => {
  HTMLDialogElement.prototype.showModal ??= vi.fn();
});

it("lists surfaces by group with the group's sum, and moves them within it", async () => {
  const calls = answers({ "GET /api/meta": meta, "PUT /api/boats/boat/surfaces/order": {} });
  const pick = vi.fn();
  show(<SurfaceList survey={survey()} picked="rail" pick={pick} />);
  const rows = screen.getAllByRole("row").map((r) => r.textContent ?? "");
  expect(rows.some((r) => r.startsWith("Brightwork") && r.includes("24.0"))).toBe(true);
  expect(screen.getByLabelText<HTMLButtonElement>("Rail up").disabled).toBe(true);
  await userEvent.click(screen.getByLabelText("Rail down"));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  expect(calls.find((c) => c.method === "PUT")?.body).toEqual({ ids: ["hull", "mast", "rail"] });
  await userEvent.click(screen.getByText("Mast"));
  expect(pick).toHaveBeenCalledWith("mast");
  await waitFor(() => expect(screen.getAllByText("principal dimensions").length).toBeGreaterThan(0));
});

it("lists a defect with its size, work and state, or says how to note one", async () => {
  answers({ "GET /api/meta": meta });
  const pin = vi.fn();
  const { unmount } = show(<DefectList defects={[defect("one", 1, { count: 3 })]} pin={pin} />);
  const row = screen.getByRole("listitem");
  await waitFor(() => expect(row.textContent).toContain("3 × crack"));
  expect(row.textContent).toContain("200 × 4 × 1.5 mm");
  expect(row.textContent).toContain("30 min, 12.0 mL");
  await userEvent.click(screen.getByText("open"));
  expect(pin).toHaveBeenCalledWith("one");
  unmount();
  show(<DefectList defects={[]} pin={pin} />);
  await userEvent.click(screen.getByText("Pin a defect"));
  expect(pin).toHaveBeenLastCalledWith();
});

it("sends a new defect with the place that was pressed", async () => {
  const calls = answers({ "GET /api/meta": meta, "POST /api/boats/boat/defects": defect("new", 3) });
  const done = vi.fn();
  show(<DefectForm survey={survey()} place={{ view: "plan", x: 2, y: -0.3, surfaceId: "rail" }} done={done} />);
  await waitFor(() => expect(screen.getByText("usual: grind open")).toBeTruthy());
  await userEvent.selectOptions(screen.getByLabelText("What is it"), "crack");
  await userEvent.type(screen.getByLabelText("Length"), "200");
  await userEvent.clear(screen.getByLabelText("How many"));
  await userEvent.click(screen.getByText("Note it"));
  expect(screen.getByText("this figure is needed")).toBeTruthy();
  expect(calls.some((c) => c.method === "POST")).toBe(false);
  await userEvent.type(screen.getByLabelText("How many"), "2");
  await userEvent.clear(screen.getByLabelText("From aft"));
  await userEvent.type(screen.getByLabelText("From aft"), "2,5");
  await userEvent.type(screen.getByLabelText("Frame or landmark"), "7");
  await userEvent.click(screen.getByText("Note it"));
  await waitFor(() => expect(done).toHaveBeenCalledWith("new"));
  expect(calls.find((c) => c.method === "POST")?.body).toMatchObject({
    surfaceId: "rail",
    kind: "crack",
    lengthMM: 200,
    count: 2,
    place: { view: "plan", x: 2.5, y: -0.3 },
    frame: "7",
  });
});

it("goes on to the next defect as one walks round her", async () => {
  answers({ "GET /api/meta": meta });
  const done = vi.fn();
  const defects = [
    defect("a", 2),
    defect("m", 3, { repair: { hours: 1, fillerL: 0, open: false, working } }),
    defect("b", 1),
  ];
  show(<DefectForm survey={survey({ defects })} defect={defects[0]} done={done} />);
  await userEvent.click(await screen.findByText(/^On to 1, /));
  expect(done).toHaveBeenCalledWith("b");
});

it("finds a mended defect again, and says what it was", async () => {
  const mended = {
    ...defect("d", 4),
    state: "faired",
    history: [{ at: "2026-05-01T08:00:00Z", state: "found" }],
    repair: { hours: 1, fillerL: 0, open: false, working },
  };
  const calls = answers({ "GET /api/meta": meta, "PUT /api/defects/d": mended });
  show(
    <DefectForm
      survey={survey({ place: { timeZone: "UTC" } as Schemas["Place"] })}
      defect={mended as unknown as Schemas["Defect"]}
      done={vi.fn()}
    />,
  );
  expect((await screen.findByTestId("history")).textContent).toMatch(/^found until Friday 1 May.*, now faired\.$/);
  await userEvent.click(screen.getByText("It is there again"));
  await userEvent.click(screen.getByText("Save the defect"));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  expect(calls.find((c) => c.method === "PUT")?.body).toMatchObject({ version: 1, value: { state: "found" } });
});

it("says what a hull type brings before it is added", async () => {
  const calls = answers({ "GET /api/meta": meta, "POST /api/boats/boat/template": { added: 2 } });
  const done = vi.fn();
  show(<TemplateForm boatId="boat" done={done} />);
  await waitFor(() => expect(screen.getByText(/Bottom, Deck\./)).toBeTruthy());
  await userEvent.selectOptions(screen.getByLabelText("Mostly of"), "steel");
  await userEvent.click(screen.getByText("Add them"));
  await waitFor(() => expect(done).toHaveBeenCalled());
  expect(calls.find((c) => c.method === "POST")?.body).toEqual({ template: "motor-launch", substrate: "steel" });
});

it("shows a refused split at its field", async () => {
  answers({
    "POST /api/surfaces/hull/split": {
      status: 422,
      detail: "some fields",
      errors: [{ location: "body.pct", message: "must be between 1 % and 99 %" }],
    },
  });
  const done = vi.fn();
  show(<SplitForm surface={surface("hull", "Bottom")} version={1} done={done} />);
  await userEvent.click(screen.getByText("Split it"));
  await waitFor(() => expect(screen.getByText("must be between 1 % and 99 %")).toBeTruthy());
  expect(done).not.toHaveBeenCalled();
});

it("refuses a model file that is too large before it is sent", async () => {
  const calls = answers({});
  show(<Models boatId="boat" models={[]} />);
  await userEvent.click(screen.getByText("Measure it"));
  expect(screen.getAllByText("choose a file").length).toBeGreaterThan(0);
  const file = new File(["solid"], "Hull.STL");
  Object.defineProperty(file, "size", { value: 300 * 2 ** 20 });
  await userEvent.upload(screen.getByLabelText("Model file"), file);
  expect(screen.getByLabelText<HTMLInputElement>("Model name").value).toBe("Hull.STL");
  await userEvent.click(screen.getByText("Measure it"));
  expect(screen.getByText(/has 300 MB; at most 128 MB/)).toBeTruthy();
  expect(calls).toHaveLength(0);
});

it("tells what a model measures and what is wrong with it", async () => {
  const model = {
    id: "m",
    version: 2,
    name: "Hull",
    format: "stl",
    draws: true,
    unit: "m",
    up: "+z",
    forward: "+x",
    waterlineM: 0,
    bootTopM: 0,
    areas: {
      totalM2: 30,
      groups: {},
      zones: { bottom: { portM2: 8, starboardM2: 9 }, deck: { portM2: 0, starboardM2: 0 } },
    },
    report: { sizeXM: 10, sizeYM: 3, sizeZM: 2, facets: 1200 },
    findings: ["3 edges belong to one facet only"],
    stations: [],
  } as unknown as Schemas["Model"];
  const calls = answers({ "PUT /api/models/m": model });
  show(<Models boatId="boat" models={[model]} />);
  const block = screen.getByTestId("models");
  expect(block.textContent).toContain("10.00 m × 3.00 m × 2.00 m, 1200 facets");
  expect(block.textContent).toContain("bottom 17.0 m²");
  expect(block.textContent).not.toContain("deck 0");
  expect(block.textContent).toContain("3 edges belong");
  await userEvent.click(screen.getByText("place it otherwise"));
  const form = screen.getByText("Measure it anew").closest("form") as HTMLElement;
  await userEvent.selectOptions(within(form).getByLabelText("Up is"), "+y");
  await userEvent.click(screen.getByText("Measure it anew"));
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(calls[0]?.body).toMatchObject({ version: 2, value: { up: "+y", name: "Hull", draws: true } });
});

const sheet = (path: string, element: React.ReactNode) =>
  show(
    <Switch>
      <Route path="/boats/:boatId/x">{element}</Route>
    </Switch>,
    path,
  );

it("prints only what is still to be mended, with where and what to do", async () => {
  answers({ "GET /api/meta": meta, "GET /api/boats/boat/survey": survey() });
  sheet("/boats/boat/x", <WalkRound />);
  await waitFor(() => expect(screen.getByTestId("answer").textContent).toBe("1 to look at, about 30 min of work."));
  const rows = screen.getAllByRole("row");
  expect(rows).toHaveLength(2);
  await waitFor(() => expect(screen.getAllByRole("row")[1]?.textContent).toContain("open to a V"));
  expect(rows[1]?.textContent).toContain("port side, 3.3 m from aft");
});

it("says so when nothing waits", async () => {
  answers({ "GET /api/meta": meta, "GET /api/boats/boat/survey": survey({ defects: [] }) });
  sheet("/boats/boat/x", <WalkRound />);
  await waitFor(() => expect(screen.getByTestId("answer").textContent).toBe("Nothing is waiting to be mended."));
});

it("offers even stations over the waterline to be taped, and saves them beside what is there", async () => {
  const calls = answers({
    "GET /api/meta": meta,
    "GET /api/boats/boat/survey": survey(),
    "PUT /api/surfaces/hull": surface("hull", "Bottom"),
  });
  sheet("/boats/boat/x", <MeasuringSheet />);
  await waitFor(() => expect(screen.getByTestId("answer").textContent).toContain("Tape one surface"));
  const at = (i: number) => screen.getByLabelText<HTMLInputElement>(`Bottom, station ${i} at`).value;
  expect([at(1), at(4), at(7)]).toEqual(["0", "2.7", "5.4"]);
  await userEvent.click(screen.getByText("Save Bottom"));
  expect(screen.getAllByText("this is not a number")).toHaveLength(7);
  for (let i = 1; i <= 7; i++) await userEvent.type(screen.getByLabelText(`Bottom, station ${i} girth`), "1.5");
  await userEvent.click(screen.getByText("Save Bottom"));
  await waitFor(() => expect(calls.some((c) => c.method === "PUT")).toBe(true));
  const sent = calls.find((c) => c.method === "PUT")?.body as { value: Schemas["SurfaceEdit"] };
  expect(sent.value.measured.chosen).toBe(1);
  expect(sent.value.measured.measures.map((m) => m.method)).toEqual(["principal", "girths"]);
  expect(sent.value.measured.measures[1]?.girths?.stations).toHaveLength(7);
  expect(sent.value.measured.measures[1]?.girths?.sides).toBe(2);
});
