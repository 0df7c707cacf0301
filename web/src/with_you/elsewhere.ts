/** Answers in the depot's place: from what somebody has along, and from what it said last. */
import { database, type Taken } from "@/api/database";
import { personHere } from "@/api/kept";
import { whereNotReached } from "@/api/reach";
import { askAlong } from "./along";
import { noteClock } from "./clock";
import { setPersonHere, whoIsHere } from "./person";
import { forgetAnswer, keepAnswer, keptAnswer, takenJob, takenJobs } from "./takings";

const OF_A_JOB = /^\/api\/jobs\/([0-9a-f-]{36})(?:\.[1-6])?(?:\/.*)?$/;
/** What is no part of a job and is kept as it was said last: who is signed in, what the depot has decided, kinds of machine, vans, practice. */
const KEPT = /^\/api\/(session|steps-done|depot|families\/[^/]+|stock\/vans(\/[^/]+)?|practice(\/task)?)$/;
const SESSION = "/api/session";
const SIGNS_IN = [SESSION, "/api/opening"];
const SAID_LAST = "as it was said last";
const JSON_KIND = "application/json";

/** From now on, what the server does not answer is answered here as far as it can be. */
export function answerHere() {
  whereNotReached({ asks, answer, seen });
}

function seen(request: Request, response: Response, askedAt: number | null) {
  if (askedAt !== null) noteClock(response, askedAt);
  const { pathname, search } = new URL(request.url);
  if (!response.ok) return;
  // whoever signs in is who works here from now on, and nobody else
  if (request.method === "POST" && SIGNS_IN.includes(pathname)) void keepSaid(SESSION, response.clone());
  if (request.method === "GET" && KEPT.test(pathname)) void keepSaid(pathname + search, response.clone());
}

async function keepSaid(address: string, response: Response) {
  try {
    const body = await response.text();
    if (address === SESSION) await setPersonHere((JSON.parse(body) as { username: string }).username);
    const person = personHere();
    if (person) await keepAnswer({ person, address, mark: SAID_LAST, status: response.status, body });
  } catch {
    // what the browser does not keep is asked for again
  }
}

async function answer(request: Request): Promise<Response | null> {
  const { pathname, search } = new URL(request.url);
  try {
    const person = await whoIsHere();
    if (!person) return null;
    if (pathname === "/api/jobs" && request.method === "GET") return said(200, await jobsAlong(person));
    const job = OF_A_JOB.exec(pathname)?.[1];
    if (!job) return await saidLast(person, request, pathname + search);
    const file = request.method === "GET" && (await (await database()).get("files", [person, pathname]));
    if (file) return new Response(file.file);
    const taken = await takenJob(person, job);
    if (!taken || !asks(request)) return null;
    const [status, body] = await askAlong(taken, request.method, pathname + search, await request.text());
    return status === 503 ? null : said(status, body);
  } catch {
    // what cannot be read here is not answered here
    return null;
  }
}

/** Whether something is asked, and not sent: entries wait for the depot, pictures too. */
const asks = ({ method, url }: Request) => {
  const { pathname } = new URL(url);
  return method === "GET"
    ? !pathname.endsWith("/with-you")
    : /\/(play|panel|panel\/slips|entries\/words)$/.test(pathname);
};

/** What an address answered last is not asked for again on this device. */
export async function forgetSaid(address: string) {
  const person = personHere();
  if (person) await forgetAnswer(person, address).catch(() => undefined);
}

async function saidLast(person: string, request: Request, address: string): Promise<Response | null> {
  const kept = request.method === "GET" ? await keptAnswer(person, address) : undefined;
  return kept ? said(kept.status, kept.body) : null;
}

/** The list of jobs, where the depot's cannot be had: those that are along. */
async function jobsAlong(person: string): Promise<string> {
  const items = await Promise.all((await takenJobs(person)).map(lineOf));
  return JSON.stringify({ items, total: items.length, page: 1, size: items.length });
}

async function lineOf(taken: Taken): Promise<unknown> {
  const kept = await keptAnswer(taken.person, `/api/jobs/${taken.job}`);
  return JSON.parse(kept?.body ?? (await askAlong(taken, "GET", `/api/jobs/${taken.job}`, ""))[1]) as unknown;
}

const said = (status: number, body: string) =>
  new Response(body, { status, headers: { "Content-Type": status < 400 ? JSON_KIND : "application/problem+json" } });
