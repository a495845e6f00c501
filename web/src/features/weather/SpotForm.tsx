import { useState } from "react";
import type { Schemas } from "../../api/client";
import { newID } from "../../api/outbox";
import { useMeta, useWritten } from "../../api/queries";
import { Errors, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { fromLocalField, toLocalField } from "../../ui/time";
import { tr } from "../../words/words";

/** One reading of a hand-held thermometer, noted now or a little later. */
export function SpotForm({
  instrument,
  zone,
  done,
}: {
  instrument: Schemas["Instrument"];
  zone: string;
  done: () => void;
}) {
  const now = useMeta().data?.now ?? "";
  const [at, setAt] = useState(() => toLocalField(now, zone));
  const [tempC, setTempC] = useState<number>();
  const [local, setLocal] = useState<Record<string, string>>({});
  const save = useWritten<undefined, unknown>(
    ["readings"],
    () => [
      {
        id: newID(),
        label: tr("a reading of {name}", { name: instrument.name }),
        boatId: instrument.boatId ?? "",
        method: "POST",
        path: `/api/instruments/${instrument.id}/readings`,
        body: new Blob([JSON.stringify({ at: fromLocalField(at, zone), tempC })], { type: "application/x-ndjson" }),
      },
    ],
    done,
  );
  return (
    <Errors.Provider value={{ ...local, ...save.error?.fields }}>
      <form
        className="mt-3 grid max-w-2xl items-end gap-4 border border-base-content p-4 sm:grid-cols-3"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          const missing = unsendable({ tempC, at: fromLocalField(at, zone) || undefined }, ["tempC", "at"]);
          setLocal(missing);
          if (Object.keys(missing).length === 0) save.mutate(undefined);
        }}
      >
        <NumberField name="tempC" label={tr("Surface shows")} unit="°C" value={tempC} onChange={setTempC} />
        <TextField name="at" label={tr("When")} type="datetime-local" value={at} onChange={setAt} />
        <button type="submit" className="btn btn-primary min-h-11" disabled={save.isPending}>
          {tr("Note it")}
        </button>
        <div className="sm:col-span-3">
          <Refusal error={save.error} />
        </div>
      </form>
    </Errors.Provider>
  );
}
