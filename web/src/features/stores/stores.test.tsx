// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, it, vi } from "vitest";
import { Route, Switch } from "wouter";
import type { Schemas } from "../../api/client";
import { answers, show } from "../../testing";
import { Stores } from "./Stores";

const working = { inputs: [], steps: [], warnings: [] };

const need = (more: Partial<Schemas["Need"]> = {}): Schemas["Need"] =>
  ({
    productId: "grey",
    product: "Grey barrier",
    coats: 3,
    surfaces: ["Bottom"],
    forecast: { litres: 9, low: 8, high: 10, buy: 9.6, factor: 1.12, coats: 2, working },
    reckonedL: 8,
    stockL: 2,
    purchase: {
      tins: [{ name: "2.5 L kit", count: 3, litres: 2.5 }],
      litres: 7.5,
      leftoverL: 0,
      costCents: 30000,
      priced: true,
    },
    oneMoreCents: 5000,
    oneMoreL: 1,
    notes: [[{ text: "A tin of 2.5 L kit makes 0.8 coats." }]],
    nextCoatL: 3,
    low: true,
    impossible: false,
    ...more,
  }) as unknown as Schemas["Need"];

const item = (more: Partial<Schemas["StockItem"]> = {}): Schemas["StockItem"] => ({
  id: "s1",
  version: 3,
  productId: "grey",
  product: "Grey barrier",
  part: "",
  litres: 5,
  leftL: 2,
  batch: "B-7",
  supplier: "",
  shelf: "bench",
  awaited: false,
  note: "",
  boughtOn: "",
  openedOn: "2026-05-01",
  expiresOn: "",
  countedAt: "2026-05-01T08:00:00Z",
  expired: false,
  ...more,
});

const at = (stores: Partial<Schemas["Stores"]>, more: Record<string, unknown> = {}) => {
  const calls = answers({
    "GET /api/boats": [{ id: "boat", name: "Tern" }],
    "GET /api/products": [
      { id: "grey", version: 1, doubts: [], sheet: { name: "Grey barrier", ratioByVolume: { base: 3, hardener: 1 } } },
      { id: "oil", version: 1, doubts: [], sheet: { name: "Oil", ratioByVolume: { base: 0, hardener: 0 } } },
    ],
    "GET /api/stores": {
      stock: [],
      needs: [],
      costCents: 30000,
      priced: true,
      stopCents: 15000,
      consumables: [],
      unread: [],
      ...stores,
    },
    ...more,
  });
  show(
    <Switch>
      <Route path="/boats/:boatId/stores">
        <Stores />
      </Route>
    </Switch>,
    "/boats/boat/stores",
  );
  return calls;
};

beforeEach(() => {
  HTMLDialogElement.prototype.showModal ??= vi.fn();
});

it("says first what to buy, and what cannot be finished", async () => {
  const first = {
    productId: "p",
    product: "Grey barrier",
    boat: "Tern",
    surface: "Bottom",
    at: "2026-05-16T08:00:00Z",
  };
  at({
    needs: [need()],
    stock: [item()],
    consumables: [{ name: "rollers", amount: 3, unit: "pieces", source: "rule of thumb" }],
    first,
  });
  expect((await screen.findByRole("heading", { level: 1 })).textContent).toBe(
    "Buy 3 tins of one product, about 300; first Grey barrier, by Sat 16 May for bottom.",
  );
  expect(screen.getByText("The next coat cannot be finished", { exact: false }).textContent).toContain("Grey barrier");
  expect(screen.getByText("rollers").closest("tr")?.textContent).toContain("3");
  const row = within(screen.getByTestId("needs"));
  expect(row.getByText("learned: × 1.12, from 2 coats", { exact: false })).toBeTruthy();
  expect(row.getByText("3 × 2.5 L kit", { exact: false }).textContent).toContain("1.00 L more would cost 50.00");
  expect((screen.getByText("Shopping list, CSV") as HTMLAnchorElement).getAttribute("href")).toBe(
    "/api/stores/list?format=csv&boatId=boat",
  );
  expect(within(screen.getByTestId("shelf")).getByText("of", { exact: false }).textContent).toContain("5.00 L counted");
});

it("tells an enough shelf from an empty plan, and a missing price from none", async () => {
  at({
    needs: [
      need({ low: false, purchase: { tins: [], litres: 0, leftoverL: 0, costCents: 0, priced: false } as never }),
    ],
  });
  expect((await screen.findByRole("heading", { level: 1 })).textContent).toBe(
    "The shelf has all that is still needed.",
  );
  expect(screen.getByText("price missing")).toBeTruthy();
  expect(screen.getByText("Nothing is noted yet.", { exact: false })).toBeTruthy();
});

it("says so when no coat is planned", async () => {
  at({});
  expect((await screen.findByRole("heading", { level: 1 })).textContent).toContain("Nothing is to be bought");
});

it("puts something on the shelf, one part of a two-part product too", async () => {
  const calls = at({}, { "POST /api/stock": item() });
  await userEvent.click(await screen.findByRole("button", { name: "Put something on the shelf" }));
  await userEvent.click(screen.getByRole("button", { name: "Put it there" }));
  expect((await screen.findByRole("alert")).textContent).toBe("this figure is needed");
  expect(calls.some((c) => c.method === "POST")).toBe(false);
  await userEvent.selectOptions(
    await screen.findByLabelText("Product"),
    await screen.findByRole("option", { name: "Oil" }),
  );
  expect(screen.queryByLabelText("Which part")).toBeNull();
  await userEvent.selectOptions(screen.getByLabelText("Product"), "grey");
  await userEvent.selectOptions(screen.getByLabelText("Which part"), "hardener");
  await userEvent.type(screen.getByLabelText("Litres there"), "1.5");
  await userEvent.click(screen.getByRole("button", { name: "Put it there" }));
  await waitFor(() => expect(calls.some((c) => c.method === "POST")).toBe(true));
  expect(calls.find((c) => c.method === "POST")?.body).toMatchObject({
    productId: "grey",
    part: "hardener",
    litres: 1.5,
  });
});

it("counts an item anew from what is left, and takes it away", async () => {
  const calls = at(
    {
      stock: [
        item({
          worry: [{ text: "past its shelf life since 2026-05-02: not counted on; test it before use" }],
          expired: true,
        }),
      ],
    },
    { "PUT /api/stock/s1": item(), "DELETE /api/stock/s1": {} },
  );
  expect(await screen.findByText("past its shelf life", { exact: false })).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "count anew" }));
  const litres = (await screen.findByLabelText("Litres there")) as HTMLInputElement;
  expect(litres.value).toBe("2");
  await userEvent.click(screen.getByRole("button", { name: "Count it anew" }));
  await waitFor(() =>
    expect(calls.find((c) => c.method === "PUT")?.body).toMatchObject({
      version: 3,
      value: { litres: 2, batch: "B-7" },
    }),
  );
  await userEvent.click(await screen.findByRole("button", { name: "gone" }));
  await waitFor(() => expect(calls.some((c) => c.method === "DELETE")).toBe(true));
});
