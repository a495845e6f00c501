import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ok, type Refused, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { useChange, useCoats, useKinds, useMeta } from "../../api/queries";
import { unsendable } from "../../ui/Form";
import { useUnsaved } from "../../ui/unsaved";
import { useHistory, useUndoKeys } from "../../ui/useHistory";
import { type Draft, needed } from "./plan";

/** The steps of a surface while they are changed: what they come to, undo and redo, and how they are saved. */
export function useSteps(stored: Schemas["BuildUp"]) {
  const { products } = useCoats();
  const methods = useMeta().data?.methods ?? [];
  const { kindOf } = useKinds();
  const { surface } = stored;
  const [draft, setDraft] = useState<Draft[] | null>(null);
  useUnsaved(draft !== null);
  const [version, setVersion] = useState(stored.surface.version);
  const steps = draft ?? stored.steps;
  const bad = unsendable({ steps }, needed(steps, kindOf));
  const local = Object.fromEntries(Object.entries(bad).map(([k, m]) => [k.replace(/^steps\.(\d+)/, "steps[$1]"), m]));
  const sendable = Object.keys(bad).length === 0;
  const preview = useQuery<Schemas["BuildUp"], Refused>({
    queryKey: key("preview", surface.id, steps),
    queryFn: () =>
      ok(
        api.POST("/api/surfaces/{id}/build-up/preview", {
          params: { path: { id: surface.id } },
          body: { steps: steps as Schemas["Step"][] },
        }),
      ),
    enabled: draft !== null && sendable,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const save = useChange(
    ["steps"],
    (v: number) =>
      ok(
        api.PUT("/api/surfaces/{id}/build-up", {
          params: { path: { id: surface.id } },
          body: { version: v, steps: steps as Schemas["Step"][] },
        }),
      ),
    (b) => {
      setDraft(null);
      setVersion(b.surface.version);
    },
  );
  const history = useHistory<Draft[]>();
  const edit = (next: Draft[]) => {
    history.record(steps);
    setDraft(next);
  };
  const back = {
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    undo: () => setDraft(history.back(steps) ?? draft),
    redo: () => setDraft(history.forth(steps) ?? draft),
  };
  useUndoKeys(back.undo, back.redo);
  const shown = draft === null ? stored : (preview.data ?? stored);
  const errors = { ...(preview.error?.fields ?? {}), ...(save.error?.fields ?? {}), ...local };
  const change = (i: number, d: Partial<Draft>) => edit(steps.map((s, k) => (k === i ? { ...s, ...d } : s)));
  const swap = (i: number, j: number) => {
    const next = [...steps];
    [next[i], next[j]] = [next[j] as Draft, next[i] as Draft];
    edit(next);
  };
  const choose = (id: string): Partial<Draft> => {
    const sheet = products.find((p) => p.id === id)?.sheet;
    const method = methods.find((m) => m.key === sheet?.methods[0]) ?? methods[0];
    return {
      productId: id,
      dftUm: sheet?.film.typicalUm,
      grade: "",
      method: method?.key ?? "brush",
      lossPct: sheet?.lossPct?.[method?.key ?? ""] ?? method?.lossPct ?? 10,
    };
  };
  const reset = (version: number) => {
    setDraft(null);
    setVersion(version);
    save.reset();
  };
  return {
    draft,
    steps,
    sendable,
    preview,
    save: () => save.mutate(version),
    saving: save,
    saveOver: save.mutate,
    edit,
    back,
    shown,
    errors,
    change,
    swap,
    choose,
    reset,
  };
}
