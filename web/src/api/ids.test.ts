import { afterEach, expect, it, vi } from "vitest";
import { newID } from "./outbox";

afterEach(() => vi.unstubAllGlobals());

it("makes ids where the browser keeps crypto.randomUUID back, as on plain http", () => {
  const real = globalThis.crypto;
  vi.stubGlobal("crypto", { getRandomValues: real.getRandomValues.bind(real) });
  const ids = Array.from({ length: 1000 }, newID);
  expect(new Set(ids).size).toBe(1000);
  for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
});
