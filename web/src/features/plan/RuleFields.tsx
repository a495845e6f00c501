import type { Schemas } from "../../api/client";
import { TextField } from "../../ui/Form";
import { tr } from "../../words/words";

type Settings = Schemas["PlanSettings"];

/** The rules between the surfaces of a boat, each to be switched off with a reason. */
export function RuleFields({
  rules,
  boatId,
  draft,
  setDraft,
}: {
  rules: Schemas["YardPlan"]["rules"];
  boatId: string;
  draft: Settings;
  setDraft: (d: Settings) => void;
}) {
  const off = draft.off[boatId] ?? {};
  return (
    <ul>
      {rules.map((r) => (
        <li key={r.id} className="rule-b grid gap-x-4 py-2 sm:grid-cols-[2fr_1fr]">
          <div>
            <b>{r.name}</b>: <span className="quiet">{r.why}.</span>
          </div>
          <TextField
            name={`off.${boatId}.${r.id}`}
            label={tr("Does not hold here, because")}
            value={off[r.id] ?? ""}
            onChange={(reason) => {
              const { [r.id]: _, ...rest } = off;
              setDraft({ ...draft, off: { ...draft.off, [boatId]: reason ? { ...rest, [r.id]: reason } : rest } });
            }}
          />
        </li>
      ))}
    </ul>
  );
}
