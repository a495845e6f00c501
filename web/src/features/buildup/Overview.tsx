import { useOverview } from "../../api/queries";
import { Answer, Loaded } from "../../ui/Page";
import { Reflow } from "../../ui/Reflow";
import { useSettings } from "../../ui/settings";
import { span, workdays } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { Consumables } from "./Consumables";
import { Starts } from "./Starts";

const WORST: Record<string, string> = { "": "none", note: "notes only", warning: "warnings", stop: "would fail" };

/** All surfaces of a boat: coats, film, litres, hours, money, and what the rules say. */
export function Overview({ boatId, open }: { boatId: string; open: (surfaceId: string) => void }) {
  const { show, money } = useSettings();
  return (
    <Loaded query={useOverview(boatId)}>
      {(o) => {
        const litres = show(
          o.surfaces.reduce((s, r) => s + r.litres, 0),
          "L",
          1,
        );
        const coats = o.surfaces.reduce((s, r) => s + r.coats, 0);
        const done = o.surfaces.reduce((s, r) => s + r.done, 0);
        const priced = o.surfaces.every((r) => r.priced);
        return (
          <>
            <Answer
              answer={
                coats === 0
                  ? "No coat is planned on her yet."
                  : `${coats} coats on ${o.surfaces.length} surfaces, ${done} laid; ${litres.text} ${litres.unit} in all.`
              }
              detail={
                coats > 0 && (
                  <>
                    {o.stops > 0 && (
                      <b>{o.stops === 1 ? "One finding would make a coat fail. " : `${o.stops} findings would make coats fail. `}</b>
                    )}
                    {workdays(o.sum.leftH, o.workDayH)} of work to come for one person
                    {o.sum.leftL > 0 && (
                      <>
                        , <Quantity value={o.sum.leftL} unit="L" /> to lay
                      </>
                    )}
                    {priced
                      ? `, ${money(
                          o.surfaces.reduce((s, r) => s + r.costCents, 0),
                          0,
                        )} for whole tins surface by surface`
                      : "; some prices are missing"}
                    . Stores buys for all surfaces together.
                  </>
                )
              }
            />
            <Starts boatId={boatId} begun={() => open("whole-boat")} />
            <Reflow>
              <table className="table-plain">
                <thead>
                  <tr>
                    <th>Surface</th>
                    <th className="num">Area</th>
                    <th className="num">Coats</th>
                    <th className="num">Net film</th>
                    <th className="num">Litres</th>
                    <th className="num max-sm:hidden">To come</th>
                    <th className="num max-sm:hidden">Tins</th>
                    <th>Findings</th>
                  </tr>
                </thead>
                <tbody>
                  {o.surfaces.map((r) => (
                    <tr key={r.surfaceId}>
                      <td>
                        <button type="button" className="linked font-semibold" onClick={() => open(r.surfaceId)}>
                          {r.name}
                        </button>
                      </td>
                      <td className="num">
                        <Quantity value={r.areaM2} unit="m²" />
                      </td>
                      <td className="num">
                        {r.done} of {r.coats}
                      </td>
                      <td className="num">
                        <Figure title={r.name} working={r.working}>
                          <Quantity value={r.netUm} unit="µm" />
                        </Figure>
                      </td>
                      <td className="num">
                        <Quantity value={r.litres} unit="L" />
                      </td>
                      <td className="num max-sm:hidden">{span(r.sum.leftH)}</td>
                      <td className="num max-sm:hidden">{r.priced ? money(r.costCents) : "–"}</td>
                      <td>{r.findings === 0 ? "none" : `${r.findings}, ${WORST[r.worst]}`}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </Reflow>
            <h2 className="mt-6 text-lg">By product</h2>
            <table className="table-plain max-w-xl">
              <tbody>
                {o.products.map((p) => (
                  <tr key={p.product}>
                    <td>{p.product}</td>
                    <td className="num">
                      {p.coats} {p.coats === 1 ? "coat" : "coats"}
                    </td>
                    <td className="num">
                      <Quantity value={p.litres} unit="L" />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            <Consumables all={o.consumables} />
          </>
        );
      }}
    </Loaded>
  );
}
