/** Asks the core that runs in this browser. */
type Reply = { id: number; answer?: unknown; fault?: string; interrupted?: boolean; dead?: boolean };
type Open = { resolve: (answer: unknown) => void; reject: (error: Error) => void };

let worker: Worker | null = null;
let last = 0;
const open = new Map<number, Open>();
/** What the worker looks at while it computes; null where pages may not share memory with it. */
let signal: Int32Array | null = null;
let asking = 0;
const STOP = 2;

/** What was asked was let go of before it was answered: something had to be entered. */
export class Interrupted extends Error {}

declare const CORE: string;
const FILES = ["pyodide.mjs", "pyodide.asm.mjs", "pyodide.asm.wasm", "python_stdlib.zip", "pyodide-lock.json", "core.zip", "pydantic_core.so"]; // prettier-ignore

/** Have the core on this device: what is fetched once stays, for the device keeps it. */
export async function keepCore() {
  for (const name of FILES) {
    if ("caches" in window && (await caches.match(CORE + name))) continue;
    const response = await fetch(CORE + name);
    if (!response.ok) throw new Error("the core cannot be had just now");
    await response.arrayBuffer();
  }
}

/** Have the core loaded: it takes seconds, so it is begun before it is needed. */
export function loadCore() {
  if (worker) return;
  worker = new Worker(new URL("./worker.ts", import.meta.url), { type: "module", name: "core" });
  worker.onmessage = ({ data }: MessageEvent<Reply>) => {
    const asked = open.get(data.id);
    open.delete(data.id);
    if (data.fault === undefined) asked?.resolve(data.answer);
    else asked?.reject(data.interrupted ? new Interrupted() : new Error(data.fault));
    // a core that could not be loaded is loaded anew when it is wanted again
    if (data.dead) stopCore(new Error(data.fault));
  };
  signal = self.crossOriginIsolated ? new Int32Array(new SharedArrayBuffer(4)) : null;
  worker.postMessage({ signal });
  worker.onerror = () => stopCore(new Error("the core could not be loaded"));
}

const goneListeners = new Set<() => void>();

/** Be told when the core is gone, with all that it was told. */
export const onCoreGone = (listener: () => void) => void goneListeners.add(listener);

/** Let go of the core, and of all that it was told; whoever waits for it is told why. */
export function stopCore(why = new Error("the core was let go of")) {
  worker?.terminate();
  worker = null;
  goneListeners.forEach((each) => each());
  open.forEach((each) => each.reject(why));
  open.clear();
}

function call(name: string, ...args: string[]): Promise<unknown> {
  loadCore();
  return new Promise((resolve, reject) => {
    last += 1;
    open.set(last, { resolve, reject });
    worker?.postMessage({ id: last, call: name, args });
  });
}

/** The status and the body of an answer. */
export type Said = [status: number, body: string];

export const core = {
  putIn: (document: string) => call("put_in", document),
  putInPair: (name: string, family: string, original: string, replacement: string) =>
    call("put_in_pair", name, family, original, replacement),
  playPair: (name: string, given: string) => call("play_pair", name, given) as Promise<Said>,
  putInTask: (name: string, document: string) => call("put_in_task", name, document),
  playTask: (name: string, given: string) => call("play_task", name, given) as Promise<Said>,
  // a core that is not loaded has none
  takeOut: (job: string) => (worker ? call("take_out", job) : Promise.resolve(null)),
  ask: async (method: string, address: string, body: string, now: string) => {
    asking += 1;
    try {
      return (await call("ask", method, address, body, now)) as Said;
    } finally {
      asking -= 1;
    }
  },
  /** Have what is being asked let go of, where the core is at it: it fails with Interrupted. */
  interrupt: () => {
    if (asking && signal) Atomics.store(signal, 0, STOP);
  },
  add: (sheet: string, entry: string, now: string) => call("add", sheet, entry, now) as Promise<Said>,
};

let turn: Promise<unknown> = Promise.resolve();

/** One after another: what is asked is asked of what stands then. */
export function inTurn<T>(work: () => T | Promise<T>): Promise<T> {
  const mine = turn.then(work);
  turn = mine.catch(() => undefined);
  return mine;
}
