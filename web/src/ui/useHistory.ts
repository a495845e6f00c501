import { useEffect, useRef, useState } from "react";

/** How long after a change the next one is a step of its own, ms. */
const STEP_MS = 1200;
/** The most steps that are remembered. */
const STEPS = 50;

/** The states that a work had on this page: what it was is recorded before it changes; back and forth give what to show. */
export function useHistory<T>() {
  const [past, setPast] = useState<T[]>([]);
  const [future, setFuture] = useState<T[]>([]);
  const changed = useRef(0);
  return {
    canUndo: past.length > 0,
    canRedo: future.length > 0,
    record(was: T) {
      const now = Date.now();
      if (now - changed.current > STEP_MS) setPast((p) => [...p.slice(1 - STEPS), was]);
      changed.current = now;
      setFuture([]);
    },
    back(now: T): T | undefined {
      const was = past.at(-1);
      if (was === undefined) return undefined;
      setPast(past.slice(0, -1));
      setFuture([...future, now]);
      changed.current = 0;
      return was;
    },
    forth(now: T): T | undefined {
      const next = future.at(-1);
      if (next === undefined) return undefined;
      setFuture(future.slice(0, -1));
      setPast([...past, now]);
      changed.current = 0;
      return next;
    },
  };
}

/** ctrl z undoes and ctrl shift z (or ctrl y) redoes, outside of text that is being typed, which has its own. */
export function useUndoKeys(undo: () => void, redo: () => void) {
  const latest = useRef({ undo, redo });
  latest.current = { undo, redo };
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const el = e.target as HTMLElement;
      const typing =
        (el instanceof HTMLInputElement && !["checkbox", "radio", "range"].includes(el.type)) ||
        el instanceof HTMLTextAreaElement;
      if (!(e.ctrlKey || e.metaKey) || typing || document.querySelector("dialog[open]")) return;
      const k = e.key.toLowerCase();
      if (k === "z" && !e.shiftKey) latest.current.undo();
      else if (k === "y" || (k === "z" && e.shiftKey)) latest.current.redo();
      else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);
}

/** A state of a form with the way back and forth, by buttons (UndoRedo) and by keys; moved is called on either. */
export function useUndoable<T>(first: T | (() => T), moved?: () => void) {
  const [value, setValue] = useState<T>(first);
  const history = useHistory<T>();
  const step = (to: T | undefined) => {
    if (to === undefined) return;
    setValue(to);
    moved?.();
  };
  const undo = () => step(history.back(value));
  const redo = () => step(history.forth(value));
  useUndoKeys(undo, redo);
  const set = (next: T) => {
    history.record(value);
    setValue(next);
  };
  return { value, set, canUndo: history.canUndo, canRedo: history.canRedo, undo, redo };
}
