import type { ScaleTime } from "d3-scale";
import { clock, day } from "./time";

/** A label takes this many px. */
const LABEL = 84;

/** Days under a chart that is width px wide, the clock where the day is that of the label before; as many as have room. */
export function TimeTicks({
  x,
  count,
  y,
  width,
  zone,
}: {
  x: ScaleTime<number, number>;
  count: number;
  y: number;
  width: number;
  zone: string;
}) {
  const kept: { t: Date; at: number; end: boolean }[] = [];
  for (const t of x.ticks(count)) {
    const end = x(t) > width - LABEL;
    const at = end ? x(t) - LABEL : x(t);
    const last = kept.at(-1);
    if (!last || at - last.at >= LABEL) kept.push({ t, at, end });
  }
  return kept.map(({ t, end }, i) => {
    const before = kept[i - 1]?.t;
    return (
      <text key={t.getTime()} x={x(t)} y={y} fontSize={12} fill="currentColor" textAnchor={end ? "end" : "start"}>
        {before && day(before, zone) === day(t, zone) ? clock(t, zone) : day(t, zone)}
      </text>
    );
  });
}
