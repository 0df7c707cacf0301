/** Entries that wait in the browser's database until the server has them: nothing that was touched is lost. */
import type { Schemas } from "./client";

export type Entry = Schemas["EntryGiven"];
export type Waiting = { order: number; job: string; entry: Entry };

const STORE = "entries";
let opened: Promise<IDBDatabase> | null = null;

function database(): Promise<IDBDatabase> {
  opened ??= new Promise((resolve, reject) => {
    const request = indexedDB.open("worthy-twin", 1);
    request.onupgradeneeded = () => request.result.createObjectStore(STORE, { keyPath: "order", autoIncrement: true });
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error ?? new Error("the browser's database does not open"));
  });
  return opened;
}

async function run<T>(mode: IDBTransactionMode, work: (store: IDBObjectStore) => IDBRequest<T>): Promise<T> {
  const transaction = (await database()).transaction(STORE, mode);
  const request = work(transaction.objectStore(STORE));
  return new Promise((resolve, reject) => {
    transaction.oncomplete = () => resolve(request.result);
    transaction.onerror = () => reject(transaction.error ?? new Error("the browser's database refused"));
  });
}

export async function keep(job: string, entry: Entry): Promise<void> {
  await run("readwrite", (store) => store.add({ job, entry }));
}

export async function waiting(): Promise<Waiting[]> {
  return run("readonly", (store) => store.getAll() as IDBRequest<Waiting[]>);
}

export async function drop(order: number): Promise<void> {
  await run("readwrite", (store) => store.delete(order));
}
