import { useState } from "react";
import { Link } from "wouter";
import type { Schemas } from "../../api/client";
import { type Kind, useCoats, useKinds, useMeta } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Errors, Refusal } from "../../ui/Form";
import { Minding } from "../../ui/Handover";
import { UndoRedo } from "../../ui/UndoRedo";
import { tr, trNodes } from "../../words/words";
import { BuildUpAnswer } from "./BuildUpAnswer";
import { FilmSection } from "./FilmSection";
import { Findings } from "./Findings";
import { Goal } from "./Goal";
import { type Draft, freshStep } from "./plan";
import { SaveSystem } from "./SaveSystem";
import { Start } from "./Start";
import { StepFields } from "./StepFields";
import { useSteps } from "./useSteps";

/** What is planned on a surface: steps, what they come to, what is wrong with them, the film as a cut section. */
export function Editor({ stored, surfaces }: { stored: Schemas["BuildUp"]; surfaces: Schemas["Surface"][] }) {
  const { coats } = useCoats();
  const methods = useMeta().data?.methods ?? [];
  const { kindOf } = useKinds();
  const surface = stored.surface;
  const {
    draft,
    steps,
    sendable,
    preview,
    save,
    saving,
    saveOver,
    edit,
    back,
    shown,
    errors,
    change,
    swap,
    choose,
    reset,
  } = useSteps(stored);
  const r = shown.result;
  const missing = coats.length === 0;
  const begun = (kind: Kind) => ({ ...freshStep(kind), ...(kind.films && choose(coats[0]?.id ?? "")) });
  return (
    <>
      <BuildUpAnswer shown={{ ...shown, surface }} steps={steps} />
      <Tools
        stored={stored}
        surfaces={surfaces}
        back={back}
        edit={edit}
        keepable={steps.length > 0 && draft === null}
      />
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
            <AddStep disabled={missing} add={(work) => edit([...steps, begun(kindOf(work))])} />
            {draft !== null && (
              <>
                <button
                  type="button"
                  className="btn btn-primary min-h-11"
                  disabled={!sendable || saving.isPending || preview.isError}
                  onClick={save}
                >
                  {tr("Save the build-up")}
                </button>
                <button type="button" className="btn btn-ghost min-h-11" onClick={() => reset(stored.surface.version)}>
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
            <Refusal
              error={saving.error?.status === 409 && saving.error.current ? null : (saving.error ?? preview.error)}
            />
          </div>
        </div>
        <FilmSection shown={{ ...shown, surface }} />
      </div>
      <Conflict
        error={saving.error}
        mine={steps}
        stored={(c: Schemas["BuildUp"]): Draft[] => c.steps}
        onMine={(c) => saveOver(c.surface.version)}
        onTheirs={(c) => reset(c.surface.version)}
      />
    </>
  );
}

type ToolsProps = {
  stored: Schemas["BuildUp"];
  surfaces: Schemas["Surface"][];
  back: Parameters<typeof UndoRedo>[0]["of"];
  edit: (steps: Draft[]) => void;
  /** The steps are stored as they stand. */
  keepable: boolean;
};

/** Begins with a usual sequence, counts coats, keeps the steps for other surfaces. */
function Tools({ stored, surfaces, back, edit, keepable }: ToolsProps) {
  const { coats } = useCoats();
  const { surface } = stored;
  const [doing, setDoing] = useState<"start" | "goal" | "save" | null>(null);
  return (
    <>
      <div className="no-print mb-4 flex flex-wrap gap-2">
        <button type="button" className="btn min-h-11" onClick={() => setDoing(doing === "start" ? null : "start")}>
          {tr("Start from a scheme or system")}
        </button>
        <button type="button" className="btn min-h-11" onClick={() => setDoing(doing === "goal" ? null : "goal")}>
          {tr("How many coats?")}
        </button>
        <UndoRedo of={back} />
        {keepable && (
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
    </>
  );
}

/** A kind of work, to be put after the last step. */
function AddStep({ disabled, add }: { disabled: boolean; add: (work: string) => void }) {
  const { works } = useKinds();
  return (
    <select
      className="select min-h-11 w-44 border-base-content/60 bg-(--sheet)"
      aria-label={tr("Add a step")}
      value=""
      disabled={disabled}
      onChange={(e) => add(e.target.value)}
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
  );
}
