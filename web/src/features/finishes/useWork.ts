import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { createContext, useContext, useEffect, useState } from "react";
import { api, ok, type Refused, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { newID, useWaits } from "../../api/outbox";
import { useWritten } from "../../api/queries";
import { unsendable } from "../../ui/Form";

/** What every workbench answers with: the work it is of, and what of it does not go. */
export type Kept<W> = { work: W; version: number; trouble: Schemas["FaultField"][] };

export type Ways<W, R> = {
  get: () => Promise<R>;
  preview: (work: W) => Promise<R>;
  /** Where it is kept, by PUT, and what it is called while it waits to be. */
  path: string;
  label: string;
};

/** A workbench: what is kept, the change at hand with what it would come to, and keeping it. */
export function useWork<W, R extends Kept<W>>(of: string[], ways: Ways<W, R>) {
  const [draft, setDraft] = useState<W | null>(null);
  const [settled, setSettled] = useState<W | null>(null);
  useEffect(() => {
    const t = setTimeout(() => setSettled(draft), 200);
    return () => clearTimeout(t);
  }, [draft]);
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
  const save = useWritten<number, R>(
    ["finish"],
    (version) => {
      const id = newID();
      setParcel(id);
      const body = draft ?? kept.data?.work;
      return [{ id, label: ways.label, boatId: "", method: "PUT", path: `${ways.path}?version=${version}`, body }];
    },
    (r) => r !== "kept" && setDraft(null),
  );
  // Once what was kept on this device has arrived, it is what is stored.
  const [waited, setWaited] = useState(false);
  if (waits !== waited) {
    setWaited(waits);
    if (!waits) setDraft(null);
  }
  const view = draft === null ? kept.data : (preview.data ?? kept.data);
  const trouble = draft === null ? Object.fromEntries((kept.data?.trouble ?? []).map((t) => [t.path, t.says])) : {};
  return {
    kept,
    view,
    work: draft ?? kept.data?.work,
    dirty: draft !== null,
    waits,
    set: (work: W) => {
      save.reset();
      setDraft(work);
    },
    discard: () => setDraft(null),
    save,
    /** Messages by path: of the form, of the preview, of keeping. */
    errors: { ...trouble, ...(draft === null ? {} : (preview.error?.fields ?? {})), ...(save.error?.fields ?? {}), ...local },
    refused: draft === null ? save.error : (save.error ?? preview.error),
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
    preview: (work) => ok(api.POST(path, { params: at, body: work as Schemas["GelcoatWork"] })) as Promise<unknown> as Promise<R & Kept<W>>,
    path: `/api/surfaces/${surfaceId}/finishes/${craft}`,
    label: `the ${craft} bench`,
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
