import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, ok, type Refused, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { useChange, useCoats, useKinds, useMeta } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { CutSection } from "../../ui/CutSection";
import { Errors, Refusal, unsendable } from "../../ui/Form";
import { Minding } from "../../ui/Handover";
import { Answer } from "../../ui/Page";
import { useSettings } from "../../ui/settings";
import { Term } from "../../ui/Term";
import { workdays } from "../../ui/time";
import { UndoRedo } from "../../ui/UndoRedo";
import { useUnsaved } from "../../ui/unsaved";
import { useHistory, useUndoKeys } from "../../ui/useHistory";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Consumables } from "./Consumables";
import { Findings } from "./Findings";
import { Goal } from "./Goal";
import { type Draft, freshStep, needed } from "./plan";
import { SaveSystem } from "./SaveSystem";
import { Start } from "./Start";
import { StepFields } from "./StepFields";

/** What is planned on a surface: steps, what they come to, what is wrong with them, the film as a cut section. */
export function Editor({ stored, surfaces }: { stored: Schemas["BuildUp"]; surfaces: Schemas["Surface"][] }) {
  const { products, coats } = useCoats();
  const meta = useMeta().data;
  const methods = meta?.methods ?? [];
  const { works, kindOf } = useKinds();
  const { show, prose, money } = useSettings();
  const [draft, setDraft] = useState<Draft[] | null>(null);
  useUnsaved(draft !== null);
  const [version, setVersion] = useState(stored.surface.version);
  const [doing, setDoing] = useState<"start" | "goal" | "save" | null>(null);
  const surface = stored.surface;
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
  const r = shown.result;
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
  const film = show(r.netUm, "µm");
  const litres = show(r.litres, "L", 1);
  const area = show(surface.area.areaM2, "m²");
  const missing = coats.length === 0;
  const unpriced = coats
    .filter((p) => steps.some((t, i) => t.productId === p.id && r.lines[i]?.purchase?.priced === false))
    .map((p) => p.sheet.name);
  const waiting = shown.findings.filter((f) => f.severity !== "note" && !f.overruled);
  const stops = waiting.filter((f) => f.severity === "stop").length;
  const first =
    stops > 0
      ? tr(
          "{stops, plural, one {One thing would make it fail: mend it first. } other {{stops} things would make it fail: mend them first. }}",
          { stops },
        )
      : waiting.length > 0
        ? tr("{waiting, plural, one {One warning to settle. } other {{waiting} warnings to settle. }}", { waiting: waiting.length })
        : "";
  return (
    <>
      <Answer
        over={
          <span>
            {surface.name}: {area.text} {area.unit} ±{Math.round(surface.area.uncertaintyPct)} %, {surface.substrateName}.{" "}
            {surface.better && prose(surface.better)}
          </span>
        }
        answer={
          steps.length === 0
            ? tr("Nothing is planned on this surface: choose what goes on.")
            : r.coats === 0
              ? tr("No coats are planned on this surface.")
              : tr(
                  "{first}{coats, plural, one {1 coat makes} other {{coats} coats make}} {text} {unit} dry and {coats, plural, one {takes} other {take}} {text2} {unit2}{places}.",
                  {
                    first,
                    coats: r.coats,
                    text: film.text,
                    unit: film.unit,
                    text2: litres.text,
                    unit2: litres.unit,
                    places: shown.places.map((p) => `; ${p.where.name}: ${show(p.filmUm, "µm").text} ${film.unit}`).join(""),
                  },
                )
        }
        detail={
          steps.length === 0 ? (
            tr("Start from a scheme of the trade, apply a system of your own, or add steps one by one, from the substrate outward.")
          ) : (
            <>
              {r.priced
                ? tr("About {costCents} for whole tins", { costCents: money(r.costCents, 0) })
                : tr("The cost is not known: the library has no price for {unpriced}", { unpriced: unpriced.join("; ") })}
              ;{" "}
              <Figure title={tr("The build-up")} working={r.working}>
                {tr("{leftH} of work to come", { leftH: workdays(shown.sum.leftH, shown.workDayH) })}
              </Figure>{" "}
              {trNodes("for one person{leftL}; the film between {netLowUm} and {netHighUm} in four cases of five.", {
                leftL: shown.sum.leftL > 0 && <>{trNodes(", {leftL} to lay", { leftL: <Quantity value={shown.sum.leftL} unit="L" /> })}</>,
                netLowUm: <Quantity value={r.netLowUm} unit="µm" />,
                netHighUm: <Quantity value={r.netHighUm} unit="µm" />,
              })}
            </>
          )
        }
      />
      <div className="no-print mb-4 flex flex-wrap gap-2">
        <button type="button" className="btn min-h-11" onClick={() => setDoing(doing === "start" ? null : "start")}>
          {tr("Start from a scheme or system")}
        </button>
        <button type="button" className="btn min-h-11" onClick={() => setDoing(doing === "goal" ? null : "goal")}>
          {tr("How many coats?")}
        </button>
        <UndoRedo of={back} />
        {steps.length > 0 && draft === null && (
          <button type="button" className="btn min-h-11" onClick={() => setDoing(doing === "save" ? null : "save")}>
            {tr("Keep as a system")}
          </button>
        )}
      </div>
      {doing === "start" && (
        <Start
          surface={surface}
          surfaces={surfaces}
          usual={stored.job}
          kept={stored.steps.filter((_, i) => (stored.done[i] ?? 0) > 0)}
          take={(taken) => {
            edit([...stored.steps.filter((_, i) => (stored.done[i] ?? 0) > 0), ...taken]);
            setDoing(null);
          }}
          close={() => setDoing(null)}
        />
      )}
      {doing === "goal" && <Goal products={coats} layers={stored.layers} close={() => setDoing(null)} />}
      {doing === "save" && <SaveSystem steps={stored.steps} surface={surface} done={() => setDoing(null)} />}
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,460px)]">
        <div>
          <Findings
            findings={shown.findings.filter((f) => f.step < 0)}
            surfaceId={surface.id}
            stepId=""
            saved={draft === null}
            take={edit}
          />
          <Errors.Provider value={errors}>
            {steps.map((s, i) => (
              <StepFields
                key={s.id ?? `new-${i}`}
                step={s}
                i={i}
                last={i === steps.length - 1}
                done={shown.done[i] ?? 0}
                line={r.lines[i]}
                tasks={shown.tasks.filter((t) => t.stepId === (s.id ?? ""))}
                products={coats}
                methods={methods}
                change={(d) => change(i, d)}
                choose={(id) => change(i, choose(id))}
                move={(by) => swap(i, i + by)}
                remove={() => edit(steps.filter((_, k) => k !== i))}
                findings={
                  <>
                    <Minding texts={shown.mind[i] ?? []} />
                    <Findings
                      findings={shown.findings.filter((f) => f.step === i)}
                      surfaceId={surface.id}
                      stepId={s.id ?? ""}
                      saved={draft === null}
                      take={edit}
                    />
                  </>
                }
              />
            ))}
          </Errors.Provider>
          <div className="mt-4 flex flex-wrap gap-2">
            <select
              className="select min-h-11 w-44 border-base-content/60 bg-(--sheet)"
              aria-label={tr("Add a step")}
              value=""
              disabled={missing}
              onChange={(e) => {
                const kind = kindOf(e.target.value);
                const step = freshStep(kind);
                edit([...steps, kind.films ? { ...step, ...choose(coats[0]?.id ?? "") } : step]);
              }}
            >
              <option value="">{tr("Add a step…")}</option>
              {works
                .filter((w) => w.planned)
                .map((w) => (
                  <option key={w.work} value={w.work}>
                    {w.name}
                  </option>
                ))}
            </select>
            {draft !== null && (
              <>
                <button
                  type="button"
                  className="btn btn-primary min-h-11"
                  disabled={!sendable || save.isPending || preview.isError}
                  onClick={() => save.mutate(version)}
                >
                  {tr("Save the build-up")}
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
                  {tr("Undo the changes")}
                </button>
              </>
            )}
          </div>
          {missing && (
            <p className="mt-2">
              {trNodes("The library is empty. {link} first.", {
                link: (
                  <Link to="/library" className="linked">
                    {tr("Add a product")}
                  </Link>
                ),
              })}
            </p>
          )}
          <div className="mt-3">
            <Refusal error={save.error?.status === 409 && save.error.current ? null : (save.error ?? preview.error)} />
          </div>
        </div>
        <section>
          <h2 className="text-lg">
            <Term>{tr("The film, cut through")}</Term>
          </h2>
          <p className="quiet mb-2 text-sm">
            {tr("Thickness to scale. Full tone is laid, hatched is planned; what was logged as sanded off is gone.")}
          </p>
          <CutSection layers={shown.layers} substrate={surface.substrateName} />
          {shown.places.map((p) => (
            <details key={p.where.name} className="mt-4" data-testid="place-film">
              <summary className="min-h-11 cursor-pointer content-center font-semibold">
                {trNodes("{name}, {areaM2}: {filmUm} in all", {
                  name: p.where.name,
                  areaM2: <Quantity value={p.areaM2} unit="m²" />,
                  filmUm: <Quantity value={p.filmUm} unit="µm" />,
                })}
              </summary>
              <CutSection layers={p.layers} substrate={surface.substrateName} />
            </details>
          ))}
          {shown.marginText && <p className="mt-2 border-l-4 border-warning pl-3">{prose(shown.marginText)}</p>}
          <Consumables all={shown.consumables} />
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
