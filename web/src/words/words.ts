import { IntlMessageFormat } from "intl-messageformat";
import { createElement, Fragment, type ReactNode } from "react";
import type { components } from "../api/types.gen";

type Span = components["schemas"]["MessageSpan"];

/** The languages that the words stand in. English is the source: a message is its own key. */
export const LANGUAGES = { en: "English", fr: "Français" } as const;
export type Language = keyof typeof LANGUAGES;

const stored = globalThis.localStorage?.getItem("language");
export const language: Language = stored === "fr" ? "fr" : "en";

/** Messages in ICU MessageFormat by their English; what a catalogue lacks is said in English. */
const catalogue: Record<string, string> = language === "fr" ? (await import("./fr.json")).default : {};

/** The locale of dates and figures: the person's own order of a date, in the language of the words. */
export const LOCALE =
  globalThis.navigator?.languages?.find((l) => l.startsWith(language)) ?? (language === "en" ? "en-GB" : language);

/** What stands before the decimals. */
export const POINT = (1.5).toLocaleString(LOCALE).charAt(1);

/** Another language is for the whole program: it begins anew with it. */
export function speak(to: Language) {
  localStorage.setItem("language", to);
  location.reload();
}

if (globalThis.document) document.documentElement.lang = language;

type Value = string | number;

const made = new Map<string, IntlMessageFormat>();

function format(message: string): IntlMessageFormat {
  let f = made.get(message);
  if (!f) {
    const own = catalogue[message];
    f = new IntlMessageFormat(own ?? message, own === undefined ? "en-GB" : LOCALE, undefined, { ignoreTag: true });
    made.set(message, f);
  }
  return f;
}

/** A message in the person's language, its {names} filled. */
export function tr(message: string, values?: Record<string, Value | undefined>): string {
  return values || message.includes("'{") ? String(format(message).format(values)) : (catalogue[message] ?? message);
}

/** A message with elements among its values; lower has it begin with a small letter. */
export function trNodes(message: string, values: Record<string, ReactNode>, lower = false): ReactNode {
  const all = format(message).format<ReactNode>(values as Record<string, string>);
  const parts: ReactNode[] = Array.isArray(all) ? all : [all as ReactNode];
  const [first, ...rest] = parts;
  return createElement(Fragment, null, ...(lower && typeof first === "string" ? [lowered(first), ...rest] : parts));
}

/** A text beginning with a small letter. */
export const lowered = (text: string) => text.charAt(0).toLocaleLowerCase(LOCALE) + text.slice(1);

/** What fills {0}, {1} and on of a message of the core; a whole number stays one, for its plural forms. */
export function filled<T>(all: Span[][] | undefined, render: (s: Span[]) => T): Record<string, T | number> {
  return Object.fromEntries(
    (all ?? []).map((s, i) => [i, s.length === 1 && /^\d+$/.test(s[0]?.text ?? "") ? Number(s[0]?.text) : render(s)]),
  );
}

/** A name of one of the core's tables. */
export function word(name: string): string {
  return catalogue[name] ?? name;
}

/** The core's tables with their names in the person's language. */
export function named<T>(tables: T): T {
  if (language === "en" || typeof tables !== "object" || tables === null) return tables;
  if (Array.isArray(tables)) return tables.map(named) as T;
  const put = (key: string, value: unknown) =>
    NAMES.has(key) && typeof value === "string" ? word(value) : named(value);
  return Object.fromEntries(Object.entries(tables).map(([key, value]) => [key, put(key, value)])) as T;
}

/** The fields of the tables that are read by people. */
const NAMES = new Set(["name", "told", "missed", "of", "looks", "remedy", "action", "label"]);
