import { scaleLinear, scaleTime } from "d3-scale";
import { area, line } from "d3-shape";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useTrace } from "../../api/queries";
import { useSettings } from "../../ui/settings";
import { TimeTicks } from "../../ui/TimeTicks";
import { stamp } from "../../ui/time";
import { tr } from "../../words/words";

const W = 900;
const H = 170;
const LEFT = 44;
const DAY = 86_400_000;

type Point = Schemas["TracePoint"] & { t: number };

/** What an instrument showed: least to most as a band, the mean as a line. The server thins; no extreme is lost. */
export function TraceChart({ instrument, zone }: { instrument: Schemas["Instrument"]; zone: string }) {
  const [days, setDays] = useState(7);
  const last = Date.parse(instrument.last ?? "");
  const first = Date.parse(instrument.first ?? "");
  const from = days === 0 ? first : Math.max(first, last - days * DAY);
  const trace = useTrace(instrument.id, new Date(from).toISOString(), new Date(last).toISOString()).data;
  return (
    <div className="mt-2">
      <div className="join no-print">
        {[2, 7, 30, 0].map((d) => (
          <button
            key={d}
            type="button"
            className={`btn join-item btn-sm max-sm:min-h-11 ${d === days ? "btn-neutral" : "btn-ghost border-base-300"}`}
            aria-pressed={d === days}
            onClick={() => setDays(d)}
          >
            {d === 0 ? tr("all") : tr("{d} days", { d })}
          </button>
        ))}
      </div>
      {trace && trace.points.length > 1 && <Drawn trace={trace} zone={zone} />}
    </div>
  );
}

function Drawn({ trace, zone }: { trace: Schemas["Trace"]; zone: string }) {
  const { show, toShown } = useSettings();
  const [at, setAt] = useState<number>();
  const points: Point[] = trace.points.map((p) => ({ ...p, t: Date.parse(p.at) }));
  const from = Date.parse(trace.from);
  const to = Date.parse(trace.to);
  const x = scaleTime([from, to], [LEFT, W]);
  const temps = points.filter((p) => p.minC !== undefined);
  const humid = points.filter((p) => p.meanRHPct !== undefined);
  const y = scaleLinear(
    [Math.min(...temps.map((p) => p.minC ?? 0)) - 1, Math.max(...temps.map((p) => p.maxC ?? 0)) + 1],
    [H - 22, 8],
  );
  const yRH = scaleLinear([0, 100], [H - 22, 8]);
  // A gap of more than four usual steps is left open.
  const steps = points
    .slice(1)
    .map((p, i) => p.t - (points[i]?.t ?? 0))
    .sort((a, b) => a - b);
  const gap = 4 * (steps[Math.floor(steps.length / 2)] ?? 0);
  const whole = (list: Point[]) => {
    const out: Point[][] = [];
    for (const p of list) {
      const run = out.at(-1);
      if (run && p.t - (run.at(-1)?.t ?? 0) <= gap) run.push(p);
      else out.push([p]);
    }
    return out;
  };
  const band = area<Point>()
    .x((p) => x(p.t))
    .y0((p) => y(p.minC ?? 0))
    .y1((p) => y(p.maxC ?? 0));
  const mean = line<Point>(
    (p) => x(p.t),
    (p) => y(p.meanC ?? 0),
  );
  const rh = line<Point>(
    (p) => x(p.t),
    (p) => yRH(p.meanRHPct ?? 0),
  );
  const near =
    at === undefined ? points.at(-1) : points.reduce((a, b) => (Math.abs(b.t - at) < Math.abs(a.t - at) ? b : a));
  const fig = (v: number | undefined, unit: string) => {
    if (v === undefined) return "–";
    const s = show(v, unit);
    return `${s.text} ${s.unit}`;
  };
  return (
    <figure>
      <figcaption className="text-sm" aria-live="polite">
        {near && (
          <>
            <b>{stamp(near.t, zone)}</b>: {fig(near.meanC, "°C")}
            {near.minC !== near.maxC &&
              tr(" ({minC} to {maxC})", { minC: fig(near.minC, "°C"), maxC: fig(near.maxC, "°C") })}
            {near.meanRHPct !== undefined && `, ${Math.round(near.meanRHPct)} %`}
          </>
        )}
      </figcaption>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="block w-full select-none"
        role="img"
        aria-label={tr("Readings of {name}; the line is temperature, the thin one humidity", {
          name: trace.instrument.name,
        })}
        tabIndex={0}
        onPointerMove={(e) => {
          const r = e.currentTarget.getBoundingClientRect();
          setAt(x.invert(((e.clientX - r.left) / r.width) * W).getTime());
        }}
        onPointerLeave={() => setAt(undefined)}
        onKeyDown={(e) => {
          const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -12, PageDown: 12 }[e.key];
          if (!step) return;
          e.preventDefault();
          setAt(Math.min(to, Math.max(from, (at ?? to) + (step * (to - from)) / 100)));
        }}
      >
        {y.ticks(4).map((t) => (
          <g key={t}>
            <line x1={LEFT} x2={W} y1={y(t)} y2={y(t)} stroke="var(--color-base-300)" />
            <text x={LEFT - 6} y={y(t) + 4} textAnchor="end" fontSize={12} fill="currentColor">
              {Math.round(toShown(t, "°C"))}
            </text>
          </g>
        ))}
        <TimeTicks x={x} count={7} y={H - 4} width={W} zone={zone} />
        {whole(humid).map((r) => (
          <path key={r[0]?.t} d={rh(r) ?? ""} fill="none" stroke="var(--dew)" strokeWidth={1} />
        ))}
        {whole(temps).map((r) => (
          <g key={r[0]?.t}>
            <path d={band(r) ?? ""} fill="var(--open)" opacity={0.35} />
            <path d={mean(r) ?? ""} fill="none" stroke="currentColor" strokeWidth={1.4} />
          </g>
        ))}
        {at !== undefined && near && (
          <line x1={x(near.t)} x2={x(near.t)} y1={4} y2={H - 20} stroke="currentColor" strokeDasharray="3 3" />
        )}
      </svg>
    </figure>
  );
}
