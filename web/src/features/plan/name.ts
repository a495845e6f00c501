import type { Schemas, Words } from "../../api/client";

/** A task of the plan with its surface. */
export const named = (i: Schemas["PlanItem"], prose: (words: Words) => string) =>
  `${i.surface ? `${i.surface}, ` : ""}${prose(i.what)}`;

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
