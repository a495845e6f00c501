import { useState } from "react";
import { useLocation } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { unsendable } from "../../ui/Form";
import { useChanged } from "../../ui/unsaved";
import { useUndoable } from "../../ui/useHistory";
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

/** A sheet that is edited, new or copied: what is typed, its doubts, which are asked about once, and how it is saved. */
export function useSheet(product?: Schemas["Product"]) {
  const [, go] = useLocation();
  const meta = useMeta().data;
  const draft = useUndoable<Draft>(product?.sheet ?? EMPTY);
  const { value: d, set } = draft;
  useChanged(d, product?.sheet ?? EMPTY);
  const [version, setVersion] = useState(product?.version ?? 0);
  const [local, setLocal] = useState<Record<string, string>>({});
  const [copying, setCopying] = useState(false);
  const [doubts, setDoubts] = useState(product?.doubts ?? []);
  const [accepted, setAccepted] = useState(JSON.stringify(product?.doubts ?? []));
  const [asking, setAsking] = useState(false);
  const fresh = !product || copying;
  const save = useChange(
    ["library"],
    async (v: number) => {
      const doubts = await ok(api.POST("/api/products/doubts", { body: d as SheetData }));
      setDoubts(doubts);
      const ask = doubts.length > 0 && JSON.stringify(doubts) !== accepted;
      setAccepted(JSON.stringify(doubts));
      setAsking(ask);
      if (ask) return null;
      return fresh
        ? ok(api.POST("/api/products", { body: d as SheetData }))
        : ok(
            api.PUT("/api/products/{id}", {
              params: { path: { id: product.id } },
              body: { version: v, value: d as SheetData },
            }),
          );
    },
    (p) => {
      if (!p) return;
      setVersion(p.version);
      setCopying(false);
      if (p.id !== product?.id) go(`/library/${p.id}`, { replace: true });
    },
  );
  const remove = useChange(
    ["library"],
    () => ok(api.DELETE("/api/products/{id}", { params: { path: { id: product?.id ?? "" } } })),
    () => go("/library"),
  );
  const coat = meta?.kinds.find((k) => k.kind === d.kind)?.coat !== false;
  const submit = (v = version) => {
    const bad = unsendable(
      d,
      coat ? ["volumeSolidsPct", "film.minUm", "film.typicalUm", "film.maxUm", "minCureC"] : [],
    );
    setLocal(bad);
    save.reset();
    if (Object.keys(bad).length === 0) {
      if (!coat)
        set({
          ...d,
          volumeSolidsPct: d.volumeSolidsPct ?? 0,
          minCureC: d.minCureC ?? 0,
          film: { minUm: 0, typicalUm: 0, maxUm: 0 },
        });
      save.mutate(v);
    }
  };
  const errors = { ...local, ...save.error?.fields };
  return { draft, d, set, fresh, coat, copying, setCopying, setVersion, doubts, asking, errors, save, remove, submit };
}
