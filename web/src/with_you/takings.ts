/** Jobs that somebody has along: kept on this device, with who took them and as of when. */
import { database, type KeptAnswer, type Taken } from "@/api/database";
import { jobOf } from "@/api/outbox";
import { core } from "./core";

/** The pages of a job that are asked for at once, so that it opens before the core is loaded; but for what hangs on the moment. */
export const PAGES = [
  "", "/boards/original", "/boards/replacement", "/between", "/comparison", "/rule-out", "/machine", "/take-along",
  "/costs", "/record", "/traces", "/wiring", "/leaflet", "/presses", "/fitting", "/proving",
  "/runs?page=1&size=5", "/hand-over", "/entries?page=1", "/key", "/candidates?page=1&size=12", "/assumable", "/way-in",
  "/earlier",
]; // prettier-ignore

export const takenJob = async (person: string, job: string): Promise<Taken | undefined> =>
  (await database()).get("jobs", [person, jobOf(job)]);

export async function takenJobs(person: string): Promise<Taken[]> {
  const all = await (await database()).getAll("jobs", IDBKeyRange.bound([person], [person, []]));
  return all.sort((one, other) => other.lookedAt - one.lookedAt);
}

/** Change what is kept of a job in one go: another tab, or an entry that is sent meanwhile, does the same. */
export async function changeTaken(person: string, job: string, change: (old: Taken | undefined) => Taken | undefined) {
  const all = (await database()).transaction("jobs", "readwrite");
  const changed = change(await all.store.get([person, jobOf(job)]));
  if (changed) await all.store.put(changed);
  await all.done;
}

/** Have a job along no longer; what was entered in it, and pictures that wait, stay until they are sent. */
export async function leaveBehind(person: string, job: string): Promise<void> {
  const db = await database();
  await db.delete("jobs", [person, job]);
  const theirs = IDBKeyRange.bound([person], [person, []]);
  for (const key of await db.getAllKeys("answers", theirs))
    if (key[1].startsWith(`/api/jobs/${job}`)) await db.delete("answers", key);
  for (const file of await db.getAll("files", theirs))
    if (file.job === job && !file.waits) await db.delete("files", [person, file.address]);
  await core.takeOut(job);
}

export const keptAnswer = async (person: string, address: string): Promise<KeptAnswer | undefined> =>
  (await database()).get("answers", [person, address]);

export const keepAnswer = async (answer: KeptAnswer) => void (await (await database()).put("answers", answer));

/** What an answer about a job hangs on: how it was taken along, and what was entered since. */
export const markOf = (taken: Taken, waiting: { entry: { id: string } }[]) =>
  [taken.asOf, ...taken.since.map(({ entry }) => entry.id), ...waiting.map(({ entry }) => entry.id)].join(" ");
