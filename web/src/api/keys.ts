import type { QueryClient } from "@tanstack/react-query";

/** What is stored, as far as a change of it is felt apart. */
export type Fact =
  | "clock"
  | "library"
  | "boat"
  | "place"
  | "surfaces"
  | "steps"
  | "log"
  | "stock"
  | "weather"
  | "readings"
  | "tent"
  | "fairing"
  | "finish"
  | "systems"
  | "pots"
  | "plan"
  | "phones"
  | "people";

const COATS = ["library", "boat", "surfaces", "steps", "log", "plan"] as const;
const CLOCKS = [...COATS, "clock", "place", "weather", "readings", "tent"] as const;

/** What each thing asked for is made from: a new question says so here. */
const MADE_FROM = {
  meta: ["clock"],
  boats: ["boat", "place"],
  places: ["place"],
  products: ["library"],
  systems: ["systems", "library"],
  schemes: ["library"],
  today: [...CLOCKS, "stock", "finish"],
  morning: [...CLOCKS, "stock", "finish"],
  verdict: CLOCKS,
  bench: [...CLOCKS, "stock", "pots", "finish"],
  job: [...COATS, "clock", "place"],
  tent: CLOCKS,
  suspects: CLOCKS,
  fairing: [...CLOCKS, "fairing"],
  finish: [...CLOCKS, "finish"],
  plan: [...CLOCKS, "stock"],
  ways: CLOCKS,
  correction: CLOCKS,
  sanding: [...CLOCKS, "fairing"],
  upkeep: [...COATS, "clock", "place", "stock"],
  report: [...CLOCKS, "stock", "finish", "fairing"],
  survey: ["boat", "place", "surfaces"],
  measure: ["boat", "surfaces"],
  log: COATS,
  history: ["log", "library"],
  accounts: [...CLOCKS, "stock", "finish"],
  lessons: COATS,
  feed: ["place", "plan"],
  quotes: [...CLOCKS, "stock", "finish"],
  "build-up": [...COATS, "stock", "clock"],
  preview: [...COATS, "stock", "clock"],
  way: [...COATS, "stock", "clock"],
  overview: [...COATS, "stock", "clock", "systems"],
  starts: [...COATS, "systems"],
  stores: [...CLOCKS, "stock"],
  backups: ["clock"],
  who: ["people"],
  users: ["people"],
  audit: ["people"],
  instruments: ["readings", "boat", "clock"],
  trace: ["readings"],
  values: ["readings"],
  phones: ["phones"],
  "finish-words": [],
  panel: [],
  reckoned: [],
  answer: ["library", "clock"],
  draft: [],
  search: [...COATS, "boat"],
  glossary: [],
  day: [],
} as const satisfies Record<string, readonly Fact[]>;

export type Topic = keyof typeof MADE_FROM;

/** The key that an answer is kept by: what was asked, and of what. */
export const key = (topic: Topic, ...of: unknown[]) => [topic, ...of];

/** What takes the plan of the yard to answer: asked again, and not waited for. */
const SLOW: readonly Topic[] = ["today", "morning", "bench", "plan", "ways"];

/** Asks again for what is made from any of these facts; ends when the screen has it, but for what is slow. */
export async function changed(queries: QueryClient, facts: readonly Fact[]) {
  if (facts.length === 0) return;
  const felt = (topic: unknown) => (MADE_FROM[topic as Topic] as readonly Fact[]).some((f) => facts.includes(f));
  const slow = (topic: unknown) => SLOW.includes(topic as Topic);
  void queries.invalidateQueries({ predicate: (q) => felt(q.queryKey[0]) && slow(q.queryKey[0]) });
  await queries.invalidateQueries({ predicate: (q) => felt(q.queryKey[0]) && !slow(q.queryKey[0]) });
}
