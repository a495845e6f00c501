import { useContext, useState } from "react";
import { Link, useParams } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { useBoats, useChange, useStores } from "../../api/queries";
import { Choice, Refusal } from "../../ui/Form";
import { Answer, Loaded, Tabs } from "../../ui/Page";
import { Said } from "../../ui/Sentence";
import { useSettings, Zone } from "../../ui/settings";
import { day, onDay, workdays } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Consumables } from "../buildup/Consumables";
import { editOf, StockForm } from "./StockForm";

const YARD = "";

/** What stands on the shelf, what is still needed, and what to buy, for one boat or the yard. */
export function Stores() {
  const { boatId = "" } = useParams();
  const boats = useBoats().data ?? [];
  const [scope, setScope] = useState(boatId);
  return (
    <>
      <Tabs
        label={tr("For")}
        tabs={[
          { key: boatId, name: boats.find((b) => b.id === boatId)?.name ?? tr("This boat") },
          { key: YARD, name: tr("The whole yard") },
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
  const { show, money } = useSettings();
  const zone = useContext(Zone);
  const buy = stores.needs.filter((n) => n.purchase.tins.length > 0);
  const low = stores.needs.filter((n) => n.low);
  const tins = buy.reduce((s, n) => s + n.purchase.tins.reduce((k, t) => k + t.count, 0), 0);
  const litres = show(
    stores.needs.reduce((s, n) => s + n.forecast.litres, 0),
    "L",
    1,
  );
  return (
    <>
      <Answer
        answer={
          stores.needs.length === 0
            ? tr("Nothing is to be bought: no planned coat is still to go on.")
            : buy.length === 0
              ? stores.needs.some((n) => n.awaitedL > 0)
                ? tr("What is still needed is on the shelf or ordered.")
                : tr("The shelf has all that is still needed.")
              : tr(
                  "Buy {tins, plural, one {one tin} other {# tins}} of {buy, plural, one {one product} other {# products}}{cost}{first}.",
                  {
                    tins,
                    buy: buy.length,
                    cost: stores.priced ? tr(", about {costCents}", { costCents: money(stores.costCents, 0) }) : "",
                    first: stores.first
                      ? tr("; first {product}, by {day} for {surface}", {
                          product: stores.first.product,
                          day: day(stores.first.at, zone),
                          surface:
                            scope === YARD
                              ? `${stores.first.boat}: ${stores.first.surface}`
                              : stores.first.surface.toLowerCase(),
                        })
                      : "",
                  },
                )
        }
        detail={
          stores.needs.length === 0 ? (
            scope !== YARD && (
              <Link className="linked" to={`/boats/${scope}/build-up?surface=whole-boat`}>
                {tr("Plan coats in Build-up, and what they take is listed here.")}
              </Link>
            )
          ) : (
            <>
              {low.length > 0 && (
                <b>
                  {tr("The next coat cannot be finished with what is there:")} {low.map((n) => n.product).join("; ")}.{" "}
                </b>
              )}
              {trNodes(
                "{text} {unit} are still to be laid. What logged coats took corrects the reckoning; the amount bought weighs a stop in mid-coat ({stopCents}, a day of sanding) against a spare tin. The work to come is {leftH}{labourCents}.",
                {
                  text: litres.text,
                  unit: litres.unit,
                  stopCents: money(stores.stopCents, 0),
                  leftH: workdays(stores.leftH, stores.workDayH),
                  labourCents:
                    stores.labourCents > 0 &&
                    tr(", {labourCents} at the price of an hour in Plan", {
                      labourCents: money(stores.labourCents, 0),
                    }),
                },
              )}
            </>
          )
        }
      />
      {stores.unread.map((u) => (
        <p key={JSON.stringify(u)} role="alert" className="mb-3 border-l-4 border-error pl-3">
          <Said words={u} />.
        </p>
      ))}
      {stores.needs.length > 0 && <Needs needs={stores.needs} scope={scope} />}
      <Money />
      <Consumables all={stores.consumables} />
      <Shelf stock={stores.stock} editing={editing} setEditing={setEditing} />
    </>
  );
}

/** What is to come of every product, and what is bought for it. */
function Needs({ needs, scope }: { needs: Schemas["Need"][]; scope: string }) {
  const query = `boatId=${encodeURIComponent(scope)}`;
  return (
    <div className="overflow-x-auto">
      <table className="table-plain stacked" data-testid="needs">
        <thead>
          <tr>
            <th>{tr("Product")}</th>
            <th className="num">{tr("Coats left")}</th>
            <th className="num">{tr("To be laid")}</th>
            <th className="num max-sm:hidden print:hidden">{tr("80 % between")}</th>
            <th className="num">{tr("On the shelf")}</th>
            <th>{tr("Buy")}</th>
            <th className="num">{tr("Cost")}</th>
          </tr>
        </thead>
        <tbody>
          {needs.map((n) => (
            <NeedRow key={n.productId} need={n} />
          ))}
        </tbody>
      </table>
      <div className="no-print mt-3 flex flex-wrap gap-2">
        <button type="button" className="btn min-h-11" onClick={() => window.print()}>
          {tr("Print the list")}
        </button>
        <a className="btn min-h-11" href={`/api/stores/list?format=csv&${query}`} download>
          {tr("Shopping list, CSV")}
        </a>
        <a className="btn min-h-11" href={`/api/stores/list?format=xlsx&${query}`} download>
          {tr("Shopping list, XLSX")}
        </a>
      </div>
    </div>
  );
}

function NeedRow({ need: n }: { need: Schemas["Need"] }) {
  const { money, prose } = useSettings();
  return (
    <tr>
      <td>
        <b>{n.product}</b>
        <span className="quiet block text-sm">{n.surfaces.join(", ")}</span>
        {n.low && (
          <span className="block border-l-4 border-error pl-2 text-sm font-semibold">
            {tr("not enough for the next coat")}
          </span>
        )}
      </td>
      <td className="num" data-label={tr("Coats left")}>
        {n.coats}
      </td>
      <td className="num" data-label={tr("To be laid")}>
        <Figure title={tr("{product}, litres to come", { product: n.product })} working={n.forecast.working}>
          <Quantity value={n.forecast.litres} unit="L" />
        </Figure>
        {n.forecast.coats > 0 && (
          <span className="quiet block text-xs">
            {tr("learned: × {factor}, from {coats} {coats, plural, one {coat} other {coats}}", {
              factor: n.forecast.factor.toFixed(2),
              coats: n.forecast.coats,
            })}
          </span>
        )}
      </td>
      <td className="num max-sm:hidden print:hidden">
        <Quantity value={n.forecast.low} unit="L" /> – <Quantity value={n.forecast.high} unit="L" />
      </td>
      <td className="num" data-label={tr("On the shelf")}>
        <Quantity value={n.stockL} unit="L" />
        {n.awaitedL > 0 && (
          <span className="quiet block text-xs">
            {trNodes("and {awaited} awaited", { awaited: <Quantity value={n.awaitedL} unit="L" /> })}
          </span>
        )}
      </td>
      <td className="print:min-w-56" data-label={tr("Buy")}>
        {n.impossible ? (
          tr("the sheet names no tins that would do")
        ) : n.purchase.tins.length === 0 ? (
          tr("nothing")
        ) : (
          <>
            {n.purchase.tins
              .map(
                (t) =>
                  `${t.count} × ${t.name}${t.supplier || t.partNo ? ` (${[t.supplier, t.partNo].filter(Boolean).join(", ")})` : ""}`,
              )
              .join(" + ")}
            <span className="quiet block text-sm">
              {trNodes("to have {buy} at hand, {leftoverL} over{oneMoreL}. {prose}", {
                buy: <Quantity value={n.forecast.buy} unit="L" />,
                leftoverL: <Quantity value={n.purchase.leftoverL} unit="L" />,
                oneMoreL:
                  n.oneMoreL > 0 &&
                  trNodes("; {oneMoreL} more would cost {oneMoreCents}", {
                    oneMoreL: <Quantity value={n.oneMoreL} unit="L" />,
                    oneMoreCents: money(n.oneMoreCents),
                  }),
                prose: n.notes.map(prose).join(" "),
              })}
            </span>
          </>
        )}
      </td>
      <td className="num" data-label={tr("Cost")}>
        {n.purchase.priced ? money(n.purchase.costCents) : tr("price missing")}
      </td>
    </tr>
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
        label={tr("Prices are in")}
        hint={tr("for the whole yard; changes no figure")}
        value={currency}
        onChange={(code) => set.mutate(code)}
        options={[
          { value: "", label: tr("not said") },
          ...Intl.supportedValuesOf("currency").map((code) => ({ value: code, label: code })),
        ]}
      />
    </div>
  );
}

const PARTS: Record<string, string> = { "": "", base: tr(", base only"), hardener: tr(", hardener only") };

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
  const came = useChange(["stock"], (s: Schemas["StockItem"]) =>
    ok(
      api.PUT("/api/stock/{id}", {
        params: { path: { id: s.id } },
        body: { version: s.version, value: { ...editOf(s), litres: s.leftL, arrivesOn: "" } },
      }),
    ),
  );
  return (
    <section className="mt-8" data-testid="shelf">
      <h2 className="text-lg">{stock.some((s) => s.awaited) ? tr("On the shelf and awaited") : tr("On the shelf")}</h2>
      {stock.length === 0 ? (
        <p className="mb-2">
          {tr("Nothing is noted yet. Put in what is left over from last year: it is not bought again.")}
        </p>
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
                  {[
                    s.batch && `batch ${s.batch}`,
                    s.shelf,
                    s.supplier,
                    s.openedOn && `opened ${onDay(s.openedOn)}`,
                    s.note,
                  ]
                    .filter(Boolean)
                    .join(", ")}
                </span>
                {s.awaited && !s.worry && (
                  <span className="block font-semibold">
                    {tr("awaited on {arrivesOn}", { arrivesOn: s.arrivesOn ? onDay(s.arrivesOn) : "" })}
                  </span>
                )}
                {s.worry && (
                  <span className="block border-l-4 border-warning pl-2 text-sm">
                    <Said words={s.worry} />
                  </span>
                )}
              </span>
              <span>
                <Quantity value={s.leftL} unit="L" />
                {s.leftL < s.litres && (
                  <span className="quiet text-sm">
                    {" "}
                    {trNodes("of {litres} counted", { litres: <Quantity value={s.litres} unit="L" /> })}
                  </span>
                )}
              </span>
              <span className="flex gap-3">
                {s.awaited && (
                  <button
                    type="button"
                    className="btn btn-sm min-h-11"
                    disabled={came.isPending}
                    onClick={() => came.mutate(s)}
                  >
                    {tr("it came")}
                  </button>
                )}
                <button
                  type="button"
                  className="linked max-sm:min-h-11"
                  onClick={() => setEditing(editing === s.id ? null : s.id)}
                >
                  {tr("count anew")}
                </button>
                <button type="button" className="linked max-sm:min-h-11" onClick={() => remove.mutate(s.id)}>
                  {tr("gone")}
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
      <Refusal error={remove.error ?? came.error} />
      {editing === "new" ? (
        <StockForm done={() => setEditing(null)} />
      ) : (
        <button type="button" className="btn btn-primary mt-3 min-h-11" onClick={() => setEditing("new")}>
          {tr("Put something on the shelf")}
        </button>
      )}
    </section>
  );
}
