import { Link } from "wouter";
import type { Schemas } from "../../api/client";
import { number } from "../../ui/prose";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { clock, day, sameDay, stamp } from "../../ui/time";
import { tr, trNodes } from "../../words/words";
import { named } from "./name";
import { Ways } from "./Ways";

type Launching = Schemas["PlanLaunching"];

/** The launches of a yard: what happens on each boat today, who does it, which is late and what would help. */
export function Launches({ plan }: { plan: Schemas["YardPlan"] }) {
  const zone = plan.place.timeZone;
  const { prose } = useSettings();
  const now = Date.parse(plan.now);
  const items = plan.plan?.items ?? [];
  const closing = items
    .filter((i) => i.closes && Date.parse(i.closes) > now && Date.parse(i.closes) < now + 4 * 86_400_000)
    .sort((a, b) => Date.parse(a.closes ?? "") - Date.parse(b.closes ?? ""));
  const boats = [...(plan.plan?.launches ?? [])].sort(
    (a, b) => trouble(b) - trouble(a) || (a.due ?? "z").localeCompare(b.due ?? "z"),
  );
  const late = boats.some((l) => l.lateH > 0 || !l.at);
  return (
    <>
      <div className="overflow-x-auto">
        <table className="table-plain max-sm:[&_td]:block max-sm:[&_td]:text-left max-sm:[&_thead]:hidden max-sm:[&_tr]:block max-sm:[&_tr]:py-2">
          <thead>
            <tr>
              <th>{tr("Boat")}</th>
              <th>{tr("Today")}</th>
              <th>{tr("Ready, half the time – nine in ten")}</th>
              <th>{tr("Wanted")}</th>
              <th className="num">{tr("In hand")}</th>
              <th className="num">{tr("Work left")}</th>
            </tr>
          </thead>
          <tbody>
            {boats.map((l) => (
              <tr key={l.boatId} className="align-top">
                <td>
                  <Link className="linked" to={`/boats/${l.boatId}/plan?view=season`}>
                    {l.boat}
                  </Link>
                </td>
                <td>
                  <OfToday items={items.filter((i) => i.boatId === l.boatId && !i.launch)} now={plan.now} zone={zone} />
                </td>
                <td className="whitespace-nowrap">
                  <span className="sm:hidden">{tr("ready")} </span>
                  {ready(l, zone)}
                </td>
                <td className="whitespace-nowrap">
                  <span className="sm:hidden">{tr("wanted")} </span>
                  {l.due ? day(l.due, zone) : tr("no day given")}
                </td>
                <td className={`num whitespace-nowrap ${trouble(l) > 0 ? "font-bold text-error" : ""}`}>{inHand(l)}</td>
                <td className="num whitespace-nowrap">
                  {Math.round(l.hours + l.besideH)} h{l.cents > 0 && `, ${number(l.cents / 100, 0)}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {late && <Ways plan={plan} boats={plan.plan?.launches ?? []} title={tr("What would bring them in time")} />}
      {(plan.plan?.notes ?? []).map((n) => (
        <p key={JSON.stringify(n)} className="mt-2 border-l-4 border-warning pl-3 text-sm">
          <Said words={n} />.
        </p>
      ))}
      <h2 className="mt-6 text-lg">{tr("Closing in the next four days")}</h2>
      {closing.length === 0 ? (
        <p>{tr("No recoat window closes in these days.")}</p>
      ) : (
        <ul>
          {closing.map((i) => (
            <li key={i.taskId} className="rule-b border-l-4 border-l-warning py-2 pl-3">
              {trNodes("{closes} {boat}: {surface}; {what} is planned for {start}", {
                closes: <b>{stamp(i.closes ?? "", zone)}</b>,
                boat: i.boat,
                surface: i.surface,
                what: prose(i.what),
                start: stamp(i.start, zone),
              })}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** What is done on a boat today and who does it, or when the next is. */
function OfToday({ items, now, zone }: { items: Schemas["PlanItem"][]; now: string; zone: string }) {
  const { prose } = useSettings();
  const today = items.filter((i) => sameDay(i.start, now, zone));
  const next = items[0];
  if (today.length === 0)
    return (
      <span className="quiet">
        {next
          ? tr("nothing; next {start}, {next}", { start: stamp(next.start, zone), next: named(next, prose) })
          : tr("nothing left")}
      </span>
    );
  return (
    <ul>
      {today.map((i) => (
        <li key={i.taskId}>
          <b>{clock(i.start, zone)}</b> {named(i, prose)}
          {i.people.length > 0 && <span className="quiet"> · {i.people.join(", ")}</span>}
        </li>
      ))}
    </ul>
  );
}

/** 2 is a boat with work that finds no place, 1 a late one. */
const trouble = (l: Launching) => (!l.at ? 2 : l.lateH > 0 ? 1 : 0);

function ready(l: Launching, zone: string) {
  if (!l.at) return tr("{left, plural, one {one task finds} other {{left} tasks find}} no place", { left: l.left });
  if (!l.half) return tr("{at} in usual weather", { at: day(l.at, zone) });
  return `${day(l.half, zone)} – ${l.nine ? day(l.nine, zone) : tr("later than this plan")}`;
}

function inHand(l: Launching) {
  if (!l.at || !l.due) return "–";
  if (l.lateH > 0) return tr("late by {lateH}", { lateH: days(Math.ceil(l.lateH / 24)) });
  return days(Math.floor((Date.parse(l.due) - Date.parse(l.half ?? l.at)) / 86_400_000));
}

/** Days of the calendar: a launch is in time to the end of its day. */
const days = (n: number) => (n === 0 ? tr("the same day") : tr("{n, plural, one {1 day} other {{n} days}}", { n }));
