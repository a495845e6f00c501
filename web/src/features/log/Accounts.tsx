import { useState } from "react";
import { Link } from "wouter";
import type { Schemas } from "../../api/client";
import { useAccounts } from "../../api/queries";
import { NumberField } from "../../ui/Form";
import { Answer, Loaded, Tabs } from "../../ui/Page";
import { Reflow } from "../../ui/Reflow";
import { useSettings } from "../../ui/settings";
import { monthOf, span, workdays } from "../../ui/time";
import { LOCALE, tr, word } from "../../words/words";
import { BoatFields } from "../boats/BoatFields";
import { QuotesView } from "./Quotes";

type Line = Schemas["LedgerLine"];

const hours = (h: number) => h.toLocaleString(LOCALE, { maximumFractionDigits: 1 });

/** Hours and money: to date, against the plan, and to finish. */
export function AccountsView({ boatId, zone }: { boatId: string; zone: string }) {
  return (
    <Loaded query={useAccounts(boatId)}>
      {(a) => (
        <>
          <Accounts accounts={a} />
          <div className="no-print mt-4 flex flex-wrap gap-2">
            <Link className="btn btn-primary min-h-12" to={`/boats/${boatId}/log?surface=&kind=spend`}>
              {tr("Log an expense")}
            </Link>
            <a className="btn min-h-12" href={`/api/boats/${boatId}/ledger.csv`} download>
              {tr("Ledger, CSV")}
            </a>
            <a className="btn min-h-12" href={`/api/boats/${boatId}/ledger.xlsx`} download>
              {tr("Ledger, XLSX")}
            </a>
          </div>
          <BoatFields
            boatId={boatId}
            said={tr("That is the budget")}
            fields={(at) => {
              const { name, value, onChange } = at("budgetCents");
              return (
                <div className="w-52">
                  <NumberField
                    name={name}
                    label={tr("Budget for all of it")}
                    hint={tr("with your hours, at their price")}
                    unit=""
                    value={value === undefined ? undefined : value / 100}
                    onChange={(v) => onChange(v === undefined ? undefined : 100 * v)}
                  />
                </div>
              );
            }}
          />
          <QuotesView boatId={boatId} zone={zone} />
        </>
      )}
    </Loaded>
  );
}

/** How it stands against the budget, if there is one. */
function againstBudget(a: Schemas["Accounts"], money: (cents: number, digits?: number) => string): string {
  const values = { over: money(Math.abs(a.totalCents - a.budgetCents), 0), budget: money(a.budgetCents, 0) };
  if (a.budgetCents === 0) return "";
  if (a.totalLowCents > a.budgetCents)
    return tr("Over the budget of {budget} by about {over}, whatever happens. ", values);
  if (a.totalCents > a.budgetCents) return tr("Likely over the budget of {budget}, by about {over}. ", values);
  if (a.totalHighCents > a.budgetCents)
    return tr("Likely within the budget of {budget}, not surely: about {over} to spare. ", values);
  return tr("Within the budget of {budget}, with about {over} to spare. ", values);
}

export function Accounts({ accounts: a, plain }: { accounts: Schemas["Accounts"]; plain?: boolean }) {
  const { money } = useSettings();
  const done = a.materialCents + a.otherCents + a.labourCents;
  const left = a.leftMaterialCents + a.leftLabourCents;
  const against = a.plannedH > 0 ? Math.round((100 * a.reckonedHours) / a.plannedH - 100) : 0;
  const answer =
    againstBudget(a, money) +
    tr("{hours} so far and {leftHours} to come; {done} spent, about {left} to finish.", {
      hours: span(a.hours),
      leftHours: workdays(a.leftHours, a.workDayH),
      done: money(done, 0),
      left: money(left, 0),
    });
  const most = groups(a.lines, "what")
    .filter((g) => g.doneH > 0)
    .slice(0, 3)
    .map((g) => tr("{hours} of {what}", { hours: span(g.doneH), what: word(g.name) }));
  const detail = (
    <>
      {most.length > 0 && tr("{most}; {month} this month. ", { most: most.join(", "), month: span(a.monthH) })}
      {a.leftHours > 0 &&
        tr("It comes to {low} to {high}, and {lowH} to {highH} more, eight times in ten. ", {
          low: money(a.totalLowCents, 0),
          high: money(a.totalHighCents, 0),
          lowH: span(a.leftLowH),
          highH: span(a.leftHighH),
        })}
      {a.plannedH > 0 &&
        (against === 0
          ? tr("As reckoned. ")
          : tr("Work that was reckoned took {against} % {x}. ", {
              against: Math.abs(against),
              x: against > 0 ? tr("more") : tr("less"),
            }))}
      {a.untold > 0 &&
        tr("{untold} {untold, plural, one {entry tells} other {entries tell}} no hours. ", { untold: a.untold })}
      {a.hourCents === 0 && tr("An hour of work has no price: give it one in Plan, Hands and tasks. ")}
      {(a.unpriced ?? []).length > 0 &&
        tr("Without a price in Library: {unpriced}.", { unpriced: a.unpriced?.join(", ") })}
    </>
  );
  return (
    <>
      {plain ? (
        <p>
          {answer} {detail}
        </p>
      ) : (
        <Answer answer={answer} detail={detail} />
      )}
      {plain ? <Table lines={a.lines} by="what" /> : <Ledger lines={a.lines} />}
    </>
  );
}

const BY = [
  { key: "what", name: tr("By work"), column: tr("Work") },
  { key: "surface", name: tr("By surface"), column: tr("Surface") },
  { key: "who", name: tr("By person"), column: tr("Person") },
  { key: "month", name: tr("By month"), column: tr("Month") },
] as const;
type By = (typeof BY)[number]["key"];

function Ledger({ lines }: { lines: Line[] }) {
  const [by, setBy] = useState<By>("what");
  return (
    <>
      <Tabs label={tr("Add up")} tabs={[...BY]} at={by} onChange={setBy} />
      <Table lines={lines} by={by} />
    </>
  );
}

type Group = Omit<Line, "what" | "surface" | "who" | "month"> & { name: string };

/** Lines added up by one of their parts: months in their order, else the most hours first. */
export function groups(lines: Line[], by: By): Group[] {
  const out = new Map<string, Group>();
  for (const { what: _w, surface: _s, who: _p, month: _m, ...sum } of lines.map((l) => ({ ...l, name: l[by] }))) {
    const g = out.get(sum.name);
    if (!g) {
      out.set(sum.name, sum);
      continue;
    }
    for (const k of Object.keys(sum) as (keyof Group)[]) if (k !== "name") g[k] += sum[k];
  }
  const all = [...out.values()];
  if (by === "month") return all.sort((a, b) => (a.name || "9999").localeCompare(b.name || "9999"));
  return all.sort((a, b) => b.doneH + b.toComeH - (a.doneH + a.toComeH) || b.otherCents - a.otherCents);
}

function nameOf(by: By, name: string): string {
  if (name === "") return by === "month" ? tr("not in the plan") : tr("not told");
  if (by === "month") return monthOf(`${name}-15T12:00:00Z`, "UTC");
  return by === "who" ? name : word(name);
}

function Table({ lines, by }: { lines: Line[]; by: By }) {
  const { money } = useSettings();
  const all = groups(lines, by).filter(
    (g) => g.doneH + g.toComeH + g.materialCents + g.materialToComeCents + g.otherCents > 0,
  );
  const most = Math.max(1, ...all.map((g) => g.doneH + g.toComeH));
  const sum = (what: "doneH" | "plannedH" | "toComeH" | "materialCents" | "materialToComeCents" | "otherCents") =>
    all.reduce((n, g) => n + g[what], 0);
  if (all.length === 0) return <p>{tr("Nothing yet.")}</p>;
  return (
    <Reflow>
      <table className="table-plain break-inside-auto text-sm">
        <thead>
          <tr>
            <th>{BY.find((b) => b.key === by)?.column}</th>
            <th className="num">{tr("Hours done")}</th>
            <th className="num">{tr("Reckoned")}</th>
            <th className="num">{tr("Hours to come")}</th>
            <th className="w-1/4 max-sm:hidden" aria-label={tr("Done and to come")} />
            <th className="num">{tr("Coatings")}</th>
            <th className="num">{tr("To buy")}</th>
            <th className="num">{tr("Other expenses")}</th>
          </tr>
        </thead>
        <tbody>
          {all.map((g) => (
            <tr key={g.name}>
              <td className="font-semibold">{nameOf(by, g.name)}</td>
              <td className="num">{g.doneH > 0 && hours(g.doneH)}</td>
              <td className="num">{g.plannedH > 0 && hours(g.plannedH)}</td>
              <td className="num">{g.toComeH > 0 && hours(g.toComeH)}</td>
              <td className="max-sm:hidden">
                <svg viewBox="0 0 100 6" className="w-full" preserveAspectRatio="none" aria-hidden="true">
                  <rect width={(100 * g.doneH) / most} height="6" fill="var(--closing)" />
                  <rect
                    x={(100 * g.doneH) / most}
                    width={(100 * g.toComeH) / most}
                    height="6"
                    fill="none"
                    stroke="currentColor"
                    vectorEffect="non-scaling-stroke"
                  />
                </svg>
              </td>
              <td className="num">{g.materialCents > 0 && money(g.materialCents, 0)}</td>
              <td className="num">{g.materialToComeCents > 0 && money(g.materialToComeCents, 0)}</td>
              <td className="num">{g.otherCents > 0 && money(g.otherCents, 0)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr className="font-semibold">
            <td>{tr("Together")}</td>
            <td className="num">{hours(sum("doneH"))}</td>
            <td className="num">{hours(sum("plannedH"))}</td>
            <td className="num">{hours(sum("toComeH"))}</td>
            <td className="max-sm:hidden" />
            <td className="num">{money(sum("materialCents"), 0)}</td>
            <td className="num">{money(sum("materialToComeCents"), 0)}</td>
            <td className="num">{money(sum("otherCents"), 0)}</td>
          </tr>
        </tfoot>
      </table>
    </Reflow>
  );
}
