import { tr } from "../words/words";

/** The states of a coat's clock: what each is called, and how it is drawn. */
export const STATES: Record<string, { word: string; fill: string; ink: string; glyph: string }> = {
  wet: { word: tr("wet"), fill: "url(#wet)", ink: "var(--color-base-content)", glyph: "~" },
  tacking: { word: tr("curing"), fill: "var(--curing)", ink: "var(--color-base-content)", glyph: "…" },
  open: { word: tr("open: no sanding"), fill: "var(--open)", ink: "var(--open-ink)", glyph: "✓" },
  closing: { word: tr("closing"), fill: "var(--closing)", ink: "var(--closing-ink)", glyph: "!" },
  closed: { word: tr("sand first"), fill: "url(#shut)", ink: "var(--shut)", glyph: "✕" },
  damaged: { word: tr("damaged: inspect it"), fill: "url(#shut)", ink: "var(--shut)", glyph: "⚠" },
  unknown: { word: tr("not known: sand first"), fill: "none", ink: "var(--color-base-content)", glyph: "?" },
};
