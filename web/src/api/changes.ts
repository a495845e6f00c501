import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

/** How often is asked without being told, ms: where the program's word does not come through. */
const UNTOLD_MS = 60_000;

/** Asks anew for what is on the screen when something was stored, by whomever, and every minute of the program. */
export function useChanges() {
  const queries = useQueryClient();
  useEffect(() => {
    let told: EventSource | undefined;
    let edition: string | undefined;
    const hear = (e: MessageEvent<string>) => {
      const now: string = JSON.parse(e.data).edition;
      if (edition !== undefined && edition !== now) void queries.invalidateQueries();
      edition = now;
    };
    // A page that nobody sees lets go: a browser has few connections to a program.
    const listen = () => {
      told?.close();
      told = undefined;
      if (document.hidden || !("EventSource" in window)) return;
      told = new EventSource("/api/changes");
      told.addEventListener("changed", hear);
    };
    listen();
    document.addEventListener("visibilitychange", listen);
    const untold = setInterval(() => {
      if (!document.hidden && told?.readyState !== 1) void queries.invalidateQueries();
      if (told?.readyState === 2) listen(); // it was shut for good, as by a login that ended
    }, UNTOLD_MS);
    return () => {
      told?.close();
      document.removeEventListener("visibilitychange", listen);
      clearInterval(untold);
    };
  }, [queries]);
}
