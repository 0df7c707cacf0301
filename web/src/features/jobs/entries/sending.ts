/** Sends a person's entries one after another, by one tab at a time; what the server refuses stays with its reason. */
import { Problem, answer, api, forgetToken } from "@/api/client";
import { drop, refuse, waiting, type Waiting } from "@/api/outbox";
import { sendKeptPicture } from "@/with_you/pictures";
import { noteSent } from "@/with_you/takings";
import type { Job } from "../api";

/** As many as the server takes in one request, and a body that it reads. */
const MOST_TOGETHER = 50;

/** A request that is not answered by then is sent again: the line hangs, and the server takes an entry once. */
const PATIENCE_MS = 20_000;

export type Sent = { shown: Job | null; refused: number; problem: Problem | null };

/**
 * Send what waits of a job, in order. `problem` says why the rest still waits; null where nothing does. What was refused
 * is passed over: it waits for the person who made it.
 */
export async function sendAll(job: string, maker: string, onSent: (shown: Job) => Promise<void>): Promise<Sent> {
  const sent: Sent = { shown: null, refused: 0, problem: null };
  let most = MOST_TOGETHER;
  for (let run = await nextRun(job, maker, most); run[0]; run = await nextRun(job, maker, most)) {
    const next = run[0];
    try {
      if (next.entry.after !== null) await sendKeptPicture(maker, next.job, next.entry.target);
      const { taken, sheet } = run.length > 1 ? await sendRun(next.job, run) : { taken: 1, sheet: await send(next) };
      const there = run.slice(0, taken);
      // the one that was not taken is sent alone: it hears what is wrong with it
      most = taken < run.length ? 1 : MOST_TOGETHER;
      sent.shown = sheet;
      const entries = there.map((each) => each.entry);
      await noteSent(maker, next.job, entries);
      // the depot's sheet has them before they are shown as waiting no more
      await onSent(sheet);
      for (const each of there) await drop(each);
    } catch (error) {
      const problem = error instanceof Problem ? error : new Problem(500, "Something went wrong here", String(error));
      if (problem.isForLater) return { ...sent, problem };
      // a run is refused only as one: each of it is tried by itself
      if (run.length > 1) most = 1;
      else {
        await refuse(next, problem);
        sent.refused += 1;
        most = MOST_TOGETHER;
      }
    }
  }
  return sent;
}

/** What is sent next: entries of one sheet that follow each other; one that speaks of a picture goes alone, after it. */
async function nextRun(job: string, maker: string, most: number): Promise<Waiting[]> {
  const mine = (await waiting(maker, job)).filter((each) => !each.refused);
  const apart = (each: Waiting) => each.job !== mine[0]?.job || each.entry.target.startsWith("picture.");
  const end = mine.findIndex((each, index) => index > 0 && (apart(each) || apart(mine[0] as Waiting)));
  return mine.slice(0, Math.min(most, end < 0 ? mine.length : end));
}

/** Send entries of one sheet together; how many of them, from the first, the job has now. */
function sendRun(job: string, run: Waiting[]): Promise<{ taken: number; sheet: Job }> {
  const body = { entries: run.map(given) };
  return withToken(() =>
    answer(
      api.POST("/api/jobs/{job_id}/entries/waited", { params: { path: { job_id: job } }, body, signal: patience() }),
    ),
  );
}

/** What was asked for last in this page; what is asked for next waits for it. */
let turn: Promise<unknown> = Promise.resolve();

/** In a page one work after another, and one tab at a time; where another tab does it, null: it is left to that. */
export function aloneInTurn<T>(work: () => Promise<T>): Promise<T | null> {
  const mine = turn.then(() => inOneTab(work));
  turn = mine.catch(() => undefined);
  return mine;
}

/** Browsers have locks for pages that came encrypted or from the machine itself. */
async function inOneTab<T>(work: () => Promise<T>): Promise<T | null> {
  if (!("locks" in navigator)) return work();
  return navigator.locks.request("worthy-twin outbox", { ifAvailable: true }, async (lock) => (lock ? work() : null));
}

function send(each: Waiting): Promise<Job> {
  const params = { path: { job_id: each.job } };
  return withToken(() =>
    answer(api.POST("/api/jobs/{job_id}/entries", { params, body: given(each), signal: patience() })),
  );
}

const patience = () => AbortSignal.timeout(PATIENCE_MS);
const given = (each: Waiting) => ({ clock_ahead_ms: 0, device: "", ...each.entry, maker: each.maker });

/** Ask; once more with a fresh form token, where that was of an earlier sign-in. */
async function withToken<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask();
  } catch (error) {
    if (!(error instanceof Problem) || error.status !== 403) throw error;
    forgetToken();
    return ask();
  }
}
