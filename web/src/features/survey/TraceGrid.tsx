import { type PointerEvent, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";

type Ring = Schemas["PolygonPoint"][];

const W = 640;
const H = 400;
const SNAP = 0.05;

/** A metre grid: a press adds a corner to the ring at hand, a corner can be dragged. It grows with what is drawn. */
export function TraceGrid({
  outer,
  holes,
  at,
  put,
}: {
  outer: Ring;
  holes: Ring[];
  at: number;
  put: (r: Ring) => void;
}) {
  const { show } = useSettings();
  const svg = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<number | null>(null);
  const [size, setSize] = useState(0); // chosen width, m; 0 fits
  const rings = [outer, ...holes].map((r) => r.filter((p) => Number.isFinite(p.x) && Number.isFinite(p.y)));
  const all = rings.flat();
  const x0 = Math.min(0, ...all.map((p) => p.x)) - 0.2;
  const y0 = Math.min(0, ...all.map((p) => p.y)) - 0.2;
  const wide = Math.max(
    size || 3,
    Math.max(0, ...all.map((p) => p.x)) - x0 + 0.4,
    ((Math.max(0, ...all.map((p) => p.y)) - y0 + 0.4) * W) / H,
  );
  const k = W / wide;
  const sx = (x: number) => (x - x0) * k;
  const sy = (y: number) => H - (y - y0) * k;
  const ring = rings[at + 1] ?? [];
  const where = (e: PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return { x: 0, y: 0 };
    const x = ((e.clientX - box.left) / box.width) * W;
    const y = ((e.clientY - box.top) / box.height) * H;
    const snap = (v: number) => Number((Math.round(v / SNAP) * SNAP).toFixed(3));
    return { x: snap(x / k + x0), y: snap((H - y) / k + y0) };
  };
  const step = wide > 12 ? 1 : wide > 5 ? 0.5 : 0.1;
  const lines = (from: number, to: number) => {
    const out: number[] = [];
    for (let v = Math.ceil(from / step) * step; v <= to; v += step) out.push(Number(v.toFixed(3)));
    return out;
  };
  const d = (r: Ring) =>
    `${r.map((p, i) => `${i ? "L" : "M"}${sx(p.x)} ${sy(p.y)}`).join("")}${r.length > 2 ? "Z" : ""}`;
  const one = show(step, "m");
  return (
    <div>
      <svg
        ref={svg}
        viewBox={`0 0 ${W} ${H}`}
        className="w-full touch-none border border-base-content/60 bg-(--sheet)"
        role="img"
        aria-label={tr("Grid of {text} {unit}; press to add a corner", { text: one.text, unit: one.unit })}
        data-testid="trace"
        onPointerDown={(e) => {
          if (held === null) put([...ring, where(e)]);
        }}
        onPointerMove={(e) => {
          if (held !== null) put(ring.map((p, i) => (i === held ? where(e) : p)));
        }}
        onPointerUp={() => setHeld(null)}
        onPointerLeave={() => setHeld(null)}
      >
        {lines(x0, x0 + wide).map((x) => (
          <line
            key={`x${x}`}
            x1={sx(x)}
            x2={sx(x)}
            y1={0}
            y2={H}
            stroke="var(--color-base-300)"
            strokeWidth={Number.isInteger(x) ? 1.6 : 0.6}
          />
        ))}
        {lines(y0, y0 + H / k).map((y) => (
          <line
            key={`y${y}`}
            y1={sy(y)}
            y2={sy(y)}
            x1={0}
            x2={W}
            stroke="var(--color-base-300)"
            strokeWidth={Number.isInteger(y) ? 1.6 : 0.6}
          />
        ))}
        {lines(x0, x0 + wide)
          .filter(Number.isInteger)
          .map((x) => (
            <text key={x} x={sx(x) + 3} y={H - 4} fontSize={11} className="fill-current" opacity={0.75}>
              {show(x, "m", 0).text}
            </text>
          ))}
        {lines(y0, y0 + H / k)
          .filter(Number.isInteger)
          .map((y) => (
            <text key={y} x={4} y={sy(y) - 3} fontSize={11} className="fill-current" opacity={0.75}>
              {show(y, "m", 0).text}
            </text>
          ))}
        <path
          d={rings
            .filter((r) => r.length > 2)
            .map(d)
            .join("")}
          fillRule="evenodd"
          fill="color-mix(in oklab, var(--open) 30%, transparent)"
          stroke="currentColor"
          strokeWidth={1.4}
        />
        {ring.length > 0 && ring.length < 3 && <path d={d(ring)} fill="none" stroke="currentColor" strokeWidth={1.4} />}
        {ring.map((p, i) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: corners have no other identity than their order
            key={i}
            cx={sx(p.x)}
            cy={sy(p.y)}
            r={7}
            className="cursor-move"
            fill={i === ring.length - 1 ? "var(--color-accent)" : "var(--color-base-content)"}
            onPointerDown={(e) => {
              e.stopPropagation();
              setHeld(i);
            }}
          />
        ))}
      </svg>
      <div className="mt-1 flex flex-wrap items-center gap-x-4 text-sm">
        <span className="quiet">
          {tr("A square is {text} {unit}; corners fall on 5 cm. Finer figures go into the list.", {
            text: one.text,
            unit: one.unit,
          })}
        </span>
        {[3, 6, 12].map((m) => (
          <button
            key={m}
            type="button"
            className={`linked ${size === m ? "font-bold" : ""}`}
            onClick={() => setSize(m)}
          >
            {tr("{text} {unit} wide", { text: show(m, "m", 0).text, unit: show(m, "m", 0).unit })}
          </button>
        ))}
      </div>
    </div>
  );
}
