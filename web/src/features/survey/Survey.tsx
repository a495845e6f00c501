import { useState } from "react";
import { Link, useLocation, useParams, useSearchParams } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { newID } from "../../api/outbox";
import { useSurvey, useToday, useWritten } from "../../api/queries";
import { BoatMap } from "../../ui/BoatMap";
import { Refusal } from "../../ui/Form";
import { coatMark, DEFECTS, type MapMark, MEASURING } from "../../ui/mapMarks";
import { Answer, Loaded } from "../../ui/Page";
import { Remove } from "../../ui/Remove";
import { Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { Figure, Quantity } from "../../ui/Working";
import { tr } from "../../words/words";
import { BoatForm } from "../boats/BoatForm";
import { PlaceForm } from "../boats/PlaceForm";
import { DefectForm, DefectList, editOfDefect, isOpen, useDefectName } from "./Defects";
import { Models } from "./Models";
import { SurfaceList } from "./SurfaceList";
import { SurfacePanel } from "./SurfacePanel";
import { TemplateForm } from "./TemplateForm";

export function Survey() {
  const { boatId = "" } = useParams();
  return <Loaded query={useSurvey(boatId)}>{(s) => <Shown key={boatId} survey={s} />}</Loaded>;
}

type Doing = "boat" | "place" | "new" | "template" | "models" | "pin" | null;
type Show = "measuring" | "coats" | "defects";
const SHOWS: Record<Show, string> = { measuring: "measuring", coats: "coats", defects: "defects" };

function Shown({ survey }: { survey: Schemas["Survey"] }) {
  const { boat, surfaces, views, place, defects } = survey;
  const { show } = useSettings();
  const lanes = useToday(boat.id).data?.answer.lanes;
  const name = useDefectName();
  const [params, setParams] = useSearchParams();
  const [doing, setDoing] = useState<Doing>(null);
  const [shows, setShows] = useState<Show>("measuring");
  const [pinned, setPinned] = useState<{ view: string; x: number; y: number; surfaceId: string } | null>(null);
  const picked = surfaces.find((s) => s.id === params.get("surface"));
  const defect = defects.find((d) => d.id === params.get("defect"));
  const pick = (id?: string) => {
    setDoing(null);
    setPinned(null);
    setParams(id ? { surface: id } : {}, { replace: true });
  };
  const openDefect = (id?: string) => {
    setPinned(null);
    setDoing(id ? null : "pin");
    if (id) setParams({ ...(picked && { surface: picked.id }), defect: id }, { replace: true });
  };
  const closeDefect = (id?: string) => {
    setPinned(null);
    setDoing(null);
    setParams(id ? { defect: id } : picked ? { surface: picked.id } : {}, { replace: true });
  };
  const moveTo = useWritten<{ id: string; to: { x: number; y: number } }, Schemas["Defect"]>(
    ["surfaces"],
    ({ id, to }) => {
      const d = defects.find((o) => o.id === id);
      if (!d) return [];
      const place = { ...d.place, x: Math.round(100 * to.x) / 100, y: Math.round(100 * to.y) / 100 };
      const body = { version: d.version, value: { ...editOfDefect(d), place } };
      return [
        {
          id: newID(),
          label: tr("defect {number} moved", { number: d.number }),
          boatId: boat.id,
          method: "PUT",
          path: `/api/defects/${id}`,
          body,
        },
      ];
    },
  );
  const marks: Record<string, MapMark> = {};
  for (const s of surfaces) {
    const own = defects.filter((d) => d.surfaceId === s.id);
    const mark =
      shows === "measuring"
        ? MEASURING[s.measuring]
        : shows === "coats"
          ? coatMark(lanes?.find((l) => l.surfaceId === s.id))
          : DEFECTS[own.length === 0 ? "none" : s.openDefects > 0 ? "open" : "mended"];
    if (mark) marks[s.id] = mark;
  }
  const loa = show(boat.dimensions.loaM, "m");
  return (
    <>
      <Answer
        over={
          <span>
            {tr("{name}, {type}; {text} {unit} at {name2}, latitude {latitudeDeg}°, heading {headingDeg}°", {
              name: boat.name,
              type: boat.type,
              text: loa.text,
              unit: loa.unit,
              name2: place.name,
              latitudeDeg: place.latitudeDeg,
              headingDeg: boat.headingDeg,
            })}
          </span>
        }
        answer={<Sentence spans={survey.says} zone={place.timeZone} />}
        detail={<Sentence spans={survey.detail} zone={place.timeZone} />}
      />
      {doing === "boat" || doing === "place" ? (
        <HerForm survey={survey} doing={doing} done={() => setDoing(null)} />
      ) : doing === "models" ? (
        <Models boatId={boat.id} models={survey.models} />
      ) : (
        <>
          <div className="mb-1 flex flex-wrap items-center justify-between gap-2">
            <p className="text-sm">
              {doing === "pin" && !pinned ? (
                <b role="status">{tr("Press the place of the defect on the map.")}</b>
              ) : (
                <span className="quiet">
                  {tr("Drawn from {drawnFrom}. Pick a part on the drawing or in the list.", {
                    drawnFrom: survey.drawnFrom,
                  })}
                </span>
              )}
            </p>
            <fieldset className="join" aria-label={tr("The map shows")}>
              {(Object.keys(SHOWS) as Show[]).map((k) => (
                <button
                  key={k}
                  type="button"
                  className={`btn join-item btn-sm max-lg:min-h-11 ${shows === k ? "btn-neutral" : ""}`}
                  aria-pressed={shows === k}
                  onClick={() => setShows(k)}
                >
                  {SHOWS[k]}
                </button>
              ))}
            </fieldset>
          </div>
          <BoatMap
            views={views}
            surfaces={surfaces}
            marks={marks}
            picked={picked?.id ?? ""}
            onPick={pick}
            pins={defects
              .filter((d) => shows === "defects" || isOpen(d))
              .map((d) => ({
                id: d.id,
                number: d.number,
                open: isOpen(d),
                ...d.place,
                title: tr("Defect {number}: {d}, {state}", { number: d.number, d: name(d), state: d.state }),
              }))}
            onPin={openDefect}
            onMovePin={shows === "defects" ? (id, to) => moveTo.mutate({ id, to }) : undefined}
            onPlace={doing === "pin" ? setPinned : undefined}
          />
        </>
      )}
      <Refusal error={moveTo.error} />
      {shows === "defects" && defects.length > 0 && (
        <p className="no-print quiet text-sm">
          {tr("Drag a pin to where it belongs, or open it and type its distances.")}
        </p>
      )}
      <Doings survey={survey} doing={doing} begin={setDoing} pin={() => openDefect()} />
      {pinned && <DefectForm survey={survey} place={pinned} done={closeDefect} />}
      {defect && !pinned && <DefectForm key={defect.id} survey={survey} defect={defect} done={closeDefect} />}
      {doing === "template" && <TemplateForm boatId={boat.id} done={() => setDoing(null)} />}
      {doing === "new" && <SurfacePanel survey={survey} done={pick} pin={openDefect} />}
      {survey.crossCheck && doing === null && <CrossCheck check={survey.crossCheck} />}
      {surfaces.length > 0 && <SurfaceList survey={survey} picked={picked?.id ?? ""} pick={pick} />}
      {picked && doing !== "new" && (
        <SurfacePanel key={picked.id} survey={survey} surface={picked} done={(id) => pick(id)} pin={openDefect} />
      )}
      {defects.length > 0 && <Register defects={defects} pin={openDefect} />}
    </>
  );
}

/** The defects and repairs of a boat, in the order of a walk round her. */
function Register({ defects, pin }: { defects: Schemas["Defect"][]; pin: (id?: string) => void }) {
  const name = useDefectName();
  const [onlyOpen, setOnlyOpen] = useState(true);
  const [kind, setKind] = useState("");
  const listed = (onlyOpen ? defects.filter(isOpen) : defects).filter((d) => kind === "" || d.kind === kind);
  const kinds = [...new Set(defects.map((d) => d.kind))];
  return (
    <section className="mt-8" data-testid="register">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h2 className="text-lg">{tr("Defects and repairs, as one walks round her")}</h2>
        <select
          className="select ml-auto min-h-11 w-48 border-base-content/60 bg-(--sheet)"
          aria-label={tr("Kind of defect")}
          value={kind}
          onChange={(e) => setKind(e.target.value)}
        >
          <option value="">{tr("all kinds")}</option>
          {kinds.map((k) => (
            <option key={k} value={k}>
              {name({ kind: k, count: 1 })}
            </option>
          ))}
        </select>
        <label className="flex min-h-11 cursor-pointer items-center gap-2">
          <input
            type="checkbox"
            className="checkbox border-base-content/60"
            checked={onlyOpen}
            onChange={(e) => setOnlyOpen(e.target.checked)}
          />
          {tr("only what is still to do")}
        </label>
      </div>
      {listed.length > 0 ? <DefectList defects={listed} pin={pin} /> : <p>{tr("None of these is left to do.")}</p>}
    </section>
  );
}

/** What may be done on Survey beside picking a part. */
function Doings({
  survey: { boat, surfaces },
  doing,
  begin,
  pin,
}: {
  survey: Schemas["Survey"];
  doing: Doing;
  begin: (d: Doing) => void;
  pin: () => void;
}) {
  return (
    <div className="no-print mt-4 flex flex-wrap gap-2">
      <button type="button" className="btn min-h-11" disabled={surfaces.length === 0} onClick={pin}>
        {tr("Pin a defect")}
      </button>
      <button type="button" className="btn min-h-11" onClick={() => begin("new")}>
        {tr("Add a surface")}
      </button>
      <button type="button" className="btn min-h-11" onClick={() => begin("template")}>
        {tr("Add a hull type’s surfaces")}
      </button>
      <button type="button" className="btn min-h-11" onClick={() => begin(doing === "models" ? null : "models")}>
        {doing === "models" ? tr("Back to the map") : tr("3-D files and offsets")}
      </button>
      {doing !== "boat" && (
        <button type="button" className="btn min-h-11" onClick={() => begin("boat")}>
          {tr("Change her dimensions")}
        </button>
      )}
      {doing !== "place" && (
        <button type="button" className="btn min-h-11" onClick={() => begin("place")}>
          {tr("Change the place")}
        </button>
      )}
      <Link className="btn min-h-11" to={`/boats/${boat.id}/survey/measuring-sheet`}>
        {tr("Measuring sheet")}
      </Link>
      <Link className="btn min-h-11" to={`/boats/${boat.id}/survey/walk-round`}>
        {tr("Walk-round sheet")}
      </Link>
    </div>
  );
}

/** Her dimensions, or the place where she stands, to be changed. */
function HerForm({
  survey: { boat, place },
  doing,
  done,
}: {
  survey: Schemas["Survey"];
  doing: "boat" | "place";
  done: () => void;
}) {
  const [, go] = useLocation();
  return doing === "boat" ? (
    <section className="mb-8">
      <h2 className="mb-3 text-lg">{tr("Her dimensions")}</h2>
      <BoatForm boat={boat} done={done} />
      <Remove
        of={["boat", "surfaces", "steps", "log", "plan"]}
        what={tr("{name} with her surfaces, plans and log", { name: boat.name })}
        label={tr("delete this boat")}
        remove={() => ok(api.DELETE("/api/boats/{id}", { params: { path: { id: boat.id } } }))}
        done={() => go("/")}
      />
    </section>
  ) : (
    <section className="mb-8">
      <h2 className="mb-3 text-lg">{tr("Where she stands")}</h2>
      <PlaceForm place={place} done={done} />
    </section>
  );
}

/** The bottom as measured against formulas for the wetted surface. */
function CrossCheck({ check }: { check: Schemas["AreaCrossCheck"] }) {
  const { prose } = useSettings();
  return (
    <aside
      aria-label={tr("Cross-check")}
      className={`mt-5 max-w-4xl border-l-4 pl-3 ${check.plausible ? "border-primary" : "border-error"}`}
      data-testid="cross-check"
    >
      <p>{prose(check.text)}</p>
      <p className="text-sm">
        {check.checks.map((c) => (
          <span key={c.name} className="mr-5">
            <Figure title={c.name} working={c.working}>
              {c.name}: <Quantity value={c.areaM2} unit="m²" />
            </Figure>
          </span>
        ))}
      </p>
    </aside>
  );
}
