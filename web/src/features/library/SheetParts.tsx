import type { Schemas } from "../../api/client";
import { useMeta } from "../../api/queries";
import { FieldChart } from "../../ui/FieldChart";
import { AreaField, Check, Choice, NumberField, TextField } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";
import { Curve } from "./Curve";
import { EditionFields, InUseFields, LayFields, LossFields } from "./More";
import { Part } from "./Part";
import { TableField } from "./TableField";
import type { SheetForm } from "./useSheet";

type Props = { form: SheetForm };

const GRID = "grid grid-cols-2 gap-4 sm:grid-cols-3 lg:grid-cols-4";

const TABLES = [
  ["potLife", tr("Pot life")],
  ["touchDry", tr("Touch-dry")],
  ["tackFree", tr("Tack-free")],
  ["sandable", tr("Sandable")],
  ["throughDry", tr("Through-dry")],
  ["immersion", tr("Immersion")],
] as const;

/** Name, kind and where the figures come from. */
export function WhatItIs({ form }: Props) {
  const { at } = form;
  const meta = useMeta().data;
  return (
    <Part title={tr("What it is")}>
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField {...at("name")} label={tr("Name")} />
        <Choice
          {...at("kind")}
          label={tr("Kind")}
          options={(meta?.kinds ?? []).map((k) => ({ value: k.kind, label: k.name }))}
        />
        <TextField {...at("chemistry")} label={tr("Chemistry")} />
        <TextField {...at("colour")} label={tr("Colour")} />
        <TextField {...at("source")} label={tr("Sheet")} hint={tr("its title")} />
        <EditionFields form={form} />
        <Check {...at("example")} label={tr("Example figures")} hint={tr("take this off once they are the sheet's")} />
      </div>
    </Part>
  );
}

/** How thick it is laid, and how. */
export function Film({ form }: Props) {
  const meta = useMeta().data;
  const { at, set, edit: d } = form;
  return (
    <Part title={tr("Film")}>
      <div className={GRID}>
        <NumberField
          {...at("volumeSolidsPct")}
          label={tr("Volume solids")}
          unit="%"
          hint={tr("of the mixed product")}
        />
        <NumberField {...at("film.minUm")} label={tr("Dry film a coat, least")} unit="µm" />
        <NumberField {...at("film.typicalUm")} label={tr("Dry film, typical")} unit="µm" />
        <NumberField {...at("film.maxUm")} label={tr("Dry film, greatest")} unit="µm" />
        <LayFields form={form} />
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
                    methods: e.target.checked ? [...d.methods, m.key] : d.methods.filter((k) => k !== m.key),
                  })
                }
              />
              {m.name}
            </label>
          ))}
        </div>
      </fieldset>
      <LossFields form={form} />
    </Part>
  );
}

/** What is mixed with what. */
export function Mixing({ form }: Props) {
  const { at } = form;
  return (
    <Part title={tr("Mixing")} note={tr("Zero parts of hardener and base mean one-part.")}>
      <div className={GRID}>
        <NumberField {...at("ratioByVolume.base")} label={tr("By volume, base")} unit="parts" />
        <NumberField {...at("ratioByVolume.hardener")} label={tr("By volume, hardener")} unit="parts" />
        <NumberField {...at("ratioByWeight.base")} label={tr("By weight, base")} unit="parts" />
        <NumberField {...at("ratioByWeight.hardener")} label={tr("By weight, hardener")} unit="parts" />
        <NumberField {...at("baseKgL")} label={tr("Density of base")} unit="kg/L" />
        <NumberField {...at("hardenerKgL")} label={tr("Density of hardener")} unit="kg/L" />
        <NumberField {...at("inductionMin")} label={tr("Induction")} unit="min" />
        <NumberField {...at("thinnerMaxPct")} label={tr("Thinner, at most")} unit="%" />
      </div>
      <InUseFields form={form} />
    </Part>
  );
}

/** The air and the surface that it may be laid in. */
export function FieldOfApplication({ form }: Props) {
  const { show } = useSettings();
  const spread = show(3, "K", 0);
  const { at, edit: d } = form;
  const corners = at("limits.polygon");
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
        <NumberField {...at("limits.airMinC")} label={tr("Air from")} unit="°C" />
        <NumberField {...at("limits.airMaxC")} label={tr("Air to")} unit="°C" />
        <NumberField {...at("limits.surfaceMinC")} label={tr("Surface from")} unit="°C" />
        <NumberField {...at("limits.surfaceMaxC")} label={tr("Surface to")} unit="°C" />
        <NumberField {...at("limits.rhMaxPct")} label={tr("Humidity, at most")} unit="%" />
        <NumberField {...at("limits.spreadMinK")} label={tr("Above dew point, at least")} unit="K" />
        <NumberField {...at("limits.windMaxMS")} label={tr("Wind when spraying")} unit="m/s" />
        <NumberField {...at("minCureC")} label={tr("Cures above")} unit="°C" />
        <NumberField {...at("limits.holdH")} label={tr("Must hold after laying")} unit="h" />
        <NumberField {...at("limits.rainFreeH")} label={tr("Must stay dry after laying")} unit="h" />
      </div>
      <div className="mt-3 grid gap-6 lg:grid-cols-[1fr_2fr]">
        <TableField
          {...corners}
          label={tr("Printed temperature × humidity field, corner by corner")}
          columns={[
            { key: "tempC", unit: "°C" },
            { key: "rhPct", unit: "%" },
          ]}
        />
        <FieldChart
          limits={d.limits as Schemas["ProductLimits"]}
          tracks={[]}
          onAdd={(c) => corners.onChange([...(corners.value ?? []), c])}
        />
      </div>
    </Part>
  );
}

/** How long everything takes. */
export function HoursAtTemperatures({ form: { at, edit: d } }: Props) {
  return (
    <Part title={tr("Hours at temperatures")} note={tr("Two rows or more, temperatures rising.")}>
      <Curve lines={TABLES.map(([key, label]) => ({ label, points: d[key] ?? [] }))} />
      <div className="grid gap-6 sm:grid-cols-2 lg:grid-cols-3">
        {TABLES.map(([key, label]) => (
          <TableField key={key} {...at(key)} label={label} />
        ))}
      </div>
      <div className="mt-3">
        <Check
          {...at("onePointTables")}
          label={tr("Accept tables of one row")}
          hint={tr("an activation energy of 50 kJ/mol is then assumed, a rule of thumb")}
        />
      </div>
    </Part>
  );
}

/** What is shown before the tin is opened, and what one wants to know again. */
export function CautionsAndNotes({ form: { at } }: Props) {
  const cautions = at("cautions");
  return (
    <Part title={tr("Cautions and notes")}>
      <div className="grid gap-4 sm:grid-cols-2">
        <AreaField
          {...cautions}
          label={tr("Cautions")}
          hint={tr("one a line; shown before the tin is opened")}
          rows={4}
          value={cautions.value.join("\n")}
          onChange={(t) => cautions.onChange(t.split("\n"))}
        />
        <AreaField {...at("notes")} label={tr("Notes")} rows={4} />
      </div>
    </Part>
  );
}
