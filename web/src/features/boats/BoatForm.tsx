import { useState } from "react";
import { useNavigate } from "react-router";
import { api, ok, type Schemas } from "../../api/client";
import { useBoats, useChange, useMeta, usePlaces } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Check, Choice, Errors, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { Answer } from "../../ui/Page";
import { type PlaceDraft, PlaceFields } from "./PlaceForm";
import { WeekFields } from "./WeekFields";

const NEW_PLACE = "new";
const DIMENSIONS = ["loaM", "lwlM", "beamM", "draughtM", "freeboardM"];

type Draft = Omit<Schemas["BoatEdit"], "dimensions" | "headingDeg"> & {
  headingDeg?: number;
  dimensions: { hullForm: string } & Partial<Omit<Schemas["AreaDimensions"], "hullForm">>;
};

const NOWHERE: PlaceDraft = { name: "", timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone, weatherSource: "simulated" };

const draftOf = (b?: Schemas["Boat"]): Draft =>
  b
    ? {
        name: b.name,
        type: b.type,
        placeId: b.placeId,
        headingDeg: b.headingDeg,
        launchDate: b.launchDate,
        lights: b.lights,
        dimensions: b.dimensions,
        displacementT: b.displacementT,
        week: b.week,
        crew: b.crew,
        dewFreeH: b.dewFreeH,
      }
    : {
        name: "",
        type: "",
        placeId: "",
        headingDeg: 0,
        launchDate: "",
        lights: false,
        displacementT: 0,
        dimensions: { hullForm: "medium", housesM2: 0 },
      };

/** A new boat, or the boat given for changing. */
export function BoatForm({ boat, done }: { boat?: Schemas["Boat"]; done?: () => void }) {
  const meta = useMeta().data;
  const places = usePlaces().data ?? [];
  const first = useBoats().data?.length === 0;
  const go = useNavigate();
  const [draft, setDraft] = useState<Draft>(() => draftOf(boat));
  const [version, setVersion] = useState(boat?.version ?? 0);
  const [place, setPlace] = useState<PlaceDraft>(NOWHERE);
  const [local, setLocal] = useState<Record<string, string>>({});
  const [template, setTemplate] = useState("plain");
  const [substrate, setSubstrate] = useState<NonNullable<Schemas["NewBoat"]["substrate"]>>("grp");
  const form = meta?.hullForms.find((h) => h.form === draft.dimensions.hullForm);
  const at = draft.placeId || places[0]?.id || NEW_PLACE;
  const newPlace = at === NEW_PLACE;

  const save = useChange(
    ["boat", "place", "surfaces", "weather"],
    (v: number) => {
      const value = {
        ...(draft as Schemas["BoatEdit"]),
        placeId: newPlace ? "" : at,
        ...(newPlace && { newPlace: place as Schemas["PlaceEdit"] }),
      };
      return boat
        ? ok(api.PUT("/api/boats/{id}", { params: { path: { id: boat.id } }, body: { version: v, value } }))
        : ok(api.POST("/api/boats", { body: { ...value, template, substrate } }));
    },
    (b) => (done ? done() : go(`/boats/${b.id}/survey`)),
  );
  const submit = (v = version) => {
    const missing = {
      ...unsendable(draft, ["headingDeg", ...DIMENSIONS.map((d) => `dimensions.${d}`)]),
      ...(newPlace ? unsendable({ newPlace: place }, ["newPlace.latitudeDeg", "newPlace.longitudeDeg"]) : {}),
    };
    setLocal(missing);
    save.reset();
    if (Object.keys(missing).length === 0) save.mutate(v);
  };
  const dim = (k: keyof Schemas["AreaDimensions"], label: string, unit: string, hint?: string) => (
    <NumberField
      name={`dimensions.${k}`}
      label={label}
      hint={hint}
      unit={unit}
      value={draft.dimensions[k as "loaM"]}
      onChange={(v) => setDraft({ ...draft, dimensions: { ...draft.dimensions, [k]: v } })}
    />
  );
  return (
    <>
      {!boat && (
        <Answer
          answer={
            first
              ? "Begin with a boat: her name, where she stands, and five measurements."
              : "Add a boat: her name, where she stands, and five measurements."
          }
          detail="Her surfaces follow from these, each with how far it may be out. Better measurements can replace them one by one."
        />
      )}
      <Errors.Provider value={{ ...local, ...save.error?.fields }}>
        <form
          className="max-w-4xl"
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            submit();
          }}
        >
          <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
            <TextField name="name" label="Name" value={draft.name} onChange={(name) => setDraft({ ...draft, name })} />
            <TextField
              name="type"
              label="Type"
              hint="such as GRP launch"
              value={draft.type}
              onChange={(type) => setDraft({ ...draft, type })}
            />
            <TextField
              name="launchDate"
              label="Launch date"
              type="date"
              value={draft.launchDate}
              onChange={(launchDate) => setDraft({ ...draft, launchDate })}
            />
            <Choice
              name="placeId"
              label="Stands at"
              value={at}
              onChange={(placeId) => setDraft({ ...draft, placeId })}
              options={[...places.map((p) => ({ value: p.id, label: p.name })), { value: NEW_PLACE, label: "a new place…" }]}
            />
            <NumberField
              name="headingDeg"
              label="Bow points to"
              hint="degrees from true north, clockwise"
              unit="°"
              value={draft.headingDeg}
              onChange={(headingDeg) => setDraft({ ...draft, headingDeg })}
            />
            <Check
              name="lights"
              label="Work lights"
              hint="coats may be laid in the dark"
              value={draft.lights}
              onChange={(lights) => setDraft({ ...draft, lights })}
            />
            <NumberField
              name="dewFreeH"
              label="Hours above the dew point"
              hint="that you want after a coat, where the sheet asks for fewer"
              unit="h"
              value={draft.dewFreeH}
              onChange={(dewFreeH) => setDraft({ ...draft, dewFreeH })}
            />
          </div>
          <WeekFields week={draft.week} crew={draft.crew ?? 1} set={(w) => setDraft({ ...draft, ...w })} />
          {newPlace && (
            <fieldset className="mt-4 border border-base-300 p-4">
              <legend className="px-1 font-slab font-semibold">The new place</legend>
              <PlaceFields prefix="newPlace." place={place} set={setPlace} />
            </fieldset>
          )}
          <div className="mt-4 grid grid-cols-2 gap-4 lg:grid-cols-4">
            <Choice
              name="dimensions.hullForm"
              label="Hull form"
              value={draft.dimensions.hullForm}
              onChange={(hullForm) => setDraft({ ...draft, dimensions: { ...draft.dimensions, hullForm } })}
              options={(meta?.hullForms ?? []).map((h) => ({ value: h.form, label: h.name }))}
            />
            {dim("loaM", "Length over all", "m")}
            {dim("lwlM", "Waterline length", "m")}
            {dim("beamM", "Beam", "m")}
            {dim("draughtM", "Draught", "m")}
            {form && !form.open && dim("bodyDraughtM", "Draught of the hull", "m", "without fin, skeg and rudder, if known")}
            {form && form.hulls > 1 && dim("hullBeamM", "Beam of one hull", "m", "at the waterline, if known")}
            {dim("freeboardM", "Mean freeboard", "m")}
            {dim("housesM2", "Houses and openings", "m²", "plan area that is not deck")}
            <NumberField
              name="displacementT"
              label="Displacement"
              hint="if known: it checks the bottom's area"
              unit="t"
              value={draft.displacementT || undefined}
              onChange={(v) => setDraft({ ...draft, displacementT: v ?? 0 })}
            />
            {!boat && (
              <>
                <Choice
                  name="template"
                  label="Hull type"
                  hint="gives a set of surfaces to start from"
                  value={template}
                  onChange={setTemplate}
                  options={[
                    ...(meta?.survey.templates ?? []).map((t) => ({ value: t.key, label: t.name })),
                    { value: "", label: "none: no surfaces yet" },
                  ]}
                />
                <Choice
                  name="substrate"
                  label="Mostly of"
                  value={substrate}
                  onChange={setSubstrate}
                  options={(meta?.survey.substrates ?? []).map((s) => ({ value: s.key as typeof substrate, label: s.name }))}
                />
              </>
            )}
          </div>
          <div className="mt-4 flex flex-col gap-3">
            <Refusal error={save.error?.status === 409 ? null : save.error} />
            <div className="flex gap-2">
              <button type="submit" className="btn btn-primary min-h-11" disabled={save.isPending}>
                {boat ? "Save" : "Add the boat"}
              </button>
              {done && (
                <button type="button" className="btn btn-ghost min-h-11" onClick={done}>
                  Cancel
                </button>
              )}
            </div>
          </div>
        </form>
      </Errors.Provider>
      {boat && (
        <Conflict
          error={save.error}
          mine={draft}
          stored={(c: Schemas["Boat"]) => draftOf(c)}
          onMine={(c) => {
            setVersion(c.version);
            submit(c.version);
          }}
          onTheirs={(c) => {
            setDraft(draftOf(c));
            setVersion(c.version);
            save.reset();
          }}
        />
      )}
    </>
  );
}
