import { useEffect } from "react";
import { tr } from "../words/words";

/** The forms in which something is typed that is not saved. */
const unsaved = new Set<symbol>();

/** Has its user asked before what is typed into a form goes. */
export function useUnsaved(typed: boolean) {
  useEffect(() => {
    if (!typed) return;
    const form = Symbol();
    unsaved.add(form);
    return () => void unsaved.delete(form);
  }, [typed]);
}

/** As useUnsaved, while mine is other than what the form began with. */
export const useChanged = (mine: unknown, first: unknown) => useUnsaved(JSON.stringify(mine) !== JSON.stringify(first));

/** Whether one may go elsewhere: nothing is unsaved, or its user gives it up. */
export function mayLeave(): boolean {
  if (unsaved.size > 0 && !window.confirm(tr("What you typed here is not saved. Leave it?"))) return false;
  unsaved.clear();
  return true;
}

/** The part of the browser's Navigation API that this asks for; not every browser has it. */
type Leaving = Event & { navigationType: string; destination: { url: string } };

/** Asks before a link, the browser's back or the end of the page takes what is typed with it. */
export function useLeaveAsked() {
  useEffect(() => {
    const ends = new AbortController();
    const on = { signal: ends.signal };
    const elsewhere = (url: string) => url.split("#")[0] !== location.href.split("#")[0];
    document.addEventListener(
      "click",
      (e) => {
        const link = (e.target as Element).closest?.("a[href]") as HTMLAnchorElement | null;
        if (!link || link.target || link.download || e.ctrlKey || e.metaKey || e.shiftKey || !elsewhere(link.href))
          return;
        if (mayLeave()) return;
        e.preventDefault();
        e.stopPropagation();
      },
      { capture: true, ...on },
    );
    window.addEventListener("beforeunload", (e) => unsaved.size > 0 && e.preventDefault(), on);
    (window as { navigation?: EventTarget }).navigation?.addEventListener(
      "navigate",
      (e) => {
        const l = e as Leaving;
        if (l.navigationType === "traverse" && l.cancelable && elsewhere(l.destination.url) && !mayLeave())
          e.preventDefault();
      },
      on,
    );
    return () => ends.abort();
  }, []);
}
