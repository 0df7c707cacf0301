/**
 * Entries that wait in the browser's database until the server has them: nothing that was touched is lost. Each belongs to
 * the person who made it, and is shown to and sent by nobody else.
 */
import type { Problem } from "./client";
import { closeDatabase, database, type Entry, type Waiting } from "./database";

export type { Entry, Refusal, Waiting } from "./database";

/** What the browser's database would not take: it waits here, and is lost when the page closes. */
let unkept: Waiting[] = [];

/** Keep an entry; false where the browser would not, so that it waits only as long as the page is open. */
export async function keep(job: string, maker: string, entry: Entry): Promise<boolean> {
  try {
    // the database gives each its place in the order
    await (await database()).add("entries", { job, maker, entry } as Waiting);
    return true;
  } catch {
    unkept = [...unkept, { order: -1 - unkept.length - Date.now(), job, maker, entry }];
    return false;
  }
}

/** The job that a sheet belongs to: the sheets of its further boards have a number after a dot. */
export const jobOf = (sheet: string) => sheet.replace(/\..*/, "");

/** One person's entries in their order, of one job with all its boards, or of all jobs. */
export async function waiting(maker: string, job?: string): Promise<Waiting[]> {
  let kept: Waiting[] = [];
  try {
    kept = await (await database()).getAll("entries");
  } catch {
    // what it would not take before is still below
  }
  return [...kept, ...unkept].filter(
    (each) => each.maker === maker && (job === undefined || jobOf(each.job) === jobOf(job)),
  );
}

export async function drop(order: number): Promise<void> {
  if (order < 0) unkept = unkept.filter((each) => each.order !== order);
  else await (await database()).delete("entries", order);
}

/** Note with an entry why the server would not take it. */
export async function refuse(each: Waiting, problem: Problem): Promise<void> {
  const { status, title, detail, faults } = problem;
  const refused = { ...each, refused: { status, title, detail, faults, ...problem.told } };
  if (each.order < 0) unkept = unkept.map((other) => (other.order === each.order ? refused : other));
  else await (await database()).put("entries", refused);
}

/** Close the database, for tests that begin anew. */
export async function closeOutbox(): Promise<void> {
  unkept = [];
  await closeDatabase();
}
