import { useContext, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta, useProducts } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { FieldChart } from "../../ui/FieldChart";
import { AreaField, Check, Choice, Errors, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { useSettings } from "../../ui/settings";
import { UndoRedo } from "../../ui/UndoRedo";
import { useChanged } from "../../ui/unsaved";
import { useUndoable } from "../../ui/useHistory";
import { tr } from "../../words/words";
import { Curve } from "./Curve";
import type { Draft, SheetData } from "./draft";
import { DoesFields, doing, EditionFields, GradeFields, InUseFields, LayFields, LossFields } from "./More";
import { RecoatFields } from "./RecoatFields";
import { TableField } from "./TableField";
import { TinFields } from "./TinFields";

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

const TABLES = [
  ["potLife", tr("Pot life")],
  ["touchDry", tr("Touch-dry")],
  ["tackFree", tr("Tack-free")],
  ["sandable", tr("Sandable")],
  ["throughDry", tr("Through-dry")],
  ["immersion", tr("Immersion")],
] as const;

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
  const go = useNavigate();
  const meta = useMeta().data;
  const { show, prose } = useSettings();
  const draft = useUndoable<Draft>(product?.sheet ?? EMPTY);
  const { value: d, set } = draft;
  useChanged(d, product?.sheet ?? EMPTY);
  const [version, setVersion] = useState(product?.version ?? 0);
  const [local, setLocal] = useState<Record<string, string>>({});
  const [copying, setCopying] = useState(false);
  const [doubts, setDoubts] = useState(product?.doubts ?? []);
  const [accepted, setAccepted] = useState(JSON.stringify(product?.doubts ?? []));
  const [asking, setAsking] = useState(false);
  const spread = show(3, "K", 0);
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
        : ok(api.PUT("/api/products/{id}", { params: { path: { id: product.id } }, body: { version: v, value: d as SheetData } }));
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
    const bad = unsendable(d, coat ? ["volumeSolidsPct", "film.minUm", "film.typicalUm", "film.maxUm", "minCureC"] : []);
    setLocal(bad);
    save.reset();
    if (Object.keys(bad).length === 0) {
      if (!coat)
        set({ ...d, volumeSolidsPct: d.volumeSolidsPct ?? 0, minCureC: d.minCureC ?? 0, film: { minUm: 0, typicalUm: 0, maxUm: 0 } });
      save.mutate(v);
    }
  };
  const num = (key: keyof SheetData, label: string, unit: string, hint?: string) => (
    <NumberField
      name={key}
      label={label}
      unit={unit}
      hint={hint}
      value={d[key] as number | undefined}
      onChange={(v) => set({ ...d, [key]: v })}
    />
  );
  const limit = (key: keyof Schemas["ProductLimits"], label: string, unit: string, hint?: string) => (
    <NumberField
      name={`limits.${key}`}
      label={label}
      unit={unit}
      hint={hint}
      value={d.limits[key] as number | undefined}
      onChange={(v) => set({ ...d, limits: { ...d.limits, [key]: v } })}
    />
  );
  const film = (key: keyof SheetData["film"], label: string) => (
    <NumberField
      name={`film.${key}`}
      label={label}
      unit="µm"
      value={d.film[key]}
      onChange={(v) => set({ ...d, film: { ...d.film, [key]: v } as SheetData["film"] })}
    />
  );
  const ratio = (key: "ratioByVolume" | "ratioByWeight", part: "base" | "hardener", label: string) => (
    <NumberField
      name={`${key}.${part}`}
      label={label}
      unit="parts"
      value={d[key][part]}
      onChange={(v) => set({ ...d, [key]: { ...d[key], [part]: v } as Schemas["ProductRatio"] })}
    />
  );
  const wft = d.volumeSolidsPct && d.film.typicalUm ? show(d.film.typicalUm, "µm") : undefined;
  const grid = "grid grid-cols-2 gap-4 sm:grid-cols-3 lg:grid-cols-4";
  return (
    <>
      <Answer
        over={<span>{tr("Data sheet")}</span>}
        answer={
          fresh
            ? copying
              ? tr("A copy of {name}", { name: product?.sheet.name })
              : tr("A new product: copy its data sheet line by line.")
            : product.sheet.name
        }
        detail={
          product && coat && !d.recoat?.length
            ? tr("No recoat interval is entered, so no clock can run on this product: copy the sheet's hours at temperatures below.")
            : d.example
              ? tr("These figures are invented. Put the figures of the tin in hand in their place and take the example mark off.")
              : wft
                ? tr("A typical coat is {text} {unit} dry. Tables may be left empty where the sheet is silent.", {
                    text: wft.text,
                    unit: wft.unit,
                  })
                : tr("Tables may be left empty where the sheet is silent; the program then says what it cannot tell.")
        }
      />
      <Errors.Provider value={{ ...local, ...save.error?.fields }}>
        <form
          className="flex max-w-5xl flex-col gap-6"
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            submit();
          }}
        >
          <Part title={tr("What it is")}>
            <div className="grid gap-4 sm:grid-cols-2">
              <TextField name="name" label={tr("Name")} value={d.name} onChange={(name) => set({ ...d, name })} />
              <Choice
                name="kind"
                label={tr("Kind")}
                value={d.kind}
                onChange={(kind) => set({ ...d, kind: kind as Draft["kind"] })}
                options={(meta?.kinds ?? []).map((k) => ({ value: k.kind, label: k.name }))}
              />
              <TextField
                name="chemistry"
                label={tr("Chemistry")}
                value={d.chemistry ?? ""}
                onChange={(chemistry) => set({ ...d, chemistry })}
              />
              <TextField name="colour" label={tr("Colour")} value={d.colour ?? ""} onChange={(colour) => set({ ...d, colour })} />
              <TextField
                name="source"
                label={tr("Sheet")}
                hint={tr("its title")}
                value={d.source ?? ""}
                onChange={(source) => set({ ...d, source })}
              />
              <EditionFields d={d} set={set} />
              <Check
                name="example"
                label={tr("Example figures")}
                hint={tr("take this off once they are the sheet's")}
                value={d.example ?? false}
                onChange={(example) => set({ ...d, example })}
              />
            </div>
          </Part>
          <Part title={tr("Film")}>
            <div className={grid}>
              {num("volumeSolidsPct", tr("Volume solids"), "%", tr("of the mixed product"))}
              {film("minUm", tr("Dry film a coat, least"))}
              {film("typicalUm", tr("Dry film, typical"))}
              {film("maxUm", tr("Dry film, greatest"))}
              <LayFields d={d} set={set} />
            </div>
            <fieldset className="mt-3">
              <legend className="text-sm font-semibold">{tr("Laid by")}</legend>
              <div className="flex flex-wrap gap-x-5">
                {(meta?.methods ?? []).map((m) => (
                  <label key={m.key} className="flex min-h-11 items-center gap-2">
                    <input
                      type="checkbox"
                      className="checkbox border-base-content/60"
                      checked={d.methods.includes(m.key)}
                      onChange={(e) =>
                        set({ ...d, methods: e.target.checked ? [...d.methods, m.key] : d.methods.filter((k) => k !== m.key) })
                      }
                    />
                    {m.name}
                  </label>
                ))}
              </div>
            </fieldset>
            <LossFields d={d} set={set} />
          </Part>
          <Part title={tr("Mixing")} note={tr("Zero parts of hardener and base mean one-part.")}>
            <div className={grid}>
              {ratio("ratioByVolume", "base", tr("By volume, base"))}
              {ratio("ratioByVolume", "hardener", tr("By volume, hardener"))}
              {ratio("ratioByWeight", "base", tr("By weight, base"))}
              {ratio("ratioByWeight", "hardener", tr("By weight, hardener"))}
              {num("baseKgL", tr("Density of base"), "kg/L")}
              {num("hardenerKgL", tr("Density of hardener"), "kg/L")}
              {num("inductionMin", tr("Induction"), "min")}
              {num("thinnerMaxPct", tr("Thinner, at most"), "%")}
            </div>
            <InUseFields d={d} set={set} />
          </Part>
          <Part title={tr("What it does")} folded={doing(d)}>
            <DoesFields d={d} set={set} />
          </Part>
          <Part
            title={tr("Field of application")}
            note={tr("Leave a limit empty that the sheet does not set. The dew-point spread is then {text} {unit} (ISO 8502-4).", {
              text: spread.text,
              unit: spread.unit,
            })}
          >
            <div className={grid}>
              {limit("airMinC", tr("Air from"), "°C")}
              {limit("airMaxC", tr("Air to"), "°C")}
              {limit("surfaceMinC", tr("Surface from"), "°C")}
              {limit("surfaceMaxC", tr("Surface to"), "°C")}
              {limit("rhMaxPct", tr("Humidity, at most"), "%")}
              {limit("spreadMinK", tr("Above dew point, at least"), "K")}
              {limit("windMaxMS", tr("Wind when spraying"), "m/s")}
              {num("minCureC", tr("Cures above"), "°C")}
              {limit("holdH", tr("Must hold after laying"), "h")}
              {limit("rainFreeH", tr("Must stay dry after laying"), "h")}
            </div>
            <div className="mt-3 grid gap-6 lg:grid-cols-[1fr_2fr]">
              <TableField
                name="limits.polygon"
                label={tr("Printed temperature × humidity field, corner by corner")}
                columns={[
                  { key: "tempC", unit: "°C" },
                  { key: "rhPct", unit: "%" },
                ]}
                rows={d.limits.polygon ?? []}
                onChange={(rows) => set({ ...d, limits: { ...d.limits, polygon: rows as Schemas["ProductCorner"][] } })}
              />
              <FieldChart
                limits={d.limits as Schemas["ProductLimits"]}
                tracks={[]}
                onAdd={(c) => set({ ...d, limits: { ...d.limits, polygon: [...(d.limits.polygon ?? []), c] } })}
              />
            </div>
          </Part>
          <Part title={tr("Hours at temperatures")} note={tr("Two rows or more, temperatures rising.")}>
            <Curve lines={TABLES.map(([key, label]) => ({ label, points: d[key] ?? [] }))} />
            <div className="grid gap-6 sm:grid-cols-2 lg:grid-cols-3">
              {TABLES.map(([key, label]) => (
                <TableField
                  key={key}
                  name={key}
                  label={label}
                  rows={d[key] ?? []}
                  onChange={(rows) => set({ ...d, [key]: rows as Schemas["CurePoint"][] })}
                />
              ))}
            </div>
            <div className="mt-3">
              <Check
                name="onePointTables"
                label={tr("Accept tables of one row")}
                hint={tr("an activation energy of 50 kJ/mol is then assumed, a rule of thumb")}
                value={d.onePointTables ?? false}
                onChange={(onePointTables) => set({ ...d, onePointTables })}
              />
            </div>
          </Part>
          <Part title={tr("Recoat intervals")} note={tr("By what goes over it; the row for any product holds for kinds not listed.")}>
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
          <Part title={tr("Tins as sold")} note={tr("A price of 0 means not known. Base and hardener sold apart are bought to match.")}>
            <TinFields tins={d.tins} twoPart={d.ratioByVolume.hardener > 0} onChange={(tins) => set({ ...d, tins })} />
          </Part>
          <Part title={tr("Cautions and notes")}>
            <div className="grid gap-4 sm:grid-cols-2">
              <AreaField
                name="cautions"
                label={tr("Cautions")}
                hint={tr("one a line; shown before the tin is opened")}
                rows={4}
                value={d.cautions.join("\n")}
                onChange={(t) => set({ ...d, cautions: t.split("\n") })}
              />
              <AreaField name="notes" label={tr("Notes")} rows={4} value={d.notes ?? ""} onChange={(notes) => set({ ...d, notes })} />
            </div>
          </Part>
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

/** A part of the sheet; one that says what is in it is folded until it is opened, or something in it is wrong. */
function Part({
  title,
  note,
  folded,
  fields = [],
  children,
}: {
  title: string;
  note?: string;
  folded?: string;
  fields?: string[];
  children: React.ReactNode;
}) {
  const errors = useContext(Errors);
  const wrong = Object.keys(errors).some((k) => fields.some((f) => k.startsWith(f)));
  const inside = (
    <>
      {note && <p className="quiet mb-2 text-sm">{note}</p>}
      {children}
    </>
  );
  if (folded === undefined)
    return (
      <section className="border-t border-base-content pt-3">
        <h2 className="text-lg">{title}</h2>
        {inside}
      </section>
    );
  return (
    <details className="border-t border-base-content pt-3" open={wrong || undefined}>
      <summary className="min-h-11 cursor-pointer content-center">
        <h2 className="inline text-lg">{title}</h2> <span className="quiet text-sm">{folded}</span>
      </summary>
      {inside}
    </details>
  );
}
