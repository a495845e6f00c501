import { existsSync } from "node:fs";
import { expect, it } from "vitest";
import { HELP, type HelpPage } from "./pages";

/** The pictures of a stage, made from the demo. */
const PICTURES: Record<string, string[]> = {
  today: ["today"],
  survey: ["survey"],
  fairing: ["fairing"],
  "build-up": ["build-up"],
  finishes: ["non-skid", "brightwork", "antifouling"],
  stores: ["stores"],
  weather: ["weather", "tent"],
  plan: ["plan-season", "plan-risk"],
  bench: ["bench-phone"],
  log: ["log"],
  library: ["library"],
};

const stage = (p: HelpPage) => `## ${p.name}
**${p.answers}**

${(PICTURES[p.key] ?? []).map((name) => `![${p.name}](screenshots/${name}.png)`).join("\n")}

${p.steps.map((s, i) => `${i + 1}. ${s}`).join("\n")}

What goes wrong:
${p.mistakes.map((m) => `- ${m}`).join("\n")}
`;

it("is what the program says under Help, with the demo's pictures", async () => {
  for (const name of Object.values(PICTURES).flat())
    expect(existsSync(`../docs/screenshots/${name}.png`), name).toBe(true);
  expect(Object.keys(PICTURES)).toEqual(HELP.map((p) => p.key));
  const guide = `# The guide, by stage of the work

What the program says under *Help*, where the glossary is too. A boat goes through the stages in any order: each screen says what it
lacks and leads there. On an empty database *Start* answers five questions before there is a boat, and *A new boat* takes three steps.

${HELP.map(stage).join("\n")}`;
  await expect(guide).toMatchFileSnapshot("../../../../docs/guide.md");
});
