import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { discard, newID, type Parcel, send } from "../../api/outbox";
import { smaller } from "../../api/picture";
import { useBuildUp, useChange, useCoats, useJob, useKinds, useMeta } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { AreaField, Check, Choice, Errors, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { fromLocalField } from "../../ui/time";
import { useChanged } from "../../ui/unsaved";
import { Quantity } from "../../ui/Working";
import { tr, trNodes, word } from "../../words/words";
import { DryFields } from "./DryFields";
import { blank, type Draft, draftOf, entryOf, OTHER, readings } from "./draft";
import { CoatFields, OnMap, Patches, Pictures, Seen } from "./EntryParts";
import { Grades } from "./Grades";

/** Logs something done, or corrects the entry given, or the one that waits on this device. */
export function EntryForm({
  today,
  surfaceId,
  entry,
  parcel,
  weighed,
  kind: first,
  step: firstStep,
  share,
  round,
  done,
}: {
  today: Schemas["Today"];
  surfaceId: string;
  entry?: Schemas["Entry"];
  parcel?: Parcel;
  /** What the scale showed, from Bench. */
  kind?: string;
  /** The step, or own task, that is told of, and how much of it is meant. */
  step?: string;
  share?: number;
  /** The round of fairing that is told of. */
  round?: number;
  weighed?: { baseG?: number; hardenerG?: number };
  done: (kept: boolean) => void;
}) {
  const zone = today.place.timeZone;
  const boatId = today.boat.id;
  const units = useSettings();
  const { products, coats } = useCoats();
  const words = useMeta().data?.log;
  const start = () => {
    if (entry) return draftOf(entry, zone, units);
    if (parcel) return draftOf(parcel.body as Schemas["LogbookEntry"], zone, units);
    return {
      ...blank(surfaceId, today.ribbon.now, zone),
      ...weighed,
      ...(first && { kind: first === "fill" ? "coat" : first }),
      ...(firstStep && (surfaceId ? { step: firstStep } : { own: firstStep })),
      ...(share && share < 100 && { sharePct: share }),
      ...(round && { round }),
    };
  };
  const [began] = useState<Draft>(start);
  const [draft, setDraft] = useState<Draft>(began);
  const [id] = useState(() => (parcel?.body as { id?: string } | undefined)?.id ?? newID());
  const [version, setVersion] = useState(entry?.version ?? 0);
  const [local, setLocal] = useState<Record<string, string>>({});
  const [photos, setPhotos] = useState<File[]>([]);
  useChanged([draft, photos.length], [began, 0]);
  const set = (more: Partial<Draft>) => setDraft({ ...draft, ...more });
  const build = useBuildUp(draft.surfaceId).data;
  const lane = today.answer.lanes.find((l) => l.surfaceId === draft.surfaceId);
  const { works, kindOf } = useKinds();
  const kind = kindOf(draft.kind);
  const coat = kind.lays === true;
  const films = (id?: string) => kindOf(build?.steps.find((s) => s.id === id)?.work ?? "").films === true;
  // The tasks that an entry of this kind can be of; a step of several coats once.
  const tasks = (build?.tasks ?? []).filter(
    (t, i, all) =>
      (coat ? films(t.stepId) && t.films : t.work === draft.kind) && all.findIndex((o) => o.stepId === t.stepId && o.work === t.work) === i,
  );
  const waits = (build?.tasks ?? []).find(
    (t) => t.work === draft.kind && t.state !== "done" && t.state !== "overtaken" && t.state !== "skipped",
  );
  const step = draft.step || (coat ? lane?.nextStepId || (build?.steps.find((s) => s.productId)?.id ?? OTHER) : (waits?.stepId ?? OTHER));
  const planned = build?.steps.find((s) => s.id === step);
  const own = useJob(boatId).data?.own ?? [];
  const productId = planned?.productId ?? (draft.productId || coats[0]?.id || "");
  const nameOf = (p: string) => products.find((o) => o.id === p)?.sheet.name ?? "";

  const save = useChange(
    ["log"],
    async (v: number) => {
      const value = entryOf(draft, { boatId, productId, planned, zone, now: today.ribbon.now, u: units, kind });
      if (entry) return ok(api.PUT("/api/log/{id}", { params: { path: { id: entry.id } }, body: { version: v, value } }));
      const label = `${kind.told ?? draft.kind}${lane ? `, ${lane.surface}` : ""}`;
      const sent = await send<Schemas["Entry"]>({
        id: parcel?.id ?? id,
        label,
        boatId,
        method: "POST",
        path: "/api/log",
        body: { id, ...value },
      });
      for (const file of photos) {
        const photoId = newID();
        await send({
          id: photoId,
          after: parcel?.id ?? id,
          label: tr("photo of {label}", { label }),
          boatId,
          method: "POST",
          path: `/api/log/${id}/photos?photoId=${photoId}`,
          body: await smaller(file),
        });
      }
      return sent;
    },
    (r) => {
      localStorage.setItem("who", draft.who);
      if (parcel && r !== "kept") void discard(parcel.id);
      done(r === "kept");
    },
  );
  const submit = (v = version) => {
    const bad: Record<string, string> = unsendable(draft, kind.gritted && kind.removes ? ["grit"] : []);
    if (!fromLocalField(draft.startedAt, zone)) bad.startedAt = tr("give the day and time");
    if (readings(draft.wet).some(Number.isNaN)) bad.wetUm = tr("readings are numbers with spaces between, such as 180 190 200");
    if (readings(draft.dry).some(Number.isNaN)) bad["dry.readingsUm"] = tr("readings are numbers with spaces between, such as 210 195 204");
    setLocal(bad);
    save.reset();
    if (Object.keys(bad).length === 0) save.mutate(v);
  };
  const refused = { ...(parcel?.refused?.fields ?? {}), ...(save.error?.fields ?? {}) };
  const under = (field: string) => Object.entries(refused).find(([k]) => k.startsWith(field))?.[1];
  const errors = { ...local, ...refused };
  for (const field of ["wetUm", "dry.readingsUm"]) {
    const why = under(field);
    if (why) errors[field] = why;
  }
  return (
    <section className="max-w-4xl border border-base-content p-4">
      <h2 className="mb-3 text-lg">{entry ? tr("Correct this entry") : coat ? tr("Log a coat") : tr("Log what was done")}</h2>
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
                    label: tr("{what} ({donePct} % done)", { what: units.prose(t.what), donePct: Math.round(t.donePct) }),
                  })),
                ]}
              />
            )}
            {kind.judged && (
              <Choice
                name="outcome"
                label={tr("What came of it")}
                value={draft.outcome}
                onChange={(outcome) => set({ outcome })}
                options={[
                  { value: "", label: tr("choose") },
                  { value: "passed", label: tr("it passed") },
                  { value: "failed", label: tr("it failed") },
                ]}
              />
            )}
            {kind.spent && (
              <>
                <Choice
                  name="spent.on"
                  label={tr("What for")}
                  value={draft.paidFor}
                  onChange={(paidFor) => set({ paidFor })}
                  options={(words?.expenses ?? []).map((e) => ({ value: e.on, label: word(e.name) }))}
                />
                <NumberField name="spent.cents" label={tr("How much")} unit="" value={draft.paid} onChange={(paid) => set({ paid })} />
              </>
            )}
            {kind.felt && (
              <Choice
                name="felt.state"
                label={tr("What was it like")}
                hint={tr("log it when it turns: later times are learned from it")}
                value={draft.felt}
                onChange={(felt) => set({ felt })}
                options={[
                  { value: "", label: tr("choose") },
                  { value: "sticky", label: tr("still sticky") },
                  { value: "touch-dry", label: tr("just dry to touch") },
                  { value: "sandable", label: tr("just dry enough to sand") },
                ]}
              />
            )}
            {(planned || draft.own) && !kind.judged && (planned?.where?.patches ?? []).length < 2 && (
              <NumberField
                name="sharePct"
                label={tr("How much of it")}
                hint={tr("empty: all that was left")}
                unit="%"
                value={draft.sharePct}
                onChange={(sharePct) => set({ sharePct })}
              />
            )}
            {planned && (planned.where?.patches ?? []).length > 1 && (
              <Patches draft={draft} set={set} patches={planned.where?.patches ?? []} />
            )}
            {kind.gritted && (
              <NumberField name="grit" label={tr("Last grit")} unit="P" value={draft.grit} onChange={(grit) => set({ grit })} />
            )}
            {kind.removes && (
              <NumberField
                name="removedUm"
                label={tr("Film taken off")}
                hint={tr("by the gauge, or as reckoned; empty: not known")}
                unit="µm"
                value={draft.removedUm}
                onChange={(removedUm) => set({ removedUm })}
              />
            )}
            {kind.rounds && (
              <>
                <NumberField name="round.n" label={tr("Round")} unit="" value={draft.round} onChange={(round) => set({ round })} />
                <NumberField name="round.lows" label={tr("Lows found")} unit="" value={draft.lows} onChange={(lows) => set({ lows })} />
                <NumberField
                  name="round.pinholes"
                  label={tr("Pinholes")}
                  unit=""
                  value={draft.pinholes}
                  onChange={(pinholes) => set({ pinholes })}
                />
                <Choice
                  name="round.by"
                  label={tr("Found by")}
                  value={draft.by}
                  onChange={(by) => set({ by })}
                  options={[
                    { value: "", label: tr("not said") },
                    ...["guide coat", "wet surface", "low light", "edge", "hand"].map((v) => ({ value: v, label: word(v) })),
                  ]}
                />
                <Choice
                  name="round.verdict"
                  label={tr("Verdict")}
                  value={draft.verdict}
                  onChange={(verdict) => set({ verdict })}
                  options={[
                    { value: "", label: tr("by the count") },
                    ...["fair enough", "another round"].map((v) => ({ value: v, label: word(v) })),
                  ]}
                />
              </>
            )}
            {kind.rounds && kind.films && (
              <NumberField name="litres" label={tr("Filler used")} unit="L" value={draft.litres} onChange={(litres) => set({ litres })} />
            )}
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
          {(coat || draft.kind === "inspect") && <DryFields draft={draft} set={set} build={build} placeId={today.place.id} />}
          {!entry && <Pictures photos={photos} set={setPhotos} />}
          <OnMap boatId={boatId} draft={draft} set={set} />
          {kind.removes && kind.gritted && build?.marginText && (
            <p className="mt-2 border-l-4 border-warning pl-3">{units.prose(build.marginText)}</p>
          )}
          {coat && lane?.mix && planned?.id === lane.nextStepId && (
            <p className="quiet mt-2 text-sm">
              {trNodes("The plan takes {litres} for this coat at {wftUm} wet.", {
                litres: <Quantity value={lane.mix.litres} unit="L" />,
                wftUm: <Quantity value={lane.mix.wftUm} unit="µm" />,
              })}{" "}
              {draft.litres === undefined && (
                <button
                  type="button"
                  className="btn btn-sm max-sm:min-h-11"
                  onClick={() => set({ litres: Number(lane.mix?.litres.toFixed(2)) })}
                >
                  {tr("It took that")}
                </button>
              )}
            </p>
          )}
          {(under("early") || draft.early) && (
            <div className="mt-3 max-w-xl">
              <TextField
                name="early"
                label={tr("Why it went on before the last one was ready")}
                value={draft.early}
                onChange={(early) => set({ early })}
              />
            </div>
          )}
          {(under("litres") || draft.beyondShelf) && (
            <div className="mt-3">
              <Check
                name="beyondShelf"
                label={tr("The litres are right: there was more than the shelf shows")}
                value={draft.beyondShelf}
                onChange={(beyondShelf) => set({ beyondShelf })}
              />
            </div>
          )}
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
