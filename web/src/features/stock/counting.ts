/** A count of a shelf as it goes: what was read how often. It stays on this device until it was sent. */
import { keepValue, keptValue } from "@/api/kept";

export type Counted = { id: string; pieces: Record<string, number> };

/** So many of a piece more or less; none of it leaves the count. */
export function counted(count: Counted, piece: string, change: number): Counted {
  const { [piece]: was = 0, ...rest } = count.pieces;
  const now = Math.max(0, was + change);
  return { ...count, pieces: { ...rest, [piece]: now } };
}

const keyOf = (van: string) => `count ${van}`;

/** The count of a van that was begun and not sent. */
export function keptCount(van: string): Counted | null {
  const kept = keptValue<unknown>(keyOf(van));
  return isCount(kept) ? kept : null;
}

/** Keep a count, or forget it where it is null. */
export const keepCount = (van: string, count: Counted | null) => keepValue(keyOf(van), count);

function isCount(kept: unknown): kept is Counted {
  if (typeof kept !== "object" || kept === null) return false;
  const { id, pieces } = kept as Partial<Counted>;
  return typeof id === "string" && typeof pieces === "object" && pieces !== null;
}
