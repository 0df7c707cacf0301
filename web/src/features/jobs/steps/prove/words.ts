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

type Timed = { seen_at: number | null; due_at: number | null };

/** How far an event is from what was due, in the order of a sentence: by how much it came late or early. */
export function apartWords({ seen_at: seen, due_at: due }: Timed): string {
  if (seen === null || due === null) return "";
  const apart = seen - due;
  return `${Math.abs(apart).toFixed(1)} s ${apart < 0 ? "before" : "after"} it was due`;
}

/** Events in the order of time: when they were seen, or when they were due. */
export function inTime<Event extends Timed>(events: Event[]): Event[] {
  const at = (each: Event) => each.seen_at ?? each.due_at ?? Infinity;
  return [...events].sort((one, other) => at(one) - at(other));
}
