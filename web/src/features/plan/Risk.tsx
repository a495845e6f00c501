import { scaleLinear, scaleTime } from "d3-scale";
import { line } from "d3-shape";
import { useEffect } from "react";
import type { Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Said } from "../../ui/Sentence";
import { TimeTicks } from "../../ui/TimeTicks";
import { elapsed, longDay } from "../../ui/time";
import { troubleOf, useStream } from "../../ui/useStream";
import { tr, trNodes } from "../../words/words";
import { ErrorsFrom } from "../weather/ErrorsFrom";
import { Ways } from "./Ways";

/** How many futures make odds good to three in a hundred; the plan itself is told from fewer. */
const MANY = 1000;

type BoatRisk = Schemas["PlanBoatRisk"];

/** How likely each launch is, what delays it, and what a change would buy. */
export function Risk({ plan, boatId }: { plan: Schemas["YardPlan"]; boatId: string }) {
  const zone = plan.place.timeZone;
  const path = `/api/places/${plan.place.id}/plan/risk?futures=`;
  const told = useStream<Schemas["LineRisk"]>(`${path}0`);
  const finer = useStream<Schemas["LineRisk"]>(`${path}${MANY}`);
  const risk = finer.last?.result ?? told.last?.result;
  const done = finer.done || told.done;
  const error = finer.error ?? told.error;
  const play = finer.start;
  const refresh = useChange(["plan"], async () => undefined);
  const again = refresh.mutate;
  const { start } = told;
  // What the plan tells, worked out without being asked for where nothing is known; leaving the screen ends it.
  useEffect(() => void start().then(() => again(undefined)), [start, again]);
  const playMany = () => void play().then(() => again(undefined));
  const stop = () => {
    told.stop();
    finer.stop();
  };
  return (
    <section>
      {!risk && done === 0 && (
        <p>
          {tr(
            "The plan is replayed over courses that the weather may take, each task in the same order and as early as that weather lets it.",
          )}{" "}
          <button type="button" className="btn btn-primary ml-2 min-h-11" onClick={playMany}>
            {tr("Play {futures, number} futures", { futures: MANY })}
          </button>
        </p>
      )}
      {done > 0 && (
        <p className="flex items-center gap-3" role="status">
          <progress className="progress w-48" value={done} max={1} /> {tr("playing")}
          <button type="button" className="btn min-h-11" onClick={stop}>
            {tr("Stop")}
          </button>
        </p>
      )}
      {error && (
        <p role="alert" className="text-error">
          <Said words={troubleOf(error)} />
        </p>
      )}
      {risk && (
        <>
          <h2 className="text-lg">{tr("Ready by the end of a day")}</h2>
          <div className="grid gap-6 lg:grid-cols-2">
            {[...risk.boats]
              .sort((a, b) => Number(b.boatId === boatId) - Number(a.boatId === boatId))
              .map((b) => (
                <Curve key={b.boatId} boat={b} zone={zone} />
              ))}
          </div>
          <h2 className="mt-6 text-lg">{tr("Where the time goes")}</h2>
          <ul>
            {risk.causes.map((c) => (
              <li key={c.taskId} className="rule-b py-1">
                {trNodes("{meanH} on the mean: {name} waits for weather or hands", {
                  meanH: <b>{elapsed(c.meanH)}</b>,
                  name: <Said words={c.name} />,
                })}
              </li>
            ))}
          </ul>
          <p className="quiet mt-2 text-sm">
            {tr(
              "{futures, number} futures, seeded, four in each course of the weather: hours of work, clocks against their sheets, coats laid again, late deliveries and people away are drawn in each. No odds are told over 99 %.",
              { futures: risk.futures },
            )}{" "}
            <ErrorsFrom place={plan.place} />
          </p>
          {risk.futures < MANY && done === 0 && (
            <button type="button" className="btn mt-2 min-h-11" onClick={playMany}>
              {tr("Play {futures, number} futures", { futures: MANY })}
            </button>
          )}
          <Ways plan={plan} boats={plan.plan?.launches ?? []} title={tr("What a change would buy")} />
        </>
      )}
    </section>
  );
}

const W = 520;
const H = 190;

function Curve({ boat, zone }: { boat: BoatRisk; zone: string }) {
  const points = boat.curve.map((p) => ({ t: Date.parse(`${p.day}T12:00:00Z`), pct: p.pct }));
  const due = boat.due ? Date.parse(`${boat.due}T12:00:00Z`) : undefined;
  const said = boat.due
    ? tr("{boat}: {duePct} % ready by {x}{x2}.", {
        boat: boat.boat,
        duePct: Math.round(boat.duePct),
        x: longDay(`${boat.due}T12:00:00Z`, zone),
        x2: boat.median ? tr("; half of the futures by {x}", { x: longDay(`${boat.median}T12:00:00Z`, zone) }) : "",
      })
    : tr("{boat}: no day wanted.", { boat: boat.boat });
  if (points.length < 2) return <p>{said}</p>;
  const all = [...points.map((p) => p.t), ...(due ? [due] : [])];
  const x = scaleTime([Math.min(...all) - 86_400_000, Math.max(...all) + 86_400_000], [40, W - 10]);
  const early = due !== undefined && x(due) < 110;
  const y = scaleLinear([0, 100], [H - 24, 8]);
  return (
    <figure>
      <figcaption className="font-semibold">{said}</figcaption>
      <svg viewBox={`0 0 ${W} ${H}`} className="block w-full" role="img" aria-label={said}>
        {[0, 50, 100].map((p) => (
          <g key={p}>
            <line x1={40} x2={W - 10} y1={y(p)} y2={y(p)} stroke="var(--color-base-300)" />
            <text x={34} y={y(p) + 4} fontSize={12} textAnchor="end" fill="currentColor">
              {p}
            </text>
          </g>
        ))}
        <TimeTicks x={x} count={5} y={H - 6} width={W} zone={zone} />
        <path
          d={
            line<{ t: number; pct: number }>(
              (p) => x(p.t),
              (p) => y(p.pct),
            )(points) ?? ""
          }
          fill="none"
          stroke="currentColor"
          strokeWidth={2.5}
        />
        {due && (
          <g>
            <line x1={x(due)} x2={x(due)} y1={6} y2={H - 22} stroke="var(--shut)" strokeWidth={2} />
            <text
              x={x(due) + (early ? 5 : -5)}
              y={18}
              textAnchor={early ? "start" : "end"}
              fontSize={12}
              fontWeight={700}
              fill="var(--shut)"
            >
              {tr("wanted")}
            </text>
          </g>
        )}
      </svg>
    </figure>
  );
}
