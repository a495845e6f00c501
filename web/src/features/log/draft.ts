import type { Schemas } from "../../api/client";
import type { Kind } from "../../api/queries";
import { readNumber } from "../../ui/numbers";
import { fromLocalField, toLocalField } from "../../ui/time";

/** An entry as it is being typed: times in the place's zone, lists of readings as text in the user's units. */
export type Draft = {
  surfaceId: string;
  kind: string;
  startedAt: string;
  step: string;
  productId: string;
  litres?: number;
  hours?: number;
  wet: string;
  thinnerPct?: number;
  grit?: number;
  removedUm?: number;
  who: string;
  note: string;
  batch: string;
  baseG?: number;
  hardenerG?: number;
  blemishes: string[];
  dry: string;
  nominalUm?: number;
  maximumUm?: number;
  profileUm?: number;
  round?: number;
  lows?: number;
  pinholes?: number;
  by: string;
  verdict: string;
  early: string;
  beyondShelf: boolean;
  /** How much of the task it did, %; nothing is all that was left. */
  sharePct?: number;
  patches: string[];
  outcome: string;
  /** What a coat was like when it was felt, and how a finish held. */
  felt: string;
  held: Record<string, number>;
  /** What was paid, in whole money, and for what. */
  paid?: number;
  paidFor: string;
  /** The own task that it is of. */
  own: string;
  place?: Schemas["SurveyPlace"];
};

/** The step chosen for a coat that is not planned. */
export const OTHER = "other";

type Units = { toMetric: (v: number, unit: string) => number; toShown: (v: number, unit: string) => number };

const shown = (um: number[], u: Units) => um.map((v) => Number(u.toShown(v, "µm").toPrecision(4))).join(" ");

/** Numbers with spaces between; NaN where one is none. */
export const readings = (text: string) =>
  text
    .split(/[\s;]+/)
    .filter(Boolean)
    .map(readNumber);

export function blank(surfaceId: string, now: string, zone: string): Draft {
  return {
    surfaceId,
    kind: "coat",
    startedAt: toLocalField(now, zone),
    step: "",
    productId: "",
    wet: "",
    who: localStorage.getItem("who") ?? "",
    note: "",
    batch: "",
    blemishes: [],
    dry: "",
    by: "",
    verdict: "",
    early: "",
    beyondShelf: false,
    patches: [],
    outcome: "",
    felt: "",
    held: {},
    paidFor: "abrasives",
    own: "",
  };
}

export function draftOf(e: Schemas["LogbookEntry"], zone: string, u: Units): Draft {
  return {
    surfaceId: e.surfaceId ?? "",
    kind: e.kind,
    startedAt: toLocalField(e.startedAt, zone),
    step: e.stepId || OTHER,
    productId: e.productId ?? "",
    litres: e.litres || undefined,
    hours: e.hours || undefined,
    wet: shown(e.wetUm ?? [], u),
    thinnerPct: e.thinnerPct,
    grit: e.grit || undefined,
    removedUm: e.removedUm || undefined,
    who: e.who,
    note: e.note,
    batch: e.batch ?? "",
    baseG: e.baseG || undefined,
    hardenerG: e.hardenerG || undefined,
    blemishes: e.blemishes ?? [],
    dry: shown(e.dry?.readingsUm ?? [], u),
    nominalUm: e.dry?.nominalUm,
    maximumUm: e.dry?.maximumUm || undefined,
    profileUm: e.dry?.profileUm || undefined,
    round: e.round?.n,
    lows: e.round?.lows,
    pinholes: e.round?.pinholes,
    by: e.round?.by ?? "",
    verdict: e.round?.verdict ?? "",
    early: e.early ?? "",
    beyondShelf: e.beyondShelf ?? false,
    sharePct: e.sharePct || undefined,
    patches: e.patches ?? [],
    outcome: e.outcome ?? "",
    felt: e.felt?.state ?? "",
    held: e.held ?? {},
    paid: e.spent && e.spent.cents / 100,
    paidFor: e.spent?.on ?? "abrasives",
    own: e.ownId ?? "",
    place: e.place,
  };
}

const roundOf = (d: Draft): Schemas["LogbookRound"] => ({
  n: d.round ?? 1,
  lows: d.lows ?? 0,
  pinholes: d.pinholes ?? 0,
  ...(d.by && { by: d.by as Schemas["LogbookRound"]["by"] }),
  ...(d.verdict && { verdict: d.verdict as Schemas["LogbookRound"]["verdict"] }),
});

/** What is sent of a draft. planned is the step chosen, now the program's time. */
export function entryOf(
  d: Draft,
  {
    boatId,
    productId,
    planned,
    zone,
    now,
    u,
    kind,
  }: { boatId: string; productId: string; planned?: Schemas["Step"]; zone: string; now: string; u: Units; kind: Kind },
): Schemas["LogbookEntry"] {
  const coat = kind.lays;
  const um = (text: string) => readings(text).map((v) => u.toMetric(v, "µm"));
  const dry = um(d.dry);
  return {
    boatId,
    ...(d.surfaceId && { surfaceId: d.surfaceId }),
    kind: d.kind as Schemas["LogbookEntry"]["kind"],
    startedAt: fromLocalField(d.startedAt, zone),
    ...((coat || (kind.films && planned)) && { productId }),
    ...(d.surfaceId && planned?.id && { stepId: planned.id }),
    ...(!d.surfaceId && d.own && { ownId: d.own }),
    ...(d.sharePct && d.sharePct < 100 && { sharePct: d.sharePct }),
    ...(d.patches.length > 0 && { patches: d.patches }),
    ...(kind.judged && { outcome: d.outcome as "" | "passed" | "failed" }),
    ...(kind.felt && d.felt && { felt: { state: d.felt as Schemas["LogbookFelt"]["state"] } }),
    ...(kind.graded && { held: d.held }),
    ...(kind.spent && {
      spent: { on: d.paidFor as Schemas["LogbookSpent"]["on"], cents: Math.round(100 * (d.paid ?? 0)) },
    }),
    litres: coat || kind.films ? (d.litres ?? 0) : 0,
    wetUm: coat ? um(d.wet) : [],
    thinnerPct: coat ? (d.thinnerPct ?? planned?.thinnerPct ?? 0) : 0,
    grit: kind.gritted ? (d.grit ?? 0) : 0,
    removedUm: kind.removes ? (d.removedUm ?? 0) : 0,
    hours: d.hours,
    who: d.who,
    note: d.note,
    ...(d.place && { place: d.place }),
    ...(d.batch && { batch: d.batch }),
    ...(d.baseG && { baseG: d.baseG }),
    ...(d.hardenerG && { hardenerG: d.hardenerG }),
    ...(d.blemishes.length > 0 && { blemishes: d.blemishes }),
    ...(dry.length > 0 && {
      dry: {
        nominalUm: d.nominalUm ?? 0,
        maximumUm: d.maximumUm ?? 0,
        profileUm: d.profileUm ?? 0,
        readingsUm: dry,
        readAt: now,
      },
    }),
    ...(kind.rounds && (d.round ?? d.lows ?? d.pinholes) !== undefined && { round: roundOf(d) }),
    ...(d.early && { early: d.early }),
    ...(d.beyondShelf && { beyondShelf: true }),
  };
}
