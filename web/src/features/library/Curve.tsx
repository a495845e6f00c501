import type { Schemas } from "../../api/client";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";

type Point = Schemas["CurePoint"];
type Line = { label: string; points: Partial<Point>[] };

const W = 520;
const H = 210;
const LEFT = 44;
const BOTTOM = 26;
const DASH = ["", "7 4", "2 3", "10 3 2 3", "4 2", "1 4"];

/** The points of a table that can be drawn, by rising temperature. */
export function drawable(points: Partial<Point>[]): Point[] {
  return points
    .filter((p): p is Point => p.tempC !== undefined && p.hours !== undefined && p.hours > 0)
    .sort((a, b) => a.tempC - b.tempC);
}

/**
 * The sheet's hours over temperature, hours on a scale of equal ratios, where a
 * table that follows one activation energy lies nearly straight.
 */
export function Curve({ lines }: { lines: Line[] }) {
  const { show } = useSettings();
  const drawn = lines.map((l) => ({ ...l, points: drawable(l.points) })).filter((l) => l.points.length > 0);
  const all = drawn.flatMap((l) => l.points);
  if (all.length < 2) return null;
  const lo = Math.min(...all.map((p) => p.tempC)) - 2;
  const hi = Math.max(...all.map((p) => p.tempC)) + 2;
  const least = Math.floor(Math.log10(Math.min(...all.map((p) => p.hours))));
  const most = Math.max(least + 1, Math.ceil(Math.log10(Math.max(...all.map((p) => p.hours)))));
  const x = (c: number) => LEFT + ((c - lo) / (hi - lo)) * (W - LEFT - 90);
  const y = (h: number) => 8 + ((most - Math.log10(h)) / (most - least)) * (H - BOTTOM - 8);
  const hours = Array.from({ length: most - least + 1 }, (_, i) => 10 ** (least + i));
  const temps = [...new Set(all.map((p) => p.tempC))].sort((a, b) => a - b);
  const ends = spread(drawn.map((l) => y((l.points.at(-1) as Point).hours)));
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="mb-4 w-full max-w-2xl"
      role="img"
      aria-label={tr("Hours of the sheet over temperature")}
    >
      {hours.map((h) => (
        <g key={h}>
          <line x1={LEFT} x2={W - 90} y1={y(h)} y2={y(h)} stroke="currentColor" strokeOpacity={0.2} />
          <text x={LEFT - 5} y={y(h) + 4} fontSize={11} textAnchor="end" fill="currentColor">
            {h} h
          </text>
        </g>
      ))}
      {temps.map((c) => (
        <text key={c} x={x(c)} y={H - 8} fontSize={11} textAnchor="middle" fill="currentColor">
          {show(c, "°C").text}
          {show(c, "°C").unit}
        </text>
      ))}
      {drawn.map((l, i) => (
        <g key={l.label} data-curve={l.label}>
          <polyline
            points={l.points.map((p) => `${x(p.tempC)},${y(p.hours)}`).join(" ")}
            fill="none"
            stroke="currentColor"
            strokeWidth={2}
            strokeDasharray={DASH[i % DASH.length]}
          />
          {l.points.map((p, k) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: two rows may hold the same figures
            <circle key={k} cx={x(p.tempC)} cy={y(p.hours)} r={3} fill="currentColor" />
          ))}
          <text x={x((l.points.at(-1) as Point).tempC) + 7} y={(ends[i] ?? 0) + 4} fontSize={11} fill="currentColor">
            {l.label}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** Heights of labels moved apart so that none lies on another. */
function spread(ys: number[]): number[] {
  const out = [...ys];
  let last = -Infinity;
  for (const i of ys.map((_, k) => k).sort((a, b) => (ys[a] ?? 0) - (ys[b] ?? 0))) {
    last = Math.max(out[i] ?? 0, last + 12);
    out[i] = last;
  }
  return out;
}
