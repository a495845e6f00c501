import { useEffect } from "react";
import type { Schemas } from "../../api/client";
import { Reflow } from "../../ui/Reflow";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { day } from "../../ui/time";
import { troubleOf, useStream } from "../../ui/useStream";
import { tr } from "../../words/words";

/** What would bring boats forward, what a day gained costs and when they would be ready; what is enough first, then the cheapest. */
export function Ways({
  plan,
  boats,
  title,
}: {
  plan: Schemas["YardPlan"];
  boats: Schemas["PlanLaunching"][];
  title: string;
}) {
  const { done, last, error, start } = useStream<Schemas["LineListWay"]>(`/api/places/${plan.place.id}/plan/ways`);
  // Worked out without being asked for; leaving the screen ends it.
  useEffect(() => void start(), [start]);
  return (
    <section className="my-4">
      <h2 className="text-lg">{title}</h2>
      {!last?.result && !error && (
        <p role="status">
          <progress className="progress w-48" value={done} max={1} /> {tr("trying each")}
        </p>
      )}
      {error && (
        <p role="alert" className="text-error">
          <Said words={troubleOf(error)} />
        </p>
      )}
      {last?.result && <Table ways={last.result} plan={plan} boats={boats} />}
    </section>
  );
}

function Table({
  ways,
  plan,
  boats,
}: {
  ways: Schemas["Way"][];
  plan: Schemas["YardPlan"];
  boats: Schemas["PlanLaunching"][];
}) {
  const { money, prose } = useSettings();
  const all = plan.plan?.launches ?? [];
  const shown = all.flatMap((b, i) => (boats.some((x) => x.boatId === b.boatId) ? [{ b, i }] : []));
  const zone = plan.place.timeZone;
  return (
    <>
      <p className="font-semibold">{advice(ways, money, prose)}</p>
      <Reflow>
        <table className="table-plain">
          <thead>
            <tr>
              <th>{tr("Give")}</th>
              <th className="num">{tr("Cost about")}</th>
              <th className="num">{tr("Days gained")}</th>
              <th className="num">{tr("A day costs")}</th>
              {shown.map(({ b }) => (
                <th key={b.boatId}>{tr("{boat}, half the time – nine in ten", { boat: b.boat })}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {ways.map((w) => (
              <tr key={prose(w.name)}>
                <td>
                  <Said words={w.name} />
                  {w.enough && all.some((b) => b.due) && !w.later && <b> {tr("· in time nine times in ten")}</b>}
                </td>
                <td className="num">{w.past ? "–" : money(w.cents, 0)}</td>
                <td className="num">{w.later ? "–" : w.daysGained}</td>
                <td className="num">{w.dayCents === undefined ? "–" : money(w.dayCents, 0)}</td>
                {shown.map(({ b, i }) => (
                  <td key={b.boatId} className="whitespace-nowrap">
                    {w.odds[i]?.half ? day(w.odds[i].half, zone) : tr("later than this plan")} –{" "}
                    {w.odds[i]?.nine ? day(w.odds[i].nine, zone) : tr("later")}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Reflow>
      <p className="quiet mt-1 text-sm">
        {tr(
          "Each is planned and played in the same futures as the plan. Costs and days are of the whole yard, rules of thumb in your currency: your price of an hour (Hands and tasks), of a day on the hard and of heat (Tent and heat), a tent by its film and frame where none stands.",
        )}
      </p>
    </>
  );
}

/** Which change to take, and by how much it is the best. */
function advice(
  ways: Schemas["Way"][],
  money: (cents: number, digits?: number) => string,
  prose: (words: Schemas["MessageSpan"][]) => string,
): string {
  const bought = ways.filter((w) => !w.later && !w.past && w.dayCents !== undefined);
  const best = bought[0];
  if (!best) return tr("None of these brings a boat forward.");
  const next = bought.find((w) => w !== best && w.cents > 0);
  const says = best.enough
    ? tr("The cheapest that is enough: {name} gains {days} days for {cost}.", {
        name: prose(best.name),
        days: best.daysGained,
        cost: money(best.cents, 0),
      })
    : tr("None is enough nine times in ten. The cheapest day: {name} gains {days} days for {cost}.", {
        name: prose(best.name),
        days: best.daysGained,
        cost: money(best.cents, 0),
      });
  if (!next) return says;
  return `${says} ${tr("Next: {name}, {days} days for {cost}.", { name: prose(next.name), days: next.daysGained, cost: money(next.cents, 0) })}`;
}
