import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useLocation } from "wouter";
import { api, ok, type Refused, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { useBoats, useChange, useMeta, usePlaces, useProducts } from "../../api/queries";
import { BoatMap } from "../../ui/BoatMap";
import { AreaField, Choice, Errors, FieldError, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { fieldsOf } from "../../ui/fieldsOf";
import { MEASURING } from "../../ui/mapMarks";
import { Answer } from "../../ui/Page";
import { Position } from "../../ui/Position";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { dropForABoat, keptForABoat } from "../start/ask";
import { Heading } from "./Heading";
import { HullSection } from "./hulls";
import { begin, drop, keep, NEW_PLACE, type NewBoatDraft, USUAL } from "./newBoat";
import { usePlaceAt } from "./PlaceForm";

/** A new boat in three steps, drawn while one types: what she is, how big, where she stands. */
export function NewBoat() {
  const places = usePlaces().data ?? [];
  const first = useBoats().data?.length === 0;
  const [, go] = useLocation();
  const [draft, setDraft] = useState(() => begin(keptForABoat()));
  const [tried, setTried] = useState(false);
  const at = draft.placeId || places[0]?.id || NEW_PLACE;
  const newPlace = at === NEW_PLACE;
  const set = (d: Partial<NewBoatDraft>) =>
    setDraft((old) => {
      const now = { ...old, ...d };
      keep(now);
      return now;
    });
  const save = useChange(
    ["boat", "place", "surfaces", "weather", "steps"],
    () => {
      const { place, placeId: _, dimensions, headingDeg, ...rest } = draft;
      const guessed = dimensions.housesM2 === undefined ? (["housesM2"] as const) : [];
      const body = {
        ...rest,
        type: "",
        lights: false,
        displacementT: 0,
        headingDeg,
        placeId: newPlace ? "" : at,
        dimensions: { ...dimensions, guessed: [...guessed] },
        ...(newPlace && { newPlace: place }),
      };
      return ok(api.POST("/api/boats", { body: body as Schemas["NewBoat"] }));
    },
    (b) => {
      drop();
      dropForABoat();
      go(`/boats/${b.id}/build-up`);
    },
  );
  const local = tried ? missing(draft, newPlace) : {};
  const submit = () => {
    setTried(true);
    save.reset();
    if (Object.keys(missing(draft, newPlace)).length === 0) save.mutate(undefined);
  };
  return (
    <>
      <Answer
        answer={
          first
            ? tr("Three steps, and she is in: what she is, how big, where she stands.")
            : tr("Another boat in three steps.")
        }
        detail={tr(
          "Length and beam are enough: the rest is guessed, marked as guessed with its ±, and can be measured later. What you type is kept if you leave.",
        )}
      />
      <Errors.Provider value={{ ...local, ...save.error?.fields }}>
        <form
          noValidate
          className="grid gap-x-10 gap-y-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]"
          onSubmit={(e) => {
            e.preventDefault();
            submit();
          }}
        >
          <div className="flex flex-col gap-8">
            <What draft={draft} set={set} />
            <HowBig draft={draft} set={set} />
            <Where draft={draft} set={set} at={at} />
            <div className="flex flex-col gap-3">
              <Refusal error={save.error} />
              {Object.keys(local).length > 0 && (
                <p className="font-semibold text-error">
                  {tr("Some of it is still missing: see the fields marked above.")}
                </p>
              )}
              <button type="submit" className="btn btn-primary min-h-12 self-start" disabled={save.isPending}>
                {tr("Add the boat")}
              </button>
            </div>
          </div>
          <Drawn draft={draft} />
        </form>
      </Errors.Provider>
    </>
  );
}

/** What cannot be sent yet, by its field. */
const missing = (draft: NewBoatDraft, newPlace: boolean): Record<string, string> => ({
  ...unsendable(draft, ["dimensions.loaM", "dimensions.beamM", "headingDeg"]),
  ...(!draft.name && { name: tr("give the boat a name") }),
  ...(!draft.dimensions.hullForm && { "dimensions.hullForm": tr("choose the one that is like her") }),
  ...(newPlace && {
    ...unsendable({ newPlace: draft.place }, []),
    ...(!draft.place.name && { "newPlace.name": tr("give the place a name") }),
    ...(draft.place.latitudeDeg === undefined && { "newPlace.latitudeDeg": tr("say where it is") }),
  }),
});

type Step = { draft: NewBoatDraft; set: (d: Partial<NewBoatDraft>) => void };

function What({ draft, set }: Step) {
  const at = fieldsOf(draft, set);
  const meta = useMeta().data;
  return (
    <fieldset>
      <legend className="font-slab text-lg font-semibold">{tr("1 What she is")}</legend>
      <div className="mt-2 grid grid-cols-2 gap-2 sm:grid-cols-3" data-testid="hull-forms">
        {meta?.hullForms.map((h) => {
          const chosen = h.form === draft.dimensions.hullForm;
          return (
            <button
              key={h.form}
              type="button"
              aria-pressed={chosen}
              className={`min-h-24 border p-2 text-sm ${chosen ? "border-2 border-accent font-bold" : "border-base-300 hover:bg-base-200"}`}
              onClick={() => set({ dimensions: { ...draft.dimensions, hullForm: h.form } })}
            >
              <HullSection form={h.form} />
              {h.name}
            </button>
          );
        })}
      </div>
      <FieldError name="dimensions.hullForm" />
      <div className="mt-3 grid gap-4 sm:grid-cols-2">
        <TextField {...at("name")} label={tr("Her name")} />
        <Choice
          {...at("substrate")}
          label={tr("Mostly of")}
          options={(meta?.survey.substrates ?? []).map((s) => ({
            value: s.key as typeof draft.substrate,
            label: s.name,
          }))}
        />
      </div>
      <div className="mt-3">
        <Choice
          {...at("template")}
          label={tr("Hull type")}
          hint={tr("which surfaces she has; add or leave out any later in Survey")}
          options={[
            { value: USUAL, label: tr("as a hull like this usually has them") },
            ...(meta?.survey.templates ?? []).map((t) => ({ value: t.key, label: t.name })),
            { value: "", label: tr("none: no surfaces yet") },
          ]}
        />
      </div>
      <Carried draft={draft} set={set} />
    </fieldset>
  );
}

/** What the questions brought along. */
function Carried({ draft, set }: Step) {
  const products = useProducts().data;
  const { first } = draft;
  if (!first) return null;
  const name = products?.find((p) => p.id === first.productId)?.sheet.name;
  return (
    <p className="mt-2 border-l-4 border-accent pl-3 text-sm">
      {trNodes(
        "Kept from your question: {coats} {coats, plural, one {coat} other {coats}} of {name} on the {part}{areaM2}, with what must come before, as her first build-up.",
        {
          coats: first.coats,
          name,
          part: first.part,
          areaM2: first.areaM2 !== undefined && (
            <>
              {" "}
              of <Quantity value={first.areaM2} unit="m²" />
            </>
          ),
        },
      )}{" "}
      <button type="button" className="linked min-h-11" onClick={() => set({ first: undefined })}>
        {tr("leave it out")}
      </button>
    </p>
  );
}

const MORE = [
  { k: "lwlM", label: tr("Waterline length") },
  { k: "draughtM", label: tr("Draught") },
  { k: "freeboardM", label: tr("Mean freeboard") },
] as const;

const NAMED = { lwlM: "waterline", draughtM: "draught", freeboardM: "freeboard", housesM2: "houses" };

function HowBig({ draft, set }: Step) {
  const form = useMeta().data?.hullForms.find((h) => h.form === draft.dimensions.hullForm);
  const drawn = useDrawn(draft).data;
  const dim = (k: Exclude<keyof NewBoatDraft["dimensions"], "hullForm">, label: string, unit = "m", hint?: string) => (
    <NumberField
      name={`dimensions.${k}`}
      label={label}
      hint={hint}
      unit={unit}
      value={draft.dimensions[k]}
      onChange={(v) => set({ dimensions: { ...draft.dimensions, [k]: v } })}
    />
  );
  const guesses = Object.entries(NAMED).flatMap(([f, name]) => {
    const pct = drawn?.guessedPct[f];
    return pct === undefined ? [] : [{ f, name, pct }];
  });
  return (
    <fieldset>
      <legend className="font-slab text-lg font-semibold">{tr("2 How big")}</legend>
      <div className="mt-2 grid grid-cols-2 gap-4">
        {dim("loaM", tr("Length over all"))}
        {dim("beamM", tr("Beam"))}
      </div>
      <details className="mt-2">
        <summary className="min-h-11 cursor-pointer py-2">
          {guesses.length > 0 && drawn ? (
            <>
              {tr("Guessed:")}{" "}
              {guesses.map(({ f, name, pct }, i) => (
                <span key={f}>
                  {i > 0 && ", "}
                  {name} <Quantity value={drawn.dimensions[f as "lwlM"] ?? 0} unit={f === "housesM2" ? "m²" : "m"} /> ±
                  {pct} %
                </span>
              ))}
              {tr(". Measured some of it?")}
            </>
          ) : (
            tr("Waterline, draught, freeboard, houses: guessed unless you know them")
          )}
        </summary>
        <div className="mt-2 grid grid-cols-2 gap-4">
          {MORE.map(({ k, label }) => (
            <div key={k}>{dim(k, label)}</div>
          ))}
          {dim("housesM2", tr("Houses and openings"), "m²", tr("plan area that is not deck"))}
          {form &&
            !form.open &&
            dim("bodyDraughtM", tr("Draught of the hull"), "m", tr("without fin, skeg and rudder"))}
          {form && form.hulls > 1 && dim("hullBeamM", tr("Beam of one hull"), "m", tr("at the waterline"))}
        </div>
      </details>
    </fieldset>
  );
}

function Where({ draft, set, at }: Step & { at: string }) {
  const field = fieldsOf(draft, set);
  const places = usePlaces().data ?? [];
  const meta = useMeta().data;
  const { place } = draft;
  const { go, wrong } = usePlaceAt(place, (p) => set({ place: p }));
  const newPlace = at === NEW_PLACE;
  return (
    <fieldset>
      <legend className="font-slab text-lg font-semibold">{tr("3 Where she stands")}</legend>
      <div className="mt-2 grid gap-4 sm:grid-cols-2">
        {places.length > 0 && (
          <Choice
            name="placeId"
            label={tr("Place")}
            value={at}
            onChange={(placeId) => set({ placeId })}
            options={[
              ...places.map((p) => ({ value: p.id, label: p.name })),
              { value: NEW_PLACE, label: tr("a new place…") },
            ]}
          />
        )}
        {newPlace && (
          <>
            <TextField
              name="newPlace.name"
              label={tr("Name of the place")}
              hint={tr("such as the yard, or home")}
              value={place.name}
              onChange={(name) => set({ place: { ...place, name } })}
            />
            <div>
              <Position name="newPlace.latitudeDeg" onAt={(p) => void go(p)} />
              {place.latitudeDeg !== undefined && (
                <p className="text-sm">
                  {trNodes("{latitudeDeg}°, {longitudeDeg}°; time of {timeZone}.", {
                    latitudeDeg: place.latitudeDeg.toFixed(4),
                    longitudeDeg: place.longitudeDeg?.toFixed(4),
                    timeZone: place.timeZone,
                  })}
                </p>
              )}
              {wrong && (
                <p role="alert" className="text-sm text-error">
                  {wrong}
                </p>
              )}
            </div>
          </>
        )}
        <Heading {...field("headingDeg")} />
        <TextField {...field("launchDate")} label={tr("Launch, if there is a date")} type="date" />
      </div>
      {newPlace && (
        <div className="mt-3">
          <AreaField
            {...field("weather")}
            label={tr("The weather there")}
            hint={
              place.weatherSource === "simulated"
                ? tr("The simulated service stands in: its figures are made up, for trying out.")
                : tr(
                    "A new place has no weather yet: tell the days (“{weather}”), paste the hours of a forecast, or bring a file later under Weather.",
                    { weather: meta?.ask.weather },
                  )
            }
          />
          <label className="mt-1 flex min-h-11 items-center gap-3 text-sm">
            <input
              type="checkbox"
              className="checkbox size-6 border-base-content/60"
              checked={place.weatherSource === "simulated"}
              onChange={(e) => set({ place: { ...place, weatherSource: e.target.checked ? "simulated" : "imported" } })}
            />
            {tr("Simulated weather, for trying out: marked as simulated wherever it shows")}
          </label>
        </div>
      )}
    </fieldset>
  );
}

/** The boat as she follows from what was typed, undefined until length and beam are there. */
function useDrawn({ dimensions, substrate, template }: NewBoatDraft) {
  const sent = { ...dimensions, guessed: dimensions.housesM2 === undefined ? (["housesM2"] as const) : [] };
  const ready = Boolean(dimensions.hullForm) && (dimensions.loaM ?? 0) > 0 && (dimensions.beamM ?? 0) > 0;
  return useQuery<Schemas["DraftBoat"], Refused>({
    queryKey: key("draft", sent, substrate, template),
    queryFn: () =>
      ok(
        api.POST("/api/draw-boat", {
          body: { dimensions: sent as unknown as Schemas["AreaDimensions"], substrate, template },
        }),
      ),
    enabled: ready && Object.keys(unsendable(dimensions)).length === 0,
    retry: false,
    placeholderData: (old) => old,
  });
}

function Drawn({ draft }: { draft: NewBoatDraft }) {
  const drawn = useDrawn(draft);
  const templates = useMeta().data?.survey.templates ?? [];
  if (!drawn.data)
    return (
      <p className="quiet self-start border border-base-300 p-6">
        {tr("She is drawn here as soon as her form, length and beam are there.")}
      </p>
    );
  const { views, surfaces, template } = drawn.data;
  const rough = MEASURING.rough;
  return (
    <section className="self-start xl:sticky xl:top-5" aria-label={tr("Drawing")}>
      {drawn.error && (
        <p role="alert" className="text-error">
          {Object.values(drawn.error.fields).map(String)[0] ?? drawn.error.message}
        </p>
      )}
      {rough && (
        <BoatMap
          views={views}
          surfaces={surfaces}
          marks={Object.fromEntries(surfaces.map((s) => [s.id, rough]))}
          picked=""
          onPick={() => {}}
        />
      )}
      <table className="table-plain mt-3 text-sm">
        <thead>
          <tr>
            <th>{tr("Surface")}</th>
            <th className="num">{tr("Area")}</th>
            <th className="num">±</th>
          </tr>
        </thead>
        <tbody>
          {surfaces.map((s) => (
            <tr key={s.id}>
              <td>{s.name}</td>
              <td className="num">
                <Quantity value={s.areaM2} unit="m²" />
              </td>
              <td className="num">{Math.round(s.uncertaintyPct)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-sm">
        {tr("Surfaces of a")} {templates.find((t) => t.key === template)?.name ?? tr("boat without any yet")}
        {trNodes("{template}; add or leave out any in Survey.", {
          template: draft.template === USUAL && tr(", as a hull like this usually is"),
        })}
      </p>
    </section>
  );
}
