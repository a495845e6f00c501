import type { Schemas } from "../../api/client";
import type { Kind } from "../../api/queries";
import { readNumber } from "../../ui/numbers";
import { fromLocalField, toLocalField } from "../../ui/time";
import type { useEdition } from "../../ui/useEdition";

/**
 * An entry as it is being typed, under the paths of the entry: times in the place's zone, lists of readings as text in the user's units.
 * No sharePct is all that was left; spent.paid is whole money.
 */
export type Draft = {
  surfaceId: string;
  kind: string;
  startedAt: string;
  stepId: string;
  /** The own task that it is of. */
  ownId: string;
  productId: string;
  litres?: number;
  hours?: number;
  wetUm: string;
  thinnerPct?: number;
  grit?: number;
  removedUm?: number;
  who: string;
  note: string;
  batch: string;
  baseG?: number;
  hardenerG?: number;
  blemishes: string[];
  dry: { readingsUm: string; nominalUm?: number; maximumUm?: number; profileUm?: number };
  round: { n?: number; lows?: number; pinholes?: number; by: string; verdict: string };
  early: string;
  beyondShelf: boolean;
  sharePct?: number;
  patches: string[];
  outcome: string;
  felt: { state: string };
  held: Record<string, number>;
  spent: { on: string; paid?: number };
  place?: Schemas["SurveyPlace"];
};

/** The form of an entry. */
export type EntryFields = ReturnType<typeof useEdition<Schemas["Entry"], Draft>>;

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
    stepId: "",
    ownId: "",
    productId: "",
    wetUm: "",
    who: localStorage.getItem("who") ?? "",
    note: "",
    batch: "",
    blemishes: [],
    dry: { readingsUm: "" },
    round: { by: "", verdict: "" },
    early: "",
    beyondShelf: false,
    patches: [],
    outcome: "",
    felt: { state: "" },
    held: {},
    spent: { on: "abrasives" },
  };
}

export function draftOf(e: Schemas["LogbookEntry"], zone: string, u: Units): Draft {
  return {
    surfaceId: e.surfaceId ?? "",
    kind: e.kind,
    startedAt: toLocalField(e.startedAt, zone),
    stepId: e.stepId || OTHER,
    ownId: e.ownId ?? "",
    productId: e.productId ?? "",
    litres: e.litres || undefined,
    hours: e.hours || undefined,
    wetUm: shown(e.wetUm ?? [], u),
    thinnerPct: e.thinnerPct,
    grit: e.grit || undefined,
    removedUm: e.removedUm || undefined,
    who: e.who,
    note: e.note,
    batch: e.batch ?? "",
    baseG: e.baseG || undefined,
    hardenerG: e.hardenerG || undefined,
    blemishes: e.blemishes ?? [],
    dry: {
      readingsUm: shown(e.dry?.readingsUm ?? [], u),
      nominalUm: e.dry?.nominalUm,
      maximumUm: e.dry?.maximumUm || undefined,
      profileUm: e.dry?.profileUm || undefined,
    },
    round: {
      n: e.round?.n,
      lows: e.round?.lows,
      pinholes: e.round?.pinholes,
      by: e.round?.by ?? "",
      verdict: e.round?.verdict ?? "",
    },
    early: e.early ?? "",
    beyondShelf: e.beyondShelf ?? false,
    sharePct: e.sharePct || undefined,
    patches: e.patches ?? [],
    outcome: e.outcome ?? "",
    felt: { state: e.felt?.state ?? "" },
    held: e.held ?? {},
    spent: { on: e.spent?.on ?? "abrasives", paid: e.spent && e.spent.cents / 100 },
    place: e.place,
  };
}

const roundOf = ({ n = 1, lows = 0, pinholes = 0, by, verdict }: Draft["round"]): Schemas["LogbookRound"] => ({
  n,
  lows,
  pinholes,
  ...(by && { by: by as Schemas["LogbookRound"]["by"] }),
  ...(verdict && { verdict: verdict as Schemas["LogbookRound"]["verdict"] }),
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
  const dry = um(d.dry.readingsUm);
  return {
    boatId,
    ...(d.surfaceId && { surfaceId: d.surfaceId }),
    kind: d.kind as Schemas["LogbookEntry"]["kind"],
    startedAt: fromLocalField(d.startedAt, zone),
    ...((coat || (kind.films && planned)) && { productId }),
    ...(d.surfaceId && planned?.id && { stepId: planned.id }),
    ...(!d.surfaceId && d.ownId && { ownId: d.ownId }),
    ...(d.sharePct && d.sharePct < 100 && { sharePct: d.sharePct }),
    ...(d.patches.length > 0 && { patches: d.patches }),
    ...(kind.judged && { outcome: d.outcome as "" | "passed" | "failed" }),
    ...(kind.felt && d.felt.state && { felt: { state: d.felt.state as Schemas["LogbookFelt"]["state"] } }),
    ...(kind.graded && { held: d.held }),
    ...(kind.spent && {
      spent: { on: d.spent.on as Schemas["LogbookSpent"]["on"], cents: Math.round(100 * (d.spent.paid ?? 0)) },
    }),
    litres: coat || kind.films ? (d.litres ?? 0) : 0,
    wetUm: coat ? um(d.wetUm) : [],
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
        nominalUm: d.dry.nominalUm ?? 0,
        maximumUm: d.dry.maximumUm ?? 0,
        profileUm: d.dry.profileUm ?? 0,
        readingsUm: dry,
        readAt: now,
      },
    }),
    ...(kind.rounds && (d.round.n ?? d.round.lows ?? d.round.pinholes) !== undefined && { round: roundOf(d.round) }),
    ...(d.early && { early: d.early }),
    ...(d.beyondShelf && { beyondShelf: true }),
  };
}
