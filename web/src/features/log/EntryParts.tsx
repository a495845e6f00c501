import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useSurvey } from "../../api/queries";
import { BoatMap } from "../../ui/BoatMap";
import { Choice, NumberField, TextField } from "../../ui/Form";
import { Minding } from "../../ui/Handover";
import { useSettings } from "../../ui/settings";
import { tr, trNodes } from "../../words/words";
import { BatchField } from "./BatchField";
import { type EntryFields, OTHER } from "./draft";

type Fields = { form: EntryFields };

export function CoatFields({
  boatId,
  form: { edit: draft, set, at },
  step,
  planned,
  productId,
  steps,
  products,
}: Fields & {
  boatId: string;
  step: string;
  planned?: Schemas["Step"];
  productId: string;
  steps: { value: string; label: string }[];
  products: Schemas["Product"][];
}) {
  const { shownUnit } = useSettings();
  const sheet = products.find((p) => p.id === productId)?.sheet;
  const twoPart = (sheet?.ratioByVolume.base ?? 0) > 0;
  return (
    <>
      <Choice
        name="stepId"
        label={tr("Planned coat")}
        value={step}
        onChange={(stepId) => set({ stepId })}
        options={[...steps, { value: OTHER, label: tr("another product") }]}
      />
      {!planned && (
        <Choice
          name="productId"
          label={tr("Product")}
          value={productId}
          onChange={(id) => set({ productId: id })}
          options={products.map((p) => ({ value: p.id, label: p.sheet.name }))}
        />
      )}
      <Minding texts={sheet?.cautions ?? []} />
      <NumberField {...at("litres")} label={tr("Litres used")} hint={tr("before thinner, from the tin")} unit="L" />
      <TextField
        {...at("wetUm")}
        label={tr("Wet film readings, {shownUnit}", { shownUnit: shownUnit("µm") })}
        hint={tr("with spaces between")}
      />
      <details
        className="sm:col-span-2 lg:col-span-3"
        open={draft.batch !== "" || draft.baseG !== undefined || undefined}
      >
        <summary className="flex min-h-11 cursor-pointer items-center font-semibold">
          {tr("Thinner, batch, weights")}
        </summary>
        <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
          <NumberField
            {...at("thinnerPct")}
            label={tr("Thinner added")}
            unit="%"
            value={draft.thinnerPct ?? planned?.thinnerPct ?? 0}
          />
          <BatchField boatId={boatId} productId={productId} batch={draft.batch} set={(batch) => set({ batch })} />
          {twoPart && (
            <>
              <NumberField {...at("baseG")} label={tr("Base, weighed")} unit="g" />
              <NumberField {...at("hardenerG")} label={tr("Hardener, weighed")} unit="g" />
            </>
          )}
        </div>
      </details>
    </>
  );
}

/** The patches of a step that were done, by tap. */
export function Patches({ form: { edit: draft, set }, patches }: Fields & { patches: Schemas["StepPatch"][] }) {
  return (
    <fieldset className="sm:col-span-2 lg:col-span-3">
      <legend className="text-sm font-semibold">{tr("Which of them (none: all that were left)")}</legend>
      <div className="mt-1 flex flex-wrap gap-2">
        {patches.map((p) => {
          const on = draft.patches.includes(p.name);
          return (
            <button
              key={p.name}
              type="button"
              aria-pressed={on}
              className={`btn min-h-11 min-w-11 ${on ? "btn-neutral" : "btn-ghost border-base-300"}`}
              onClick={() =>
                set({ patches: on ? draft.patches.filter((k) => k !== p.name) : [...draft.patches, p.name] })
              }
            >
              {on && "✓ "}
              {p.name}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}

/** What was seen on the film, by tap. */
export function Seen({ form: { edit: draft, set }, all }: Fields & { all: Schemas["LogbookBlemish"][] }) {
  return (
    <details className="mt-3" open={draft.blemishes.length > 0}>
      <summary className="flex min-h-11 cursor-pointer items-center font-semibold">
        {trNodes("Anything seen on it? {blemishes}", {
          blemishes: draft.blemishes.length > 0 && `(${draft.blemishes.length})`,
        })}
      </summary>
      <div className="flex flex-wrap gap-2">
        {all.map((b) => {
          const on = draft.blemishes.includes(b.key);
          return (
            <button
              key={b.key}
              type="button"
              title={b.looks}
              aria-pressed={on}
              className={`btn min-h-11 ${on ? "btn-neutral" : "btn-ghost border-base-300"}`}
              onClick={() =>
                set({ blemishes: on ? draft.blemishes.filter((k) => k !== b.key) : [...draft.blemishes, b.key] })
              }
            >
              {on && "✓ "}
              {b.name}
            </button>
          );
        })}
      </div>
    </details>
  );
}

export function Pictures({ photos, set }: { photos: File[]; set: (p: File[]) => void }) {
  return (
    <div className="mt-3">
      <label className="btn min-h-11">
        {photos.length > 0
          ? tr("{photos} {photos, plural, one {photo} other {photos}} taken: another", { photos: photos.length })
          : tr("Photo, such as the label of the tin, or the receipt")}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          onChange={(e) => {
            if (e.target.files) set([...photos, ...e.target.files]);
            e.target.value = "";
          }}
        />
      </label>
    </div>
  );
}

/** The boat, to tap where it was. */
export function OnMap({ boatId, form: { edit: draft, set } }: { boatId: string } & Fields) {
  const [open, setOpen] = useState(false);
  const survey = useSurvey(boatId).data;
  return (
    <details className="mt-3" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="flex min-h-11 cursor-pointer items-center font-semibold">
        {draft.place ? tr("The place is marked on the boat") : tr("Tap it on the boat")}
      </summary>
      {open && survey && (
        <BoatMap
          views={survey.views}
          surfaces={survey.surfaces}
          marks={{}}
          picked={draft.surfaceId}
          onPick={(id) => set({ surfaceId: id, stepId: "" })}
          onPlace={({ surfaceId, ...place }) => set({ place, ...(surfaceId && { surfaceId, stepId: "" }) })}
          pins={draft.place ? [{ id: "here", number: 1, open: true, ...draft.place, title: tr("here") }] : []}
        />
      )}
    </details>
  );
}
