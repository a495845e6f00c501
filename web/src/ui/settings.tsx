import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from "react";
import type { Schemas } from "../api/client";

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
  /** A text of the program with the quantities in it, "12 °C", in the user's units. */
  prose: (text: string) => string;
};

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

export function SettingsProvider({ table, children }: { table: Schemas["UnitsDisplay"][]; children: ReactNode }) {
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
      prose: (text) => (units === "metric" ? text : inImperial(text, table)),
      toMetric: (v, unit) => {
        const d = imperial(unit);
        return d ? (v - d.offset) / d.factor : v;
      },
      shownUnit: symbol,
      show: (v, unit, digits) => {
        const d = find(unit);
        const places = units === "imperial" ? (d?.imperialDigits ?? digits ?? 1) : (digits ?? d?.metricDigits ?? 1);
        return { text: number(toShown(v, unit), places), unit: symbol(unit) };
      },
    };
  }, [units, theme, setUnits, setTheme, find, table]);
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useSettings(): Settings {
  const s = useContext(Context);
  if (!s) throw new Error("no settings around this component");
  return s;
}

/** Replaces metric quantities, written as number, space, symbol, in a text. */
export function inImperial(text: string, table: Schemas["UnitsDisplay"][]): string {
  return text.replace(/([-\u2212]?\d+(?:\.\d+)?) ([^\s\d,.;:)]+)/g, (all, n: string, unit: string) => {
    const d = table.find((t) => t.metric === unit);
    if (!d) return all;
    return `${Number((Number(n.replace("\u2212", "-")) * d.factor + d.offset).toPrecision(3))} ${d.imperialSymbol}`;
  });
}

/** A number with at most that many decimals, thin-spaced thousands, and a real minus. */
export function number(v: number, digits: number): string {
  if (!Number.isFinite(v)) return "–";
  const text = v.toLocaleString("en-GB", { minimumFractionDigits: digits, maximumFractionDigits: digits });
  return text
    .replace(/^-(?=[0.]*$)/, "")
    .replaceAll(",", "\u2009")
    .replace("-", "\u2212");
}
