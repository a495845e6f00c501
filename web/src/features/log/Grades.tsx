import type { Schemas } from "../../api/client";
import { useMeta } from "../../api/queries";
import { FieldError } from "../../ui/Form";
import { tr, word } from "../../words/words";

export type Held = Record<string, number>;

const GRADES = [0, 1, 2, 3, 4];

const meaning = (w: Schemas["LogbookWearKind"], g: number) =>
  [tr("nothing"), word(w.first), tr("some"), tr("much"), word(w.last)][g] ?? "";

/** How a finish held, by tap: what is wrong with it, and how much of that. What is not tapped is not wrong. */
export function Grades({
  held,
  set,
  label,
  below,
}: {
  held: Held;
  set: (held: Held) => void;
  label: string;
  below?: boolean;
}) {
  const wears = (useMeta().data?.log.wears ?? []).filter((w) => below === undefined || (below ? w.below : w.above));
  return (
    <fieldset aria-label={label}>
      <FieldError name="held" />
      <ul>
        {wears.map((w) => {
          const at = held[w.wear];
          return (
            <li key={w.wear} className="flex flex-wrap items-center gap-x-2 gap-y-1 py-0.5">
              <span className="w-28 font-semibold">{word(w.name)}</span>
              <span className="flex" role="radiogroup" aria-label={`${label}: ${word(w.name)}`}>
                {GRADES.map((g) => (
                  <button
                    key={g}
                    type="button"
                    role="radio"
                    aria-checked={at === g}
                    aria-label={`${g}: ${meaning(w, g)}`}
                    title={meaning(w, g)}
                    className={`btn min-h-11 min-w-11 rounded-none px-0 ${at === g ? "btn-neutral" : "btn-ghost border-base-300"}`}
                    onClick={() => set({ ...held, [w.wear]: g })}
                  >
                    {g}
                  </button>
                ))}
              </span>
              <span className="quiet text-sm">{at !== undefined && meaning(w, at)}</span>
            </li>
          );
        })}
      </ul>
    </fieldset>
  );
}
