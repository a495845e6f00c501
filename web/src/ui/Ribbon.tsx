import { type ScaleTime, scaleTime } from "d3-scale";
import { type CSSProperties, type ReactNode, useId, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Schemas, Words } from "../api/client";
import { tr, word } from "../words/words";
import { Said } from "./Sentence";
import { clock, day, hourOf, longDay, weekdayOf } from "./time";

const HOUR = 3_600_000;

export type Scale = ScaleTime<number, number>;

/** A row of the ribbon. draw gets its own coordinates, top left at 0; read says in words what the lane is at an instant. */
export type Lane = {
  id: string;
  label: string;
  note?: Words;
  height: number;
  draw: (x: Scale, width: number) => ReactNode;
  read: (t: number) => string;
};

/** Spans of time that can be shown, in days: [before now, after now]. */
const SPANS: Record<string, [number, number]> = { "2 days": [0.6, 1.6], "4 days": [1, 3], all: [3, 8] };

/** What a ribbon spans, where now is, and when the sun is up. */
export type Stretch = Pick<Schemas["Ribbon"], "now" | "from" | "to" | "light">;

/**
 * The one time ribbon: lanes over a common time axis, now always marked,
 * night shaded. Pointer, or arrow keys when focused, read all lanes at an instant.
 */
export function Ribbon({
  ribbon,
  zone,
  lanes,
  spans = SPANS,
  first = "4 days",
}: {
  ribbon: Stretch;
  zone: string;
  lanes: Lane[];
  spans?: Record<string, [number, number]>;
  first?: string;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  const [chosen, choose] = useState(first);
  const [cursor, setCursor] = useState<number | null>(null);
  const help = useId();
  useLayoutEffect(() => {
    if (!frame.current) return;
    setWidth(frame.current.clientWidth || 900); // before it is first seen
    const watch = new ResizeObserver(([e]) => e && e.contentRect.width > 0 && setWidth(e.contentRect.width));
    watch.observe(frame.current);
    return () => watch.disconnect();
  }, []);

  const narrow = width < 640;
  const left = narrow ? 0 : 184;
  const now = Date.parse(ribbon.now);
  const [before, after] = spans[chosen] ?? [1, 3];
  const less = narrow && spans === SPANS ? 0.6 : 1;
  const from = Math.max(Date.parse(ribbon.from), now - before * less * 24 * HOUR);
  const to = Math.min(Date.parse(ribbon.to), now + after * less * 24 * HOUR);
  const x = useMemo(() => scaleTime().domain([from, to]).range([left, width]), [from, to, left, width]);
  const season = to - from > 12 * 24 * HOUR;
  const ticks = useMemo(() => axis(from, to, zone, season), [from, to, zone, season]);

  const head = 40;
  const caption = narrow ? 22 : 0;
  const tops: number[] = [];
  let bottom = head;
  for (const l of lanes) {
    tops.push(bottom + caption);
    bottom += caption + l.height + 12;
  }
  const height = bottom + 26;
  const dayStep = (width - left) / ((to - from) / (24 * HOUR));
  const place = (clientX: number) => {
    const box = frame.current?.getBoundingClientRect();
    const px = clientX - (box?.left ?? 0);
    setCursor(px < left ? null : x.invert(px).getTime());
  };
  const at = cursor ?? now;

  return (
    <div>
      <div className="mb-1 flex flex-wrap items-center justify-between gap-2">
        <p className="text-sm" aria-live="polite" data-testid="ribbon-instant">
          <b>{cursor === null ? tr("Now") : longDay(at, zone)}</b>, {clock(at, zone)}
          <span className="quiet max-sm:hidden">
            {cursor === null
              ? tr(" – touch or point at the ribbon, or use the arrow keys on it, to read another instant")
              : ""}
          </span>
        </p>
        <div className="join no-print">
          {Object.keys(spans).map((s) => (
            <button
              key={s}
              type="button"
              className={`btn join-item btn-sm max-sm:min-h-11 ${s === chosen ? "btn-neutral" : "btn-ghost border-base-300"}`}
              aria-pressed={s === chosen}
              onClick={() => choose(s)}
            >
              {word(s)}
            </button>
          ))}
        </div>
      </div>
      <div
        ref={frame}
        tabIndex={0}
        role="group"
        aria-describedby={help}
        aria-label={tr("Time ribbon")}
        className="fits relative w-full touch-pan-y select-none"
        style={{ "--fit": Math.min(1, PAPER / width) } as CSSProperties}
        onPointerMove={(e) => place(e.clientX)}
        onPointerLeave={() => setCursor(null)}
        onPointerDown={(e) => place(e.clientX)}
        onBlur={() => setCursor(null)}
        onKeyDown={(e) => {
          const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -12, PageDown: 12 }[e.key];
          if (step) {
            e.preventDefault();
            setCursor(Math.min(to, Math.max(from, at + step * HOUR * (e.shiftKey ? 0.25 : 1))));
          } else if (e.key === "Escape" || e.key === "Home") setCursor(null);
        }}
      >
        <p id={help} className="sr-only">
          {tr("Arrow keys move an hour, with shift a quarter; page keys half a day; escape returns to now.")}
        </p>
        <svg
          width={width}
          height={height}
          viewBox={`0 0 ${width} ${height}`}
          className="block overflow-hidden"
          aria-hidden="true"
        >
          {(season ? weekends(from, to, zone) : nights(ribbon.light, from, to)).map(([a, b]) => (
            <rect
              key={a}
              x={x(a)}
              y={head}
              width={Math.max(0, x(b) - x(a))}
              height={bottom - head}
              fill="var(--night)"
            />
          ))}
          {ticks.map((t) => (
            <g key={t.t}>
              <line
                x1={x(t.t)}
                x2={x(t.t)}
                y1={t.hour === 0 ? 18 : head - 4}
                y2={bottom}
                stroke="var(--color-base-300)"
                strokeWidth={t.hour === 0 ? 1.5 : 0.75}
              />
              {!season && (t.hour === 0 || dayStep > 150 || (t.hour === 12 && dayStep > 80)) && (
                <text x={x(t.t) + 4} y={head - 8} fontSize={11} fill="currentColor" opacity={0.75}>
                  {String(t.hour).padStart(2, "0")}
                </text>
              )}
              {t.hour === 0 && (!season || dayStep > 90 || isMonday(t.t, zone)) && (
                <text x={x(t.t) + 4} y={14} fontSize={12} fontWeight={650} fill="currentColor">
                  {day(t.t, zone)}
                </text>
              )}
            </g>
          ))}
          {lanes.map((l, i) => (
            <g key={l.id} transform={`translate(0 ${tops[i]})`} data-lane={l.id}>
              {l.draw(x, width)}
            </g>
          ))}
          {!narrow && <rect x={0} y={0} width={left - 6} height={height} fill="var(--color-base-100)" />}
          {cursor !== null && (
            <line x1={x(cursor)} x2={x(cursor)} y1={head} y2={bottom} stroke="currentColor" strokeDasharray="3 3" />
          )}
          <line x1={x(now)} x2={x(now)} y1={head - 6} y2={bottom} stroke="var(--shut)" strokeWidth={2} />
          <rect x={Math.min(x(now) - 24, width - 48)} y={bottom + 2} width={48} height={18} fill="var(--shut)" />
          <text
            x={Math.min(x(now), width - 24)}
            y={bottom + 15}
            fontSize={12}
            fontWeight={700}
            textAnchor="middle"
            fill="var(--color-base-100)"
          >
            {clock(now, zone)}
          </text>
        </svg>
        {lanes.map((l, i) => (
          <div
            key={l.id}
            className={
              narrow
                ? "pointer-events-none absolute left-0 right-0 flex gap-2 text-[13px] leading-5"
                : "pointer-events-none absolute left-0 w-[178px] text-[13px] leading-4"
            }
            style={{ top: (tops[i] ?? 0) - caption, minHeight: narrow ? undefined : l.height }}
          >
            <div className="font-semibold whitespace-nowrap">{l.label}</div>
            {l.note && (
              <div className="quiet truncate">
                <Said words={l.note} />
              </div>
            )}
            <div className="quiet truncate" data-read={l.id}>
              {l.read(at)}
            </div>
          </div>
        ))}
      </div>
    </div>
  );
}

/** The width of a sheet of paper, px. */
const PAPER = 690;

const isMonday = (t: number, zone: string) => weekdayOf(t, zone) === "Mon";

/** Saturdays and Sundays. */
function weekends(from: number, to: number, zone: string): [number, number][] {
  return axis(from - 24 * HOUR, to, zone, true)
    .filter((t) => /^S/.test(weekdayOf(t.t, zone)))
    .map((t) => [Math.max(from, t.t), Math.min(to, t.t + 24 * HOUR)] as [number, number])
    .filter(([a, b]) => b > a);
}

function axis(from: number, to: number, zone: string, season: boolean) {
  const out: { t: number; hour: number }[] = [];
  for (let t = Math.ceil(from / HOUR) * HOUR; t <= to; t += HOUR) {
    const hour = hourOf(t, zone);
    if (season ? hour === 0 : hour % 6 === 0) out.push({ t, hour });
  }
  return out;
}

function nights(light: Schemas["Daylight"][], from: number, to: number): [number, number][] {
  const out: [number, number][] = [];
  let dark = from;
  for (const l of light) {
    const rise = Date.parse(l.from);
    if (rise > dark && rise < to) out.push([dark, rise]);
    dark = Math.max(dark, Date.parse(l.to));
  }
  if (dark < to) out.push([dark, to]);
  return out;
}
