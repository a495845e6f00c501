import { useRef } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { stamp } from "../../ui/time";
import { tr, trNodes } from "../../words/words";

/** A record or forecast of the place from a file. */
export function ImportFile({ place }: { place: Schemas["Place"] }) {
  const file = useRef<HTMLInputElement>(null);
  const send = useChange(["weather", "place"], (f: File) =>
    ok(
      api.POST("/api/places/{id}/weather", {
        params: { path: { id: place.id } },
        body: f as unknown as string,
        bodySerializer: (b) => b as unknown as BodyInit,
        headers: { "Content-Type": "text/csv" },
      }),
    ),
  );
  return (
    <section className="mt-8 max-w-3xl border-t border-base-content pt-4">
      <h2 className="text-lg">{tr("Import a forecast or record")}</h2>
      <p className="quiet text-sm">
        {trNodes(
          "A table as it comes: time, temperature, humidity or dew point, and if you have them wind, rain, cloud, light; columns in any order, units in the header or the cells; or a forecast as JSON, with hourly arrays or an array of hours. A climate file (EPW) sets the usual months. What could be meant otherwise is told. Times without a zone are read as {timeZone}. Times up to now count as measured, later ones as forecast. All or nothing, at most 16 MB.{weatherSource}",
          {
            timeZone: place.timeZone,
            weatherSource: place.weatherSource === "simulated" && tr(" It replaces the simulated weather of this place."),
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
        />
        <button
          type="button"
          className="btn min-h-11"
          disabled={send.isPending}
          onClick={() => file.current?.files?.[0] && send.mutate(file.current.files[0])}
        >
          {tr("Import")}
        </button>
      </div>
      {send.data && (
        <p className="mt-2" role="status">
          {send.data.climate !== undefined
            ? tr("The usual months are those of {climate} now, {km} km from here: {rows} hours of a typical year.", {
                climate: send.data.climate,
                km: send.data.kmOff ?? 0,
                rows: send.data.rows,
              })
            : tr("{rows} rows are in: {measured} measured, {forecast} forecast, {from} to {to}.", {
                rows: send.data.rows,
                measured: send.data.measured,
                forecast: send.data.forecast,
                from: stamp(send.data.from, place.timeZone),
                to: stamp(send.data.to, place.timeZone),
              })}
        </p>
      )}
      {send.data?.doubts.map((d) => (
        <p key={d} className="mt-1 border-l-4 border-warning pl-2 text-sm">
          {d}
        </p>
      ))}
      <div className="mt-2">
        <Refusal error={send.error} />
      </div>
    </section>
  );
}
