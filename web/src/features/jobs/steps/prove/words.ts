/** Words that the parts of proving share. */
export const LAST_WORDS: Record<string, string> = {
  "as the original": "as the original",
  off: "off",
  "cannot tell": "cannot tell at this accuracy",
  kept: "kept, held against nothing",
};

export const RISK_WORDS: Record<string, string> = {
  live: "Live parts.",
  gas: "Gas.",
  hot: "Hot parts.",
  moving: "Moving parts.",
};

/** A band of seconds in words. */
export function span(low: number, high: number): string {
  const one = (value: number) => String(Math.round(value * 10) / 10);
  return low === high ? `${one(low)} s` : `${one(low)} to ${one(high)} s`;
}
