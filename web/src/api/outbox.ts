/**
 * Entries that wait in the browser's database until the server has them: nothing that was touched is lost. Each belongs to
 * the person who made it, and is shown to and sent by nobody else.
 */
import { Problem, type Fault, type Schemas } from "./client";

export type Entry = Schemas["EntryGiven"];
/** Why the server would not take an entry; the entry stays until the person who made it withdraws it. */
export type Refusal = { status: number; title: string; detail: string; faults: Fault[] };
export type Waiting = { order: number; job: string; maker: string; entry: Entry; refused?: Refusal };

const STORE = "entries";
let opened: Promise<IDBDatabase> | null = null;
/** What the browser's database would not take: it waits here, and is lost when the page closes. */
let unkept: Waiting[] = [];

function database(): Promise<IDBDatabase> {
  opened ??= new Promise<IDBDatabase>((resolve, reject) => {
    const request = indexedDB.open("worthy-twin", 2);
    request.onupgradeneeded = (event) => {
      // entries of the first version name no person: whose they are cannot be known, so nobody may send them
      if (event.oldVersion === 1) request.result.deleteObjectStore(STORE);
      request.result.createObjectStore(STORE, { keyPath: "order", autoIncrement: true });
    };
    request.onsuccess = () => {
      // a newer version of the application in another tab needs the database: it is opened again when it is needed
      request.result.onversionchange = () => {
        request.result.close();
        opened = null;
      };
      resolve(request.result);
    };
    request.onerror = () => reject(request.error ?? new Error("the browser's database does not open"));
  }).catch((error: unknown) => {
    opened = null;
    throw error;
  });
  return opened;
}

async function run<T>(mode: IDBTransactionMode, work: (store: IDBObjectStore) => IDBRequest<T>): Promise<T> {
  const transaction = (await database()).transaction(STORE, mode);
  const request = work(transaction.objectStore(STORE));
  return new Promise((resolve, reject) => {
    transaction.oncomplete = () => resolve(request.result);
    const refused = () => reject(transaction.error ?? new Error("the browser's database refused"));
    transaction.onerror = refused;
    transaction.onabort = refused;
  });
}

/** Keep an entry; false where the browser would not, so that it waits only as long as the page is open. */
export async function keep(job: string, maker: string, entry: Entry): Promise<boolean> {
  try {
    await run("readwrite", (store) => store.add({ job, maker, entry }));
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
    kept = await run("readonly", (store) => store.getAll() as IDBRequest<Waiting[]>);
  } catch {
    // what it would not take before is still below
  }
  return [...kept, ...unkept].filter(
    (each) => each.maker === maker && (job === undefined || jobOf(each.job) === jobOf(job)),
  );
}

export async function drop(order: number): Promise<void> {
  if (order < 0) unkept = unkept.filter((each) => each.order !== order);
  else await run("readwrite", (store) => store.delete(order));
}

/** Note with an entry why the server would not take it. */
export async function refuse(each: Waiting, problem: Problem): Promise<void> {
  const { status, title, detail, faults } = problem;
  const refused = { ...each, refused: { status, title, detail, faults } };
  if (each.order < 0) unkept = unkept.map((other) => (other.order === each.order ? refused : other));
  else await run("readwrite", (store) => store.put(refused));
}

/** Close the database, for tests that begin anew. */
export async function closeOutbox(): Promise<void> {
  unkept = [];
  if (opened) (await opened).close();
  opened = null;
}
