import { tr } from "../words/words";

/** How the weather of a place is known, by its source. */
export const KNOWN_BY: Record<string, string> = {
  simulated: tr("simulated"),
  imported: tr("measured"),
  told: tr("as you told it"),
};
