import { type DeepKeys, type DeepValue, useForm, useStore } from "@tanstack/react-form";
import { useEffect, useState } from "react";
import { useUnsaved } from "./unsaved";
import { useHistory, useUndoKeys } from "./useHistory";

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Whether two things are the same when they are stored: nothing, none and what is not said are alike there, and no order of names. */
export const alike = (a: unknown, b: unknown): boolean => same(bare(a), bare(b));

function bare(v: unknown): unknown {
  if (Array.isArray(v)) return v.length === 0 ? undefined : v.map((one) => bare(one) ?? null);
  if (v === null || typeof v !== "object") return v || undefined;
  const said = Object.entries(v)
    .map(([k, x]) => [k, bare(x)] as const)
    .filter(([, x]) => x !== undefined)
    .sort(([a], [b]) => (a < b ? -1 : 1));
  return said.length === 0 ? undefined : Object.fromEntries(said);
}

/** What was typed, over what is stored now: a field that was not touched since it was opened keeps what another has put there. */
export function merged<T extends object>(opened: T, mine: T, stored: T): T {
  const touched = Object.entries(mine).filter(([k, v]) => !same(v, (opened as Record<string, unknown>)[k]));
  return { ...stored, ...Object.fromEntries(touched) };
}

/** An edition of a thing that is being edited, with what is to be put in its place. */
export type Edition<T> = { version: number; value: T };

/**
 * A form over an edition of a thing, taken when the form opens: once something is typed, what is fetched anew changes neither the
 * fields nor the edition that the edit is sent for. of is the form's part of a thing, or of none.
 */
export function useEdition<C extends { version: number }, T extends object>(
  first: C | undefined,
  of: (thing?: C) => T,
) {
  const [opened, setOpened] = useState<Edition<T>>(() => ({ version: first?.version ?? 0, value: of(first) }));
  const form = useForm({ defaultValues: opened.value });
  const edit = useStore(form.store, (s) => s.values);
  const history = useHistory<T>();
  const changed = !same(edit, opened.value);
  useUnsaved(changed);
  const show = (e: T) => form.reset(e, { keepDefaultValues: true });
  const open = (e: Edition<T>) => {
    setOpened(e);
    form.reset(e.value);
  };
  const newer = first !== undefined && first.version > opened.version && !changed;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each edition that is fetched
  useEffect(() => {
    if (newer) open({ version: first.version, value: of(first) });
  }, [newer, first?.version]);
  const put = (next: T) => {
    history.record(form.state.values);
    show(next);
  };
  return {
    edit,
    changed,
    put,
    set: (more: Partial<T>) => put({ ...form.state.values, ...more }),
    /** What a field shows, and where what is typed goes: its path is the one under which the server names it. */
    at: <P extends DeepKeys<T>>(path: P) => ({
      name: path as string,
      value: form.getFieldValue(path),
      onChange: (v: unknown) => {
        history.record(form.state.values);
        form.setFieldValue(path, () => v as DeepValue<T, P>);
      },
    }),
    /** What is sent: for the edition that was opened. */
    sent: { version: opened.version, value: edit } as Edition<T>,
    /** The same for an edition that is stored now. */
    over: (c: C): Edition<T> => ({ version: c.version, value: merged(opened.value, edit, of(c)) }),
    take: (c: C) => open({ version: c.version, value: of(c) }),
    /** Begins anew with a thing that is not stored. */
    begin: (value: T) => open({ version: 0, value }),
    of,
    history,
    show,
  };
}

/** The way back and forth through what a form showed, by buttons (UndoRedo) and by keys. */
export function useUndo<T>({
  edit,
  show,
  history,
}: {
  edit: T;
  show: (e: T) => void;
  history: ReturnType<typeof useHistory<T>>;
}) {
  const step = (to: T | undefined) => to !== undefined && show(to);
  const undo = () => step(history.back(edit));
  const redo = () => step(history.forth(edit));
  useUndoKeys(undo, redo);
  return { canUndo: history.canUndo, canRedo: history.canRedo, undo, redo };
}
