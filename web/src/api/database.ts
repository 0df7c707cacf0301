/** What this device keeps for each person who works on it: entries that wait, jobs taken along, answers, pictures. */
import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { Schemas, Fault } from "./client";

type Given = Schemas["EntryGiven"];
/** How an entry was made: told when it waits, and left out of what a test makes up. */
export type Stamp = Pick<Given, "made_at" | "clock_ahead_ms" | "seen" | "device">;
export type Entry = Omit<Given, keyof Stamp> & Partial<Stamp>;
/** Why the server would not take an entry; the entry stays until the person who made it withdraws it. */
export type Refusal = {
  status: number;
  title: string;
  detail: string;
  faults: Fault[];
  changes?: unknown;
  now?: unknown;
};
export type Waiting = { order: number; job: string; maker: string; entry: Entry; refused?: Refusal };
/** What a job's pages are worked out from; apart from what changes with every entry, for it is large. */
export type Document = { person: string; job: string; text: string };
/** A job as it was taken along, with the entries that the server has had since. */
export type Taken = {
  person: string;
  job: string;
  asOf: string;
  entries: number;
  since: { sheet: string; entry: Entry }[];
  /** Whether somebody asked for it; else it came along by itself. */
  asked: boolean;
  bytes: number;
  lookedAt: number;
};
/** An answer, with a word that says what it hangs on. */
export type KeptAnswer = { person: string; address: string; mark: string; status: number; body: string };
/** A picture; `waits` where the depot does not have it yet. */
export type KeptFile = { person: string; address: string; job: string; file: Blob; waits: boolean };

interface Device extends DBSchema {
  entries: { key: number; value: Waiting; indexes: { maker: string } };
  documents: { key: [string, string]; value: Document };
  jobs: { key: [string, string]; value: Taken };
  answers: { key: [string, string]; value: KeptAnswer };
  files: { key: [string, string]; value: KeptFile };
}

let opened: Promise<IDBPDatabase<Device>> | null = null;

export function database(): Promise<IDBPDatabase<Device>> {
  opened ??= openDB<Device>("worthy-twin", 4, {
    async upgrade(db, oldVersion, _, change) {
      // entries of the first version name no person: whose they are cannot be known, so nobody may send them
      if (oldVersion === 1) db.deleteObjectStore("entries");
      if (oldVersion < 2) db.createObjectStore("entries", { keyPath: "order", autoIncrement: true });
      if (oldVersion < 3) {
        db.createObjectStore("jobs", { keyPath: ["person", "job"] });
        db.createObjectStore("answers", { keyPath: ["person", "address"] });
        db.createObjectStore("files", { keyPath: ["person", "address"] });
      }
      change.objectStore("entries").createIndex("maker", "maker");
      const documents = db.createObjectStore("documents", { keyPath: ["person", "job"] });
      const jobs = change.objectStore("jobs");
      for (const { document, ...taken } of (await jobs.getAll()) as (Taken & { document: string })[]) {
        await documents.put({ person: taken.person, job: taken.job, text: document });
        await jobs.put(taken);
      }
    },
    // a newer version of the application in another tab needs the database: it is opened again when it is needed
    blocking: () => void close(),
    terminated: () => (opened = null),
  }).catch((error: unknown) => {
    opened = null;
    throw error;
  });
  return opened;
}

async function close() {
  const db = opened;
  opened = null;
  (await db)?.close();
}

/** Close the database, for tests that begin anew. */
export const closeDatabase = close;

/** Forget what is kept for somebody: jobs, answers, pictures; and entries and pictures that wait, where that is meant too. */
export async function forgetAll(person: string, entriesToo: boolean): Promise<void> {
  const db = await database();
  const all = db.transaction(["jobs", "documents", "answers", "files", "entries"], "readwrite");
  const theirs = IDBKeyRange.bound([person], [person, []]);
  await Promise.all([
    all.objectStore("jobs").delete(theirs),
    all.objectStore("documents").delete(theirs),
    all.objectStore("answers").delete(theirs),
    ...(await all.objectStore("files").getAll(theirs))
      .filter((each) => entriesToo || !each.waits)
      .map((each) => all.objectStore("files").delete([person, each.address])),
    ...(entriesToo ? await all.objectStore("entries").index("maker").getAllKeys(person) : []).map((order) =>
      all.objectStore("entries").delete(order),
    ),
  ]);
  await all.done;
}
