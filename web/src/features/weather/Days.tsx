import { Plus, X } from "lucide-react";
import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { Choice, Errors, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { stamp, toLocalField } from "../../ui/time";
import { tr, trNodes } from "../../words/words";

type Day = Schemas["WeatherSimpleDay"];

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
  const usual = (n: number): Day => ({
    date: nextDay(n),
    minC: Number.NaN,
    maxC: Number.NaN,
    sky: "cloudy",
    rain: "dry",
    wind: "light",
    air: "usual",
  });
  const [days, setDays] = useState<Day[]>(() => [usual(0)]);
  const [local, setLocal] = useState<Record<string, string>>({});
  const save = useChange(["weather", "place"], () =>
    ok(api.POST("/api/places/{id}/days", { params: { path: { id: place.id } }, body: { days } })),
  );
  const set = (i: number, d: Partial<Day>) => setDays(days.map((old, k) => (k === i ? { ...old, ...d } : old)));
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
      <Errors.Provider value={{ ...local, ...save.error?.fields }}>
        {days.map((d, i) => {
          const at = `days[${i}]`;
          return (
            <div
              // biome-ignore lint/suspicious/noArrayIndexKey: days have no other identity than their order
              key={i}
              className="mt-3 grid grid-cols-2 items-end gap-3 md:grid-cols-4 xl:grid-cols-[1.3fr_1fr_1fr_1fr_1.4fr_1fr_1fr_2.75rem]"
            >
              <TextField
                name={`${at}.date`}
                label={tr("Day")}
                type="date"
                value={d.date}
                onChange={(date) => set(i, { date })}
              />
              <NumberField
                name={`${at}.minC`}
                label={tr("Coldest")}
                unit="°C"
                value={d.minC}
                onChange={(v) => set(i, { minC: v ?? Number.NaN })}
              />
              <NumberField
                name={`${at}.maxC`}
                label={tr("Warmest")}
                unit="°C"
                value={d.maxC}
                onChange={(v) => set(i, { maxC: v ?? Number.NaN })}
              />
              <Choice
                name={`${at}.sky`}
                label={tr("Sky")}
                value={d.sky}
                onChange={(v) => set(i, { sky: v as Day["sky"] })}
                options={choices(SKIES)}
              />
              <Choice
                name={`${at}.rain`}
                label={tr("Rain")}
                value={d.rain}
                onChange={(v) => set(i, { rain: v as Day["rain"] })}
                options={choices(RAINS)}
              />
              <Choice
                name={`${at}.wind`}
                label={tr("Wind")}
                value={d.wind}
                onChange={(v) => set(i, { wind: v as Day["wind"] })}
                options={choices(WINDS)}
              />
              <Choice
                name={`${at}.air`}
                label={tr("Air")}
                value={d.air}
                onChange={(v) => set(i, { air: v as Day["air"] })}
                options={choices(AIRS)}
              />
              <button
                type="button"
                className="btn btn-square btn-ghost min-h-11"
                aria-label={tr("Leave out day {i}", { i: i + 1 })}
                disabled={days.length === 1}
                onClick={() => setDays(days.filter((_, k) => k !== i))}
              >
                <X size={16} />
              </button>
            </div>
          );
        })}
        <div className="mt-3 flex flex-wrap gap-2">
          <button
            type="button"
            className="btn btn-ghost min-h-11"
            onClick={() => setDays([...days, usual(days.length)])}
          >
            <Plus size={16} /> {tr("another day")}
          </button>
          <button
            type="button"
            className="btn min-h-11"
            disabled={save.isPending}
            onClick={() => {
              const bad = unsendable({ days });
              setLocal(bad);
              if (Object.keys(bad).length === 0) save.mutate(undefined);
            }}
          >
            {tr("Use these days")}
          </button>
        </div>
        {save.data && (
          <p className="mt-2" role="status">
            {tr("{rows} hours are in, {from} to {to}.", {
              rows: save.data.rows,
              from: stamp(save.data.from, zone),
              to: stamp(save.data.to, zone),
            })}
          </p>
        )}
        <Refusal error={save.error} />
      </Errors.Provider>
    </section>
  );
}
