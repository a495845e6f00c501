import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Choice, Errors, Refusal, TextField } from "../../ui/Form";
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
  const { edit, set } = form;
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
    <Errors.Provider value={save.error?.fields ?? {}}>
      <form
        className="mt-3 max-w-4xl border border-base-content p-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate(form.sent);
        }}
      >
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField
            name="name"
            label={tr("Name")}
            hint={tr("as it is marked")}
            value={edit.name}
            onChange={(name) => set({ name })}
          />
          <Choice
            name="kind"
            label={tr("It measures")}
            value={edit.kind}
            onChange={(k) => set({ kind: k })}
            options={(words?.instruments ?? []).map((k) => ({ value: k.key as Edit["kind"], label: k.name }))}
          />
          {kind?.surface && (
            <Choice
              name="surfaceId"
              label={tr("On the surface")}
              value={edit.surfaceId ?? ""}
              onChange={(surfaceId) => set({ surfaceId })}
              options={survey.surfaces.map((s) => ({ value: s.id, label: s.name }))}
            />
          )}
          <Choice
            name="feed"
            label={tr("Its readings come")}
            value={edit.feed}
            onChange={(feed) => set({ feed })}
            options={[
              { value: "file", label: tr("from files, or by hand") },
              { value: "live", label: tr("by themselves, over the network") },
              { value: "simulated", label: tr("from a simulated one, for trying out") },
            ]}
          />
          {edit.feed === "simulated" && (
            <Choice
              name="fault"
              label={tr("Its fault")}
              hint={tr("to see whether the program notices")}
              value={edit.fault ?? ""}
              onChange={(fault) => set({ fault })}
              options={(words?.faults ?? []).map((f) => ({
                value: f.key as NonNullable<Edit["fault"]>,
                label: f.name,
              }))}
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
        <div className="mt-3 flex flex-col gap-3">
          <Refusal error={save.error} />
          <Conflict
            error={save.error}
            mine={edit}
            stored={editOf}
            onMine={(c: Schemas["Instrument"]) => save.mutate(form.over(c))}
            onTheirs={(c) => {
              form.take(c);
              save.reset();
            }}
          />
          <div className="flex gap-2">
            <button type="submit" className="btn btn-primary min-h-11" disabled={save.isPending}>
              {instrument ? tr("Save") : tr("Add")}
            </button>
            <button type="button" className="btn btn-ghost min-h-11" onClick={done}>
              {tr("Cancel")}
            </button>
          </div>
        </div>
      </form>
    </Errors.Provider>
  );
}
