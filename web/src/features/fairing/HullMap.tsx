import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { BoatMap, type Placed } from "../../ui/BoatMap";
import { useSettings } from "../../ui/settings";
import { tr, trNodes } from "../../words/words";

type Point = Schemas["OutlinePoint"];
export type Spot = { view: string; x: number; y: number; surfaceId: string };
export type Stroke = { view: string; points: Point[]; surfaceId: string };

const drawn = (points: Point[], px: Placed) =>
  points
    .map((p, i) => {
      const q = px(p);
      return `${i ? "L" : "M"}${q.x.toFixed(1)} ${q.y.toFixed(1)}`;
    })
    .join("");

/** The views that show most of a surface's face; edge-on ones are left out. */
function faces(views: Schemas["OutlineView"][], surfaceId: string) {
  const size = (v: Schemas["OutlineView"]) =>
    Math.max(
      0,
      ...v.shapes
        .filter((s) => s.surfaceId === surfaceId && v.name !== "apart from the hull")
        .map(
          (s) =>
            Math.abs(
              s.points.reduce(
                (sum, p, i) => sum + p.x * (s.points.at(i - 1)?.y ?? 0) - p.y * (s.points.at(i - 1)?.x ?? 0),
                0,
              ),
            ) / 2,
        ),
    );
  const most = Math.max(0, ...views.map(size));
  return views.filter((v) => size(v) > 0 && size(v) >= most / 2);
}

/** A surface on the boat's own outline: depths as contours, lines walked, lows circled, and hard lines. */
export function HullMap({
  survey,
  surfaceId,
  contours = [],
  tracks = [],
  lows = [],
  onPlace,
  onTrace,
  begun,
}: {
  survey: Schemas["Survey"];
  surfaceId: string;
  contours?: Schemas["FairContour"][];
  tracks?: { name: string; on: Schemas["FairTrack"] }[];
  lows?: Schemas["FairLow"][];
  onPlace?: (at: Spot) => void;
  onTrace?: (stroke: Stroke) => void;
  /** Points set already of what is being drawn. */
  begun?: { view: string; points: Point[] };
}) {
  const { prose } = useSettings();
  const views = useMemo(() => faces(survey.views, surfaceId), [survey.views, surfaceId]);
  const hard = survey.surfaces.find((s) => s.id === surfaceId)?.findings.hardLines ?? [];
  if (views.length === 0)
    return (
      <p className="quiet">{tr("This surface has no place on the boat’s outline: it is drawn by itself below.")}</p>
    );
  const over = (view: Schemas["OutlineView"], px: Placed) => (
    <>
      {contours
        .filter((c) => c.view === view.name)
        .map((c) => (
          <g key={c.depthMM} data-contour={c.depthMM}>
            <path
              d={c.rings.map((r) => `${drawn(r, px)}Z`).join("")}
              fill={c.depthMM > 0 ? "var(--open)" : "var(--shut)"}
              fillOpacity={0.22}
              fillRule="evenodd"
              stroke="currentColor"
              strokeWidth={0.8}
            />
          </g>
        ))}
      {hard
        .filter((h) => h.view === view.name)
        .map((h) => (
          <path
            key={drawn(h.points, px)}
            d={drawn(h.points, px)}
            fill="none"
            stroke="var(--shut)"
            strokeWidth={3}
            strokeDasharray="10 3 2 3"
            data-hard={h.kind}
          />
        ))}
      {tracks
        .filter((t) => t.on.view === view.name)
        .map((t) => {
          const from = px(t.on.from);
          return (
            <g key={`${t.name} ${drawn([t.on.from, t.on.to], px)}`} data-track={t.name}>
              <path d={drawn([t.on.from, t.on.to], px)} stroke="currentColor" strokeWidth={1.4} strokeDasharray="2 3" />
              <circle cx={from.x} cy={from.y} r={3.5} fill="currentColor" />
            </g>
          );
        })}
      {lows
        .filter((l) => l.view === view.name)
        .map((l) => (
          <path
            key={drawn(l.points, px)}
            d={`${drawn(l.points, px)}Z`}
            fill="none"
            stroke="currentColor"
            strokeWidth={2}
            strokeDasharray="5 3"
            data-low={l.name}
          />
        ))}
      {begun?.view === view.name && (
        <>
          <path d={drawn(begun.points, px)} fill="none" stroke="var(--color-accent)" strokeWidth={3} />
          {begun.points.map((p) => {
            const q = px(p);
            return <circle key={`${q.x} ${q.y}`} cx={q.x} cy={q.y} r={5} fill="var(--color-accent)" />;
          })}
        </>
      )}
    </>
  );
  const here = survey.surfaces.filter((s) => s.id === surfaceId);
  const depths = [...new Set(contours.map((c) => c.depthMM))].sort((a, b) => a - b);
  return (
    <div data-testid="hull-map">
      <BoatMap
        views={views}
        surfaces={here}
        marks={{}}
        picked={surfaceId}
        onPick={() => {}}
        onPlace={onPlace}
        onTrace={onTrace}
        over={over}
      />
      {depths.length > 0 && (
        <p className="quiet text-sm">
          {tr("The lines are depths of")}{" "}
          {depths.map((v) => prose([{ value: Math.abs(v), unit: "mm", digits: Math.abs(v) < 1 ? 2 : 0 }])).join(", ")}
          {tr(": green to be filled")}
          {depths.some((v) => v < 0) && tr(", red to be ground")}
          {trNodes(". A dot is where a line begins.{hard}", {
            hard: hard.length > 0 && tr(" Red and broken: a hard line, which nothing is faired across."),
          })}
        </p>
      )}
    </div>
  );
}
