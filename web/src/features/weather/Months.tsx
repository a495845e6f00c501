import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Errors, NumberField, Refusal, unsendable } from "../../ui/Form";
import { tr } from "../../words/words";

type Normal = Schemas["WeatherNormal"];

const MONTHS = [
  tr("January"),
  tr("February"),
  tr("March"),
  tr("April"),
  tr("May"),
  tr("June"),
  tr("July"),
  tr("August"),
  tr("September"),
  tr("October"),
  tr("November"),
  tr("December"),
];
const COLUMNS: { key: keyof Normal; name: string; unit: string }[] = [
  { key: "meanC", name: tr("Mean"), unit: "°C" },
  { key: "swingK", name: tr("Day's swing"), unit: "K" },
  { key: "rhPct", name: tr("Humidity"), unit: "%" },
  { key: "windMS", name: tr("Wind"), unit: "m/s" },
  { key: "cloudPct", name: tr("Cloud"), unit: "%" },
  { key: "wetDayPct", name: tr("Wet days"), unit: "%" },
  { key: "wetAfterWetPct", name: tr("Wet after wet"), unit: "%" },
  { key: "wetHoursPct", name: tr("Hours of a wet day"), unit: "%" },
  { key: "spreadK", name: tr("Spread of days"), unit: "K" },
];

/** The usual months of the place, which count beyond the forecast. */
export function Months({ place }: { place: Schemas["Place"] }) {
  const [months, setMonths] = useState<Normal[] | undefined>(place.normals);
  const [open, setOpen] = useState(false);
  const [opened, setOpened] = useState(place.version); // what is fetched anew meanwhile is another edition
  const openUp = () => {
    setOpened(place.version);
    setOpen(true);
  };
  /** Opens what counts now: what was typed before only while nothing else has changed the place. */
  const show = () => {
    if (place.normals && (!months || place.version !== opened)) setMonths(place.normals);
    else if (!months) return start.mutate(undefined);
    openUp();
  };
  const [local, setLocal] = useState<Record<string, string>>({});
  const start = useChange(
    [],
    () => ok(api.GET("/api/usual-months", { params: { query: { latitudeDeg: place.latitudeDeg } } })),
    (m) => {
      setMonths(m);
      openUp();
    },
  );
  const own = useChange(
    [],
    () => ok(api.GET("/api/places/{id}/own-months", { params: { path: { id: place.id } } })),
    (o) => setMonths(o.normals),
  );
  const save = useChange(
    ["place", "weather"],
    (normals: Normal[] | undefined) => {
      const { name, latitudeDeg, longitudeDeg, timeZone, weatherSource } = place;
      return ok(
        api.PUT("/api/places/{id}", {
          params: { path: { id: place.id } },
          body: { version: opened, value: { name, latitudeDeg, longitudeDeg, timeZone, weatherSource, normals } },
        }),
      );
    },
    (p) => setOpened(p.version),
  );
  return (
    <section className="mt-8 max-w-6xl border-t border-base-content pt-4">
      <h2 className="text-lg">{tr("Beyond the forecast: the usual months")}</h2>
      <p className="quiet text-sm">
        {place.normals
          ? tr("The figures of this place count beyond the forecast.")
          : tr(
              "Until you give the figures of this place, those of a coast at latitude {latitudeDeg}° count: rules of thumb.",
              {
                latitudeDeg: place.latitudeDeg,
              },
            )}
      </p>
      <button
        type="button"
        className="linked mt-1 text-sm max-sm:min-h-11"
        aria-expanded={open}
        onClick={() => (open ? setOpen(false) : show())}
      >
        {open ? tr("hide the months") : tr("look at the months, or change them")}
      </button>
      {open && months && (
        <Errors.Provider value={{ ...local, ...save.error?.fields }}>
          <div className="mt-2 overflow-x-auto">
            <table className="table-plain text-sm">
              <thead>
                <tr>
                  <th>{tr("Month")}</th>
                  {COLUMNS.map((c) => (
                    <th key={c.key}>{c.name}</th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {months.map((m, i) => (
                  <tr key={MONTHS[i]}>
                    <td>{MONTHS[i]}</td>
                    {COLUMNS.map((c) => (
                      <td key={c.key} className="min-w-24">
                        <NumberField
                          name={`normals[${i}].${c.key}`}
                          label={`${MONTHS[i]}, ${c.name}`}
                          hidden
                          unit={c.unit}
                          value={m[c.key]}
                          onChange={(v) =>
                            setMonths(months.map((o, k) => (k === i ? { ...o, [c.key]: v ?? Number.NaN } : o)))
                          }
                        />
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <div className="mt-3 flex flex-wrap gap-2">
            <button
              type="button"
              className="btn min-h-11"
              disabled={save.isPending}
              onClick={() => {
                const bad = unsendable({ normals: months });
                setLocal(bad);
                if (Object.keys(bad).length === 0) save.mutate(months);
              }}
            >
              {tr("Use these months")}
            </button>
            <button
              type="button"
              className="btn btn-ghost min-h-11"
              disabled={own.isPending}
              onClick={() => own.mutate(undefined)}
            >
              {tr("Take what was measured here")}
            </button>
            {place.normals && (
              <button
                type="button"
                className="btn btn-ghost min-h-11"
                onClick={() => {
                  save.mutate(undefined);
                  setMonths(undefined);
                  setOpen(false);
                }}
              >
                {tr("Back to the usual coast")}
              </button>
            )}
          </div>
          {own.data && (
            <p role="status" className="text-sm">
              {tr(
                "From {days} days measured here; months with fewer than 20 of them are as they were. Look at them, then use them.",
                {
                  days: own.data.days,
                },
              )}
            </p>
          )}
          {save.isSuccess && <p role="status">{tr("These months count now.")}</p>}
          <Refusal error={save.error} />
        </Errors.Provider>
      )}
    </section>
  );
}
