import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { discard, newID, type Parcel, send } from "../../api/outbox";
import { smaller } from "../../api/picture";
import { useBuildUp, useChange, useCoats, useJob, useKinds } from "../../api/queries";
import { useSettings } from "../../ui/settings";
import { fromLocalField } from "../../ui/time";
import { useUnsaved } from "../../ui/unsaved";
import { type Edition, useEdition } from "../../ui/useEdition";
import { tr } from "../../words/words";
import { blank, type Draft, draftOf, entryOf, OTHER, readings } from "./draft";

export type EntryProps = {
  today: Schemas["Today"];
  surfaceId: string;
  entry?: Schemas["Entry"];
  parcel?: Parcel;
  kind?: string;
  /** The step, or own task, that is told of, and how much of it is meant. */
  step?: string;
  share?: number;
  /** The round of fairing that is told of. */
  round?: number;
  /** What the scale showed, from Bench. */
  weighed?: { baseG?: number; hardenerG?: number };
  done: (kept: boolean) => void;
};

/** An entry that is typed, with the work of the plan that it tells of, and how it is sent. */
export function useEntry({
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
}: EntryProps) {
  const zone = today.place.timeZone;
  const boatId = today.boat.id;
  const units = useSettings();
  const { products, coats } = useCoats();
  const stored = (e: Schemas["LogbookEntry"]) => draftOf(e, zone, units);
  const form = useEdition(entry, (e = entry): Draft => {
    if (e) return stored(e);
    if (parcel) return stored(parcel.body as Schemas["LogbookEntry"]);
    return {
      ...blank(surfaceId, today.ribbon.now, zone),
      ...weighed,
      ...(first && { kind: first === "fill" ? "coat" : first }),
      ...(firstStep && (surfaceId ? { stepId: firstStep } : { ownId: firstStep })),
      ...(share && share < 100 && { sharePct: share }),
      ...(round && { round: { n: round, by: "", verdict: "" } }),
    };
  });
  const draft = form.edit;
  const [id] = useState(() => (parcel?.body as { id?: string } | undefined)?.id ?? newID());
  const [photos, setPhotos] = useState<File[]>([]);
  useUnsaved(photos.length > 0);
  const build = useBuildUp(draft.surfaceId).data;
  const lane = today.answer.lanes.find((l) => l.surfaceId === draft.surfaceId);
  const { works, kindOf } = useKinds();
  const kind = kindOf(draft.kind);
  const coat = kind.lays === true;
  const films = (id?: string) => kindOf(build?.steps.find((s) => s.id === id)?.work ?? "").films === true;
  // The tasks that an entry of this kind can be of; a step of several coats once.
  const tasks = (build?.tasks ?? []).filter(
    (t, i, all) =>
      (coat ? films(t.stepId) && t.films : t.work === draft.kind) &&
      all.findIndex((o) => o.stepId === t.stepId && o.work === t.work) === i,
  );
  const waits = (build?.tasks ?? []).find(
    (t) => t.work === draft.kind && t.state !== "done" && t.state !== "overtaken" && t.state !== "skipped",
  );
  const step =
    draft.stepId ||
    (coat ? lane?.nextStepId || (build?.steps.find((s) => s.productId)?.id ?? OTHER) : (waits?.stepId ?? OTHER));
  const planned = build?.steps.find((s) => s.id === step);
  const own = useJob(boatId).data?.own ?? [];
  const productId = planned?.productId ?? (draft.productId || coats[0]?.id || "");
  const nameOf = (p: string) => products.find((o) => o.id === p)?.sheet.name ?? "";

  const save = useChange(
    ["log"],
    async ({ version, value: draft }: Edition<Draft>) => {
      const value = entryOf(draft, { boatId, productId, planned, zone, now: today.ribbon.now, u: units, kind });
      if (entry) return ok(api.PUT("/api/log/{id}", { params: { path: { id: entry.id } }, body: { version, value } }));
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
  const wrong = () => {
    const bad: Record<string, string> = {};
    if (!fromLocalField(draft.startedAt, zone)) bad.startedAt = tr("give the day and time");
    if (readings(draft.wetUm).some(Number.isNaN))
      bad.wetUm = tr("readings are numbers with spaces between, such as 180 190 200");
    if (readings(draft.dry.readingsUm).some(Number.isNaN))
      bad["dry.readingsUm"] = tr("readings are numbers with spaces between, such as 210 195 204");
    return bad;
  };
  const refused = { ...parcel?.refused?.fields, ...save.error?.fields };
  const under = (field: string) => Object.entries(refused).find(([k]) => k.startsWith(field))?.[1];
  for (const field of ["wetUm", "dry.readingsUm"]) {
    const why = under(field);
    if (why) refused[field] = why;
  }
  const needed = kind.gritted && kind.removes ? ["grit"] : [];
  return {
    ...{ form, kind, coat, works, build, lane, step, planned, tasks, own, productId, nameOf },
    ...{ photos, setPhotos, save, needed, wrong, refused, under },
  };
}
