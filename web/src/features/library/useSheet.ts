import { useState } from "react";
import { useLocation } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { type Edition, useEdition } from "../../ui/useEdition";
import type { Draft, SheetData } from "./draft";

const EMPTY: Draft = {
  name: "",
  kind: "high-build-primer",
  chemistry: "",
  colour: "",
  example: false,
  source: "",
  film: {} as SheetData["film"],
  ratioByVolume: { base: 0, hardener: 0 },
  ratioByWeight: { base: 0, hardener: 0 },
  baseKgL: 0,
  hardenerKgL: 0,
  inductionMin: 0,
  thinnerMaxPct: 0,
  methods: [],
  limits: { holdH: 0, rainFreeH: 0 },
  tins: [],
  cautions: [],
  notes: "",
};

const NEEDED = ["volumeSolidsPct", "film.minUm", "film.typicalUm", "film.maxUm", "minCureC"];

type Product = Schemas["Product"];
export type SheetForm = ReturnType<typeof useEdition<Product, Draft>>;

/** A sheet that is edited, new or copied: what is typed, its doubts, which are asked about once, and how it is saved. */
export function useSheet(product?: Product) {
  const [, go] = useLocation();
  const meta = useMeta().data;
  const form: SheetForm = useEdition(product, (p = product): Draft => p?.sheet ?? EMPTY);
  const [copying, setCopying] = useState(false);
  const [doubts, setDoubts] = useState(product?.doubts ?? []);
  const [accepted, setAccepted] = useState(JSON.stringify(product?.doubts ?? []));
  const [asking, setAsking] = useState(false);
  const fresh = !product || copying;
  const coat = meta?.kinds.find((k) => k.kind === form.edit.kind)?.coat !== false;
  const save = useChange(
    ["library"],
    async ({ version, value }: Edition<Draft>) => {
      const { volumeSolidsPct = 0, minCureC = 0 } = value;
      const film = coat ? value.film : { minUm: 0, typicalUm: 0, maxUm: 0 };
      const sheet = { ...value, volumeSolidsPct, minCureC, film } as SheetData;
      const doubts = await ok(api.POST("/api/products/doubts", { body: sheet }));
      setDoubts(doubts);
      const ask = doubts.length > 0 && JSON.stringify(doubts) !== accepted;
      setAccepted(JSON.stringify(doubts));
      setAsking(ask);
      if (ask) return null;
      return fresh
        ? ok(api.POST("/api/products", { body: sheet }))
        : ok(api.PUT("/api/products/{id}", { params: { path: { id: product.id } }, body: { version, value: sheet } }));
    },
    (p) => {
      if (!p) return;
      form.take(p);
      setCopying(false);
      if (p.id !== product?.id) go(`/library/${p.id}`, { replace: true });
    },
  );
  const remove = useChange(
    ["library"],
    () => ok(api.DELETE("/api/products/{id}", { params: { path: { id: product?.id ?? "" } } })),
    () => go("/library"),
  );
  return { form, fresh, coat, needed: coat ? NEEDED : [], copying, setCopying, doubts, asking, save, remove };
}
