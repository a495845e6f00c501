import { type PointerEvent, useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { NumberField } from "../../ui/Form";
import { tr } from "../../words/words";

type Ring = Schemas["PolygonPoint"][];
type Spot = { x: number; y: number }; // on the picture, pixels from its top left

/**
 * A photo of a paper template: two presses on a known length give its scale, every further one a corner. The picture
 * stays on this device.
 */
export function PhotoTrace({ put }: { put: (r: Ring) => void }) {
  const [url, setUrl] = useState("");
  const [size, setSize] = useState({ w: 0, h: 0 });
  const [ends, setEnds] = useState<Spot[]>([]);
  const [lengthM, setLengthM] = useState<number | undefined>(undefined);
  const [corners, setCorners] = useState<Spot[]>([]);
  const [zoom, setZoom] = useState(1);
  const picture = useRef<HTMLDivElement>(null);
  useEffect(() => () => URL.revokeObjectURL(url), [url]);
  const [a, b] = ends;
  const perPixel = a && b && lengthM ? lengthM / Math.hypot(b.x - a.x, b.y - a.y) : Number.NaN;
  const tell = (all: Spot[], k: number) =>
    Number.isFinite(k) &&
    put(all.map((c) => ({ x: Number((c.x * k).toFixed(4)), y: Number(((size.h - c.y) * k).toFixed(4)) })));
  const press = (e: PointerEvent) => {
    const box = picture.current?.getBoundingClientRect();
    if (!box || size.w === 0) return;
    const at = { x: ((e.clientX - box.left) / box.width) * size.w, y: ((e.clientY - box.top) / box.height) * size.h };
    if (ends.length < 2) setEnds([...ends, at]);
    else if (Number.isFinite(perPixel)) {
      setCorners([...corners, at]);
      tell([...corners, at], perPixel);
    }
  };
  const r = Math.max(size.w, 1) / 160 / zoom;
  return (
    <div data-testid="photo-trace">
      <p className="quiet mb-2 max-w-3xl text-sm">
        {tr(
          "Lay a rule beside the template, stand back and hold the camera square above its middle. Press the two ends of a length that you know, type it, then press the corners one after the other.",
        )}
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <input
          type="file"
          accept="image/*"
          aria-label={tr("Photo of a template")}
          className="file-input min-h-11 bg-(--sheet)"
          onChange={(e) => {
            const f = e.target.files?.[0];
            if (!f) return;
            setUrl(URL.createObjectURL(f));
            setEnds([]);
            setCorners([]);
          }}
        />
        {url && (
          <>
            <div className="w-44">
              <NumberField
                name="photo.lengthM"
                label={tr("Known length")}
                unit="m"
                value={lengthM}
                onChange={(v) => {
                  setLengthM(v);
                  if (a && b && v) tell(corners, v / Math.hypot(b.x - a.x, b.y - a.y));
                }}
              />
            </div>
            {[1, 2, 4].map((z) => (
              <button
                key={z}
                type="button"
                className={`btn min-h-11 ${zoom === z ? "btn-neutral" : ""}`}
                onClick={() => setZoom(z)}
              >
                {z} ×
              </button>
            ))}
            <button
              type="button"
              className="btn min-h-11"
              disabled={ends.length === 0}
              onClick={() => {
                if (corners.length > 0) {
                  setCorners(corners.slice(0, -1));
                  tell(corners.slice(0, -1), perPixel);
                } else setEnds(ends.slice(0, -1));
              }}
            >
              {tr("Undo the last press")}
            </button>
          </>
        )}
      </div>
      {url && (
        <>
          <p role="status" className="my-2 font-semibold">
            {ends.length < 2
              ? tr("Press the {x} end of the known length.", { x: ends.length === 0 ? tr("one") : tr("other") })
              : Number.isFinite(perPixel)
                ? corners.length < 3
                  ? tr("Press the corners, one after the other.")
                  : tr("{corners} corners: go on, or look at the figures.", { corners: corners.length })
                : tr("Type the known length.")}
          </p>
          <div className="max-h-[70vh] overflow-auto border border-base-content/60">
            <div
              ref={picture}
              className="relative touch-manipulation"
              style={{ width: `${100 * zoom}%` }}
              onPointerUp={press}
            >
              <img
                src={url}
                alt={tr("The template as photographed")}
                className="block w-full"
                draggable={false}
                onLoad={(e) => setSize({ w: e.currentTarget.naturalWidth, h: e.currentTarget.naturalHeight })}
              />
              <svg
                viewBox={`0 0 ${size.w || 1} ${size.h || 1}`}
                className="pointer-events-none absolute inset-0 h-full w-full"
                aria-hidden="true"
              >
                {a && b && <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="#c2410c" strokeWidth={r / 2} />}
                {ends.map((p) => (
                  <circle
                    key={`${p.x} ${p.y}`}
                    cx={p.x}
                    cy={p.y}
                    r={r}
                    fill="#c2410c"
                    stroke="#fff"
                    strokeWidth={r / 4}
                  />
                ))}
                {corners.length > 1 && (
                  <polygon
                    points={corners.map((p) => `${p.x},${p.y}`).join(" ")}
                    fill="#0f766e55"
                    stroke="#0f766e"
                    strokeWidth={r / 2}
                  />
                )}
                {corners.map((p) => (
                  <circle
                    key={`${p.x} ${p.y}`}
                    cx={p.x}
                    cy={p.y}
                    r={r}
                    fill="#0f766e"
                    stroke="#fff"
                    strokeWidth={r / 4}
                  />
                ))}
              </svg>
            </div>
          </div>
        </>
      )}
    </div>
  );
}
