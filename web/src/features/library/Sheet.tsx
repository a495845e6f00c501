import { useParams } from "wouter";
import type { Schemas } from "../../api/client";
import { useProducts } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { Refusal } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { UndoRedo } from "../../ui/UndoRedo";
import { useUndo } from "../../ui/useEdition";
import { tr } from "../../words/words";
import { DoesFields, doing, GradeFields } from "./More";
import { Part } from "./Part";
import { RecoatFields } from "./RecoatFields";
import { CautionsAndNotes, FieldOfApplication, Film, HoursAtTemperatures, Mixing, WhatItIs } from "./SheetParts";
import { TinFields } from "./TinFields";
import { useSheet } from "./useSheet";

export function Sheet() {
  const { productId = "" } = useParams();
  const products = useProducts();
  return (
    <Loaded query={products}>
      {(all) => {
        const p = all.find((x) => x.id === productId);
        if (!p && productId !== "new") return <Answer answer={tr("This product is not in the library any more.")} />;
        return <Editor key={productId} product={p} />;
      }}
    </Loaded>
  );
}

function Editor({ product }: { product?: Schemas["Product"] }) {
  const { show, prose } = useSettings();
  const { form, fresh, coat, needed, copying, setCopying, doubts, asking, save, remove } = useSheet(product);
  const { edit: d, set } = form;
  const undo = useUndo(form);
  const wft = d.volumeSolidsPct && d.film.typicalUm ? show(d.film.typicalUm, "µm") : undefined;
  return (
    <>
      <Answer
        over={<span>{product?.says.length && !copying ? product.sheet.name : tr("Data sheet")}</span>}
        answer={
          fresh ? (
            copying ? (
              tr("A copy of {name}", { name: product?.sheet.name })
            ) : (
              tr("A new product: copy its data sheet line by line.")
            )
          ) : product?.says.length ? (
            <Sentence spans={product.says} zone="UTC" />
          ) : (
            product?.sheet.name
          )
        }
        detail={
          product && coat && !d.recoat?.length
            ? tr(
                "No recoat interval is entered, so no clock can run on this product: copy the sheet's hours at temperatures below.",
              )
            : d.example
              ? tr(
                  "These figures are invented. Put the figures of the tin in hand in their place and take the example mark off.",
                )
              : wft
                ? tr("A typical coat is {text} {unit} dry. Tables may be left empty where the sheet is silent.", {
                    text: wft.text,
                    unit: wft.unit,
                  })
                : tr("Tables may be left empty where the sheet is silent; the program then says what it cannot tell.")
        }
      />
      <EditForm
        form={form}
        save={save}
        needed={needed}
        says={fresh ? tr("Add to the library") : asking ? tr("It is so: save the sheet") : tr("Save the sheet")}
        className="flex max-w-5xl flex-col gap-6"
        buttons={
          <>
            <UndoRedo of={undo} />
            {!fresh && (
              <>
                <button
                  type="button"
                  className="btn min-h-11"
                  onClick={() => {
                    setCopying(true);
                    set({ name: tr("{name}, copy", { name: d.name }) });
                    window.scrollTo({ top: 0 });
                  }}
                >
                  {tr("Copy and adapt")}
                </button>
                <button type="button" className="btn btn-ghost min-h-11" onClick={() => remove.mutate(undefined)}>
                  {tr("Delete")}
                </button>
              </>
            )}
          </>
        }
      >
        <WhatItIs form={form} />
        <Film form={form} />
        <Mixing form={form} />
        <Part title={tr("What it does")} folded={doing(d)}>
          <DoesFields form={form} />
        </Part>
        <FieldOfApplication form={form} />
        <HoursAtTemperatures form={form} />
        <Part
          title={tr("Recoat intervals")}
          note={tr("By what goes over it; the row for any product holds for kinds not listed.")}
        >
          <RecoatFields name="recoat" windows={d.recoat ?? []} onChange={(recoat) => set({ recoat })} />
        </Part>
        <Part
          title={tr("Grades of the hardener")}
          note={tr("Each grade has its own hours; what a grade leaves empty is as above.")}
          folded={d.grades?.length ? d.grades.map((g) => g.name).join(", ") : tr("the standard one alone")}
          fields={["grades"]}
        >
          <GradeFields form={form} />
        </Part>
        <Part
          title={tr("Tins as sold")}
          note={tr("A price of 0 means not known. Base and hardener sold apart are bought to match.")}
        >
          <TinFields tins={d.tins} twoPart={d.ratioByVolume.hardener > 0} onChange={(tins) => set({ tins })} />
        </Part>
        <CautionsAndNotes form={form} />
        {doubts.length > 0 && (
          <div role="alert" className="border-l-4 border-warning pl-3">
            <p className="font-semibold">
              {tr("These hours do not fall as it gets warmer. Look at the sheet again; if it is so, save.")}
            </p>
            <ul>
              {doubts.map((t) => (
                <li key={prose(t)}>{prose(t)}</li>
              ))}
            </ul>
          </div>
        )}
        <Refusal error={remove.error} />
      </EditForm>
    </>
  );
}
