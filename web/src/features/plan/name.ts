import type { Schemas } from "../../api/client";

/** A task of the plan with its surface. */
export const named = (i: Schemas["PlanItem"]) => `${i.surface ? `${i.surface}, ` : ""}${i.what}`;

/** The first letters of people's names. */
export const initials = (people: string[]) =>
  people
    .map((p) =>
      p
        .split(/\s+/)
        .map((w) => w[0])
        .join(""),
    )
    .join(" ");
