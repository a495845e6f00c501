import { useEffect, useRef, useState } from "react";
import { Link, useParams, useSearchParams } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { holding, useOutbox } from "../../api/outbox";
import { useChange, useKinds, useLog, useToday } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { Answer, Loaded, Tabs } from "../../ui/Page";
import { Reflow } from "../../ui/Reflow";
import { Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { STATES } from "../../ui/states";
import { clock, longDay, stamp } from "../../ui/time";
import { Figure } from "../../ui/Working";
import { tr } from "../../words/words";
import { AccountsView } from "./Accounts";
import { EntryForm } from "./EntryForm";
import { Files } from "./Files";
import { LessonsView } from "./Lessons";
import { Judged, What } from "./Told";
import { UpkeepView } from "./Upkeep";

export function Log() {
  const { boatId = "" } = useParams();
  const log = useLog(boatId);
  return (
    <Loaded query={useToday(boatId)}>
      {(t) => <Loaded query={log}>{(entries) => <Shown key={boatId} today={t} entries={entries} />}</Loaded>}
    </Loaded>
  );
}

const VIEWS = [
  { key: "log", name: tr("Log") },
  { key: "accounts", name: tr("Hours and money") },
  { key: "upkeep", name: tr("Upkeep") },
  { key: "lessons", name: tr("Learned") },
  { key: "files", name: tr("Files") },
] as const;
type View = (typeof VIEWS)[number]["key"];

function Shown({ today, entries }: { today: Schemas["Today"]; entries: Schemas["Entry"][] }) {
  const [params, setParams] = useSearchParams();
  const { kindOf } = useKinds();
  const zone = today.place.timeZone;
  const surface = params.get("surface") ?? "";
  const editing = entries.find((e) => e.id === params.get("entry"));
  const parcel = useOutbox().find((p) => p.id === params.get("kept"));
  const parcelId = parcel?.id;
  useEffect(() => (parcelId ? holding(parcelId) : undefined), [parcelId]);
  const kept = entries.filter((e) => !e.deleted);
  const last = kept[0];
  const logging = params.has("surface") || editing !== undefined || parcel !== undefined;
  const grams = (key: string) => Number(params.get(key)) || undefined;
  const weighed = { baseG: grams("base"), hardenerG: grams("hardener") };
  const view = VIEWS.find((v) => v.key === params.get("view"))?.key ?? "log";
  // A save that ends after its user has gone to another screen leaves them there.
  const here = useRef(false);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  const close = () => here.current && setParams({}, { replace: true });
  return (
    <>
      <Tabs
        label={tr("Log")}
        tabs={[...VIEWS]}
        at={view}
        onChange={(v: View) => setParams({ view: v }, { replace: true })}
      />
      {view === "accounts" && <AccountsView boatId={today.boat.id} zone={zone} />}
      {view === "upkeep" && <UpkeepView boatId={today.boat.id} now={today.ribbon.now} zone={zone} />}
      {view === "lessons" && <LessonsView boatId={today.boat.id} />}
      {view === "files" && <Files boatId={today.boat.id} />}
      {view === "log" && (
        <>
          <Answer
            over={<span>{today.boat.name}</span>}
            answer={<Sentence spans={today.answer.clocks} zone={zone} />}
            detail={
              last
                ? tr("Last logged: {surface}, {name}, {startedAt} at {startedAt2}.", {
                    surface: (last.surface || tr("the boat")).toLowerCase(),
                    name: kindOf(last.kind).name,
                    startedAt: longDay(last.startedAt, zone),
                    startedAt2: clock(last.startedAt, zone),
                  })
                : tr(
                    "Log work with the time it was begun: clocks run from there. Litres or comb readings tell the film it left.",
                  )
            }
          />
          {logging ? (
            <EntryForm
              key={editing?.id ?? parcel?.id ?? `${surface}${params.get("step")}`}
              today={today}
              surfaceId={surface}
              entry={editing}
              parcel={parcel}
              weighed={weighed}
              kind={params.get("kind") ?? undefined}
              step={params.get("step") ?? undefined}
              share={Number(params.get("share")) || undefined}
              round={Number(params.get("round")) || undefined}
              done={close}
            />
          ) : (
            <div className="flex flex-wrap gap-2">
              <button
                type="button"
                className="btn btn-primary min-h-12"
                disabled={today.answer.lanes.length === 0}
                onClick={() => setParams({ surface: today.answer.surfaceId || today.answer.lanes[0]?.surfaceId || "" })}
              >
                {tr("Log a coat or other work")}
              </button>
              <Link className="btn min-h-12" to={`/boats/${today.boat.id}/report`}>
                {tr("The whole record")}
              </Link>
            </div>
          )}
          <section className="mt-8">
            <h2 className="text-lg">{tr("Clocks running")}</h2>
            <Clocks lanes={today.answer.lanes} zone={zone} />
          </section>
          <section className="mt-8">
            <h2 className="text-lg">{tr("What was done")}</h2>
            <Entries entries={entries} zone={zone} edit={(id) => setParams({ entry: id })} />
          </section>
        </>
      )}
    </>
  );
}

const SHOWN = ["touch-dry", "sandable", "recoat-opens", "recoat-closes"];

function Clocks({ lanes, zone }: { lanes: Schemas["ReadinessLane"][]; zone: string }) {
  const running = lanes.filter((l) => l.clock);
  if (running.length === 0) return <p>{tr("No coat is logged, so no clock runs.")}</p>;
  return (
    <Reflow>
      <table className="table-plain text-sm">
        <thead>
          <tr>
            <th>{tr("Surface")}</th>
            <th>{tr("Now")}</th>
            <th>{tr("Touch-dry")}</th>
            <th>{tr("Sandable")}</th>
            <th>{tr("Recoat from")}</th>
            <th>{tr("Recoat until")}</th>
            <th>{tr("Hard enough")}</th>
          </tr>
        </thead>
        <tbody>
          {running.map((l) => (
            <tr key={l.surfaceId}>
              <td className="font-semibold">{l.surface}</td>
              <td>
                {l.clock && (
                  <Figure title={tr("{surface}, the coat clock", { surface: l.surface })} working={l.clock.working}>
                    {STATES[l.clock.state]?.glyph}{" "}
                    {l.clock.abraded && l.clock.state === "open" ? tr("sanded: open") : STATES[l.clock.state]?.word}
                  </Figure>
                )}
                {l.clock?.blush && <b> {tr("wash first")}</b>}
              </td>
              {SHOWN.map((name) => {
                const e = l.clock?.events.find((x) => x.name === name);
                return (
                  <td key={name} className="whitespace-nowrap" data-event={name}>
                    {e?.at ? (
                      <>
                        {stamp(e.at, zone)}
                        {e.forecast && <span className="quiet"> {tr("forecast")}</span>}
                      </>
                    ) : e?.tabled ? (
                      tr("after the forecast ({x} % there)", { x: Math.floor(100 * e.progress) })
                    ) : name === "recoat-closes" ? (
                      tr("no end stated")
                    ) : (
                      tr("not on the sheet")
                    )}
                  </td>
                );
              })}
              <td data-event="hard">
                <Sentence spans={l.hard} zone={zone} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Reflow>
  );
}

function Entries({ entries, zone, edit }: { entries: Schemas["Entry"][]; zone: string; edit: (id: string) => void }) {
  const path = (id: string) => ({ params: { path: { id } } });
  const remove = useChange(["log"], (id: string) => ok(api.DELETE("/api/log/{id}", path(id))));
  const restore = useChange(["log"], (id: string) => ok(api.POST("/api/log/{id}/restore", path(id))));
  const [showDeleted, setShowDeleted] = useState(false);
  const { prose } = useSettings();
  const undo = remove.data?.deleted && entries.find((e) => e.id === remove.data?.id)?.deleted ? remove.data : undefined;
  const shown = entries.filter((e) => showDeleted || !e.deleted);
  const gone = entries.filter((e) => e.deleted).length;
  return (
    <>
      {undo && (
        <p role="status" className="my-2 border-l-4 border-warning pl-3">
          {tr("Deleted: {surface}, {product}.", {
            surface: undo.surface || tr("the boat"),
            product: undo.product || undo.kind,
          })}{" "}
          <button type="button" className="btn btn-sm min-h-11" onClick={() => restore.mutate(undo.id)}>
            {tr("Undo")}
          </button>
        </p>
      )}
      <Refusal error={remove.error ?? restore.error} />
      {shown.length === 0 && <p>{tr("Nothing yet.")}</p>}
      <ul>
        {shown.map((e) => (
          <li
            key={e.id}
            className={`rule-b flex flex-wrap items-baseline gap-x-4 gap-y-1 py-2 ${e.deleted ? "line-through opacity-60" : ""}`}
          >
            <span className="w-36 shrink-0 whitespace-nowrap">{stamp(e.startedAt, zone)}</span>
            <b className="w-44 shrink-0">{e.surface || tr("the boat")}</b>
            <span className="min-w-52 flex-1">
              <What entry={e} />
              {e.who && <span className="quiet">, {e.who}</span>}
              {e.note && <span className="quiet"> – {e.note}</span>}
              {e.changed && <span className="block border-l-4 border-warning pl-2">{prose(e.changed)}</span>}
              {e.flag && <span className="block border-l-4 border-error pl-2 font-semibold">{prose(e.flag)}</span>}
              <Judged entry={e} zone={zone} />
            </span>
            <span className="flex gap-3">
              {e.deleted ? (
                <button type="button" className="linked max-sm:min-h-11" onClick={() => restore.mutate(e.id)}>
                  {tr("restore")}
                </button>
              ) : (
                <>
                  <button type="button" className="linked max-sm:min-h-11" onClick={() => edit(e.id)}>
                    {tr("correct")}
                  </button>
                  <button type="button" className="linked max-sm:min-h-11" onClick={() => remove.mutate(e.id)}>
                    {tr("delete")}
                  </button>
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
      {gone > 0 && (
        <button
          type="button"
          className="linked mt-2 text-sm max-sm:min-h-11"
          onClick={() => setShowDeleted(!showDeleted)}
        >
          {showDeleted ? tr("hide deleted entries") : tr("show {gone} deleted", { gone })}
        </button>
      )}
    </>
  );
}
