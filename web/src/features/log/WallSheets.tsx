import type { Schemas } from "../../api/client";
import { useBuildUp, useToday } from "../../api/queries";
import { Loaded } from "../../ui/Page";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { span, stamp } from "../../ui/time";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";

/** What is left on each surface, on a sheet of its own to pin up beside it. */
export function WallSheets({ report: r }: { report: Schemas["Report"] }) {
  return (
    <Loaded query={useToday(r.boat.id)}>
      {(t) => (
        <>
          <h1 className="no-print text-3xl">
            {tr("A sheet for each surface, to be printed and pinned up beside it.")}
          </h1>
          {r.surfaces.map((s) => (
            <WallSheet
              key={s.surface.id}
              boat={r.boat.name}
              surface={s.surface}
              lane={t.answer.lanes.find((l) => l.surfaceId === s.surface.id)}
              zone={r.place.timeZone}
            />
          ))}
        </>
      )}
    </Loaded>
  );
}

const SHOWN = ["sandable", "recoat-opens", "recoat-closes"];

function WallSheet({
  boat,
  surface,
  lane,
  zone,
}: {
  boat: string;
  surface: Schemas["Surface"];
  lane?: Schemas["ReadinessLane"];
  zone: string;
}) {
  const { prose } = useSettings();
  const build = useBuildUp(surface.id).data;
  if (!build) return null;
  const left = build.tasks.filter((t) => t.state !== "done" && t.state !== "overtaken" && t.state !== "skipped");
  const mind = [...new Set(build.mind.flat().map(prose))];
  const clock = (lane?.clock?.events ?? []).filter((e) => SHOWN.includes(e.name) && e.at);
  return (
    <section
      className="wall mt-8 break-after-page last:break-after-auto border-t-4 border-base-content pt-2 print:mt-0 print:border-0"
      data-testid="wall"
    >
      <p className="quiet text-sm">{boat}</p>
      <h2 className="text-2xl">
        {trNodes("{name}, {area}", { name: surface.name, area: <Quantity value={surface.area.areaM2} unit="m²" /> })}
      </h2>
      {clock.length > 0 && (
        <p className="mt-1 text-lg">
          {clock.map((e) => (
            <span key={e.name} className="mr-4 inline-block">
              {e.label}: <b>{e.at && stamp(e.at, zone)}</b>
            </span>
          ))}
        </p>
      )}
      {left.length === 0 ? (
        <p className="mt-2">{tr("Nothing is left to do on it.")}</p>
      ) : (
        <table className="table-plain mt-2">
          <thead>
            <tr>
              <th aria-label={tr("Done")} />
              <th>{tr("Work")}</th>
              <th className="num">{tr("Wet film")}</th>
              <th className="num">{tr("Dry film")}</th>
              <th className="num">{tr("Litres")}</th>
              <th className="num">{tr("Hours")}</th>
            </tr>
          </thead>
          <tbody>
            {left.map((t) => (
              <tr key={t.id} className="break-inside-avoid">
                <td className="text-xl">☐</td>
                <td>
                  <Said words={t.what} />
                  {t.where && `, ${t.where}`}
                </td>
                <td className="num">{t.wetUm > 0 && <Quantity value={t.wetUm} unit="µm" />}</td>
                <td className="num">{t.dryUm > 0 && <Quantity value={t.dryUm} unit="µm" />}</td>
                <td className="num">{t.leftL > 0 && <Quantity value={t.leftL} unit="L" />}</td>
                <td className="num">{t.leftH > 0 && span(t.leftH)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {mind.length > 0 && (
        <ul className="mt-2 list-disc pl-5 text-sm">
          {mind.map((m) => (
            <li key={m}>{m}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
