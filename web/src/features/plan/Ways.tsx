import type { Schemas } from "../../api/client";
import { useWays } from "../../api/queries";
import { Loaded } from "../../ui/Page";
import { Reflow } from "../../ui/Reflow";
import { useSettings } from "../../ui/settings";
import { day } from "../../ui/time";
import { tr } from "../../words/words";

/** What would bring boats forward, what it costs and when they would be ready; what is enough first, then the cheapest. */
export function Ways({ plan, boats, title }: { plan: Schemas["YardPlan"]; boats: Schemas["PlanLaunching"][]; title: string }) {
  const { money } = useSettings();
  const ways = useWays(plan.place.id, plan.version);
  const all = plan.plan?.launches ?? [];
  const shown = all.flatMap((b, i) => (boats.some((x) => x.boatId === b.boatId) ? [{ b, i }] : []));
  const zone = plan.place.timeZone;
  return (
    <section className="my-4">
      <h2 className="text-lg">{title}</h2>
      <Loaded query={ways}>
        {(list) => (
          <Reflow>
            <table className="table-plain">
              <thead>
                <tr>
                  <th>{tr("Give")}</th>
                  <th className="num">{tr("Cost about")}</th>
                  {shown.map(({ b }) => (
                    <th key={b.boatId}>{tr("{boat}, half the time – nine in ten", { boat: b.boat })}</th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {list.map((w) => (
                  <tr key={w.name}>
                    <td>
                      {w.name}
                      {w.enough && all.some((b) => b.due) && !w.name.startsWith("launch later") && (
                        <b> {tr("· in time nine times in ten")}</b>
                      )}
                    </td>
                    <td className="num">{money(w.cents, 0)}</td>
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
        )}
      </Loaded>
      <p className="quiet mt-1 text-sm">
        {tr(
          "Each is planned and played in the same courses of the weather as the plan. Costs are of the whole yard, rules of thumb in your currency: your price of an hour (Hands and tasks), of a day on the hard (Tent and heat), a tent of film at 300.",
        )}
      </p>
    </section>
  );
}
