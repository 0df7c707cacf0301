/**
 * Entries that wait on this device until the depot has them: nothing that was touched is lost. Each belongs to the person who made
 * it, and is shown to and sent by nobody else.
 *
 * What waits is known at once (`pendingOf`), with what the browser's database does not have yet; sheets are shown with it.
 */
import type { Problem } from "./client";
import { closeDatabase, database, type Entry, type Stamp, type Waiting } from "./database";

export type { Entry, Refusal, Waiting } from "./database";

const NONE: readonly Waiting[] = [];

/** What the browser's database would not take: it waits here, and is lost when the page closes. */
let unkept: Waiting[] = [];
/** Its places in the order are below 0, each given once. */
let lastUnkept = 0;
/** What was made and is on its way into the database. */
let coming: Waiting[] = [];
/** What the database had of each person when it was last read. */
const kept = new Map<string, readonly Waiting[]>();
/** What was asked for since anything changed: the same list for the same question. */
let answers = new Map<string, readonly Waiting[]>();
const listeners = new Set<() => void>();

/** Be told when what waits is another. */
export function onPending(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** What waits of a person, of one job with all its boards or of all, as far as it is known at once; null before it was read. */
export function pendingOf(maker: string, job?: string): readonly Waiting[] | null {
  if (!kept.has(maker)) return null;
  const question = `${maker} ${job ?? ""}`;
  const before = answers.get(question);
  if (before) return before;
  const all = pendingHere(maker, job);
  const answer = all.length ? all : NONE;
  answers.set(question, answer);
  return answer;
}

/** What waits of a person, of what is known of it here: what the database has besides is not among it before it was read. */
export function pendingHere(maker: string, job?: string): readonly Waiting[] {
  const there = withUnkept(kept.get(maker) ?? []);
  const ids = new Set(there.map((each) => each.entry.id));
  // read from the database already, and not yet off those on their way
  const onTheWay = coming.filter((each) => !ids.has(each.entry.id));
  return [...there, ...onTheWay].filter((each) => isOf(each, maker, job));
}

/** Read what waits of a person. A browser that keeps nothing has nothing. */
export async function readPending(maker: string): Promise<void> {
  kept.set(maker, await inDatabase(maker));
  tell();
}

function tell() {
  answers = new Map();
  listeners.forEach((each) => each());
}

/** Other tabs show the same sheets: they are told, and read what waits anew. */
const tabs = "BroadcastChannel" in globalThis ? new BroadcastChannel("worthy-twin outbox") : null;
if (tabs) tabs.onmessage = ({ data }: MessageEvent<string>) => void (kept.has(data) && readPending(data));

async function changed(maker: string) {
  await readPending(maker);
  tabs?.postMessage(maker);
}

/** What is written into the database is written in the order in which it was made. */
let writing: Promise<unknown> = Promise.resolve();

/**
 * Have an entry wait. It shows at once; `stamp` says how it was made, and is asked before it is kept. False where the browser would
 * not keep it, so that it waits only as long as the page is open.
 */
export function keep(job: string, maker: string, entry: Entry, stamp?: () => Promise<Stamp>): Promise<boolean> {
  const one: Waiting = { order: 0, job, maker, entry };
  coming = [...coming, one];
  tell();
  const mine = writing.then(async () => {
    const whole = stamp ? { ...entry, ...(await stamp()) } : entry;
    const there = await written({ job, maker, entry: whole } as Waiting);
    // it is in the list that is read before it leaves those on their way: never for a moment in neither
    await readPending(maker);
    coming = coming.filter((each) => each !== one);
    tell();
    tabs?.postMessage(maker);
    return there;
  });
  writing = mine.catch(() => undefined);
  return mine;
}

/** Write an entry, after those that found no room before it: else what was said first would be sent last. */
async function written(each: Waiting): Promise<boolean> {
  const last = { ...each, order: (lastUnkept -= 1) };
  for (const one of [...unkept, last]) {
    // it was sent meanwhile
    if (one !== last && !unkept.includes(one)) continue;
    try {
      const { order: _, ...bare } = one;
      // the database gives each its place in the order
      await (await database()).add("entries", bare as Waiting);
      unkept = unkept.filter((other) => other !== one);
    } catch {
      unkept = [...unkept, last];
      return false;
    }
  }
  return true;
}

/** The job that a sheet belongs to: the sheets of its further boards have a number after a dot. */
export const jobOf = (sheet: string) => sheet.replace(/\..*/, "");

const isOf = (each: Waiting, maker: string, job?: string) =>
  each.maker === maker && (job === undefined || jobOf(each.job) === jobOf(job));

/** One person's entries in their order, of one job with all its boards, or of all jobs: those that could be sent now. */
export async function waiting(maker: string, job?: string): Promise<Waiting[]> {
  return withUnkept(await inDatabase(maker)).filter((each) => isOf(each, maker, job));
}

/** What the database has, and after it what it would not take; what is just being moved is there once. */
function withUnkept(there: readonly Waiting[]): Waiting[] {
  const ids = new Set(there.map((each) => each.entry.id));
  return [...there, ...unkept.filter((each) => !ids.has(each.entry.id))];
}

async function inDatabase(maker: string): Promise<Waiting[]> {
  try {
    return await (await database()).getAllFromIndex("entries", "maker", maker);
  } catch {
    return [];
  }
}

/** Have an entry wait no longer: the depot has it, or it is withdrawn. */
export async function drop({ order, maker }: Waiting): Promise<void> {
  if (order < 0) unkept = unkept.filter((each) => each.order !== order);
  else await (await database()).delete("entries", order);
  await changed(maker);
}

/** Note with an entry why the server would not take it. */
export async function refuse(each: Waiting, problem: Problem): Promise<void> {
  const { status, title, detail, faults } = problem;
  const refused = { ...each, refused: { status, title, detail, faults, ...problem.told } };
  if (each.order < 0) unkept = unkept.map((other) => (other.order === each.order ? refused : other));
  else await (await database()).put("entries", refused);
  await changed(each.maker);
}

/** Close the database, for tests that begin anew. */
export async function closeOutbox(): Promise<void> {
  await writing;
  unkept = [];
  coming = [];
  kept.clear();
  tell();
  await closeDatabase();
}
