import type { Schemas } from "../../api/client";
import { Choice, NumberField, TextField } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";

type Tin = Schemas["ProductTin"];

/** The tins a product is sold in: kits of mixed litres, or one part alone. */
export function TinFields({
  tins,
  twoPart,
  onChange,
}: {
  tins: Tin[];
  twoPart: boolean;
  onChange: (t: Tin[]) => void;
}) {
  const { currency } = useSettings();
  const edit = (i: number, t: Partial<Tin>) => onChange(tins.map((x, k) => (k === i ? { ...x, ...t } : x)));
  return (
    <>
      {tins.map((t, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: tins have no other identity than their order
        <div key={i} className="mb-2 grid grid-cols-2 items-end gap-4 sm:grid-cols-[2fr_2fr_1fr_1fr_4rem]">
          <TextField name={`tins[${i}].name`} label={tr("Tin")} value={t.name} onChange={(name) => edit(i, { name })} />
          {twoPart ? (
            <Choice
              name={`tins[${i}].part`}
              label={tr("Holds")}
              value={t.part ?? ""}
              onChange={(part) => edit(i, { part })}
              options={[
                { value: "", label: tr("both, mixed litres") },
                { value: "base", label: tr("base alone") },
                { value: "hardener", label: tr("hardener alone") },
              ]}
            />
          ) : (
            <span className="hidden sm:block" />
          )}
          <NumberField
            name={`tins[${i}].litres`}
            label={tr("Volume")}
            unit="L"
            value={t.litres}
            onChange={(litres) => edit(i, { litres })}
          />
          <NumberField
            name={`tins[${i}].priceCents`}
            label={tr("Price")}
            unit={currency}
            value={t.priceCents / 100}
            onChange={(v) => edit(i, { priceCents: v === undefined ? 0 : Math.round(v * 100) })}
          />
          <button
            type="button"
            className="linked mb-3 w-fit text-sm"
            onClick={() => onChange(tins.filter((_, k) => k !== i))}
          >
            {tr("remove")}
          </button>
          <TextField
            name={`tins[${i}].supplier`}
            label={tr("Supplier")}
            value={t.supplier ?? ""}
            onChange={(supplier) => edit(i, { supplier })}
          />
          <TextField
            name={`tins[${i}].partNo`}
            label={tr("Part number")}
            value={t.partNo ?? ""}
            onChange={(partNo) => edit(i, { partNo })}
          />
        </div>
      ))}
      <button
        type="button"
        className="btn min-h-11"
        onClick={() => onChange([...tins, { name: "", litres: 1, priceCents: 0 }])}
      >
        {tr("Add a tin")}
      </button>
    </>
  );
}
