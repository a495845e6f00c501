import type { Schemas } from "../../api/client";
import { useCoats } from "../../api/queries";
import { Choice, NumberField, TextField } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";
import { places } from "./Walk";

type Readings = Schemas["Readings"];

/** Readings that are typed, and the texts of fields as they stand. */
export type Typing = { draft: Readings; text: Record<string, string>; setText: (t: Record<string, string>) => void };

/** How gaps are read, how fair it is to be, and what may be filled and ground. */
export function ReadingFields({
  draft,
  text,
  setText,
  set,
  way,
  classes,
}: Typing & { set: (more: Partial<Readings>) => void; way: string; classes: Schemas["FairClass"][] }) {
  const { fillers } = useCoats();
  const { prose } = useSettings();
  const num = (v: number | undefined) => v ?? Number.NaN;
  return (
    <div className="mt-2 grid max-w-4xl grid-cols-2 gap-3 md:grid-cols-5">
      <NumberField
        name="round"
        label={tr("Round")}
        unit=""
        value={draft.round}
        onChange={(v) => set({ round: num(v) })}
      />
      {way !== "lows" && (
        <>
          <NumberField
            name="battenM"
            label={tr("Straightedge")}
            unit="m"
            value={draft.battenM}
            onChange={(v) => set({ battenM: num(v) })}
          />
          <NumberField
            name="spacingM"
            label={tr("Between readings")}
            unit="m"
            value={draft.spacingM}
            onChange={(v) => set({ spacingM: num(v) })}
          />
        </>
      )}
      <NumberField
        name="errorMM"
        label={tr("A reading may be out")}
        hint={tr("what is less is not filled")}
        unit="mm"
        value={draft.errorMM}
        onChange={(v) => set({ errorMM: num(v) })}
      />
      {way === "grid" && (
        <NumberField
          name="rowsM"
          label={tr("Between rows")}
          unit="m"
          value={draft.rowsM}
          onChange={(v) => set({ rowsM: num(v) })}
        />
      )}
      <Choice
        name="class"
        label={tr("How fair")}
        value={draft.class}
        onChange={(c) => set({ class: c })}
        options={classes.map((c) => ({
          value: c.key as Readings["class"],
          label: tr("{name}: {x} in {x2}", {
            name: c.name,
            x: prose([{ value: c.gapMM, unit: "mm", digits: 1 }]),
            x2: prose([{ value: 1, unit: "m", digits: 0 }]),
          }),
        }))}
      />
      <NumberField
        name="maxFillMM"
        label={tr("Fill at most")}
        unit="mm"
        value={draft.maxFillMM}
        onChange={(v) => set({ maxFillMM: num(v) })}
      />
      {way === "grid" && (
        <>
          <NumberField
            name="maxGrindMM"
            label={tr("Grind at most")}
            unit="mm"
            value={draft.maxGrindMM}
            onChange={(v) => set({ maxGrindMM: num(v) })}
          />
          <NumberField
            name="stiffnessM"
            label={tr("Batten bends over")}
            unit="m"
            value={draft.stiffnessM}
            onChange={(v) => set({ stiffnessM: num(v) })}
          />
          <TextField
            name="breaks"
            label={tr("Knuckles at readings")}
            hint={tr("their numbers, such as 5 12")}
            value={text.breaks ?? (draft.breaks ?? []).map((b) => b + 1).join(" ")}
            onChange={(t) => {
              setText({ ...text, breaks: t });
              set({ breaks: places(t).filter((b) => b >= 0) });
            }}
          />
        </>
      )}
      <Choice
        name="productId"
        label={tr("Filler")}
        value={draft.productId ?? ""}
        onChange={(productId) => set({ productId: productId || undefined })}
        options={[
          { value: "", label: tr("the first of the library") },
          ...fillers.map((p) => ({ value: p.id, label: p.sheet.name })),
        ]}
      />
    </div>
  );
}
