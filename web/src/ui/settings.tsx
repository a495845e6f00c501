import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from "react";
import type { Schemas, Words } from "../api/client";
import { filled, LOCALE, lowered, tr } from "../words/words";
import { clock, day, stamp, weekday } from "./time";

export type UnitSystem = "metric" | "imperial";
export type Theme = "paper" | "lamp";

type Settings = {
  units: UnitSystem;
  theme: Theme;
  setUnits: (u: UnitSystem) => void;
  setTheme: (t: Theme) => void;
  /** Shown value and unit of a metric quantity. */
  show: (value: number, unit: string, digits?: number) => { text: string; unit: string };
  /** The unit a quantity is typed in, and back to metric. */
  shownUnit: (unit: string) => string;
  toShown: (value: number, unit: string) => number;
  toMetric: (shown: number, unit: string) => number;
  /** A price in the yard's money. */
  money: (cents: number, digits?: number) => string;
  currency: string;
};

type Spans = Schemas["SaySpan"][];
type Shown = Pick<Settings, "show" | "units" | "toShown" | "shownUnit">;

/** What shows quantities as the program has them. */
const METRIC: Shown = {
  units: "metric",
  toShown: (v) => v,
  shownUnit: (u) => u,
  show: (v, unit, digits = 1) => ({ text: number(v, digits), unit }),
};

/** The time zone of the place that the screens are about. */
export const Zone = createContext("UTC");

const Context = createContext<Settings | null>(null);

function stored<T extends string>(key: string, allowed: readonly T[]): [T, (v: T) => void] {
  const read = () => allowed.find((a) => a === localStorage.getItem(key)) ?? (allowed[0] as T);
  // biome-ignore lint/correctness/useHookAtTopLevel: only called from the provider below
  const [value, set] = useState<T>(read);
  return [
    value,
    (v) => {
      localStorage.setItem(key, v);
      set(v);
    },
  ];
}

export function SettingsProvider({
  table,
  currency = "",
  children,
}: {
  table: Schemas["UnitsDisplay"][];
  currency?: string;
  children: ReactNode;
}) {
  const [units, setUnits] = stored("units", ["metric", "imperial"] as const);
  const [theme, setTheme] = stored("theme", ["paper", "lamp"] as const);
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
  }, [theme]);
  const find = useCallback((unit: string) => table.find((t) => t.metric === unit), [table]);
  const value = useMemo<Settings>(() => {
    const imperial = (unit: string) => (units === "imperial" ? find(unit) : undefined);
    const symbol = (unit: string) => imperial(unit)?.imperialSymbol ?? find(unit)?.metricSymbol ?? unit;
    const toShown = (v: number, unit: string) => {
      const d = imperial(unit);
      return d ? v * d.factor + d.offset : v;
    };
    return {
      units,
      theme,
      setUnits,
      setTheme,
      toShown,
      toMetric: (v, unit) => {
        const d = imperial(unit);
        return d ? (v - d.offset) / d.factor : v;
      },
      shownUnit: symbol,
      currency,
      money: (cents, digits = 2) =>
        (cents / 100).toLocaleString(LOCALE, {
          ...(currency && { style: "currency", currency }),
          minimumFractionDigits: digits,
          maximumFractionDigits: digits,
        }),
      show: (v, unit, digits) => {
        const d = find(unit);
        const places = units === "imperial" ? (d?.imperialDigits ?? digits ?? 1) : (digits ?? d?.metricDigits ?? 1);
        return { text: number(toShown(v, unit), places), unit: symbol(unit) };
      },
    };
  }, [units, theme, setUnits, setTheme, find, currency]);
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

/**
 * The settings, and prose: a sentence of the program as text, in the user's units and the place's time; words stay as they are.
 * Metric is the same in the units that the program reckons in.
 */
export function useSettings() {
  const s = useContext(Context);
  const zone = useContext(Zone);
  if (!s) throw new Error("no settings around this component");
  const say = (words: Words, shown: Shown) => (typeof words === "string" ? words : written(words, shown, zone));
  return { ...s, prose: (words: Words) => say(words, s), metric: (words: Words) => say(words, METRIC) };
}

/** The words of a sentence in the user's units, its instants in a zone. */
export function written(spans: Spans, shown: Shown, zone: string): string {
  const { show, units, toShown, shownUnit } = shown;
  return spans
    .map((s) => {
      if (s.at)
        return s.date ? (s.day ? day(s.at, zone) : stamp(s.at, zone)) : `${s.day ? `${weekday(s.at, zone)} ` : ""}${clock(s.at, zone)}`;
      if (s.say !== undefined) {
        const text = tr(
          s.say,
          filled(s.with, (w) => written(w, shown, zone)),
        );
        return s.lower ? lowered(text) : text;
      }
      if (s.value === undefined) return s.text ?? "";
      const unit = s.unit ?? "";
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
