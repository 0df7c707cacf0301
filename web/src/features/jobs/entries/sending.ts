/** Sends a person's entries one after another, by one tab at a time; what the server refuses stays with its reason. */
import { Problem, answer, api, forgetToken } from "@/api/client";
import { drop, refuse, waiting, type Waiting } from "@/api/outbox";
import { sendKeptPicture } from "@/with_you/pictures";
import { noteSent } from "@/with_you/taking";
import type { Job } from "../api";

/** Answers that say nothing of the entry itself: it waits and is sent again. */
const WAIT_AND_SEND_AGAIN = [401, 403, 408, 425, 429];

export type Sent = { shown: Job | null; refused: number; problem: Problem | null };

/** Whether an answer means that an entry is sent again later, and not that the entry is wrong. */
export function waits(problem: Problem): boolean {
  return problem.offline || problem.status >= 500 || WAIT_AND_SEND_AGAIN.includes(problem.status);
}

/**
 * Send what waits of a job, in order. `problem` says why the rest still waits; null where nothing does. What was refused
 * is passed over: it waits for the person who made it.
 */
export async function sendAll(job: string, maker: string, onSent: (shown: Job) => Promise<void>): Promise<Sent> {
  const sent: Sent = { shown: null, refused: 0, problem: null };
  for (let next = await first(job, maker); next; next = await first(job, maker)) {
    try {
      if (next.entry.after !== null) await sendKeptPicture(maker, next.job, next.entry.target);
      sent.shown = await send(next);
      await noteSent(maker, next.job, next.entry);
      await drop(next.order);
      await onSent(sent.shown);
    } catch (error) {
      const problem = error instanceof Problem ? error : new Problem(500, "Something went wrong here", String(error));
      if (waits(problem)) return { ...sent, problem };
      await refuse(next, problem);
      sent.refused += 1;
    }
  }
  return sent;
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

async function first(job: string, maker: string): Promise<Waiting | undefined> {
  return (await waiting(maker, job)).find((each) => !each.refused);
}

async function send(each: Waiting): Promise<Job> {
  const body = { clock_ahead_ms: 0, device: "", ...each.entry, maker: each.maker };
  const params = { path: { job_id: each.job } };
  const post = () => answer(api.POST("/api/jobs/{job_id}/entries", { params, body }));
  try {
    return await post();
  } catch (error) {
    // the form token may be of an earlier sign-in: once more with a fresh one
    if (!(error instanceof Problem) || error.status !== 403) throw error;
    forgetToken();
    return post();
  }
}
