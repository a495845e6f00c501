import { api, ok, type Schemas } from "../../api/client";
import { useChange, useProducts } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { Choice, NumberField, TextField } from "../../ui/Form";
import { type Edition, useEdition } from "../../ui/useEdition";
import { tr } from "../../words/words";

type Edit = Omit<Schemas["StockEdit"], "litres"> & { litres?: number };

type Item = Schemas["StockItem"];

export const editOf = (item?: Item): Edit => ({
  productId: item?.productId ?? "",
  part: item?.part ?? "",
  litres: item && Number(item.leftL.toFixed(3)),
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
  const { edit, set, at } = form;
  const save = useChange(
    ["stock"],
    (edition: Edition<Edit>) => {
      const sent = edition as Edition<Schemas["StockEdit"]>;
      return item
        ? ok(api.PUT("/api/stock/{id}", { params: { path: { id: item.id } }, body: sent }))
        : ok(api.POST("/api/stock", { body: sent.value }));
    },
    done,
  );
  const sheet = products.find((p) => p.id === edit.productId)?.sheet;
  return (
    <EditForm
      form={form}
      save={save}
      needed={["litres"]}
      says={edit.arrivesOn ? tr("Keep the order") : item ? tr("Count it anew") : tr("Put it there")}
      cancel={done}
      className="mt-3 max-w-5xl border border-base-content p-4"
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
            {...at("part")}
            label={tr("Which part")}
            options={[
              { value: "", label: tr("both, in ratio") },
              { value: "base", label: tr("base only") },
              { value: "hardener", label: tr("hardener only") },
            ]}
          />
        )}
        <NumberField {...at("litres")} label={edit.arrivesOn ? tr("Litres ordered") : tr("Litres there")} unit="L" />
        <TextField {...at("batch")} label={tr("Batch")} />
        <TextField {...at("shelf")} label={tr("Where")} />
        <TextField {...at("supplier")} label={tr("From")} />
        <TextField {...at("note")} label={tr("Note")} />
        <TextField {...at("boughtOn")} label={tr("Bought")} type="date" />
        <TextField {...at("openedOn")} label={tr("Opened")} type="date" />
        <TextField {...at("expiresOn")} label={tr("Good until")} type="date" />
        <TextField {...at("arrivesOn")} label={tr("Ordered, comes on")} type="date" />
      </div>
    </EditForm>
  );
}
