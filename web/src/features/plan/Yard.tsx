import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useWays } from "../../api/queries";
import { Loaded } from "../../ui/Page";
import { Said } from "../../ui/Sentence";
import { number } from "../../ui/settings";
import { day, stamp } from "../../ui/time";

/** All boats of the yard: when each is ready, what is next on her, and what closes soon. */
export function Yard({ plan }: { plan: Schemas["YardPlan"] }) {
  const zone = plan.place.timeZone;
  const now = Date.parse(plan.now);
  const items = plan.plan?.items ?? [];
  const closing = items
    .filter((i) => i.closes && Date.parse(i.closes) > now && Date.parse(i.closes) < now + 4 * 86_400_000)
    .sort((a, b) => Date.parse(a.closes ?? "") - Date.parse(b.closes ?? ""));
  return (
    <>
      <div className="overflow-x-auto">
        <table className="table-plain">
          <thead>
            <tr>
              <th>Boat</th>
              <th>Ready</th>
              <th>Wanted</th>
              <th className="num">In hand</th>
              <th className="num">Work left</th>
              <th className="num">Missed windows</th>
              <th>Next</th>
            </tr>
          </thead>
          <tbody>
            {(plan.plan?.launches ?? []).map((l) => {
              const next = items.find((i) => i.boatId === l.boatId && !i.launch);
              const spare = l.due ? (Date.parse(l.due) - Date.parse(l.at)) / 3_600_000 : undefined;
              return (
                <tr key={l.boatId}>
                  <td>
                    <Link className="linked" to={`/boats/${l.boatId}/plan?view=season`}>
                      {l.boat}
                    </Link>
                  </td>
                  <td className="whitespace-nowrap">{day(l.at, zone)}</td>
                  <td className="whitespace-nowrap">{l.due ? day(l.due, zone) : "no day given"}</td>
                  <td className={`num whitespace-nowrap ${l.lateH > 0 ? "font-bold text-error" : ""}`}>
                    {spare === undefined ? "–" : l.lateH > 0 ? `late by ${days(Math.ceil(l.lateH / 24))}` : days(Math.floor(spare / 24))}
                  </td>
                  <td className="num whitespace-nowrap">
                    {Math.round(l.hours)} h{l.cents > 0 && `, ${number(l.cents / 100, 0)}`}
                  </td>
                  <td className="num">{l.rekey}</td>
                  <td>{next ? `${stamp(next.start, zone)}: ${next.surface ? `${next.surface}, ` : ""}${next.what}` : "nothing left"}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {plan.plan?.launches.some((l) => l.lateH > 0) && <Ways plan={plan} />}
      {(plan.plan?.notes ?? []).map((n) => (
        <p key={JSON.stringify(n)} className="mt-2 border-l-4 border-warning pl-3 text-sm">
          <Said words={n} />.
        </p>
      ))}
      <h2 className="mt-6 text-lg">Closing in the next four days</h2>
      {closing.length === 0 ? (
        <p>No recoat window closes in these days.</p>
      ) : (
        <ul>
          {closing.map((i) => (
            <li key={i.taskId} className="rule-b border-l-4 border-l-warning py-2 pl-3">
              <b>{stamp(i.closes ?? "", zone)}</b> {i.boat}: {i.surface}; {i.what} is planned for {stamp(i.start, zone)}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** What may be given when a launch is late, the cheapest that is enough first. */
function Ways({ plan }: { plan: Schemas["YardPlan"] }) {
  const ways = useWays(plan.place.id, plan.version);
  const boats = plan.plan?.launches ?? [];
  return (
    <section className="mt-6">
      <h2 className="text-lg">What would bring them in time</h2>
      <Loaded query={ways}>
        {(list) => (
          <div className="overflow-x-auto">
            <table className="table-plain">
              <thead>
                <tr>
                  <th>Give</th>
                  <th className="num">Cost about</th>
                  {boats.map((b) => (
                    <th key={b.boatId} className="num">
                      {b.boat}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {list.map((w) => (
                  <tr key={w.name}>
                    <td>
                      {w.name}
                      {w.enough && <b> · enough</b>}
                    </td>
                    <td className="num">{number(w.cents / 100, 0)}</td>
                    {w.lateH.map((h, i) => (
                      <td key={boats[i]?.boatId} className="num whitespace-nowrap">
                        {h > 0 ? `late by ${days(Math.ceil(h / 24))}` : "in time"}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
      </Loaded>
      <p className="quiet mt-1 text-sm">
        Costs are rules of thumb in your currency: your price of an hour (Hands and tasks), of a day on the hard (Tent and heat), a tent of
        film at 300.
      </p>
    </section>
  );
}

/** Days of the calendar: a launch is in time to the end of its day. */
const days = (n: number) => (n === 0 ? "the same day" : n === 1 ? "1 day" : `${n} days`);
