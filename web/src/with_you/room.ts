/** The room on this device: asked before it is needed, and said before it hurts. */
import { Problem } from "@/api/client";

/** What must be left for a job with its pictures and the core. */
const ROOM_BYTES = 60e6;

/** Ask the browser to keep what is along also when room runs short; false where it will not promise that. */
export async function askToStay(): Promise<boolean> {
  if (!("storage" in navigator) || !("persist" in navigator.storage)) return false;
  return (await navigator.storage.persisted()) || (await navigator.storage.persist());
}

/** Refuse to take along what there is no room for. Throws a Problem. */
export async function checkRoom(): Promise<void> {
  if (!("storage" in navigator) || !("estimate" in navigator.storage)) return;
  const { quota = Infinity, usage = 0 } = await navigator.storage.estimate();
  if (quota - usage < ROOM_BYTES)
    throw new Problem(
      507,
      "Too little room on this device",
      `${Math.round((quota - usage) / 1e6)} MB are left for the browser. Leave jobs behind, or make room on the device.`,
    );
}
