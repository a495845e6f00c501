import type { Schemas } from "./client";
import { newID, send } from "./outbox";

/** Planned work without a film, of the plan or of Today. */
export type Doable = {
  stepId: string;
  surfaceId: string;
  work: string;
  sharePct: number;
};

/** Tells the log that planned work is done, or a part of it: what has no entry is not done. */
export function tellDone(boatId: string, t: Doable, label: string, now: string, part = 1) {
  const id = newID();
  const share = Math.round(10 * t.sharePct * part) / 10;
  return send<Schemas["Entry"]>({
    id,
    label,
    boatId,
    method: "POST",
    path: "/api/log",
    body: {
      id,
      boatId,
      ...(t.surfaceId ? { surfaceId: t.surfaceId, stepId: t.stepId } : { ownId: t.stepId }),
      kind: t.work,
      startedAt: now,
      litres: 0,
      wetUm: [],
      thinnerPct: 0,
      grit: 0,
      removedUm: 0,
      who: localStorage.getItem("who") ?? "",
      note: "",
      ...(share < 99.9 && { sharePct: share }),
    },
  });
}
