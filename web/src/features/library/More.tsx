import type { Schemas } from "../../api/client";
import { useMeta } from "../../api/queries";
import { Check, Choice, NumberField, TextField } from "../../ui/Form";
import type { Draft } from "./draft";
import { RecoatFields } from "./RecoatFields";

type Sheet = Schemas["ProductSheet"];

import { tr } from "../../words/words";
import { TableField } from "./TableField";

type Fields = { d: Draft; set: (d: Draft) => void };
type Line = { key: keyof Draft; label: string; unit?: string; hint?: string };

function Numbers({ d, set, lines }: Fields & { lines: Line[] }) {
  return lines.map((l) => (
    <NumberField
      key={l.key}
      name={l.key}
      label={l.label}
      unit={l.unit ?? ""}
      hint={l.hint}
      value={d[l.key] as number | undefined}
      onChange={(v) => set({ ...d, [l.key]: v })}
    />
  ));
}

function Texts({ d, set, lines }: Fields & { lines: Line[] }) {
  return lines.map((l) => (
    <TextField
      key={l.key}
      name={l.key}
      label={l.label}
      hint={l.hint}
      value={(d[l.key] as string | undefined) ?? ""}
      onChange={(v) => set({ ...d, [l.key]: v })}
    />
  ));
}

/** Binder, edition and date of the sheet. */
export function EditionFields({ d, set }: Fields) {
  const binders = useMeta().data?.binders ?? [];
  return (
    <>
      <Choice
        name="binder"
        label={tr("Binder")}
        hint={tr("what the intercoat rules go by")}
        value={d.binder ?? ""}
        onChange={(binder) => set({ ...d, binder: binder as Sheet["binder"] })}
        options={["", ...binders].map((b) => ({ value: b, label: b || tr("not stated") }))}
      />
      <Texts
        d={d}
        set={set}
        lines={[
          { key: "edition", label: tr("Edition"), hint: tr("as printed on it") },
          { key: "sheetDate", label: tr("Date of the sheet"), hint: tr("such as 2026-03-01") },
        ]}
      />
    </>
  );
}

/** What limits one coat, and the whole film. */
export function LayFields(p: Fields) {
  return (
    <Numbers
      {...p}
      lines={[
        { key: "leastTotalUm", label: tr("Least total dry film"), unit: "µm" },
        { key: "hidingUm", label: tr("Hides the ground at"), unit: "µm", hint: tr("dry") },
        { key: "sagUprightUm", label: tr("Sags, upright, above"), unit: "µm", hint: tr("wet") },
        { key: "sagOverheadUm", label: tr("Sags, overhead, above"), unit: "µm", hint: tr("wet") },
        { key: "shrinkagePct", label: tr("Shrinks"), unit: "%", hint: tr("of a solvent-free film") },
        { key: "maxPassMM", label: tr("Filler, one pass at most"), unit: "mm" },
      ]}
    />
  );
}

/** Loss by method, where the sheet states its own. */
export function LossFields({ d, set }: Fields) {
  const methods = useMeta().data?.methods ?? [];
  const loss = d.lossPct ?? {};
  return (
    <details className="mt-3">
      <summary className="linked w-fit min-h-11 text-sm">{tr("Loss this sheet states")}</summary>
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-3 lg:grid-cols-4">
        {methods
          .filter((m) => d.methods.includes(m.key))
          .map((m) => (
            <NumberField
              key={m.key}
              name={`lossPct.${m.key}`}
              label={tr("Loss, {name}", { name: m.name })}
              unit="%"
              hint={tr("else the usual for the method")}
              value={loss[m.key]}
              onChange={(v) => {
                const { [m.key]: _, ...rest } = loss;
                set({ ...d, lossPct: v === undefined ? rest : { ...rest, [m.key]: v } });
              }}
            />
          ))}
      </div>
    </details>
  );
}

/** Thinner, cleaner, tools, hardener dosage and keeping. */
export function InUseFields({ d, set }: Fields) {
  return (
    <div className="mt-4 grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
      <Texts
        d={d}
        set={set}
        lines={[
          { key: "thinnerName", label: tr("Its thinner") },
          { key: "cleanerName", label: tr("Clean tools with") },
          { key: "toolsSuit", label: tr("Tools that suit") },
          { key: "toolsSpoil", label: tr("Tools it spoils") },
        ]}
      />
      <Numbers
        d={d}
        set={set}
        lines={[
          { key: "shelfLifeMonths", label: tr("Keeps, unopened"), unit: "months" },
          { key: "potMassKg", label: tr("Pot life is for a pot of"), unit: "kg" },
        ]}
      />
      <TableField
        name="doses"
        label={tr("Hardener by weight, where the sheet doses by temperature")}
        columns={[
          { key: "tempC", unit: "°C" },
          { key: "pct", unit: "%" },
        ]}
        rows={d.doses ?? []}
        onChange={(rows) => set({ ...d, doses: rows as Schemas["ProductDose"][] })}
      />
    </div>
  );
}

const DOES: [keyof Draft, string, string?][] = [
  ["strongSolvent", tr("Strong solvents"), tr("lift one-part paint under it")],
  ["copper", tr("Holds copper"), tr("as metal or oxide")],
  ["zinc", tr("Zinc-rich"), tr("for blasted steel")],
  ["blushes", tr("Blushes"), tr("wash and dull it before the next coat")],
  ["porous", tr("Porous film"), tr("drinks; seal it")],
  ["airInhibited", tr("Stays tacky in air"), tr("needs wax or film to harden")],
  ["waxed", tr("Waxed"), tr("the wax comes off before a recoat")],
  ["noSolventWipe", tr("No solvent wipe"), tr("the sheet forbids it")],
  ["needsCover", tr("Must be covered"), tr("the sun harms it")],
  ["underwater", tr("Stands under water for good")],
];

/** What a product does, in words. */
export const doing = (d: Draft) =>
  DOES.filter(([key]) => d[key])
    .map(([, label]) => label.toLowerCase())
    .join(", ") || tr("nothing out of the ordinary");

/** What a product does to its neighbours, and how it wears. */
export function DoesFields({ d, set }: Fields) {
  return (
    <>
      <div className="grid gap-x-4 gap-y-1 sm:grid-cols-2 lg:grid-cols-3">
        {DOES.map(([key, label, hint]) => (
          <Check
            key={key}
            name={key}
            label={label}
            hint={hint}
            value={(d[key] as boolean | undefined) ?? false}
            onChange={(v) => set({ ...d, [key]: v })}
          />
        ))}
      </div>
      <div className="mt-3 grid grid-cols-2 gap-4 sm:grid-cols-3 lg:grid-cols-4">
        <Choice
          name="humidity"
          label={tr("Damp air")}
          value={d.humidity ?? ""}
          onChange={(humidity) => set({ ...d, humidity })}
          options={[
            { value: "", label: tr("does not bear on it") },
            { value: "waterborne", label: tr("slows its drying: waterborne") },
            { value: "moisture-cured", label: tr("quickens its cure: moisture-cured") },
          ]}
        />
        <Numbers
          d={d}
          set={set}
          lines={[
            {
              key: "uvPerUm",
              label: tr("Ultraviolet absorbance"),
              unit: "per µm",
              hint: tr("of a clear coat, base e"),
            },
            { key: "launchMaxH", label: tr("Launch within"), unit: "h", hint: tr("of the last coat") },
            { key: "polishUmYear", label: tr("Wears away"), unit: "µm/yr" },
            { key: "polishUm1000NM", label: tr("Wears per 1000 nm run"), unit: "µm" },
          ]}
        />
      </div>
    </>
  );
}

/** Grades of a hardener, each with limits and hours of its own; what is left out is not known for it. */
export function GradeFields({ d, set }: Fields) {
  const grades = d.grades ?? [];
  const edit = (i: number, g: Partial<Schemas["ProductGrade"]>) =>
    set({ ...d, grades: grades.map((x, k) => (k === i ? { ...x, ...g } : x)) });
  return (
    <>
      {grades.map((g, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: grades have no other identity than their order
        <div key={i} className="rule-b py-3">
          <div className="grid grid-cols-2 items-end gap-4 sm:grid-cols-4">
            <TextField
              name={`grades[${i}].name`}
              label={tr("Grade")}
              value={g.name}
              onChange={(name) => edit(i, { name })}
            />
            <NumberField
              name={`grades[${i}].minCureC`}
              label={tr("Cures above")}
              unit="°C"
              value={g.minCureC}
              onChange={(v) => edit(i, { minCureC: v })}
            />
            <NumberField
              name={`grades[${i}].airMinC`}
              label={tr("Air, least")}
              unit="°C"
              value={g.airMinC}
              onChange={(v) => edit(i, { airMinC: v })}
            />
            <NumberField
              name={`grades[${i}].surfaceMinC`}
              label={tr("Surface, least")}
              unit="°C"
              value={g.surfaceMinC}
              onChange={(v) => edit(i, { surfaceMinC: v })}
            />
            <button
              type="button"
              className="linked mb-3 w-fit text-sm"
              onClick={() => set({ ...d, grades: grades.filter((_, k) => k !== i) })}
            >
              {tr("remove this grade")}
            </button>
          </div>
          <div className="mt-3 grid gap-6 sm:grid-cols-3">
            {(
              [
                ["potLife", tr("Pot life")],
                ["touchDry", tr("Touch-dry")],
                ["tackFree", tr("Tack-free")],
                ["sandable", tr("Sandable")],
                ["throughDry", tr("Through-dry")],
                ["immersion", tr("Immersion")],
              ] as const
            ).map(([key, label]) => (
              <TableField
                key={key}
                name={`grades[${i}].${key}`}
                label={label}
                rows={g[key] ?? []}
                onChange={(rows) => edit(i, { [key]: rows as Schemas["CurePoint"][] })}
              />
            ))}
          </div>
          <RecoatFields
            name={`grades[${i}].recoat`}
            windows={g.recoat ?? []}
            onChange={(recoat) => edit(i, { recoat })}
          />
        </div>
      ))}
      <button
        type="button"
        className="btn mt-3 min-h-11"
        onClick={() => set({ ...d, grades: [...grades, { name: "", minCureC: d.minCureC ?? 0 }] })}
      >
        {tr("Add a grade")}
      </button>
    </>
  );
}
