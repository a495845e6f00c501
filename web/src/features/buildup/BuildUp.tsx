import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, Trash2 } from "lucide-react";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { api, ok, type Refused, type Schemas } from "../../api/client";
import { useBuildUp, useChange, useMeta, useProducts, useSurvey } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { CutSection } from "../../ui/CutSection";
import { Choice, Errors, NumberField, Refusal, unsendable } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { useSettings } from "../../ui/settings";
import { span } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";

type Draft = Omit<Schemas["Step"], "coats" | "dftUm" | "lossPct" | "thinnerPct"> & {
  coats?: number;
  dftUm?: number;
  lossPct?: number;
  thinnerPct?: number;
};

export function BuildUp() {
  const { boatId = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const survey = useSurvey(boatId);
  const surfaceId = survey.data?.surfaces.find((s) => s.id === params.get("surface"))?.id ?? survey.data?.surfaces[0]?.id ?? "";
  const build = useBuildUp(surfaceId);
  return (
    <Loaded query={survey}>
      {(s) =>
        s.surfaces.length === 0 ? (
          <Answer
            answer="There is no surface to put coats on yet."
            detail={
              <Link className="btn btn-primary mt-2" to={`/boats/${boatId}/survey`}>
                Add one in Survey
              </Link>
            }
          />
        ) : (
          <>
            <div
              className="no-print mb-4 flex flex-wrap gap-x-4 gap-y-1 border-b border-base-300 pb-2"
              role="tablist"
              aria-label="Surfaces"
            >
              {s.surfaces.map((f) => (
                <button
                  key={f.id}
                  type="button"
                  role="tab"
                  aria-selected={f.id === surfaceId}
                  className={`min-h-11 border-b-4 px-1 ${f.id === surfaceId ? "border-accent font-bold" : "border-transparent"}`}
                  onClick={() => setParams({ surface: f.id }, { replace: true })}
                >
                  {f.name}
                </button>
              ))}
            </div>
            <Loaded query={build}>{(b) => <Editor key={surfaceId} stored={b} />}</Loaded>
          </>
        )
      }
    </Loaded>
  );
}

function Editor({ stored }: { stored: Schemas["BuildUp"] }) {
  const products = useProducts().data ?? [];
  const methods = useMeta().data?.methods ?? [];
  const { show, prose } = useSettings();
  const [draft, setDraft] = useState<Draft[] | null>(null);
  const [version, setVersion] = useState(stored.surface.version);
  const surface = stored.surface;
  const steps = draft ?? stored.steps;
  const bad = unsendable(
    { steps },
    steps.flatMap((_, i) => [`steps.${i}.coats`, `steps.${i}.dftUm`, `steps.${i}.lossPct`, `steps.${i}.thinnerPct`]),
  );
  const local = Object.fromEntries(Object.entries(bad).map(([k, m]) => [k.replace(/^steps\.(\d+)/, "steps[$1]"), m]));
  const sendable = Object.keys(bad).length === 0;
  const preview = useQuery<Schemas["BuildUp"], Refused>({
    queryKey: ["preview", surface.id, steps],
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
  const shown = draft === null ? stored : (preview.data ?? stored);
  const r = shown.result;
  const errors = { ...(preview.error?.fields ?? {}), ...(save.error?.fields ?? {}), ...local };
  const change = (i: number, d: Partial<Draft>) => setDraft(steps.map((s, k) => (k === i ? { ...s, ...d } : s)));
  const swap = (i: number, j: number) => {
    const next = [...steps];
    [next[i], next[j]] = [next[j] as Draft, next[i] as Draft];
    setDraft(next);
  };
  const coats = products.filter((p) => p.sheet.kind !== "thinner");
  const choose = (id: string): Partial<Draft> => {
    const sheet = products.find((p) => p.id === id)?.sheet;
    const method = methods.find((m) => m.key === sheet?.methods[0]) ?? methods[0];
    return { productId: id, dftUm: sheet?.film.typicalUm, method: method?.key ?? "brush", lossPct: method?.lossPct ?? 10 };
  };
  const film = show(r.filmUm, "µm");
  const litres = show(r.litres, "L", 1);
  const area = show(surface.area.areaM2, "m²");
  const missing = coats.length === 0;
  return (
    <>
      <Answer
        over={
          <span>
            {surface.name}: {area.text} {area.unit} ±{Math.round(surface.area.uncertaintyPct)} %, {surface.substrateName}
          </span>
        }
        answer={
          r.coats === 0
            ? "No coats are planned on this surface."
            : `${r.coats} coats make ${film.text} ${film.unit} dry and take ${litres.text} ${litres.unit}.`
        }
        detail={
          r.coats === 0 ? (
            "Add the first coat below: primer, barrier, varnish – from the substrate outward."
          ) : (
            <>
              {r.priced ? `About ${money(r.costCents)} for whole tins` : "The cost is not known: prices are missing in the library"};{" "}
              <Figure title="The build-up" working={r.working}>
                {span(r.hours)} of laying
              </Figure>{" "}
              for one person, sanding and masking not counted.
            </>
          )
        }
      />
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,460px)]">
        <div>
          <Errors.Provider value={errors}>
            {steps.map((s, i) => {
              const line = r.lines[i];
              const done = shown.done[i] ?? 0;
              return (
                <fieldset key={s.id ?? `new-${i}`} className="rule-b py-4" data-step={i}>
                  <legend className="sr-only">Step {i + 1}</legend>
                  <div className="flex items-end gap-2">
                    <span className="pb-2 font-slab text-xl">{i + 1}</span>
                    <div className="grow">
                      <Choice
                        name={`steps[${i}].productId`}
                        label="Product"
                        value={s.productId}
                        onChange={(id) => change(i, choose(id))}
                        options={coats.map((p) => ({ value: p.id, label: `${p.sheet.name}${p.sheet.example ? " (example)" : ""}` }))}
                      />
                    </div>
                    <IconButton label={`Move step ${i + 1} down, nearer the substrate`} disabled={i === 0} onClick={() => swap(i, i - 1)}>
                      <ArrowUp size={18} />
                    </IconButton>
                    <IconButton label={`Move step ${i + 1} outward`} disabled={i === steps.length - 1} onClick={() => swap(i, i + 1)}>
                      <ArrowDown size={18} />
                    </IconButton>
                    <IconButton
                      label={`Remove step ${i + 1}`}
                      disabled={done > 0}
                      onClick={() => setDraft(steps.filter((_, k) => k !== i))}
                    >
                      <Trash2 size={18} />
                    </IconButton>
                  </div>
                  <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-5">
                    <NumberField
                      name={`steps[${i}].coats`}
                      label="Coats"
                      unit=""
                      value={s.coats}
                      onChange={(coats) => change(i, { coats })}
                    />
                    <NumberField
                      name={`steps[${i}].dftUm`}
                      label="Dry, each"
                      unit="µm"
                      value={s.dftUm}
                      onChange={(dftUm) => change(i, { dftUm })}
                    />
                    <Choice
                      name={`steps[${i}].method`}
                      label="Laid by"
                      value={s.method}
                      onChange={(method) => change(i, { method, lossPct: methods.find((m) => m.key === method)?.lossPct ?? s.lossPct })}
                      options={methods.map((m) => ({ value: m.key, label: m.name }))}
                    />
                    <NumberField
                      name={`steps[${i}].lossPct`}
                      label="Loss"
                      unit="%"
                      value={s.lossPct}
                      onChange={(lossPct) => change(i, { lossPct })}
                    />
                    <NumberField
                      name={`steps[${i}].thinnerPct`}
                      label="Thinner"
                      unit="%"
                      value={s.thinnerPct}
                      onChange={(thinnerPct) => change(i, { thinnerPct })}
                    />
                  </div>
                  {line && (
                    <Outcome
                      line={line}
                      name={products.find((p) => p.id === s.productId)?.sheet.name ?? ""}
                      done={done}
                      coats={s.coats ?? 0}
                    />
                  )}
                </fieldset>
              );
            })}
          </Errors.Provider>
          <div className="mt-4 flex flex-wrap gap-2">
            <button
              type="button"
              className="btn min-h-11"
              disabled={missing}
              onClick={() => setDraft([...steps, { coats: 1, thinnerPct: 0, ...choose(coats[0]?.id ?? "") } as Draft])}
            >
              Add a step
            </button>
            {draft !== null && (
              <>
                <button
                  type="button"
                  className="btn btn-primary min-h-11"
                  disabled={!sendable || save.isPending || preview.isError}
                  onClick={() => save.mutate(version)}
                >
                  Save the build-up
                </button>
                <button
                  type="button"
                  className="btn btn-ghost min-h-11"
                  onClick={() => {
                    setDraft(null);
                    setVersion(stored.surface.version);
                    save.reset();
                  }}
                >
                  Undo the changes
                </button>
              </>
            )}
          </div>
          {missing && (
            <p className="mt-2">
              The library is empty.{" "}
              <Link to="/library" className="linked">
                Add a product
              </Link>{" "}
              first.
            </p>
          )}
          <div className="mt-3">
            <Refusal error={save.error?.status === 409 && save.error.current ? null : (save.error ?? preview.error)} />
          </div>
        </div>
        <section>
          <h2 className="text-lg">The film, cut through</h2>
          <p className="quiet mb-2 text-sm">
            Thickness to scale. Full tone is laid, hatched is planned; what was logged as sanded off is gone.
          </p>
          <CutSection layers={shown.layers} substrate={surface.substrateName} />
          {shown.marginText && <p className="mt-2 border-l-4 border-warning pl-3">{prose(shown.marginText)}</p>}
        </section>
      </div>
      <Conflict
        error={save.error}
        mine={steps}
        stored={(c: Schemas["BuildUp"]): Draft[] => c.steps}
        onMine={(c) => save.mutate(c.surface.version)}
        onTheirs={(c) => {
          setDraft(null);
          setVersion(c.surface.version);
          save.reset();
        }}
      />
    </>
  );
}

export const money = (cents: number) => (cents / 100).toLocaleString("en-GB", { minimumFractionDigits: 2 });

function Outcome({ line, name, done, coats }: { line: Schemas["BuildupLine"]; name: string; done: number; coats: number }) {
  const { prose } = useSettings();
  const tins = line.purchase.tins.map((t) => `${t.count} × ${t.name}`).join(" + ");
  return (
    <div className="mt-2 text-sm">
      <p>
        <Figure title={name} working={line.working}>
          Lay <Quantity value={line.wftUm} unit="µm" /> wet, <Quantity value={line.litres} unit="L" />
        </Figure>{" "}
        for {coats === 1 ? "the coat" : `${coats} coats`} (80 % between <Quantity value={line.litresLow} unit="L" /> and{" "}
        <Quantity value={line.litresHigh} unit="L" />)
        {line.thinnerL > 0 && (
          <>
            , thinner <Quantity value={line.thinnerL} unit="L" />
          </>
        )}
        .
      </p>
      <p>
        {tins ? (
          <>
            Buy {tins}
            {line.purchase.priced && `: ${money(line.purchase.costCents)}`}, <Quantity value={line.purchase.leftoverL} unit="L" /> left
            over.
          </>
        ) : (
          "No tins on the data sheet: enter them in Library to see what to buy."
        )}
        {done > 0 && <b> {done === coats ? "All laid." : `${done} of ${coats} laid.`}</b>}
      </p>
      {line.findings.map((f) => (
        <p key={f.text} className="mt-1 border-l-4 border-warning pl-2">
          <b>{f.severity === "warning" ? "Warning: " : "Note: "}</b>
          {prose(f.text)}
        </p>
      ))}
    </div>
  );
}

function IconButton({
  label,
  disabled,
  onClick,
  children,
}: {
  label: string;
  disabled: boolean;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      className="btn btn-square btn-ghost min-h-11 min-w-11"
      aria-label={label}
      title={label}
      disabled={disabled}
      onClick={onClick}
    >
      {children}
    </button>
  );
}
