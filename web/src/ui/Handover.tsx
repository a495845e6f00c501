import type { Schemas, Words } from "../api/client";
import { tr, trNodes } from "../words/words";
import { Said } from "./Sentence";
import { useSettings } from "./settings";
import { span } from "./time";

/** What a bench would change in the build-up of a surface, and what stops it. */
export function HandoverList({ handover: h }: { handover: Schemas["Handover"] }) {
  const { prose } = useSettings();
  if (h.stop && h.stop.length > 0)
    return (
      <p className="mt-2 border-l-4 border-error pl-3">
        {tr("Not into the build-up: {stop}", { stop: prose(h.stop) })}
      </p>
    );
  if (h.changes.length === 0)
    return (
      <>
        <Minding texts={h.mind} />
        <p className="quiet mt-2 text-sm">
          {trNodes("The build-up of {surface} has all of it{leftH}.", {
            surface: h.surface,
            leftH: h.sum.leftH > 0 && tr(": {leftH} to come", { leftH: span(h.sum.leftH) }),
          })}
        </p>
      </>
    );
  return (
    <>
      <Minding texts={h.mind} />
      <Warned findings={h.findings} />
      <details className="mt-2 text-sm" data-testid="handover">
        <summary className="min-h-11 cursor-pointer content-center sm:min-h-0">
          {tr(
            "{changes, plural, one {One step} other {{changes} steps}} of {surface} would change, {leftH} to come from this bench",
            {
              changes: h.changes.length,
              surface: h.surface,
              leftH: span(h.sum.leftH),
            },
          )}
        </summary>
        <ul className="mt-1">
          {h.changes.map((c, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: two steps may change alike
            <li key={i} className="rule-b py-1">
              {c.was.length > 0 && <span className="quiet line-through">{prose(c.was)}</span>}{" "}
              {c.was.length > 0 && c.will.length > 0 && "→ "}
              {c.will.length > 0 && <b>{prose(c.will)}</b>}
            </li>
          ))}
        </ul>
      </details>
    </>
  );
}

/** What to wear and mind, short; the sheet and local rules come first. */
export function Minding({ texts }: { texts: Words[] }) {
  if (texts.length === 0) return null;
  return (
    <details className="mt-2 text-sm" data-testid="minding">
      <summary className="min-h-11 cursor-pointer content-center sm:min-h-0">
        <b>{tr("Mind:")}</b> <Said words={texts[0] ?? ""} />
        {texts.length > 1 && <span className="quiet"> {tr("and {texts} more", { texts: texts.length - 1 })}</span>}
      </summary>
      <ul className="list-disc pl-5">
        {texts.map((t) => (
          <li key={JSON.stringify(t)}>
            <Said words={t} />
          </li>
        ))}
      </ul>
      <p className="quiet">{tr("The data sheet, local rules and licensed practice come first.")}</p>
    </details>
  );
}

/** What the rules warn of in the build-up as it would be. */
function Warned({ findings }: { findings: Schemas["Finding"][] }) {
  const { prose } = useSettings();
  return findings.map((f) => (
    <p
      key={`${f.rule}${f.step}${JSON.stringify(f.text)}`}
      className={`mt-2 border-l-4 pl-3 text-sm ${f.severity === "stop" ? "border-error" : "border-warning"}`}
    >
      <b>{f.severity === "stop" ? tr("In the build-up this fails: ") : tr("In the build-up: ")}</b>
      {prose(f.says)} <span className="quiet">{f.fix}</span>
    </p>
  ));
}
