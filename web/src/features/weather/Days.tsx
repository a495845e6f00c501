import { Plus, X } from "lucide-react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { Choice, NumberField, TextField } from "../../ui/Form";
import { stamp, toLocalField } from "../../ui/time";
import { type Edition, useEdition } from "../../ui/useEdition";
import { tr, trNodes } from "../../words/words";

type Day = Schemas["WeatherSimpleDay"];
/** A day as it is typed. */
type Draft = Omit<Day, "minC" | "maxC"> & { minC?: number; maxC?: number };

const SKIES = { clear: tr("clear"), broken: tr("sun and cloud"), cloudy: tr("cloudy"), overcast: tr("overcast") };
const RAINS = {
  dry: tr("dry"),
  showers: tr("showers"),
  morning: tr("rain in the morning"),
  afternoon: tr("rain in the afternoon"),
  "all-day": tr("rain all day"),
};
const WINDS = { calm: tr("calm"), light: tr("light wind"), fresh: tr("fresh wind"), strong: tr("strong wind") };
const AIRS = { dry: tr("dry air"), usual: tr("usual air"), damp: tr("damp air"), fog: tr("fog at night") };
const choices = (m: Record<string, string>) => Object.entries(m).map(([value, label]) => ({ value, label }));

/** The days ahead in words, for those without a forecast: "8 to 16 °C, dry, cloudy". */
export function Days({ place }: { place: Schemas["Place"] }) {
  const now = useMeta().data?.now;
  return now ? <DaysFrom place={place} now={now} /> : null;
}

function DaysFrom({ place, now }: { place: Schemas["Place"]; now: string }) {
  const zone = place.timeZone;
  const nextDay = (n: number) => toLocalField(Date.parse(now) + n * 86_400_000, zone).slice(0, 10);
  const usual = (n: number): Draft => ({
    date: nextDay(n),
    sky: "cloudy",
    rain: "dry",
    wind: "light",
    air: "usual",
  });
  const form = useEdition(undefined, () => ({ days: [usual(0)] }));
  const { at, set } = form;
  const { days } = form.edit;
  const save = useChange(["weather", "place"], ({ value }: Edition<{ days: Draft[] }>) =>
    ok(api.POST("/api/places/{id}/days", { params: { path: { id: place.id } }, body: { days: value.days as Day[] } })),
  );
  return (
    <section className="mt-8 max-w-6xl border-t border-base-content pt-4">
      <h2 className="text-lg">{tr("Tell the days in your own words")}</h2>
      <p className="quiet text-sm">
        {trNodes(
          "For those without a forecast. The hours follow by rules of thumb: coldest at five, warmest at three, damp by your word.{weatherSource}",
          {
            weatherSource:
              place.weatherSource === "simulated" && tr(" It replaces the simulated weather of this place."),
          },
        )}
      </p>
      <EditForm
        form={form}
        save={save}
        needed={days.flatMap((_, i) => [`days[${i}].minC`, `days[${i}].maxC`])}
        says={tr("Use these days")}
        buttons={
          <button
            type="button"
            className="btn btn-ghost min-h-12"
            onClick={() => set({ days: [...days, usual(days.length)] })}
          >
            <Plus size={16} /> {tr("another day")}
          </button>
        }
      >
        {days.map((_, i) => (
          <div
            // biome-ignore lint/suspicious/noArrayIndexKey: days have no other identity than their order
            key={i}
            className="mt-3 grid grid-cols-2 items-end gap-3 md:grid-cols-4 xl:grid-cols-[1.3fr_1fr_1fr_1fr_1.4fr_1fr_1fr_2.75rem]"
          >
            <TextField {...at(`days[${i}].date`)} label={tr("Day")} type="date" />
            <NumberField {...at(`days[${i}].minC`)} label={tr("Coldest")} unit="°C" />
            <NumberField {...at(`days[${i}].maxC`)} label={tr("Warmest")} unit="°C" />
            <Choice {...at(`days[${i}].sky`)} label={tr("Sky")} options={choices(SKIES)} />
            <Choice {...at(`days[${i}].rain`)} label={tr("Rain")} options={choices(RAINS)} />
            <Choice {...at(`days[${i}].wind`)} label={tr("Wind")} options={choices(WINDS)} />
            <Choice {...at(`days[${i}].air`)} label={tr("Air")} options={choices(AIRS)} />
            <button
              type="button"
              className="btn btn-square btn-ghost min-h-11"
              aria-label={tr("Leave out day {i}", { i: i + 1 })}
              disabled={days.length === 1}
              onClick={() => set({ days: days.filter((_, k) => k !== i) })}
            >
              <X size={16} />
            </button>
          </div>
        ))}
      </EditForm>
      {save.data && (
        <p className="mt-2" role="status">
          {tr("{rows} hours are in, {from} to {to}.", {
            rows: save.data.rows,
            from: stamp(save.data.from, zone),
            to: stamp(save.data.to, zone),
          })}
        </p>
      )}
    </section>
  );
}
