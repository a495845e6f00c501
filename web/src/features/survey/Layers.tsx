import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { CutSection } from "../../ui/CutSection";
import { Choice, NumberField, TextField } from "../../ui/Form";
import { fieldsOf } from "../../ui/fieldsOf";
import { Said } from "../../ui/Sentence";
import { tr } from "../../words/words";
import { type Edit, EMPTY, type Words } from "./edit";

type Layer = Schemas["SurveyLayer"];

/** What lies on the substrate: old layers from below, what may be sanded, moisture, veneer. */
export function Layers({
  edit,
  change,
  words,
  cautions,
}: {
  edit: Edit;
  change: (e: Partial<Edit>) => void;
  words: Words;
  cautions: Schemas["MessageSpan"][][];
}) {
  const f = edit.findings;
  const [rings, setRings] = useState("");
  const set = (v: Partial<Edit["findings"]>) => change({ findings: { ...f, ...v } });
  const put = (i: number, l: Partial<Layer>) => set({ layers: f.layers.map((o, k) => (k === i ? { ...o, ...l } : o)) });
  const read = useChange(
    [],
    () => ok(api.POST("/api/rings", { body: { rings } })),
    (layers) => {
      set({ layers: [...f.layers, ...layers] });
      setRings("");
    },
  );
  // Listed as they lie: the outermost on top.
  const order = f.layers.map((_, i) => i).reverse();
  return (
    <div className="grid max-w-6xl gap-6 lg:grid-cols-[3fr_2fr]">
      <div>
        {cautions.map((c) => (
          <p key={JSON.stringify(c)} className="mb-2 border-l-4 border-warning pl-3">
            <Said words={c} />
          </p>
        ))}
        <div className="mb-3 flex flex-wrap items-end gap-2">
          <div className="grow">
            <TextField
              name="rings"
              label={tr("Rings of colour that sanding showed")}
              hint={tr("from the outermost in, such as white, grey, blue")}
              value={rings}
              onChange={setRings}
            />
          </div>
          <button
            type="button"
            className="btn mb-5 min-h-11"
            disabled={!rings.trim()}
            onClick={() => read.mutate(undefined)}
          >
            {tr("Make layers of them")}
          </button>
        </div>
        {f.layers.length === 0 && (
          <p className="quiet mb-3">
            {tr("No old layers are noted: the substrate is bare, or nobody has looked yet.")}
          </p>
        )}
        {order.map((i) => (
          <OneLayer key={i} at={i} findings={f} words={words} put={put} set={set} />
        ))}
        <div className="rule-t flex flex-wrap items-center gap-4 pt-3">
          <button
            type="button"
            className="btn min-h-11"
            onClick={() =>
              set({ layers: [...f.layers, { kind: "unknown", colour: "", um: 0, soundness: "sound", note: "" }] })
            }
          >
            <Plus size={18} aria-hidden="true" /> {tr("Add a layer on top")}
          </button>
          {f.layers.length > 0 && (
            <label className="flex min-h-11 cursor-pointer items-center gap-2">
              <input
                type="radio"
                name="stop"
                className="radio"
                checked={f.stop === 0}
                onChange={() => set({ stop: 0 })}
              />
              {tr("all may go, down to the substrate")}
            </label>
          )}
        </div>
        <MoistureAndVeneer findings={f} set={set} />
      </div>
      <div>
        <h3 className="mb-1">{tr("Cut through")}</h3>
        <CutSection
          substrate={edit.substrateNote || (words.substrates.find((s) => s.key === edit.substrate)?.name ?? "")}
          layers={f.layers.map((l, i) => ({
            product: `old ${l.kind}`,
            kind: l.kind,
            colour: l.colour,
            um: Number.isNaN(l.um) ? 0 : l.um,
            laid: true,
            known: l.um ? "" : tr("thickness not known"),
            old: true,
            keep: i < f.stop,
          }))}
        />
      </div>
    </div>
  );
}

/** One old layer of the findings, the at-th from below. */
function OneLayer({
  at: i,
  findings: f,
  words,
  put,
  set,
}: {
  at: number;
  findings: Edit["findings"];
  words: Words;
  put: (i: number, l: Partial<Layer>) => void;
  set: (v: Partial<Edit["findings"]>) => void;
}) {
  const swap = (i: number, j: number) => {
    const next = [...f.layers];
    [next[i], next[j]] = [next[j] as Layer, next[i] as Layer];
    set({ layers: next });
  };
  const l = f.layers[i] as Layer;
  const path = `findings.layers[${i}]`;
  const at = fieldsOf(l, (more) => put(i, more), path);
  return (
    <div className="rule-t grid grid-cols-2 items-end gap-2 py-3 sm:grid-cols-[1fr_1fr_7rem_1fr]">
      <Choice
        {...at("kind")}
        label={tr("Layer {i} is", { i: i + 1 })}
        options={words.layerKinds.map((k) => ({ value: k as Layer["kind"], label: k }))}
      />
      <TextField {...at("colour")} label={tr("Colour")} />
      <NumberField
        name={`${path}.um`}
        label={tr("Thickness")}
        unit="µm"
        value={l.um || undefined}
        onChange={(v) => put(i, { um: v ?? 0 })}
      />
      <Choice
        {...at("soundness")}
        label={tr("It is")}
        options={words.soundnesses.map((s) => ({ value: s as Layer["soundness"], label: s }))}
      />
      <div className="col-span-2 flex flex-wrap items-center gap-1 sm:col-span-4">
        <label className="flex min-h-11 grow cursor-pointer items-center gap-2">
          <input
            type="radio"
            name="stop"
            className="radio"
            aria-label={tr("Layer {i} must stay", { i: i + 1 })}
            checked={f.stop === i + 1}
            onChange={() => set({ stop: i + 1 })}
          />
          {tr("must stay: sand no deeper than this")}
        </label>
        <button
          type="button"
          className="btn btn-ghost min-h-11 px-2"
          aria-label={tr("Layer {i} up", { i: i + 1 })}
          disabled={i === f.layers.length - 1}
          onClick={() => swap(i, i + 1)}
        >
          <ArrowUp size={18} aria-hidden="true" />
        </button>
        <button
          type="button"
          className="btn btn-ghost min-h-11 px-2"
          aria-label={tr("Layer {i} down", { i: i + 1 })}
          disabled={i === 0}
          onClick={() => swap(i, i - 1)}
        >
          <ArrowDown size={18} aria-hidden="true" />
        </button>
        <button
          type="button"
          className="btn btn-ghost min-h-11 px-2"
          aria-label={tr("Remove layer {i}", { i: i + 1 })}
          onClick={() => set({ layers: f.layers.filter((_, k) => k !== i), stop: f.stop > i ? f.stop - 1 : f.stop })}
        >
          <Trash2 size={18} aria-hidden="true" />
        </button>
      </div>
    </div>
  );
}

function MoistureAndVeneer({
  findings: f,
  set,
}: {
  findings: Edit["findings"];
  set: (v: Partial<Edit["findings"]>) => void;
}) {
  return (
    <>
      <h3 className="mt-6 mb-2">{tr("Moisture and veneer")}</h3>
      {f.moisture.map((m, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: readings have no other identity than their order
        <div key={i} className="mb-2 grid grid-cols-[1fr_8rem_2.75rem] items-end gap-2">
          <TextField
            name={`findings.moisture[${i}].where`}
            label={tr("Reading {i}, where", { i: i + 1 })}
            value={m.where}
            onChange={(where) => set({ moisture: f.moisture.map((o, k) => (k === i ? { ...o, where } : o)) })}
          />
          <NumberField
            name={`findings.moisture[${i}].pct`}
            label={tr("Moisture")}
            unit="%"
            value={m.pct}
            onChange={(v) => set({ moisture: f.moisture.map((o, k) => (k === i ? { ...o, pct: v ?? EMPTY } : o)) })}
          />
          <button
            type="button"
            className="btn btn-ghost min-h-11 px-2"
            aria-label={tr("Remove reading {i}", { i: i + 1 })}
            onClick={() => set({ moisture: f.moisture.filter((_, k) => k !== i) })}
          >
            <Trash2 size={18} aria-hidden="true" />
          </button>
        </div>
      ))}
      <div className="flex flex-wrap items-end gap-4">
        <button
          type="button"
          className="btn min-h-11"
          onClick={() => set({ moisture: [...f.moisture, { where: "", pct: EMPTY }] })}
        >
          <Plus size={18} aria-hidden="true" /> {tr("Add a moisture reading")}
        </button>
        <div className="w-48">
          <NumberField
            name="findings.veneerMM"
            label={tr("Veneer left")}
            unit="mm"
            value={f.veneerMM || undefined}
            onChange={(v) => set({ veneerMM: v ?? 0 })}
          />
        </div>
      </div>
    </>
  );
}
