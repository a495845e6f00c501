import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useStarts } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { Term } from "../../ui/Term";
import { tr, trNodes } from "../../words/words";

/** A school for every surface on which nothing is planned, put there in one go. */
export function Starts({ boatId, begun }: { boatId: string; begun: () => void }) {
  const starts = useStarts(boatId).data ?? [];
  const [chosen, choose] = useState<Record<string, string>>({});
  const begin = useChange(
    ["steps"],
    (body: Schemas["StartChoice"][]) =>
      ok(api.POST("/api/boats/{id}/starts", { params: { path: { id: boatId } }, body })),
    begun,
  );
  if (starts.length === 0) return null;
  const choices = starts
    .map((s) => ({ surfaceId: s.surfaceId, scheme: chosen[s.surfaceId] ?? s.schools[0]?.scheme ?? "" }))
    .filter((c) => c.scheme !== "");
  return (
    <section className="mb-6 border border-base-content p-4" data-testid="starts">
      <h2 className="text-lg">
        {trNodes(
          "{starts, plural, one {Nothing is planned on one surface.} other {Nothing is planned on {starts} surfaces.}} Take a {term} for each",
          { starts: starts.length, term: <Term>{tr("school")}</Term> },
        )}
      </h2>
      <p className="quiet mb-2 text-sm">
        {tr("Usual sequences of the trade with the products of your library; change each afterwards as you like.")}
      </p>
      <ul>
        {starts.map((s) => {
          const at = chosen[s.surfaceId] ?? s.schools[0]?.scheme ?? "";
          return (
            <li
              key={s.surfaceId}
              className="rule-b grid items-center gap-x-4 gap-y-1 py-2 sm:grid-cols-[11rem_17rem_1fr]"
            >
              <span>
                <b>{s.surface}</b>
                <span className="quiet block text-xs">{s.job}</span>
              </span>
              <select
                aria-label={tr("School for {surface}", { surface: s.surface })}
                className="select min-h-11 w-full border-base-content/60 bg-(--sheet)"
                value={at}
                onChange={(e) => choose({ ...chosen, [s.surfaceId]: e.target.value })}
              >
                {s.schools.map((k) => (
                  <option key={k.scheme} value={k.scheme}>
                    {k.name}
                  </option>
                ))}
                <option value="">{tr("not yet")}</option>
              </select>
              <span className="text-sm">{s.schools.find((k) => k.scheme === at)?.reason}</span>
            </li>
          );
        })}
      </ul>
      <button
        type="button"
        className="btn btn-primary mt-3 min-h-11"
        disabled={choices.length === 0 || begin.isPending}
        onClick={() => begin.mutate(choices)}
      >
        {tr("Plan {choices, plural, one {this surface} other {these {choices} surfaces}}", { choices: choices.length })}
      </button>
      <Refusal error={begin.error} />
    </section>
  );
}
