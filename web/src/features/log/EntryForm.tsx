import type { Schemas } from "../../api/client";
import { useCoats, useMeta } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { AreaField, Choice, Errors, NumberField, Refusal, TextField } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";
import { Answers, PlannedLitres } from "./Answers";
import { DryFields } from "./DryFields";
import { draftOf, OTHER } from "./draft";
import { CoatFields, OnMap, Pictures, Seen } from "./EntryParts";
import { Grades } from "./Grades";
import { KindFields } from "./KindFields";
import { type EntryProps, useEntry } from "./useEntry";

/** Logs something done, or corrects the entry given, or the one that waits on this device. */
export function EntryForm(props: EntryProps) {
  const { today, entry, done } = props;
  const zone = today.place.timeZone;
  const boatId = today.boat.id;
  const units = useSettings();
  const { coats } = useCoats();
  const words = useMeta().data?.log;
  const form = useEntry(props);
  const { draft, setDraft, set, kind, coat, works, build, lane, step, planned, tasks, own, productId, nameOf } = form;
  const { photos, setPhotos, setVersion, save, submit, under, errors } = form;
  return (
    <section className="max-w-4xl border border-base-content p-4">
      <h2 className="mb-3 text-lg">
        {entry ? tr("Correct this entry") : coat ? tr("Log a coat") : tr("Log what was done")}
      </h2>
      <Errors.Provider value={errors}>
        <form
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            submit();
          }}
        >
          <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
            <Choice
              name="kind"
              label={tr("What")}
              value={draft.kind}
              onChange={(k) => set({ kind: k, step: "" })}
              options={works.filter((k) => k.logged).map((k) => ({ value: k.work, label: k.told }))}
            />
            <Choice
              name="surfaceId"
              label={tr("Where")}
              value={draft.surfaceId}
              onChange={(s) => set({ surfaceId: s, step: "" })}
              options={[
                ...(kind.ofSurface ? [] : [{ value: "", label: tr("the whole boat") }]),
                ...today.answer.lanes.map((l) => ({ value: l.surfaceId, label: l.surface })),
              ]}
            />
            <TextField
              name="startedAt"
              label={tr("Begun at")}
              type="datetime-local"
              value={draft.startedAt}
              onChange={(startedAt) => set({ startedAt })}
            />
            {coat && (
              <CoatFields
                boatId={boatId}
                draft={draft}
                set={set}
                step={step}
                planned={planned}
                productId={productId}
                steps={(build?.steps ?? []).flatMap((s, i) =>
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
                )}
                products={coats}
              />
            )}
            {!coat && draft.surfaceId !== "" && tasks.length > 0 && (
              <Choice
                name="stepId"
                label={tr("Planned work")}
                value={step}
                onChange={(s) => set({ step: s, patches: [] })}
                options={[
                  ...tasks.map((t) => ({
                    value: t.stepId,
                    label: `${units.prose(t.what)}${t.where ? `, ${t.where}` : ""} (${t.state === "done" ? tr("done") : tr("{done} % done", { done: Math.round(t.donePct) })})`,
                  })),
                  { value: OTHER, label: tr("nothing that is planned") },
                ]}
              />
            )}
            {draft.surfaceId === "" && draft.kind === "other" && own.length > 0 && (
              <Choice
                name="ownId"
                label={tr("Task of the plan")}
                value={draft.own}
                onChange={(o) => set({ own: o })}
                options={[
                  { value: "", label: tr("none of these") },
                  ...own.map((t) => ({
                    value: t.id,
                    label: tr("{what} ({donePct} % done)", {
                      what: units.prose(t.what),
                      donePct: Math.round(t.donePct),
                    }),
                  })),
                ]}
              />
            )}
            <KindFields kind={kind} draft={draft} set={set} planned={planned} words={words} />
            {draft.kind !== "idle" && !kind.felt && !kind.graded && !kind.spent && (
              <NumberField
                name="hours"
                label={tr("Hours it took")}
                hint={tr("by all people together; plans learn from it")}
                unit="h"
                value={draft.hours}
                onChange={(hours) => set({ hours })}
              />
            )}
            <TextField name="who" label={tr("Who")} value={draft.who} onChange={(who) => set({ who })} />
            <div className="sm:col-span-2">
              <AreaField
                name="note"
                label={tr("Note")}
                hint={tr("typed, or spoken with the keyboard’s microphone")}
                value={draft.note}
                rows={3}
                onChange={(note) => set({ note })}
              />
            </div>
          </div>
          {kind.graded && <Grades label={tr("How did it hold?")} held={draft.held} set={(held) => set({ held })} />}
          {(coat || draft.kind === "inspect") && <Seen draft={draft} set={set} all={words?.blemishes ?? []} />}
          {(coat || draft.kind === "inspect") && (
            <DryFields draft={draft} set={set} build={build} placeId={today.place.id} />
          )}
          {!entry && <Pictures photos={photos} set={setPhotos} />}
          <OnMap boatId={boatId} draft={draft} set={set} />
          {kind.removes && kind.gritted && build?.marginText && (
            <p className="mt-2 border-l-4 border-warning pl-3">{units.prose(build.marginText)}</p>
          )}
          {coat && lane?.mix && planned?.id === lane.nextStepId && (
            <PlannedLitres mix={lane.mix} draft={draft} set={set} />
          )}
          <Answers
            draft={draft}
            set={set}
            early={under("early") !== undefined}
            litres={under("litres") !== undefined}
          />
          <div className="mt-4 flex flex-col gap-3">
            <Refusal error={save.error?.status === 409 ? null : save.error} />
            <div className="flex gap-2">
              <button type="submit" className="btn btn-primary min-h-12" disabled={save.isPending}>
                {entry ? tr("Save the correction") : tr("Log it")}
              </button>
              <button type="button" className="btn btn-ghost min-h-12" onClick={() => done(false)}>
                {tr("Cancel")}
              </button>
            </div>
          </div>
        </form>
      </Errors.Provider>
      {entry && (
        <Conflict
          error={save.error}
          mine={draft}
          stored={(c: Schemas["Entry"]) => draftOf(c, zone, units)}
          onMine={(c) => {
            setVersion(c.version);
            submit(c.version);
          }}
          onTheirs={(c) => {
            setDraft(draftOf(c, zone, units));
            setVersion(c.version);
            save.reset();
          }}
        />
      )}
    </section>
  );
}
