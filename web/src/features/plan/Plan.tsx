import { useEffect, useRef, useState } from "react";
import { useParams, useSearchParams } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useSurvey, useYardPlan } from "../../api/queries";
import { Answer, Loaded, Tabs } from "../../ui/Page";
import { Said, Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { longDay, span, stamp, workdays } from "../../ui/time";
import { troubleOf, useStream } from "../../ui/useStream";
import { tr, trNodes } from "../../words/words";
import { CalendarAddress } from "./CalendarAddress";
import { Hands } from "./Hands";
import { Launches } from "./Launches";
import { LeftOut } from "./LeftOut";
import { Risk } from "./Risk";
import { Season } from "./Season";
import { beginnings, Sheets } from "./Sheets";
import { Ways } from "./Ways";
import { Week } from "./Week";

const VIEWS = [
  { key: "season", name: tr("Season") },
  { key: "week", name: tr("Week") },
  { key: "sheets", name: tr("Day sheets") },
  { key: "launches", name: tr("Launches") },
  { key: "risk", name: tr("Risk") },
  { key: "hands", name: tr("Hands and tasks") },
] as const;

type View = (typeof VIEWS)[number]["key"];

/** The whole refit put into weather, people and recoat windows. */
export function Plan() {
  const { boatId = "" } = useParams();
  const survey = useSurvey(boatId);
  const plan = useYardPlan(survey.data?.place.id ?? "");
  return <Loaded query={plan}>{(p) => <Shown plan={p} boatId={boatId} />}</Loaded>;
}

function Shown({ plan, boatId }: { plan: Schemas["YardPlan"]; boatId: string }) {
  const [params, setParams] = useSearchParams();
  const view = VIEWS.find((v) => v.key === params.get("view"))?.key ?? "season";
  const { prose } = useSettings();
  const zone = plan.place.timeZone;
  const id = plan.place.id;
  const [calendar, setCalendar] = useState(false);
  useKept(plan);
  const mineOf = plan.boats.find((b) => b.id === boatId);
  const mine = plan.plan?.launches.find((l) => l.boatId === boatId);
  return (
    <>
      <Tabs
        label={tr("Plan")}
        tabs={[...VIEWS]}
        at={view}
        onChange={(v: View) => setParams({ view: v }, { replace: true })}
      />
      <Answer
        over={
          <>
            <span>{plan.place.name}</span>
            <span>
              {plan.made ? tr("plan of {made}", { made: stamp(plan.made, zone) }) : tr("a first draft, not kept yet")}
            </span>
          </>
        }
        answer={
          !plan.plan ? (
            tr("There is no plan.")
          ) : view === "sheets" ? (
            beginnings(plan, prose)
          ) : (
            <Sentence spans={(view !== "launches" && mine?.says) || plan.plan.headline} zone={zone} />
          )
        }
        detail={
          mine &&
          view !== "launches" &&
          view !== "sheets" &&
          trNodes(
            "{due}{hours} of work to come on {boat}{besideH}{rekey}. Beyond the forecast, from {known}, the bars have the place's usual days, dry and wet in turn; the dates are of many courses of the weather{x}.",
            {
              due: mine.due && tr("Wanted by {due}; ", { due: longDay(mine.due, zone) }),
              hours: workdays(mine.hours, mineOf?.workDayH ?? 8),
              boat: mine.boat,
              besideH:
                mine.besideH > 0 && tr(", and {besideH} that the plan takes beside", { besideH: span(mine.besideH) }),
              rekey:
                mine.rekey > 0 &&
                tr(", {rekey} missed {rekey, plural, one {window or limit} other {windows and limits}} to mend", {
                  rekey: mine.rekey,
                }),
              known: stamp(plan.known, zone),
              x: plan.odds ? "" : tr(", which are being played"),
            },
          )
        }
      />
      {plan.trouble.map((t) => (
        <p key={t.path + t.message} role="alert" className="mb-2 border-l-4 border-error pl-3">
          <Said words={t.says} />
        </p>
      ))}
      <Making plan={plan} calendar={calendar} setCalendar={setCalendar} />
      {calendar && <CalendarAddress placeId={id} />}
      <LeftOut plan={plan} />
      <Moved plan={plan} />
      {plan.plan && view === "season" && mine && <Earlier plan={plan} mine={mine} />}
      {plan.plan && view === "season" && <Season plan={plan} boatId={boatId} />}
      {plan.plan && view === "week" && <Week plan={plan} boatId={boatId} />}
      {plan.plan && view === "sheets" && <Sheets plan={plan} />}
      {plan.plan && view === "launches" && <Launches plan={plan} />}
      {plan.plan && view === "risk" && <Risk plan={plan} boatId={boatId} />}
      {view === "hands" && <Hands key={plan.place.id} plan={plan} boatId={boatId} />}
    </>
  );
}

type MakingProps = { plan: Schemas["YardPlan"]; calendar: boolean; setCalendar: (on: boolean) => void };

/** Makes the plan again, goes back on it, and takes it elsewhere. */
function Making({ plan, calendar, setCalendar }: MakingProps) {
  const id = plan.place.id;
  const undo = useChange(["plan"], () => ok(api.POST("/api/places/{id}/plan/undo", { params: { path: { id } } })));
  const redo = useChange(["plan"], () => ok(api.POST("/api/places/{id}/plan/redo", { params: { path: { id } } })));
  const [anew, setAnew] = useState(false);
  const make = useStream<Schemas["LineYardPlan"]>(`/api/places/${id}/plan/make?anew=${anew}`, "POST");
  const refresh = useChange(["plan"], async () => undefined);
  const { start } = make;
  const again = refresh.mutate;
  const [runs, setRuns] = useState(0);
  useEffect(() => {
    if (runs > 0) start().then(() => again(undefined));
  }, [runs, start, again]);
  const run = (forget: boolean) => {
    setAnew(forget);
    setRuns((n) => n + 1);
  };
  return (
    <div className="no-print mb-4 flex flex-wrap items-center gap-2">
      <button type="button" className="btn btn-primary min-h-11" disabled={make.done > 0} onClick={() => run(false)}>
        {tr("Look for a better plan")}
      </button>
      <button type="button" className="btn min-h-11" disabled={make.done > 0} onClick={() => run(true)}>
        {tr("Plan anew")}
      </button>
      {make.done > 0 && (
        <>
          <progress className="progress w-40" value={make.done} max={1} aria-label={tr("Planning")} />
          <button type="button" className="btn min-h-11" onClick={make.stop}>
            {tr("Stop")}
          </button>
        </>
      )}
      {plan.undo > 0 && (
        <button type="button" className="btn min-h-11" disabled={undo.isPending} onClick={() => undo.mutate(undefined)}>
          {tr("Undo: the plan before")}
        </button>
      )}
      {plan.redo > 0 && (
        <button type="button" className="btn min-h-11" disabled={redo.isPending} onClick={() => redo.mutate(undefined)}>
          {tr("Redo")}
        </button>
      )}
      <button
        type="button"
        className="btn btn-ghost min-h-11"
        aria-expanded={calendar}
        onClick={() => setCalendar(!calendar)}
      >
        {tr("Calendar")}
      </button>
      <a className="btn btn-ghost min-h-11" href={`/api/places/${id}/plan.csv`}>
        {tr("CSV")}
      </a>
      <a className="btn btn-ghost min-h-11" href={`/api/places/${id}/plan.xlsx`}>
        {tr("XLSX")}
      </a>
      <button type="button" className="btn btn-ghost min-h-11" onClick={() => print()}>
        {tr("Print")}
      </button>
      {make.error && (
        <span role="alert">
          <Said words={troubleOf(make.error)} />
        </span>
      )}
    </div>
  );
}

/** What would bring a boat forward, worked out when it is asked for. */
function Earlier({ plan, mine }: { plan: Schemas["YardPlan"]; mine: Schemas["PlanLaunching"] }) {
  const [asked, ask] = useState(false);
  if (asked)
    return (
      <Ways
        plan={plan}
        boats={[mine]}
        title={tr("What would bring {boat} forward, and its price", { boat: mine.boat })}
      />
    );
  return (
    <button type="button" className="btn no-print mb-4 min-h-11" onClick={() => ask(true)}>
      {tr("What would bring her forward?")}
    </button>
  );
}

/** Keeps the first plan there is, so that tomorrow's goes on from it, and plays one without odds, or whose odds are of before, in many courses of the weather. */
function useKept(plan: Schemas["YardPlan"]) {
  const id = plan.place.id;
  const first = useStream<Schemas["LineYardPlan"]>(`/api/places/${id}/plan/make?quick=true`, "POST");
  const odds = useStream<Schemas["LineRisk"]>(`/api/places/${id}/plan/risk?futures=0`);
  const refresh = useChange(["plan"], async () => undefined);
  const again = refresh.mutate;
  const asked = useRef("");
  const { start: keep } = first;
  const { start: play } = odds;
  useEffect(() => {
    const state = `${plan.version} ${plan.odds}`;
    if ((plan.odds && !plan.oddsStale) || !plan.plan || asked.current === state) return;
    // Who only passes by sets nothing going.
    const wait = setTimeout(() => {
      asked.current = state;
      (plan.made ? play : keep)().then(() => again(undefined));
    }, 5000);
    return () => clearTimeout(wait);
  }, [plan, keep, play, again]);
}

/** What the weather, the log or a change has moved since the plan was made. */
function Moved({ plan }: { plan: Schemas["YardPlan"] }) {
  const zone = plan.place.timeZone;
  if (plan.moved.length === 0) return null;
  return (
    <details className="mb-4 border-l-4 border-warning pl-3">
      <summary className="min-h-11 cursor-pointer font-semibold sm:min-h-0">
        {tr("{moved, plural, one {One task has} other {{moved} tasks have}} moved since this plan was made", {
          moved: plan.moved.length,
        })}
      </summary>
      <ul className="mt-1 text-sm">
        {plan.moved.map((m) => (
          <li key={m.taskId} className="rule-b py-1">
            <b>
              <Said words={m.name} />
            </b>
            : {m.from ? stamp(m.from, zone) : tr("new")} → {m.to ? stamp(m.to, zone) : tr("out of the plan")}.{" "}
            <span className="quiet">
              <Sentence spans={m.why} zone={zone} />
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}
