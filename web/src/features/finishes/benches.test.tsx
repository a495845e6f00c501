// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it } from "vitest";
import { Route, Switch } from "wouter";
import { answers, DESCRIBED, show } from "../../testing";
import { Finishes } from "./Finishes";

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
const deck = {
  id: "d",
  name: "Deck",
  substrate: "grp",
  substrateName: "GRP",
  crafts: ["non-skid", "moulded", "gelcoat"],
};
const mast = { id: "m", name: "Mast", substrate: "solid-wood", substrateName: "spruce", crafts: ["brightwork"] };
const side = { id: "s", name: "Side", substrate: "aluminium", substrateName: "aluminium", crafts: ["metal"] };
const survey = { boat: { id: "b", name: "Tern" }, place, surfaces: [deck, mast, side] };
const head = {
  version: 1,
  boatId: "b",
  place,
  trouble: [],
  handovers: [],
  product: "Gelcoat",
  says: [{ text: "An answer." }],
  now: "2026-05-09T08:00:00Z",
};
const plan = {
  steps: [
    { name: "Clean", how: "wash and dry", amount: 0, unit: "", workH: 1, waitH: 0.5 },
    { name: "Lay", how: "evenly", amount: 2.5, unit: "L", workH: 0.5, waitH: 12 },
  ],
  takes: [
    { name: "Gelcoat", value: 2.5, unit: "kg", note: "" },
    { name: "Filler", value: 0.02, unit: "L", note: "" },
  ],
  findings: [{ stop: false, text: "Mind the edge." }],
  cautions: ["Goggles."],
  working,
};
const words = {
  schools: [],
  fittings: [],
  grades: [],
  bright: [{ key: "varnish", name: "varnish only", why: "Moves with the wood.", price: "Many coats." }],
  dusts: [{ key: "wood", name: "pale dust", layer: "bare wood", advice: "Stop." }],
  strips: [{ key: "none", name: "not stripped", passes: 0, minutes: 0, waitMin: 0, note: "only where it holds" }],
  olds: [],
  profiles: [{ key: "none", name: "not blasted", correctionUm: 0 }],
  metals: [
    { key: "stainless", name: "stainless steel", why: "" },
    { key: "aluminium", name: "aluminium", why: "" },
  ],
  compounds: [],
  tapes: [],
};
const open = (craft: string, answer: unknown, surface: string, more: Record<string, unknown> = {}) => {
  const calls = answers({
    "GET /api/meta": DESCRIBED,
    "GET /api/boats/b/survey": survey,
    "GET /api/finishes": words,
    "GET /api/products": [],
    [`GET /api/surfaces/${surface}/finishes/${craft}`]: answer,
    [`POST /api/surfaces/${surface}/finishes/${craft}`]: answer,
    ...more,
  });
  show(
    <Switch>
      <Route path="/boats/:boatId/finishes">
        <Finishes />
      </Route>
      <Route path="/boats/:boatId/build-up">
        <h1>the build-up</h1>
      </Route>
    </Switch>,
    `/boats/b/finishes?craft=${craft}&surface=${surface}`,
  );
  return calls;
};

const moulded = (chain: string, right: boolean) => ({
  ...head,
  surface: deck,
  layout: [{ name: "S1", areaM2: 1, lengthM: 1.4, widthM: 0.8 }],
  work: {
    sourceLengthM: 1,
    sourceWidthM: 0.5,
    hollow: false,
    casts: 2,
    trimM: 0.02,
    panels: [
      { name: "S1", areaM2: 1, lengthM: 1.4, widthM: 0.8 },
      { name: "S2", areaM2: 0.3, lengthM: 0.45, widthM: 0.8 },
    ],
    moulds: 1,
    firstUse: true,
    productId: "",
    gelUm: 500,
    fillerMM: 1,
    plies: [{ gsm: 300, cloth: false }],
    tempC: 20,
    pct: 0,
    bondMM: 2,
  },
  result: {
    ...plan,
    seams: [{ panel: "S1", pieces: 4, long: 2, wide: 2, turned: false, lengthM: 2.2 }],
    right,
    chain,
    rounds: 3,
    panelM2: 1.3,
    castM2: 1.5,
    gelMin: 20,
    demouldH: 9,
    partH: 30,
    catalystG: 40,
    pct: 2,
  },
});

it("draws the castings, the seams of a panel that is too large, and one that fits turned", async () => {
  open("moulded", moulded("source raised → mould hollow → panel raised", true), "d");
  expect(await screen.findByText("✓ as on a deck: every cast turns it over")).toBeTruthy();
  const fits = screen.getByTestId("fits");
  expect(fits.textContent).toContain("S1: 4 pieces, a seam of 2.20 m");
  expect(fits.textContent).toContain("S2: in one piece, turned");
  expect(within(fits).getByRole("img", { name: "S1 on the source" }).querySelectorAll("path")).toHaveLength(2);
  expect(screen.getByTestId("mould-figures").textContent).toContain("20 min at 2.0 %");
  const steps = within(screen.getByTestId("steps")).getAllByRole("listitem");
  expect(steps[0]?.textContent).toContain("1 h workthen wait 30 min");
  expect(screen.getByTestId("takes").textContent).toContain("20 mL");
});

it("says when the pattern comes out the wrong way round", async () => {
  open("moulded", moulded("source raised → panel hollow", false), "d");
  expect(await screen.findByText("✗ the wrong way round")).toBeTruthy();
  expect(within(screen.getByTestId("chain")).getByText("panel hollow")).toBeTruthy();
});

it("takes the panels of the layout, adds and removes rows", async () => {
  const calls = open("moulded", moulded("source raised → mould hollow → panel raised", true), "d");
  await userEvent.click(await screen.findByRole("button", { name: "Remove row 2 of wanted" }));
  await waitFor(() =>
    expect(calls.filter((c) => c.method === "POST").at(-1)?.body).toMatchObject({ panels: [{ name: "S1" }] }),
  );
  await userEvent.click(screen.getByRole("button", { name: "Add a ply" }));
  await waitFor(() =>
    expect(calls.filter((c) => c.method === "POST").at(-1)?.body).toMatchObject({
      plies: [{ gsm: 300 }, { gsm: 300 }],
    }),
  );
  while (!(screen.getByRole("button", { name: "Undo" }) as HTMLButtonElement).disabled)
    await userEvent.click(screen.getByRole("button", { name: "Undo" }));
  expect(screen.getByRole("button", { name: "Remove row 2 of wanted" })).toBeTruthy();
});

const bright = {
  ...head,
  surface: mast,
  product: "Varnish",
  handovers: [
    {
      surfaceId: "m",
      surface: "Mast",
      steps: [],
      findings: [],
      mind: [],
      changes: [{ was: [], will: [{ text: "6 × Varnish, keyed with 320" }] }],
      sum: { tookH: 0, tookL: 0, leftH: 6, leftL: 12, left: 1 },
    },
  ],
  nights: [
    { from: "2026-05-09T06:00:00Z", to: "2026-05-09T08:30:00Z" },
    { from: "2026-05-10T20:00:00Z", to: "2026-05-11T01:00:00Z" },
  ],
  work: {
    school: "varnish",
    productId: "",
    seen: "wood",
    strip: "none",
    reachM: 0.6,
    veneerMM: 0,
    leaveMM: 0.6,
    bungs: 0,
    stain: false,
    thinned: true,
    now: 3,
    later: 2,
    covered: false,
    aboveDewH: 14,
  },
  result: {
    ...plan,
    dust: words.dusts[0],
    patches: 0,
    share: { sandH: 0.5, maskH: 0.3, cleanH: 0.2, layH: 0.25, prepPct: 80 },
    counts: [
      {
        coats: 3,
        um: 66,
        uvPct: 65,
        litres: 0.3,
        dueAt: "2026-10-01",
        dueFrom: "2026-08-01",
        dueTo: "2027-03-01",
        years: 0.4,
      },
      {
        coats: 5,
        um: 110,
        uvPct: 83,
        litres: 0.5,
        dueAt: "2028-03-01",
        dueFrom: "2027-06-01",
        dueTo: "2029-01-01",
        years: 1.8,
      },
    ],
    litreM2: 0.075,
    lines: 0,
    tapeM: 0,
    holds: "Due before the winter.",
    veneer: "",
  },
};

it("shows coats now and later to scale, a coat's hours, and when to begin for a dry night", async () => {
  open("brightwork", bright, "m");
  const counts = await screen.findByTestId("counts");
  const bars = [...counts.querySelectorAll("rect")].map((r) => Number(r.getAttribute("width")));
  expect(bars[0]).toBeCloseTo(240);
  expect(bars[1]).toBeCloseTo(400);
  expect(counts.textContent).toContain("65.0 % of the ultraviolet stopped");
  expect(screen.getByTestId("share").textContent).toContain("sanding 30 min");
  const nights = within(screen.getByTestId("nights")).getAllByRole("listitem");
  expect(nights[0]?.textContent).toContain("between 07:00 and 09:30");
  expect(nights[1]?.textContent).toContain("Mon 11 May, 02:00");
  expect(screen.getByTestId("dust").textContent).toContain("That is bare wood. Stop.");
  expect(await screen.findByText(/Its price: Many coats/)).toBeTruthy();
});

it("puts what is kept into the build-up, once a change is kept", async () => {
  const calls = open("brightwork", bright, "m", {
    "POST /api/surfaces/m/finishes/brightwork/plan": { surface: mast },
    "PUT /api/surfaces/m/finishes/brightwork": bright,
  });
  const put = await screen.findByRole("button", { name: "Put it into the build-up" });
  expect(screen.getByTestId("handover").textContent).toContain(
    "One step of Mast would change, 6 h to come from this bench",
  );
  expect(screen.getByText("6 × Varnish, keyed with 320")).toBeTruthy();
  await userEvent.click(screen.getByLabelText("Stain"));
  expect(screen.queryByRole("button", { name: "Put it into the build-up" })).toBeNull();
  expect(put).toBeTruthy();
  await userEvent.click(await screen.findByRole("button", { name: "Put it into the build-up" }, { timeout: 4000 }));
  expect(await screen.findByText("the build-up")).toBeTruthy();
  expect(calls.some((c) => c.path.endsWith("/plan") && c.method === "POST")).toBe(true);
});

const metal = (more: object, result: object) => ({
  ...head,
  surface: side,
  product: "",
  work: {
    profile: "none",
    areaM2: 2,
    coats: 2,
    washedAt: [],
    edgeM: 0,
    oldUm: 250,
    pits: 0,
    pitMM: 0,
    pitM2: 0,
    nominalUm: 150,
    readingsUm: [],
    pairs: [],
    posts: [],
    ...more,
  },
  result: {
    ...plan,
    usedPct: 0,
    washes: [{ coat: 1, says: "wash with fresh water first, and let it dry" }],
    bandMM: 0,
    bandM2: 0,
    pitL: 0,
    pairs: [],
    collarL: 0,
    ...result,
  },
});

it("runs the clock from blasting, pairs washes with coats, names what is eaten", async () => {
  open(
    "metal",
    metal(
      { blastedAt: "2026-05-09T06:00:00Z" },
      {
        usedPct: 40,
        primeBy: "2026-05-09T14:00:00Z",
        washes: [
          { coat: 1, at: "2026-05-09T07:00:00Z", says: "washed" },
          { coat: 2, says: "to come" },
        ],
        pairs: [
          {
            a: "stainless",
            b: "aluminium",
            where: "cleat",
            isolated: false,
            loses: "aluminium",
            says: "aluminium is eaten",
            bad: true,
          },
        ],
        bandMM: 62.5,
        bandM2: 0.5,
      },
    ),
    "s",
  );
  expect((await screen.findByTestId("blast")).textContent).toContain("40 % gone; primed by Sat 9 May, 15:00");
  const washes = within(screen.getByTestId("washes")).getAllByRole("listitem");
  expect(washes[0]?.textContent).toContain("✓ coat 1washed Sat 9 May, 08:00");
  expect(washes[1]?.textContent).toContain("○ coat 2to come");
  expect(screen.getByTestId("pairs").textContent).toContain("✗ cleat: aluminium is eaten");
});

it("takes the time of now for a wash and for the blasting", async () => {
  const calls = open("metal", metal({}, {}), "s");
  await userEvent.click(await screen.findByRole("button", { name: "Washed now" }));
  await waitFor(() =>
    expect(calls.filter((c) => c.method === "POST").at(-1)?.body).toMatchObject({ washedAt: ["2026-05-09T08:00:00Z"] }),
  );
  await userEvent.click(screen.getByRole("button", { name: "now" }));
  await waitFor(() =>
    expect(calls.filter((c) => c.method === "POST").at(-1)?.body).toMatchObject({ blastedAt: "2026-05-09T08:00:00Z" }),
  );
});

it("shows what of kept work no longer goes, without its figures", async () => {
  open(
    "metal",
    {
      ...metal({}, {}),
      says: [],
      trouble: [{ path: "", message: "no metal", says: [{ text: "Side is of spruce, no metal" }] }],
    },
    "s",
  );
  expect((await screen.findByTestId("answer")).textContent).toBe("Side is of spruce, no metal");
  expect(screen.queryByTestId("washes")).toBeNull();
});

it("doses a repair by grams and drops what a whole face would need", async () => {
  open(
    "gelcoat",
    {
      ...head,
      surface: deck,
      work: {
        way: "repair",
        productId: "",
        areaM2: 1,
        filmUm: 600,
        passUm: 300,
        gouges: [{ lengthMM: 40, widthMM: 10, depthMM: 2, count: 1 }],
        tempC: 18,
        pct: 0,
        seal: "film",
        fromGrit: 320,
        toGrit: 1500,
        leastUm: 350,
        patches: [],
      },
      night: { pct: 2, setH: 3, says: [{ text: "Set before night with 2 %." }] },
      result: {
        ...plan,
        passes: 1,
        litres: 0.0009,
        pots: 1,
        dose: { pct: 2, g: 0.02, mL: 0.02, gelH: 0.4, findings: [] },
        potL: 0.0009,
        gelMin: 24,
        tackMin: 120,
        sandH: 8,
        leftUm: 0,
        ladder: [{ grit: 320, removedUm: 0, hours: 0.1, discs: 1, why: "cuts the surface level" }],
        comb: { wetUm: 0, dryUm: 0 },
        match: "No patch yet.",
      },
    },
    "d",
  );
  const figures = (await screen.findByTestId("gel-figures")).textContent ?? "";
  expect(figures).toContain("0.9 mL");
  expect(figures).toContain("Layers");
  expect(figures).not.toContain("On the comb");
  expect(screen.queryByLabelText("Wet film in all")).toBeNull();
  expect(screen.getByTestId("ladder").textContent).toContain("320");
});
