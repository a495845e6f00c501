import type { Schemas } from "../../api/client";
import type { useLimits } from "../../api/queries";
import type { Lane } from "../../ui/Ribbon";
import { clock } from "../../ui/time";
import { tr } from "../../words/words";

/** Every hour allowed or not, and the windows of starts as brackets. */
export function verdictLane(
  field: Schemas["FieldResult"],
  zone: string,
  name: string,
  limitOf: ReturnType<typeof useLimits>,
): Lane {
  const hours = field.hours.map((h) => ({ ...h, t: Date.parse(h.at) }));
  return {
    id: "verdict",
    label: tr("May be laid"),
    note: name,
    height: 52,
    read: (t) => {
      const h = hours.filter((k) => k.t <= t).at(-1);
      if (!h || t < (hours[0]?.t ?? 0)) return "past";
      return h.allowed ? "allowed" : (limitOf(h.binding.limit).missed ?? h.binding.limit);
    },
    draw: (x) => (
      <>
        {hours.map((h, i) => {
          const w = x(hours[i + 1]?.t ?? h.t + 3_600_000) - x(h.t);
          return h.allowed ? (
            <rect key={h.at} x={x(h.t)} width={w + 0.5} height={22} fill="var(--open)" />
          ) : (
            <g key={h.at}>
              <rect x={x(h.t)} width={w + 0.5} height={22} fill="var(--curing)" />
              {w > 5 && <path d={`M${x(h.t) + 1} 21l${w - 2} -20`} stroke="var(--shut)" strokeWidth={1} />}
            </g>
          );
        })}
        {field.windows.map((w) => {
          const a = x(Date.parse(w.from));
          const b = x(Date.parse(w.to));
          return (
            <g key={w.from} stroke="currentColor" strokeWidth={2} fill="none">
              <path d={`M${a} 27v8H${b}v-8`} />
              {b - a > 16 && (
                <text x={a} y={49} fontSize={11.5} fontWeight={600} stroke="none" fill="currentColor">
                  {`${clock(w.from, zone)}–${clock(w.to, zone)}`}
                </text>
              )}
            </g>
          );
        })}
      </>
    ),
  };
}
