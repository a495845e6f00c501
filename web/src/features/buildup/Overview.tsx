import { useOverview } from "../../api/queries";
import { Answer, Loaded } from "../../ui/Page";
import { Reflow } from "../../ui/Reflow";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { span, workdays } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Consumables } from "./Consumables";
import { Starts } from "./Starts";

const WORST: Record<string, string> = {
  "": tr("none"),
  note: tr("notes only"),
  warning: tr("warnings"),
  stop: tr("would fail"),
};

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
                  ? tr("No coat is planned on her yet.")
                  : tr(
                      "{coats, plural, one {One coat} other {{coats} coats}} on {surfaces, plural, one {one surface} other {{surfaces} surfaces}}, {done} laid; {text} {unit} in all.",
                      {
                        coats,
                        surfaces: o.surfaces.length,
                        done,
                        text: litres.text,
                        unit: litres.unit,
                      },
                    )
              }
              detail={
                coats > 0 && (
                  <>
                    {trNodes("{stops}{leftH} of work to come for one person{leftL}", {
                      stops: o.stops > 0 && (
                        <b>
                          {tr(
                            "{stops, plural, one {One finding would make a coat fail. } other {{stops} findings would make coats fail. }}",
                            { stops: o.stops },
                          )}
                        </b>
                      ),
                      leftH: workdays(o.sum.leftH, o.workDayH),
                      leftL: o.sum.leftL > 0 && (
                        <>{trNodes(", {leftL} to lay", { leftL: <Quantity value={o.sum.leftL} unit="L" /> })}</>
                      ),
                    })}
                    {priced
                      ? tr(", {surfaces} for whole tins surface by surface", {
                          surfaces: money(
                            o.surfaces.reduce((s, r) => s + r.costCents, 0),
                            0,
                          ),
                        })
                      : tr("; some prices are missing")}
                    {tr(". Stores buys for all surfaces together.")}
                  </>
                )
              }
            />
            <Starts boatId={boatId} begun={() => open("whole-boat")} />
            <Reflow>
              <table className="table-plain">
                <thead>
                  <tr>
                    <th>{tr("Surface")}</th>
                    <th className="num">{tr("Area")}</th>
                    <th className="num">{tr("Coats")}</th>
                    <th className="num">{tr("Net film")}</th>
                    <th className="num">{tr("Litres")}</th>
                    <th className="num max-sm:hidden">{tr("To come")}</th>
                    <th className="num max-sm:hidden">{tr("Tins")}</th>
                    <th>{tr("Findings")}</th>
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
                      <td className="num">{tr("{done} of {coats}", { done: r.done, coats: r.coats })}</td>
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
                      <td>{r.findings === 0 ? tr("none") : `${r.findings}, ${WORST[r.worst]}`}</td>
                    </tr>
                  ))}
                  {o.own.map((t) => (
                    <tr key={t.id}>
                      <td colSpan={5}>
                        <Said words={t.what} />
                      </td>
                      <td className="num">{span(t.leftH)}</td>
                      <td colSpan={2} className="max-sm:hidden" />
                    </tr>
                  ))}
                </tbody>
              </table>
            </Reflow>
            <h2 className="mt-6 text-lg">{tr("By product")}</h2>
            <table className="table-plain max-w-xl">
              <tbody>
                {o.products.map((p) => (
                  <tr key={p.product}>
                    <td>{p.product}</td>
                    <td className="num">
                      {p.coats} {tr("{coats, plural, one {coat} other {coats}}", { coats: p.coats })}
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
