import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Choice, FieldError, NumberField, TextField } from "../../ui/Form";
import { tr } from "../../words/words";
import { HullMap, type Spot } from "./HullMap";

type Readings = Schemas["Readings"];
type Low = Schemas["FairLow"];
type Track = Schemas["FairTrack"];

/** How far apart the points of a stroke are kept, m of the map. */
const APART = 0.03;

/** A stroke with as many points as it needs. */
export function thinned(points: Schemas["OutlinePoint"][]): Schemas["OutlinePoint"][] {
  const out: Schemas["OutlinePoint"][] = [];
  for (const p of points) {
    const last = out.at(-1);
    if (!last || Math.hypot(p.x - last.x, p.y - last.y) >= APART) out.push({ x: cm(p.x), y: cm(p.y) });
  }
  return out;
}

const cm = (v: number) => Math.round(100 * v) / 100;

/** Where on the boat the readings lie: a line by its two ends, a low by a circle drawn round it. */
export function Placing({
  survey,
  view,
  draft,
  set,
}: {
  survey: Schemas["Survey"];
  view: Schemas["FairingView"];
  draft: Readings;
  set: (more: Partial<Readings>) => void;
}) {
  const lines = draft.lines ?? [];
  const lows = draft.lows ?? [];
  const names =
    lines.length > 0
      ? lines.map((l, i) => l.name || `line ${i + 1}`)
      : draft.gaps && draft.gaps.length > 0
        ? [tr("the first row")]
        : [];
  const [doing, setDoing] = useState<"low" | number | null>(names.length === 0 ? "low" : null);
  const [from, setFrom] = useState<Spot | null>(null);
  const trackOf = (k: number): Track | undefined => (lines.length > 0 ? lines[k]?.on : draft.on);
  const put = (k: number, on: Track | undefined) =>
    lines.length > 0 ? set({ lines: lines.map((l, i) => (i === k ? { ...l, on } : l)) }) : set({ on });
  const place = (at: Spot) => {
    if (typeof doing !== "number") return;
    if (!from || from.view !== at.view) return setFrom(at);
    put(doing, {
      view: at.view as Track["view"],
      from: { x: cm(from.x), y: cm(from.y) },
      to: { x: cm(at.x), y: cm(at.y) },
    });
    setFrom(null);
    setDoing(null);
  };
  const low = (k: number, more: Partial<Low>) => set({ lows: lows.map((l, i) => (i === k ? { ...l, ...more } : l)) });
  const open = view.lows.filter((d) => !lows.some((l) => l.defectId === d.id));
  const tracks = names.flatMap((name, k) => {
    const on = trackOf(k);
    return on ? [{ name, on }] : [];
  });
  return (
    <section className="mt-4" data-testid="placing">
      <h3 className="text-base font-semibold">{tr("Where on her")}</h3>
      <p role="status" aria-live="polite" className="text-sm">
        {doing === "low"
          ? tr("Draw round the low with a finger or the mouse, then guess how deep it is.")
          : typeof doing === "number"
            ? from
              ? tr("Now press where {names} ends.", { names: names[doing] })
              : tr("Press where {names} begins.", { names: names[doing] })
            : tr("Optional, but it puts patches and depths on the boat’s outline.")}
      </p>
      <div className="my-2 flex flex-wrap gap-2">
        {names.map((name, k) => (
          <button
            // biome-ignore lint/suspicious/noArrayIndexKey: lines have no other identity than their order
            key={k}
            type="button"
            className={`btn min-h-11 ${doing === k ? "btn-neutral" : ""}`}
            aria-pressed={doing === k}
            onClick={() => {
              setFrom(null);
              setDoing(doing === k ? null : k);
            }}
          >
            {trackOf(k) ? tr("Move") : tr("Place")} {name}
          </button>
        ))}
        <button
          type="button"
          className={`btn min-h-11 ${doing === "low" ? "btn-neutral" : ""}`}
          aria-pressed={doing === "low"}
          onClick={() => setDoing(doing === "low" ? null : "low")}
        >
          {tr("Circle a low")}
        </button>
        {open.length > 0 && (
          <button
            type="button"
            className="btn min-h-11"
            onClick={() =>
              set({
                lows: [
                  ...lows,
                  ...open.map((d) => ({
                    name: d.note || tr("low spot {number}", { number: d.number }),
                    view: d.place.view as Low["view"],
                    points: round(d.place, d.lengthMM / 1000, (d.widthMM || d.lengthMM) / 1000),
                    by: "eye" as const,
                    depthMM: d.depthMM || 2,
                    defectId: d.id,
                  })),
                ],
              })
            }
          >
            {tr("Take in {open, plural, one {the low} other {the {open} lows}} pinned in Survey", {
              open: open.length,
            })}
          </button>
        )}
      </div>
      {doing !== null && (
        <HullMap
          survey={survey}
          surfaceId={view.surface.id}
          tracks={tracks}
          lows={lows}
          begun={from ? { view: from.view, points: [from] } : undefined}
          onPlace={typeof doing === "number" ? place : undefined}
          onTrace={
            doing === "low"
              ? (t) =>
                  set({
                    lows: [
                      ...lows,
                      { name: "", view: t.view as Low["view"], points: thinned(t.points), by: "hand", depthMM: 2 },
                    ],
                  })
              : undefined
          }
        />
      )}
      {tracks.length > 0 && (
        <details className="mt-2">
          <summary className="linked w-fit min-h-11 text-sm">{tr("Places by their distances")}</summary>
          {names.map((name, k) => {
            const on = trackOf(k);
            return (
              on && (
                <TrackFields
                  // biome-ignore lint/suspicious/noArrayIndexKey: lines have no other identity than their order
                  key={k}
                  path={lines.length > 0 ? `lines[${k}].on` : "on"}
                  name={name}
                  on={on}
                  put={(v) => put(k, v)}
                />
              )
            );
          })}
        </details>
      )}
      {lows.map((l, k) => (
        <LowFields
          // biome-ignore lint/suspicious/noArrayIndexKey: lows have no other identity than their order
          key={k}
          k={k}
          low={l}
          change={(more) => low(k, more)}
          remove={() => set({ lows: lows.filter((_, i) => i !== k) })}
        />
      ))}
    </section>
  );
}

/** A round outline about a place. */
function round(at: { x: number; y: number }, long: number, tall: number) {
  return Array.from({ length: 20 }, (_, i) => {
    const a = (2 * Math.PI * i) / 20;
    return {
      x: cm(at.x + (Math.max(0.05, long) / 2) * Math.cos(a)),
      y: cm(at.y + (Math.max(0.05, tall) / 2) * Math.sin(a)),
    };
  });
}

/** A line by the distances of its two ends. */
function TrackFields({ path, name, on, put }: { path: string; name: string; on: Track; put: (on: Track) => void }) {
  const end = (which: "from" | "to", axis: "x" | "y") => (
    <NumberField
      name={`${path}.${which}.${axis}`}
      label={`${which === "from" ? tr("Begins") : tr("Ends")}, ${axis === "x" ? tr("from aft") : tr("over the waterline")}`}
      unit="m"
      value={on[which][axis]}
      onChange={(v) => put({ ...on, [which]: { ...on[which], [axis]: v ?? Number.NaN } })}
    />
  );
  return (
    <div className="mt-2 grid max-w-4xl grid-cols-2 items-end gap-3 md:grid-cols-5">
      <b className="max-md:col-span-2">{name}</b>
      {end("from", "x")}
      {end("from", "y")}
      {end("to", "x")}
      {end("to", "y")}
    </div>
  );
}

/** A low: how it was found and how deep it is guessed. */
function LowFields({
  k,
  low: l,
  change,
  remove,
}: {
  k: number;
  low: Low;
  change: (more: Partial<Low>) => void;
  remove: () => void;
}) {
  return (
    <div className="mt-2 grid max-w-4xl grid-cols-2 items-end gap-3 md:grid-cols-4" data-testid="low">
      <TextField
        name={`lows[${k}].name`}
        label={tr("Low {k}", { k: k + 1 })}
        hint={tr("such as beside the second frame")}
        value={l.name}
        onChange={(name) => change({ name })}
      />
      <Choice
        name={`lows[${k}].by`}
        label={tr("Found")}
        value={l.by}
        onChange={(by) => change({ by })}
        options={[
          { value: "hand", label: tr("by hand") },
          { value: "eye", label: tr("by eye") },
          { value: "light", label: tr("by a light") },
        ]}
      />
      <NumberField
        name={`lows[${k}].depthMM`}
        label={tr("Deepest, guessed")}
        unit="mm"
        value={l.depthMM}
        onChange={(v) => change({ depthMM: v ?? Number.NaN })}
      />
      <button type="button" className="btn btn-ghost min-h-11" onClick={remove}>
        {tr("Remove low {k}", { k: k + 1 })}
      </button>
      <FieldError name={`lows[${k}].points`} />
    </div>
  );
}
