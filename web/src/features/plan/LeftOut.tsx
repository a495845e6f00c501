import type { Schemas } from "../../api/client";
import { Said, Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";

/** What finds no place in the plan, and what would let it in. */
export function LeftOut({ plan }: { plan: Schemas["YardPlan"] }) {
  const { prose } = useSettings();
  const left = plan.plan?.left ?? [];
  const zone = plan.place.timeZone;
  if (left.length === 0) return null;
  return (
    <section className="mb-4 border-l-4 border-error pl-3">
      <h2 className="text-lg">{left.length === 1 ? "One task finds" : `${left.length} tasks find`} no place; the rest is planned</h2>
      <ul className="text-sm">
        {left.map((l) => (
          <li key={l.taskId} className="rule-b py-1">
            <b>
              <Said words={l.name} />
            </b>
            : <Sentence spans={l.why} zone={zone} />. What would let it in: {l.needs.join("; or ")}.
            {l.behind.length > 0 && <span className="quiet"> Behind it: {l.behind.map(prose).join("; ")}.</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}
