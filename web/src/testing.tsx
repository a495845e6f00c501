import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, vi } from "vitest";
import { Router } from "wouter";
import { memoryLocation } from "wouter/memory-location";
import type { Schemas } from "./api/client";
import { key } from "./api/keys";
import { SettingsProvider } from "./ui/settings";

const unit = (
  metric: string,
  digits: number,
  imperialSymbol: string,
  factor: number,
  imperialDigits = 1,
  offset = 0,
) => ({
  metric,
  metricSymbol: metric === "K" ? "°C" : metric,
  metricDigits: digits,
  imperialSymbol,
  imperialDigits,
  factor,
  offset,
});

/** The conversions that tests need, by definition of the units. */
export const UNITS: Schemas["UnitsDisplay"][] = [
  unit("m", 2, "ft", 1 / 0.3048),
  unit("mm", 1, "in", 1 / 25.4, 2),
  unit("µm", 0, "mil", 1 / 25.4),
  unit("m²", 1, "ft²", 1 / 0.3048 ** 2, 0),
  unit("L", 2, "US qt", 4 / 3.785411784, 2),
  unit("°C", 1, "°F", 1.8, 0, 32),
];

/** Renders inside what the application gives its screens: units, queries, a router. */
export function show(children: ReactNode, at = "/") {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  queries.setQueryData(key("glossary"), []);
  return render(
    <Router hook={memoryLocation({ path: at }).hook}>
      <QueryClientProvider client={queries}>
        <SettingsProvider table={UNITS}>{children}</SettingsProvider>
      </QueryClientProvider>
    </Router>,
  );
}

export type Call = { method: string; path: string; body: unknown };

/** Answers requests by "METHOD path"; a number answers a problem of that status. Returns the requests made. */
export function answers(routes: Record<string, unknown>): Call[] {
  const calls: Call[] = [];
  vi.stubGlobal("fetch", async (r: Request) => {
    const path = new URL(r.url, "http://test").pathname;
    const text = await r.text();
    calls.push({ method: r.method, path, body: text ? JSON.parse(text) : undefined });
    const answer = routes[`${r.method} ${path}`];
    const problem =
      typeof answer === "object" && answer !== null && "status" in answer ? (answer as { status: number }) : undefined;
    return new Response(JSON.stringify(answer ?? { status: 404, title: "Not Found" }), {
      status: problem?.status ?? (answer === undefined ? 404 : 200),
      headers: {
        "Content-Type": "application/json",
        "X-Program-Time": (answer as { now?: string } | undefined)?.now ?? "",
      },
    });
  });
  return calls;
}

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  localStorage.clear();
});

/** Kinds of products, limits and crafts as the program describes them, of the many that there are. */
export const DESCRIBED = {
  kinds: [
    "high-build-primer",
    "barrier",
    "topcoat-two-part",
    "varnish",
    "fairing-compound",
    "antifouling-soft",
    "thinner",
  ].map((kind) => ({
    kind,
    name: kind,
    coat: kind !== "thinner",
    filler: kind === "fairing-compound",
  })),
  crafts: ["non-skid", "moulded", "gelcoat", "brightwork", "antifouling", "metal", "refit"].map((key) => ({
    key,
    name: key,
    ofBoat: key === "refit",
  })),
  weather: {
    limits: [
      { limit: "surface-min", missed: "surface too cold", of: "surface" },
      { limit: "humidity", missed: "too humid", of: "humidity" },
      { limit: "dew-spread", missed: "too near the dew point", of: "above dew point" },
      { limit: "rain", missed: "rain", of: "rain" },
      { limit: "daylight", missed: "dark" },
      { limit: "no-weather", missed: "weather not known" },
    ],
  },
};

/** Kinds of work as the program describes them, of the many that there are. */
export const WORKS = (
  [
    ["coat", "a coat went on", { films: true, lays: true, ofSurface: true, usual: { coats: 1 } }],
    [
      "sand",
      "it was sanded",
      { abrades: true, removes: true, gritted: true, ofSurface: true, usual: { coats: 0, grit: 180, removedUm: 12 } },
    ],
    ["wash", "it was washed", { agent: true, ofSurface: true, usual: { coats: 0, agent: "detergent" } }],
    [
      "fair",
      "it was faired",
      { films: true, abrades: true, gritted: true, rounds: true, ofSurface: true, usual: { coats: 1 } },
    ],
    ["inspect", "it was inspected", { ofSurface: true, usual: { coats: 0 } }],
    ["idle", "an idle day", { planned: false, usual: { coats: 0 } }],
  ] as const
).map(([work, told, more]) => ({ work, name: work, told, planned: true, logged: true, ...more }));

/** The description of one of them. */
export const kindOf = (work: string) => (WORKS.find((k) => k.work === work) ?? {}) as Partial<Schemas["StepKind"]>;
