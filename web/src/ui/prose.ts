import type { Schemas, Words } from "../api/client";
import { filled, LOCALE, lowered, tr } from "../words/words";
import { clock, day, span, stamp, weekday } from "./time";

export type UnitSystem = "metric" | "imperial";

type Spans = Schemas["MessageSpan"][];

/** How quantities are shown. */
export type Shown = {
  units: UnitSystem;
  /** Shown value and unit of a metric quantity. */
  show: (value: number, unit: string, digits?: number) => { text: string; unit: string };
  /** The unit a quantity is typed in, and back to metric. */
  shownUnit: (unit: string) => string;
  toShown: (value: number, unit: string) => number;
  toMetric: (shown: number, unit: string) => number;
};

/** What shows quantities as the program has them. */
export const METRIC: Shown = {
  units: "metric",
  toShown: (v) => v,
  toMetric: (v) => v,
  shownUnit: (u) => u,
  show: (v, unit, digits = 1) => ({ text: number(v, digits), unit }),
};

/** Shows quantities in a system of units, by the program's table of them. */
export function shownIn(units: UnitSystem, table: Schemas["UnitsDisplay"][]): Shown {
  const find = (unit: string) => table.find((t) => t.metric === unit);
  const imperial = (unit: string) => (units === "imperial" ? find(unit) : undefined);
  const shownUnit = (unit: string) => imperial(unit)?.imperialSymbol ?? find(unit)?.metricSymbol ?? unit;
  const toShown = (v: number, unit: string) => {
    const d = imperial(unit);
    return d ? v * d.factor + d.offset : v;
  };
  return {
    units,
    toShown,
    toMetric: (v, unit) => {
      const d = imperial(unit);
      return d ? (v - d.offset) / d.factor : v;
    },
    shownUnit,
    show: (v, unit, digits) => {
      const d = find(unit);
      const places = units === "imperial" ? (d?.imperialDigits ?? digits ?? 1) : (digits ?? d?.metricDigits ?? 1);
      return { text: number(toShown(v, unit), places), unit: shownUnit(unit) };
    },
  };
}

/** Words as text: a sentence in the shown units, its instants in a zone; words that are text stay as they are. */
export function say(words: Words, shown: Shown, zone: string): string {
  return typeof words === "string" ? words : written(words, shown, zone);
}

/** The words of a sentence in the user's units, its instants in a zone. */
export function written(spans: Spans, shown: Shown, zone: string): string {
  const { show, units, toShown, shownUnit } = shown;
  return spans
    .map((s) => {
      if (s.at)
        return s.date
          ? s.day
            ? day(s.at, zone)
            : stamp(s.at, zone)
          : `${s.day ? `${weekday(s.at, zone)} ` : ""}${clock(s.at, zone)}`;
      if (s.say !== undefined) {
        const text = tr(
          s.say,
          filled(s.with, (w) => written(w, shown, zone)),
        );
        return s.lower ? lowered(text) : text;
      }
      if (s.value === undefined) return s.text ?? "";
      const unit = s.unit ?? "";
      if (unit === "h" && s.value > 0 && s.digits !== 0) return span(s.value); // as tables tell hours
      if (s.digits === undefined) {
        const v = show(s.value, unit, Number.isInteger(s.value) ? 0 : undefined);
        return `${v.text} ${v.unit}`;
      }
      if (units === "metric" || shownUnit(unit) === unit) return `${number(s.value, s.digits)} ${shownUnit(unit)}`;
      const rounded = Number(toShown(s.value, unit).toPrecision(3));
      return `${number(rounded, decimalsOf(rounded))} ${shownUnit(unit)}`;
    })
    .join("");
}

const decimalsOf = (v: number) => `${v}`.split(".")[1]?.length ?? 0;

/** A number with that many decimals, thin-spaced thousands, and a real minus. */
export function number(v: number, digits: number): string {
  if (!Number.isFinite(v)) return "–";
  return decimal(digits)
    .formatToParts(v)
    .map((p) => (p.type === "group" ? "\u2009" : p.type === "minusSign" ? "\u2212" : p.value))
    .join("")
    .replace(/^\u2212(?=[0.,]*$)/, "");
}

const decimals = new Map<number, Intl.NumberFormat>();

function decimal(digits: number): Intl.NumberFormat {
  let f = decimals.get(digits);
  if (!f) {
    f = new Intl.NumberFormat(LOCALE, { minimumFractionDigits: digits, maximumFractionDigits: digits });
    decimals.set(digits, f);
  }
  return f;
}
