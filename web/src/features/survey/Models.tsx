import { useContext, useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { upload } from "../../api/upload";
import { EditForm } from "../../ui/EditForm";
import { Check, Choice, Errors, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { Remove } from "../../ui/Remove";
import { Said } from "../../ui/Sentence";
import { type Edition, useEdition } from "../../ui/useEdition";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";

type Model = Schemas["Model"];
type Placing = Schemas["ModelEdit"];

const AXES = ["+x", "-x", "+y", "-y", "+z", "-z"] as const;
const MAX_BYTES = 128 * 2 ** 20;
const FRESH: Placing = { name: "", draws: true, unit: "m", up: "+z", forward: "+x", waterlineM: 0, bootTopM: 0 };

const formatOf = (name: string) => {
  const end = name.toLowerCase().split(".").pop();
  return end === "stl" || end === "obj" ? end : "offsets";
};

/** The 3-D files and tables of offsets of a boat: what they measure, how they lie on her, and a form for another one. */
export function Models({ boatId, models }: { boatId: string; models: Model[] }) {
  const [placing, setPlacing] = useState<Placing>(FRESH);
  const [file, setFile] = useState<File | null>(null);
  const [sent, setSent] = useState<number | null>(null);
  const [local, setLocal] = useState<Record<string, string>>({});
  const add = useChange(
    ["surfaces"],
    async (f: File) => {
      setSent(0);
      try {
        return await upload<Model>(`/api/boats/${boatId}/models`, { ...placing, format: formatOf(f.name) }, f, setSent);
      } finally {
        setSent(null);
      }
    },
    () => {
      setFile(null);
      setPlacing(FRESH);
    },
  );
  return (
    <section className="mt-2 mb-8" data-testid="models">
      <h2 className="mb-2 text-lg">{tr("3-D files and tables of offsets")}</h2>
      {models.map((m) => (
        <ModelRow key={m.id} model={m} />
      ))}
      <Errors.Provider value={{ ...add.error?.fields, ...local }}>
        <form
          className="mt-4 max-w-5xl border border-base-300 p-4"
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            const bad = unsendable(placing);
            if (!file) bad.file = tr("choose a file");
            else if (file.size > MAX_BYTES)
              bad.file = tr("this file has {size} MB; at most 128 MB are taken", {
                size: Math.round(file.size / 2 ** 20),
              });
            setLocal(bad);
            add.reset();
            if (file && Object.keys(bad).length === 0) add.mutate(file);
          }}
        >
          <p className="quiet mb-3 max-w-3xl text-sm">
            {tr(
              "STL (ASCII or binary), OBJ, or a table of offsets as CSV: a header with the waterlines’ heights, then a line a station with its distance from aft and its half-breadths; a column “keel” gives the keel’s height.",
            )}
          </p>
          <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-4" data-field="file">
            <div>
              <label htmlFor="model-file" className="text-sm font-semibold">
                {tr("File")}
              </label>
              <input
                id="model-file"
                aria-label={tr("Model file")}
                type="file"
                accept=".stl,.obj,.csv"
                className="file-input mt-1 min-h-11 w-full bg-(--sheet)"
                onChange={(e) => {
                  const f = e.target.files?.[0] ?? null;
                  setFile(f);
                  if (f && !placing.name) setPlacing({ ...placing, name: f.name });
                }}
              />
              {(local.file ?? add.error?.fields.file) && (
                <p role="alert" className="text-sm text-error">
                  <Said words={local.file ?? add.error?.fields.file ?? ""} />
                </p>
              )}
            </div>
            <PlacingFields placing={placing} set={setPlacing} />
          </div>
          <div className="mt-3 flex flex-col gap-2">
            <Refusal error={add.error} />
            {sent !== null && (
              <p role="status" className="flex items-center gap-3">
                <progress className="progress progress-primary w-60" value={sent < 1 ? sent : undefined} max={1} />
                {sent < 1 ? tr("sending, {x} %", { x: Math.round(100 * sent) }) : tr("reading and measuring…")}
              </p>
            )}
            <div>
              <button type="submit" className="btn btn-primary min-h-11" disabled={add.isPending}>
                {tr("Measure it")}
              </button>
            </div>
          </div>
        </form>
      </Errors.Provider>
    </section>
  );
}

function PlacingFields({ placing, set }: { placing: Placing; set: (p: Placing) => void }) {
  const axis = (k: "up" | "forward", label: string) => (
    <Choice
      name={k}
      label={label}
      value={placing[k]}
      onChange={(v) => set({ ...placing, [k]: v })}
      options={AXES.map((a) => ({ value: a, label: a.replace("-", "−") }))}
    />
  );
  const asked = Object.keys(useContext(Errors)).some((k) => k === "unit" || k === "up" || k === "forward");
  return (
    <>
      <TextField
        name="name"
        label={tr("Model name")}
        value={placing.name}
        onChange={(name) => set({ ...placing, name })}
      />
      <Choice
        name="unit"
        label={tr("Unit of the file")}
        value={placing.unit}
        onChange={(unit) => set({ ...placing, unit })}
        options={(["m", "cm", "mm", "in", "ft"] as const).map((u) => ({ value: u, label: u }))}
      />
      {axis("up", tr("Up is"))}
      {axis("forward", tr("Forward is"))}
      <NumberField
        name="waterlineM"
        label={tr("Waterline above the file's origin")}
        unit="m"
        value={placing.waterlineM}
        onChange={(v) => set({ ...placing, waterlineM: v ?? 0 })}
      />
      <NumberField
        name="bootTopM"
        label={tr("Boot-top, height above the waterline")}
        hint={tr("0: none")}
        unit="m"
        value={placing.bootTopM ?? 0}
        onChange={(v) => set({ ...placing, bootTopM: v ?? 0 })}
      />
      <Check
        name="draws"
        label={tr("Draw the boat from it")}
        hint={tr("if it is her whole hull")}
        value={placing.draws}
        onChange={(draws) => set({ ...placing, draws })}
      />
      {(asked || placing.sure) && (
        <Check
          name="sure"
          label={tr("It is right as it is")}
          hint={tr("size and axes, though they do not suit her")}
          value={placing.sure ?? false}
          onChange={(sure) => set({ ...placing, sure })}
        />
      )}
    </>
  );
}

const placingOf = (m?: Model): Placing => {
  const { name, draws, sure, unit, up, forward, waterlineM, bootTopM } = m as Model;
  return { name, draws, sure, unit, up, forward, waterlineM, bootTopM };
};

function ModelRow({ model }: { model: Model }) {
  const [editing, setEditing] = useState(false);
  const form = useEdition<Model, Placing>(model, placingOf);
  const save = useChange(
    ["surfaces"],
    (sent: Edition<Placing>) => ok(api.PUT("/api/models/{id}", { params: { path: { id: model.id } }, body: sent })),
    (m) => {
      form.take(m);
      setEditing(false);
    },
  );
  const r = model.report;
  const zones = Object.entries(model.areas.zones).filter(([, h]) => h.portM2 + h.starboardM2 > 0);
  return (
    <div className="rule-t py-3">
      <p>
        <b>{model.name}</b>
        {model.draws && <span className="quiet"> {tr("– the boat is drawn from it")}</span>}
      </p>
      <p className="text-sm">
        {trNodes("{sizeXM} × {sizeYM} × {sizeZM}, {facets} facets, {totalM2} in all", {
          sizeXM: <Quantity value={r.sizeXM} unit="m" />,
          sizeYM: <Quantity value={r.sizeYM} unit="m" />,
          sizeZM: <Quantity value={r.sizeZM} unit="m" />,
          facets: r.facets,
          totalM2: <Quantity value={model.areas.totalM2} unit="m²" />,
        })}
        {zones.map(([z, h]) => (
          <span key={z}>
            ; {z} <Quantity value={h.portM2 + h.starboardM2} unit="m²" />
          </span>
        ))}
        .
      </p>
      {model.findings.map((f) => (
        <p key={f} className="border-l-4 border-warning pl-3 text-sm">
          {f}
        </p>
      ))}
      {editing ? (
        <EditForm
          form={form}
          save={save}
          says={tr("Measure it anew")}
          cancel={() => setEditing(false)}
          className="mt-2 max-w-5xl"
        >
          <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
            <PlacingFields placing={form.edit} set={form.set} />
          </div>
        </EditForm>
      ) : (
        <div className="flex gap-5">
          <button type="button" className="linked mt-3 text-sm" onClick={() => setEditing(true)}>
            {tr("place it otherwise")}
          </button>
          <Remove
            of={["surfaces"]}
            what={model.name}
            label={tr("delete this model")}
            remove={() => ok(api.DELETE("/api/models/{id}", { params: { path: { id: model.id } } }))}
            done={() => {}}
          />
        </div>
      )}
    </div>
  );
}
