import type { Schemas } from "../../api/client";
import { NumberField } from "../../ui/Form";
import { span } from "../../ui/time";
import { Quantity } from "../../ui/Working";
import { tr } from "../../words/words";
import { fieldsOf } from "./typed";

const { useDraft } = fieldsOf<Schemas["NonskidWork"]>();

type View = Schemas["NonSkid"];

export function Panels({
  view,
  selected,
  select,
  kept,
}: {
  view: View;
  selected: string;
  select: (s: string) => void;
  kept: boolean;
}) {
  const r = view.result;
  const unit = r.takes.unit;
  const lays = view.work.school === "paint" || view.work.school === "grit";
  const panels = [...r.panels].sort((a, b) => (a.order || 999) - (b.order || 999));
  return (
    <section className="min-w-0">
      <h2 className="text-lg">{tr("Panels, in the order to lay them")}</h2>
      <div className="overflow-x-auto">
        <table className="table-plain text-sm" data-testid="panels">
          <thead>
            <tr>
              <th>{tr("Panel")}</th>
              <th className="num">{tr("Area")}</th>
              <th className="num">{tr("Tape edge")}</th>
              {lays && <th className="num">{view.work.school === "grit" ? tr("Grit") : tr("Paint")}</th>}
              <th className="num">{tr("Takes")}</th>
              {lays && <th>{tr("Laid")}</th>}
              <th className="no-print max-sm:hidden">1:1</th>
            </tr>
          </thead>
          <tbody>
            {panels.map((p) => (
              <tr key={p.name} className={selected === p.name ? "bg-base-200" : ""} onClick={() => select(p.name)}>
                <td className="whitespace-nowrap">
                  {p.order > 0 ? `${p.order}. ` : ""}
                  <b>{p.name}</b> {p.order === 0 && tr("not laid")}
                  {p.flag && <span className="block whitespace-normal font-semibold text-error">✗ {p.flag}</span>}
                </td>
                <td className="num">
                  <Quantity value={p.areaM2} unit="m²" digits={2} />
                  {p.order === 0 && (
                    <span className="quiet block text-xs">
                      of <Quantity value={p.cellM2} unit="m²" digits={2} />
                    </span>
                  )}
                </td>
                <td className="num">
                  <Quantity value={p.maskM} unit="m" digits={1} />
                </td>
                {lays && (
                  <td className="num">
                    <Quantity value={p.amount} unit={unit} digits={2} />
                  </td>
                )}
                <td className="num whitespace-nowrap">{span(p.minutes / 60)}</td>
                {lays && (
                  <td className="min-w-28">
                    {p.order > 0 && <Laid name={p.name} unit={unit} even={r.even.find((e) => e.panel === p.name)} />}
                  </td>
                )}
                <td className="no-print whitespace-nowrap max-sm:hidden">
                  {p.order > 0 && kept && <Files surfaceId={view.surface?.id ?? ""} panel={p.name} />}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** What went onto a panel, and whether it is even with the others. */
function Laid({ name, unit, even }: { name: string; unit: string; even?: Schemas["NonskidEven"] }) {
  const { read, write } = useDraft();
  return (
    <>
      <NumberField
        name={`laid.${name}`}
        label={tr("Laid on {name}", { name })}
        hidden
        unit={unit}
        value={read(`laid.${name}`) as number | undefined}
        onChange={(v) => write(`laid.${name}`, v)}
      />
      {even && (
        <span className={`block text-xs ${Math.abs(even.offPct) > 10 ? "font-semibold text-error" : ""}`}>
          {even.offPct > 0 ? "+" : ""}
          {even.offPct.toFixed(0)} %: {even.says}
        </span>
      )}
    </>
  );
}

/** Drawings at 1:1 of a panel, or of all. */
export function Files({ surfaceId, panel, paired }: { surfaceId: string; panel: string; paired?: boolean }) {
  const href = (format: string) =>
    `/api/surfaces/${surfaceId}/template?format=${format}${panel ? `&panel=${encodeURIComponent(panel)}` : ""}${paired ? "&paired=true" : ""}`;
  return (
    <span className="flex flex-wrap gap-x-3">
      {["svg", "dxf", "pdf"].map((f) => (
        <a key={f} className="linked inline-flex min-h-6 items-center max-sm:min-h-11" href={href(f)} download>
          {f.toUpperCase()}
        </a>
      ))}
    </span>
  );
}
