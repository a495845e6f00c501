import { useEffect, useRef, useState } from "react";
import { Link } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { tellDone } from "../../api/done";
import { useChange, useKinds } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { clock, longDay, sameDay, span, stamp } from "../../ui/time";
import { tr, word } from "../../words/words";
import { named } from "./name";

type Item = Schemas["PlanItem"];

/** The next days, task by task: who, why then, and what can be done with it. */
export function Week({ plan, boatId }: { plan: Schemas["YardPlan"]; boatId: string }) {
  const [days, setDays] = useState(7);
  const [open, setOpen] = useState("");
  const zone = plan.place.timeZone;
  const until = Date.parse(plan.now) + days * 86_400_000;
  const items = (plan.plan?.items ?? []).filter((i) => Date.parse(i.start) < until);
  const list: { day: string; items: Item[] }[] = [];
  for (const i of items) {
    const last = list.at(-1);
    if (last && sameDay(last.day, i.start, zone)) last.items.push(i);
    else list.push({ day: i.start, items: [i] });
  }
  return (
    <>
      {list.map((d) => (
        <section key={d.day} className="mb-5">
          <h2 className="text-lg">{longDay(d.day, zone)}</h2>
          <ul>
            {d.items.map((i) => (
              <One
                key={i.taskId}
                item={i}
                plan={plan}
                mine={i.boatId === boatId}
                open={open === i.taskId}
                setOpen={(on) => setOpen(on ? i.taskId : "")}
              />
            ))}
          </ul>
        </section>
      ))}
      {list.length === 0 && <p>{tr("Nothing is planned for these days.")}</p>}
      <p className="flex flex-wrap gap-4 text-sm">
        <button type="button" className="linked max-sm:min-h-11" onClick={() => setDays(days + 14)}>
          {tr("two weeks more")}
        </button>
        <Link className="linked max-sm:min-h-11" to={`/boats/${boatId}/weather?view=chances`}>
          {tr("if it rains: the wet-day list")}
        </Link>
      </p>
    </>
  );
}

function One({
  item: i,
  plan,
  mine,
  open,
  setOpen,
}: {
  item: Item;
  plan: Schemas["YardPlan"];
  mine: boolean;
  open: boolean;
  setOpen: (on: boolean) => void;
}) {
  const zone = plan.place.timeZone;
  const { show, prose } = useSettings();
  const name = `${i.boat}: ${named(i, prose)}`;
  return (
    <li className="rule-b py-2" data-task={i.taskId}>
      <div className="grid gap-x-4 gap-y-1 sm:grid-cols-[7rem_minmax(0,1fr)_auto]">
        <b className="whitespace-nowrap">
          {clock(i.start, zone)}
          {!i.launch && `–${clock(i.end, zone)}`}
        </b>
        <div>
          <span className={mine ? "font-semibold" : ""}>{name}</span>
          {i.pinned && <b> {tr("· pinned")}</b>}
          {i.rekey && <b className="text-error"> {tr("· mends a missed window or limit")}</b>}
          <span className="quiet">
            {i.people.length > 0 && ` · ${i.people.join(", ")}`}
            {i.hours > 0 && tr(" · {hours} of work", { hours: span(i.hours + i.setupH) })}
            {i.litres
              ? tr(" · {text} {unit} more", { text: show(i.litres, "L").text, unit: show(i.litres, "L").unit })
              : ""}
            {i.limits.map((l) => ` · ${prose(l.until)} by ${stamp(l.by, zone)} (${word(l.name)})`)}
            {i.closes && tr(" · window closes {closes}", { closes: stamp(i.closes, zone) })}
          </span>
          <p className="quiet text-sm">
            <Sentence spans={i.why} zone={zone} />
          </p>
        </div>
        {!i.launch && !i.rekey && (
          <button
            type="button"
            className="btn no-print btn-sm self-start max-sm:min-h-11"
            aria-expanded={open}
            aria-label={tr("Change {name}", { name })}
            onClick={() => setOpen(!open)}
          >
            {tr("Change")}
          </button>
        )}
      </div>
      {open && <Change item={i} plan={plan} name={name} />}
    </li>
  );
}

/** Moves a task, pins it, skips it, or says that it is done. */
function Change({ item: i, plan, name }: { item: Item; plan: Schemas["YardPlan"]; name: string }) {
  const { kindOf } = useKinds();
  // A task that was moved to another day is drawn anew there: the keys go with it.
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => box.current?.focus(), []);
  const id = plan.place.id;
  const move = useChange(["plan"], (at: string | undefined) =>
    ok(
      api.POST("/api/places/{id}/plan/move", {
        params: { path: { id } },
        body: { version: plan.version, taskId: i.taskId, at },
      }),
    ),
  );
  const mark = useChange(["plan"], (m: Schemas["PlanMark"]) =>
    ok(
      api.PUT("/api/places/{id}/plan", {
        params: { path: { id } },
        body: {
          version: plan.version,
          value: { ...plan.settings, marks: { ...plan.settings.marks, [i.taskId.replace(/\/.*/, "")]: m } },
        },
      }),
    ),
  );
  const by = (hours: number) => new Date(Date.parse(i.start) + hours * 3_600_000).toISOString();
  const tell = useChange(["log"], (part: number) => tellDone(i.boatId, i, name, plan.now, part));
  const judged = kindOf(i.work).judged;
  const shift = (hours: number, words: string) => (
    <button
      type="button"
      className="btn btn-sm max-sm:min-h-11"
      disabled={move.isPending}
      onClick={() => move.mutate(by(hours))}
    >
      {words}
    </button>
  );
  return (
    <>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the buttons in it do the same */}
      <div
        ref={box}
        tabIndex={-1}
        className="mt-2 flex flex-wrap items-center gap-2"
        onKeyDown={(e) => {
          const hours = { ArrowLeft: -1, ArrowRight: 1, PageUp: -24, PageDown: 24 }[e.key];
          if (hours) {
            e.preventDefault();
            move.mutate(by(hours));
          }
        }}
      >
        {shift(-24, tr("a day earlier"))}
        {shift(-1, tr("an hour earlier"))}
        {shift(1, tr("an hour later"))}
        {shift(24, tr("a day later"))}
        {i.pinned ? (
          <button type="button" className="btn btn-sm max-sm:min-h-11" onClick={() => move.mutate(undefined)}>
            {tr("unpin")}
          </button>
        ) : (
          <button type="button" className="btn btn-sm max-sm:min-h-11" onClick={() => move.mutate(i.start)}>
            {tr("pin here")}
          </button>
        )}
        {!i.coat && !judged && i.stepId && (
          <>
            <button
              type="button"
              className="btn btn-sm max-sm:min-h-11"
              disabled={tell.isPending}
              onClick={() => tell.mutate(1)}
            >
              {tr("done: log it")}
            </button>
            <button
              type="button"
              className="btn btn-sm max-sm:min-h-11"
              disabled={tell.isPending}
              onClick={() => tell.mutate(0.5)}
            >
              {tr("half done")}
            </button>
          </>
        )}
        <button type="button" className="btn btn-sm max-sm:min-h-11" onClick={() => mark.mutate({ state: "skipped" })}>
          {tr("skip")}
        </button>
        {(i.coat || judged) && (
          <Link
            className="linked text-sm"
            to={`/boats/${i.boatId}/log?surface=${i.surfaceId}&step=${i.stepId}&kind=${i.work}`}
          >
            {judged ? tr("log the verdict") : tr("log the coat")}
          </Link>
        )}
        <span className="quiet text-xs">{tr("arrows move an hour, page keys a day")}</span>
      </div>
      <Refusal error={move.error ?? mark.error ?? tell.error} />
    </>
  );
}
