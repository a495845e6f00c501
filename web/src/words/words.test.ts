import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { IntlMessageFormat } from "intl-messageformat";
import ts from "typescript";
import { describe, expect, it, vi } from "vitest";
import core from "./core.json";
import fr from "./fr.json";

// What the second language covers so far: the screens at the boat with all that stands around them, and the parts of the
// core that speak there.
const SCREENS = [
  "features/today/",
  "features/bench/",
  "features/log/",
  "features/weather/Chances",
  "features/weather/words",
  "ui/",
  "api/",
];
const ROOMS = [
  ...[
    "core/conditions/readiness",
    "core/conditions/clock",
    "core/conditions/field",
    "core/film/step",
    "core/film/mix",
    "core/job/application",
  ],
  ...[
    "core/job/task",
    "core/job/logbook",
    "core/job/upkeep",
    "core/job/buildup/section",
    "core/planning/plan",
    "core/base/working",
  ],
  ...["app/bench", "app/log", "app/jobs", "app/today", "app/records"],
];
const roomOf = (file: string) => ROOMS.some((r) => file.startsWith(`${r}/`) || file === `${r}.go`);
type Call = { at: string; message?: string; values?: string[] };

/** The calls of tr and trNodes, and the words of the screens that go through neither. */
function read(path: string) {
  const file = ts.createSourceFile(
    path,
    readFileSync(join("src", path), "utf8"),
    ts.ScriptTarget.Latest,
    true,
    path.endsWith("x") ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const calls: Call[] = [];
  const bare: string[] = [];
  const visit = (n: ts.Node) => {
    if (ts.isCallExpression(n) && ["tr", "trNodes"].includes(n.expression.getText())) {
      const [message, values] = n.arguments;
      calls.push({
        at: `${path}: ${n.getText().slice(0, 60)}`,
        message: message && ts.isStringLiteralLike(message) ? message.text : undefined,
        values:
          values && ts.isObjectLiteralExpression(values)
            ? values.properties.map((p) => p.name?.getText() ?? "")
            : undefined,
      });
    }
    if (ts.isJsxText(n) && /\p{L}{3}/u.test(n.text)) bare.push(`${path}: ${n.text.trim()}`);
    if (
      ts.isJsxAttribute(n) &&
      ["label", "title", "hint", "placeholder", "aria-label", "answer", "add"].includes(n.name.getText()) &&
      n.initializer &&
      ts.isStringLiteral(n.initializer) &&
      /\p{L}{3}/u.test(n.initializer.text)
    )
      bare.push(`${path}: ${n.getText()}`);
    ts.forEachChild(n, visit);
  };
  visit(file);
  return { calls, bare };
}

const files = (readdirSync("src", { recursive: true }) as string[])
  .map((f) => f.replaceAll("\\", "/"))
  .filter((f) => /\.tsx?$/.test(f) && !/\.test\.|testing|gen\.ts|^words\/|ui\/Sentence|ui\/prose/.test(f))
  .map((path) => ({ path, ...read(path) }));

type Node = ReturnType<IntlMessageFormat["getAst"]>[number];

/** The names that a message is filled with. */
function names(message: string): string[] {
  const found = new Set<string>();
  const walk = (all: Node[]) => {
    for (const n of all) {
      if ("value" in n && n.type !== 0) found.add(String(n.value));
      if ("options" in n) for (const o of Object.values(n.options)) walk(o.value);
    }
  };
  walk(new IntlMessageFormat(message, "en", undefined, { ignoreTag: true }).getAst());
  return [...found].sort();
}

describe("the catalogue", () => {
  const catalogue: Record<string, string> = fr;

  it("has all words of the screens", () => {
    expect(files.length).toBeGreaterThan(130);
    expect(files.flatMap((f) => f.bare)).toEqual([]);
  });

  it("has messages that can be read before the program runs, and are filled by what they name", () => {
    for (const c of files.flatMap((f) => f.calls)) {
      expect(c.message, c.at).toBeDefined();
      if (c.values) expect([...new Set(c.values)].sort(), c.at).toEqual(names(c.message ?? ""));
    }
  });

  it("is whole in the second language for the screens at the boat", () => {
    const screens = files
      .filter((f) => SCREENS.some((s) => f.path.startsWith(s)))
      .flatMap((f) => f.calls.map((c) => c.message ?? ""));
    const rooms = Object.entries(core).flatMap(([file, said]) => (roomOf(file) ? said : []));
    expect(rooms.length).toBeGreaterThan(500);
    expect([...new Set([...screens, ...rooms, ...NAMED])].filter((m) => !(m in catalogue))).toEqual([]);
  });

  it("has nothing that nobody says, and every translation is filled like its English", () => {
    const said = new Set([
      ...files.flatMap((f) => f.calls.map((c) => c.message)),
      ...Object.values(core).flat(),
      ...NAMED,
    ]);
    expect(Object.keys(catalogue).filter((m) => !said.has(m))).toEqual([]);
    for (const [message, own] of Object.entries(catalogue)) {
      expect(names(own), message).toEqual(names(message));
      expect(own.at(-1) === " ", message).toBe(message.at(-1) === " ");
    }
  });
});

/** Names that come from the program as data. */
const NAMED = [
  "metric",
  "imperial",
  "base",
  "product",
  "litres used",
  "2 days",
  "4 days",
  "all",
  "two weeks",
  "a month",
  "comb readings",
  "as planned",
  "as the sheet's typical film",
];

describe("another language", () => {
  it("says messages of the core with its own forms of a number, and what it lacks in English", async () => {
    vi.stubGlobal("localStorage", { getItem: () => "fr" });
    vi.resetModules();
    const { tr, word, filled } = await import("./words");
    const said = (n: number) => tr("{batches, plural, one {One pot} other {{batches} pots}}", { batches: n });
    expect([said(0), said(1), said(2)]).toEqual(["Un pot", "Un pot", "2 pots"]); // none is one in French
    const { written } = await import("../ui/prose");
    const shown = {
      show: (v: number) => ({ text: `${v}`, unit: "L" }),
      units: "metric",
      toShown: (v: number) => v,
      toMetric: (v: number) => v,
      shownUnit: (u: string) => u,
    } as const;
    const spans = [
      {
        say: "{0}: {1} first, then {2}.",
        with: [[{ text: "Deck", strong: true }], [{ say: "wash" }], [{ say: "varnish" }]],
      },
    ];
    expect(written(spans, shown, "UTC")).toBe("Deck : d’abord laver, puis vernis.");
    expect(
      written([{ say: "Sand first: its window closed {0}.", lower: true, with: [[{ text: "x" }]] }], shown, "UTC"),
    ).toMatch(/^poncez/);
    expect(tr("never {n} said", { n: 2 })).toBe("never 2 said");
    expect(word("no such name")).toBe("no such name");
    expect(filled([[{ text: "3" }], [{ text: "3 a" }]], () => "x")).toEqual({ 0: 3, 1: "x" });
    vi.unstubAllGlobals();
  });
});
