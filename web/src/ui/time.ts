import { LOCALE, tr } from "../words/words";

const cache = new Map<string, Intl.DateTimeFormat>();

function formatter(zone: string, key: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const id = `${zone}|${key}`;
  let f = cache.get(id);
  if (!f) {
    f = new Intl.DateTimeFormat(LOCALE, { timeZone: zone, hourCycle: "h23", ...options });
    cache.set(id, f);
  }
  return f;
}

const format = (t: string | number | Date, zone: string, key: string, o: Intl.DateTimeFormatOptions) =>
  formatter(zone, key, o).format(new Date(t));

export const clock = (t: string | number | Date, zone: string) =>
  format(t, zone, "hm", { hour: "2-digit", minute: "2-digit" });
export const weekday = (t: string | number | Date, zone: string) => format(t, zone, "wd", { weekday: "long" });
export const day = (t: string | number | Date, zone: string) =>
  format(t, zone, "d", { weekday: "short", day: "numeric", month: "short" });
export const longDay = (t: string | number | Date, zone: string) =>
  format(t, zone, "ld", { weekday: "long", day: "numeric", month: "long" });
export const monthOf = (t: string | number | Date, zone: string) =>
  format(t, zone, "mo", { month: "short", year: "numeric" });
export const stamp = (t: string | number | Date, zone: string) => `${day(t, zone)}, ${clock(t, zone)}`;
export const hourOf = (t: number, zone: string) => Number(format(t, zone, "h", { hour: "2-digit" }));
export const sameDay = (a: string | number, b: string | number, zone: string) => day(a, zone) === day(b, zone);

/** A day such as 2026-05-09 as people write it, with its year. */
export const onDay = (iso: string) => `${day(`${iso}T12:00:00Z`, "UTC")} ${iso.slice(0, 4)}`;

/** The day of the week by its three English letters, whatever language is shown. */
export const weekdayOf = (t: string | number, zone: string) =>
  new Intl.DateTimeFormat("en-GB", { timeZone: zone, weekday: "short" }).format(new Date(t));

/** Hours of work, or of a few hours, as "35 min", "1 h 20" or "314 h": never in days, which mean working days to people. */
export function span(hours: number): string {
  const minutes = Math.round(hours * 60);
  if (minutes < 60) return `${minutes} min`;
  if (minutes >= 24 * 60) return `${Math.round(minutes / 60)} h`;
  const m = minutes % 60;
  return m ? `${Math.floor(minutes / 60)} h ${String(m).padStart(2, "0")}` : `${minutes / 60} h`;
}

/** Hours of work with the working days that they fill, such as "31 h, about 4 working days of 8 h". */
export function workdays(hours: number, dayH: number): string {
  if (hours <= dayH || dayH <= 0) return span(hours);
  const days = Math.ceil(hours / dayH);
  return tr("{hours}, about {days} working days of {x}", {
    hours: span(hours),
    days,
    x: span(Math.round(2 * dayH) / 2),
  });
}

/** Hours that pass by themselves, such as a wait: "60 h", "5 days" on the calendar from three days on. */
export function elapsed(hours: number): string {
  if (hours < 72) return span(hours);
  const days = hours / 24;
  const shown = days < 10 ? Math.round(days * 10) / 10 : Math.round(days);
  return tr("{days, plural, one {{shown} day} other {{shown} days}}", {
    days: shown,
    shown: shown.toLocaleString(LOCALE),
  });
}

/** The value of a datetime-local field for an instant in a zone. */
export function toLocalField(t: string | number | Date, zone: string): string {
  const parts = Object.fromEntries(
    formatter(zone, "field", { year: "numeric", month: "2-digit", day: "2-digit", hour: "2-digit", minute: "2-digit" })
      .formatToParts(new Date(t))
      .map((p) => [p.type, p.value]),
  );
  return `${parts.year}-${parts.month}-${parts.day}T${parts.hour}:${parts.minute}`;
}

/** The instant of a datetime-local field in a zone, ISO in UTC; empty if the field is. */
export function fromLocalField(field: string, zone: string): string {
  if (!/^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(field)) return "";
  const asUTC = Date.parse(`${field}:00Z`);
  if (Number.isNaN(asUTC)) return "";
  // The zone's offset at that instant, then once more at the corrected one.
  let t = asUTC;
  for (let i = 0; i < 2; i++) t = asUTC - (Date.parse(`${toLocalField(t, zone)}:00Z`) - t);
  return new Date(t).toISOString();
}
