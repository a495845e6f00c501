import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";

const WIDTH = 720;
const EDGE = 34;
/** A section through a row before and after, and over it cells by depth where the rows have no place on the boat. */
export function FairMap({ fairing: f }: { fairing: Schemas["Fairing"] }) {
  const placed = f.lines?.length ? f.lines.every((l) => l.on) : f.on !== undefined;
  const rows = f.depth ?? [];
  const ny = rows.length;
  const [row, setRow] = useState(Math.floor(ny / 2));
  return (
    <section className="mb-6">
      {!placed && <Cells fairing={f} />}
      <div className="mt-2 flex flex-wrap items-end gap-4">
        {ny > 1 && (
          <div className="no-print w-40">
            <Choice
              name="row"
              label={tr("Section through")}
              value={String(row)}
              onChange={(v) => setRow(Number(v))}
              options={rows.map((_, y) => ({ value: String(y), label: f.lines?.[y]?.name || `row ${y + 1}` }))}
            />
          </div>
        )}
        <Section fairing={f} row={Math.min(row, ny - 1)} />
      </div>
    </section>
  );
}

/** Cells by depth, with contours where the readings are a grid without a place on the boat. */
function Cells({ fairing: f }: { fairing: Schemas["Fairing"] }) {
  const rows = f.depth ?? [];
  const ny = rows.length;
  const nx = Math.max(0, ...rows.map((r) => r?.length ?? 0));
  const { show } = useSettings();
  const mm = (v: number) => `${show(v, "mm").text} ${show(v, "mm").unit}`;
  const most = Math.max(0.1, ...rows.flat().map((d) => Math.abs(d ?? 0)));
  const cell = Math.min(46, (WIDTH - EDGE) / nx);
  const apart = f.lines?.[0]?.widthM ?? f.rowsM;
  const tall = ny === 1 ? 46 : Math.max(12, Math.min(46, (cell * (apart || f.spacingM)) / f.spacingM));
  // Those of a grid that has no place on the boat, in its own metres: x along, y down from the first row.
  const lines = f.lines?.length ? [] : f.contours.filter((c) => c.view === "" && f.rowsM > 0);
  const at = (p: Schemas["OutlinePoint"]) =>
    `${EDGE + (p.x / f.spacingM + 0.5) * cell} ${(-p.y / f.rowsM + 0.5) * tall}`;
  return (
    <div className="overflow-x-auto">
      <svg
        width={EDGE + nx * cell}
        height={ny * tall + 30}
        className="on-paper"
        viewBox={`0 0 ${EDGE + nx * cell} ${ny * tall + 30}`}
        role="img"
        aria-label={tr("Fill up to {maxFillMM}, grind up to {maxGrindMM}", {
          maxFillMM: mm(f.result.maxFillMM),
          maxGrindMM: mm(f.result.maxGrindMM),
        })}
        data-testid="fair-map"
      >
        <defs>
          <pattern id="grind" width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width={2} height={6} fill="var(--shut)" />
          </pattern>
        </defs>
        {rows.map((row, y) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other identity than their place
          <g key={y}>
            <text x={0} y={y * tall + tall / 2 + 4} fontSize={12} fill="currentColor">
              {y + 1}
            </text>
            {row?.map((d, x) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: cells have no other identity than their place
              <g key={x} transform={`translate(${EDGE + x * cell} ${y * tall})`} data-depth={d ?? ""}>
                <rect
                  width={cell - 1}
                  height={tall - 1}
                  fill="var(--sheet)"
                  stroke="var(--color-base-300)"
                  strokeWidth={0.5}
                />
                {d != null && d > 0.05 && (
                  <rect width={cell - 1} height={tall - 1} fill="var(--open)" opacity={0.15 + (0.75 * d) / most} />
                )}
                {d != null && d < -0.05 && <rect width={cell - 1} height={tall - 1} fill="url(#grind)" />}
                {cell > 30 && d != null && Math.abs(d) > 0.05 && (
                  <text x={cell / 2} y={tall / 2 + 4} fontSize={11} textAnchor="middle" fill="currentColor">
                    {d > 0 ? "+" : "−"}
                    {show(Math.abs(d), "mm").text}
                  </text>
                )}
              </g>
            ))}
          </g>
        ))}
        {lines.map((c) => (
          <path
            key={c.depthMM}
            d={c.rings.map((r) => `M${r.map(at).join("L")}Z`).join("")}
            fill="none"
            stroke="currentColor"
            strokeWidth={Math.abs(c.depthMM) >= 2 ? 1.4 : 0.8}
            opacity={0.8}
          />
        ))}
        <text x={EDGE} y={ny * tall + 20} fontSize={12} fill="currentColor">
          {tr("Green +: fill. Hatched −: grind. {unit}", { unit: show(0, "mm").unit })}
          {lines.length > 0 &&
            tr("; lines at {lines}", { lines: lines.map((c) => show(c.depthMM, "mm").text).join(", ") })}
          {tr(". Rows from the top as read.")}
        </text>
      </svg>
    </div>
  );
}

/** A row from the side: the surface as read and the fair line, heights stretched. */
function Section({ fairing: f, row }: { fairing: Schemas["Fairing"]; row: number }) {
  const { prose } = useSettings();
  const heights = f.heights?.[row] ?? [];
  const top = Math.max(0, ...heights.map((h) => h ?? 0));
  const gaps = heights.map((h) => (h == null ? null : top - h)); // below the highest place
  const depth = f.depth?.[row] ?? [];
  const w = 560;
  const h = 130;
  const low = Math.max(1, ...gaps.map((g) => g ?? 0), ...gaps.map((g, i) => (g ?? 0) - (depth[i] ?? 0)));
  const high = Math.min(0, ...gaps.map((g, i) => (g ?? 0) - (depth[i] ?? 0)));
  const x = (i: number) => 10 + (i / Math.max(1, gaps.length - 1)) * (w - 20);
  const y = (mm: number) => 14 + ((mm - high) / (low - high)) * (h - 40);
  const points = gaps.flatMap((g, i) => (g == null ? [] : [{ i, before: g, after: g - (depth[i] ?? 0) }]));
  const path = (key: "before" | "after") => points.map((p) => `${x(p.i)} ${y(p[key])}`).join("L");
  const length = (gaps.length - 1) * f.spacingM;
  return (
    <svg
      viewBox={`0 0 ${w} ${h}`}
      className="on-paper w-full max-w-xl"
      role="img"
      aria-label={tr("Section through row {row}, before and after", { row: row + 1 })}
      data-testid="fair-section"
    >
      <path
        d={`M${path("before")}L${[...points]
          .reverse()
          .map((p) => `${x(p.i)} ${y(p.after)}`)
          .join("L")}Z`}
        fill="var(--open)"
        opacity={0.35}
      />
      <path d={`M${path("before")}`} fill="none" stroke="currentColor" strokeWidth={1.2} strokeDasharray="5 3" />
      <path d={`M${path("after")}`} fill="none" stroke="var(--open)" strokeWidth={2.5} />
      <text x={10} y={h - 8} fontSize={12} fill="currentColor">
        {tr("Row {row}: dashed as read, solid after; {x} long, heights {length}× stretched", {
          row: row + 1,
          x: prose([{ value: length, unit: "m", digits: 1 }]),
          length: Math.round((length * 1000 * (h - 40)) / ((low - high) * (w - 20))),
        })}
      </text>
    </svg>
  );
}
