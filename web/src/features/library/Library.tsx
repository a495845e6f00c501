import { Link } from "wouter";
import { useCoats, useMeta, useProducts } from "../../api/queries";
import { Answer, Loaded } from "../../ui/Page";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Exchange } from "./Exchange";

export function Library() {
  const products = useProducts();
  const { coats } = useCoats();
  const kinds = useMeta().data?.kinds ?? [];
  return (
    <Loaded query={products}>
      {(all) => {
        const examples = all.filter((p) => p.sheet.example).length;
        return (
          <>
            <Answer
              answer={
                all.length === 0
                  ? tr("The library is empty: add the product in your hand.")
                  : examples === 0
                    ? tr(
                        "{all, plural, one {The sheet is} other {All {all} sheets are}} yours: keep them at the edition of the tin in hand.",
                        {
                          all: all.length,
                        },
                      )
                    : tr(
                        "Replace the examples that you use: {examples} of {all, plural, one {one sheet has} other {{all} sheets have}} invented figures.",
                        {
                          examples,
                          all: all.length,
                        },
                      )
              }
              detail={tr(
                "Every film, litre and hour comes from these sheets. Example figures are invented: plausible for the kind, true of no tin.",
              )}
            />
            <div className="flex flex-wrap items-center gap-2">
              <Link to="/library/new" className="btn btn-primary min-h-11">
                {tr("Add a product")}
              </Link>
              <Exchange />
            </div>
            {kinds.map((k) => {
              const of = all.filter((p) => p.sheet.kind === k.kind);
              return (
                of.length > 0 && (
                  <section key={k.kind} className="mt-5">
                    <h2 className="text-lg first-letter:uppercase">{k.name}</h2>
                    <ul>
                      {of.map((p) => (
                        <li
                          key={p.id}
                          className="rule-b grid items-baseline gap-x-4 py-2 sm:grid-cols-[minmax(0,2fr)_minmax(0,1fr)_7rem_8rem_5rem]"
                        >
                          <Link className="linked font-semibold max-sm:min-h-11" to={`/library/${p.id}`}>
                            {p.sheet.name}
                          </Link>
                          <span className="quiet text-sm">{p.sheet.chemistry}</span>
                          {coats.includes(p) && (
                            <>
                              <span className="text-sm">
                                {tr("{volumeSolidsPct} % solids", { volumeSolidsPct: p.sheet.volumeSolidsPct })}
                              </span>
                              <span className="text-sm">
                                {trNodes("{typicalUm} a coat", {
                                  typicalUm: <Quantity value={p.sheet.film.typicalUm} unit="µm" />,
                                })}
                              </span>
                            </>
                          )}
                          {p.sheet.example && (
                            <span className="w-fit border border-warning px-1.5 text-xs">{tr("example")}</span>
                          )}
                        </li>
                      ))}
                    </ul>
                  </section>
                )
              );
            })}
          </>
        );
      }}
    </Loaded>
  );
}
