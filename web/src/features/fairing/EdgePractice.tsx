import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { Loaded } from "../../ui/Page";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { tr, trNodes } from "../../words/words";

const W = 560;
const H = 120;

/** A side with a hollow that is not seen, to be found with an edge: what overlapping is for. */
export function EdgePractice() {
  const { prose } = useSettings();
  const [seed, setSeed] = useState(1);
  const [starts, setStarts] = useState<number[]>([]);
  const read = useQuery({
    queryKey: key("panel", "edge", seed, starts),
    queryFn: () => ok(api.POST("/api/practice/edge", { body: { seed, starts } })),
    placeholderData: keepPreviousData,
  });
  const m = (v: number) => prose([{ value: v, unit: "m", digits: 1 }]);
  return (
    <section data-testid="edge" className="lg:col-span-2">
      <h2 className="text-lg">{tr("Find the hollow with an edge")}</h2>
      <Loaded query={read}>
        {(r) => {
          const last = starts.at(-1);
          const on = (step: number) => {
            const next = last === undefined ? 0 : Math.round(10 * Math.min(r.lengthM - r.edgeM, last + step)) / 10;
            setStarts([...starts, next]);
          };
          return (
            <>
              <p className="border-l-4 border-primary pl-3">
                <Said words={r.says} />
              </p>
              <Profile read={r} />
              <div className="mt-2 flex flex-wrap gap-2">
                {last === undefined ? (
                  <button type="button" className="btn min-h-11" onClick={() => on(0)}>
                    {tr("Lay the edge")}
                  </button>
                ) : (
                  <>
                    <button type="button" className="btn min-h-11" disabled={r.done} onClick={() => on(r.edgeM / 2)}>
                      {tr("Move it on by half")}
                    </button>
                    <button type="button" className="btn min-h-11" disabled={r.done} onClick={() => on(r.edgeM)}>
                      {tr("Move it on by all of it")}
                    </button>
                  </>
                )}
                <button
                  type="button"
                  className="btn btn-ghost min-h-11"
                  onClick={() => {
                    setSeed(seed + 1);
                    setStarts([]);
                  }}
                >
                  {tr("Another side")}
                </button>
              </div>
              {r.placements.length > 0 && (
                <table className="table-plain mt-2 text-sm" aria-label={tr("Gaps of the practice side, mm")}>
                  <caption className="quiet text-left">{tr("What the wedge reads, mm")}</caption>
                  <tbody>
                    {r.placements.map((p) => (
                      <tr key={p.startM}>
                        <th className="w-28 font-normal whitespace-nowrap">
                          {tr("from {startM}", { startM: m(p.startM) })}
                        </th>
                        <td>{p.gapsMM.join(" · ")}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              )}
            </>
          );
        }}
      </Loaded>
    </section>
  );
}

/** What the readings tell, and once all is read what was there. */
function Profile({ read: r }: { read: Schemas["PracticeRead"] }) {
  if (r.heightsMM.length === 0) return null;
  const all = [...r.heightsMM, ...r.truthMM, 0];
  const low = Math.min(...all);
  const high = Math.max(...all);
  const x = (i: number) => 10 + (i * r.spacingM * (W - 20)) / r.lengthM;
  const y = (v: number) => 10 + ((high - v) / Math.max(1, high - low)) * (H - 30);
  const path = (h: number[]) => h.map((v, i) => `${i ? "L" : "M"}${x(i).toFixed(1)} ${y(v).toFixed(1)}`).join("");
  return (
    <figure className="max-w-xl">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="on-paper w-full"
        role="img"
        aria-label={tr("The side by your readings, and as it is")}
      >
        {r.truthMM.length > 0 && <path d={path(r.truthMM)} fill="none" stroke="var(--open)" strokeWidth={3} />}
        <path d={path(r.heightsMM)} fill="none" stroke="currentColor" strokeWidth={1.4} strokeDasharray="5 3" />
      </svg>
      <figcaption className="quiet text-sm">
        {trNodes("Dashed: by your readings.{done} Heights are stretched.", {
          done: r.done && tr(" Green: the side as it is."),
        })}
      </figcaption>
    </figure>
  );
}
