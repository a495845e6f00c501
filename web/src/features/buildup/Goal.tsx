import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Check, Choice, Errors, NumberField, Refusal } from "../../ui/Form";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";

/** Mean film of a product's coats on this surface as logged, from readings or litres. */
export function realFilm(layers: Schemas["BuildupLayer"][], name: string): { um: number; coats: number } | undefined {
  const own = layers.filter((l) => l.laid && !l.old && l.product === name && l.known !== "as planned");
  return own.length ? { um: own.reduce((n, l) => n + l.um, 0) / own.length, coats: own.length } : undefined;
}

/** How many coats reach a film, hide what is below, or stand so many years of sun. */
export function Goal({
  products,
  layers,
  close,
}: {
  products: Schemas["Product"][];
  layers: Schemas["BuildupLayer"][];
  close: () => void;
}) {
  const start = (productId: string | undefined) => {
    const sheet = products.find((p) => p.id === productId)?.sheet;
    const real = realFilm(layers, sheet?.name ?? "");
    return { productId, dftUm: real ? Math.round(real.um) : sheet?.film.typicalUm };
  };
  const [g, set] = useState<Partial<Schemas["GoalEdit"]>>({ ...start(products[0]?.id), hide: false });
  const ask = useChange([], () =>
    ok(
      api.POST("/api/coats-for", {
        body: {
          productId: g.productId ?? "",
          dftUm: g.dftUm ?? 0,
          filmUm: g.filmUm ?? 0,
          hide: g.hide ?? false,
          uvStopPct: g.uvStopPct ?? 0,
          years: g.years ?? 0,
        },
      }),
    ),
  );
  const real = realFilm(layers, products.find((p) => p.id === g.productId)?.sheet.name ?? "");
  return (
    <section className="mb-6 max-w-4xl border border-base-content p-4" data-testid="goal">
      <h2 className="mb-3 text-lg">{tr("How many coats?")}</h2>
      <Errors.Provider value={ask.error?.fields ?? {}}>
        <form
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            ask.mutate(undefined);
          }}
        >
          <div className="grid gap-4 sm:grid-cols-3">
            <div className="sm:col-span-2">
              <Choice
                name="productId"
                label={tr("Of")}
                value={g.productId ?? ""}
                onChange={(productId) => set({ ...g, ...start(productId) })}
                options={products.map((p) => ({ value: p.id, label: p.sheet.name }))}
              />
            </div>
            <NumberField
              name="dftUm"
              label={tr("A coat leaves")}
              hint={
                real
                  ? tr("mean of {coats} logged on this surface", { coats: real.coats })
                  : tr("the sheet’s typical; your roller’s real film if you know it")
              }
              unit="µm"
              value={g.dftUm}
              onChange={(dftUm) => set({ ...g, dftUm })}
            />
            <NumberField
              name="filmUm"
              label={tr("Film wanted")}
              unit="µm"
              value={g.filmUm}
              onChange={(filmUm) => set({ ...g, filmUm })}
            />
            <NumberField
              name="uvStopPct"
              label={tr("Sun to be stopped")}
              hint={tr("share of ultraviolet; 95 is usual")}
              unit="%"
              value={g.uvStopPct}
              onChange={(uvStopPct) => set({ ...g, uvStopPct })}
            />
            <NumberField
              name="years"
              label={tr("For years of sun")}
              unit="years"
              value={g.years}
              onChange={(years) => set({ ...g, years })}
            />
            <Check
              name="hide"
              label={tr("Hide dark patches")}
              value={g.hide ?? false}
              onChange={(hide) => set({ ...g, hide })}
            />
          </div>
          <div className="mt-3 flex flex-wrap items-center gap-3">
            <button type="submit" className="btn btn-primary min-h-11">
              {tr("Count")}
            </button>
            <button type="button" className="btn btn-ghost min-h-11" onClick={close}>
              {tr("Close")}
            </button>
            {ask.data && (
              <p className="text-lg" role="status">
                <Figure title={tr("Coats")} working={ask.data.working}>
                  {tr("{coats, plural, one {one coat} other {{coats} coats}}", { coats: ask.data.coats })}
                </Figure>
                {trNodes(", {filmUm} in all.", { filmUm: <Quantity value={ask.data.filmUm} unit="µm" /> })}
              </p>
            )}
          </div>
          <Refusal error={ask.error} />
        </form>
      </Errors.Provider>
    </section>
  );
}
