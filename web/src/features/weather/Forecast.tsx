import { scaleLinear, scaleTime } from "d3-scale";
import { line } from "d3-shape";
import type { Schemas } from "../../api/client";
import { useCorrection } from "../../api/queries";
import { Answer, Loaded } from "../../ui/Page";
import { Reflow } from "../../ui/Reflow";
import { useSettings } from "../../ui/settings";
import { TimeTicks } from "../../ui/TimeTicks";
import { elapsed, stamp } from "../../ui/time";
import { tr, trNodes } from "../../words/words";
import { Days } from "./Days";
import { ImportFile } from "./ImportFile";
import { Months } from "./Months";

type Hour = Schemas["CorrectionHour"];

/** The forecast of the place, what local readings make of it, and the ways to bring one. */
export function Forecast({ survey }: { survey: Schemas["Survey"] }) {
  const { place, boat } = survey;
  const zone = place.timeZone;
  const { show } = useSettings();
  const said = (k: number) => `${show(k, "K").text} ${show(k, "K").unit}`;
  return (
    <>
      <Loaded query={useCorrection(boat.id)}>
        {(c) => {
          const ahead = c.hours.filter((h) => !h.measured);
          const end = ahead.at(-1);
          const mean = ahead.reduce((s, h) => s + h.afterC - h.beforeC, 0) / Math.max(1, ahead.length);
          return (
            <>
              <Answer
                over={
                  <>
                    <span>{place.name}</span>
                    <span>
                      {
                        {
                          simulated: tr("simulated service: made up, for trying out"),
                          imported: tr("my own files"),
                          told: tr("days in my own words"),
                        }[place.weatherSource]
                      }
                    </span>
                  </>
                }
                answer={
                  !end
                    ? c.hours.length > 0
                      ? tr("The forecast has ended: nothing is guessed beyond it.")
                      : tr("There is no forecast yet.")
                    : c.learned === 0
                      ? tr("The forecast reaches {at}; no logger in the open corrects it.", { at: stamp(end.at, zone) })
                      : tr("The forecast reaches {at}; the logger here makes it {mean} {x} on the mean.", {
                          at: stamp(end.at, zone),
                          mean: said(Math.abs(mean)),
                          x: mean < 0 ? tr("colder") : tr("warmer"),
                        })
                }
                detail={
                  c.learned > 0
                    ? tr(
                        "Learned from {learned} hours of readings of the last week, hour of the day by hour of the day, drawn to zero while they are few.",
                        { learned: c.learned },
                      )
                    : tr("Tell the days in your own words, import a file, or use the simulated service.")
                }
              />
              {c.hours.length > 1 && <BeforeAfter hours={c.hours} zone={zone} corrected={c.learned > 0} />}
              {c.learned > 0 && c.effects.length > 0 && <Effects effects={c.effects} zone={zone} />}
            </>
          );
        }}
      </Loaded>
      <Days place={place} />
      <ImportFile place={place} />
      <Months place={place} />
    </>
  );
}

const W = 900;
const H = 220;
const LEFT = 44;

function BeforeAfter({ hours, zone, corrected }: { hours: Hour[]; zone: string; corrected: boolean }) {
  const { toShown, shownUnit } = useSettings();
  const t = (h: Hour) => Date.parse(h.at);
  const all = hours.flatMap((h) => [h.beforeC, h.afterC]);
  const x = scaleTime([t(hours[0] as Hour), t(hours.at(-1) as Hour)], [LEFT, W]);
  const y = scaleLinear([Math.min(...all) - 1, Math.max(...all) + 1], [H - 24, 8]);
  const now = hours.findIndex((h) => !h.measured);
  const path = (part: Hour[], value: (h: Hour) => number) =>
    line<Hour>(
      (h) => x(t(h)),
      (h) => y(value(h)),
    )(part) ?? "";
  const past = now < 0 ? hours : hours.slice(0, now);
  const ahead = now < 0 ? [] : hours.slice(Math.max(0, now - 1));
  return (
    <figure>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="block w-full"
        role="img"
        aria-label={tr("Air temperature before and after correction")}
      >
        {y.ticks(5).map((v) => (
          <g key={v}>
            <line x1={LEFT} x2={W} y1={y(v)} y2={y(v)} stroke="var(--color-base-300)" />
            <text x={LEFT - 6} y={y(v) + 4} textAnchor="end" fontSize={12} fill="currentColor">
              {Math.round(toShown(v, "°C"))}
            </text>
          </g>
        ))}
        <TimeTicks x={x} count={8} y={H - 5} width={W} zone={zone} />
        {[past, ahead].map((part, i) => (
          <g key={i === 0 ? "measured" : "forecast"} fill="none" strokeDasharray={i === 0 ? undefined : "5 3"}>
            <path d={path(part, (h) => h.beforeC)} stroke="var(--dew)" strokeWidth={1.4} />
            {corrected && <path d={path(part, (h) => h.afterC)} stroke="currentColor" strokeWidth={2.2} />}
          </g>
        ))}
        {now > 0 && (
          <line
            x1={x(t(hours[now] as Hour))}
            x2={x(t(hours[now] as Hour))}
            y1={4}
            y2={H - 20}
            stroke="var(--shut)"
            strokeWidth={2}
          />
        )}
      </svg>
      <figcaption className="quiet text-sm">
        {trNodes(
          "Air in the open, {shownUnit}. Thin blue: as the service has it. {corrected}Solid before now, dashed ahead.",
          {
            shownUnit: shownUnit("°C"),
            corrected: corrected && tr("Heavy: at the boat, after the logger. "),
          },
        )}
      </figcaption>
    </figure>
  );
}

function Effects({ effects, zone }: { effects: Schemas["CorrectedCoat"][]; zone: string }) {
  return (
    <section className="mt-4">
      <h2 className="text-lg">{tr("What the correction changes")}</h2>
      <Reflow>
        <table className="table-plain">
          <thead>
            <tr>
              <th>{tr("Coat that waits")}</th>
              <th>{tr("First start before")}</th>
              <th>{tr("First start after")}</th>
              <th className="num">{tr("Hours of starts before")}</th>
              <th className="num">{tr("after")}</th>
            </tr>
          </thead>
          <tbody>
            {effects.map((e) => (
              <tr key={e.surfaceId}>
                <td>{e.surface}</td>
                <td className="whitespace-nowrap">{e.before ? stamp(e.before, zone) : tr("none")}</td>
                <td className="font-semibold whitespace-nowrap">{e.after ? stamp(e.after, zone) : tr("none")}</td>
                <td className="num">{elapsed(e.beforeH)}</td>
                <td className="num">
                  <b>{elapsed(e.afterH)}</b>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Reflow>
      <p className="quiet mt-1 text-sm">
        {tr("Before: the service's air, and the model of each surface without any reading on it.")}
      </p>
    </section>
  );
}
