import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useId } from "react";
import type { Schemas } from "../api/client";
import { tr } from "../words/words";
import { useSettings } from "./settings";

export type State = { tempC: number; rhPct: number };
export type Track = { name: string; look: "read" | "ahead" | "inside"; states: State[] };

const W = 560;
const H = 300;
const PAD = { left: 46, right: 12, top: 12, bottom: 40 };
const LOOKS = {
  read: { dash: undefined, stroke: "var(--color-base-content)", dots: true },
  ahead: { dash: "6 4", stroke: "var(--color-base-content)", dots: false },
  inside: { dash: "2 3", stroke: "var(--shut)", dots: false },
};

/**
 * The field of a product over temperature and humidity of the air, with the air's way over it. With onAdd a
 * click adds a corner.
 */
export function FieldChart({
  limits,
  tracks,
  now,
  onAdd,
}: {
  limits: Schemas["ProductLimits"];
  tracks: Track[];
  now?: State;
  onAdd?: (s: State) => void;
}) {
  const { show, toShown, shownUnit } = useSettings();
  const clip = useId();
  const corners = (limits.polygon ?? []).filter((c) => Number.isFinite(c.tempC) && Number.isFinite(c.rhPct));
  const temps = [...tracks.flatMap((t) => t.states.map((s) => s.tempC)), ...corners.map((c) => c.tempC)];
  const low = Math.floor(Math.min(0, ...temps, (limits.airMinC ?? 5) - 4) / 5) * 5;
  const high = Math.ceil(Math.max(30, ...temps, (limits.airMaxC ?? 25) + 4) / 5) * 5;
  const x = scaleLinear([low, high], [PAD.left, W - PAD.right]);
  const y = scaleLinear([0, 100], [H - PAD.bottom, PAD.top]);
  const field = corners.length >= 3 ? corners : box(limits, low, high);
  const path = line<State>(
    (s) => x(s.tempC),
    (s) => y(s.rhPct),
  );
  return (
    <figure className="max-w-2xl">
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: the rows beside it take corners by keyboard */}
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className={`block w-full ${onAdd ? "cursor-crosshair" : ""}`}
        role="img"
        aria-label={tr("Field of temperature and humidity")}
        onClick={(e) => {
          if (!onAdd) return;
          const r = e.currentTarget.getBoundingClientRect();
          const at = {
            tempC: Math.round(x.invert(((e.clientX - r.left) / r.width) * W) * 2) / 2,
            rhPct: Math.round(y.invert(((e.clientY - r.top) / r.height) * H)),
          };
          if (at.rhPct >= 0 && at.rhPct <= 100 && at.tempC >= low && at.tempC <= high) onAdd(at);
        }}
      >
        <clipPath id={clip}>
          <rect x={PAD.left} y={PAD.top} width={W - PAD.left - PAD.right} height={H - PAD.top - PAD.bottom} />
        </clipPath>
        {x.ticks(7).map((t) => (
          <g key={t}>
            <line x1={x(t)} x2={x(t)} y1={PAD.top} y2={H - PAD.bottom} stroke="var(--color-base-300)" />
            <text x={x(t)} y={H - PAD.bottom + 16} textAnchor="middle" fontSize={13} fill="currentColor">
              {Math.round(toShown(t, "°C"))}
            </text>
          </g>
        ))}
        {[0, 20, 40, 60, 80, 100].map((t) => (
          <g key={t}>
            <line x1={PAD.left} x2={W - PAD.right} y1={y(t)} y2={y(t)} stroke="var(--color-base-300)" />
            <text x={PAD.left - 7} y={y(t) + 4} textAnchor="end" fontSize={13} fill="currentColor">
              {t}
            </text>
          </g>
        ))}
        <text x={W - PAD.right} y={H - 6} textAnchor="end" fontSize={13} fill="currentColor">
          {tr("air temperature, {shownUnit}", { shownUnit: shownUnit("°C") })}
        </text>
        <text x={PAD.left + 6} y={PAD.top + 14} fontSize={13} fill="currentColor">
          {tr("humidity, %")}
        </text>
        <g clipPath={`url(#${clip})`}>
          <path
            d={`${path(field) ?? ""}Z`}
            fill="var(--open)"
            fillOpacity={0.22}
            stroke="var(--open)"
            strokeWidth={2.5}
          />
          {tracks.map((t) => {
            const look = LOOKS[t.look];
            return (
              <g key={t.name} fill="none" stroke={look.stroke}>
                <path
                  d={path(t.states) ?? ""}
                  strokeDasharray={look.dash}
                  strokeWidth={t.look === "inside" ? 2.5 : 1.4}
                  opacity={0.75}
                />
                {look.dots &&
                  t.states.map((s, i) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: the states of a track have no other identity
                    <circle key={i} cx={x(s.tempC)} cy={y(s.rhPct)} r={1.8} fill="currentColor" stroke="none" />
                  ))}
              </g>
            );
          })}
          {corners.map((c, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: corners have no other identity than their order
            <g key={i}>
              <rect x={x(c.tempC) - 3.5} y={y(c.rhPct) - 3.5} width={7} height={7} fill="var(--open)" />
              {onAdd && (
                <text x={x(c.tempC) + 7} y={y(c.rhPct) - 6} fontSize={12} fontWeight={700} fill="currentColor">
                  {i + 1}
                </text>
              )}
            </g>
          ))}
          {now && (
            <g>
              <circle cx={x(now.tempC)} cy={y(now.rhPct)} r={6} fill="none" stroke="var(--shut)" strokeWidth={3} />
              <text x={x(now.tempC) + 11} y={y(now.rhPct) + 5} fontSize={14} fontWeight={700} fill="var(--shut)">
                {tr("now")}
              </text>
            </g>
          )}
        </g>
      </svg>
      <figcaption className="quiet text-sm">
        {tr("Shaded: {x}.", { x: corners.length >= 3 ? tr("the printed field") : tr("the limits of the sheet") })}{" "}
        {tracks.map((t) => `${WORDS[t.look]}: ${t.name}.`).join(" ")}
        {now &&
          tr(" Ring: now, {text} {unit}, {rhPct} %.", {
            text: show(now.tempC, "°C").text,
            unit: show(now.tempC, "°C").unit,
            rhPct: Math.round(now.rhPct),
          })}
        {onAdd && tr(" Click to add the next corner.")}
      </figcaption>
    </figure>
  );
}

const WORDS = { read: tr("Dots"), ahead: tr("Dashes"), inside: tr("Red dotted") };

/** The limits of a sheet without a printed field. */
function box(l: Schemas["ProductLimits"], low: number, high: number): State[] {
  const a = l.airMinC ?? low;
  const b = l.airMaxC ?? high;
  const top = l.rhMaxPct ?? 100;
  return [
    { tempC: a, rhPct: 0 },
    { tempC: b, rhPct: 0 },
    { tempC: b, rhPct: top },
    { tempC: a, rhPct: top },
  ];
}
