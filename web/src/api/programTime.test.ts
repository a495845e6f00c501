import { afterEach, expect, it, vi } from "vitest";
import { hear, programTime } from "./programTime";

afterEach(() => vi.useRealTimers());

const answer = (headers: Record<string, string>) => new Response("{}", { headers });

it("runs on from a fresh answer, and from when a kept one was kept", () => {
  vi.useFakeTimers({ now: Date.parse("2026-05-09T10:00:00Z") });
  hear(answer({ "X-Program-Time": "2026-05-09T09:24:00Z" })); // 36 min behind this device
  vi.advanceTimersByTime(180_000);
  expect(programTime()).toBe(Date.parse("2026-05-09T09:27:00Z"));
  // The server is away: its old answer comes again from the cache, kept at 10:00.
  hear(answer({ "X-Program-Time": "2026-05-09T09:24:00Z", "X-Kept-At": String(Date.parse("2026-05-09T10:00:00Z")) }));
  expect(programTime()).toBe(Date.parse("2026-05-09T09:27:00Z"));
  hear(answer({})); // an answer that tells no time changes nothing
  expect(programTime()).toBe(Date.parse("2026-05-09T09:27:00Z"));
});
