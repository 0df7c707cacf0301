import { answer, api } from "@/api/client";
import { newId } from "@/api/ids";
import { drop, jobOf, keep, waiting, type Entry, type Waiting } from "@/api/outbox";
import { keepPicture, keptPicture } from "@/with_you/pictures";
import { keptAnswer } from "@/with_you/takings";
import { stampOf } from "@/with_you/stamp";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { withdraw } from "../entries/withdraw";
import { aloneInTurn, sendAll } from "../entries/sending";
import { valueAt } from "../entries/targets";

export type WaitingJob = { job: string; machine: string; entries: Waiting[] };

/** What waits on this device of what somebody made, job by job. */
export function useWaitingJobs(person: string) {
  return useQuery({ queryKey: ["waiting", person], queryFn: () => waitingJobs(person), refetchInterval: 3000 });
}

async function waitingJobs(person: string): Promise<WaitingJob[]> {
  const all = new Map<string, Waiting[]>();
  for (const each of await waiting(person)) all.set(jobOf(each.job), [...(all.get(jobOf(each.job)) ?? []), each]);
  return Promise.all(
    [...all].map(async ([job, entries]) => ({ job, entries, machine: (await machineOf(person, job)) ?? "A job" })),
  );
}

/** The machine of a job: as this device has it, or as the depot says. */
async function machineOf(person: string, job: string): Promise<string | undefined> {
  const kept = await keptAnswer(person, `/api/jobs/${job}`);
  if (kept) return (JSON.parse(kept.body) as { machine?: string }).machine;
  const asked = answer(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: job } } }));
  return asked.then((each) => each.machine).catch(() => undefined);
}

/** What can be done with entries that wait. */
export function useWaitingActions(person: string) {
  const queries = useQueryClient();
  const onSuccess = () => void queries.invalidateQueries();
  return {
    send: useMutation({ mutationFn: (job: string) => send(job, person), onSuccess }),
    withdraw: useMutation({ mutationFn: withdraw, onSuccess }),
    again: useMutation({
      mutationFn: async (each: Waiting) => {
        await sayAgain(person, each);
        await send(jobOf(each.job), person);
      },
      onSuccess,
    }),
    bringIn: useMutation({ mutationFn: (file: File) => bringIn(person, file), onSuccess }),
  };
}

const send = (job: string, person: string) => aloneInTurn(() => sendAll(job, person, () => Promise.resolve()));

/** Say something anew, of the job as it stands at the depot now. */
async function sayAgain(person: string, each: Waiting): Promise<void> {
  const job = await answer(
    api.GET("/api/jobs/{job_id}", { params: { path: { job_id: each.job } }, cache: "no-store" }),
  );
  const { entry } = each;
  await keep(each.job, person, {
    ...entry,
    id: newId(),
    before: valueAt(job, entry.target),
    upon: null,
    ...(await stampOf(person, each.job, job.entry_count, new Date())),
    seen: job.entry_count,
  });
  await drop(each);
}

const FORMAT = "worthy-twin/entries";
type EntriesFile = {
  format: string;
  version: number;
  maker: string;
  entries: { job: string; entry: Entry }[];
  /** Pictures of which the entries speak and which the depot does not have, as data addresses (RFC 2397). */
  pictures?: { job: string; picture: string; data: string }[];
};

/** What waits, as a file, with the pictures that wait. */
export async function entriesFile(maker: string, jobs: WaitingJob[]): Promise<string> {
  const entries = jobs.flatMap((each) => each.entries.map(({ job, entry }) => ({ job, entry })));
  const pictures = [];
  for (const { job, entry } of entries) {
    const [kind, picture = ""] = entry.target.split(".");
    const kept = kind === "picture" ? await keptPicture(maker, job, picture) : undefined;
    if (kept?.waits) pictures.push({ job, picture, data: await dataAddress(kept.file) });
  }
  return JSON.stringify({ format: FORMAT, version: 1, maker, entries, pictures } satisfies EntriesFile, null, 1);
}

async function dataAddress(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await new Response(file).arrayBuffer());
  let text = "";
  for (const byte of bytes) text += String.fromCharCode(byte);
  return `data:${file.type};base64,${btoa(text)}`;
}

function fileFrom(address: string): Promise<Blob> {
  const [, type = "", data = ""] = /^data:([^;,]*);base64,(.*)$/.exec(address) ?? [];
  const bytes = Uint8Array.from(atob(data), (each) => each.charCodeAt(0));
  return new Response(bytes, { headers: { "Content-Type": type } }).blob();
}

/** Have what was saved as a file wait here, if whoever is signed in made it; how many entries. */
async function bringIn(person: string, file: File): Promise<number> {
  const read = readFile(await file.text());
  if (read.maker !== person)
    throw new Error(`${read.maker} made these entries. They can be brought in when ${read.maker} is signed in here.`);
  const there = new Set((await waiting(person)).map(({ entry }) => entry.id));
  const fresh = read.entries.filter(({ entry }) => !there.has(entry.id));
  const ids = new Set(fresh.map(({ entry }) => entry.target));
  for (const { job, picture, data } of read.pictures ?? [])
    if (ids.has(`picture.${picture}`)) await keepPicture(person, job, picture, await fileFrom(data));
  for (const { job, entry } of fresh) await keep(job, person, entry);
  for (const job of new Set(fresh.map((each) => jobOf(each.job)))) await send(job, person);
  return fresh.length;
}

function readFile(text: string): EntriesFile {
  try {
    const read = JSON.parse(text) as EntriesFile;
    const whole = read.format === FORMAT && read.version === 1 && typeof read.maker === "string";
    if (whole && read.entries.every(({ job, entry }) => job && entry.id && entry.target)) return read;
  } catch {
    // said below
  }
  throw new Error("This is no file of entries that waited. Choose the file that was saved on the other device.");
}
