/** A number as it was typed, with comma or point and any minus; NaN where it is none. */
export function numberFrom(text: string): number {
  const plain = text.trim().replace(",", ".").replace("−", "-");
  return plain === "" ? NaN : Number(plain);
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
