import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Answer } from "../../ui/Page";
import { span } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";

/** How the rounds decline, and how many are left. */
export function Rounds({ view, boatId }: { view: Schemas["FairingView"]; boatId: string }) {
  const o = view.outlook;
  const last = view.rounds.at(-1);
  const range = o.leftLow === o.leftHigh ? "" : ` (${o.leftLow} to ${o.leftHigh})`;
  const answer = !last
    ? "No round of fairing is logged on this surface yet."
    : o.enough
      ? `It is fair enough: ${last.lows} lows, ${o.allowed.toFixed(1)} are allowed.`
      : `About ${o.left} ${o.left === 1 ? "round" : "rounds"} more${range}, ${span(o.hoursLeft)} of work.`;
  return (
    <>
      <Answer
        over={<span>{view.surface.name}</span>}
        answer={answer}
        detail={
          last && (
            <>
              <Figure title="Rounds left" working={o.working}>
                Each round leaves {Math.round(100 * o.ratio)} % of the lows
              </Figure>
              {o.fitted ? ", from your own rounds" : ", a rule of thumb until two rounds are logged"}.
              {o.stopAfter > 0 && ` After round ${o.stopAfter} an hour takes fewer lows away than this finish is worth: stop there.`}
            </>
          )
        }
      />
      <div className="overflow-x-auto">
        <table className="table-plain max-w-3xl text-sm" data-testid="rounds">
          <thead>
            <tr>
              <th>Round</th>
              <th>Lows</th>
              <th>Pinholes</th>
              <th>Filler</th>
              <th>Hours</th>
              <th>Last grit</th>
            </tr>
          </thead>
          <tbody>
            {view.rounds.map((r) => (
              <tr key={r.n}>
                <td>{r.n}</td>
                <td>{r.lows}</td>
                <td>{r.pinholes}</td>
                <td>{r.litres > 0 && <Quantity value={r.litres} unit="L" />}</td>
                <td>{r.hours > 0 && r.hours}</td>
                <td>{r.grit > 0 && r.grit}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Link className="btn btn-primary mt-4 min-h-12" to={`/boats/${boatId}/log?surface=${view.surface.id}&kind=fair`}>
        Log a round
      </Link>
      <section className="mt-6 max-w-3xl text-sm">
        <h2 className="text-lg">Finding them</h2>
        <p className="rule-b py-2">
          <b>Light line</b>: a lamp or the low sun along the surface; sight down the reflection on a wet surface. A line that swims is a
          low.
        </p>
        <p className="rule-b py-2">
          <b>Guide coat</b>: dust on dry powder or mist thinned paint of another colour, board it off in both diagonals. What stays coloured
          is low; what shines first is high.
        </p>
        <p className="rule-b py-2">
          <b>Count, then fill</b>: mark each with a pencil before any filler is mixed. The count is what tells when to stop.
        </p>
      </section>
    </>
  );
}
