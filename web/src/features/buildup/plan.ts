import type { Schemas } from "../../api/client";
import type { Kind } from "../../api/queries";

type Figures = "coats" | "dftUm" | "lossPct" | "thinnerPct" | "grit" | "removedUm";

/** A step being edited: figures may still be missing. */
export type Draft = Omit<Schemas["Step"], Figures> & { [K in Figures]?: number };

/** A step of that kind with usual figures; products are chosen apart. */
export function freshStep(kind: Kind): Draft {
  return { work: kind.work as Draft["work"], dftUm: 0, method: "", lossPct: 0, thinnerPct: 0, coats: 0, ...kind.usual };
}

/** Paths of a plan's figures that are missing, by the server's names. */
export function needed(steps: Draft[], kindOf: (work: string) => Kind): string[] {
  return steps.flatMap((s, i) =>
    kindOf(s.work).films
      ? [`steps.${i}.coats`, `steps.${i}.dftUm`, `steps.${i}.lossPct`, `steps.${i}.thinnerPct`]
      : kindOf(s.work).gritted
        ? [`steps.${i}.grit`]
        : [],
  );
}
