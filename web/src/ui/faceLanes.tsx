import { line } from "d3-shape";
import type { Schemas } from "../api/client";
import { tr } from "../words/words";
import type { Lane, Scale } from "./Ribbon";
import type { useSettings } from "./settings";

type Face = Schemas["Face"];
type Show = ReturnType<typeof useSettings>["show"];

/** What a surface is at an instant in words: temperature, and wet or how far above the dew point; brief leaves the latter out. */
export function readFace(face: Face, times: number[], show: Show, brief = false): (t: number) => string {
  return (t) => {
    const i = times.findIndex((at, k) => at <= t && t < (times[k + 1] ?? at + 1));
    const a = face.surfaceC[i];
    const b = face.surfaceC[i + 1];
    const s = face.spreadK[i];
    if (i < 0 || a === undefined || s === undefined) return tr("not known");
    const f = b === undefined ? 0 : (t - (times[i] ?? 0)) / ((times[i + 1] ?? 1) - (times[i] ?? 0));
    const temp = show(b === undefined ? a : a + f * (b - a), "°C");
    const wet = face.wet.find((w) => Date.parse(w.from) <= t && t <= Date.parse(w.to));
    const spread = show(b === undefined ? s : s + f * ((face.spreadK[i + 1] ?? s) - s), "K");
    if (brief) return `${temp.text} ${temp.unit}${wet ? ` ${tr("wet")}` : ""}`;
    return `${temp.text} ${temp.unit}, ${wet ? (wet.rain ? tr("wet with rain") : tr("wet with dew")) : tr("{text} {unit} above dew", { text: spread.text, unit: spread.unit })}`;
  };
}

/** Where a surface is wet, as a strip of its own. */
export function WetStrip({ face, x, y }: { face: Face; x: Scale; y: number }) {
  const [left = 0, right = 0] = x.range();
  return (
    <>
      {face.wet.map((w) => {
        const a = Math.max(left, x(Date.parse(w.from)));
        const b = Math.min(right, x(Date.parse(w.to)));
        if (b <= a) return null;
        return (
          <g key={w.from}>
            <rect x={a} y={y} width={b - a} height={5} fill="var(--dew)" />
            {w.rain && <rect x={a} y={y} width={b - a} height={2} fill="currentColor" />}
          </g>
        );
      })}
    </>
  );
}

const H = 44;

/** The surfaces of a boat, each over the same scale of temperature, with their water. Forecast is dashed. */
export function faceLanes(ribbon: Schemas["Ribbon"], show: Show, only?: string): Lane[] {
  const times = ribbon.hours.map((h) => Date.parse(h.at));
  const faces = ribbon.faces.filter((f) => only === undefined || f.surfaceId === only);
  const all = ribbon.faces.flatMap((f) => f.surfaceC);
  if (times.length < 2 || all.length === 0) return [];
  const low = Math.min(...all);
  const high = Math.max(...all);
  const split = ribbon.hours.findIndex((h) => !h.measured);
  return faces.map((face) => ({
    id: `face-${face.surfaceId}`,
    label: face.surface,
    note: face.probed ? tr("corrected by readings on it") : tr("modelled"),
    height: H,
    read: readFace(face, times, show),
    draw: (x) => {
      const y = (v: number) => H - 6 - ((v - low) / Math.max(1, high - low)) * (H - 8);
      const path = (from: number, to: number) =>
        line<number>(
          (i) => x(times[i] ?? 0),
          (i) => y(face.surfaceC[i] ?? 0),
        )(Array.from({ length: Math.max(0, to - from) }, (_, k) => from + k)) ?? "";
      const cut = split < 0 ? times.length : split;
      return (
        <>
          <path d={path(0, cut)} fill="none" stroke="currentColor" strokeWidth={2} />
          <path
            d={path(Math.max(0, cut - 1), times.length)}
            fill="none"
            stroke="currentColor"
            strokeWidth={2}
            strokeDasharray="5 3"
          />
          <WetStrip face={face} x={x} y={H - 5} />
        </>
      );
    },
  }));
}
