import type { Schemas } from "../../api/client";
import { Said, Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { tr, trNodes } from "../../words/words";

/** What finds no place in the plan, and what would let it in. */
export function LeftOut({ plan }: { plan: Schemas["YardPlan"] }) {
  const { prose } = useSettings();
  const left = plan.plan?.left ?? [];
  const zone = plan.place.timeZone;
  if (left.length === 0) return null;
  return (
    <section className="mb-4 border-l-4 border-error pl-3">
      <h2 className="text-lg">
        {tr("{left, plural, one {One task finds} other {{left} tasks find}} no place; the rest is planned", {
          left: left.length,
        })}
      </h2>
      <ul className="text-sm">
        {left.map((l) => (
          <li key={l.taskId} className="rule-b py-1">
            {trNodes("{b}: {why}. What would let it in: {needs}.{behind}", {
              b: (
                <b>
                  <Said words={l.name} />
                </b>
              ),
              why: <Sentence spans={l.why} zone={zone} />,
              needs: l.needs.join("; or "),
              behind: l.behind.length > 0 && (
                <span className="quiet"> {tr("Behind it: {prose}.", { prose: l.behind.map(prose).join("; ") })}</span>
              ),
            })}
          </li>
        ))}
      </ul>
    </section>
  );
}
