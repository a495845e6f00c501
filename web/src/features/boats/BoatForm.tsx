import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta, usePlaces } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Check, Choice, Errors, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { useChanged } from "../../ui/unsaved";
import { tr } from "../../words/words";
import { editOf } from "./edit";
import { nowhere, PlaceFields } from "./PlaceForm";
import { WeekFields } from "./WeekFields";

const NEW_PLACE = "new";

const NEEDED = ["headingDeg", "dimensions.loaM", "dimensions.beamM"];

type Dimension = Exclude<keyof Schemas["AreaDimensions"], "hullForm" | "guessed">;
type Draft = Omit<Schemas["BoatEdit"], "dimensions" | "headingDeg"> & {
  headingDeg?: number;
  dimensions: { hullForm: string } & Partial<Omit<Schemas["AreaDimensions"], "hullForm">>;
};

const draftOf = (b: Schemas["Boat"]): Draft => editOf(b);

/** Changes a boat. What is left empty of her dimensions is guessed from length and beam. */
export function BoatForm({ boat, done }: { boat: Schemas["Boat"]; done: () => void }) {
  const meta = useMeta().data;
  const places = usePlaces().data ?? [];
  const [first] = useState<Draft>(() => draftOf(boat));
  const [draft, setDraft] = useState<Draft>(first);
  useChanged(draft, first);
  const [version, setVersion] = useState(boat.version);
  const [place, setPlace] = useState(nowhere);
  const [local, setLocal] = useState<Record<string, string>>({});
  const form = meta?.hullForms.find((h) => h.form === draft.dimensions.hullForm);
  const newPlace = draft.placeId === NEW_PLACE;
  const guessed = draft.dimensions.guessed ?? [];

  const save = useChange(
    ["boat", "place", "surfaces", "weather"],
    (v: number) => {
      const value = {
        ...(draft as Schemas["BoatEdit"]),
        ...(newPlace && { placeId: "", newPlace: place as Schemas["PlaceEdit"] }),
      };
      return ok(api.PUT("/api/boats/{id}", { params: { path: { id: boat.id } }, body: { version: v, value } }));
    },
    done,
  );
  const submit = (v = version) => {
    const missing = {
      ...unsendable(draft, NEEDED),
      ...(newPlace && unsendable({ newPlace: place }, ["newPlace.latitudeDeg", "newPlace.longitudeDeg"])),
    };
    setLocal(missing);
    save.reset();
    if (Object.keys(missing).length === 0) save.mutate(v);
  };
  const dim = (k: Dimension, label: string, unit: string, hint?: string) => (
    <NumberField
      name={`dimensions.${k}`}
      label={label}
      hint={guessed.includes(k as (typeof guessed)[number]) ? tr("guessed: measure her") : hint}
      unit={unit}
      value={draft.dimensions[k]}
      onChange={(v) =>
        setDraft({
          ...draft,
          dimensions: { ...draft.dimensions, [k]: v, guessed: guessed.filter((g) => g !== k) as typeof guessed },
        })
      }
    />
  );
  return (
    <>
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
            <TextField
              name="name"
              label={tr("Name")}
              value={draft.name}
              onChange={(name) => setDraft({ ...draft, name })}
            />
            <TextField
              name="type"
              label={tr("Type")}
              hint={tr("such as GRP launch")}
              value={draft.type}
              onChange={(type) => setDraft({ ...draft, type })}
            />
            <TextField
              name="launchDate"
              label={tr("Launch date")}
              type="date"
              value={draft.launchDate}
              onChange={(launchDate) => setDraft({ ...draft, launchDate })}
            />
            <Choice
              name="placeId"
              label={tr("Stands at")}
              value={draft.placeId}
              onChange={(placeId) => setDraft({ ...draft, placeId })}
              options={[
                ...places.map((p) => ({ value: p.id, label: p.name })),
                { value: NEW_PLACE, label: tr("a new place…") },
              ]}
            />
            <NumberField
              name="headingDeg"
              label={tr("Bow points to")}
              hint={tr("degrees from true north, clockwise")}
              unit="°"
              value={draft.headingDeg}
              onChange={(headingDeg) => setDraft({ ...draft, headingDeg })}
            />
            <Check
              name="lights"
              label={tr("Work lights")}
              hint={tr("coats may be laid in the dark")}
              value={draft.lights}
              onChange={(lights) => setDraft({ ...draft, lights })}
            />
            <NumberField
              name="dewFreeH"
              label={tr("Hours above the dew point")}
              hint={tr("that you want after a coat, where the sheet asks for fewer")}
              unit="h"
              value={draft.dewFreeH}
              onChange={(dewFreeH) => setDraft({ ...draft, dewFreeH })}
            />
          </div>
          <WeekFields week={draft.week} crew={draft.crew ?? 1} set={(w) => setDraft({ ...draft, ...w })} />
          {newPlace && (
            <fieldset className="mt-4 border border-base-300 p-4">
              <legend className="px-1 font-slab font-semibold">{tr("The new place")}</legend>
              <PlaceFields prefix="newPlace." place={place} set={setPlace} />
            </fieldset>
          )}
          <div className="mt-4 grid grid-cols-2 gap-4 lg:grid-cols-4">
            <Choice
              name="dimensions.hullForm"
              label={tr("Hull form")}
              value={draft.dimensions.hullForm}
              onChange={(hullForm) => setDraft({ ...draft, dimensions: { ...draft.dimensions, hullForm } })}
              options={(meta?.hullForms ?? []).map((h) => ({ value: h.form, label: h.name }))}
            />
            {dim("loaM", tr("Length over all"), "m")}
            {dim("lwlM", tr("Waterline length"), "m")}
            {dim("beamM", tr("Beam"), "m")}
            {dim("draughtM", tr("Draught"), "m")}
            {form &&
              !form.open &&
              dim("bodyDraughtM", tr("Draught of the hull"), "m", tr("without fin, skeg and rudder, if known"))}
            {form && form.hulls > 1 && dim("hullBeamM", tr("Beam of one hull"), "m", tr("at the waterline, if known"))}
            {dim("freeboardM", tr("Mean freeboard"), "m")}
            {dim("housesM2", tr("Houses and openings"), "m²", tr("plan area that is not deck"))}
            <NumberField
              name="displacementT"
              label={tr("Displacement")}
              hint={tr("if known: it checks the bottom's area")}
              unit="t"
              value={draft.displacementT || undefined}
              onChange={(v) => setDraft({ ...draft, displacementT: v ?? 0 })}
            />
          </div>
          <div className="mt-4 flex flex-col gap-3">
            <Refusal error={save.error?.status === 409 ? null : save.error} />
            <div className="flex gap-2">
              <button type="submit" className="btn btn-primary min-h-11" disabled={save.isPending}>
                {tr("Save")}
              </button>
              <button type="button" className="btn btn-ghost min-h-11" onClick={done}>
                {tr("Cancel")}
              </button>
            </div>
          </div>
        </form>
      </Errors.Provider>
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
    </>
  );
}
