import { Plus, X } from "lucide-react";
import type { Schemas } from "../../api/client";
import { useMeta } from "../../api/queries";
import { Choice, NumberField } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";

type TentDraft = Schemas["Tent"];

/** A tent as one would build it: its box and film, what heats and dries it, and what that costs. */
export function TentFields({ tent: t, set }: { tent: TentDraft; set: (t: TentDraft) => void }) {
  const { prose, currency } = useSettings();
  const kinds = useMeta().data?.weather.heaters ?? [];
  const num = (
    key: "lengthM" | "widthM" | "heightM" | "airChanges" | "dryL",
    label: string,
    unit: string,
    hint?: string,
  ) => (
    <NumberField
      name={key}
      label={label}
      unit={unit}
      hint={hint}
      value={t[key]}
      onChange={(v) => set({ ...t, [key]: v ?? Number.NaN })}
    />
  );
  const thermostat = (key: keyof TentDraft["thermostat"], label: string, unit: string) => (
    <NumberField
      name={`thermostat.${key}`}
      label={label}
      unit={unit}
      value={t.thermostat[key]}
      onChange={(v) => set({ ...t, thermostat: { ...t.thermostat, [key]: v ?? Number.NaN } })}
    />
  );
  // Prices are kept in cents and typed as money.
  const price = (key: keyof TentDraft["prices"], label: string) => (
    <NumberField
      name={`prices.${key}`}
      label={label}
      unit={currency}
      value={t.prices[key] / 100}
      onChange={(v) =>
        set({ ...t, prices: { ...t.prices, [key]: v === undefined ? Number.NaN : Math.round(v * 10000) / 100 } })
      }
    />
  );
  return (
    <>
      <fieldset className="mt-4">
        <legend className="font-slab font-semibold">{tr("The tent")}</legend>
        <div className="mt-1 grid grid-cols-2 gap-4 md:grid-cols-3 xl:grid-cols-6">
          {num("lengthM", tr("Length"), "m")}
          {num("widthM", tr("Width"), "m")}
          {num("heightM", tr("Height"), "m")}
          <Choice
            name="layers"
            label={tr("Film")}
            value={String(t.layers)}
            onChange={(v) => set({ ...t, layers: Number(v) })}
            options={[
              { value: "1", label: tr("one layer") },
              { value: "2", label: tr("two layers") },
            ]}
          />
          {num("airChanges", tr("Air changes"), "/h", tr("0.5 tight, 3 draughty, a booth with a fan to 100"))}
          <NumberField
            name="doorM2"
            label={tr("Door that stands open")}
            unit="m²"
            hint={tr("wind through it changes the air")}
            value={t.doorM2}
            onChange={(doorM2) => set({ ...t, doorM2 })}
          />
          <NumberField
            name="openC"
            label={tr("Ends opened above")}
            unit="°C"
            hint={tr("when the sun heats it; empty if they stay shut")}
            value={t.openC || undefined}
            onChange={(openC) => set({ ...t, openC })}
          />
          {num(
            "dryL",
            tr("Dehumidifier"),
            "L",
            tr("a day at {x} and 60 %; 0 for none", { x: prose([{ value: 20, unit: "°C", digits: 0 }]) }),
          )}
        </div>
        <label className="mt-2 flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={t.bareGround ?? false}
            onChange={(e) => set({ ...t, bareGround: e.target.checked })}
          />
          {tr("bare earth or grass under it: lay a sheet on it and the air is drier")}
        </label>
      </fieldset>
      <fieldset className="mt-4" data-field="heaters">
        <legend className="font-slab font-semibold">{tr("Heat")}</legend>
        {t.heaters.map((h, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: heaters have no other identity than their order
          <div key={i} className="mt-1 grid max-w-2xl grid-cols-[2fr_1fr_2.75rem] items-end gap-3">
            <Choice
              name={`heaters[${i}].kind`}
              label={tr("Heater {i}", { i: i + 1 })}
              value={h.kind}
              onChange={(kind) => set({ ...t, heaters: t.heaters.map((o, k) => (k === i ? { ...o, kind } : o)) })}
              options={kinds.map((k) => ({ value: k.key as typeof h.kind, label: k.name }))}
            />
            <NumberField
              name={`heaters[${i}].powerKW`}
              label={tr("Power")}
              unit="kW"
              value={h.powerKW}
              onChange={(v) =>
                set({ ...t, heaters: t.heaters.map((o, k) => (k === i ? { ...o, powerKW: v ?? Number.NaN } : o)) })
              }
            />
            <button
              type="button"
              className="btn btn-square btn-ghost min-h-11"
              aria-label={tr("Remove heater {i}", { i: i + 1 })}
              onClick={() => set({ ...t, heaters: t.heaters.filter((_, k) => k !== i) })}
            >
              <X size={16} />
            </button>
          </div>
        ))}
        <button
          type="button"
          className="linked mt-1 flex items-center gap-1 text-sm max-sm:min-h-11"
          onClick={() => set({ ...t, heaters: [...t.heaters, { kind: "electric", powerKW: 2 }] })}
        >
          <Plus size={14} /> {tr("another heater")}
        </button>
        <div className="mt-2 grid max-w-2xl grid-cols-3 gap-4">
          {thermostat("setC", tr("Heat to"), "°C")}
          {thermostat("fromH", tr("From hour"), "h")}
          {thermostat("toH", tr("To hour"), "h")}
        </div>
      </fieldset>
      <fieldset className="mt-4">
        <legend className="font-slab font-semibold">{tr("Prices, in your currency")}</legend>
        <div className="mt-1 grid grid-cols-2 gap-4 md:grid-cols-4">
          {price("kWhCents", tr("A kWh of electricity"))}
          {price("fuelKgCents", tr("A kg of fuel"))}
          {price("dayCents", tr("A day on the hard"))}
          {price("hardenerCents", tr("More for the cold hardener"))}
        </div>
      </fieldset>
    </>
  );
}
