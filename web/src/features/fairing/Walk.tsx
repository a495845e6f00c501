import { ChevronLeft, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Choice, FieldError, NumberField, TextField } from "../../ui/Form";
import { readNumber } from "../../ui/numbers";
import { useSettings } from "../../ui/settings";
import { tr, trNodes } from "../../words/words";

type Line = Schemas["FairLine"];
type Gap = number | null;

/** Gaps in mm that one key takes: what a wedge or feelers tell apart. */
const KEYS = [0.25, 0.5, 0.75, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 8];

/** The places of readings told by their numbers from 1. */
export const places = (text: string) =>
  text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map((t) => Number(t) - 1);

export const freshLine = (): Line => ({ name: "", way: "along", widthM: 0.4, placements: [{ startM: 0, gapsMM: [] }] });

/** Where the next reading goes: on in the placement, else in a new one further along. */
export function next(
  line: Line,
  count: number,
  step: number,
  spacingM: number,
): { placement: number; reading: number; startM: number } {
  const last = line.placements.length - 1;
  const p = line.placements[last];
  const read = p?.gapsMM.length ?? 0;
  if (p && read < count) return { placement: last, reading: read, startM: p.startM };
  return { placement: last + 1, reading: 0, startM: Number(((p?.startM ?? 0) + (p ? step * spacingM : 0)).toFixed(3)) };
}

/** Takes a reading where the next one goes. */
export function take(line: Line, gap: Gap, count: number, step: number, spacingM: number): Line {
  const at = next(line, count, step, spacingM);
  const placements =
    at.placement < line.placements.length
      ? line.placements.map((p, k) => (k === at.placement ? { ...p, gapsMM: [...p.gapsMM, gap] } : p))
      : [...line.placements, { startM: at.startM, gapsMM: [gap] }];
  return { ...line, placements: placements as Line["placements"] };
}

/** Takes the last reading back. */
export function back(line: Line): Line {
  const last = line.placements.length - 1;
  const p = line.placements[last];
  if (!p) return line;
  if (p.gapsMM.length <= 1 && last > 0) return { ...line, placements: line.placements.slice(0, -1) };
  return {
    ...line,
    placements: line.placements.map((q, k) => (k === last ? { ...q, gapsMM: q.gapsMM.slice(0, -1) } : q)),
  };
}

/** Gaps under an edge laid placement by placement, taken by thumb: one press a reading, the next place by itself. */
export function Walk({
  lines,
  edgeM,
  spacingM,
  set,
}: {
  lines: Line[];
  edgeM: number;
  spacingM: number;
  set: (lines: Line[]) => void;
}) {
  const { show } = useSettings();
  const [at, setAt] = useState(Math.max(0, lines.length - 1));
  const [halfway, setHalfway] = useState(true);
  const line = lines[Math.min(at, lines.length - 1)];
  const steps = Math.round(edgeM / spacingM);
  if (!line || !(steps >= 2 && steps <= 200))
    return <p className="text-error">{tr("The straightedge must be at least two spacings long.")}</p>;
  const count = steps + 1;
  const step = halfway ? Math.max(1, Math.floor(steps / 2)) : steps;
  const k = lines.indexOf(line);
  const put = (l: Line) => set(lines.map((o, i) => (i === k ? l : o)));
  const press = (gap: Gap) => put(take(line, gap, count, step, spacingM));
  const where = next(line, count, step, spacingM);
  const last = line.placements.at(-1)?.gapsMM.at(-1);
  const m = (v: number) => `${show(v, "m").text} ${show(v, "m").unit}`;
  const path = `lines[${k}]`;
  return (
    <div className="mt-3" data-testid="walk">
      <div className="flex flex-wrap gap-2" role="tablist" aria-label={tr("Lines")}>
        {lines.map((l, i) => (
          <button
            // biome-ignore lint/suspicious/noArrayIndexKey: lines have no other identity than their order
            key={i}
            type="button"
            role="tab"
            aria-selected={i === k}
            className={`btn min-h-11 ${i === k ? "btn-neutral" : ""}`}
            onClick={() => setAt(i)}
          >
            {l.name || tr("Line {i}", { i: i + 1 })}
          </button>
        ))}
        <button
          type="button"
          className="btn min-h-11"
          onClick={() => {
            set([...lines, { ...freshLine(), way: line.way, widthM: line.widthM }]);
            setAt(lines.length);
          }}
        >
          <Plus size={18} aria-hidden="true" /> {tr("Next line")}
        </button>
      </div>
      <LineFields key={k} line={line} path={path} put={put} halfway={halfway} setHalfway={setHalfway} />
      <p className="mt-3 text-lg" role="status" aria-live="polite">
        {trNodes("{b}: {reading} along the edge, {startM} along the line.{reading2}", {
          b: (
            <b>
              {tr("Placement {placement}, reading {reading} of {count}", {
                placement: where.placement + 1,
                reading: where.reading + 1,
                count,
              })}
            </b>
          ),
          reading: m(where.reading * spacingM),
          startM: m(where.startM + where.reading * spacingM),
          reading2:
            where.reading === 0 &&
            where.placement > 0 &&
            tr(" Move the edge on: it begins at {startM} now.", { startM: m(where.startM) }),
        })}
      </p>
      <Keypad last={last} press={press} back={() => put(back(line))} />
      <table className="table-plain mt-3 max-w-3xl text-sm" aria-label={tr("Gaps of this line, mm")}>
        <tbody>
          {line.placements.map((p, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: placements have no other identity than their order
            <tr key={i}>
              <th className="w-28 font-normal whitespace-nowrap">{tr("from {startM}", { startM: m(p.startM) })}</th>
              <td>{p.gapsMM.map((g) => g ?? "–").join(" · ") || tr("nothing read yet")}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <FieldError name="lines" />
      {line.placements.map((_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: placements have no other identity than their order
        <FieldError key={i} name={`${path}.placements[${i}].gapsMM`} />
      ))}
      {lines.length > 1 && (
        <button
          type="button"
          className="btn btn-ghost mt-2 min-h-11"
          onClick={() => {
            set(lines.filter((_, i) => i !== k));
            setAt(Math.max(0, k - 1));
          }}
        >
          <Trash2 size={18} aria-hidden="true" /> {tr("Remove this line")}
        </button>
      )}
    </div>
  );
}

/** Where a line runs and how the edge is moved along it. */
function LineFields({
  line,
  path,
  put,
  halfway,
  setHalfway,
}: {
  line: Line;
  path: string;
  put: (l: Line) => void;
  halfway: boolean;
  setHalfway: (v: boolean) => void;
}) {
  const [knuckles, setKnuckles] = useState<string | null>(null);
  return (
    <div className="mt-3 grid max-w-4xl grid-cols-2 gap-3 md:grid-cols-5">
      <TextField
        name={`${path}.name`}
        label={tr("Where this line runs")}
        hint={tr("such as a hand below the rail, from frame 2")}
        value={line.name}
        onChange={(name) => put({ ...line, name })}
      />
      <Choice
        name={`${path}.way`}
        label={tr("It runs")}
        value={line.way}
        onChange={(way) => put({ ...line, way })}
        options={[
          { value: "along", label: tr("along her") },
          { value: "across", label: tr("across, up and down") },
          { value: "diagonal", label: tr("diagonally") },
        ]}
      />
      <NumberField
        name={`${path}.widthM`}
        label={tr("Stands for a width of")}
        unit="m"
        value={line.widthM}
        onChange={(v) => put({ ...line, widthM: v ?? Number.NaN })}
      />
      <TextField
        name={`${path}.breaks`}
        label={tr("Knuckles at readings")}
        hint={tr("counted along the line, such as 5 12")}
        value={knuckles ?? (line.breaks ?? []).map((b) => b + 1).join(" ")}
        onChange={(t) => {
          setKnuckles(t);
          put({ ...line, breaks: places(t).filter((b) => b >= 0) });
        }}
      />
      <Choice
        name="overlap"
        label={tr("The edge is moved on by")}
        hint={halfway ? tr("overlapping: tells how the placements tilt") : tr("end to end: leaves their tilt unknown")}
        value={halfway ? "half" : "whole"}
        onChange={(v) => setHalfway(v === "half")}
        options={[
          { value: "half", label: tr("half of it") },
          { value: "whole", label: tr("all of it") },
        ]}
      />
    </div>
  );
}

/** A press a reading: touching, the same again, one of the usual gaps, or one that is typed. */
function Keypad({ last, press, back }: { last?: Gap; press: (gap: Gap) => void; back: () => void }) {
  const [typed, setTyped] = useState("");
  const send = () => {
    const v = readNumber(typed);
    if (Number.isNaN(v)) return;
    press(v);
    setTyped("");
  };
  return (
    <fieldset className="mt-2 grid max-w-xl grid-cols-4 gap-2" aria-label={tr("Gap, mm")}>
      <button type="button" className="btn btn-primary col-span-2 min-h-14 text-lg" onClick={() => press(0)}>
        {tr("touching")}
      </button>
      <button type="button" className="btn min-h-14" disabled={last === undefined} onClick={() => press(last ?? null)}>
        {tr("same")}
      </button>
      <button type="button" className="btn min-h-14" onClick={() => press(null)}>
        {tr("not read")}
      </button>
      {KEYS.map((mm) => (
        <button key={mm} type="button" className="btn min-h-14 text-lg" onClick={() => press(mm)}>
          {mm}
        </button>
      ))}
      <input
        className="input col-span-2 min-h-14 border-base-content/60 bg-(--sheet) text-lg"
        inputMode="decimal"
        aria-label={tr("Another gap, mm")}
        placeholder={tr("another, mm")}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== "Enter") return;
          e.preventDefault();
          send();
        }}
      />
      <button type="button" className="btn min-h-14" disabled={Number.isNaN(readNumber(typed))} onClick={send}>
        {tr("take it")}
      </button>
      <button type="button" className="btn min-h-14" aria-label={tr("Take the last reading back")} onClick={back}>
        <ChevronLeft size={22} aria-hidden="true" /> {tr("back")}
      </button>
    </fieldset>
  );
}
