import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { createContext, useContext, useEffect, useRef, useState } from "react";
import { api, ok, type Refused, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { discard, newID, useWaits, waiting } from "../../api/outbox";
import { useWritten } from "../../api/queries";
import { unsendable } from "../../ui/Form";
import { alike, type Edition, merged } from "../../ui/useEdition";
import { useHistory, useUndoKeys } from "../../ui/useHistory";
import { tr } from "../../words/words";

/** What every workbench answers with: the work it is of, and what of it does not go. */
export type Kept<W> = { work: W; version: number; trouble: Schemas["FielderrField"][] };

export type Ways<W, R> = {
  get: () => Promise<R>;
  preview: (work: W) => Promise<R>;
  /** Where it is kept, by PUT, and what it is called while it waits to be. */
  path: string;
  label: string;
};

/** How long nothing is changed before what a change comes to is asked for, and before it is kept, ms. */
const SETTLED_MS = 200;
const KEEP_MS = 900;

/** A value once it has not changed for so long. */
function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const t = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(t);
  }, [value, ms]);
  return settled;
}

/** A workbench: what is kept, the change at hand with what it would come to. A change that goes is kept by itself, and can be undone. */
export function useWork<W, R extends Kept<W>>(of: string[], ways: Ways<W, R>) {
  const [draft, setDraft] = useState<W | null>(null);
  const settled = useSettled(draft, SETTLED_MS);
  const steady = useSettled(draft, KEEP_MS);
  const kept = useQuery<R, Refused>({ queryKey: key("finish", ...of), queryFn: ways.get });
  const local = draft === null ? {} : brackets(unsendable(draft));
  const preview = useQuery<R, Refused>({
    queryKey: key("finish", ...of, settled),
    queryFn: () => ways.preview(settled as W),
    enabled: settled !== null && draft !== null && Object.keys(brackets(unsendable(settled))).length === 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const [parcel, setParcel] = useState<string | null>(null);
  const waits = useWaits(parcel);
  const latest = useRef(draft);
  latest.current = draft;
  const sent = useRef<W | null>(null);
  // What was kept when the change at hand began: that is what it changes, whatever is fetched meanwhile.
  const opened = useRef<Edition<W> | null>(null);
  const stored = useRef(0);
  // What is on its way; what went and nobody answered, which may be stored or not.
  const posted = useRef<{ id: string; body: W } | null>(null);
  const doubted = useRef<W[]>([]);
  /** Body is stored as that version: a change that was made since changes that. */
  const arrived = (version: number, body: W) => {
    stored.current = version;
    opened.current = { version, value: body };
    if (latest.current === body) setDraft(null);
  };
  const [left, setLeft] = useState<{ id: string; body: W } | null>(null);
  const save = useWritten<{ version: number; body: W }, R>(
    ["finish"],
    ({ version, body }) => {
      const id = newID();
      posted.current = { id, body };
      setParcel(id);
      return [{ id, label: ways.label, boatId: "", method: "PUT", path: `${ways.path}?version=${version}`, body }];
    },
    (r) => {
      if (posted.current === null) return;
      if (r === "kept") {
        doubted.current.push(posted.current.body);
        setLeft(posted.current);
        return;
      }
      doubted.current = [];
      arrived(r.version, posted.current.body);
    },
  );
  // One change is kept after the other, each over the edition that the one before has come to.
  const before = useRef<Promise<unknown>>(Promise.resolve());
  const keep = (body: W) => {
    sent.current = body;
    before.current = before.current.then(async () => {
      if (opened.current === null) return;
      if (posted.current) await discard(posted.current.id).catch(() => {}); // what waits still is overtaken by this
      await save.mutateAsync({ version: opened.current.version, body }).catch(() => {}); // save tells the error
    });
  };
  const goes =
    draft !== null &&
    steady === draft &&
    settled === draft &&
    Object.keys(local).length === 0 &&
    !preview.error &&
    !preview.isFetching;
  // What is stored may be what went from here, though its answer was lost: nobody else has changed it.
  const other = save.error?.status === 409 ? (save.error.current as R | undefined) : undefined;
  const own = other !== undefined && doubted.current.some((body) => alike(body, other.work));
  const error = own ? null : save.error;
  // What was refused of an earlier change says nothing of the one at hand.
  const refusal = draft === null || sent.current === draft ? error : null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: kept once for each draft that goes, whatever else is drawn anew
  useEffect(() => {
    if (goes && draft !== null && !save.isPending && !refusal && sent.current !== draft) keep(draft);
  }, [goes, draft, save.isPending, refusal]);
  // What goes and was not kept yet is kept when its user leaves.
  const leaving = useRef<() => void>(() => {});
  leaving.current = () => {
    if (draft !== null && sent.current !== draft && Object.keys(local).length === 0 && !preview.error) keep(draft);
  };
  useEffect(() => () => leaving.current(), []);
  // Once what was kept on this device has arrived, it is what is stored.
  const { refetch } = kept;
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at when it may have arrived, whatever else is drawn anew
  useEffect(() => {
    if (left === null || waits) return;
    void (async () => {
      if (await waiting(left.id)) return;
      const now = (await refetch()).data;
      if (now && (latest.current === left.body || alike(now.work, left.body))) arrived(now.version, left.body);
      setLeft(null);
    })();
  }, [left, waits]);
  const history = useHistory<W>();
  const work = draft ?? kept.data?.work;
  const show = (next: W | undefined) => {
    if (next === undefined || kept.data === undefined) return;
    if (draft === null)
      opened.current = { version: Math.max(kept.data.version, stored.current), value: kept.data.work };
    save.reset();
    setDraft(next);
  };
  const undo = () => work !== undefined && show(history.back(work));
  const redo = () => work !== undefined && show(history.forth(work));
  useUndoKeys(undo, redo);
  const view = draft === null ? kept.data : (preview.data ?? kept.data);
  const trouble = draft === null ? Object.fromEntries((kept.data?.trouble ?? []).map((t) => [t.path, t.says])) : {};
  /** Keeps what was changed over what another has kept meanwhile. */
  const over = (current: R) => {
    if (draft === null || opened.current === null) return;
    const both = merged(opened.current.value as object, draft as object, current.work as object) as W;
    opened.current = { version: current.version, value: current.work };
    setDraft(both);
    keep(both);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each that comes back
  useEffect(() => {
    if (own && other) over(other);
  }, [own, other]);
  return {
    kept,
    view,
    work,
    dirty: draft !== null,
    waits,
    set: (next: W) => {
      if (work !== undefined) history.record(work);
      show(next);
    },
    undo,
    redo,
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    discard: () => setDraft(null),
    over,
    /** What another has kept meanwhile, if it was another. */
    conflict: error,
    save,
    /** Messages by path: of the form, of the preview, of keeping. */
    errors: {
      ...trouble,
      ...(draft === null ? {} : (preview.error?.fields ?? {})),
      ...(refusal?.fields ?? {}),
      ...local,
    },
    refused: draft === null ? error : (refusal ?? preview.error),
  };
}

const brackets = (bad: Record<string, string>) =>
  Object.fromEntries(Object.entries(bad).map(([k, m]) => [k.replace(/\.(\d+)/g, "[$1]"), m]));

/** What is set at each bench of a surface, and what it answers. */
type Crafts = {
  "non-skid": [Schemas["NonskidWork"], Schemas["NonSkid"]];
  moulded: [Schemas["MouldWork"], Schemas["Moulded"]];
  gelcoat: [Schemas["GelcoatWork"], Schemas["Gelcoated"]];
  brightwork: [Schemas["BrightworkWork"], Schemas["Bright"]];
  antifouling: [Schemas["AntifoulWork"], Schemas["Antifouled"]];
  metal: [Schemas["MetalWork"], Schemas["Metalled"]];
};

/** The bench of a craft on a surface. The paths of all crafts are alike; one of them stands for the type of all. */
export function useCraft<K extends keyof Crafts>(craft: K, surfaceId: string) {
  type W = Crafts[K][0];
  type R = Crafts[K][1];
  const path = `/api/surfaces/{id}/finishes/${craft}` as "/api/surfaces/{id}/finishes/gelcoat";
  const at = { path: { id: surfaceId } };
  const bench = useWork<W, R & Kept<W>>([surfaceId, craft], {
    get: () => ok(api.GET(path, { params: at })) as Promise<unknown> as Promise<R & Kept<W>>,
    preview: (work) =>
      ok(api.POST(path, { params: at, body: work as Schemas["GelcoatWork"] })) as Promise<unknown> as Promise<
        R & Kept<W>
      >,
    path: `/api/surfaces/${surfaceId}/finishes/${craft}`,
    label: tr("the {craft} bench", { craft }),
  });
  const plan = `${path}/plan` as "/api/surfaces/{id}/finishes/gelcoat/plan";
  return { bench, plan: () => ok(api.POST(plan, { params: at })) };
}

type Draft = { read: (path: string) => unknown; write: (path: string, value: unknown) => void };

/** The work at hand, for the fields below, by path ("zones[1].areaM2"). */
export const DraftContext = createContext<Draft>({ read: () => undefined, write: () => {} });
export const useDraft = () => useContext(DraftContext);

const steps = (path: string) => path.split(/[.[\]]+/).filter(Boolean);

export function readAt(value: unknown, path: string): unknown {
  return steps(path).reduce<unknown>((v, k) => (v as Record<string, unknown> | undefined)?.[k], value);
}

/** A copy of value with another value at path; undefined takes it away. */
export function writeAt<T>(value: T, path: string, next: unknown): T {
  const [first, ...rest] = steps(path);
  if (first === undefined) return next as T;
  const copy = (Array.isArray(value) ? [...value] : { ...value }) as Record<string, unknown>;
  const inner = rest.length > 0 ? writeAt((copy[first] ?? {}) as unknown, rest.join("."), next) : next;
  if (inner === undefined && !Array.isArray(copy)) delete copy[first];
  else copy[first] = inner;
  return copy as T;
}
