import type { Schemas } from "../../api/client";
import { useKinds, useLog, useProducts } from "../../api/queries";
import { Choice, NumberField } from "../../ui/Form";
import { tr } from "../../words/words";
import { EMPTY } from "./edit";

type Consumption = Schemas["AreaConsumption"];

/** The area that a logged coat covered: its litres over its measured film. */
export function ConsumptionFields({
  path,
  c,
  set,
  boatId,
  surfaceId,
}: {
  path: string;
  c: Consumption;
  set: (c: Consumption) => void;
  boatId: string;
  surfaceId?: string;
}) {
  const products = useProducts().data ?? [];
  const { kindOf } = useKinds();
  const coats = (useLog(boatId).data ?? []).filter(
    (e) => e.surfaceId === surfaceId && kindOf(e.kind).lays && !e.deleted && e.litres > 0 && e.wetUm.length > 0,
  );
  const take = (id: string) => {
    const e = coats.find((x) => x.id === id);
    const sheet = products.find((p) => p.id === e?.productId)?.sheet;
    if (!e || !sheet) return;
    set({
      ...c,
      litres: e.litres,
      volumeSolidsPct: sheet.volumeSolidsPct,
      dftUm: e.filmUm,
      sdUm: e.filmSdUm,
      readings: e.wetUm.length,
      what: `${e.product}, ${e.startedAt.slice(0, 10)}`,
    });
  };
  const num = (k: keyof Consumption, label: string, unit: string, hint?: string) => (
    <NumberField
      name={`${path}.${k}`}
      label={label}
      unit={unit}
      hint={hint}
      value={c[k] as number}
      onChange={(v) => set({ ...c, [k]: v ?? EMPTY })}
    />
  );
  return (
    <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
      <div className="sm:col-span-2 lg:col-span-4">
        {coats.length > 0 ? (
          <Choice
            name={`${path}.what`}
            label={tr("From a logged coat")}
            value={
              coats.find((e) => c.what?.startsWith(e.product) && c.what.endsWith(e.startedAt.slice(0, 10)))?.id ?? ""
            }
            onChange={take}
            options={[
              { value: "", label: tr("choose one, or type the figures") },
              ...coats.map((e) => ({ value: e.id, label: `${e.product}, ${e.startedAt.slice(0, 10)}` })),
            ]}
          />
        ) : (
          <p className="quiet text-sm">
            {tr(
              "The last coat tells the area: log one with its litres and comb readings, or type the figures of one here.",
            )}
          </p>
        )}
      </div>
      {num("litres", tr("Litres used"), "L")}
      {num("lossPct", tr("Loss"), "%", tr("left in tray and roller"))}
      {num("volumeSolidsPct", tr("Volume solids"), "%")}
      {num("dftUm", tr("Mean dry film"), "µm", tr("measured, not planned"))}
    </div>
  );
}
