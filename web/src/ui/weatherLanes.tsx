import { area, line } from "d3-shape";
import type { Schemas } from "../api/client";
import { tr } from "../words/words";
import type { Lane, Scale } from "./Ribbon";
import type { useSettings } from "./settings";

type Air = Schemas["AirHour"];
const at = (h: Air) => Date.parse(h.at);

/** The hour at t with temperatures between the records. */
function airAt(hours: Air[], t: number): Air | undefined {
  const i = hours.findIndex((h, k) => at(h) <= t && t < (hours[k + 1] ? at(hours[k + 1] as Air) : at(h) + 1));
  const a = hours[i];
  const b = hours[i + 1];
  if (!a || !b) return a;
  const f = (t - at(a)) / (at(b) - at(a));
  const mid = (p: number, q: number) => p + f * (q - p);
  return {
    ...a,
    surfaceC: mid(a.surfaceC, b.surfaceC),
    dewPointC: mid(a.dewPointC, b.dewPointC),
    rhPct: mid(a.rhPct, b.rhPct),
  };
}

const H = 84;

/** The hours that a scale shows, and one on either side. */
function within(hours: Air[], x: Scale): Air[] {
  const [from = 0, to = 0] = x.domain().map((d) => d.getTime());
  return hours.filter((h) => at(h) > from - 4_000_000 && at(h) < to + 4_000_000);
}

/** Stretches of neighbouring hours for which test holds, with an hour to close each. */
function stretches(hours: Air[], test: (h: Air) => boolean): Air[][] {
  const out: Air[][] = [];
  hours.forEach((h, i) => {
    if (!test(h)) return;
    const previous = hours[i - 1];
    if (previous && test(previous)) out.at(-1)?.push(h);
    else out.push([h]);
  });
  return out.filter((s) => s.length > 1);
}

function Temperatures({ hours, x }: { hours: Air[]; x: Scale }) {
  const all = hours.flatMap((h) => [h.surfaceC, h.dewPointC]);
  const low = Math.min(...all) - 1;
  const high = Math.max(...all) + 1;
  const y = (v: number) => H - ((v - low) / (high - low)) * H;
  const split = hours.findIndex((h) => !h.measured);
  const past = split < 0 ? hours : hours.slice(0, split);
  const future = split < 0 ? [] : hours.slice(Math.max(0, split - 1));
  const px = (h: Air) => x(at(h));
  const surface = line<Air>(px, (h) => y(h.surfaceC));
  const dew = line<Air>(px, (h) => y(h.dewPointC));
  const between = area<Air>()
    .x(px)
    .y0((h) => y(h.dewPointC) + (h.dewRisk ? 2 : 0))
    .y1((h) => y(h.surfaceC) - (h.dewRisk ? 2 : 0));
  return (
    <>
      <defs>
        <pattern id="dew-risk" width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width={6} height={6} fill="var(--color-base-100)" />
          <rect width={2.5} height={6} fill="var(--dew)" />
        </pattern>
      </defs>
      <path d={between(hours) ?? ""} fill="var(--open)" opacity={0.16} />
      {stretches(hours, (h) => h.dewRisk).map((s) => (
        <path key={s[0]?.at} d={between(s) ?? ""} fill="url(#dew-risk)" />
      ))}
      {[past, future].map((part, i) => (
        <g key={i === 0 ? "measured" : "forecast"} fill="none" strokeDasharray={i === 0 ? undefined : "5 3"}>
          <path d={dew(part) ?? ""} stroke="var(--dew)" strokeWidth={2} />
          <path d={surface(part) ?? ""} stroke="currentColor" strokeWidth={2} />
        </g>
      ))}
    </>
  );
}

/** Surface temperature over dew point, hatched where dew is near, and rain with wind. Forecast is dashed. */
/** How the air so far is known, by where a place's weather comes from. */
export function weatherLanes(hours: Air[], show: ReturnType<typeof useSettings>["show"], surface?: string): Lane[] {
  if (hours.length < 2) return [];
  const said = (v: number, unit: string, digits?: number) => {
    const s = show(v, unit, digits);
    return `${s.text} ${s.unit}`;
  };
  const peakRain = Math.max(2, ...hours.map((h) => h.rainMM ?? 0));
  const peakWind = Math.max(10, ...hours.map((h) => h.windMS ?? 0));
  return [
    {
      id: "air",
      label: tr("Surface and dew point"),
      note: surface,
      height: H,
      read: (t) => {
        const a = airAt(hours, t);
        if (!a) return tr("not known");
        const now = { surface: said(a.surfaceC, "°C"), dew: said(a.dewPointC, "°C"), rh: Math.round(a.rhPct) };
        return a.measured ? tr("{surface}, dew {dew}, {rh} %", now) : tr("forecast {surface}, dew {dew}, {rh} %", now);
      },
      draw: (x) => <Temperatures hours={within(hours, x)} x={x} />,
    },
    {
      id: "rain",
      label: tr("Rain and wind"),
      height: 40,
      read: (t) => {
        const a = airAt(hours, t);
        if (!a) return tr("not known");
        const rain =
          a.rainMM === undefined ? tr("rain not known") : a.rainMM === 0 ? tr("dry") : `${said(a.rainMM, "mm")}/h`;
        return a.windMS === undefined ? rain : tr("{rain}, wind {wind}", { rain, wind: said(a.windMS, "m/s", 0) });
      },
      draw: (x, width) => (
        <>
          {hours.map((h) =>
            h.rainMM ? (
              <rect
                key={h.at}
                x={x(at(h)) + 0.5}
                width={Math.max(1, x(3_600_000) - x(0) - 1)}
                y={40 - (h.rainMM / peakRain) * 40}
                height={(h.rainMM / peakRain) * 40}
                fill="var(--dew)"
                opacity={h.measured ? 1 : 0.65}
              />
            ) : null,
          )}
          <path
            d={
              line<Air>(
                (h) => x(at(h)),
                (h) => 40 - ((h.windMS ?? 0) / peakWind) * 40,
              )(hours.filter((h) => h.windMS !== undefined)) ?? ""
            }
            fill="none"
            stroke="currentColor"
            strokeWidth={1}
            opacity={0.6}
          />
          <line x1={x.range()[0]} x2={width} y1={40} y2={40} stroke="currentColor" opacity={0.4} />
        </>
      ),
    },
  ];
}
