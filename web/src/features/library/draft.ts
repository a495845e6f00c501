import type { Schemas } from "../../api/client";

export type SheetData = Schemas["ProductSheet"];

/** A data sheet being typed: figures may still be missing. */
export type Draft = Partial<SheetData> &
  Pick<
    SheetData,
    "name" | "kind" | "tins" | "cautions" | "methods" | "limits" | "film" | "ratioByVolume" | "ratioByWeight"
  >;
