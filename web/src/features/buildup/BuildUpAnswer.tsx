import type { Schemas } from "../../api/client";
import { useCoats } from "../../api/queries";
import { Answer } from "../../ui/Page";
import { useSettings } from "../../ui/settings";
import { workdays } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import type { Draft } from "./plan";

/** What the steps come to, and what is to be mended first. */
export function BuildUpAnswer({ shown, steps }: { shown: Schemas["BuildUp"]; steps: Draft[] }) {
  const { coats } = useCoats();
  const { show, prose, money } = useSettings();
  const { surface, result: r } = shown;
  const film = show(r.netUm, "µm");
  const litres = show(r.litres, "L", 1);
  const area = show(surface.area.areaM2, "m²");
  const unpriced = coats
    .filter((p) => steps.some((t, i) => t.productId === p.id && r.lines[i]?.purchase?.priced === false))
    .map((p) => p.sheet.name);
  const waiting = shown.findings.filter((f) => f.severity !== "note" && !f.overruled);
  const stops = waiting.filter((f) => f.severity === "stop").length;
  const first =
    stops > 0
      ? tr(
          "{stops, plural, one {One thing would make it fail: mend it first. } other {{stops} things would make it fail: mend them first. }}",
          { stops },
        )
      : waiting.length > 0
        ? tr("{waiting, plural, one {One warning to settle. } other {{waiting} warnings to settle. }}", {
            waiting: waiting.length,
          })
        : "";
  return (
    <Answer
      over={
        <span>
          {surface.name}: {area.text} {area.unit} ±{Math.round(surface.area.uncertaintyPct)} %, {surface.substrateName}.{" "}
          {surface.better && prose(surface.better)}
        </span>
      }
      answer={
        steps.length === 0
          ? tr("Nothing is planned on this surface: choose what goes on.")
          : r.coats === 0
            ? tr("No coats are planned on this surface.")
            : tr(
                "{first}{coats, plural, one {1 coat makes} other {{coats} coats make}} {text} {unit} dry and {coats, plural, one {takes} other {take}} {text2} {unit2}{places}.",
                {
                  first,
                  coats: r.coats,
                  text: film.text,
                  unit: film.unit,
                  text2: litres.text,
                  unit2: litres.unit,
                  places: shown.places
                    .map((p) => `; ${p.where.name}: ${show(p.filmUm, "µm").text} ${film.unit}`)
                    .join(""),
                },
              )
      }
      detail={
        steps.length === 0 ? (
          tr(
            "Start from a scheme of the trade, apply a system of your own, or add steps one by one, from the substrate outward.",
          )
        ) : (
          <>
            {r.priced
              ? tr("About {costCents} for whole tins", { costCents: money(r.costCents, 0) })
              : tr("The cost is not known: the library has no price for {unpriced}", { unpriced: unpriced.join("; ") })}
            ;{" "}
            <Figure title={tr("The build-up")} working={r.working}>
              {tr("{leftH} of work to come", { leftH: workdays(shown.sum.leftH, shown.workDayH) })}
            </Figure>{" "}
            {trNodes("for one person{leftL}; the film between {netLowUm} and {netHighUm} in four cases of five.", {
              leftL: shown.sum.leftL > 0 && (
                <>{trNodes(", {leftL} to lay", { leftL: <Quantity value={shown.sum.leftL} unit="L" /> })}</>
              ),
              netLowUm: <Quantity value={r.netLowUm} unit="µm" />,
              netHighUm: <Quantity value={r.netHighUm} unit="µm" />,
            })}
          </>
        )
      }
    />
  );
}
