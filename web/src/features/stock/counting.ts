/** A count of a shelf as it goes: what was read how often. It stays on this device until it was sent. */

export type Counted = { id: string; pieces: Record<string, number> };

/** So many of a piece more or less; none of it leaves the count. */
export function counted(count: Counted, piece: string, change: number): Counted {
  const { [piece]: was = 0, ...rest } = count.pieces;
  const now = Math.max(0, was + change);
  return { ...count, pieces: { ...rest, [piece]: now } };
}

const keyOf = (van: string) => `worthy-twin count ${van}`;

/** The count of a van that was begun and not sent. */
export function keptCount(van: string): Counted | null {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(van)) ?? "null") as unknown;
    return isCount(kept) ? kept : null;
  } catch {
    return null;
  }
}

/** Keep a count, or forget it where it is null. */
export function keepCount(van: string, count: Counted | null) {
  try {
    if (count === null) localStorage.removeItem(keyOf(van));
    else localStorage.setItem(keyOf(van), JSON.stringify(count));
  } catch {
    // a device that keeps nothing counts all the same
  }
}

function isCount(kept: unknown): kept is Counted {
  if (typeof kept !== "object" || kept === null) return false;
  const { id, pieces } = kept as Partial<Counted>;
  return typeof id === "string" && typeof pieces === "object" && pieces !== null;
}
