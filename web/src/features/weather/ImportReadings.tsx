import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { upload } from "../../api/upload";
import { Check, Choice, Errors, NumberField, Refusal, TextField } from "../../ui/Form";
import { stamp } from "../../ui/time";
import { LOCALE, tr } from "../../words/words";

type Mapping = Schemas["Mapping"];
type Preview = Schemas["Preview"];

/** A logger's file: how it looks, how it is read, and then all of it or nothing. */
export function ImportReadings({
  instrument,
  zone,
  done,
}: {
  instrument: Schemas["Instrument"];
  zone: string;
  done: () => void;
}) {
  const [file, setFile] = useState<File>();
  const [seen, setSeen] = useState<Preview>();
  const [mapping, setMapping] = useState<Mapping>();
  const base = `/api/instruments/${instrument.id}`;
  const look = useChange(
    [],
    (f: File) => upload<Preview>(`${base}/preview`, {}, f),
    (p) => {
      setSeen(p);
      setMapping(p.mapping);
    },
  );
  const send = useChange(["readings"], () =>
    upload<Schemas["ReadingsIn"]>(`${base}/file`, { mapping: JSON.stringify(mapping) }, file as File),
  );
  return (
    <div className="mt-3 max-w-5xl border border-base-content p-4">
      <p className="quiet text-sm">
        {tr(
          "A table as loggers write it: any order of columns, commas, semicolons or tabs, decimal points or commas. All or nothing; rows that are there already are replaced.",
        )}
      </p>
      <input
        type="file"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        className="file-input mt-2 min-h-11 bg-(--sheet)"
        aria-label={tr("Readings file")}
        onChange={(e) => {
          const f = e.target.files?.[0];
          setFile(f);
          setSeen(undefined);
          send.reset();
          if (f) look.mutate(f);
        }}
      />
      <Refusal error={look.error} />
      {seen && mapping && (
        <Errors.Provider value={send.error?.fields ?? {}}>
          {seen.doubts.map((d) => (
            <p key={d} className="mt-2 border-l-4 border-warning pl-2 text-sm">
              {d}
            </p>
          ))}
          <div className="mt-3 overflow-x-auto">
            <table className="table-plain text-sm">
              <thead>
                <tr>
                  {seen.columns.map((c, i) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: columns have no other identity than their place
                    <th key={i}>
                      {c}
                      <div className="font-normal">{role(mapping, i)}</div>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {seen.rows.slice(0, 4).map((r) => (
                  <tr key={r.join("|")}>
                    {r.map((c, i) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: cells have no other identity than their place
                      <td key={i} className="whitespace-nowrap">
                        {c}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <MappingFields columns={seen.columns} mapping={mapping} set={setMapping} />
          <div className="mt-3 flex flex-wrap items-center gap-2">
            <button
              type="button"
              className="btn btn-primary min-h-11"
              disabled={send.isPending}
              onClick={() => send.mutate(undefined)}
            >
              {tr("Import these readings")}
            </button>
            <button type="button" className="btn btn-ghost min-h-11" onClick={done}>
              {tr("Close")}
            </button>
          </div>
          {send.data && (
            <p className="mt-2" role="status">
              {tr("{rows, plural, one {One reading is} other {{rows} readings are}} in, {from} to {to}. {notes}", {
                rows: send.data.rows.toLocaleString(LOCALE),
                from: stamp(send.data.from, zone),
                to: stamp(send.data.to, zone),
                notes: send.data.notes.join(" "),
              })}
            </p>
          )}
          <div className="mt-2">
            <Refusal error={send.error} />
          </div>
        </Errors.Provider>
      )}
    </div>
  );
}

function role(m: Mapping, i: number): string {
  if (i === m.time) return m.clock >= 0 ? "→ date" : "→ time";
  if (i === m.clock) return tr("→ time of day");
  if (i === m.temp) return m.tempMax === undefined ? "→ temperature" : tr("→ temperature, the least");
  if (i === m.tempMax) return tr("→ temperature, the greatest");
  if (i === m.rh) return m.rhMax === undefined ? "→ humidity" : tr("→ humidity, the least");
  if (i === m.rhMax) return tr("→ humidity, the greatest");
  return tr("not read");
}

function MappingFields({
  columns,
  mapping: m,
  set,
}: {
  columns: string[];
  mapping: Mapping;
  set: (m: Mapping) => void;
}) {
  const options = [{ value: "-1", label: tr("none") }, ...columns.map((c, i) => ({ value: String(i), label: c }))];
  const column = (key: "time" | "clock" | "temp" | "rh", label: string) => (
    <Choice
      name={`mapping.${key}`}
      label={label}
      value={String(m[key])}
      onChange={(v) =>
        set({
          ...m,
          [key]: Number(v),
          ...(key === "temp" && { tempMax: undefined }),
          ...(key === "rh" && { rhMax: undefined }),
        })
      }
      options={options}
    />
  );
  return (
    <div className="mt-3 grid grid-cols-2 gap-4 lg:grid-cols-4">
      {column("time", tr("Date and time"))}
      {column("clock", tr("Time of day, if apart"))}
      {column("temp", tr("Temperature"))}
      {column("rh", tr("Humidity"))}
      <Choice
        name="mapping.order"
        label={tr("Dates are written")}
        value={m.order}
        onChange={(order) => set({ ...m, order })}
        options={[
          { value: "ymd", label: tr("year month day") },
          { value: "dmy", label: tr("day month year") },
          { value: "mdy", label: tr("month day year") },
          { value: "unix", label: tr("seconds since 1970") },
          { value: "unix-ms", label: tr("milliseconds since 1970") },
        ]}
      />
      <TextField
        name="mapping.zone"
        label={tr("Times are in")}
        hint={tr("UTC, +01:00 or a zone such as Europe/London")}
        value={m.zone}
        onChange={(z) => set({ ...m, zone: z })}
      />
      <Choice
        name="mapping.tempUnit"
        label={tr("Temperatures are in")}
        value={m.tempUnit}
        onChange={(tempUnit) => set({ ...m, tempUnit })}
        options={[
          { value: "C", label: "°C" },
          { value: "F", label: "°F" },
        ]}
      />
      <Choice
        name="mapping.rhUnit"
        label={tr("Humidities are in")}
        value={m.rhUnit}
        onChange={(rhUnit) => set({ ...m, rhUnit })}
        options={[
          { value: "%", label: tr("per cent") },
          { value: "fraction", label: tr("shares of 1") },
        ]}
      />
      <Choice
        name="mapping.delimiter"
        label={tr("Columns are parted by")}
        value={m.delimiter}
        onChange={(delimiter) => set({ ...m, delimiter })}
        options={[
          { value: "comma", label: tr("commas") },
          { value: "semicolon", label: tr("semicolons") },
          { value: "tab", label: tr("tabs") },
          { value: "bar", label: tr("bars") },
        ]}
      />
      <NumberField
        name="mapping.headerLines"
        label={tr("Lines before the first reading")}
        unit=""
        value={m.headerLines}
        onChange={(v) => set({ ...m, headerLines: v ?? 0 })}
      />
      <Check
        name="mapping.newestFirst"
        label={tr("Newest first")}
        value={m.newestFirst ?? false}
        onChange={(newestFirst) => set({ ...m, newestFirst })}
      />
      <Check
        name="mapping.decimalComma"
        label={tr("Decimal commas")}
        value={m.decimalComma}
        onChange={(decimalComma) => set({ ...m, decimalComma })}
      />
    </div>
  );
}
