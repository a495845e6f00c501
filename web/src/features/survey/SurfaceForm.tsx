import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Choice, Errors, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { METHODS } from "./Survey";

type Edit = Schemas["SurfaceEdit"];
const NEEDED: Record<string, string[]> = {
  principal: [],
  strip: ["measure.lengthM", "measure.widthM", "measure.count"],
  stated: ["measure.areaM2", "measure.uncertaintyPct"],
};
const editOf = (s?: Schemas["Surface"]): Edit =>
  s
    ? { name: s.name, part: s.part, side: s.side, substrate: s.substrate, measure: s.measure }
    : { name: "", part: "other", side: "both", substrate: "", measure: { method: "strip", count: 1 } };

/** A new surface of a boat, or the surface given for changing. */
export function SurfaceForm({ boatId, surface, done }: { boatId: string; surface?: Schemas["Surface"]; done: () => void }) {
  const [edit, setEdit] = useState(() => editOf(surface));
  const [version, setVersion] = useState(surface?.version ?? 0);
  const [local, setLocal] = useState<Record<string, string>>({});
  const save = useChange(
    (v: number) =>
      surface
        ? ok(api.PUT("/api/surfaces/{id}", { params: { path: { id: surface.id } }, body: { version: v, value: edit } }))
        : ok(api.POST("/api/boats/{id}/surfaces", { params: { path: { id: boatId } }, body: edit })),
    (s) => {
      setVersion(s.version);
      done();
    },
  );
  const submit = (v = version) => {
    const missing = unsendable(edit, NEEDED[edit.measure.method]);
    setLocal(missing);
    save.reset();
    if (Object.keys(missing).length === 0) save.mutate(v);
  };
  const measure = (m: Partial<Edit["measure"]>) => setEdit({ ...edit, measure: { ...edit.measure, ...m } });
  return (
    <Errors.Provider value={{ ...local, ...save.error?.fields }}>
      <form
        className="max-w-4xl"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          submit();
        }}
      >
        <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
          <TextField name="name" label="Name" value={edit.name} onChange={(name) => setEdit({ ...edit, name })} />
          <Choice
            name="part"
            label="Part"
            value={edit.part}
            onChange={(part) => setEdit({ ...edit, part })}
            options={(["bottom", "topsides", "deck", "other"] as const).map((v) => ({ value: v, label: v }))}
          />
          <Choice
            name="side"
            label="Side"
            value={edit.side}
            onChange={(side) => setEdit({ ...edit, side })}
            options={(["both", "port", "starboard"] as const).map((v) => ({ value: v, label: v }))}
          />
          <TextField
            name="substrate"
            label="Substrate"
            hint="such as GRP, steel, mahogany"
            value={edit.substrate}
            onChange={(substrate) => setEdit({ ...edit, substrate })}
          />
          <Choice
            name="measure.method"
            label="Area by"
            value={edit.measure.method}
            onChange={(method) => measure({ method })}
            options={(["principal", "strip", "stated"] as const).map((v) => ({ value: v, label: METHODS[v] ?? v }))}
          />
          {edit.measure.method === "strip" && (
            <>
              <NumberField
                name="measure.lengthM"
                label="Length"
                unit="m"
                value={edit.measure.lengthM}
                onChange={(lengthM) => measure({ lengthM })}
              />
              <NumberField
                name="measure.widthM"
                label="Developed width"
                hint="over the curve, by tape"
                unit="m"
                value={edit.measure.widthM}
                onChange={(widthM) => measure({ widthM })}
              />
              <NumberField
                name="measure.count"
                label="Pieces"
                unit=""
                value={edit.measure.count}
                onChange={(count) => measure({ count })}
              />
            </>
          )}
          {edit.measure.method === "stated" && (
            <>
              <NumberField
                name="measure.areaM2"
                label="Area"
                unit="m²"
                value={edit.measure.areaM2}
                onChange={(areaM2) => measure({ areaM2 })}
              />
              <NumberField
                name="measure.uncertaintyPct"
                label="Uncertainty"
                hint="one standard deviation"
                unit="%"
                value={edit.measure.uncertaintyPct}
                onChange={(uncertaintyPct) => measure({ uncertaintyPct })}
              />
            </>
          )}
        </div>
        <div className="mt-4 flex flex-col gap-3">
          <Refusal error={save.error?.status === 409 ? null : save.error} />
          <div className="flex gap-2">
            <button type="submit" className="btn btn-primary min-h-11" disabled={save.isPending}>
              {surface ? "Save" : "Add the surface"}
            </button>
            {!surface && (
              <button type="button" className="btn btn-ghost min-h-11" onClick={done}>
                Cancel
              </button>
            )}
          </div>
        </div>
      </form>
      {surface && (
        <Conflict
          error={save.error}
          mine={edit}
          stored={(c: Schemas["Surface"]) => editOf(c)}
          onMine={(c) => {
            setVersion(c.version);
            submit(c.version);
          }}
          onTheirs={(c) => {
            setEdit(editOf(c));
            setVersion(c.version);
            save.reset();
          }}
        />
      )}
    </Errors.Provider>
  );
}
