import type { Schemas } from "@/api/client";

/** A task that somebody ended, as it is sent. */
export type Ended = Omit<Schemas["AttemptGiven"], "actions"> & { actions: Record<string, unknown>[] };

const keyOf = (person: string) => `worthy-twin practice waiting ${person}`;
const MOST = 50;

/** What a person ended on this device and did not send yet, the oldest first. */
export function waiting(person: string): Ended[] {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(person)) ?? "[]") as unknown;
    return Array.isArray(kept) ? (kept as Ended[]).filter((each) => typeof each?.id === "string") : [];
  } catch {
    return [];
  }
}

/** Leave an ended task here until it is sent; or, where it was, no longer. */
export function leave(person: string, ended: Ended, sent = false) {
  const others = waiting(person).filter((each) => each.id !== ended.id);
  try {
    localStorage.setItem(keyOf(person), JSON.stringify(sent ? others : [...others, ended].slice(-MOST)));
  } catch {
    // a device that keeps nothing sends what it can at once
  }
}
