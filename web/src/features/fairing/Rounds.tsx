import { Link, useLocation } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { Answer } from "../../ui/Page";
import { Reflow } from "../../ui/Reflow";
import { Said } from "../../ui/Sentence";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";

/** How the rounds decline, and how many are left. */
export function Rounds({ view, boatId }: { view: Schemas["FairingView"]; boatId: string }) {
  const o = view.outlook;
  const last = view.rounds.at(-1);
  const round = Math.max(0, ...view.rounds.map((r) => r.n), ...(view.spots?.rounds ?? []).map((r) => r.n)) + 1;
  return (
    <>
      <Answer
        over={<span>{view.surface.name}</span>}
        answer={<Said words={view.roundsSay} />}
        detail={
          last && (
            <>
              <Figure title={tr("Rounds left")} working={o.working}>
                {tr("Each round leaves {x} % of the lows", { x: Math.round(100 * o.ratio) })}
              </Figure>
              {o.fitted ? tr(", from your own rounds") : tr(", a rule of thumb until two rounds are logged")}.
              {o.stopAfter > 0 &&
                tr(" After round {stopAfter} an hour takes fewer lows away than this finish is worth: stop there.", {
                  stopAfter: o.stopAfter,
                })}
            </>
          )
        }
      />
      <Course course={o.course} />
      <Table rounds={view.rounds} />
      <div className="mt-4 flex flex-wrap gap-2">
        <Link
          className="btn btn-primary min-h-12"
          to={`/boats/${boatId}/log?surface=${view.surface.id}&kind=fair&round=${round}`}
        >
          {tr("Log a round")}
        </Link>
        <Link
          className="btn min-h-12"
          to={`/boats/${boatId}/log?surface=${view.surface.id}&kind=inspect&round=${round}`}
        >
          {tr("Log a look")}
        </Link>
      </div>
      <p className="quiet mt-1 text-sm">
        {tr(
          "A round ticks all passes that are planned for it. A look counts what is left and fills nothing; your verdict of it counts.",
        )}
      </p>
      {view.spots && <Spots spots={view.spots} surfaceId={view.surface.id} boatId={boatId} />}
      <section className="mt-6 max-w-3xl text-sm">
        <h2 className="text-lg">{tr("Finding them")}</h2>
        <p className="rule-b py-2">
          {trNodes(
            "{b}: a lamp or the low sun along the surface; sight down the reflection on a wet surface. A line that swims is a low.",
            { b: <b>{tr("Light line")}</b> },
          )}
        </p>
        <p className="rule-b py-2">
          {trNodes(
            "{b}: dust on dry powder or mist thinned paint of another colour, board it off in both diagonals. What stays coloured is low; what shines first is high.",
            { b: <b>{tr("Guide coat")}</b> },
          )}
        </p>
        <p className="rule-b py-2">
          {trNodes("{b}: mark each with a pencil before any filler is mixed. The count is what tells when to stop.", {
            b: <b>{tr("Count, then fill")}</b>,
          })}
        </p>
      </section>
    </>
  );
}

function Table({ rounds }: { rounds: Schemas["FairRound"][] }) {
  return (
    <Reflow>
      <table className="table-plain max-w-3xl text-sm" data-testid="rounds">
        <thead>
          <tr>
            <th>{tr("Round")}</th>
            <th>{tr("Lows")}</th>
            <th>{tr("Pinholes")}</th>
            <th>{tr("Filler")}</th>
            <th>{tr("Hours")}</th>
            <th>{tr("Last grit")}</th>
            <th>{tr("Found by, and thought of it")}</th>
          </tr>
        </thead>
        <tbody>
          {rounds.map((r) => (
            <tr key={`${r.n} ${r.at}`}>
              <td>{r.n}</td>
              <td>{r.lows}</td>
              <td>{r.pinholes}</td>
              <td>{r.litres > 0 && <Quantity value={r.litres} unit="L" />}</td>
              <td>{r.hours > 0 && r.hours}</td>
              <td>{r.grit > 0 && r.grit}</td>
              <td>{[r.looked && tr("a look"), r.by, r.verdict].filter(Boolean).join(", ")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Reflow>
  );
}

/** The loop over the primer: pinholes counted, filled one by one, primed again. */
function Spots({ spots, surfaceId, boatId }: { spots: Schemas["Spots"]; surfaceId: string; boatId: string }) {
  const [, go] = useLocation();
  const plan = useChange(
    ["steps"],
    () => ok(api.POST("/api/surfaces/{id}/fairing/spots", { params: { path: { id: surfaceId } } })),
    () => go(`/boats/${boatId}/build-up?surface=${surfaceId}`),
  );
  return (
    <section className="mt-6 max-w-3xl" data-testid="spots">
      <h2 className="text-lg">{tr("Over the primer")}</h2>
      <p>
        <Said words={spots.says} />
      </p>
      {spots.rounds.length > 0 && <Table rounds={spots.rounds} />}
      {spots.handover && spots.handover.changes.length > 0 && (
        <button
          type="button"
          className="btn mt-2 min-h-12"
          disabled={plan.isPending}
          onClick={() => plan.mutate(undefined)}
        >
          {tr("Plan the spot-filling")}
        </button>
      )}
      <Refusal error={plan.error} />
    </section>
  );
}

const W = 440;
const H = 170;

/** Lows and pinholes round by round, and dashed what the rounds left will find. */
function Course({ course }: { course: Schemas["FairFound"][] }) {
  if (course.length < 2) return null;
  const most = Math.max(1, ...course.flatMap((c) => [c.lows, c.pinholes]));
  const x = (i: number) => 40 + (i / (course.length - 1)) * (W - 60);
  const y = (v: number) => H - 34 - (v / most) * (H - 54);
  const done = course.filter((c) => !c.ahead).length;
  const path = (key: "lows" | "pinholes", from: number, to: number) =>
    course
      .slice(from, to)
      .map((c, i) => `${i ? "L" : "M"}${x(from + i)} ${y(c[key])}`)
      .join("");
  return (
    <figure className="mb-3 max-w-xl">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="w-full"
        role="img"
        aria-label={tr("Lows and pinholes found, round by round")}
        data-testid="course"
      >
        <line x1={40} x2={W - 20} y1={y(0)} y2={y(0)} stroke="var(--color-base-300)" />
        <text x={34} y={y(most) + 4} fontSize={12} textAnchor="end" className="fill-current">
          {Math.round(most)}
        </text>
        <text x={34} y={y(0) + 4} fontSize={12} textAnchor="end" className="fill-current">
          0
        </text>
        {(["pinholes", "lows"] as const).map((key) => (
          <g
            key={key}
            fill="none"
            stroke={key === "lows" ? "var(--open)" : "currentColor"}
            strokeWidth={key === "lows" ? 3 : 1.4}
          >
            <path d={path(key, 0, done)} />
            <path d={path(key, Math.max(0, done - 1), course.length)} strokeDasharray="5 4" />
          </g>
        ))}
        {course.map((c, i) => (
          <g key={c.n}>
            <circle
              cx={x(i)}
              cy={y(c.lows)}
              r={4}
              fill={c.ahead ? "var(--sheet)" : "var(--open)"}
              stroke="var(--open)"
            />
            <text x={x(i)} y={H - 14} fontSize={12} textAnchor="middle" className="fill-current">
              {c.n}
            </text>
          </g>
        ))}
      </svg>
      <figcaption className="quiet text-sm">
        {tr("Thick: lows. Thin: pinholes. Dashed: what the rounds left will find, as it has gone so far.")}
      </figcaption>
    </figure>
  );
}
