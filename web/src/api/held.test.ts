import { afterEach, expect, test, vi } from "vitest";
import { held } from "./held";

afterEach(() => vi.unstubAllGlobals());

test("what is held and still stands is not sent again; what changed is", async () => {
  const asked: (string | null)[] = [];
  let now = "one";
  vi.stubGlobal("fetch", async (r: Request) => {
    const known = r.headers.get("If-None-Match");
    asked.push(known);
    if (known === `W/"${now}"`)
      return new Response(null, { status: 304, headers: { "X-Program-Time": "2026-05-09T09:24:00Z" } });
    return new Response(JSON.stringify({ now }), { status: 200, headers: { ETag: `W/"${now}"` } });
  });
  const ask = async () => {
    const answer = await held(new Request("http://localhost/api/boats"));
    return [answer.status, (await answer.json()).now, answer.headers.get("X-Program-Time")];
  };
  expect(await ask()).toEqual([200, "one", null]);
  expect(await ask()).toEqual([200, "one", "2026-05-09T09:24:00Z"]);
  now = "two";
  expect(await ask()).toEqual([200, "two", null]);
  expect(asked).toEqual([null, 'W/"one"', 'W/"one"']);
});

test("a change is sent as it is, and what failed is not held", async () => {
  const asked: (string | null)[] = [];
  vi.stubGlobal("fetch", async (r: Request) => {
    asked.push(r.headers.get("If-None-Match"));
    return new Response("{}", { status: r.method === "GET" ? 500 : 200, headers: { ETag: 'W/"x"' } });
  });
  for (const method of ["POST", "POST", "GET", "GET"])
    await held(new Request("http://localhost/api/places", { method }));
  expect(asked).toEqual([null, null, null, null]);
});
