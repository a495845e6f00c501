import { QueryClient } from "@tanstack/react-query";
import { expect, it } from "vitest";
import { changed, type Fact, key, type Topic } from "./keys";

const asked: Topic[] = [
  "today",
  "survey",
  "log",
  "build-up",
  "stores",
  "plan",
  "products",
  "instruments",
  "fairing",
  "finish",
  "boats",
];

it.each<[Fact[], Topic[]]>([
  [["log"], ["today", "log", "build-up", "stores", "plan", "fairing", "finish"]],
  [["stock"], ["today", "build-up", "stores", "plan"]],
  [["plan"], ["today", "log", "build-up", "stores", "plan", "fairing", "finish"]],
  [["readings"], ["today", "stores", "plan", "instruments", "fairing", "finish"]],
  [["boat"], ["today", "survey", "log", "build-up", "stores", "plan", "instruments", "fairing", "finish", "boats"]],
  [[], []],
])("asks again after a change of %j for what is made from it, and for nothing else", async (facts, topics) => {
  const queries = new QueryClient();
  for (const t of asked) queries.setQueryData(key(t, "b"), {});
  await changed(queries, facts);
  expect(asked.filter((t) => queries.getQueryState(key(t, "b"))?.isInvalidated)).toEqual(topics);
});
