import { useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useSurvey } from "../../api/queries";
import { BoatMap } from "../../ui/BoatMap";
import { Refusal } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { useSettings } from "../../ui/settings";
import { Figure, Quantity } from "../../ui/Working";
import { BoatForm } from "../boats/BoatForm";
import { PlaceForm } from "../boats/PlaceForm";
import { SurfaceForm } from "./SurfaceForm";

export function Survey() {
  const { boatId = "" } = useParams();
  return <Loaded query={useSurvey(boatId)}>{(s) => <Shown key={boatId} survey={s} />}</Loaded>;
}

function Shown({ survey }: { survey: Schemas["Survey"] }) {
  const { boat, surfaces, views, place } = survey;
  const { show } = useSettings();
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const [editing, setEditing] = useState<"boat" | "place" | "new" | null>(null);
  const picked = surfaces.find((s) => s.id === params.get("surface"));
  const pick = (id: string) => {
    setEditing(null);
    setParams({ surface: id }, { replace: true });
  };
  const total = surfaces.reduce((sum, s) => sum + s.area.areaM2, 0);
  const all = show(total, "m²");
  const loa = show(boat.dimensions.loaM, "m");
  return (
    <>
      <Answer
        over={
          <span>
            {boat.name}, {boat.type}; {loa.text} {loa.unit} at {place.name}, latitude {place.latitudeDeg}°, heading {boat.headingDeg}°
          </span>
        }
        answer={
          surfaces.length ? `${surfaces.length} surfaces, ${all.text} ${all.unit} to coat in all.` : "No surfaces yet: add the first one."
        }
        detail={
          surfaces.length
            ? "Pick a surface on the drawing or in the list. Areas from principal dimensions are rules of thumb, ±15 %: every litre bought rests on them."
            : "A surface is a part that is coated as one: the bottom, one side's topsides, a deck, a coaming."
        }
      />
      {editing === "boat" ? (
        <section className="mb-8">
          <h2 className="mb-3 text-lg">Her dimensions</h2>
          <BoatForm boat={boat} done={() => setEditing(null)} />
          <Remove
            what={`${boat.name} with her surfaces, plans and log`}
            label="delete this boat"
            remove={() => ok(api.DELETE("/api/boats/{id}", { params: { path: { id: boat.id } } }))}
            done={() => go("/")}
          />
        </section>
      ) : editing === "place" ? (
        <section className="mb-8">
          <h2 className="mb-3 text-lg">Where she stands</h2>
          <PlaceForm place={place} done={() => setEditing(null)} />
        </section>
      ) : (
        <BoatMap views={views} surfaces={surfaces} picked={picked?.id ?? ""} onPick={pick} />
      )}
      <div className="mt-4 flex flex-wrap gap-2">
        {editing !== "boat" && (
          <button type="button" className="btn min-h-11" onClick={() => setEditing("boat")}>
            Change her dimensions
          </button>
        )}
        {editing !== "place" && (
          <button type="button" className="btn min-h-11" onClick={() => setEditing("place")}>
            Change the place
          </button>
        )}
        <button type="button" className="btn min-h-11" onClick={() => setEditing("new")}>
          Add a surface
        </button>
      </div>
      {editing === "new" && (
        <section className="mt-6">
          <h2 className="mb-3 text-lg">New surface</h2>
          <SurfaceForm boatId={boat.id} done={() => setEditing(null)} />
        </section>
      )}
      {surfaces.length > 0 && (
        <div className="mt-6 overflow-x-auto">
          <table className="table-plain">
            <thead>
              <tr>
                <th>Surface</th>
                <th className="max-sm:hidden">Substrate</th>
                <th className="num">Area</th>
                <th className="num">±</th>
                <th className="max-sm:hidden">By</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {surfaces.map((s) => (
                <tr key={s.id} className={s.id === picked?.id ? "bg-base-200" : ""}>
                  <td>
                    <button
                      type="button"
                      className="linked font-semibold max-sm:min-h-11"
                      aria-pressed={s.id === picked?.id}
                      onClick={() => pick(s.id)}
                    >
                      {s.name}
                    </button>
                  </td>
                  <td className="max-sm:hidden">{s.substrate}</td>
                  <td className="num">
                    <Figure title={`${s.name}, area`} working={s.area.working}>
                      <Quantity value={s.area.areaM2} unit="m²" />
                    </Figure>
                  </td>
                  <td className="num">{Math.round(s.area.uncertaintyPct)} %</td>
                  <td className="max-sm:hidden">{METHODS[s.measure.method]}</td>
                  <td className="num">
                    <Link className="linked" to={`/boats/${boat.id}/build-up?surface=${s.id}`}>
                      coats
                    </Link>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {picked && editing !== "new" && (
        <section className="mt-6">
          <h2 className="mb-3 text-lg">{picked.name}</h2>
          <SurfaceForm key={picked.id} boatId={boat.id} surface={picked} done={() => setEditing(null)} />
          <Remove
            what={`${picked.name} and its planned coats`}
            label="delete this surface"
            remove={() => ok(api.DELETE("/api/surfaces/{id}", { params: { path: { id: picked.id } } }))}
            done={() => setParams({}, { replace: true })}
          />
        </section>
      )}
    </>
  );
}

export const METHODS: Record<string, string> = { principal: "principal dimensions", strip: "length × width", stated: "stated" };

/** A deletion that asks once more. */
function Remove({ what, label, remove, done }: { what: string; label: string; remove: () => Promise<unknown>; done: () => void }) {
  const [sure, setSure] = useState(false);
  const change = useChange(remove, done);
  return (
    <div className="mt-3">
      {sure ? (
        <p>
          Delete {what}?{" "}
          <button type="button" className="btn btn-error btn-sm" onClick={() => change.mutate(undefined)}>
            Delete
          </button>{" "}
          <button type="button" className="btn btn-sm" onClick={() => setSure(false)}>
            Keep
          </button>
        </p>
      ) : (
        <button type="button" className="linked text-sm" onClick={() => setSure(true)}>
          {label}
        </button>
      )}
      <Refusal error={change.error} />
    </div>
  );
}
