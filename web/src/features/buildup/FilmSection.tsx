import type { Schemas } from "../../api/client";
import { CutSection } from "../../ui/CutSection";
import { useSettings } from "../../ui/settings";
import { Term } from "../../ui/Term";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Consumables } from "./Consumables";

/** The film as a cut section, at each of its places, and what beside the coats is used up. */
export function FilmSection({ shown }: { shown: Schemas["BuildUp"] }) {
  const { prose } = useSettings();
  const { surface } = shown;
  return (
    <section>
      <h2 className="text-lg">
        <Term>{tr("The film, cut through")}</Term>
      </h2>
      <p className="quiet mb-2 text-sm">
        {tr("Thickness to scale. Full tone is laid, hatched is planned; what was logged as sanded off is gone.")}
      </p>
      <CutSection layers={shown.layers} substrate={surface.substrateName} />
      {shown.places.map((p) => (
        <details key={p.where.name} className="mt-4" data-testid="place-film">
          <summary className="min-h-11 cursor-pointer content-center font-semibold">
            {trNodes("{name}, {areaM2}: {filmUm} in all", {
              name: p.where.name,
              areaM2: <Quantity value={p.areaM2} unit="m²" />,
              filmUm: <Quantity value={p.filmUm} unit="µm" />,
            })}
          </summary>
          <CutSection layers={p.layers} substrate={surface.substrateName} />
        </details>
      ))}
      {shown.marginText && <p className="mt-2 border-l-4 border-warning pl-3">{prose(shown.marginText)}</p>}
      <Consumables all={shown.consumables} />
    </section>
  );
}
