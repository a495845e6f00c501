import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { Answer, Loaded } from "../../ui/Page";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { tr, trNodes } from "../../words/words";
import { EdgePractice as Edge } from "./EdgePractice";

type Move = Schemas["PracticeMove"];

const FILLS = [
  { name: tr("Hard filler"), filler: "hard", mm: 4 },
  { name: tr("Light filler"), filler: "light", mm: 2 },
  { name: tr("Light filler"), filler: "light", mm: 4 },
  { name: tr("Light filler"), filler: "light", mm: 8 },
];
const WAITS: Move[] = [5, 12, 24, 60].map((hours) => ({ do: "wait", hours }));
const SANDS: Move[] = [40, 80, 120, 180, 240, 320, 400].map((grit) => ({ do: "sand", grit }));

/** A panel to spoil before the boat, and days that ask whether to coat. */
export function Practice() {
  const { prose } = useSettings();
  const dent = prose([{ value: 7, unit: "mm", digits: 0 }]);
  const paint = prose([{ value: 160, unit: "µm", digits: 0 }]);
  return (
    <>
      <Answer
        answer={tr("A dent of {dent} in sound paint of {paint}: make it disappear.", { dent, paint })}
        detail={tr(
          "Nothing here touches the boat. What comes of each choice follows the same rules as the work, and is told with its reason.",
        )}
      />
      <div className="grid gap-10 lg:grid-cols-2">
        <Panel />
        <Days />
        <Edge />
      </div>
    </>
  );
}

function Panel() {
  const { prose } = useSettings();
  const [moves, setMoves] = useState<Move[]>([]);
  const state = useQuery({
    queryKey: key("panel", moves),
    queryFn: () => ok(api.POST("/api/practice/panel", { body: { moves } })),
    placeholderData: keepPreviousData,
  });
  const length = (mm: number) => prose([{ value: mm, unit: "mm", digits: 0 }]);
  const button = (label: string, m: Move) => (
    <button
      key={label}
      type="button"
      className="btn min-h-11"
      disabled={state.data?.painted}
      onClick={() => setMoves([...moves, m])}
    >
      {label}
    </button>
  );
  return (
    <section data-testid="panel">
      <h2 className="text-lg">{tr("The panel")}</h2>
      <Loaded query={state}>
        {(s) => (
          <>
            <Cut state={s} />
            <p className="text-sm">
              {trNodes("{passes} passes, {papers} papers, {hours} h{curedH}", {
                passes: s.passes,
                papers: s.papers,
                hours: s.hours.toFixed(1),
                curedH:
                  s.curedH < 1 &&
                  s.passes > 0 &&
                  tr("; the filler is at {x} % of its time to sandable", { x: Math.round(100 * s.curedH) }),
              })}
            </p>
            {s.verdict && <p className="mt-2 border-l-4 border-primary pl-3 text-lg font-semibold">{s.verdict}</p>}
            <ol className="mt-2 max-h-60 overflow-y-auto text-sm" aria-live="polite">
              {[...(s.said ?? [])].reverse().map((t, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: what was said has no other identity than its order
                <li key={i} className="rule-b py-1">
                  {prose(t)}
                </li>
              ))}
            </ol>
          </>
        )}
      </Loaded>
      <div className="mt-3 flex flex-col gap-2">
        <div className="flex flex-wrap gap-2">
          {FILLS.map(({ name, filler, mm }) => button(`${name}, ${length(mm)}`, { do: "fill", filler, mm }))}
        </div>
        <div className="flex flex-wrap gap-2">
          {WAITS.map((m) => button(tr("Wait {hours} h", { hours: m.hours }), m))}
        </div>
        <div className="flex flex-wrap gap-2">{SANDS.map((m) => button(tr("Sand {grit}", { grit: m.grit }), m))}</div>
        <div className="flex flex-wrap gap-2">
          {button(tr("Paint it"), { do: "paint" })}
          <button
            type="button"
            className="btn btn-ghost min-h-11"
            disabled={moves.length === 0}
            onClick={() => setMoves(moves.slice(0, -1))}
          >
            {tr("Take the last step back")}
          </button>
          <button type="button" className="btn btn-ghost min-h-11" onClick={() => setMoves([])}>
            {tr("A new panel")}
          </button>
        </div>
      </div>
    </section>
  );
}

/** The panel cut through the dent. */
function Cut({ state: s }: { state: Schemas["PracticeState"] }) {
  const { prose } = useSettings();
  const base = 90;
  const px = 8; // a millimetre
  const dent = 7 * px;
  const left = s.hollowMM * px;
  const proud = s.proudMM * px;
  return (
    <svg
      viewBox="0 0 420 130"
      className="w-full max-w-md"
      role="img"
      aria-label={prose([
        { value: s.hollowMM, unit: "mm", digits: 1 },
        { text: tr(" hollow, ") },
        { value: s.proudMM, unit: "mm", digits: 1 },
        { text: tr(" proud") },
      ])}
    >
      <path
        d={`M0 ${base - 50}H120Q210 ${base - 50 + dent * 2 - 20} 300 ${base - 50}H420V130H0Z`}
        fill="var(--curing)"
        stroke="currentColor"
        strokeWidth={0.7}
      />
      {s.passes > 0 && (
        <path
          d={`M${120 + left} ${base - 50 + left * 0.6}Q210 ${base - 50 + left * 1.6 - proud * 1.6} ${300 - left} ${base - 50 + left * 0.6}Q210 ${base - 50 + dent * 2 - 20} ${120 + left} ${base - 50 + left * 0.6}Z`}
          fill={s.last === "hard" ? "#8d9c92" : "#b9b4a2"}
          stroke="currentColor"
          strokeWidth={0.7}
        />
      )}
      <path
        d={`M0 ${base - 50}H120M300 ${base - 50}H420`}
        stroke={s.through ? "var(--shut)" : "#41657f"}
        strokeWidth={Math.max(1, s.filmUm / 30)}
      />
      <text x={4} y={124} fontSize={12} fill="currentColor">
        {tr("{x} hollow · {x2} proud · {x3} of paint beside it · scratches {x4}", {
          x: prose([{ value: s.hollowMM, unit: "mm", digits: 1 }]),
          x2: prose([{ value: s.proudMM, unit: "mm", digits: 1 }]),
          x3: prose([{ value: Math.max(0, s.filmUm), unit: "µm", digits: 0 }]),
          x4: prose([{ value: s.scratchUm, unit: "µm", digits: 0 }]),
        })}
      </text>
    </svg>
  );
}

function Days() {
  const { show, prose } = useSettings();
  const [seed, setSeed] = useState(1);
  const [score, setScore] = useState({ right: 0, of: 0 });
  const [answer, setAnswer] = useState<Schemas["PracticeAnswer"]>();
  const day = useQuery({
    queryKey: key("day", seed),
    queryFn: () => ok(api.GET("/api/practice/day", { params: { query: { seed } } })),
  });
  const choose = async (coat: boolean) => {
    const a = await ok(api.POST("/api/practice/day", { body: { seed, coat } }));
    setAnswer(a);
    setScore({ right: score.right + (a.right ? 1 : 0), of: score.of + 1 });
  };
  const c = (v: number) => `${show(v, "°C", 0).text}`;
  return (
    <section data-testid="days">
      <h2 className="text-lg">{tr("Coat now?")}</h2>
      <Loaded query={day}>
        {(d) => (
          <>
            <p>
              {trNodes("It is {hour}, and you stand with the tin: {product}, {limits}.", {
                hour: <b>{d.hour}:00</b>,
                product: d.product,
                limits: <Said words={d.limits} />,
              })}
            </p>
            <div className="mt-2 overflow-x-auto">
              <table className="table-plain text-sm">
                <thead>
                  <tr>
                    <th>{tr("Hour")}</th>
                    <th>{tr("Air {unit}", { unit: show(0, "°C").unit })}</th>
                    <th>{tr("Humidity")}</th>
                    <th>{tr("Surface")}</th>
                    <th>{tr("Dew point")}</th>
                    <th>{tr("Rain")}</th>
                  </tr>
                </thead>
                <tbody>
                  {d.hours
                    ?.filter((h) => h.hour >= d.hour - 1 && h.hour <= d.hour + 6)
                    .map((h) => (
                      <tr key={h.hour} className={h.hour === d.hour ? "font-bold" : ""}>
                        <td>{h.hour}:00</td>
                        <td>{c(h.airC)}</td>
                        <td>{h.rhPct} %</td>
                        <td>{c(h.surfaceC)}</td>
                        <td>{c(h.dewC)}</td>
                        <td>{h.rainMM > 0 ? prose([{ value: h.rainMM, unit: "mm", digits: 1 }]) : ""}</td>
                      </tr>
                    ))}
                </tbody>
              </table>
            </div>
            {answer ? (
              <div className={`mt-3 border-l-4 pl-3 ${answer.right ? "border-success" : "border-error"}`} role="status">
                <p>
                  <b>{answer.right ? tr("Right.") : tr("Not so.")}</b> <Said words={answer.reason} />
                </p>
                <button
                  type="button"
                  className="btn mt-2 min-h-11"
                  onClick={() => {
                    setSeed(seed + 1);
                    setAnswer(undefined);
                  }}
                >
                  {tr("Another day")}
                </button>
              </div>
            ) : (
              <p className="mt-3 flex gap-2">
                <button type="button" className="btn btn-primary min-h-12" onClick={() => choose(true)}>
                  {tr("Coat now")}
                </button>
                <button type="button" className="btn min-h-12" onClick={() => choose(false)}>
                  {tr("Leave it")}
                </button>
              </p>
            )}
            {score.of > 0 && (
              <p className="quiet mt-2 text-sm">{tr("{right} of {of} right", { right: score.right, of: score.of })}</p>
            )}
          </>
        )}
      </Loaded>
    </section>
  );
}
