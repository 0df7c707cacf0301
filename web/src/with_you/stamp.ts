/** What an entry says of how it was made: when, by which clock, on which device, and what was known of the job then. */
import type { Stamp } from "@/api/database";
import { newId } from "@/api/ids";
import { waiting } from "@/api/outbox";
import { isAway } from "@/api/reach";
import { clockOffset } from "./clock";
import { takenJob } from "./takings";

const KEY = "worthy-twin device";

/** What this device is called; it says nothing of who works on it. */
export function deviceId(): string {
  let id = localStorage.getItem(KEY);
  if (!id) localStorage.setItem(KEY, (id = newId()));
  return id;
}

/** The stamp of an entry that was made at a moment on a sheet that shows so many entries. */
export async function stampOf(person: string, sheet: string, shown: number, at: Date): Promise<Stamp> {
  return {
    made_at: at.toISOString(),
    clock_ahead_ms: clockOffset(),
    seen: await seenOf(person, sheet, shown),
    device: deviceId(),
  };
}

/** How many entries of a job this device had from the depot: what it has only here is not among them. */
async function seenOf(person: string, sheet: string, shown: number): Promise<number> {
  try {
    if (!isAway() && (await waiting(person, sheet)).length === 0) return shown;
    const taken = await takenJob(person, sheet);
    return taken ? Math.min(shown, taken.entries + taken.since.length) : shown;
  } catch {
    return shown;
  }
}
