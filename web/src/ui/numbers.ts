/** Metres in the units that may stand behind a length. */
const FOOT = 0.3048;
const INCH = 0.0254;
const LENGTHS: Record<string, number> = { mm: 0.001, cm: 0.01, m: 1, µm: 1e-6 };
const FEET =
  /^([-+]?)(?:(\d+(?:[.,]\d+)?)\s*(?:'|ft)\s*)?(?:(\d+(?:[.,]\d+)?)?(?:\s+)?(?:(\d+)\/(\d+))?\s*(?:"|''|in)?)?$/;
const DEGREES =
  /^([NSEW])?\s*([-+]?\d+(?:[.,]\d+)?)\s*[°d:\s]\s*(?:(\d+(?:[.,]\d+)?)\s*['m:\s]?\s*(?:(\d+(?:[.,]\d+)?)\s*(?:"|''|s)?)?)?\s*([NSEW])?$/i;

/** Quotes, primes and minus signs of every kind as plain ones. */
const plain = (text: string) =>
  text
    .trim()
    .replace(/[\u2032\u2019\u2018\u00b4`]/g, "'")
    .replace(/[\u2033\u201d\u201c]/g, '"')
    .replace(/[\u2212\u2013]/g, "-")
    .replace(/[\u00a0\u202f]/g, " ");

/**
 * A number as people type it: decimal point or comma, thousands parted by the other one or by spaces, a minus of any
 * kind. NaN for what is none, and for one that could be read in two ways ("1,234.5,6").
 */
export function readNumber(text: string): number {
  let t = plain(text);
  const grouped =
    /^[-+]?\d{1,3}(?: \d{3})+(?:[.,]\d+)?$|^[-+]?\d{1,3}(?:,\d{3})+\.\d+$|^[-+]?\d{1,3}(?:\.\d{3})+,\d+$/.exec(t);
  if (grouped) {
    const decimal = Math.max(t.lastIndexOf("."), t.lastIndexOf(","));
    t = [...t].filter((c, i) => i === decimal || !/[ .,]/.test(c)).join("");
  }
  t = t.replace(",", ".");
  return /^[-+]?(\d+\.?\d*|\.\d+)$/.test(t) ? Number(t) : Number.NaN;
}

/** Feet and inches in metres: 34' 6", 34'6, 34 ft 6 1/2 in, 6 1/2". NaN without a mark of either. */
function readFeet(text: string): number {
  if (!/['"]|ft|in/.test(text)) return Number.NaN;
  const m = FEET.exec(text);
  if (!m || (m[2] === undefined && m[3] === undefined && m[4] === undefined)) return Number.NaN;
  const num = (s?: string) => (s === undefined ? 0 : Number(s.replace(",", ".")));
  const inches = num(m[3]) + (m[4] ? num(m[4]) / num(m[5]) : 0);
  return (m[1] === "-" ? -1 : 1) * (num(m[2]) * FOOT + inches * INCH);
}

/** Degrees, minutes and seconds in degrees: 51°30'20"N, S 4° 30.5', 51 30 20 W. NaN for what is none. */
export function readDegrees(text: string): number {
  const t = plain(text);
  const lone = /^([NSEW])?\s*([-+]?\d+(?:[.,]\d+)?)\s*°?\s*([NSEW])?$/i.exec(t);
  const m = lone ? [lone[0], lone[1], lone[2], undefined, undefined, lone[3]] : DEGREES.exec(t);
  if (!m || (m[1] && m[5])) return Number.NaN;
  const num = (s?: string) => (s === undefined ? 0 : Number(s.replace(",", ".")));
  if (num(m[3]) >= 60 || num(m[4]) >= 60) return Number.NaN;
  const side = (m[1] ?? m[5] ?? "").toUpperCase();
  const size = Math.abs(num(m[2])) + num(m[3]) / 60 + num(m[4]) / 3600;
  return (m[2]?.startsWith("-") ? -1 : 1) * (side === "S" || side === "W" ? -1 : 1) * size;
}

/** What parts latitude from longitude, the plainest first: 52,95 0,85 has a space, 52.95,0.85 a comma. */
const PARTED = [/\s*[;/]\s*/g, /\s*,\s+|\s+|(?<=\d\D*[NS])(?=\d)/gi, /,/g];

/**
 * Latitude and longitude as they are pasted: 52.95, 0.85 or 52°57'N 0°51'E or N 52 57.0 E 0 51.2. Undefined for what is
 * none, or could be parted in two ways.
 */
export function readPosition(text: string): { latitudeDeg: number; longitudeDeg: number } | undefined {
  const t = text.trim();
  for (const by of PARTED) {
    const read = [...t.matchAll(by)].flatMap((m) => {
      const a = t.slice(0, m.index);
      const b = t.slice((m.index ?? 0) + m[0].length);
      const turned = /[EW]/i.test(a) || /[NS]/i.test(b);
      const at = { latitudeDeg: readDegrees(a), longitudeDeg: readDegrees(b) };
      return !turned && Math.abs(at.latitudeDeg) <= 90 && Math.abs(at.longitudeDeg) <= 180 ? [at] : [];
    });
    if (read.length > 0) return read.length === 1 ? read[0] : undefined;
  }
  return undefined;
}

/**
 * A quantity in its metric unit as people type it: a number in the shown unit, a length with a unit of its own behind
 * it (34' 6", 120 cm), a place in degrees, minutes and seconds.
 */
export function readQuantity(text: string, unit: string, toMetric: (v: number, unit: string) => number): number {
  const v = readNumber(text);
  if (!Number.isNaN(v)) return toMetric(v, unit);
  const t = plain(text);
  if (unit === "°") return readDegrees(t);
  const kept = LENGTHS[unit];
  if (kept === undefined) return Number.NaN;
  const feet = readFeet(t);
  if (!Number.isNaN(feet)) return feet / kept;
  const own = /^(.*?)\s*(mm|cm|m|µm)$/.exec(t);
  return own ? (readNumber(own[1] ?? "") * (LENGTHS[own[2] ?? ""] ?? Number.NaN)) / kept : Number.NaN;
}

/**
 * The quantities of a line, kept in their metric unit: parted by semicolons, tabs or spaces, each with a decimal point
 * or comma; or, where there are none of these, by commas: "1.20, 0.45", "1,20 0,45", "1,20; 0,45", "1.2,0.45",
 * 3' 6", 2' 1". Of a line that is known to have so many, "1,20,0,45" too is plain. What could be read in two ways is
 * NaN.
 */
export function readQuantities(
  line: string,
  unit: string,
  toMetric: (v: number, unit: string) => number,
  many = 0,
): number[] {
  // Feet and inches have spaces inside: they are read first and leave their metres behind.
  const feet: number[] = [];
  const t = plain(line).replace(
    /[-+]?\d+(?:[.,]\d+)?\s*'(?!')\s*(?:\d+(?:[.,]\d+)?(?:\s+\d+\/\d+)?\s*(?:"|''))?|[-+]?(?:\d+(?:[.,]\d+)?\s+)?\d+(?:[.,]\d+|\/\d+)?\s*(?:"|'')/g,
    (all) => {
      feet.push(readFeet(all.trim()));
      return `#${feet.length - 1} `;
    },
  );
  const one = (s: string) => {
    const mark = /^#(\d+)$/.exec(s);
    return mark ? (feet[Number(mark[1])] as number) / (LENGTHS[unit] ?? Number.NaN) : toMetric(readNumber(s), unit);
  };
  const parts = t
    .split(/[;\s]+/)
    .map((p) => p.replace(/,$/, ""))
    .filter((p) => p !== "" && p !== ",");
  const [only] = parts;
  if (parts.length === 1 && only !== undefined && only.includes(",")) {
    const halves = only.split(",");
    if (halves.length === many || (halves.length === 2 && halves.some((h) => h.includes(".")))) return halves.map(one);
    // Every number with its own decimal comma.
    if (many > 0 && halves.length === 2 * many)
      return Array.from({ length: many }, (_, k) => one(`${halves[2 * k]},${halves[2 * k + 1]}`));
    return [Number.NaN];
  }
  return parts.map(one);
}
