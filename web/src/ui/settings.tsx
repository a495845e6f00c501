import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";
import type { Schemas, Words } from "../api/client";
import { LOCALE } from "../words/words";
import { METRIC, type Shown, say, shownIn, type UnitSystem } from "./prose";

export type Theme = "paper" | "lamp";

type Settings = Shown & {
  theme: Theme;
  setUnits: (u: UnitSystem) => void;
  setTheme: (t: Theme) => void;
  /** A price in the yard's money. */
  money: (cents: number, digits?: number) => string;
  currency: string;
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
  const value = useMemo<Settings>(
    () => ({
      ...shownIn(units, table),
      theme,
      setUnits,
      setTheme,
      currency,
      money: (cents, digits = 2) =>
        (cents / 100).toLocaleString(LOCALE, {
          ...(currency && { style: "currency", currency }),
          minimumFractionDigits: digits,
          maximumFractionDigits: digits,
        }),
    }),
    [units, theme, setUnits, setTheme, table, currency],
  );
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
  return { ...s, prose: (words: Words) => say(words, s, zone), metric: (words: Words) => say(words, METRIC, zone) };
}
