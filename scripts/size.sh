#!/usr/bin/env bash
# Fails if the JavaScript of the first sentence is over 20 kB, or that of the first screen over 110 kB, as it is sent over https and to this machine.
set -eu
node - web/dist <<'END'
const { readFileSync, statSync } = require("node:fs");
const dist = process.argv[2];
const parts = JSON.parse(readFileSync(`${dist}/parts.json`, "utf8"));
const of = (entries) => {
  const seen = new Set();
  const go = (k) => seen.has(k) || (seen.add(k), (parts[k].imports ?? []).forEach(go));
  entries.forEach(go);
  return [...seen].reduce((n, k) => n + statSync(`${dist}/${parts[k].file}.br`).size, 0);
};
for (const [what, limit, entries] of [
  ["sentence", 20_000, ["index.html"]],
  ["screen", 110_000, ["index.html", "src/main.tsx"]],
]) {
  const size = of(entries);
  if (size > limit) {
    console.error(`size: the JavaScript of the first ${what} is ${size} bytes compressed, over ${limit}`);
    process.exit(1);
  }
  console.log(`size: JavaScript of the first ${what} ${size} bytes compressed, of at most ${limit}`);
}
END
