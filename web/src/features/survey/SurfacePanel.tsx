import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, ok, type Refused, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { useChange, useMeta } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { Refusal, unsendable } from "../../ui/Form";
import { Tabs } from "../../ui/Page";
import { Remove } from "../../ui/Remove";
import { UndoRedo } from "../../ui/UndoRedo";
import { type Edition as EditionOf, useEdition, useUndo } from "../../ui/useEdition";
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
  const form = useEdition(surface, (s = surface): Edit => (s ? editOf(s) : newSurface()));
  const { edit, set: change, changed } = form;
  const undo = useUndo(form);
  const [tab, setTab] = useState<Tab>("measure");
  const [splitting, setSplitting] = useState(false);
  const sendable = Object.keys(unsendable(edit)).length === 0;
  const preview = usePreview(boatId, edit, sendable);
  const save = useChange(
    ["surfaces"],
    (sent: EditionOf<Edit>) =>
      surface
        ? ok(api.PUT("/api/surfaces/{id}", { params: { path: { id: surface.id } }, body: sent }))
        : ok(api.POST("/api/boats/{id}/surfaces", { params: { path: { id: boatId } }, body: sent.value })),
    (s) => {
      form.take(s);
      if (!surface) done(s.id);
    },
  );
  const duplicate = useChange(
    ["surfaces", "steps"],
    () => ok(api.POST("/api/surfaces/{id}/duplicate", { params: { path: { id: surface?.id ?? "" } } })),
    (s) => done(s.id),
  );
  if (!words) return null;
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
        <EditForm
          form={form}
          save={save}
          refused={{ ...(changed && sendable && preview.error?.fields), ...save.error?.fields }}
          says={surface ? tr("Save") : tr("Add the surface")}
          idle={surface !== undefined && !changed}
          buttons={
            <>
              {surface && changed && <span className="quiet text-sm">{tr("not saved yet")}</span>}
              {surface && !changed && (
                <>
                  <button type="button" className="btn min-h-11" onClick={() => duplicate.mutate(undefined)}>
                    {surface.side === "both" ? tr("Duplicate") : tr("Duplicate to the other side")}
                  </button>
                  <button type="button" className="btn min-h-11" onClick={() => setSplitting(true)}>
                    {tr("Split")}
                  </button>
                </>
              )}
              <UndoRedo of={undo} />
            </>
          }
          cancel={surface ? undefined : () => done()}
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
          {tab === "layers" && <Layers edit={edit} change={change} words={words} cautions={surface?.cautions ?? []} />}
          <Refusal error={duplicate.error} />
        </EditForm>
      )}
      {surface && splitting && (
        <SplitForm surface={surface} version={surface.version} done={() => setSplitting(false)} />
      )}
      {surface && (
        <Remove
          of={["surfaces", "steps"]}
          what={tr("{name}, its planned coats and its defects", { name: surface.name })}
          label={tr("delete this surface")}
          remove={() => ok(api.DELETE("/api/surfaces/{id}", { params: { path: { id: surface.id } } }))}
          done={() => done()}
        />
      )}
    </section>
  );
}
