// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import "fake-indexeddb/auto";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { discard, flush, newID, type Parcel, send } from "./outbox";

const parcel = (note: string, at: number): Parcel => ({
  id: newID(),
  at,
  label: note,
  boatId: "b",
  method: "POST",
  path: "/api/log",
  body: { note },
});

let sent: string[] = [];
let mode: "up" | "down" | "broken" | "refuse" = "up";
const kept: string[] = [];

beforeEach(() => {
  sent = [];
  mode = "up";
  vi.stubGlobal("fetch", async (r: Request) => {
    if (mode === "down") throw new TypeError("no network");
    if (mode === "broken") return new Response("", { status: 502 });
    const note = (JSON.parse(await r.text()) as { note: string }).note;
    if (mode === "refuse" && note.startsWith("bad"))
      return new Response(JSON.stringify({ detail: "not so", errors: [{ location: "body.litres", message: "too much" }] }), {
        status: 422,
      });
    sent.push(note);
    return new Response(JSON.stringify({ note }), { status: 200 });
  });
});
afterEach(async () => {
  mode = "up";
  for (const id of kept.splice(0)) await discard(id);
  await flush();
  vi.unstubAllGlobals();
});

it("sends at once when the program answers", async () => {
  expect(await send(parcel("one", 1))).toEqual({ note: "one" });
  expect(await flush()).toBe(0);
  expect(sent).toEqual(["one"]);
});

it("keeps what got no answer and sends it later, in order, once", async () => {
  for (const down of ["down", "broken"] as const) {
    mode = down;
    expect(await send(parcel(`${down} one`, 1))).toBe("kept");
    expect(await send(parcel(`${down} two`, 2))).toBe("kept");
    expect(await flush()).toBe(0);
    mode = "up";
    expect(await Promise.all([flush(), flush()])).toEqual([2, 2]);
    expect(await flush()).toBe(0);
  }
  expect(sent).toEqual(["down one", "down two", "broken one", "broken two"]);
});

it("sends what waited before what is new", async () => {
  mode = "down";
  await send(parcel("first", 1));
  mode = "up";
  await send(parcel("second", 2));
  expect(sent).toEqual(["first", "second"]);
});

it("throws what is refused, with its fields, and does not keep it", async () => {
  mode = "refuse";
  await expect(send(parcel("bad", 1))).rejects.toMatchObject({ status: 422, fields: { litres: "too much" } });
  mode = "up";
  expect(await flush()).toBe(0);
});

it("keeps what is refused when nobody looks, with the reason, and lets the rest through", async () => {
  mode = "down";
  const bad = parcel("bad", 1);
  kept.push(bad.id);
  await send(bad);
  await send(parcel("good", 2));
  mode = "refuse";
  expect(await flush()).toBe(1);
  expect(sent).toEqual(["good"]);
  mode = "up";
  expect(await flush()).toBe(0); // it waits for the user
});
