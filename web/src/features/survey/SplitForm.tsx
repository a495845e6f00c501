import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Errors, NumberField, Refusal, TextField } from "../../ui/Form";
import { tr } from "../../words/words";

/** Takes a share of a surface into a new one. */
export function SplitForm({
  surface,
  version,
  done,
}: {
  surface: Schemas["Surface"];
  version: number;
  done: () => void;
}) {
  const [pct, setPct] = useState<number | undefined>(50);
  const [name, setName] = useState(`${surface.name}, forward`);
  const split = useChange(
    ["surfaces", "steps", "log"],
    () =>
      ok(
        api.POST("/api/surfaces/{id}/split", {
          params: { path: { id: surface.id } },
          body: { version, pct: pct ?? 0, name },
        }),
      ),
    done,
  );
  return (
    <Errors.Provider value={split.error?.fields ?? {}}>
      <form
        className="mt-3 max-w-2xl border border-base-content p-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          split.mutate(undefined);
        }}
      >
        <p className="mb-3">
          {tr(
            "Take a part of {name} into a surface of its own. Measurements, old layers and planned coats go with both; the log stays here.",
            { name: surface.name },
          )}
        </p>
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField name="name" label={tr("New surface's name")} value={name} onChange={setName} />
          <NumberField name="pct" label={tr("Its share")} unit="%" value={pct} onChange={setPct} />
        </div>
        <div className="mt-3 flex flex-col gap-2">
          <Refusal error={split.error} />
          <div className="flex gap-2">
            <button type="submit" className="btn btn-primary min-h-11">
              {tr("Split it")}
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
