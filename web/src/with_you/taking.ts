/** Takes a job along: all that its pages are worked out from, the pages as they are, its pictures. */
import { SAYS_NOTHING_OF_IT, answer, api } from "@/api/client";
import { database, type Taken } from "@/api/database";
import { jobOf, waiting } from "@/api/outbox";
import { reach } from "@/api/reach";
import { checkRoom } from "./room";
import { core, keepCore, loadCore } from "./core";
import { changeTaken, keepAnswer, markOf, PAGES, putTaken, takenJobs } from "./takings";

export type Progress = { done: number; of: number; bytes: number };
type Document = {
  as_of: string;
  entries: { here: string }[];
  state: State;
  families: Record<string, { code: string }>;
};
type State = { board: string; boards: Record<string, unknown>; pictures: Record<string, unknown> };

/** For how long a job that nobody asked for stays along after it was looked at. */
export const STAYS_MS = 7 * 24 * 3600 * 1000;

/** Take a job along as it stands now. Throws a Problem where the depot cannot be asked, or there is no room. */
export async function takeAlong(
  person: string,
  id: string,
  asked: boolean,
  onProgress: (progress: Progress) => void = () => undefined,
): Promise<Taken> {
  const job = jobOf(id);
  await checkRoom();
  const text = await answer(
    api.GET("/api/jobs/{job_id}/with-you", { params: { path: { job_id: job } }, parseAs: "text" }),
  );
  const document = String(text);
  const read = JSON.parse(document) as Document;
  const taken: Taken = {
    person,
    job,
    asOf: read.as_of,
    entries: read.entries.length,
    since: [],
    asked,
    bytes: document.length,
    lookedAt: Date.now(),
  };
  const there = new Set(read.entries.map((each) => each.here));
  await putTaken({ person, job, text: document }, (old) => {
    // what the depot had after it wrote this is still entered here
    taken.since = (old?.since ?? []).filter(({ entry }) => !there.has(entry.id));
    taken.asked ||= old?.asked ?? false;
    return taken;
  });
  await keepCore();
  await keepPages(taken, read, onProgress);
  if (asked) loadCore();
  return taken;
}

/** Keep a job's pages and pictures as they are, so that it opens at once. */
async function keepPages(taken: Taken, read: Document, onProgress: (progress: Progress) => void) {
  const { person, job } = taken;
  const mark = markOf(
    taken,
    (await waiting(person, job)).filter((each) => !each.refused),
  );
  const sheets = Object.keys(read.state.boards).map((board) => `.${board}`);
  const pages = ["", ...sheets].flatMap((sheet) => PAGES.map((page) => `/api/jobs/${job}${sheet}${page}`));
  const pictures = Object.keys(read.state.pictures).map((name) => `/api/jobs/${job}/pictures/${name}`);
  const kinds = [...new Set(Object.values(read.families).map(({ code }) => `/api/families/${code}`))];
  // what is no part of the job is kept where every answer is seen
  for (const address of ["/api/session", "/api/steps-done", "/api/depot", ...kinds])
    await reach(new Request(new URL(address, location.origin)));
  const all = pages.length + pictures.length;
  let bytes = taken.bytes;
  const tell = (done: number) => onProgress({ done, of: all, bytes });
  for (const [index, address] of pages.entries()) {
    tell(index);
    const response = await reach(new Request(new URL(address, location.origin)));
    // what says nothing of the page, such as that nobody is signed in, is not kept as the page
    if (response.status >= 500 || SAYS_NOTHING_OF_IT.includes(response.status)) continue;
    const body = await response.text();
    bytes += body.length;
    await keepAnswer({ person, address, mark, status: response.status, body });
  }
  for (const [index, address] of pictures.entries()) {
    tell(pages.length + index);
    const response = await reach(new Request(new URL(address, location.origin)));
    if (!response.ok) continue;
    const file = await response.blob();
    bytes += file.size;
    await (await database()).put("files", { person, address, job, file, waits: false });
  }
  tell(all);
  await changeTaken(person, job, (old) => old && { ...old, bytes });
}

/** Have a job along no longer; what was entered in it, and pictures that wait, stay until they are sent. */
export async function leaveBehind(person: string, job: string): Promise<void> {
  const db = await database();
  await db.delete("jobs", [person, job]);
  await db.delete("documents", [person, job]);
  const theirs = IDBKeyRange.bound([person], [person, []]);
  for (const key of await db.getAllKeys("answers", theirs))
    if (key[1].startsWith(`/api/jobs/${job}`)) await db.delete("answers", key);
  for (const file of await db.getAll("files", theirs))
    if (file.job === job && !file.waits) await db.delete("files", [person, file.address]);
  await core.takeOut(job);
}

/** Leave behind what came along by itself and was not looked at for a week. */
export async function leaveOldBehind(person: string, now: number) {
  for (const each of await takenJobs(person))
    if (!each.asked && now - each.lookedAt > STAYS_MS) await leaveBehind(person, each.job);
}
