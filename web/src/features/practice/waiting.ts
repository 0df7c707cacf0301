import type { Schemas } from "@/api/client";
import { keepValue, keptValue } from "@/api/kept";

/** A task that somebody ended, as it is sent. */
export type Ended = Omit<Schemas["AttemptGiven"], "actions"> & { actions: Record<string, unknown>[] };

const WAITING = "practice waiting";
const MOST = 50;

/** What a person ended on this device and did not send yet, the oldest first. */
export function waiting(person: string): Ended[] {
  const kept = keptValue<unknown>(WAITING, person);
  return Array.isArray(kept) ? (kept as Ended[]).filter((each) => typeof each?.id === "string") : [];
}

/** Leave an ended task here until it is sent; or, where it was, no longer. */
export function leave(person: string, ended: Ended, sent = false) {
  const others = waiting(person).filter((each) => each.id !== ended.id);
  keepValue(WAITING, sent ? others : [...others, ended].slice(-MOST), person);
}
