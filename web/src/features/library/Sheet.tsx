import { useParams } from "wouter";
import type { Schemas } from "../../api/client";
import { useProducts } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Errors, Refusal } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { UndoRedo } from "../../ui/UndoRedo";
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
  const { draft, d, set, fresh, coat, copying, setCopying, setVersion, doubts, asking, errors, save, remove, submit } =
    useSheet(product);
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
      <Errors.Provider value={errors}>
        <form
          className="flex max-w-5xl flex-col gap-6"
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            submit();
          }}
        >
          <WhatItIs d={d} set={set} />
          <Film d={d} set={set} />
          <Mixing d={d} set={set} />
          <Part title={tr("What it does")} folded={doing(d)}>
            <DoesFields d={d} set={set} />
          </Part>
          <FieldOfApplication d={d} set={set} />
          <HoursAtTemperatures d={d} set={set} />
          <Part
            title={tr("Recoat intervals")}
            note={tr("By what goes over it; the row for any product holds for kinds not listed.")}
          >
            <RecoatFields name="recoat" windows={d.recoat ?? []} onChange={(recoat) => set({ ...d, recoat })} />
          </Part>
          <Part
            title={tr("Grades of the hardener")}
            note={tr("Each grade has its own hours; what a grade leaves empty is as above.")}
            folded={d.grades?.length ? d.grades.map((g) => g.name).join(", ") : tr("the standard one alone")}
            fields={["grades"]}
          >
            <GradeFields d={d} set={set} />
          </Part>
          <Part
            title={tr("Tins as sold")}
            note={tr("A price of 0 means not known. Base and hardener sold apart are bought to match.")}
          >
            <TinFields tins={d.tins} twoPart={d.ratioByVolume.hardener > 0} onChange={(tins) => set({ ...d, tins })} />
          </Part>
          <CautionsAndNotes d={d} set={set} />
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
          <Refusal error={save.error?.status === 409 ? null : save.error} />
          <Refusal error={remove.error} />
          <div className="flex flex-wrap gap-2">
            <button type="submit" className="btn btn-primary min-h-11" disabled={save.isPending}>
              {fresh ? tr("Add to the library") : asking ? tr("It is so: save the sheet") : tr("Save the sheet")}
            </button>
            <UndoRedo of={draft} />
            {!fresh && (
              <>
                <button
                  type="button"
                  className="btn min-h-11"
                  onClick={() => {
                    setCopying(true);
                    set({ ...d, name: tr("{name}, copy", { name: d.name }) });
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
          </div>
        </form>
      </Errors.Provider>
      {product && (
        <Conflict
          error={save.error}
          mine={d}
          stored={(c: Schemas["Product"]) => c.sheet}
          onMine={(c) => {
            setVersion(c.version);
            submit(c.version);
          }}
          onTheirs={(c) => {
            set(c.sheet);
            setVersion(c.version);
            save.reset();
          }}
        />
      )}
    </>
  );
}
