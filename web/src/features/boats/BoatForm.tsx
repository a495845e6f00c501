import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta, usePlaces } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { Check, Choice, NumberField, TextField, unsendable } from "../../ui/Form";
import { figuresOf } from "../../ui/fieldsOf";
import { type Edition, useEdition } from "../../ui/useEdition";
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
  const form = useEdition(boat, (b = boat) => draftOf(b));
  const { edit: draft, put: setDraft, at } = form;
  const [place, setPlace] = useState(nowhere);
  const hull = meta?.hullForms.find((h) => h.form === draft.dimensions.hullForm);
  const newPlace = draft.placeId === NEW_PLACE;
  const guessed = draft.dimensions.guessed ?? [];
  const save = useChange(
    ["boat", "place", "surfaces", "weather"],
    ({ version, value }: Edition<Draft>) =>
      ok(
        api.PUT("/api/boats/{id}", {
          params: { path: { id: boat.id } },
          body: {
            version,
            value: {
              ...(value as Schemas["BoatEdit"]),
              ...(newPlace && { placeId: "", newPlace: place as Schemas["PlaceEdit"] }),
            },
          },
        }),
      ),
    done,
  );
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
    <EditForm
      form={form}
      save={save}
      needed={NEEDED}
      wrong={() => (newPlace ? unsendable({ newPlace: place }, ["newPlace.latitudeDeg", "newPlace.longitudeDeg"]) : {})}
      says={tr("Save")}
      cancel={done}
      className="max-w-4xl"
    >
      <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
        <TextField {...at("name")} label={tr("Name")} />
        <TextField {...at("type")} label={tr("Type")} hint={tr("such as GRP launch")} />
        <TextField {...at("launchDate")} label={tr("Launch date")} type="date" />
        <Choice
          {...at("placeId")}
          label={tr("Stands at")}
          options={[
            ...places.map((p) => ({ value: p.id, label: p.name })),
            { value: NEW_PLACE, label: tr("a new place…") },
          ]}
        />
        <NumberField
          {...at("headingDeg")}
          label={tr("Bow points to")}
          hint={tr("degrees from true north, clockwise")}
          unit="°"
        />
        <Check {...at("lights")} label={tr("Work lights")} hint={tr("coats may be laid in the dark")} />
        <NumberField
          {...at("dewFreeH")}
          label={tr("Hours above the dew point")}
          hint={tr("that you want after a coat, where the sheet asks for fewer")}
          unit="h"
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
          {...at("dimensions.hullForm")}
          label={tr("Hull form")}
          options={(meta?.hullForms ?? []).map((h) => ({ value: h.form, label: h.name }))}
        />
        {dim("loaM", tr("Length over all"), "m")}
        {dim("lwlM", tr("Waterline length"), "m")}
        {dim("beamM", tr("Beam"), "m")}
        {dim("draughtM", tr("Draught"), "m")}
        {hull &&
          !hull.open &&
          dim("bodyDraughtM", tr("Draught of the hull"), "m", tr("without fin, skeg and rudder, if known"))}
        {hull && hull.hulls > 1 && dim("hullBeamM", tr("Beam of one hull"), "m", tr("at the waterline, if known"))}
        {dim("freeboardM", tr("Mean freeboard"), "m")}
        {dim("housesM2", tr("Houses and openings"), "m²", tr("plan area that is not deck"))}
        <NumberField
          {...figuresOf(draft, form.set)("displacementT")}
          label={tr("Displacement")}
          hint={tr("if known: it checks the bottom's area")}
          unit="t"
        />
      </div>
    </EditForm>
  );
}
