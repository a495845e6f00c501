import { useEffect } from "react";
import type { Schemas } from "../../api/client";
import { Answer } from "../../ui/Page";
import { Said, Sentence } from "../../ui/Sentence";
import { Term } from "../../ui/Term";
import { clock, day } from "../../ui/time";
import { troubleOf, useStream } from "../../ui/useStream";
import { tr, trNodes } from "../../words/words";
import { ErrorsFrom } from "./ErrorsFrom";
import { Binding } from "./words";

/** The best three chances of the week for every coat that waits, and what to do if it rains. */
export function BestChances({
  boatId,
  zone,
  futures = 400,
  first,
}: {
  boatId: string;
  zone: string;
  futures?: number;
  /** It is the screen's answer rather than a part of one. */
  first?: boolean;
}) {
  const { done, last, error, start, stop } = useStream<Schemas["LineChances"]>(
    `/api/boats/${boatId}/chances?futures=${futures}`,
  );
  const result = last?.result;
  useEffect(() => {
    start();
  }, [start]);
  return (
    <section className={first ? "" : "mt-8"} aria-label={tr("Best chances this week")}>
      {first ? (
        <Answer
          answer={<Lead coats={result?.coats} zone={zone} />}
          detail={tr("Every coat that waits, with its three best starts this week.")}
        />
      ) : (
        <h2 className="text-lg">{tr("Best chances this week")}</h2>
      )}
      {done > 0 && (
        <p className="flex items-center gap-3 text-sm" role="status">
          <progress className="progress w-48" value={done} max={1} />{" "}
          {tr("playing {futures} courses that the weather may take", { futures })}
          <button type="button" className="btn btn-sm max-sm:min-h-11" onClick={stop}>
            {tr("Stop")}
          </button>
        </p>
      )}
      {!result && done === 0 && !error && (
        <button type="button" className="btn mt-1 min-h-11" onClick={start}>
          {tr("Work them out")}
        </button>
      )}
      {error && (
        <p role="alert" className="text-error">
          <Said words={troubleOf(error)} />
        </p>
      )}
      {result && <Ranked chances={result} zone={zone} boatId={boatId} />}
    </section>
  );
}

/** The best chance of all. */
function Lead({ coats, zone }: { coats?: Schemas["ReadinessBest"][]; zone: string }) {
  if (!coats) return <>{tr("Working out the best chances of the week…")}</>;
  const best = [...coats].sort((a, b) => (b.options[0]?.chancePct ?? 0) - (a.options[0]?.chancePct ?? 0))[0];
  if (!best) return <>{tr("No coat waits for weather.")}</>;
  return <Sentence spans={best.sentence} zone={zone} />;
}

function Ranked({ chances, zone, boatId }: { chances: Schemas["Chances"]; zone: string; boatId: string }) {
  return (
    <>
      {chances.coats.length === 0 && <p>{tr("No coat waits for weather.")}</p>}
      <ul className="mt-1">
        {chances.coats.map((c) => (
          <li key={c.surfaceId} className="rule-b grid gap-x-6 gap-y-1 py-2 lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
            <div>
              <Sentence spans={c.sentence} zone={zone} href={`/boats/${boatId}/weather?surface=${c.surfaceId}`} />
              {c.wait && (
                <p className="mt-1 border-l-4 border-closing pl-2 text-sm">
                  <Said words={c.wait} />
                </p>
              )}
            </div>
            <ol className="grid gap-x-4 gap-y-1 text-sm sm:grid-cols-3">
              {c.options.map((o) => (
                <li key={o.at} className="max-sm:flex max-sm:items-center max-sm:gap-3">
                  <Odds pct={o.chancePct} />
                  <b className="whitespace-nowrap">
                    {day(o.from, zone)}, {clock(o.from, zone)}
                    {o.to !== o.from && `–${clock(o.to, zone)}`}
                  </b>
                  <div className="quiet max-sm:hidden">
                    {o.sand && tr("after sanding; ")}
                    {o.nearest ? (
                      <Binding check={o.nearest} allowed />
                    ) : (
                      tr("beyond the forecast: the usual weather of the month")
                    )}
                  </div>
                </li>
              ))}
            </ol>
          </li>
        ))}
      </ul>
      <p className="quiet mt-1 text-sm">
        {trNodes(
          "The share of {futures} courses that the weather may take in which the {term} holds from the start to the end of the {term2}. Forecast known to {known}, {known2}; then the usual weather of the month.",
          {
            futures: chances.futures,
            term: <Term>{tr("field")}</Term>,
            term2: <Term>{tr("hold")}</Term>,
            known: day(chances.known, zone),
            known2: clock(chances.known, zone),
          },
        )}{" "}
        <ErrorsFrom place={chances.place} />
      </p>
      <h2 className="mt-4 text-base">{tr("If it rains")}</h2>
      <ul className="list-inside list-disc text-sm">
        {chances.wetDay.map((w) => (
          <li key={JSON.stringify(w.text)}>
            <Said words={w.text} />
          </li>
        ))}
      </ul>
    </>
  );
}

/** A chance as a bar with its figure. */
function Odds({ pct }: { pct: number }) {
  return (
    <div className="flex items-center gap-2">
      <span className="h-2.5 w-20 border border-base-content/60" aria-hidden="true">
        <span className="block h-full bg-(--open)" style={{ width: `${pct}%` }} />
      </span>
      <b>{Math.round(pct)} %</b>
    </div>
  );
}
