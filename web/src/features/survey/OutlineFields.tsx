import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { upload } from "../../api/upload";
import { AreaField, Choice, Errors, FieldError, NumberField, Refusal } from "../../ui/Form";
import { readQuantities } from "../../ui/numbers";
import { useSettings } from "../../ui/settings";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { EMPTY } from "./edit";
import { PhotoTrace } from "./PhotoTrace";
import { TraceGrid } from "./TraceGrid";

type Outline = Schemas["AreaOutline"];
type Ring = Schemas["PolygonPoint"][];

const UNITS = { "0.001": "mm", "0.01": "cm", "1": "m", "0.0254": "in", "0.3048": "ft" } as const;

/** A traced outline with holes: points typed in, clicked on a metre grid, or read from a drawing. */
export function OutlineFields({
  path,
  outline,
  set,
  plain,
}: {
  path: string;
  outline: Outline;
  set: (o: Outline) => void;
  plain?: boolean; // without margin, radius and count
}) {
  const [at, setAt] = useState(-1); // −1 the outline itself, else a hole
  const holes = outline.holes ?? [];
  const ring = at < 0 ? outline.outer : (holes[at] ?? []);
  const put = (r: Ring) =>
    set(at < 0 ? { ...outline, outer: r } : { ...outline, holes: holes.map((h, k) => (k === at ? r : h)) });
  const num = (k: "marginM" | "radiusM" | "count", label: string, unit: string, hint: string) => (
    <NumberField
      name={`${path}.${k}`}
      label={label}
      unit={unit}
      hint={hint}
      value={outline[k]}
      onChange={(v) => set({ ...outline, [k]: v ?? EMPTY })}
    />
  );
  return (
    <div>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <div className="join" role="tablist" aria-label={tr("Ring")}>
          <button
            type="button"
            role="tab"
            aria-selected={at < 0}
            className={`btn join-item min-h-11 ${at < 0 ? "btn-neutral" : ""}`}
            onClick={() => setAt(-1)}
          >
            {tr("Outline")}
          </button>
          {holes.map((_, k) => (
            <button
              // biome-ignore lint/suspicious/noArrayIndexKey: holes have no other identity than their order
              key={k}
              type="button"
              role="tab"
              aria-selected={at === k}
              className={`btn join-item min-h-11 ${at === k ? "btn-neutral" : ""}`}
              onClick={() => setAt(k)}
            >
              {tr("Hole {k}", { k: k + 1 })}
            </button>
          ))}
        </div>
        <button
          type="button"
          className="btn min-h-11"
          onClick={() => {
            set({ ...outline, holes: [...holes, []] });
            setAt(holes.length);
          }}
        >
          {tr("Add a hole")}
        </button>
        <button
          type="button"
          className="btn min-h-11"
          disabled={ring.length === 0}
          onClick={() => put(ring.slice(0, -1))}
        >
          {tr("Undo the last corner")}
        </button>
        {at >= 0 && (
          <button
            type="button"
            className="btn min-h-11"
            onClick={() => {
              set({ ...outline, holes: holes.filter((_, k) => k !== at) });
              setAt(-1);
            }}
          >
            {tr("Remove this hole")}
          </button>
        )}
      </div>
      <div className="grid gap-4 lg:grid-cols-[2fr_1fr]">
        <TraceGrid outer={outline.outer} holes={holes} at={at} put={put} />
        <CornerText key={at} path={at < 0 ? `${path}.outer` : `${path}.holes[${at}]`} ring={ring} put={put} />
      </div>
      <FieldError name={`${path}.holes`} />
      {!plain && (
        <div className="mt-3 grid gap-4 sm:grid-cols-3">
          {num("marginM", tr("Margin left around"), "m", tr("taken off along every edge"))}
          {num("radiusM", tr("Corner radius"), "m", tr("outward corners rounded"))}
          {num("count", tr("Pieces"), "", "alike")}
        </div>
      )}
      <details className="mt-3">
        <summary className="linked min-h-11 content-center">{tr("Trace a photo of a paper template")}</summary>
        <PhotoTrace key={at} put={put} />
      </details>
      <details className="mt-3">
        <summary className="linked min-h-11 content-center">
          {tr("Read the outline from a drawing (SVG or DXF)")}
        </summary>
        <FromFile as={at < 0 ? tr("the outline") : tr("hole {at}", { at: at + 1 })} put={put} />
      </details>
    </div>
  );
}

/** The shapes of a drawing, to be taken for the ring that is drawn. */
function FromFile({ as, put }: { as: string; put: (r: Ring) => void }) {
  const [unitM, setUnitM] = useState<keyof typeof UNITS>("0.001");
  const read = useChange([], (f: File) => {
    const format = f.name.toLowerCase().endsWith(".dxf") ? "dxf" : "svg";
    return upload<Schemas["Drawing"]>("/api/drawings", { format, unitM }, f);
  });
  return (
    <>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <input
          type="file"
          accept=".svg,.dxf"
          aria-label={tr("Drawing file")}
          className="file-input min-h-11 bg-(--sheet)"
          onChange={(e) => {
            const f = e.target.files?.[0];
            if (f) read.mutate(f);
          }}
        />
        <div className="w-48">
          <Choice
            name="unitM"
            label={tr("Unit, if it does not say")}
            value={unitM}
            onChange={setUnitM}
            options={(Object.keys(UNITS) as (keyof typeof UNITS)[]).map((value) => ({ value, label: UNITS[value] }))}
          />
        </div>
      </div>
      <Errors.Provider value={{}}>
        <Refusal error={read.error} />
      </Errors.Provider>
      {read.data && (
        <ul className="mt-2" aria-label={tr("Shapes in the drawing")}>
          {read.data.rings.slice(0, 12).map((r, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: shapes of a file have no other identity than their order
            <li key={i} className="rule-b flex flex-wrap items-center gap-3 py-1">
              <span>
                {trNodes("Shape {i}: {areaM2}, {widthM} × {heightM}", {
                  i: i + 1,
                  areaM2: <Quantity value={r.areaM2} unit="m²" digits={3} />,
                  widthM: <Quantity value={r.widthM} unit="m" />,
                  heightM: <Quantity value={r.heightM} unit="m" />,
                })}
              </span>
              <button type="button" className="btn btn-sm" onClick={() => put(r.ring)}>
                {tr("take it as {x}", { x: as })}
              </button>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** The corners as text, one a line. */
function CornerText({ path, ring, put }: { path: string; ring: Ring; put: (r: Ring) => void }) {
  const { toShown, toMetric, shownUnit } = useSettings();
  const write = (r: Ring) =>
    r.map((p) => `${shortNumber(toShown(p.x, "m"))}, ${shortNumber(toShown(p.y, "m"))}`).join("\n");
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? write(ring);
  const parsed = (t: string): Ring =>
    t
      .split("\n")
      .filter((l) => l.trim() !== "")
      .map((l) => {
        const all = readQuantities(l, "m", toMetric, 2);
        const [x = EMPTY, y = EMPTY] = all.length === 2 ? all : [];
        return { x, y };
      });
  const bad = typed !== null && parsed(typed).some((p) => Number.isNaN(p.x) || Number.isNaN(p.y));
  return (
    <div>
      <AreaField
        name={path}
        label={tr("Corners, x and y in {shownUnit}, one a line", { shownUnit: shownUnit("m") })}
        rows={10}
        value={text}
        onChange={(t) => {
          setTyped(t);
          put(parsed(t));
        }}
      />
      {bad && (
        <p role="alert" className="text-sm text-error">
          {tr("Each line needs two lengths, such as 1.20, 0.45 or 1,20; 0,45 or 3' 6\", 1' 2\".")}
        </p>
      )}
      {typed !== null && !bad && (
        <button type="button" className="linked mt-1 text-sm" onClick={() => setTyped(null)}>
          {tr("tidy up")}
        </button>
      )}
    </div>
  );
}

const shortNumber = (v: number) => String(Number(v.toFixed(4)));
