import type { Schemas } from "../../api/client";

type Figures = "coats" | "dftUm" | "lossPct" | "thinnerPct" | "grit" | "removedUm";

/** A step being edited: figures may still be missing. */
export type Draft = Omit<Schemas["Step"], Figures> & { [K in Figures]?: number };

export const films = (s: { work: string }) => s.work === "coat" || s.work === "fill" || s.work === "fair";

export const money = (cents: number) => (cents / 100).toLocaleString("en-GB", { minimumFractionDigits: 2 });

/** A step of that kind with usual figures; products are chosen apart. */
export function freshStep(work: string): Draft {
  const base = { work: work as Draft["work"], coats: 0, dftUm: 0, method: "", lossPct: 0, thinnerPct: 0 };
  if (films({ work })) return { ...base, coats: 1 };
  if (work === "sand") return { ...base, grit: 180, removedUm: 12 };
  if (work === "degrease") return { ...base, agent: "solvent" };
  if (work === "wash") return { ...base, agent: "detergent" };
  return base;
}

/** Paths of a plan's figures that are missing, by the server's names. */
export function needed(steps: Draft[]): string[] {
  return steps.flatMap((s, i) =>
    films(s)
      ? [`steps.${i}.coats`, `steps.${i}.dftUm`, `steps.${i}.lossPct`, `steps.${i}.thinnerPct`]
      : s.work === "sand"
        ? [`steps.${i}.grit`]
        : [],
  );
}
