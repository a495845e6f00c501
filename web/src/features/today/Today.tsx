import { Link, useParams } from "wouter";
import type { Schemas } from "../../api/client";
import { useToday } from "../../api/queries";
import { KNOWN_BY } from "../../ui/knownBy";
import { Answer, Loaded } from "../../ui/Page";
import { part } from "../../ui/part";
import { Said, Sentence } from "../../ui/Sentence";
import { STATES } from "../../ui/states";
import { Term } from "../../ui/Term";
import { clock, day, longDay, span, stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";

// The sentence comes first; what is drawn and drawn by lot follows it.
const DayRibbon = part(
  async () => (await import("./DayRibbon")).DayRibbon,
  ({ today }) => <div style={{ minHeight: 170 + 60 * today.answer.lanes.length }} />,
);
const BestChances = part(async () => (await import("../weather/Chances")).BestChances);

export function Today() {
  const { boatId = "" } = useParams();
  return <Loaded query={useToday(boatId)}>{(t) => <Shown today={t} />}</Loaded>;
}

function Shown({ today }: { today: Schemas["Today"] }) {
  const { answer, ribbon, place, boat } = today;
  const zone = place.timeZone;
  const base = `/boats/${boat.id}`;
  const lead = answer.lanes.find((l) => l.surfaceId === answer.surfaceId);
  const latest = ribbon.hours.filter((h) => h.measured).at(-1);
  return (
    <>
      <Answer
        over={
          <>
            <span>
              {longDay(ribbon.now, zone)}, {clock(ribbon.now, zone)}
            </span>
            <span>{place.name}</span>
            {latest && (
              <span>
                {trNodes("air {tempC}, {rhPct} % {x} at {at}", {
                  tempC: <Quantity value={latest.tempC} unit="°C" />,
                  rhPct: Math.round(latest.rhPct),
                  x: KNOWN_BY[place.weatherSource],
                  at: clock(latest.at, zone),
                })}
              </span>
            )}
            {boat.launchDate && <span>{tr("launch {launchDate}", { launchDate: day(boat.launchDate, "UTC") })}</span>}
          </>
        }
        answer={
          <Sentence spans={answer.headline} zone={zone} href={lead && `${base}/build-up?surface=${lead.surfaceId}`} />
        }
        detail={
          <>
            <Sentence spans={answer.detail} zone={zone} /> <Sentence spans={answer.dry} zone={zone} />{" "}
            {lead && (
              <Link className="linked" to={`${base}/weather?surface=${lead.surfaceId}`}>
                {tr("why these times")}
              </Link>
            )}
            {answer.lanes.length === 0 && (
              <Link className="btn btn-primary ml-2" to={`${base}/survey`}>
                {tr("Go to Survey")}
              </Link>
            )}
          </>
        }
      />
      {answer.warnings.map((w) => (
        <p key={JSON.stringify(w)} role="alert" className="mb-3 border-l-4 border-warning pl-3">
          <Said words={w} />
        </p>
      ))}
      <DayRibbon today={today} />
      <div className="mt-6 grid gap-8 border-t border-base-content pt-4 lg:grid-cols-[3fr_2fr]">
        <section>
          <h2 className="text-lg">{tr("In this order today")}</h2>
          <Order answer={answer} zone={zone} now={ribbon.now} base={base} />
        </section>
        {lead?.mix && lead.cover.length === 0 && <Ready mix={lead.mix} lane={lead} base={base} />}
      </div>
      <BestChances boatId={boat.id} zone={zone} />
      <section className="mt-8">
        <h2 className="text-lg">{tr("Every surface")}</h2>
        <Surfaces lanes={answer.lanes} zone={zone} base={base} />
      </section>
    </>
  );
}

function Order({
  answer,
  zone,
  now,
  base,
}: {
  answer: Schemas["ReadinessAnswer"];
  zone: string;
  now: string;
  base: string;
}) {
  if (answer.actions.length === 0)
    return (
      <p className="mt-1">{tr("Nothing is due on these surfaces today. See each one below for its next chance.")}</p>
    );
  return (
    <ol className="mt-1">
      {answer.actions.map((a) => {
        const isNow = Date.parse(a.at) - Date.parse(now) < 60_000;
        return (
          <li key={`${a.at}${a.surfaceId}${a.hours}${a.task?.taskId}`} className="rule-b flex gap-4 py-2">
            <b className="w-12 shrink-0">{isNow ? tr("now") : clock(a.at, zone)}</b>
            <span className="grow">
              <Sentence spans={a.text} zone={zone} />
              {a.until && a.hours > 0 && (
                <span className="quiet">{tr("; begin before {until}", { until: clock(a.until, zone) })}</span>
              )}
            </span>
            {a.task && a.task.people.length > 0 && <span className="quiet">{a.task.people.join(", ")}</span>}
            {a.hours > 0 && <span className="quiet whitespace-nowrap">{span(a.hours)}</span>}
            {(a.task || (a.until && a.hours > 0)) && (
              <Link
                className="linked flex min-h-11 shrink-0 items-center"
                to={`${base}/log?surface=${a.surfaceId}${a.task?.stepId ? `&step=${a.task.stepId}&kind=${a.task.work}&share=${Math.round(a.task.sharePct)}` : ""}`}
              >
                {tr("log it")}
              </Link>
            )}
          </li>
        );
      })}
    </ol>
  );
}

function Ready({ mix, lane, base }: { mix: Schemas["ReadinessMix"]; lane: Schemas["ReadinessLane"]; base: string }) {
  return (
    <section>
      <h2 className="text-lg">{tr("Before you open the tin: {surface}", { surface: lane.surface.toLowerCase() })}</h2>
      <ul className="mt-1">
        <li className="rule-b py-2">{mix.product}</li>
        <li className="rule-b py-2">
          <Figure title={tr("{surface}, one coat", { surface: lane.surface })} working={mix.working}>
            {trNodes("{litres} for one coat, {wftUm} wet", {
              litres: <Quantity value={mix.litres} unit="L" />,
              wftUm: <Quantity value={mix.wftUm} unit="µm" />,
            })}
          </Figure>
          {tr("; about {layH} to lay", { layH: span(mix.layH) })}
        </li>
        {mix.shelfL !== undefined && (
          <li
            className={`rule-b py-2 ${mix.shelfL < mix.litres ? "border-l-4 border-l-error pl-2 font-semibold" : ""}`}
          >
            {trNodes("{shelfL} on the shelf{shelfL2}", {
              shelfL: <Quantity value={mix.shelfL} unit="L" />,
              shelfL2: mix.shelfL < mix.litres && tr(": this coat cannot be finished with it"),
            })}
          </li>
        )}
        {mix.inductionH > 0 && (
          <li className="rule-b py-2">
            {trNodes("Let it stand {inductionH} after mixing ({term})", {
              inductionH: span(mix.inductionH),
              term: <Term>{tr("induction")}</Term>,
            })}
          </li>
        )}
        {mix.potLifeH !== undefined && mix.atTempC !== undefined && (
          <li className="rule-b py-2">
            {trNodes("{term} {potLifeH} at {atTempC}; big pots kick sooner", {
              term: <Term>{tr("Pot life")}</Term>,
              potLifeH: span(mix.potLifeH),
              atTempC: <Quantity value={mix.atTempC} unit="°C" />,
            })}
          </li>
        )}
        {mix.holdH > 0 && (
          <li className="rule-b py-2">
            {trNodes("The {term} must {term2} {holdH} after laying", {
              term: <Term>{tr("field")}</Term>,
              term2: <Term>{tr("hold")}</Term>,
              holdH: span(mix.holdH),
            })}
          </li>
        )}
        {mix.cautions.map((c) => (
          <li key={c} className="rule-b border-l-4 border-l-accent py-2 pl-3">
            {c}
          </li>
        ))}
      </ul>
      <Link className="btn btn-primary no-print mt-3 min-h-12" to={`${base}/bench?surface=${lane.surfaceId}`}>
        {tr("Mix it at the Bench")}
      </Link>
      <p className="quiet mt-2 text-xs">
        {tr("The data sheet of the tin in hand, local rules and licensed practice come before anything here.")}
      </p>
    </section>
  );
}

function Surfaces({ lanes, zone, base }: { lanes: Schemas["ReadinessLane"][]; zone: string; base: string }) {
  return (
    <ul className="mt-1">
      {lanes.map((l) => {
        const state = l.clock && STATES[l.clock.state];
        return (
          <li key={l.surfaceId} className="rule-b grid gap-x-6 gap-y-1 py-2 sm:grid-cols-[minmax(0,1fr)_220px]">
            <div>
              <Sentence spans={l.answer} zone={zone} href={`${base}/build-up?surface=${l.surfaceId}`} />{" "}
              <span className="quiet">
                <Sentence spans={l.detail} zone={zone} />
              </span>
              {l.cover.length > 0 && (
                <p className="border-l-4 border-error pl-2 text-sm font-semibold">
                  <Sentence spans={l.cover} zone={zone} />
                </p>
              )}
              {l.night.length > 0 && (
                <p className="quiet text-sm">
                  <Sentence spans={l.night} zone={zone} />
                </p>
              )}
              {l.damage.map((d) => (
                <p key={JSON.stringify(d)} className="border-l-4 border-error pl-2 text-sm">
                  <b>{tr("Harmed:")}</b> <Sentence spans={d} zone={zone} />
                </p>
              ))}
            </div>
            <div className="text-sm">
              {l.clock && state ? (
                <>
                  <Figure title={tr("{surface}, the coat clock", { surface: l.surface })} working={l.clock.working}>
                    {trNodes("last coat {word}{until}", {
                      word: state.word,
                      until: l.clock.until && tr(" until {until}", { until: stamp(l.clock.until, zone) }),
                    })}
                  </Figure>
                  <p>
                    <Sentence spans={l.recoat} zone={zone} />
                  </p>
                  {l.chance !== "finished" && (
                    <p className="quiet">
                      <Sentence spans={l.hard} zone={zone} />
                    </p>
                  )}
                </>
              ) : (
                <span className="quiet">{tr("no coat logged yet")}</span>
              )}
            </div>
          </li>
        );
      })}
    </ul>
  );
}
