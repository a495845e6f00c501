import { useState } from "react";
import { Link } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useQuotes, useSurvey } from "../../api/queries";
import { Check, Errors, NumberField, Refusal, TextField } from "../../ui/Form";
import { Loaded } from "../../ui/Page";
import { number } from "../../ui/prose";
import { Reflow } from "../../ui/Reflow";
import { useSettings } from "../../ui/settings";
import { day, workdays } from "../../ui/time";
import { useEdition } from "../../ui/useEdition";
import { LOCALE, tr } from "../../words/words";

type Quote = Schemas["Quote"];
type Offer = Schemas["Offer"];

const hours = (h: number) => h.toLocaleString(LOCALE, { maximumFractionDigits: 1 });

/** What shops ask for parts of the work, against doing it oneself. */
export function QuotesView({ boatId, zone }: { boatId: string; zone: string }) {
  return (
    <section className="mt-10">
      <h2 className="text-xl">{tr("Own work or the shop")}</h2>
      <Loaded query={useQuotes(boatId)}>{(q) => <Quotes boatId={boatId} quotes={q} zone={zone} />}</Loaded>
    </section>
  );
}

/** Which of the offers is worth it, in a sentence. */
export function verdict(q: Schemas["Quotes"], money: (cents: number, digits?: number) => string): string {
  const priced = q.quotes.filter((o) => o.tasks > 0);
  if (q.quotes.length === 0)
    return tr("Enter what a shop asks, and it is held against your own hours, money and days.");
  if (priced.length === 0) return tr("Nothing of what was quoted for is left to do.");
  const best = [...priced].sort((a, b) => a.dearerCents - b.dearerCents)[0] as Offer;
  if (best.dearerCents <= 0)
    return tr("{who} is cheaper than your own hours at their price, by {less}: {hours} h of yours for {cost}.", {
      who: best.who,
      less: money(-best.dearerCents, 0),
      hours: hours(best.own.hours),
      cost: money(best.cents, 0),
    });
  return tr(
    "Do it yourself, if your hours are worth less than {hour}: that is what {who} asks for each of the {hours} h it saves.",
    {
      hour: money(best.savedHourCents ?? 0, 0),
      who: best.who,
      hours: hours(best.own.hours),
    },
  );
}

function Quotes({ boatId, quotes: q, zone }: { boatId: string; quotes: Schemas["Quotes"]; zone: string }) {
  const { money } = useSettings();
  const [adding, setAdding] = useState(false);
  const surfaces = useSurvey(boatId).data?.surfaces ?? [];
  const plain = ({
    own: _o,
    tasks: _t,
    dearerCents: _d,
    savedHourCents: _s,
    ownReady: _r,
    ownLasts: _l,
    ...quote
  }: Offer): Quote => quote;
  const set = useChange(
    ["boat"],
    (value: Quote[]) =>
      ok(api.PUT("/api/boats/{id}/quotes", { params: { path: { id: boatId } }, body: { version: q.version, value } })),
    () => setAdding(false),
  );
  const kept = q.quotes.map(plain);
  const where = (o: Offer) =>
    (o.surfaces ?? []).length === 0
      ? tr("all surfaces")
      : surfaces
          .filter((s) => o.surfaces?.includes(s.id))
          .map((s) => s.name)
          .join(", ");
  return (
    <>
      <p className="font-semibold">{verdict(q, money)}</p>
      {q.quotes.length > 0 && (
        <Reflow>
          <table className="table-plain text-sm">
            <thead>
              <tr>
                <th>{tr("Who")}</th>
                <th className="num">{tr("Asks")}</th>
                <th className="num">{tr("Oneself, with hours")}</th>
                <th className="num">{tr("Hours it saves")}</th>
                <th className="num">{tr("A saved hour costs")}</th>
                <th>{tr("Ready: shop – oneself")}</th>
                <th>{tr("Holds: shop – oneself")}</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {q.quotes.map((o, i) => (
                <tr key={o.id}>
                  <td>
                    <b>{o.who}</b>
                    <span className="quiet block">
                      {o.coats ? tr("the coats of {where}", { where: where(o) }) : where(o)}
                      {o.note && ` – ${o.note}`}
                    </span>
                  </td>
                  <td className="num">{money(o.cents, 0)}</td>
                  <td className="num">
                    {money(o.own.materialCents + o.own.labourCents, 0)}
                    <span className="quiet block">
                      {tr("{material} of it material", { material: money(o.own.materialCents, 0) })}
                    </span>
                  </td>
                  <td className="num">
                    {workdays(o.own.hours, q.workDayH)}
                    <span className="quiet block">
                      {hours(o.own.lowH)} – {hours(o.own.highH)} h
                    </span>
                  </td>
                  <td className="num">{o.savedHourCents === undefined ? "–" : money(o.savedHourCents, 0)}</td>
                  <td className="whitespace-nowrap">
                    {o.readyOn ? day(`${o.readyOn}T12:00:00Z`, "UTC") : tr("not said")} –{" "}
                    {o.ownReady ? day(o.ownReady, zone) : tr("not in the plan")}
                  </td>
                  <td className="whitespace-nowrap">
                    {o.lastsYears > 0 ? tr("{years} years", { years: number(o.lastsYears, 1) }) : tr("not said")} –{" "}
                    {o.ownLasts > 0 ? tr("{years} years", { years: number(o.ownLasts, 1) }) : tr("not told")}
                  </td>
                  <td>
                    <button
                      type="button"
                      className="linked max-sm:min-h-11"
                      onClick={() => set.mutate(kept.filter((_, k) => k !== i))}
                    >
                      {tr("forget it")}
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Reflow>
      )}
      {q.quotes.length > 0 && (
        <p className="quiet text-sm">
          {tr("What a shop does to the day of the launch is among the changes in Plan.")}{" "}
          <Link className="linked" to={`/boats/${boatId}/plan?view=risk`}>
            {tr("See the odds with it.")}
          </Link>
        </p>
      )}
      <Refusal error={set.error} />
      {adding ? (
        <QuoteForm
          surfaces={surfaces}
          fields={set.error?.fields}
          at={kept.length}
          busy={set.isPending}
          add={(quote) => set.mutate([...kept, quote])}
          cancel={() => setAdding(false)}
        />
      ) : (
        <button type="button" className="btn mt-3 min-h-11" onClick={() => setAdding(true)}>
          {tr("Enter a quote")}
        </button>
      )}
    </>
  );
}

const EMPTY: Quote = { id: "", who: "", surfaces: [], coats: false, cents: 0, readyOn: "", lastsYears: 0, note: "" };

function QuoteForm({
  surfaces,
  fields,
  at,
  busy,
  add,
  cancel,
}: {
  surfaces: Schemas["Surface"][];
  fields?: Record<string, import("../../api/client").Words>;
  at: number;
  busy: boolean;
  add: (q: Quote) => void;
  cancel: () => void;
}) {
  const { edit: quote, set, at: field } = useEdition(undefined, () => EMPTY);
  const chosen = quote.surfaces ?? [];
  const of = (k: "who" | "readyOn" | "note") => ({ ...field(k), name: `quotes[${at}].${k}` });
  const p = `quotes[${at}]`;
  return (
    <Errors.Provider value={fields ?? {}}>
      <form
        className="mt-3 max-w-4xl border border-base-content p-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          add(quote);
        }}
      >
        <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
          <TextField {...of("who")} label={tr("Who asks it")} />
          <NumberField
            name={`${p}.cents`}
            label={tr("What it asks, with material")}
            unit=""
            value={quote.cents / 100 || undefined}
            onChange={(v) => set({ cents: Math.round(100 * (v ?? 0)) })}
          />
          <TextField {...of("readyOn")} label={tr("Ready on")} type="date" />
          <NumberField
            name={`${p}.lastsYears`}
            label={tr("Said to hold")}
            unit="years"
            value={quote.lastsYears || undefined}
            onChange={(v) => set({ lastsYears: v ?? 0 })}
          />
        </div>
        <fieldset className="mt-3">
          <legend className="text-sm font-semibold">{tr("Which surfaces (none: all of them)")}</legend>
          <div className="mt-1 flex flex-wrap gap-2">
            {surfaces.map((s) => {
              const on = chosen.includes(s.id);
              return (
                <button
                  key={s.id}
                  type="button"
                  aria-pressed={on}
                  className={`btn min-h-11 ${on ? "btn-neutral" : "btn-ghost border-base-300"}`}
                  onClick={() => set({ surfaces: on ? chosen.filter((k) => k !== s.id) : [...chosen, s.id] })}
                >
                  {on && "✓ "}
                  {s.name}
                </button>
              );
            })}
          </div>
        </fieldset>
        <Check
          {...field("coats")}
          label={tr("Only the coats")}
          hint={tr("what comes before the first and after the last is yours")}
        />
        <TextField {...of("note")} label={tr("Note")} />
        <div className="mt-3 flex gap-2">
          <button type="submit" className="btn btn-primary min-h-11" disabled={busy}>
            {tr("Compare it")}
          </button>
          <button type="button" className="btn btn-ghost min-h-11" onClick={cancel}>
            {tr("Cancel")}
          </button>
        </div>
      </form>
    </Errors.Provider>
  );
}
