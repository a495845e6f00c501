import type { ReactNode } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useBoats, useChange } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Errors, Refusal } from "../../ui/Form";
import { useEdition } from "../../ui/useEdition";
import { editOf } from "./edit";

type Edit = Schemas["BoatEdit"];

/** Some fields of a boat on a screen that reckons with them, kept by a press; said names that. */
export function BoatFields(props: {
  boatId: string;
  said: string;
  fields: (at: ReturnType<typeof useEdition<Schemas["Boat"], Edit>>["at"]) => ReactNode;
}) {
  const boat = (useBoats().data ?? []).find((b) => b.id === props.boatId);
  return boat ? <Fields key={boat.id} boat={boat} {...props} /> : null;
}

function Fields({ boat, said, fields }: { boat: Schemas["Boat"] } & Omit<Parameters<typeof BoatFields>[0], "boatId">) {
  const form = useEdition(boat, editOf);
  const save = useChange(
    ["boat"],
    (sent: typeof form.sent) => ok(api.PUT("/api/boats/{id}", { params: { path: { id: boat.id } }, body: sent })),
    (b) => form.take(b),
  );
  return (
    <Errors.Provider value={save.error?.fields ?? {}}>
      <form
        className="no-print mt-4 flex flex-wrap items-start gap-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate(form.sent);
        }}
      >
        {fields(form.at)}
        {form.changed && (
          <button type="submit" className="btn mt-6 min-h-11" disabled={save.isPending}>
            {said}
          </button>
        )}
      </form>
      <Refusal error={save.error?.status === 409 ? null : save.error} />
      <Conflict
        error={save.error}
        mine={form.edit}
        stored={editOf}
        onMine={(c: Schemas["Boat"]) => save.mutate(form.over(c))}
        onTheirs={(c) => {
          form.take(c);
          save.reset();
        }}
      />
    </Errors.Provider>
  );
}
