import type { Schemas } from "../../api/client";
import { Check, NumberField } from "../../ui/Form";
import { tr } from "../../words/words";

type Hours = Schemas["CalendarHours"];
type Work = { week?: Hours[]; crew?: number };

// The week is kept from Sunday on and shown from Monday on.
const DAYS = [1, 2, 3, 4, 5, 6, 0];
const NAMES = [
  tr("Sunday"),
  tr("Monday"),
  tr("Tuesday"),
  tr("Wednesday"),
  tr("Thursday"),
  tr("Friday"),
  tr("Saturday"),
];
const off: Hours = { fromH: 0, toH: 0 };

/** When people work on the boat, and how many lay a coat together. */
export function WeekFields({ week, crew, set }: Work & { set: (w: Work) => void }) {
  const limited = (week ?? []).some((d) => d.toH > d.fromH);
  const days = DAYS.map((i) => ({ i, h: week?.[i] ?? off }));
  const change = (i: number, h: Hours) => set({ crew, week: NAMES.map((_, k) => (k === i ? h : (week?.[k] ?? off))) });
  return (
    <fieldset className="mt-4 border border-base-300 p-4" data-field="week">
      <legend className="px-1 font-slab font-semibold">
        {crew === undefined ? tr("Working hours") : tr("Hands and hours")}
      </legend>
      <div className="grid gap-4 sm:grid-cols-2">
        {crew !== undefined && (
          <NumberField
            name="crew"
            label={tr("People laying a coat")}
            unit=""
            value={crew}
            onChange={(v) => set({ week, crew: v ?? Number.NaN })}
          />
        )}
        <Check
          name="limited"
          label={tr("Only in working hours")}
          hint={crew === undefined ? tr("else from eight to six every day") : tr("else a coat may be laid at any hour")}
          value={limited}
          onChange={(on) =>
            set({
              crew,
              week: NAMES.map((_, k) =>
                on ? (k === 0 || k === 6 ? { fromH: 8, toH: 19 } : { fromH: 17, toH: 21 }) : off,
              ),
            })
          }
        />
      </div>
      {limited && (
        <div className="mt-3 grid gap-x-6 gap-y-2 md:grid-cols-2">
          {days.map(({ i, h }) => (
            <div key={NAMES[i]} className="grid grid-cols-[6.5rem_1fr_1fr] items-center gap-2">
              <span className="text-sm font-semibold">{NAMES[i]}</span>
              <NumberField
                name={`week[${i}].fromH`}
                label={tr("{NAMES} from", { NAMES: NAMES[i] })}
                hidden
                unit="h"
                value={h.fromH}
                onChange={(v) => change(i, { ...h, fromH: v ?? Number.NaN })}
              />
              <NumberField
                name={`week[${i}].toH`}
                label={tr("{NAMES} to", { NAMES: NAMES[i] })}
                hidden
                unit="h"
                value={h.toH}
                onChange={(v) => change(i, { ...h, toH: v ?? Number.NaN })}
              />
            </div>
          ))}
        </div>
      )}
    </fieldset>
  );
}
