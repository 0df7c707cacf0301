/** What waits is sent when the connection comes back, though no page is open: where the browser has background sync. */
import { waiting } from "@/api/outbox";
import { personKept } from "@/with_you/takings";
import { aloneInTurn, sendAll } from "./sending";

/** What the browser calls it when the connection is back. */
export const WHAT_WAITS = "what waits";
type Syncs = { sync?: { register: (tag: string) => Promise<void> } };

/** Have what waits sent later. A browser without background sync sends it when a page is open again. */
export async function sendLater(): Promise<void> {
  if (!("serviceWorker" in navigator)) return;
  const found = (await navigator.serviceWorker.getRegistration("/")) as (ServiceWorkerRegistration & Syncs) | undefined;
  await found?.sync?.register(WHAT_WAITS).catch(() => undefined);
}

/** Send all that waits of who works on this device. Throws while something still waits: the browser tries again later. */
export async function sendWhatWaits(): Promise<void> {
  const person = await personKept();
  if (!person) return;
  const jobs = new Set((await waiting(person)).filter((each) => !each.refused).map((each) => each.job));
  let problem: Error | null = null;
  for (const job of jobs) {
    // what stands in the way of one job is not in the way of the next
    const sent = await aloneInTurn(() => sendAll(job, person, () => Promise.resolve()));
    problem ??= sent?.problem ?? null;
  }
  if (problem) throw problem;
}
