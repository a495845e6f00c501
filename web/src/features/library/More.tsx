import { useMeta } from "../../api/queries";
import { Check, Choice, NumberField, TextField } from "../../ui/Form";
import { tr } from "../../words/words";
import type { Draft } from "./draft";
import { RecoatFields } from "./RecoatFields";
import { TableField } from "./TableField";
import type { SheetForm } from "./useSheet";

type Fields = { form: SheetForm };

/** Binder, edition and date of the sheet. */
export function EditionFields({ form: { at } }: Fields) {
  const binders = useMeta().data?.binders ?? [];
  return (
    <>
      <Choice
        {...at("binder")}
        label={tr("Binder")}
        hint={tr("what the intercoat rules go by")}
        options={["", ...binders].map((b) => ({ value: b, label: b || tr("not stated") }))}
      />
      <TextField {...at("edition")} label={tr("Edition")} hint={tr("as printed on it")} />
      <TextField {...at("sheetDate")} label={tr("Date of the sheet")} hint={tr("such as 2026-03-01")} />
    </>
  );
}

/** What limits one coat, and the whole film. */
export function LayFields({ form: { at } }: Fields) {
  return (
    <>
      <NumberField {...at("leastTotalUm")} label={tr("Least total dry film")} unit="µm" />
      <NumberField {...at("hidingUm")} label={tr("Hides the ground at")} unit="µm" hint={tr("dry")} />
      <NumberField {...at("sagUprightUm")} label={tr("Sags, upright, above")} unit="µm" hint={tr("wet")} />
      <NumberField {...at("sagOverheadUm")} label={tr("Sags, overhead, above")} unit="µm" hint={tr("wet")} />
      <NumberField {...at("shrinkagePct")} label={tr("Shrinks")} unit="%" hint={tr("of a solvent-free film")} />
      <NumberField {...at("maxPassMM")} label={tr("Filler, one pass at most")} unit="mm" />
    </>
  );
}

/** Loss by method, where the sheet states its own. */
export function LossFields({ form: { edit: d, set } }: Fields) {
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
                set({ lossPct: v === undefined ? rest : { ...rest, [m.key]: v } });
              }}
            />
          ))}
      </div>
    </details>
  );
}

/** Thinner, cleaner, tools, hardener dosage and keeping. */
export function InUseFields({ form: { at } }: Fields) {
  return (
    <div className="mt-4 grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
      <TextField {...at("thinnerName")} label={tr("Its thinner")} />
      <TextField {...at("cleanerName")} label={tr("Clean tools with")} />
      <TextField {...at("toolsSuit")} label={tr("Tools that suit")} />
      <TextField {...at("toolsSpoil")} label={tr("Tools it spoils")} />
      <NumberField {...at("shelfLifeMonths")} label={tr("Keeps, unopened")} unit="months" />
      <NumberField {...at("potMassKg")} label={tr("Pot life is for a pot of")} unit="kg" />
      <TableField
        {...at("doses")}
        label={tr("Hardener by weight, where the sheet doses by temperature")}
        columns={[
          { key: "tempC", unit: "°C" },
          { key: "pct", unit: "%" },
        ]}
      />
    </div>
  );
}

const DOES = [
  ["strongSolvent", tr("Strong solvents"), tr("lift one-part paint under it")],
  ["copper", tr("Holds copper"), tr("as metal or oxide")],
  ["zinc", tr("Zinc-rich"), tr("for blasted steel")],
  ["blushes", tr("Blushes"), tr("wash and dull it before the next coat")],
  ["porous", tr("Porous film"), tr("drinks; seal it")],
  ["airInhibited", tr("Stays tacky in air"), tr("needs wax or film to harden")],
  ["waxed", tr("Waxed"), tr("the wax comes off before a recoat")],
  ["noSolventWipe", tr("No solvent wipe"), tr("the sheet forbids it")],
  ["needsCover", tr("Must be covered"), tr("the sun harms it")],
  ["underwater", tr("Stands under water for good"), undefined],
] as const;

/** What a product does, in words. */
export const doing = (d: Draft) =>
  DOES.filter(([key]) => d[key])
    .map(([, label]) => label.toLowerCase())
    .join(", ") || tr("nothing out of the ordinary");

/** What a product does to its neighbours, and how it wears. */
export function DoesFields({ form: { at } }: Fields) {
  return (
    <>
      <div className="grid gap-x-4 gap-y-1 sm:grid-cols-2 lg:grid-cols-3">
        {DOES.map(([key, label, hint]) => (
          <Check key={key} {...at(key)} label={label} hint={hint} />
        ))}
      </div>
      <div className="mt-3 grid grid-cols-2 gap-4 sm:grid-cols-3 lg:grid-cols-4">
        <Choice
          {...at("humidity")}
          label={tr("Damp air")}
          options={[
            { value: "", label: tr("does not bear on it") },
            { value: "waterborne", label: tr("slows its drying: waterborne") },
            { value: "moisture-cured", label: tr("quickens its cure: moisture-cured") },
          ]}
        />
        <NumberField
          {...at("uvPerUm")}
          label={tr("Ultraviolet absorbance")}
          unit="per µm"
          hint={tr("of a clear coat, base e")}
        />
        <NumberField {...at("launchMaxH")} label={tr("Launch within")} unit="h" hint={tr("of the last coat")} />
        <NumberField {...at("polishUmYear")} label={tr("Wears away")} unit="µm/yr" />
        <NumberField {...at("polishUm1000NM")} label={tr("Wears per 1000 nm run")} unit="µm" />
      </div>
    </>
  );
}

/** Grades of a hardener, each with limits and hours of its own; what is left out is not known for it. */
export function GradeFields({ form: { at, edit: d, set } }: Fields) {
  const grades = d.grades ?? [];
  return (
    <>
      {grades.map((g, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: grades have no other identity than their order
        <div key={i} className="rule-b py-3">
          <div className="grid grid-cols-2 items-end gap-4 sm:grid-cols-4">
            <TextField {...at(`grades[${i}].name`)} label={tr("Grade")} />
            <NumberField {...at(`grades[${i}].minCureC`)} label={tr("Cures above")} unit="°C" />
            <NumberField {...at(`grades[${i}].airMinC`)} label={tr("Air, least")} unit="°C" />
            <NumberField {...at(`grades[${i}].surfaceMinC`)} label={tr("Surface, least")} unit="°C" />
            <button
              type="button"
              className="linked mb-3 w-fit text-sm"
              onClick={() => set({ grades: grades.filter((_, k) => k !== i) })}
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
              <TableField key={key} {...at(`grades[${i}].${key}`)} label={label} />
            ))}
          </div>
          <RecoatFields
            name={`grades[${i}].recoat`}
            windows={g.recoat ?? []}
            onChange={at(`grades[${i}].recoat`).onChange}
          />
        </div>
      ))}
      <button
        type="button"
        className="btn mt-3 min-h-11"
        onClick={() => set({ grades: [...grades, { name: "", minCureC: d.minCureC ?? 0 }] })}
      >
        {tr("Add a grade")}
      </button>
    </>
  );
}
