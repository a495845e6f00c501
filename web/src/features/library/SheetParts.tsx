import type { Schemas } from "../../api/client";
import { useMeta } from "../../api/queries";
import { FieldChart } from "../../ui/FieldChart";
import { AreaField, Check, Choice, NumberField, TextField } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";
import { Curve } from "./Curve";
import type { Draft, SheetData } from "./draft";
import { EditionFields, InUseFields, LayFields, LossFields } from "./More";
import { Part } from "./Part";
import { TableField } from "./TableField";

type Props = { d: Draft; set: (d: Draft) => void };

const GRID = "grid grid-cols-2 gap-4 sm:grid-cols-3 lg:grid-cols-4";

/** The number fields of a sheet by their path. */
function numbersOf({ d, set }: Props) {
  const num = (key: keyof SheetData, label: string, unit: string, hint?: string) => (
    <NumberField
      name={key}
      label={label}
      unit={unit}
      hint={hint}
      value={d[key] as number | undefined}
      onChange={(v) => set({ ...d, [key]: v })}
    />
  );
  const limit = (key: keyof Schemas["ProductLimits"], label: string, unit: string, hint?: string) => (
    <NumberField
      name={`limits.${key}`}
      label={label}
      unit={unit}
      hint={hint}
      value={d.limits[key] as number | undefined}
      onChange={(v) => set({ ...d, limits: { ...d.limits, [key]: v } })}
    />
  );
  const film = (key: keyof SheetData["film"], label: string) => (
    <NumberField
      name={`film.${key}`}
      label={label}
      unit="µm"
      value={d.film[key]}
      onChange={(v) => set({ ...d, film: { ...d.film, [key]: v } as SheetData["film"] })}
    />
  );
  const ratio = (key: "ratioByVolume" | "ratioByWeight", part: "base" | "hardener", label: string) => (
    <NumberField
      name={`${key}.${part}`}
      label={label}
      unit="parts"
      value={d[key][part]}
      onChange={(v) => set({ ...d, [key]: { ...d[key], [part]: v } as Schemas["ProductRatio"] })}
    />
  );
  return { num, limit, film, ratio };
}

const TABLES = [
  ["potLife", tr("Pot life")],
  ["touchDry", tr("Touch-dry")],
  ["tackFree", tr("Tack-free")],
  ["sandable", tr("Sandable")],
  ["throughDry", tr("Through-dry")],
  ["immersion", tr("Immersion")],
] as const;

/** Name, kind and where the figures come from. */
export function WhatItIs({ d, set }: Props) {
  const meta = useMeta().data;
  return (
    <Part title={tr("What it is")}>
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField name="name" label={tr("Name")} value={d.name} onChange={(name) => set({ ...d, name })} />
        <Choice
          name="kind"
          label={tr("Kind")}
          value={d.kind}
          onChange={(kind) => set({ ...d, kind: kind as Draft["kind"] })}
          options={(meta?.kinds ?? []).map((k) => ({ value: k.kind, label: k.name }))}
        />
        <TextField
          name="chemistry"
          label={tr("Chemistry")}
          value={d.chemistry ?? ""}
          onChange={(chemistry) => set({ ...d, chemistry })}
        />
        <TextField
          name="colour"
          label={tr("Colour")}
          value={d.colour ?? ""}
          onChange={(colour) => set({ ...d, colour })}
        />
        <TextField
          name="source"
          label={tr("Sheet")}
          hint={tr("its title")}
          value={d.source ?? ""}
          onChange={(source) => set({ ...d, source })}
        />
        <EditionFields d={d} set={set} />
        <Check
          name="example"
          label={tr("Example figures")}
          hint={tr("take this off once they are the sheet's")}
          value={d.example ?? false}
          onChange={(example) => set({ ...d, example })}
        />
      </div>
    </Part>
  );
}

/** How thick it is laid, and how. */
export function Film({ d, set }: Props) {
  const meta = useMeta().data;
  const { num, film } = numbersOf({ d, set });
  return (
    <Part title={tr("Film")}>
      <div className={GRID}>
        {num("volumeSolidsPct", tr("Volume solids"), "%", tr("of the mixed product"))}
        {film("minUm", tr("Dry film a coat, least"))}
        {film("typicalUm", tr("Dry film, typical"))}
        {film("maxUm", tr("Dry film, greatest"))}
        <LayFields d={d} set={set} />
      </div>
      <fieldset className="mt-3">
        <legend className="text-sm font-semibold">{tr("Laid by")}</legend>
        <div className="flex flex-wrap gap-x-5">
          {(meta?.methods ?? []).map((m) => (
            <label key={m.key} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="checkbox border-base-content/60"
                checked={d.methods.includes(m.key)}
                onChange={(e) =>
                  set({
                    ...d,
                    methods: e.target.checked ? [...d.methods, m.key] : d.methods.filter((k) => k !== m.key),
                  })
                }
              />
              {m.name}
            </label>
          ))}
        </div>
      </fieldset>
      <LossFields d={d} set={set} />
    </Part>
  );
}

/** What is mixed with what. */
export function Mixing({ d, set }: Props) {
  const { num, ratio } = numbersOf({ d, set });
  return (
    <Part title={tr("Mixing")} note={tr("Zero parts of hardener and base mean one-part.")}>
      <div className={GRID}>
        {ratio("ratioByVolume", "base", tr("By volume, base"))}
        {ratio("ratioByVolume", "hardener", tr("By volume, hardener"))}
        {ratio("ratioByWeight", "base", tr("By weight, base"))}
        {ratio("ratioByWeight", "hardener", tr("By weight, hardener"))}
        {num("baseKgL", tr("Density of base"), "kg/L")}
        {num("hardenerKgL", tr("Density of hardener"), "kg/L")}
        {num("inductionMin", tr("Induction"), "min")}
        {num("thinnerMaxPct", tr("Thinner, at most"), "%")}
      </div>
      <InUseFields d={d} set={set} />
    </Part>
  );
}

/** The air and the surface that it may be laid in. */
export function FieldOfApplication({ d, set }: Props) {
  const { show } = useSettings();
  const spread = show(3, "K", 0);
  const { num, limit } = numbersOf({ d, set });
  return (
    <Part
      title={tr("Field of application")}
      note={tr(
        "Leave a limit empty that the sheet does not set. The dew-point spread is then {text} {unit} (ISO 8502-4).",
        {
          text: spread.text,
          unit: spread.unit,
        },
      )}
    >
      <div className={GRID}>
        {limit("airMinC", tr("Air from"), "°C")}
        {limit("airMaxC", tr("Air to"), "°C")}
        {limit("surfaceMinC", tr("Surface from"), "°C")}
        {limit("surfaceMaxC", tr("Surface to"), "°C")}
        {limit("rhMaxPct", tr("Humidity, at most"), "%")}
        {limit("spreadMinK", tr("Above dew point, at least"), "K")}
        {limit("windMaxMS", tr("Wind when spraying"), "m/s")}
        {num("minCureC", tr("Cures above"), "°C")}
        {limit("holdH", tr("Must hold after laying"), "h")}
        {limit("rainFreeH", tr("Must stay dry after laying"), "h")}
      </div>
      <div className="mt-3 grid gap-6 lg:grid-cols-[1fr_2fr]">
        <TableField
          name="limits.polygon"
          label={tr("Printed temperature × humidity field, corner by corner")}
          columns={[
            { key: "tempC", unit: "°C" },
            { key: "rhPct", unit: "%" },
          ]}
          rows={d.limits.polygon ?? []}
          onChange={(rows) => set({ ...d, limits: { ...d.limits, polygon: rows as Schemas["ProductCorner"][] } })}
        />
        <FieldChart
          limits={d.limits as Schemas["ProductLimits"]}
          tracks={[]}
          onAdd={(c) => set({ ...d, limits: { ...d.limits, polygon: [...(d.limits.polygon ?? []), c] } })}
        />
      </div>
    </Part>
  );
}

/** How long everything takes. */
export function HoursAtTemperatures({ d, set }: Props) {
  return (
    <Part title={tr("Hours at temperatures")} note={tr("Two rows or more, temperatures rising.")}>
      <Curve lines={TABLES.map(([key, label]) => ({ label, points: d[key] ?? [] }))} />
      <div className="grid gap-6 sm:grid-cols-2 lg:grid-cols-3">
        {TABLES.map(([key, label]) => (
          <TableField
            key={key}
            name={key}
            label={label}
            rows={d[key] ?? []}
            onChange={(rows) => set({ ...d, [key]: rows as Schemas["CurePoint"][] })}
          />
        ))}
      </div>
      <div className="mt-3">
        <Check
          name="onePointTables"
          label={tr("Accept tables of one row")}
          hint={tr("an activation energy of 50 kJ/mol is then assumed, a rule of thumb")}
          value={d.onePointTables ?? false}
          onChange={(onePointTables) => set({ ...d, onePointTables })}
        />
      </div>
    </Part>
  );
}

/** What is shown before the tin is opened, and what one wants to know again. */
export function CautionsAndNotes({ d, set }: Props) {
  return (
    <Part title={tr("Cautions and notes")}>
      <div className="grid gap-4 sm:grid-cols-2">
        <AreaField
          name="cautions"
          label={tr("Cautions")}
          hint={tr("one a line; shown before the tin is opened")}
          rows={4}
          value={d.cautions.join("\n")}
          onChange={(t) => set({ ...d, cautions: t.split("\n") })}
        />
        <AreaField
          name="notes"
          label={tr("Notes")}
          rows={4}
          value={d.notes ?? ""}
          onChange={(notes) => set({ ...d, notes })}
        />
      </div>
    </Part>
  );
}
