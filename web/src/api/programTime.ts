import { useSyncExternalStore } from "react";

/** The header with the program's time, and the one that the service worker adds to what it keeps: this device's time then, ms. */
const PROGRAM = "X-Program-Time";
const KEPT = "X-Kept-At";

let aheadMs = 0;
let seenAt: number | undefined;
const listeners = new Set<() => void>();

/** Since when what is shown is no longer new, ms by the program's time; undefined while the program answers. */
export const useSeenAt = () =>
  useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => seenAt,
  );

function seen(at: number | undefined) {
  if (seenAt === at) return;
  seenAt = at;
  for (const l of listeners) l();
}

/** Learns from an answer how far the program's time is ahead of this device's; one from the cache counts from when it was kept. */
export function hear(answer: Response): Response {
  const at = Date.parse(answer.headers.get(PROGRAM) ?? "");
  const kept = answer.headers.get(KEPT);
  if (!Number.isNaN(at)) {
    aheadMs = at - (kept ? Number(kept) : Date.now());
    seen(kept ? Math.min(at, seenAt ?? at) : undefined);
  }
  return answer;
}

/** The program's time now, ms, whether it answers or not. */
export const programTime = () => Date.now() + aheadMs;
