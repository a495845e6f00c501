import type { Schemas } from "../../api/client";
import { newID } from "../../api/outbox";
import { useMeta, useWritten } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { NumberField, TextField } from "../../ui/Form";
import { fromLocalField, toLocalField } from "../../ui/time";
import { type Edition, useEdition } from "../../ui/useEdition";
import { tr } from "../../words/words";

type Spot = { at: string; tempC?: number };

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
  const form = useEdition(undefined, (): Spot => ({ at: toLocalField(now, zone) }));
  const { at } = form;
  const save = useWritten<Edition<Spot>, unknown>(
    ["readings"],
    ({ value }) => [
      {
        id: newID(),
        label: tr("a reading of {name}", { name: instrument.name }),
        boatId: instrument.boatId ?? "",
        method: "POST",
        path: `/api/instruments/${instrument.id}/readings`,
        body: new Blob([JSON.stringify({ at: fromLocalField(value.at, zone), tempC: value.tempC })], {
          type: "application/x-ndjson",
        }),
      },
    ],
    done,
  );
  return (
    <EditForm
      form={form}
      save={save}
      needed={["tempC"]}
      wrong={(spot): Record<string, string> =>
        fromLocalField(spot.at, zone) ? {} : { at: tr("give the day and time") }
      }
      says={tr("Note it")}
      className="mt-3 max-w-2xl border border-base-content p-4"
    >
      <div className="grid gap-4 sm:grid-cols-2">
        <NumberField {...at("tempC")} label={tr("Surface shows")} unit="°C" />
        <TextField {...at("at")} label={tr("When")} type="datetime-local" />
      </div>
    </EditForm>
  );
}
