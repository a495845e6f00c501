import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, ok, type Refused, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { useChange, useMeta } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Errors, Refusal, unsendable } from "../../ui/Form";
import { Tabs } from "../../ui/Page";
import { Remove } from "../../ui/Remove";
import { UndoRedo } from "../../ui/UndoRedo";
import { useUnsaved } from "../../ui/unsaved";
import { useUndoable } from "../../ui/useHistory";
import { tr } from "../../words/words";
import { DefectList } from "./Defects";
import { Describe } from "./Describe";
import { type Edit, editOf, newSurface } from "./edit";
import { Layers } from "./Layers";
import { Measuring } from "./Measuring";
import { SplitForm } from "./SplitForm";

const TABS = {
  measure: tr("Measure"),
  describe: tr("Describe"),
  layers: tr("Old layers"),
  defects: tr("Defects"),
} as const;
type Tab = keyof typeof TABS;

/** What a surface would measure as edited; asked for again when the editing pauses. */
function usePreview(boatId: string, edit: Edit, sendable: boolean) {
  const [settled, setSettled] = useState(edit);
  useEffect(() => {
    const t = setTimeout(() => setSettled(edit), 250);
    return () => clearTimeout(t);
  }, [edit]);
  return useQuery<Schemas["AreaAssessment"], Refused>({
    queryKey: key("measure", boatId, settled),
    queryFn: () =>
      ok(api.POST("/api/boats/{id}/surfaces/preview", { params: { path: { id: boatId } }, body: settled })),
    enabled: sendable && settled === edit,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** A surface: how it is measured, what it is, what lies on it, what is wrong with it. Without one, a new surface. */
export function SurfacePanel({
  survey,
  surface,
  done,
  pin,
}: {
  survey: Schemas["Survey"];
  surface?: Schemas["Surface"];
  done: (id?: string) => void;
  pin: (id?: string) => void;
}) {
  const boatId = survey.boat.id;
  const words = useMeta().data?.survey;
  const draft = useUndoable<Edit>(() => (surface ? editOf(surface) : newSurface()));
  const edit = draft.value;
  const [version, setVersion] = useState(surface?.version ?? 0);
  const [tab, setTab] = useState<Tab>("measure");
  const [touched, setTouched] = useState(false);
  useUnsaved(touched);
  const [tried, setTried] = useState(false);
  const [splitting, setSplitting] = useState(false);
  const local = unsendable(edit);
  const sendable = Object.keys(local).length === 0;
  const preview = usePreview(boatId, edit, sendable);
  const save = useChange(
    ["surfaces"],
    (v: number) =>
      surface
        ? ok(api.PUT("/api/surfaces/{id}", { params: { path: { id: surface.id } }, body: { version: v, value: edit } }))
        : ok(api.POST("/api/boats/{id}/surfaces", { params: { path: { id: boatId } }, body: edit })),
    (s) => {
      setVersion(s.version);
      setTouched(false);
      setTried(false);
      if (!surface) done(s.id);
    },
  );
  const duplicate = useChange(
    ["surfaces", "steps"],
    () => ok(api.POST("/api/surfaces/{id}/duplicate", { params: { path: { id: surface?.id ?? "" } } })),
    (s) => done(s.id),
  );
  const submit = (v = version) => {
    setTried(true);
    save.reset();
    if (sendable) save.mutate(v);
  };
  const change = (e: Partial<Edit>) => {
    draft.set({ ...edit, ...e });
    setTouched(true);
  };
  if (!words) return null;
  const errors = {
    ...(touched && sendable ? preview.error?.fields : {}),
    ...save.error?.fields,
    ...(tried ? local : {}),
  };
  const own = survey.defects.filter((d) => d.surfaceId === surface?.id);
  const tabs = Object.entries(TABS)
    .filter(([k]) => surface || k !== "defects")
    .map(([key, name]) => ({
      key: key as Tab,
      name: key === "defects" && own.length ? `${name} (${own.length})` : name,
    }));
  return (
    <section className="mt-6" data-panel={surface?.name ?? "new"}>
      <h2 className="mb-1 text-lg">{surface ? surface.name : tr("New surface")}</h2>
      <Tabs tabs={tabs} at={tab} onChange={setTab} label={tr("About this surface")} />
      {tab === "defects" ? (
        <DefectList defects={own} pin={pin} />
      ) : (
        <Errors.Provider value={errors}>
          <form
            noValidate
            onSubmit={(e) => {
              e.preventDefault();
              submit();
            }}
          >
            {tab === "measure" && (
              <>
                {!surface && <Describe edit={edit} change={change} words={words} brief />}
                <Measuring
                  edit={edit}
                  change={change}
                  words={words}
                  survey={survey}
                  found={sendable ? preview.data : undefined}
                  surface={surface}
                />
              </>
            )}
            {tab === "describe" && <Describe edit={edit} change={change} words={words} />}
            {tab === "layers" && (
              <Layers edit={edit} change={change} words={words} cautions={surface?.cautions ?? []} />
            )}
            <div className="mt-4 flex flex-col gap-3">
              <Refusal error={save.error?.status === 409 ? null : save.error} />
              {tried && !sendable && (
                <p className="text-error">{tr("Some figures are missing: look for the red fields, on each tab.")}</p>
              )}
              <div className="flex flex-wrap items-center gap-2">
                <button
                  type="submit"
                  className="btn btn-primary min-h-11"
                  disabled={save.isPending || (surface !== undefined && !touched)}
                >
                  {surface ? tr("Save") : tr("Add the surface")}
                </button>
                {surface && touched && <span className="quiet text-sm">{tr("not saved yet")}</span>}
                {surface && !touched && (
                  <>
                    <button type="button" className="btn min-h-11" onClick={() => duplicate.mutate(undefined)}>
                      {surface.side === "both" ? tr("Duplicate") : tr("Duplicate to the other side")}
                    </button>
                    <button type="button" className="btn min-h-11" onClick={() => setSplitting(true)}>
                      {tr("Split")}
                    </button>
                  </>
                )}
                <UndoRedo of={draft} />
                {!surface && (
                  <button type="button" className="btn btn-ghost min-h-11" onClick={() => done()}>
                    {tr("Cancel")}
                  </button>
                )}
              </div>
              <Refusal error={duplicate.error} />
            </div>
          </form>
        </Errors.Provider>
      )}
      {surface && splitting && <SplitForm surface={surface} version={version} done={() => setSplitting(false)} />}
      {surface && (
        <>
          <Remove
            of={["surfaces", "steps"]}
            what={tr("{name}, its planned coats and its defects", { name: surface.name })}
            label={tr("delete this surface")}
            remove={() => ok(api.DELETE("/api/surfaces/{id}", { params: { path: { id: surface.id } } }))}
            done={() => done()}
          />
          <Conflict
            error={save.error}
            mine={edit}
            stored={(c: Schemas["Surface"]) => editOf(c)}
            onMine={(c) => {
              setVersion(c.version);
              submit(c.version);
            }}
            onTheirs={(c) => {
              draft.set(editOf(c));
              setVersion(c.version);
              setTouched(false);
              save.reset();
            }}
          />
        </>
      )}
    </section>
  );
}
