import type { Schemas } from "../../api/client";
import { Reflow } from "../../ui/Reflow";
import { useSettings } from "../../ui/settings";
import { Term } from "../../ui/Term";
import { stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";

/** The schools for one coat side by side: when, for how much, how sure. */
export function Schools({ comparison, zone, setC }: { comparison: Schemas["Comparison"]; zone: string; setC: number }) {
  const { money } = useSettings();
  const known = comparison.options.filter((o) => o.done);
  const soonest = Math.min(...known.map((o) => Date.parse(o.done ?? "")));
  return (
    <section className="mt-6">
      <h2 className="text-lg">
        {comparison.surface}, {comparison.product.sheet.name.toLowerCase()}
      </h2>
      <Reflow>
        <table className="table-plain">
          <thead>
            <tr>
              <th>
                <Term>{tr("School")}</Term>
              </th>
              <th>{trNodes("Surface at {setC}", { setC: <Quantity value={setC} unit="°C" digits={0} /> })}</th>
              <th>{tr("First start")}</th>
              <th>{tr("Next coat may follow")}</th>
              <th className="num">{tr("Hours of starts")}</th>
              <th className="num">{tr("Chance it holds")}</th>
              <th>{tr("Energy")}</th>
              <th className="num">{tr("Money")}</th>
            </tr>
          </thead>
          <tbody>
            {comparison.options.map((o) => (
              <tr key={o.school}>
                <td>
                  <b>{o.name}</b>
                  {o.best && <b> {tr("· best")}</b>}
                  {o.hardener && <div className="quiet text-sm">{o.hardener}</div>}
                </td>
                <td className="whitespace-nowrap">{o.warmAt ? stamp(o.warmAt, zone) : tr("not reached")}</td>
                <td className="whitespace-nowrap">{o.start ? stamp(o.start, zone) : tr("no start")}</td>
                <td className="whitespace-nowrap">
                  {o.done ? stamp(o.done, zone) : "–"}
                  {o.done && Date.parse(o.done) === soonest && <b> {tr("soonest")}</b>}
                </td>
                <td className="num">{Math.round(o.startH)} h</td>
                <td className="num">{o.start ? `${Math.round(o.chancePct)} %` : "–"}</td>
                <td className="text-sm">
                  <Used cost={o.cost} />
                </td>
                <td className="num">
                  <Figure title={o.name} working={o.working}>
                    {money(o.cents)}
                  </Figure>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Reflow>
      <p className="quiet mt-1 text-sm">
        {tr(
          "Money is energy until the next coat may follow, the days on the hard until then, and the hardener, in your currency. The chance is of a start at the nearest hour, over courses that the weather may take.",
        )}
      </p>
    </section>
  );
}

function Used({ cost }: { cost: Schemas["TentCost"] }) {
  const parts = [];
  if (cost.electricKWh > 0.05) parts.push(<Quantity key="e" value={cost.electricKWh} unit="kWh" digits={0} />);
  if (cost.fuelKg > 0.005) parts.push(<Quantity key="f" value={cost.fuelKg} unit="kg" digits={1} />);
  return (
    <>
      {parts.length === 0 ? "none" : parts.map((p, i) => [i > 0 && " + ", p])}
      {cost.waterKg > 0.05 && (
        <div className="border-l-4 border-warning pl-2">
          {trNodes("{waterKg} of water from burning: it raises the dew point", {
            waterKg: <Quantity value={cost.waterKg} unit="kg" digits={1} />,
          })}
        </div>
      )}
    </>
  );
}
