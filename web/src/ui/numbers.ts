/** A number as people type it: decimal point or comma, a minus of any kind. NaN for what is none. */
export function readNumber(text: string): number {
  const t = text.trim().replace(",", ".").replace("\u2212", "-");
  return /^[-+]?(\d+\.?\d*|\.\d+)$/.test(t) ? Number(t) : Number.NaN;
}

/**
 * The numbers of a line: parted by semicolons, tabs or spaces, each with a decimal point or comma; or, where there
 * are none of these, by a single comma: "1.20, 0.45", "1,20 0,45", "1,20; 0,45", "1.2,0.45". What could be read in
 * two ways ("1,20,0,45") is NaN.
 */
export function readNumbers(line: string): number[] {
  const parts = line
    .trim()
    .split(/[;\s]+/)
    .filter(Boolean);
  const [only] = parts;
  if (parts.length === 1 && only !== undefined && /,/.test(only)) {
    const halves = only.split(",");
    // Digits on both sides of one comma could be one decimal number.
    return halves.length === 2 && halves.some((h) => h.includes(".")) ? halves.map(readNumber) : [Number.NaN];
  }
  return parts.map((p) => readNumber(p.replace(/,$/, "")));
}
