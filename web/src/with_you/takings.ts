/** Jobs that somebody has along: kept on this device, with who took them and as of when. */
import { database, type Document, type KeptAnswer, type Taken } from "@/api/database";
import { jobOf } from "@/api/outbox";

/** The pages of a job that are asked for at once, so that it opens before the core is loaded; but for what hangs on the moment. */
export const PAGES = [
  "", "/boards/original", "/boards/replacement", "/between", "/comparison", "/rule-out", "/machine", "/alternatives", "/take-along",
  "/costs", "/record", "/traces", "/wiring", "/leaflet", "/presses", "/fitting", "/proving",
  "/runs?page=1&size=5", "/hand-over", "/entries?page=1", "/key", "/candidates?page=1&size=12", "/assumable", "/way-in",
  "/earlier",
]; // prettier-ignore

export const takenJob = async (person: string, job: string): Promise<Taken | undefined> =>
  (await database()).get("jobs", [person, jobOf(job)]);

/** A job as it was taken along, and what its pages are worked out from, as of one moment; nothing where it is not along. */
export async function takenWhole(person: string, job: string): Promise<[Taken, string] | null> {
  const all = (await database()).transaction(["jobs", "documents"]);
  const [taken, document] = await Promise.all([
    all.objectStore("jobs").get([person, jobOf(job)]),
    all.objectStore("documents").get([person, jobOf(job)]),
  ]);
  return taken && document ? [taken, document.text] : null;
}

/** Keep a job that is taken along, with its document. */
export async function putTaken(document: Document, change: (old: Taken | undefined) => Taken) {
  const all = (await database()).transaction(["jobs", "documents"], "readwrite");
  const jobs = all.objectStore("jobs");
  await jobs.put(change(await jobs.get([document.person, document.job])));
  await all.objectStore("documents").put(document);
  await all.done;
}

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

export const keptAnswer = async (person: string, address: string): Promise<KeptAnswer | undefined> =>
  (await database()).get("answers", [person, address]);

/** Forget what was answered once, where it is not asked for again. */
export const forgetAnswer = async (person: string, address: string) =>
  void (await (await database()).delete("answers", [person, address]));

export const keepAnswer = async (answer: KeptAnswer) => void (await (await database()).put("answers", answer));

/** What an answer about a job hangs on: how it was taken along, and what was entered since. */
export const markOf = (taken: Taken, waiting: { entry: { id: string } }[]) =>
  [taken.asOf, ...taken.since.map(({ entry }) => entry.id), ...waiting.map(({ entry }) => entry.id)].join(" ");

/** Note entries that the depot has now: until the job is taken along anew, they are entered here as well. */
export async function noteSent(person: string, sheet: string, entries: Taken["since"][number]["entry"][]) {
  try {
    await changeTaken(person, sheet, (old) => {
      if (!old) return old;
      const known = new Set(old.since.map((each) => each.entry.id));
      const news = entries.filter((each) => !known.has(each.id)).map((entry) => ({ sheet, entry }));
      return { ...old, since: [...old.since, ...news] };
    });
  } catch {
    // a device without room for them has the job along no longer: it would lack what the depot has
    await (await database()).delete("jobs", [person, jobOf(sheet)]).catch(() => undefined);
  }
}

const NOBODY = "";
const PERSON = "who works here";

/** Who works on this device, as the database has it. */
export const personKept = async () => (await keptAnswer(NOBODY, PERSON))?.body || null;

export const keepPerson = (person: string | null) =>
  keepAnswer({ person: NOBODY, address: PERSON, mark: "", status: 200, body: person ?? "" });
