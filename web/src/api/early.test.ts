// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
import { afterEach, expect, test, vi } from "vitest";

const page = async () => {
  vi.resetModules();
  const carried = { time: "2026-05-09T09:24:00Z", answers: { "/api/boats": { tag: 'W/"b"', body: [{ id: "b" }] } } };
  document.head.innerHTML = `<script type="application/json" id="early">${JSON.stringify(carried)}</script>`;
  return import("./early");
};

afterEach(() => vi.restoreAllMocks());

test("the page's answers are taken once, as the program would send them", async () => {
  const { carriedAnswer, takeCarried } = await page();
  expect(carriedAnswer("/api/boats")).toEqual([{ id: "b" }]);
  expect(takeCarried(new Request("http://localhost/api/places"))).toBeUndefined();
  expect(takeCarried(new Request("http://localhost/api/boats", { method: "POST" }))).toBeUndefined();
  const answer = takeCarried(new Request("http://localhost/api/boats"));
  expect(await answer?.json()).toEqual([{ id: "b" }]);
  expect(answer?.headers.get("ETag")).toBe('W/"b"');
  expect(answer?.headers.get("X-Program-Time")).toBe("2026-05-09T09:24:00Z");
  expect(takeCarried(new Request("http://localhost/api/boats"))).toBeUndefined();
});

test("who comes to a screen later asks the program", async () => {
  const { takeCarried } = await page();
  vi.spyOn(performance, "now").mockReturnValue(20_000);
  expect(takeCarried(new Request("http://localhost/api/boats"))).toBeUndefined();
});
