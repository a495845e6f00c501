import type { Schemas } from "../api/client";
import { tr } from "../words/words";

/** How a part of the map is marked: a fill of its own tone and pattern, and the word for it. */
export type MapMark = { key: string; word: string; fill: string };

export const MEASURING: Record<string, MapMark> = {
  rough: { key: "rough", word: tr("measured roughly"), fill: "url(#map-rough)" },
  good: { key: "good", word: tr("well measured"), fill: "url(#map-good)" },
  disagree: { key: "disagree", word: tr("measurements disagree"), fill: "url(#map-disagree)" },
};

export const COATS: Record<string, MapMark> = {
  bare: { key: "bare", word: tr("bare"), fill: "var(--sheet)" },
  unplanned: { key: "unplanned", word: tr("no coats planned"), fill: "url(#map-unplanned)" },
  wet: { key: "wet", word: tr("wet"), fill: "url(#map-wet)" },
  tacking: { key: "tacking", word: tr("curing"), fill: "var(--curing)" },
  open: { key: "open", word: tr("open: no sanding"), fill: "url(#map-good)" },
  closing: { key: "closing", word: tr("closing"), fill: "url(#map-closing)" },
  closed: { key: "closed", word: tr("sand first"), fill: "url(#map-disagree)" },
  damaged: { key: "damaged", word: tr("damaged: inspect it"), fill: "url(#map-disagree)" },
  unknown: { key: "unknown", word: tr("not known: sand first"), fill: "url(#map-unplanned)" },
  finished: { key: "finished", word: tr("all coats on"), fill: "url(#map-finished)" },
};

export const DEFECTS: Record<string, MapMark> = {
  none: { key: "none", word: tr("no defect"), fill: "var(--sheet)" },
  open: { key: "open-defects", word: tr("defects to mend"), fill: "url(#map-disagree)" },
  mended: { key: "mended", word: tr("defects mended"), fill: "url(#map-finished)" },
};

/** The mark of a surface by its clock and plan. */
export function coatMark(lane?: Schemas["ReadinessLane"]): MapMark {
  const key = !lane
    ? "bare"
    : lane.chance === "finished"
      ? "finished"
      : (lane.clock?.state ?? (lane.chance === "unplanned" ? "unplanned" : "bare"));
  return (COATS[key] ?? COATS.unknown) as MapMark;
}

export function Swatch({ mark }: { mark: MapMark }) {
  return (
    <svg width={26} height={16} aria-hidden="true">
      <rect x={0.5} y={0.5} width={25} height={15} fill={mark.fill} stroke="currentColor" />
    </svg>
  );
}

function Hatch({
  id,
  ground,
  line,
  angle,
  width,
  step,
}: {
  id: string;
  ground: string;
  line: string;
  angle: number;
  width: number;
  step: number;
}) {
  return (
    <pattern id={id} width={step} height={step} patternUnits="userSpaceOnUse" patternTransform={`rotate(${angle})`}>
      <rect width={step} height={step} fill={ground} />
      <rect width={width} height={step} fill={line} />
    </pattern>
  );
}

export function MapPatterns() {
  return (
    <defs>
      <Hatch
        id="map-rough"
        ground="var(--sheet)"
        line="color-mix(in oklab, var(--closing) 55%, var(--sheet))"
        angle={45}
        width={2}
        step={9}
      />
      <Hatch
        id="map-good"
        ground="color-mix(in oklab, var(--open) 42%, var(--sheet))"
        line="color-mix(in oklab, var(--open) 42%, var(--sheet))"
        angle={0}
        width={1}
        step={8}
      />
      <Hatch
        id="map-disagree"
        ground="var(--sheet)"
        line="color-mix(in oklab, var(--shut) 65%, var(--sheet))"
        angle={-45}
        width={3}
        step={8}
      />
      <Hatch id="map-closing" ground="var(--sheet)" line="var(--closing)" angle={0} width={4} step={8} />
      <Hatch id="map-wet" ground="var(--sheet)" line="var(--closing)" angle={45} width={3} step={6} />
      <Hatch
        id="map-finished"
        ground="var(--sheet)"
        line="color-mix(in oklab, var(--open) 60%, var(--sheet))"
        angle={90}
        width={2}
        step={7}
      />
      <pattern id="map-unplanned" width={8} height={8} patternUnits="userSpaceOnUse">
        <rect width={8} height={8} fill="var(--sheet)" />
        <circle cx={4} cy={4} r={1.2} fill="var(--dew)" />
      </pattern>
    </defs>
  );
}
