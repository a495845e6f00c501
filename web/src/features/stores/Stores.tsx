import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, ok, type Schemas } from "../../api/client";
import { useBoats, useChange, useStores } from "../../api/queries";
import { Choice, Refusal } from "../../ui/Form";
import { Answer, Loaded, Tabs } from "../../ui/Page";
import { useSettings } from "../../ui/settings";
import { workdays } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { Consumables } from "../buildup/Consumables";
import { StockForm } from "./StockForm";

const YARD = "";

/** What stands on the shelf, what is still needed, and what to buy, for one boat or the yard. */
export function Stores() {
  const { boatId = "" } = useParams();
  const boats = useBoats().data ?? [];
  const [scope, setScope] = useState(boatId);
  return (
    <>
      <Tabs
        label="For"
        tabs={[
          { key: boatId, name: boats.find((b) => b.id === boatId)?.name ?? "This boat" },
          { key: YARD, name: "The whole yard" },
        ]}
        at={scope}
        onChange={setScope}
      />
      <Loaded query={useStores(scope)}>{(s) => <Shown stores={s} scope={scope} />}</Loaded>
    </>
  );
}

function Shown({ stores, scope }: { stores: Schemas["Stores"]; scope: string }) {
  const [editing, setEditing] = useState<string | null>(null);
  const { show, money, prose } = useSettings();
  const buy = stores.needs.filter((n) => n.purchase.tins.length > 0);
  const low = stores.needs.filter((n) => n.low);
  const tins = buy.reduce((s, n) => s + n.purchase.tins.reduce((k, t) => k + t.count, 0), 0);
  const litres = show(
    stores.needs.reduce((s, n) => s + n.forecast.litres, 0),
    "L",
    1,
  );
  const query = `boatId=${encodeURIComponent(scope)}`;
  return (
    <>
      <Answer
        answer={
          stores.needs.length === 0
            ? "Nothing is to be bought: no planned coat is still to go on."
            : buy.length === 0
              ? "The shelf has all that is still needed."
              : `Buy ${tins} ${tins === 1 ? "tin" : "tins"} of ${buy.length} ${buy.length === 1 ? "product" : "products"}${stores.priced ? `, about ${money(stores.costCents, 0)}` : ""}.`
        }
        detail={
          stores.needs.length === 0 ? (
            scope !== YARD && (
              <Link className="linked" to={`/boats/${scope}/build-up?surface=whole-boat`}>
                Plan coats in Build-up, and what they take is listed here.
              </Link>
            )
          ) : (
            <>
              {low.length > 0 && <b>The next coat cannot be finished with what is there: {low.map((n) => n.product).join("; ")}. </b>}
              {litres.text} {litres.unit} are still to be laid. What logged coats took corrects the reckoning; the amount bought weighs a
              stop in mid-coat ({money(stores.stopCents, 0)}, a day of sanding) against a spare tin. The work to come is{" "}
              {workdays(stores.leftH, stores.workDayH)}
              {stores.labourCents > 0 && `, ${money(stores.labourCents, 0)} at the price of an hour in Plan`}.
            </>
          )
        }
      />
      {stores.needs.length > 0 && (
        <div className="overflow-x-auto">
          <table className="table-plain stacked" data-testid="needs">
            <thead>
              <tr>
                <th>Product</th>
                <th className="num">Coats left</th>
                <th className="num">To be laid</th>
                <th className="num max-sm:hidden">80 % between</th>
                <th className="num">On the shelf</th>
                <th>Buy</th>
                <th className="num">Cost</th>
              </tr>
            </thead>
            <tbody>
              {stores.needs.map((n) => (
                <tr key={n.productId}>
                  <td>
                    <b>{n.product}</b>
                    <span className="quiet block text-sm">{n.surfaces.join(", ")}</span>
                    {n.low && (
                      <span className="block border-l-4 border-error pl-2 text-sm font-semibold">not enough for the next coat</span>
                    )}
                  </td>
                  <td className="num" data-label="Coats left">
                    {n.coats}
                  </td>
                  <td className="num" data-label="To be laid">
                    <Figure title={`${n.product}, litres to come`} working={n.forecast.working}>
                      <Quantity value={n.forecast.litres} unit="L" />
                    </Figure>
                    {n.forecast.coats > 0 && (
                      <span className="quiet block text-xs">
                        learned: × {n.forecast.factor.toFixed(2)}, from {n.forecast.coats} {n.forecast.coats === 1 ? "coat" : "coats"}
                      </span>
                    )}
                  </td>
                  <td className="num max-sm:hidden">
                    <Quantity value={n.forecast.low} unit="L" /> – <Quantity value={n.forecast.high} unit="L" />
                  </td>
                  <td className="num" data-label="On the shelf">
                    <Quantity value={n.stockL} unit="L" />
                  </td>
                  <td data-label="Buy">
                    {n.impossible ? (
                      "the sheet names no tins that would do"
                    ) : n.purchase.tins.length === 0 ? (
                      "nothing"
                    ) : (
                      <>
                        {n.purchase.tins
                          .map(
                            (t) =>
                              `${t.count} × ${t.name}${t.supplier || t.partNo ? ` (${[t.supplier, t.partNo].filter(Boolean).join(", ")})` : ""}`,
                          )
                          .join(" + ")}
                        <span className="quiet block text-sm">
                          to have <Quantity value={n.forecast.buy} unit="L" /> at hand, <Quantity value={n.purchase.leftoverL} unit="L" />{" "}
                          over
                          {n.oneMoreL > 0 && (
                            <>
                              ; <Quantity value={n.oneMoreL} unit="L" /> more would cost {money(n.oneMoreCents)}
                            </>
                          )}
                          . {n.notes.map(prose).join(" ")}
                        </span>
                      </>
                    )}
                  </td>
                  <td className="num" data-label="Cost">
                    {n.purchase.priced ? money(n.purchase.costCents) : "price missing"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="no-print mt-3 flex flex-wrap gap-2">
            <button type="button" className="btn min-h-11" onClick={() => window.print()}>
              Print the list
            </button>
            <a className="btn min-h-11" href={`/api/stores/list?format=csv&${query}`} download>
              Shopping list, CSV
            </a>
            <a className="btn min-h-11" href={`/api/stores/list?format=xlsx&${query}`} download>
              Shopping list, XLSX
            </a>
          </div>
        </div>
      )}
      <Money />
      <Consumables all={stores.consumables} />
      <Shelf stock={stores.stock} editing={editing} setEditing={setEditing} />
    </>
  );
}

/** The money that all prices are in. */
function Money() {
  const { currency } = useSettings();
  const set = useChange(["clock"], (code: string) => ok(api.PUT("/api/currency", { body: { currency: code } })));
  return (
    <div className="no-print mt-3 w-64">
      <Choice
        name="currency"
        label="Prices are in"
        hint="for the whole yard; changes no figure"
        value={currency}
        onChange={(code) => set.mutate(code)}
        options={[{ value: "", label: "not said" }, ...Intl.supportedValuesOf("currency").map((code) => ({ value: code, label: code }))]}
      />
    </div>
  );
}

const PARTS: Record<string, string> = { "": "", base: ", base only", hardener: ", hardener only" };

function Shelf({
  stock,
  editing,
  setEditing,
}: {
  stock: Schemas["StockItem"][];
  editing: string | null;
  setEditing: (id: string | null) => void;
}) {
  const remove = useChange(["stock"], (id: string) => ok(api.DELETE("/api/stock/{id}", { params: { path: { id } } })));
  return (
    <section className="mt-8" data-testid="shelf">
      <h2 className="text-lg">On the shelf</h2>
      {stock.length === 0 ? (
        <p className="mb-2">Nothing is noted yet. Put in what is left over from last year: it is not bought again.</p>
      ) : (
        <ul>
          {stock.map((s) => (
            <li key={s.id} className="rule-b flex flex-wrap items-baseline gap-x-4 gap-y-1 py-2">
              <span className="min-w-60 flex-1">
                <b>
                  {s.product}
                  {PARTS[s.part]}
                </b>
                <span className="quiet block text-sm">
                  {[s.batch && `batch ${s.batch}`, s.shelf, s.supplier, s.openedOn && `opened ${s.openedOn}`, s.note]
                    .filter(Boolean)
                    .join(", ")}
                </span>
                {s.worry && <span className="block border-l-4 border-warning pl-2 text-sm">{s.worry}</span>}
              </span>
              <span>
                <Quantity value={s.leftL} unit="L" />
                {s.leftL < s.litres && (
                  <span className="quiet text-sm">
                    {" "}
                    of <Quantity value={s.litres} unit="L" /> counted
                  </span>
                )}
              </span>
              <span className="flex gap-3">
                <button type="button" className="linked max-sm:min-h-11" onClick={() => setEditing(editing === s.id ? null : s.id)}>
                  count anew
                </button>
                <button type="button" className="linked max-sm:min-h-11" onClick={() => remove.mutate(s.id)}>
                  gone
                </button>
              </span>
              {editing === s.id && (
                <div className="w-full">
                  <StockForm item={s} done={() => setEditing(null)} />
                </div>
              )}
            </li>
          ))}
        </ul>
      )}
      <Refusal error={remove.error} />
      {editing === "new" ? (
        <StockForm done={() => setEditing(null)} />
      ) : (
        <button type="button" className="btn btn-primary mt-3 min-h-11" onClick={() => setEditing("new")}>
          Put something on the shelf
        </button>
      )}
    </section>
  );
}
