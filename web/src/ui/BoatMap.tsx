import { type MouseEvent, memo, type PointerEvent, type ReactNode, useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { tr } from "../words/words";
import { type MapMark, MapPatterns, Swatch } from "./mapMarks";

type View = Schemas["OutlineView"];
type Point = Schemas["OutlinePoint"];

export type Pin = { id: string; number: number; open: boolean; view: string; x: number; y: number; title: string };

type Props = {
  views: View[];
  surfaces: { id: string; name: string }[];
  /** How each surface is marked, by its id. */
  marks: Record<string, MapMark>;
  picked: string;
  onPick: (id: string) => void;
  pins?: Pin[];
  onPin?: (id: string) => void;
  /** With it pins are dragged to where they belong. */
  onMovePin?: (id: string, to: Point) => void;
  /** With it a press on the map asks for a place instead of picking. */
  onPlace?: (place: { view: string; x: number; y: number; surfaceId: string }) => void;
  /** With it a stroke drawn over a surface is told, in metres of the view. */
  onTrace?: (trace: { view: string; points: Point[]; surfaceId: string }) => void;
  /** What is drawn over a view. */
  over?: (view: View, px: Placed) => ReactNode;
};

const EDGE = 10;

/** The boat with her surfaces as parts, picked by pointer or keyboard, marked by tone and pattern, with defects pinned on. */
export function BoatMap(props: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  useEffect(() => {
    if (!frame.current) return;
    const watch = new ResizeObserver(([e]) => e && e.contentRect.width > 0 && setWidth(e.contentRect.width));
    watch.observe(frame.current);
    return () => watch.disconnect();
  }, []);
  const columns = width < 560 || props.views.length === 1 ? 1 : 2;
  const w = (width - (columns - 1) * 24) / columns;
  const longest = Math.max(...props.views.map((v) => v.max.x - v.min.x));
  const scale = (w - 2 * EDGE) / longest;
  const used = new Map(Object.values(props.marks).map((m) => [m.word, m]));
  return (
    <div ref={frame}>
      <svg width={0} height={0} className="absolute" aria-hidden="true">
        <MapPatterns />
      </svg>
      <div
        className="grid w-full gap-x-6 gap-y-2"
        style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
      >
        {props.views.map((v) => (
          <Drawing key={v.name} {...props} view={v} scale={scale} width={w} />
        ))}
      </div>
      <ul className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-sm" aria-label={tr("Legend")}>
        {[...used.values()].map((m) => (
          <li key={m.word} className="flex items-center gap-2">
            <Swatch mark={m} /> {m.word}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** A place in metres of a view to its place on the drawing. */
export type Placed = (p: Point) => { x: number; y: number };

const Drawing = memo(function Drawing({
  view,
  scale,
  width,
  surfaces,
  marks,
  picked,
  onPick,
  pins = [],
  onPin,
  onMovePin,
  onPlace,
  onTrace,
  over,
}: Props & { view: View; scale: number; width: number }) {
  const [moved, setMoved] = useState<{ id: string; to: Point; far: boolean } | null>(null);
  const [stroke, setStroke] = useState<{ points: Point[]; surfaceId: string } | null>(null);
  const px: Placed = (p) => ({
    x: EDGE + (view.mirror ? view.max.x - p.x : p.x - view.min.x) * scale,
    y: EDGE + (view.up ? view.max.y - p.y : p.y - view.min.y) * scale,
  });
  const d = (points: Point[]) =>
    points
      .map((p, i) => {
        const q = px(p);
        return `${i ? "L" : "M"}${q.x.toFixed(1)} ${q.y.toFixed(1)}`;
      })
      .join("");
  const under = (e: MouseEvent<SVGElement>): Point => {
    const box = (e.currentTarget.ownerSVGElement ?? e.currentTarget).getBoundingClientRect();
    const x = (e.clientX - box.left - EDGE) / scale;
    const y = (e.clientY - box.top - EDGE) / scale;
    return { x: view.mirror ? view.max.x - x : view.min.x + x, y: view.up ? view.max.y - y : view.min.y + y };
  };
  const place = (surfaceId: string) => (e: MouseEvent<SVGElement>) => {
    if (onPlace) onPlace({ view: view.name, ...under(e), surfaceId });
    else if (!onTrace) onPick(surfaceId);
  };
  const begin = (surfaceId: string) => (e: PointerEvent<SVGElement>) => {
    if (onTrace) setStroke({ points: [under(e)], surfaceId });
  };
  const move = (e: PointerEvent<SVGElement>) => {
    if (stroke) setStroke({ ...stroke, points: [...stroke.points, under(e)] });
    if (moved) setMoved({ ...moved, to: under(e), far: true });
  };
  const end = () => {
    if (moved?.far) onMovePin?.(moved.id, moved.to);
    setMoved(null);
    if (stroke && stroke.points.length > 2) onTrace?.({ view: view.name, ...stroke });
    setStroke(null);
  };
  return (
    <figure>
      <figcaption className="text-sm font-semibold first-letter:uppercase">{view.name}</figcaption>
      <svg
        width={width}
        height={(view.max.y - view.min.y) * scale + 2 * EDGE}
        className={`block ${onTrace || moved ? "touch-none" : ""}`}
        data-view={view.name}
        onPointerMove={move}
        onPointerUp={end}
        onPointerLeave={end}
      >
        {view.shapes.map((shape) => {
          const s = surfaces.find((f) => f.id === shape.surfaceId);
          if (!s) {
            const ring = `${d(shape.points)}Z`;
            return (
              <path
                key={`${shape.surfaceId}${ring}`}
                d={ring}
                fill="none"
                stroke="currentColor"
                strokeWidth={0.6}
                opacity={0.5}
              />
            );
          }
          const mark = marks[s.id];
          const on = s.id === picked;
          return (
            <path
              key={`${shape.surfaceId}${shape.label.x},${shape.label.y}`}
              d={`${d(shape.points)}Z`}
              role="button"
              tabIndex={0}
              aria-label={mark ? `${s.name}: ${mark.word}` : s.name}
              aria-pressed={on}
              data-surface={s.name}
              data-mark={mark?.key}
              className={onPlace || onTrace ? "cursor-crosshair" : "cursor-pointer"}
              fill={mark?.fill ?? "var(--sheet)"}
              stroke={on ? "var(--color-accent)" : "currentColor"}
              strokeWidth={on ? 3.5 : 1.2}
              onPointerDown={begin(s.id)}
              onClick={place(s.id)}
              onKeyDown={(e) => {
                if (e.key !== "Enter" && e.key !== " ") return;
                e.preventDefault();
                if (onPlace) onPlace({ view: view.name, ...shape.label, surfaceId: s.id });
                else onPick(s.id);
              }}
            >
              <title>{mark ? `${s.name}: ${mark.word}` : s.name}</title>
            </path>
          );
        })}
        {view.lines.map((l) => (
          <path key={d(l)} d={d(l)} fill="none" stroke="var(--dew)" strokeWidth={1.2} pointerEvents="none" />
        ))}
        {over && <g pointerEvents="none">{over(view, px)}</g>}
        {stroke && (
          <path d={d(stroke.points)} fill="none" stroke="var(--color-accent)" strokeWidth={3} pointerEvents="none" />
        )}
        {!over && (
          <Names
            view={view}
            px={px}
            surfaces={surfaces}
            taken={pins.filter((p) => p.view === view.name).map((p) => ({ ...px(p), w: 24, text: "" }))}
          />
        )}
        {pins
          .filter((p) => p.view === view.name)
          .map((p) => (
            <PinMark
              key={p.id}
              pin={p}
              at={px(moved?.id === p.id && moved.far ? moved.to : p)}
              onPin={moved?.far ? undefined : onPin}
              onGrab={onMovePin && ((e) => setMoved({ id: p.id, to: under(e), far: false }))}
            />
          ))}
      </svg>
    </figure>
  );
});

/** A defect: a filled diamond while it is open, a hollow one when mended. */
function PinMark({
  pin,
  at,
  onPin,
  onGrab,
}: {
  pin: Pin;
  at: { x: number; y: number };
  onPin?: (id: string) => void;
  onGrab?: (e: PointerEvent<SVGElement>) => void;
}) {
  const press = () => onPin?.(pin.id);
  return (
    <g
      transform={`translate(${at.x} ${at.y})`}
      role="button"
      tabIndex={0}
      aria-label={pin.title}
      data-pin={pin.number}
      className={onGrab ? "cursor-grab touch-none" : "cursor-pointer"}
      onPointerDown={onGrab}
      onClick={press}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === " ") {
          e.preventDefault();
          press();
        }
      }}
    >
      <title>{pin.title}</title>
      <path
        d="M0 -12L11 0L0 12L-11 0Z"
        fill={pin.open ? "var(--shut)" : "var(--color-base-100)"}
        stroke={pin.open ? "var(--color-base-100)" : "var(--shut)"}
        strokeWidth={1.5}
      />
      <text
        y={4}
        fontSize={11}
        fontWeight={700}
        textAnchor="middle"
        fill={pin.open ? "var(--color-base-100)" : "var(--color-base-content)"}
      >
        {pin.number}
      </text>
    </g>
  );
}

type Box = { x: number; y: number; w: number; text: string };

/** Names of the parts, once a view; where a name does not fit, its number in the list. None meets another or a pin. */
function Names({
  view,
  px,
  surfaces,
  taken,
}: {
  view: View;
  px: Placed;
  surfaces: { id: string; name: string }[];
  taken: Box[];
}) {
  const set: Box[] = [];
  const meets = (b: Box) =>
    [...taken, ...set].some((o) => Math.abs(o.y - b.y) < 15 && Math.abs(o.x - b.x) < (o.w + b.w) / 2 + 4);
  for (const shape of view.shapes) {
    const i = surfaces.findIndex((f) => f.id === shape.surfaceId);
    const name = surfaces[i]?.name ?? "";
    const xs = shape.points.map((p) => px(p).x);
    const at = px(shape.label);
    const room = Math.max(...xs) - Math.min(...xs);
    const wide = { x: at.x, y: at.y, w: name.length * 6.7, text: name };
    const short = { ...wide, w: 16, text: String(i + 1) };
    // In the middle, else a little to either side.
    const tries = [0, 0.16, -0.16, 0.3, -0.3].map((k) => ({ ...wide, x: at.x + k * room }));
    const shown = wide.w < room ? [...tries, short].find((b) => !meets(b)) : [short].find((b) => !meets(b));
    if (shown && !set.some((o) => o.text === shown.text)) set.push(shown);
  }
  return (
    <g fontSize={12} fontWeight={600} textAnchor="middle" pointerEvents="none" fill="currentColor">
      {set.map((p) => (
        <text key={p.text} x={p.x} y={p.y + 4} stroke="var(--color-base-100)" strokeWidth={3.5} paintOrder="stroke">
          {p.text}
        </text>
      ))}
    </g>
  );
}
