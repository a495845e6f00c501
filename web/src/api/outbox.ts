import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { useSyncExternalStore } from "react";
import { v4 } from "uuid";
import { Refused, refusedBy, type Words } from "./client";

/** Something to be sent: kept on this device until the program has answered. */
export type Parcel = {
  id: string;
  at: number;
  label: string;
  boatId: string;
  method: "POST" | "PUT";
  path: string;
  /** JSON, or a picture as it was taken. */
  body: unknown;
  /** Why the program refused it; the user decides. */
  refused?: { status: number; message: string; fields: Record<string, Words> };
};

interface Store extends DBSchema {
  parcels: { key: string; value: Parcel };
}

let db: Promise<IDBPDatabase<Store>> | undefined;
const open = () => {
  db ??= openDB<Store>("all-coats", 1, { upgrade: (d) => d.createObjectStore("parcels", { keyPath: "id" }) });
  return db;
};

let shown: Parcel[] = [];
const listeners = new Set<() => void>();
async function tell() {
  shown = (await (await open()).getAll("parcels")).sort((a, b) => a.at - b.at);
  for (const l of listeners) l();
}

async function deliver<T>(p: Parcel): Promise<T> {
  const blob = p.body instanceof Blob;
  let res: Response;
  try {
    res = await fetch(
      new Request(new URL(p.path, location.href), {
        method: p.method,
        headers: { "Content-Type": blob ? "application/octet-stream" : "application/json" },
        body: blob ? (p.body as Blob) : JSON.stringify(p.body),
      }),
    );
  } catch {
    throw new Refused(0, "The program does not answer.", {});
  }
  const answer: unknown = await res.json().catch(() => undefined);
  if (res.ok) return answer as T;
  throw refusedBy(res.status, answer);
}

/** No answer, or none of the program itself: worth another try later. */
const later = (e: unknown) => e instanceof Refused && (e.status === 0 || e.status >= 500);

/**
 * Sends p. Without an answer it is kept and sent later, and "kept" is returned; what the program refuses is thrown.
 * The receiver knows ids again, so what was sent twice is stored once.
 */
export async function send<T>(p: Parcel): Promise<T | "kept"> {
  // Kept first: if this tab ends now, nothing is lost.
  const d = await open();
  inHand.add(p.id);
  await d.put("parcels", p);
  const waiting = (await d.getAll("parcels")).some((o) => o.id !== p.id && !o.refused && o.at <= p.at);
  try {
    if (waiting) await flush();
    const answer = await deliver<T>(p);
    await d.delete("parcels", p.id);
    await tell();
    return answer;
  } catch (e) {
    if (later(e)) {
      await tell();
      return "kept";
    }
    await d.delete("parcels", p.id);
    await tell();
    throw e;
  } finally {
    inHand.delete(p.id);
  }
}

/** Parcels that send is at: flush leaves them to it. */
const inHand = new Set<string>();

let flushing: Promise<number> | undefined;

/** Sends what waits, in order; returns how many got through. Refused ones stay, with the reason. */
export function flush(): Promise<number> {
  flushing ??= (async () => {
    const d = await open();
    let sent = 0;
    for (const p of (await d.getAll("parcels")).sort((a, b) => a.at - b.at)) {
      if (p.refused || inHand.has(p.id)) continue;
      try {
        await deliver(p);
        await d.delete("parcels", p.id);
        sent++;
      } catch (e) {
        if (later(e)) break;
        const r = e as Refused;
        await d.put("parcels", { ...p, refused: { status: r.status, message: r.message, fields: r.fields } });
      }
    }
    return sent;
  })().finally(() => {
    flushing = undefined;
    void tell();
  });
  return flushing;
}

/** Takes a parcel out: the user gave it up, or sends it changed. */
export async function discard(id: string) {
  await (await open()).delete("parcels", id);
  await tell();
}

const listen = (l: () => void) => {
  listeners.add(l);
  void tell();
  return () => {
    listeners.delete(l);
  };
};

/** What waits on this device. */
export const useOutbox = (): Parcel[] => useSyncExternalStore(listen, () => shown);

/** An id made here, also where the browser keeps crypto.randomUUID back: on plain http. */
export const newID = (): string => v4();
