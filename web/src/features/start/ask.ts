import type { Schemas } from "../../api/client";
import { readQuantity } from "../../ui/numbers";

/** What is asked on the start page, as it was typed. */
export type Asking = Omit<Partial<Schemas["Question"]>, "asks" | "laidAt"> & {
  asks: Schemas["Question"]["asks"];
  /** Of what the size is: "area", or a part of a hull of a form, such as "bottom medium". */
  of: string;
  /** Length and beam as typed, and when it was laid, as a field of the browser has it. */
  size: string;
  laid: string;
};

const KEPT = "asking";
const zone = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The question as it was left. */
export function left(): Asking {
  const fresh: Asking = {
    asks: "coat-today",
    productId: "",
    of: "area",
    size: "",
    laid: "",
    coats: 2,
    timeZone: zone(),
  };
  try {
    return { ...fresh, ...JSON.parse(localStorage.getItem(KEPT) ?? "{}"), timeZone: zone() };
  } catch {
    return fresh;
  }
}

export const leave = (a: Asking) => localStorage.setItem(KEPT, JSON.stringify(a));

/** Length and beam in metres of what was typed in the user's units, such as 9.5 × 3.1; NaN for what is none. */
export function readSize(text: string, toMetric: (v: number, unit: string) => number) {
  const [loaM = Number.NaN, beamM = Number.NaN] = text
    .split(/\s*(?:x|×|\*|by)\s*/i)
    .map((t) => (t.trim() === "" ? Number.NaN : readQuantity(t.trim(), "m", toMetric)));
  return { loaM, beamM };
}

const FOR_A_BOAT = "for-a-boat";

/** What the questions brought, carried on to a boat. */
export const keepForABoat = (a: Asking) => localStorage.setItem(FOR_A_BOAT, JSON.stringify(a));

/** What was carried on to a boat, if anything. */
export function keptForABoat(): Asking | undefined {
  const kept = localStorage.getItem(FOR_A_BOAT);
  try {
    return kept ? { ...left(), ...JSON.parse(kept) } : undefined;
  } catch {
    return undefined;
  }
}

export const dropForABoat = () => localStorage.removeItem(FOR_A_BOAT);
