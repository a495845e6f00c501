import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { Choice, TextField } from "../../ui/Form";
import { type Edition, useEdition } from "../../ui/useEdition";
import { tr, trNodes } from "../../words/words";

type Edit = Schemas["InstrumentEdit"];

/** A logger or probe: what it measures and where, and how its readings come. */
export function InstrumentForm({
  survey,
  instrument,
  done,
}: {
  survey: Schemas["Survey"];
  instrument?: Schemas["Instrument"];
  done: () => void;
}) {
  const words = useMeta().data?.weather;
  const editOf = (i?: Schemas["Instrument"]): Edit => ({
    name: i?.name ?? "",
    kind: i?.kind ?? "air",
    feed: i?.feed ?? "file",
    fault: i?.fault ?? "",
    surfaceId: i ? i.surfaceId : (survey.surfaces[0]?.id ?? ""),
    boatId: survey.boat.id,
  });
  const form = useEdition(instrument, editOf);
  const { edit, at } = form;
  const save = useChange(
    ["readings"],
    (sent: Edition<Edit>) =>
      instrument
        ? ok(api.PUT("/api/instruments/{id}", { params: { path: { id: instrument.id } }, body: sent }))
        : ok(api.POST("/api/places/{id}/instruments", { params: { path: { id: survey.place.id } }, body: sent.value })),
    done,
  );
  const kind = words?.instruments.find((k) => k.key === edit.kind);
  return (
    <EditForm
      form={form}
      save={save}
      says={instrument ? tr("Save") : tr("Add")}
      cancel={done}
      className="mt-3 max-w-4xl border border-base-content p-4"
    >
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField {...at("name")} label={tr("Name")} hint={tr("as it is marked")} />
        <Choice
          {...at("kind")}
          label={tr("It measures")}
          options={(words?.instruments ?? []).map((k) => ({ value: k.key, label: k.name }))}
        />
        {kind?.surface && (
          <Choice
            {...at("surfaceId")}
            label={tr("On the surface")}
            options={survey.surfaces.map((s) => ({ value: s.id, label: s.name }))}
          />
        )}
        <Choice
          {...at("feed")}
          label={tr("Its readings come")}
          options={[
            { value: "file", label: tr("from files, or by hand") },
            { value: "live", label: tr("by themselves, over the network") },
            { value: "simulated", label: tr("from a simulated one, for trying out") },
          ]}
        />
        {edit.feed === "simulated" && (
          <Choice
            {...at("fault")}
            label={tr("Its fault")}
            hint={tr("to see whether the program notices")}
            options={(words?.faults ?? []).map((f) => ({ value: f.key, label: f.name }))}
          />
        )}
      </div>
      {edit.feed === "live" && (
        <p className="quiet mt-2 text-sm">
          {trNodes(
            'It posts JSON lines such as \'{\'"at":"2026-05-09T10:00:00Z","tempC":12.4,"rhPct":71\'}\' to {id}.',
            {
              id: <code>{`/api/instruments/${instrument?.id ?? "ID"}/readings`}</code>,
            },
          )}
        </p>
      )}
    </EditForm>
  );
}
