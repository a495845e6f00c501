import type { Schemas } from "../api/client";
import { tr } from "../words/words";
import { readFace, WetStrip } from "./faceLanes";
import type { Lane, Scale } from "./Ribbon";
import type { useSettings } from "./settings";
import { STATES } from "./states";
import { clock } from "./time";

type TodayLane = Schemas["ReadinessLane"];

export function StatePatterns() {
  return (
    <defs>
      <pattern id="wet" width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width={6} height={6} fill="var(--color-base-100)" />
        <rect width={3} height={6} fill="var(--closing)" />
      </pattern>
      <pattern id="shut" width={8} height={8} patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <rect width={8} height={8} fill="var(--color-base-100)" />
        <rect width={2} height={8} fill="var(--shut)" />
      </pattern>
    </defs>
  );
}

const BAR = 22;

/** A surface's water, its coat's clock with what harmed it, when its field allows laying, and its windows of starts. */
export function coatLane(
  l: TodayLane,
  ribbon: Schemas["Ribbon"],
  zone: string,
  best: boolean,
  show: ReturnType<typeof useSettings>["show"],
): Lane {
  const ms = (t: string) => Date.parse(t);
  const face = ribbon.faces.find((f) => f.surfaceId === l.surfaceId);
  const readSurface =
    face &&
    readFace(
      face,
      ribbon.hours.map((h) => ms(h.at)),
      show,
      true,
    );
  return {
    id: l.surfaceId,
    label: l.surface,
    note: l.note,
    height: 50,
    read: (t) => {
      const seg = l.clock?.segments.find((s) => ms(s.from) <= t && t < ms(s.to));
      const state = seg ? (STATES[seg.state]?.word ?? seg.state) : l.clock ? "" : tr("bare");
      const start = l.starts.find((s) => ms(s.from) <= t && t <= ms(s.to));
      const may = start
        ? start.sand
          ? tr("start after sanding")
          : tr("may start")
        : l.allowed.some((a) => ms(a.from) <= t && t <= ms(a.to))
          ? tr("too short to hold")
          : "";
      const harm = l.clock?.damage.find((d) => ms(d.from) <= t && t <= ms(d.to));
      return [readSurface?.(t), state, harm && tr("harmed by {harm}", { harm: harm.harm }), may]
        .filter(Boolean)
        .join(" · ");
    },
    draw: (x) => (
      <>
        <StatePatterns />
        <rect
          x={x.range()[0]}
          width={(x.range()[1] ?? 0) - (x.range()[0] ?? 0)}
          height={BAR}
          fill="none"
          stroke="var(--color-base-300)"
        />
        {l.clock?.segments.map((s) => (
          <Bar key={s.from} x={x} from={ms(s.from)} to={ms(s.to)} state={s.state} />
        ))}
        {face && <WetStrip face={face} x={x} y={-6} />}
        {l.clock?.damage.map((d) => (
          <Harm key={d.harm + d.from} x={x((ms(d.from) + ms(d.to)) / 2)} range={x.range()} />
        ))}
        {l.allowed.map((a) => (
          <rect
            key={a.from}
            x={x(ms(a.from))}
            width={Math.max(0, x(ms(a.to)) - x(ms(a.from)))}
            y={BAR + 2}
            height={4}
            fill="var(--open)"
            opacity={0.55}
          />
        ))}
        {brackets(l.starts, x, zone).map((b, i) => (
          <Bracket key={b.a} {...b} strong={best && i === 0} />
        ))}
      </>
    ),
  };
}

function Bar({ x, from, to, state }: { x: Scale; from: number; to: number; state: string }) {
  const [left = 0, right = 0] = x.range();
  const a = Math.max(left, x(from));
  const b = Math.min(right, x(to));
  if (b <= a) return null;
  const s = STATES[state] ?? STATES.unknown;
  if (!s) return null;
  const word = b - a > s.word.length * 7 + 8 ? s.word : b - a > 16 ? s.glyph : "";
  const shut = state === "closed" || state === "damaged";
  return (
    <g>
      <rect x={a} width={b - a} height={BAR} fill={s.fill} stroke={shut ? "var(--shut)" : "none"} />
      {(shut || state === "wet") && word && (
        <rect x={a + 3} y={3} width={word.length * 6.6 + 8} height={BAR - 6} fill="var(--color-base-100)" />
      )}
      <text x={a + 6} y={15} fontSize={12} fontWeight={650} fill={s.ink}>
        {word}
      </text>
    </g>
  );
}

/** The mark of a coat that was harmed: a notch in the bar. */
function Harm({ x, range: [left = 0, right = 0] }: { x: number; range: number[] }) {
  if (x < left || x > right) return null;
  return <path d={`M${x - 6} 0h12l-6 11z`} fill="var(--shut)" stroke="var(--color-base-100)" />;
}

type Placed = { a: number; b: number; text: string; tx: number };

/** Brackets that are in view, each with its times where there is room beside it. */
function brackets(starts: TodayLane["starts"], x: Scale, zone: string): Placed[] {
  const [left = 0, right = 0] = x.range();
  const seen = starts
    .map((s) => ({
      a: Math.max(left, x(Date.parse(s.from))),
      b: Math.min(right, x(Date.parse(s.to))),
      text: `${s.sand ? tr("after sanding") : tr("start")} ${clock(s.from, zone)}–${clock(s.to, zone)}`,
    }))
    .filter((s) => s.b > left && s.a < right);
  let used = left;
  return seen.map((s, i) => {
    const w = s.text.length * 6.4;
    const room = seen[i + 1]?.a ?? right;
    const tx = s.b + 5 + w < room ? s.b + 5 : s.a - 5 - w > used ? s.a - 5 - w : Number.NaN;
    used = tx > s.b ? tx + w : s.b;
    return { ...s, tx };
  });
}

function Bracket({ a, b, text, tx, strong }: Placed & { strong: boolean }) {
  const y = BAR + 9;
  return (
    <g stroke="currentColor" strokeWidth={strong ? 2.5 : 1.5} fill="none">
      <path d={`M${a} ${y}v8H${b}v-8`} />
      {!Number.isNaN(tx) && (
        <text x={tx} y={y + 11} fontSize={11.5} fontWeight={strong ? 700 : 500} fill="currentColor" stroke="none">
          {text}
        </text>
      )}
    </g>
  );
}
