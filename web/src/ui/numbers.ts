/** A comma before three digits: thousands to one reader, thousandths to another. */
const EITHER_WAY = /^[-−]?[1-9]\d{0,2},\d{3}$/;

/** A number as it was typed, with comma or point and any minus; NaN where it is none, or may be two: "1,200". */
export function numberFrom(text: string): number {
  if (EITHER_WAY.test(text.trim())) return NaN;
  const plain = text.trim().replace(",", ".").replace("−", "-");
  return plain === "" ? NaN : Number(plain);
}

export type Reading = { value?: number; beyond?: "above" | "below" };

/** A reading as a meter shows it: a number, "OL" or "open" for more than it can read, "> 2000" or "< 1"; null where it is none. */
export function readingFrom(text: string): Reading | null {
  const plain = text.trim();
  if (/^(o\.?l\.?|open|∞)$/i.test(plain)) return { beyond: "above" };
  const beyond = plain.startsWith(">") ? "above" : plain.startsWith("<") ? "below" : undefined;
  const value = numberFrom(beyond ? plain.slice(1) : plain);
  if (!Number.isFinite(value)) return null;
  return beyond ? { value, beyond } : { value };
}

/** A reading as it was typed: what `readingFrom` takes. */
export function readingText(reading: { value?: number | null; beyond?: string | null } | undefined): string {
  if (reading?.value == null) return reading?.beyond ? "OL" : "";
  return `${reading.beyond === "above" ? "> " : reading.beyond === "below" ? "< " : ""}${reading.value}`;
}

const MINUTE_S = 60;
const HOUR_S = 3600;

/** Seconds as people say them: seconds up to two minutes, then minutes, from two hours on hours; nothing is left out. */
export function timeWords(seconds: number): string {
  const rest = (value: number) => Number(value.toPrecision(10));
  if (seconds < 2 * MINUTE_S) return `${rest(seconds)} s`;
  const hours = seconds < 2 * HOUR_S ? 0 : Math.floor(seconds / HOUR_S);
  const minutes = Math.floor((seconds - hours * HOUR_S) / MINUTE_S);
  const left = rest(seconds - hours * HOUR_S - minutes * MINUTE_S);
  const parts = [
    [hours, "h"],
    [minutes, "min"],
    [left, "s"],
  ] as const;
  return parts
    .filter(([count]) => count > 0)
    .map(([count, unit]) => `${count} ${unit}`)
    .join(" ");
}
