import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { useSyncExternalStore } from "react";
import { v4 } from "uuid";
import { tr } from "../words/words";
import { Refused, refusedBy, type Words } from "./client";

/** Something to be sent: kept on this device until the program has answered. */
export type Parcel = {
  id: string;
  label: string;
  boatId: string;
  method: "POST" | "PUT" | "DELETE";
  path: string;
  /** JSON, or a picture as it was taken. */
  body?: unknown;
  /** A parcel that must be there first, such as the defect that a photo is of. */
  after?: string;
  /** Its place in the order of sending; a clock that is set back changes nothing. */
  seq?: number;
  /** Why the program refused it; the user decides. With current, what another stored in the meantime. */
  refused?: { status: number; message: string; fields: Record<string, Words>; current?: unknown };
};

interface Store extends DBSchema {
  parcels: { key: string; value: Parcel };
}

let db: Promise<IDBPDatabase<Store>> | undefined;
const open = async () => {
  db ??= openDB<Store>("all-coats", 1, { upgrade: (d) => d.createObjectStore("parcels", { keyPath: "id" }) });
  return db;
};

/** The place where things are kept, undefined where a browser has none or gives none, as in a private window. */
const room = () => open().catch(() => undefined);

const inOrder = (all: Parcel[]) => all.sort((a, b) => (a.seq ?? 0) - (b.seq ?? 0));

let shown: Parcel[] = [];
const listeners = new Set<() => void>();
async function tell() {
  const d = await room();
  if (!d) return;
  shown = inOrder(await d.getAll("parcels"));
  for (const l of listeners) l();
}

let asked = false;

/** Keeps p behind all that wait; one that is kept already keeps its place. */
async function keep(p: Parcel): Promise<Parcel> {
  // A browser that is short of room throws away what it was not asked to keep.
  if (!asked) {
    asked = true;
    void globalThis.navigator?.storage?.persist?.();
  }
  const tx = (await open()).transaction("parcels", "readwrite");
  const all = await tx.store.getAll();
  const seq = p.seq ?? all.find((o) => o.id === p.id)?.seq ?? Math.max(0, ...all.map((o) => o.seq ?? 0)) + 1;
  await tx.store.put({ ...p, seq });
  await tx.done;
  return { ...p, seq };
}

/** A picture is sent as bytes, whatever it is; lines of readings as what they are. */
const sort = (b: Blob) => (b.type === "application/x-ndjson" ? b.type : "application/octet-stream");

const noAnswer = () => new Refused(0, tr("The program does not answer."), {});

/** The program's answer; anything else is thrown as Refused. */
async function ask(method: string, path: string, headers: Record<string, string>, body?: Blob | string) {
  let res: Response;
  try {
    res = await fetch(new Request(new URL(path, location.href), { method, headers, body }));
  } catch {
    throw noAnswer();
  }
  // A page that stands between, such as that of a public network, is no answer of the program.
  if (!res.headers.has("X-Program-Time"))
    throw new Refused(res.status >= 500 ? res.status : 0, tr("The program does not answer."), {});
  const answer: unknown = await res.json().catch(() => undefined);
  if (!res.ok) throw refusedBy(res.status, answer);
  return { answer, known: res.headers.has("X-Already-Stored") };
}

/** What is larger goes in pieces of this many bytes: a line of 40 kB/s that breaks loses a few seconds. */
const PIECE = 256 * 1024;

/** Sends a large thing piece by piece, going on where an earlier try ended. */
async function sendPieces(id: string, whole: Blob) {
  const path = `/api/pieces/${id}`;
  const there = ({ answer }: { answer: unknown }) => (answer as { bytes: number }).bytes;
  let at = there(await ask("GET", path, {}));
  while (at < whole.size)
    at = there(
      await ask("PUT", `${path}?at=${at}`, { "Content-Type": "application/octet-stream" }, whole.slice(at, at + PIECE)),
    );
}

async function deliver<T>(p: Parcel): Promise<T | undefined> {
  const blob = p.body instanceof Blob ? p.body : undefined;
  const headers: Record<string, string> = {
    "Content-Type": blob ? sort(blob) : "application/json",
    "Idempotency-Key": p.id,
  };
  const large = blob !== undefined && blob.size > PIECE;
  if (large) {
    await sendPieces(p.id, blob);
    headers["X-Pieces"] = p.id;
  }
  const body = blob ?? (p.body === undefined ? undefined : JSON.stringify(p.body));
  const { answer, known } = await ask(p.method, p.path, headers, large ? undefined : body);
  return known ? undefined : (answer as T);
}

/** No answer, or none that says the thing itself is wrong: worth another try later. */
const later = (e: unknown) =>
  e instanceof Refused && (e.status === 0 || [401, 408, 421, 429].includes(e.status) || e.status >= 500);

/**
 * Sends p. Without an answer it is kept and sent later, and "kept" is returned; what the program refuses is thrown.
 * The program knows ids again, so what was sent twice is stored once.
 */
export async function send<T>(p: Parcel): Promise<T | "kept"> {
  inHand.add(p.id);
  try {
    // Kept first: if this tab ends now, nothing is lost.
    const placed = await keep(p).catch((e: unknown) => e);
    const before = async () =>
      !(placed instanceof Error) &&
      (await (await open()).getAll("parcels")).some(
        (o) => o.id !== p.id && !o.refused && (o.seq ?? 0) < ((placed as Parcel).seq ?? 0),
      );
    if (await before()) {
      await flush();
      if (await before()) return "kept"; // what was written first is sent first
    }
    try {
      const answer = await deliver<T>(p);
      await forget(p.id);
      return answer ?? "kept";
    } catch (e) {
      if (placed instanceof Error && later(e))
        throw new Refused(
          0,
          tr(
            "The program does not answer, and this device has no room left to keep it: leave this page open, and free some.",
          ),
          {},
        );
      if (!later(e)) await forget(p.id);
      if (!later(e)) throw e;
      return "kept";
    }
  } finally {
    inHand.delete(p.id);
    void tell();
  }
}

const forget = async (id: string) => {
  try {
    await (await open()).delete("parcels", id);
  } catch {
    // It is sent again then, and the program knows it.
  }
};

/** Parcels that send is at, or that are being changed: flush leaves them. */
const inHand = new Set<string>();

/** Keeps a parcel from being sent while it is looked at; returns what lets it go. */
export function holding(id: string): () => void {
  inHand.add(id);
  return () => void inHand.delete(id);
}

let flushing: Promise<number> | undefined;

/** Sends what waits, in order; returns how many got through. Refused ones stay, with the reason, and hold up only what must come after them. */
export function flush(): Promise<number> {
  flushing ??= (async () => {
    const d = await room();
    if (!d) return 0;
    let sent = 0;
    const held = new Set<string>();
    for (const p of inOrder(await d.getAll("parcels"))) {
      const hold = () => [p.id, ...(p.method === "POST" ? [] : [p.path])].map((k) => held.add(k));
      if (p.refused || inHand.has(p.id) || (p.after && held.has(p.after)) || held.has(p.path)) {
        hold();
        continue;
      }
      try {
        await deliver(p);
        await d.delete("parcels", p.id);
        sent++;
      } catch (e) {
        const r = e as Refused;
        hold();
        if (later(e) && r.status < 500) break; // nobody is there, or nobody lets us in
        if (later(e)) continue; // this one alone may be what it stumbles over
        await d.put("parcels", {
          ...p,
          refused: { status: r.status, message: r.message, fields: r.fields, current: r.current },
        });
      }
    }
    return sent;
  })().finally(() => {
    flushing = undefined;
    void tell();
  });
  return flushing;
}

/** Sends p in the place of a refused parcel. */
export async function again(p: Parcel, was: string) {
  const tx = (await open()).transaction("parcels", "readwrite");
  await tx.store.delete(was);
  await tx.store.put({ ...p, refused: undefined });
  await tx.done;
  await tell();
  return flush();
}

/** What of a parcel is stored by it: the value of an edit, or all of its body. */
export function stores(p: Parcel): unknown {
  const body = p.body as { value?: unknown } | undefined;
  return body && typeof body === "object" && "value" in body ? body.value : p.body;
}

/** A parcel refused because another changed the same meanwhile, as it would be stored over that; undefined for any other. */
export function mine(p: Parcel): Parcel | undefined {
  const now = p.refused?.current as Record<string, unknown> | undefined;
  if (p.refused?.status !== 409 || !now) return undefined;
  const version = (now.version ?? (now.now as { version?: number } | undefined)?.version) as number | undefined;
  if (version === undefined) return undefined;
  const id = newID(); // stored under another id: the first one may be known, for what it did not do
  if (/[?&]version=/.test(p.path)) return { ...p, id, path: p.path.replace(/([?&]version=)\d+/, `$1${version}`) };
  return { ...p, id, body: { ...(p.body as object), version } };
}

/** Takes a parcel out: the user gave it up, or sends it changed. */
export async function discard(id: string) {
  await (await open()).delete("parcels", id);
  await tell();
}

/** Throws away all that waits: whoever wrote it logs out. */
export async function empty() {
  await (await room())?.clear("parcels");
  await tell();
}

const listen = (l: () => void) => {
  listeners.add(l);
  void tell();
  return () => {
    listeners.delete(l);
  };
};

/** Whether a parcel waits on this device now. */
export const waiting = async (id: string) => (await (await room())?.get("parcels", id)) !== undefined;

/** Whether a parcel waits on this device, refused or not. */
export const useWaits = (id: string | null): boolean => useOutbox().some((p) => p.id === id);

/** What waits on this device. */
export const useOutbox = (): Parcel[] => useSyncExternalStore(listen, () => shown);

/** An id made here, also where the browser keeps crypto.randomUUID back: on plain http. */
export const newID = (): string => v4();
