// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import "fake-indexeddb/auto";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { again, discard, flush, mine, newID, type Parcel, send, stores } from "./outbox";

const parcel = (note: string, more: Partial<Parcel> = {}): Parcel => ({
  id: newID(),
  label: note,
  boatId: "b",
  method: "POST",
  path: "/api/log",
  body: { note },
  ...more,
});

type Mode = "up" | "down" | "broken" | "refuse" | "portal" | "locked" | "stumble" | "changed";
let sent: string[] = [];
let mode: Mode = "up";
const stored = new Set<string>();
const kept: string[] = [];

/** An answer of the program itself. */
const answer = (body: unknown, status = 200, more = {}) =>
  new Response(JSON.stringify(body), { status, headers: { "X-Program-Time": "2026-05-09T08:24:00Z", ...more } });

beforeEach(() => {
  sent = [];
  mode = "up";
  vi.stubGlobal("fetch", async (r: Request) => {
    if (mode === "down") throw new TypeError("no network");
    if (mode === "broken") return new Response("", { status: 502 });
    if (mode === "portal") return new Response("<h1>Welcome to the harbour</h1>", { status: 200 });
    if (mode === "locked") return new Response("", { status: 401 });
    const key = r.headers.get("Idempotency-Key") ?? "";
    const { note } = JSON.parse(await r.text()) as { note: string };
    if (mode === "refuse" && note.startsWith("bad"))
      return answer({ detail: "not so", errors: [{ location: "body.litres", message: "too much" }] }, 422);
    if (mode === "stumble" && note.startsWith("bad")) return answer({ detail: "the program failed" }, 500);
    if (mode === "changed")
      return answer({ detail: "changed elsewhere", current: { version: 7, note: "theirs" } }, 409);
    if (stored.has(key)) return answer({}, 200, { "X-Already-Stored": "yes" });
    stored.add(key);
    sent.push(note);
    return answer({ note });
  });
});
afterEach(async () => {
  mode = "up";
  for (const id of kept.splice(0)) await discard(id);
  await flush();
  vi.unstubAllGlobals();
});

it("sends at once when the program answers", async () => {
  expect(await send(parcel("one"))).toEqual({ note: "one" });
  expect(await flush()).toBe(0);
  expect(sent).toEqual(["one"]);
});

it("keeps what got no answer and sends it later, in order, once", async () => {
  for (const down of ["down", "broken"] as const) {
    mode = down;
    expect(await send(parcel(`${down} one`))).toBe("kept");
    expect(await send(parcel(`${down} two`))).toBe("kept");
    expect(await flush()).toBe(0);
    mode = "up";
    expect(await Promise.all([flush(), flush()])).toEqual([2, 2]);
    expect(await flush()).toBe(0);
  }
  expect(sent).toEqual(["down one", "down two", "broken one", "broken two"]);
});

it("sends what waited before what is new", async () => {
  mode = "down";
  await send(parcel("first"));
  mode = "up";
  await send(parcel("second"));
  expect(sent).toEqual(["first", "second"]);
});

it("throws what is refused, with its fields, and does not keep it", async () => {
  mode = "refuse";
  await expect(send(parcel("bad"))).rejects.toMatchObject({ status: 422, fields: { litres: "too much" } });
  mode = "up";
  expect(await flush()).toBe(0);
});

it("keeps what is refused when nobody looks, with the reason, and lets the rest through", async () => {
  mode = "down";
  const bad = parcel("bad");
  kept.push(bad.id);
  await send(bad);
  await send(parcel("good"));
  mode = "refuse";
  expect(await flush()).toBe(1);
  expect(sent).toEqual(["good"]);
  mode = "up";
  expect(await flush()).toBe(0); // it waits for the user
});

it("takes no page that stands between for an answer, and waits to be let in", async () => {
  for (const between of ["portal", "locked"] as const) {
    mode = between;
    expect(await send(parcel(between))).toBe("kept");
    expect(await flush()).toBe(0);
    mode = "up";
    expect(await flush()).toBe(1);
  }
  expect(sent).toEqual(["portal", "locked"]);
});

it("goes on behind one that the program stumbles over, but not with what hangs on it", async () => {
  mode = "down";
  const bad = parcel("bad", { method: "PUT", path: "/api/defects/d" });
  const photo = parcel("photo of it", { after: bad.id });
  const edit = parcel("edit of it", { method: "PUT", path: "/api/defects/d" });
  for (const p of [bad, photo, edit, parcel("another")]) await send(p);
  mode = "stumble";
  expect(await flush()).toBe(1);
  expect(sent).toEqual(["another"]);
  mode = "up";
  expect(await flush()).toBe(3);
  expect(sent).toEqual(["another", "bad", "photo of it", "edit of it"]);
});

it("keeps its order when the clock is set back", async () => {
  mode = "down";
  vi.setSystemTime(new Date("2026-05-09T12:00:00Z"));
  await send(parcel("noon"));
  vi.setSystemTime(new Date("2026-05-09T06:00:00Z"));
  await send(parcel("after noon"));
  vi.useRealTimers();
  mode = "up";
  await flush();
  expect(sent).toEqual(["noon", "after noon"]);
});

it("stores once what was answered and not heard", async () => {
  const p = parcel("once");
  await send(p);
  expect(await send(p)).toBe("kept"); // known: nothing more to be told
  expect(sent).toEqual(["once"]);
  expect(await flush()).toBe(0);
});

it("says so when nothing can be kept here, and keeps the form", async () => {
  const put = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
    throw new DOMException("full", "QuotaExceededError");
  });
  mode = "down";
  await expect(send(parcel("no room"))).rejects.toMatchObject({
    status: 0,
    message: expect.stringContaining("no room left"),
  });
  mode = "up";
  expect(await send(parcel("straight through"))).toEqual({ note: "straight through" });
  put.mockRestore();
});

it("offers to store over what another stored meanwhile, on its version", async () => {
  mode = "down";
  const p = parcel("mine", {
    method: "PUT",
    path: "/api/defects/d",
    body: { note: "mine", version: 3, value: { note: "mine" } },
  });
  kept.push(p.id);
  await send(p);
  mode = "changed";
  await flush();
  const refused = { ...p, refused: { status: 409, message: "", fields: {}, current: { version: 7, note: "theirs" } } };
  const over = mine(refused);
  expect(over?.body).toEqual({ note: "mine", version: 7, value: { note: "mine" } });
  expect(over?.id).not.toBe(p.id);
  expect(stores(p)).toEqual({ note: "mine" });
  expect(mine({ ...refused, path: "/api/x?version=3&y=1", body: {} })?.path).toBe("/api/x?version=7&y=1");
  expect(mine({ ...p, refused: { status: 422, message: "", fields: {} } })).toBeUndefined();
  mode = "up";
  expect(await again(over as Parcel, p.id)).toBe(1);
});

it("sends a large picture in pieces, and goes on where the line broke", async () => {
  const whole = new Blob([new Uint8Array(600 * 1024)], { type: "image/jpeg" });
  const asked: string[] = [];
  let has = 0;
  let breaks = 1;
  vi.stubGlobal("fetch", async (r: Request) => {
    const { pathname, searchParams } = new URL(r.url);
    const bytes = (await r.blob()).size;
    if (pathname === "/api/photos") {
      asked.push(`photo ${r.headers.get("X-Pieces") === p.id} ${bytes}`);
      return answer({ stored: true });
    }
    if (r.method === "GET") {
      asked.push("there");
      return answer({ bytes: has });
    }
    const at = Number(searchParams.get("at"));
    asked.push(`piece ${at / 1024} ${bytes / 1024}`);
    if (at > 0 && breaks-- > 0) throw new TypeError("the line broke");
    if (at === has) has += bytes;
    return answer({ bytes: has });
  });
  const p = parcel("photo", { path: "/api/photos", body: whole });
  expect(await send(p)).toBe("kept");
  expect(await send(p)).toEqual({ stored: true });
  expect(asked).toEqual([
    "there",
    "piece 0 256",
    "piece 256 256",
    "there",
    "piece 256 256",
    "piece 512 88",
    "photo true 0",
  ]);
});
