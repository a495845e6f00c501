import type { Schemas } from "../../api/client";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";

const W = 440;
const H = 170;
const PAD = { left: 44, right: 14, top: 14, bottom: 30 };

/** The girths over the centreline: the stations as typed, and the curve that the area is taken by once it is known. */
export function GirthCurve({
  stations,
  line,
}: {
  stations: Schemas["AreaStation"][];
  line?: Schemas["AreaGirthLine"];
}) {
  const { show, prose } = useSettings();
  const typed = stations
    .map((s, i) => ({ ...s, n: i }))
    .filter((s) => Number.isFinite(s.atM) && Number.isFinite(s.girthM));
  if (typed.length < 2) return null;
  const points = line?.points ?? [];
  const right = Math.max(0.1, ...typed.map((s) => s.atM));
  const top = 1.08 * Math.max(0.1, ...typed.map((s) => s.girthM), ...points.map((p) => p.girthM));
  const x = (m: number) => PAD.left + (m / right) * (W - PAD.left - PAD.right);
  const y = (m: number) => H - PAD.bottom - (m / top) * (H - PAD.top - PAD.bottom);
  const path = (of: { atM: number; girthM: number }[]) =>
    of.map((p, i) => `${i ? "L" : "M"}${x(p.atM)} ${y(p.girthM)}`).join("");
  const doubted = new Set(line?.doubts.map((d) => d.station));
  const mark = (m: number) => `${show(m, "m", 1).text} ${show(m, "m", 1).unit}`;
  return (
    <figure className="my-3 max-w-xl" data-testid="girth-curve">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="w-full"
        role="img"
        aria-label={tr("Girth over the length, station by station")}
      >
        {[0, 0.5, 1].map((share) => (
          <g key={share}>
            <line
              x1={PAD.left}
              x2={W - PAD.right}
              y1={y((share * top) / 1.08)}
              y2={y((share * top) / 1.08)}
              stroke="var(--color-base-300)"
              strokeWidth={1}
            />
            <text
              x={PAD.left - 5}
              y={y((share * top) / 1.08) + 4}
              fontSize={12}
              textAnchor="end"
              className="fill-current"
            >
              {show((share * top) / 1.08, "m", 1).text}
            </text>
          </g>
        ))}
        <text x={PAD.left} y={H - 8} fontSize={12} className="fill-current">
          {tr("first station")}
        </text>
        <text x={W - PAD.right} y={H - 8} fontSize={12} textAnchor="end" className="fill-current">
          {mark(right)} on
        </text>
        {points.length > 0 && (
          <path
            d={`${path(points)}L${x(points.at(-1)?.atM ?? 0)} ${y(0)}L${x(points[0]?.atM ?? 0)} ${y(0)}Z`}
            fill="color-mix(in oklab, var(--open) 30%, transparent)"
          />
        )}
        <path
          d={path(points.length > 0 ? points : typed)}
          fill="none"
          stroke="currentColor"
          strokeWidth={1.8}
          strokeDasharray={points.length > 0 ? undefined : "4 4"}
        />
        {typed.map((s) => (
          <g key={s.n}>
            <circle
              cx={x(s.atM)}
              cy={y(s.girthM)}
              r={doubted.has(s.n) ? 8 : 4.5}
              fill={doubted.has(s.n) ? "var(--color-error)" : "var(--color-base-content)"}
            />
            <text x={x(s.atM)} y={y(s.girthM) - 10} fontSize={12} textAnchor="middle" className="fill-current">
              {s.n + 1}
            </text>
          </g>
        ))}
      </svg>
      <figcaption>
        {line?.doubts.map((d) => (
          <p key={d.station} role="alert" className="border-l-4 border-error pl-3 text-sm">
            {prose(d.text)}
          </p>
        ))}
      </figcaption>
    </figure>
  );
}
