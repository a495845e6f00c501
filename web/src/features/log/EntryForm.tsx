import type { Schemas } from "../../api/client";
import { useCoats, useMeta } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { AreaField, Choice, NumberField, TextField } from "../../ui/Form";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";
import { Answers, PlannedLitres } from "./Answers";
import { DryFields } from "./DryFields";
import { OTHER } from "./draft";
import { CoatFields, OnMap, Pictures, Seen } from "./EntryParts";
import { Grades } from "./Grades";
import { KindFields } from "./KindFields";
import { type EntryProps, useEntry } from "./useEntry";

/** Logs something done, or corrects the entry given, or the one that waits on this device. */
export function EntryForm(props: EntryProps) {
  const { today, entry, done } = props;
  const boatId = today.boat.id;
  const { coats } = useCoats();
  const words = useMeta().data?.log;
  const { form, kind, coat, works, build, lane, step, planned, productId, ...rest } = useEntry(props);
  const { photos, setPhotos, save, needed, wrong, refused, under, tasks, own, nameOf } = rest;
  const { edit: draft, set, at } = form;
  return (
    <section className="max-w-4xl border border-base-content p-4">
      <h2 className="mb-3 text-lg">
        {entry ? tr("Correct this entry") : coat ? tr("Log a coat") : tr("Log what was done")}
      </h2>
      <EditForm
        form={form}
        save={save}
        needed={needed}
        wrong={wrong}
        refused={refused}
        says={entry ? tr("Save the correction") : tr("Log it")}
        cancel={() => done(false)}
      >
        <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
          <Choice
            name="kind"
            label={tr("What")}
            value={draft.kind}
            onChange={(k) => set({ kind: k, stepId: "" })}
            options={works.filter((k) => k.logged).map((k) => ({ value: k.work, label: k.told }))}
          />
          <Choice
            name="surfaceId"
            label={tr("Where")}
            value={draft.surfaceId}
            onChange={(s) => set({ surfaceId: s, stepId: "" })}
            options={[
              ...(kind.ofSurface ? [] : [{ value: "", label: tr("the whole boat") }]),
              ...today.answer.lanes.map((l) => ({ value: l.surfaceId, label: l.surface })),
            ]}
          />
          <TextField {...at("startedAt")} label={tr("Begun at")} type="datetime-local" />
          {coat && (
            <CoatFields
              boatId={boatId}
              form={form}
              step={step}
              planned={planned}
              productId={productId}
              steps={coatsOf(build, nameOf)}
              products={coats}
            />
          )}
          {!coat && <PlannedWork form={form} step={step} tasks={tasks} own={own} />}
          <KindFields kind={kind} form={form} planned={planned} words={words} />
          {draft.kind !== "idle" && !kind.felt && !kind.graded && !kind.spent && (
            <NumberField
              {...at("hours")}
              label={tr("Hours it took")}
              hint={tr("by all people together; plans learn from it")}
              unit="h"
            />
          )}
          <TextField {...at("who")} label={tr("Who")} />
          <div className="sm:col-span-2">
            <AreaField
              {...at("note")}
              label={tr("Note")}
              hint={tr("typed, or spoken with the keyboard’s microphone")}
              rows={3}
            />
          </div>
        </div>
        {kind.graded && <Grades label={tr("How did it hold?")} held={draft.held} set={(held) => set({ held })} />}
        {(coat || draft.kind === "inspect") && (
          <>
            <Seen form={form} all={words?.blemishes ?? []} />
            <DryFields form={form} build={build} placeId={today.place.id} />
          </>
        )}
        {!entry && <Pictures photos={photos} set={setPhotos} />}
        <OnMap boatId={boatId} form={form} />
        {kind.removes && kind.gritted && build?.marginText && (
          <p className="mt-2 border-l-4 border-warning pl-3">
            <Said words={build.marginText} />
          </p>
        )}
        {coat && lane?.mix && planned?.id === lane.nextStepId && <PlannedLitres mix={lane.mix} form={form} />}
        <Answers form={form} early={under("early") !== undefined} litres={under("litres") !== undefined} />
      </EditForm>
    </section>
  );
}

/** The coats of a build-up to choose from, with how far they are. */
const coatsOf = (build: Schemas["BuildUp"] | undefined, nameOf: (id: string) => string) =>
  (build?.steps ?? []).flatMap((s, i) =>
    s.productId
      ? [
          {
            value: s.id ?? "",
            label: tr("{i}. {productId} ({done} of {coats} laid)", {
              i: i + 1,
              productId: nameOf(s.productId),
              done: build?.done[i],
              coats: s.coats,
            }),
          },
        ]
      : [],
  );

type Tasks = Pick<ReturnType<typeof useEntry>, "form" | "step" | "tasks" | "own">;

/** The planned work, or the own task, that an entry is of. */
function PlannedWork({ form: { edit: draft, set, at }, step, tasks, own }: Tasks) {
  const { prose } = useSettings();
  return (
    <>
      {draft.surfaceId !== "" && tasks.length > 0 && (
        <Choice
          name="stepId"
          label={tr("Planned work")}
          value={step}
          onChange={(stepId) => set({ stepId, patches: [] })}
          options={[
            ...tasks.map((t) => ({
              value: t.stepId,
              label: `${prose(t.what)}${t.where ? `, ${t.where}` : ""} (${t.state === "done" ? tr("done") : tr("{done} % done", { done: Math.round(t.donePct) })})`,
            })),
            { value: OTHER, label: tr("nothing that is planned") },
          ]}
        />
      )}
      {draft.surfaceId === "" && draft.kind === "other" && own.length > 0 && (
        <Choice
          {...at("ownId")}
          label={tr("Task of the plan")}
          options={[
            { value: "", label: tr("none of these") },
            ...own.map((t) => ({
              value: t.id,
              label: tr("{what} ({donePct} % done)", { what: prose(t.what), donePct: Math.round(t.donePct) }),
            })),
          ]}
        />
      )}
    </>
  );
}
