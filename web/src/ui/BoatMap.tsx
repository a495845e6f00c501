import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";

type View = Schemas["OutlineView"];
type Surface = Schemas["Surface"];

const path = (points: Schemas["OutlinePoint"][], sy: number) => `${points.map((p, i) => `${i ? "L" : "M"}${p.x} ${sy * p.y}`).join("")}Z`;

const covers = (s: Surface, shape: Schemas["OutlineShape"]) =>
  s.part === shape.part && (s.side === shape.side || s.side === "both" || shape.side === "both");

/** The boat drawn from her dimensions; her surfaces are the parts, picked by pointer or keyboard. */
export function BoatMap({
  views,
  surfaces,
  picked,
  onPick,
}: {
  views: View[];
  surfaces: Surface[];
  picked: string;
  onPick: (id: string) => void;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  useEffect(() => {
    if (!frame.current) return;
    const watch = new ResizeObserver(([e]) => e && setWidth(e.contentRect.width));
    watch.observe(frame.current);
    return () => watch.disconnect();
  }, []);
  const columns = width < 560 ? 1 : 2;
  const w = (width - (columns - 1) * 24) / columns;
  const longest = Math.max(...views.map((v) => v.max.x - v.min.x));
  const scale = (w - 16) / longest;
  return (
    <div ref={frame} className="grid w-full gap-x-6 gap-y-3" style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}>
      {views.map((v) => (
        <Drawing key={v.name} view={v} scale={scale} width={w} surfaces={surfaces} picked={picked} onPick={onPick} />
      ))}
    </div>
  );
}

function Drawing({
  view,
  scale,
  width,
  surfaces,
  picked,
  onPick,
}: {
  view: View;
  scale: number;
  width: number;
  surfaces: Surface[];
  picked: string;
  onPick: (id: string) => void;
}) {
  const side = view.name.endsWith("side");
  const sy = side ? -1 : 1;
  const h = (view.max.y - view.min.y) * scale + 16;
  const top = side ? view.max.y : -view.min.y;
  const label = (shape: Schemas["OutlineShape"]) => surfaces.find((s) => covers(s, shape));
  return (
    <figure>
      <figcaption className="text-sm font-semibold first-letter:uppercase">{view.name}</figcaption>
      <svg width={width} height={h} className="block">
        <g transform={`translate(${8 - view.min.x * scale} ${8 + top * scale}) scale(${scale})`}>
          {view.shapes.map((shape) => {
            const s = label(shape);
            const on = s !== undefined && s.id === picked;
            const d = path(shape.points, sy);
            if (!s)
              return (
                <path
                  key={path(shape.points, sy)}
                  d={d}
                  fill="none"
                  stroke="var(--color-base-300)"
                  strokeDasharray="0.08 0.08"
                  strokeWidth={1.5 / scale}
                />
              );
            return (
              <path
                key={path(shape.points, sy)}
                d={d}
                role="button"
                tabIndex={0}
                aria-label={s.name}
                aria-pressed={on}
                data-surface={s.name}
                className="cursor-pointer outline-offset-2"
                fill={on ? "var(--open)" : "var(--sheet)"}
                fillOpacity={on ? 0.55 : 1}
                stroke="currentColor"
                strokeWidth={(on ? 3 : 1.5) / scale}
                onClick={() => onPick(s.id)}
                onKeyDown={(e) => {
                  if (e.key === "Enter" || e.key === " ") {
                    e.preventDefault();
                    onPick(s.id);
                  }
                }}
              />
            );
          })}
          {view.lines.map((l) => (
            <polyline
              key={l.map((p) => p.x).join()}
              points={l.map((p) => `${p.x},${sy * p.y}`).join(" ")}
              fill="none"
              stroke="var(--dew)"
              strokeWidth={1.5 / scale}
              pointerEvents="none"
            />
          ))}
        </g>
        <Names view={view} sy={sy} scale={scale} top={top} surfaces={surfaces} />
      </svg>
    </figure>
  );
}

/** Names of the parts, each once, in the middle of its shape; a name that would meet another is left out. */
function Names({ view, sy, scale, top, surfaces }: { view: View; sy: number; scale: number; top: number; surfaces: Surface[] }) {
  const set: { x: number; y: number; w: number; text: string }[] = [];
  for (const shape of [...view.shapes].reverse()) {
    const s = surfaces.find((f) => covers(f, shape));
    if (!s || set.some((p) => p.text === s.name)) continue;
    const xs = shape.points.map((p) => p.x);
    const ys = shape.points.map((p) => sy * p.y);
    const x = ((Math.min(...xs) + Math.max(...xs)) / 2 - view.min.x) * scale + 8;
    const plan = view.name === "plan" && shape.part === "topsides";
    const edge = shape.side === "port" ? Math.min(...ys) : Math.max(...ys);
    const y = ((plan ? edge * 0.965 : (Math.min(...ys) + Math.max(...ys)) / 2) + top) * scale + 12;
    const w = s.name.length * 7;
    if (set.some((p) => Math.abs(p.y - y) < 14 && Math.abs(p.x - x) < (p.w + w) / 2)) continue;
    set.push({ x, y, w, text: s.name });
  }
  return (
    <g fontSize={12} fontWeight={600} textAnchor="middle" pointerEvents="none" fill="currentColor">
      {set.map((p) => (
        <text key={p.text} x={p.x} y={p.y} stroke="var(--color-base-100)" strokeWidth={3} paintOrder="stroke">
          {p.text}
        </text>
      ))}
    </g>
  );
}
