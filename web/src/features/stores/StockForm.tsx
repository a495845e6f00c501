import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useProducts } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Choice, Errors, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { type Edition, useEdition } from "../../ui/useEdition";
import { tr } from "../../words/words";

type Edit = Schemas["StockEdit"];

type Item = Schemas["StockItem"];

export const editOf = (item?: Item): Edit => ({
  productId: item?.productId ?? "",
  part: item?.part ?? "",
  litres: item ? Number(item.leftL.toFixed(3)) : Number.NaN,
  batch: item?.batch ?? "",
  supplier: item?.supplier ?? "",
  shelf: item?.shelf ?? "",
  note: item?.note ?? "",
  boughtOn: item?.boughtOn ?? "",
  openedOn: item?.openedOn ?? "",
  expiresOn: item?.expiresOn ?? "",
  arrivesOn: item?.arrivesOn ?? "",
});

/** Something new on the shelf, or what is there counted anew. */
export function StockForm({ item, done }: { item?: Item; done: () => void }) {
  const products = useProducts().data ?? [];
  const form = useEdition(item, editOf);
  const { edit, set } = form;
  const [local, setLocal] = useState<Record<string, string>>({});
  const save = useChange(
    ["stock"],
    (sent: Edition<Edit>) =>
      item
        ? ok(api.PUT("/api/stock/{id}", { params: { path: { id: item.id } }, body: sent }))
        : ok(api.POST("/api/stock", { body: sent.value })),
    done,
  );
  const sheet = products.find((p) => p.id === edit.productId)?.sheet;
  const text = (k: "batch" | "supplier" | "shelf" | "note", label: string) => (
    <TextField name={k} label={label} value={edit[k]} onChange={(v) => set({ [k]: v })} />
  );
  const day = (k: "boughtOn" | "openedOn" | "expiresOn" | "arrivesOn", label: string) => (
    <TextField name={k} label={label} type="date" value={edit[k] ?? ""} onChange={(v) => set({ [k]: v })} />
  );
  return (
    <Errors.Provider value={{ ...save.error?.fields, ...local }}>
      <form
        className="mt-3 max-w-5xl border border-base-content p-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          const bad = unsendable(edit);
          setLocal(bad);
          if (Object.keys(bad).length === 0) save.mutate(form.sent);
        }}
      >
        <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
          <div className="sm:col-span-2">
            <Choice
              name="productId"
              label={tr("Product")}
              value={edit.productId}
              onChange={(productId) => set({ productId, part: "" })}
              options={[
                { value: "", label: tr("choose one…") },
                ...products.map((p) => ({ value: p.id, label: p.sheet.name })),
              ]}
            />
          </div>
          {sheet && sheet.ratioByVolume.hardener > 0 && (
            <Choice
              name="part"
              label={tr("Which part")}
              value={edit.part}
              onChange={(part) => set({ part })}
              options={[
                { value: "", label: tr("both, in ratio") },
                { value: "base", label: tr("base only") },
                { value: "hardener", label: tr("hardener only") },
              ]}
            />
          )}
          <NumberField
            name="litres"
            label={edit.arrivesOn ? tr("Litres ordered") : tr("Litres there")}
            unit="L"
            value={edit.litres}
            onChange={(v) => set({ litres: v ?? Number.NaN })}
          />
          {text("batch", tr("Batch"))}
          {text("shelf", tr("Where"))}
          {text("supplier", tr("From"))}
          {text("note", tr("Note"))}
          {day("boughtOn", tr("Bought"))}
          {day("openedOn", tr("Opened"))}
          {day("expiresOn", tr("Good until"))}
          {day("arrivesOn", tr("Ordered, comes on"))}
        </div>
        <Refusal error={save.error} />
        <Conflict
          error={save.error}
          mine={edit}
          stored={editOf}
          onMine={(c: Item) => save.mutate(form.over(c))}
          onTheirs={(c) => {
            form.take(c);
            save.reset();
          }}
        />
        <div className="mt-3 flex gap-2">
          <button type="submit" className="btn btn-primary min-h-11" disabled={save.isPending}>
            {edit.arrivesOn ? tr("Keep the order") : item ? tr("Count it anew") : tr("Put it there")}
          </button>
          <button type="button" className="btn btn-ghost min-h-11" onClick={done}>
            {tr("Cancel")}
          </button>
        </div>
      </form>
    </Errors.Provider>
  );
}
