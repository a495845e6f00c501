import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useSystems } from "../../api/queries";
import { AreaField, Choice, Errors, Refusal, TextField } from "../../ui/Form";
import { tr } from "../../words/words";

const NEW = "new";

/** Keeps the steps of a surface as a named system, or as a new version of one. */
export function SaveSystem({
  steps,
  surface,
  done,
}: {
  steps: Schemas["Step"][];
  surface: Schemas["Surface"];
  done: () => void;
}) {
  const systems = useSystems().data ?? [];
  const [id, setId] = useState(NEW);
  const [version, setVersion] = useState(0); // of the one that was chosen, as it was then
  const [name, setName] = useState(`${surface.name}, ${surface.substrateName}`);
  const [note, setNote] = useState("");
  const old = systems.find((s) => s.id === id);
  const save = useChange(
    ["systems"],
    () => {
      const value = {
        name: old?.name ?? name,
        note: old ? note || old.note : note,
        steps: steps.map(({ id: _, ...s }) => s),
      };
      return old
        ? ok(api.PUT("/api/systems/{id}", { params: { path: { id: old.id } }, body: { version, value } }))
        : ok(api.POST("/api/systems", { body: value }));
    },
    done,
  );
  return (
    <Errors.Provider value={save.error?.fields ?? {}}>
      <form
        className="mb-6 max-w-3xl border border-base-content p-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate(undefined);
        }}
      >
        <h2 className="mb-3 text-lg">{tr("Keep these steps as a system")}</h2>
        <div className="grid gap-4 sm:grid-cols-2">
          <Choice
            name="id"
            label={tr("As")}
            value={id}
            onChange={(s) => {
              setId(s);
              setVersion(systems.find((o) => o.id === s)?.version ?? 0);
            }}
            options={[
              { value: NEW, label: tr("a new system") },
              ...systems.map((s) => ({
                value: s.id,
                label: tr("version {version} of {name}", { version: s.version + 1, name: s.name }),
              })),
            ]}
          />
          {!old && <TextField name="name" label={tr("Name")} value={name} onChange={setName} />}
          <div className="sm:col-span-2">
            <AreaField name="note" label={tr("Note")} rows={2} value={note} onChange={setNote} />
          </div>
        </div>
        <Refusal error={save.error} />
        <div className="mt-3 flex gap-2">
          <button type="submit" className="btn btn-primary min-h-11">
            {tr("Keep it")}
          </button>
          <button type="button" className="btn btn-ghost min-h-11" onClick={done}>
            {tr("Cancel")}
          </button>
        </div>
      </form>
    </Errors.Provider>
  );
}
