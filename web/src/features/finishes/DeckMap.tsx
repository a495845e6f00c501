import { type PointerEvent, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";

type Polygon = Schemas["Polygon"];
type Layout = Schemas["NonskidLayout"];

const W = 1000;

/** What a press on the deck does. */
export type Tool = { kind: "look" } | { kind: "fitting"; fitting: string } | { kind: "across" } | { kind: "along" };

const path = (ps: Polygon[], at: (p: { x: number; y: number }) => string) =>
  ps.map((p) => [p.outer, ...(p.holes ?? [])].map((r) => `M${r.map(at).join("L")}Z`).join("")).join("");

/** A deck from above, the bow to the right, port above: panels, fittings, gaps and stencil at one scale. */
export function DeckMap({
  layout,
  selected,
  select,
  tool,
  press,
  fittings,
  drag,
}: {
  layout: Layout;
  selected: string;
  select: (name: string) => void;
  tool: Tool;
  press: (x: number, y: number) => void;
  fittings: { x: number; y: number }[];
  drag: (i: number, x: number, y: number) => void;
}) {
  const { show } = useSettings();
  const svg = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<number | null>(null);
  const all = layout.deck.flatMap((d) => d.outer);
  if (all.length === 0) return null;
  const x0 = Math.min(...all.map((p) => p.x));
  const x1 = Math.max(...all.map((p) => p.x));
  const y0 = Math.min(...all.map((p) => p.y));
  const y1 = Math.max(...all.map((p) => p.y));
  const k = (W - 40) / Math.max(x1 - x0, 0.1);
  const H = (y1 - y0) * k + 60;
  const sx = (x: number) => 20 + (x - x0) * k;
  const sy = (y: number) => 20 + (y1 - y) * k;
  const at = (p: { x: number; y: number }) => `${sx(p.x).toFixed(1)} ${sy(p.y).toFixed(1)}`;
  const where = (e: PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return { x: 0, y: 0 };
    const snap = (v: number) => Math.round(v * 100) / 100;
    return {
      x: snap((((e.clientX - box.left) / box.width) * W - 20) / k + x0),
      y: snap(y1 - (((e.clientY - box.top) / box.height) * H - 20) / k),
    };
  };
  const metre = show(1, "m", 0);
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${W} ${H}`}
      className={`w-full select-none ${tool.kind === "look" ? "" : "cursor-crosshair touch-none"}`}
      role="group"
      aria-label={tr("Deck from above, bow to the right, {panels, plural, one {one panel} other {{panels} panels}}", {
        panels: layout.panels.length,
      })}
      data-testid="deck"
      onPointerDown={(e) => {
        if (tool.kind === "look") return;
        const p = where(e);
        press(p.x, p.y);
      }}
      onPointerMove={(e) => {
        if (held === null) return;
        const p = where(e);
        drag(held, p.x, p.y);
      }}
      onPointerUp={() => setHeld(null)}
      onPointerLeave={() => setHeld(null)}
    >
      <defs>
        <pattern id="stipple" width="7" height="7" patternUnits="userSpaceOnUse">
          <circle cx="1.6" cy="1.6" r="0.9" fill="var(--color-base-content)" opacity="0.5" />
          <circle cx="5.1" cy="5.1" r="0.9" fill="var(--color-base-content)" opacity="0.5" />
        </pattern>
        <pattern id="doubt" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="3" height="8" fill="var(--shut)" />
        </pattern>
      </defs>
      <path d={path(layout.deck, at)} fill="var(--sheet)" fillRule="evenodd" stroke="currentColor" strokeWidth={2} />
      {layout.panels.map((p) => (
        <g
          key={p.name}
          role="button"
          tabIndex={0}
          aria-label={tr("Panel {name}", { name: p.name })}
          aria-pressed={selected === p.name}
          className={tool.kind === "look" ? "cursor-pointer" : ""}
          onClick={() => tool.kind === "look" && select(p.name)}
          onKeyDown={(e) => {
            if (e.key === "Enter" || e.key === " ") select(p.name);
          }}
        >
          <path d={path(p.shape, at)} fillRule="evenodd" fill="color-mix(in oklab, var(--open) 26%, var(--sheet))" />
          <path
            d={path(p.shape, at)}
            fillRule="evenodd"
            fill={p.flag ? "url(#doubt)" : "url(#stipple)"}
            stroke={selected === p.name ? "var(--color-accent)" : "var(--open)"}
            strokeWidth={selected === p.name ? 4 : 1.6}
          />
        </g>
      ))}
      <path d={path(layout.gaps, at)} fill="none" stroke="var(--dew)" strokeWidth={1} strokeDasharray="5 4" />
      <path d={path(layout.fittings, at)} fill="var(--color-base-300)" stroke="currentColor" strokeWidth={1.4} />
      {layout.stencil && (
        <path
          d={path(layout.stencil.sheet, at)}
          fillRule="evenodd"
          fill="none"
          stroke="var(--color-accent)"
          strokeWidth={1.2}
        />
      )}
      {layout.panels.map((p) => (
        <g
          key={p.name}
          pointerEvents="none"
          textAnchor="middle"
          transform={`translate(${at(p.label).replace(" ", ",")})`}
        >
          <circle r={17} fill="var(--sheet)" stroke={p.flag ? "var(--shut)" : "currentColor"} strokeWidth={1.2} />
          <text y={-1} fontSize={13} fontWeight={700} className="fill-current">
            {p.name}
          </text>
          <text y={11} fontSize={10.5} className="fill-current">
            {p.order > 0 ? `${p.order}.` : "✗"}
          </text>
        </g>
      ))}
      {fittings.map((f, i) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: fittings have no other identity than their order
          key={i}
          cx={sx(f.x)}
          cy={sy(f.y)}
          r={7}
          className="cursor-move touch-none"
          fill="var(--color-accent)"
          fillOpacity={0.85}
          data-fitting={i}
          onPointerDown={(e) => {
            e.stopPropagation();
            setHeld(i);
          }}
        />
      ))}
      <g stroke="currentColor" strokeWidth={1.4}>
        <path d={`M20 ${H - 14}h${k}m0 -4v8m${-k} -8v8`} fill="none" />
      </g>
      <text x={26 + k} y={H - 10} fontSize={13} className="fill-current">
        {tr("{text} {unit}; bow to the right, starboard below", { text: metre.text, unit: metre.unit })}
      </text>
    </svg>
  );
}
