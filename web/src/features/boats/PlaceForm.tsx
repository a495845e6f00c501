import { useRef, useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { Choice, NumberField, TextField } from "../../ui/Form";
import { type At, Position } from "../../ui/Position";
import { type Edition, useEdition } from "../../ui/useEdition";
import { tr } from "../../words/words";

export type PlaceDraft = Omit<Schemas["PlaceEdit"], "latitudeDeg" | "longitudeDeg"> & {
  latitudeDeg?: number;
  longitudeDeg?: number;
};

/** Takes a position and looks up the time zone that it lies in; an answer that another question overtook is let go. */
export function usePlaceAt(place: PlaceDraft, set: (p: PlaceDraft) => void) {
  const [wrong, setWrong] = useState("");
  const latest = useRef({ place, asked: 0 });
  latest.current.place = place;
  const go = async (at: At) => {
    setWrong("");
    set({ ...place, ...at });
    latest.current.asked++;
    const { asked } = latest.current;
    await new Promise((r) => setTimeout(r, TYPED_MS));
    if (asked !== latest.current.asked) return;
    try {
      const { timeZone } = await ok(api.GET("/api/time-zone", { params: { query: at } }));
      if (asked === latest.current.asked) set({ ...latest.current.place, timeZone });
    } catch {
      setWrong(tr("The time zone of it is not known: choose it."));
    }
  };
  return { go, wrong };
}

/** The fields of a place; prefix is the path under which the server names them. */
export function PlaceFields({
  prefix = "",
  place,
  set,
}: {
  prefix?: string;
  place: PlaceDraft;
  set: (p: PlaceDraft) => void;
}) {
  const zones = useMeta().data?.timeZones;
  const { go, wrong } = usePlaceAt(place, set);
  return (
    <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
      <TextField
        name={`${prefix}name`}
        label={tr("Place name")}
        value={place.name}
        onChange={(name) => set({ ...place, name })}
      />
      <div className="lg:col-span-2">
        <Position
          name={`${prefix}position`}
          hint={tr("pasted, such as 52.95, 0.85 or 52°57'N 0°51'E; it sets the three below")}
          onAt={(at) => void go(at)}
        />
        {wrong && (
          <p role="alert" className="text-sm text-error">
            {wrong}
          </p>
        )}
      </div>
      <NumberField
        name={`${prefix}latitudeDeg`}
        label={tr("Latitude")}
        hint={tr("north positive")}
        unit="°"
        value={place.latitudeDeg}
        onChange={(latitudeDeg) => set({ ...place, latitudeDeg })}
      />
      <NumberField
        name={`${prefix}longitudeDeg`}
        label={tr("Longitude")}
        hint={tr("east positive")}
        unit="°"
        value={place.longitudeDeg}
        onChange={(longitudeDeg) => set({ ...place, longitudeDeg })}
      />
      <TextField
        name={`${prefix}timeZone`}
        label={tr("Time zone")}
        list={zones}
        value={place.timeZone}
        onChange={(timeZone) => set({ ...place, timeZone })}
      />
      <Choice
        name={`${prefix}weatherSource`}
        label={tr("Weather")}
        value={place.weatherSource}
        onChange={(weatherSource) => set({ ...place, weatherSource })}
        options={[
          { value: "simulated", label: tr("simulated service (for trying out)") },
          { value: "imported", label: tr("my own files") },
          { value: "told", label: tr("days in my own words") },
        ]}
      />
    </div>
  );
}

/** How long it is waited whether more is typed. */
const TYPED_MS = 400;

const editOf = ({ name, latitudeDeg, longitudeDeg, timeZone, weatherSource }: Schemas["Place"]): PlaceDraft => ({
  name,
  latitudeDeg,
  longitudeDeg,
  timeZone,
  weatherSource,
});

/** A place that nobody described yet: without weather until its user brings some. */
export const nowhere = (): PlaceDraft => ({
  name: "",
  timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  weatherSource: "imported",
});

/** Changes a place for every boat that stands there. */
export function PlaceForm({ place, done }: { place: Schemas["Place"]; done: () => void }) {
  const form = useEdition(place, (p = place) => editOf(p));
  const save = useChange(
    ["place", "weather"],
    (sent: Edition<PlaceDraft>) =>
      ok(
        api.PUT("/api/places/{id}", {
          params: { path: { id: place.id } },
          body: sent as Edition<Schemas["PlaceEdit"]>,
        }),
      ),
    done,
  );
  return (
    <EditForm
      form={form}
      save={save}
      needed={["latitudeDeg", "longitudeDeg"]}
      says={tr("Save")}
      cancel={done}
      className="max-w-4xl"
    >
      <PlaceFields place={form.edit} set={form.put} />
      <p className="quiet mt-2 text-sm">
        {tr("This holds for every boat that stands here. A move drops the simulated weather of the old position.")}
      </p>
    </EditForm>
  );
}
