import { useRef, useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { stamp } from "../../ui/time";
import { tr, trNodes } from "../../words/words";

/** A file as the body of a request. */
const asBody = (f: File) => ({
  body: f as unknown as string,
  bodySerializer: (b: unknown) => b as BodyInit,
  headers: { "Content-Type": "text/csv" },
});

/** What columns are, by their names. */
type Said = Record<string, string>;

/** A record or forecast of the place from a file. */
export function ImportFile({ place }: { place: Schemas["Place"] }) {
  const file = useRef<HTMLInputElement>(null);
  const [said, setSaid] = useState<Said>();
  const path = { id: place.id };
  const send = useChange(["weather", "place"], (f: File) =>
    ok(
      api.POST("/api/places/{id}/weather", {
        params: { path, query: said && { columns: JSON.stringify(said) } },
        ...asBody(f),
      }),
    ),
  );
  const look = useChange(
    [],
    (f: File) => ok(api.POST("/api/places/{id}/weather/columns", { params: { path }, ...asBody(f) })),
    (c) => setSaid(Object.fromEntries(c.columns.map((one) => [one.name, one.is]))),
  );
  const withFile = (go: (f: File) => void) => () => {
    const chosen = file.current?.files?.[0];
    if (chosen) go(chosen);
    else file.current?.click(); // first which one
  };
  return (
    <section className="mt-8 max-w-3xl border-t border-base-content pt-4">
      <h2 className="text-lg">{tr("Import a forecast or record")}</h2>
      <p className="quiet text-sm">
        {trNodes(
          "A table as it comes: time, temperature, humidity or dew point, and if you have them wind, rain, cloud, light; columns in any order, units in the header or the cells; or a forecast as JSON, with hourly arrays or an array of hours. A climate file (EPW) sets the usual months. What could be meant otherwise is told. Times without a zone are read as {timeZone}. Times up to now count as measured, later ones as forecast. All or nothing, at most 16 MB.{weatherSource}",
          {
            timeZone: place.timeZone,
            weatherSource:
              place.weatherSource === "simulated" && tr(" It replaces the simulated weather of this place."),
          },
        )}
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-2">
        <input
          ref={file}
          type="file"
          accept=".csv,.json,.epw,text/csv,text/plain,application/json"
          className="file-input min-h-11 bg-(--sheet)"
          aria-label={tr("Weather file")}
          onChange={() => {
            setSaid(undefined);
            look.reset();
          }}
        />
        <button type="button" className="btn min-h-11" disabled={send.isPending} onClick={withFile(send.mutate)}>
          {tr("Import")}
        </button>
        <button
          type="button"
          className="btn btn-ghost min-h-11"
          disabled={look.isPending}
          onClick={withFile(look.mutate)}
        >
          {tr("Say what its columns are")}
        </button>
      </div>
      {said && look.data && <Columns of={look.data} said={said} set={setSaid} />}
      {send.data && <Imported what={send.data} zone={place.timeZone} />}
      <div className="mt-2">
        <Refusal error={send.error ?? look.error} />
      </div>
    </section>
  );
}

/** What each column of a file is; the next file of the place is read the same way. */
function Columns({ of, said, set }: { of: Schemas["WeatherColumns"]; said: Said; set: (s: Said) => void }) {
  return (
    <table className="table-plain mt-3 text-sm" data-testid="columns">
      <caption className="quiet text-left">
        {tr("What each column is; the next file of this place is read the same way.")}
      </caption>
      <thead>
        <tr>
          <th>{tr("Column")}</th>
          <th>{tr("First")}</th>
          <th>{tr("Is")}</th>
        </tr>
      </thead>
      <tbody>
        {of.columns.map((c) => (
          <tr key={c.name}>
            <td>{c.name}</td>
            <td>{c.first}</td>
            <td>
              <select
                className="select min-h-11 bg-(--sheet)"
                aria-label={c.name}
                value={said[c.name] ?? ""}
                onChange={(e) => set({ ...said, [c.name]: e.target.value })}
              >
                <option value="">{tr("not read")}</option>
                {of.kinds.map((k) => (
                  <option key={k.key} value={k.key}>
                    {k.name}
                  </option>
                ))}
              </select>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What a file brought, and what of it could be meant otherwise. */
function Imported({ what, zone }: { what: Schemas["Import"]; zone: string }) {
  return (
    <>
      <p className="mt-2" role="status">
        {what.climate !== undefined
          ? tr("The usual months are those of {climate} now, {km} km from here: {rows} hours of a typical year.", {
              climate: what.climate,
              km: what.kmOff ?? 0,
              rows: what.rows,
            })
          : tr("{rows} rows are in: {measured} measured, {forecast} forecast, {from} to {to}.", {
              rows: what.rows,
              measured: what.measured,
              forecast: what.forecast,
              from: stamp(what.from, zone),
              to: stamp(what.to, zone),
            })}
      </p>
      {what.doubts.map((d) => (
        <p key={d} className="mt-1 border-l-4 border-warning pl-2 text-sm">
          {d}
        </p>
      ))}
    </>
  );
}
