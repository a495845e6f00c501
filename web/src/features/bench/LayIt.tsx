import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useSettings } from "../../ui/settings";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";

const GLYPH = { ok: "✓", no: "✗", ask: "○" } as const;
const WORD = { ok: tr("right"), no: tr("not right"), ask: tr("look") } as const;

/** What to look at before the tin is opened, and how the coat is laid. */
export function LayIt({ bench: b, part }: { bench: Schemas["Bench"]; part: "before" | "lay" }) {
  const { prose } = useSettings();
  const [seen, setSeen] = useState<string[]>([]);
  if (part === "before")
    return (
      <section className="mb-6">
        <h2 className="text-lg">{tr("Before you open the tin")}</h2>
        <ul data-testid="checks">
          {b.checks.map((c) => {
            const done = c.state === "ask" && seen.includes(c.key);
            const state = done ? "ok" : (c.state as keyof typeof GLYPH);
            const line = (
              <>
                <b className="w-5 shrink-0" title={WORD[state]}>
                  {GLYPH[state]}
                </b>
                <span className={c.state === "no" ? "font-semibold" : ""}>{prose(c.text)}</span>
              </>
            );
            return (
              <li
                key={c.key}
                data-check={c.state}
                className={`rule-b ${c.state === "no" ? "border-l-4 border-l-error pl-2" : ""}`}
              >
                {c.state === "ask" ? (
                  <button
                    type="button"
                    className="flex min-h-11 w-full items-center gap-2 py-1 text-left"
                    aria-label={prose(c.text)}
                    aria-pressed={done}
                    onClick={() => setSeen(done ? seen.filter((k) => k !== c.key) : [...seen, c.key])}
                  >
                    {line}
                  </button>
                ) : (
                  <p className="flex items-center gap-2 py-2">{line}</p>
                )}
              </li>
            );
          })}
        </ul>
        <ul className="mt-2 text-sm">
          {b.gear.map((g) => (
            <li key={JSON.stringify(g)} className="border-l-4 border-accent py-1 pl-3">
              {prose(g)}
            </li>
          ))}
        </ul>
        <p className="quiet mt-1 text-xs">
          {tr("The data sheet of the tin in hand, local rules and licensed practice come before anything here.")}
        </p>
      </section>
    );
  return (
    <section className="mt-6">
      <h2 className="text-lg">{tr("Laying it")}</h2>
      <p className="rule-b py-2">
        {trNodes("{b}: on the comb {wetUm} is wetted{dryUm}; {dftUm} are left", {
          b: <b>{trNodes("{wftUm} wet", { wftUm: <Quantity value={b.wftUm} unit="µm" /> })}</b>,
          wetUm: <Quantity value={b.comb.wetUm} unit="µm" />,
          dryUm: b.comb.dryUm > 0 && (
            <>{trNodes(", {dryUm} stays dry", { dryUm: <Quantity value={b.comb.dryUm} unit="µm" /> })}</>
          ),
          dftUm: <Quantity value={b.dftUm} unit="µm" />,
        })}
      </p>
      {b.stripes && <p className="rule-b py-2">{prose(b.stripes.each)}</p>}
      {b.order.length > 1 && (
        <ol className="mt-1">
          {b.order.map((p, i) => (
            <li key={p.id} className="rule-b flex gap-3 py-1.5">
              <b>{i + 1}.</b>
              <span>
                {p.name} <span className="quiet">({prose(p.why)})</span>
              </span>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
