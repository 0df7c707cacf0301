/** Asking the depot's server; and whoever else can answer, where it cannot be reached. */

export type Elsewhere = {
  /** Whether a request only asks, so that it may be answered elsewhere while the server is tried. */
  asks: (request: Request) => boolean;
  /** Answers in the server's place what it can; null where it cannot. */
  answer: (request: Request) => Promise<Response | null>;
  /** Is shown every answer of the server, and when it was asked for by this device's clock; null where that is not known. */
  seen: (request: Request, response: Response, askedAt: number | null) => void;
};

/** How long an answer may take before the server is asked in a word whether it is there. */
const PATIENCE_MS = 2000;
/** How long that word may take before somebody else is asked. */
const WORD_MS = 2000;
/** How long what is only asked may take at all. */
const LONGEST_MS = 60_000;
/** How long after it was not reached the server is tried again. */
const AWAY_MS = 3000;
/** Answers of a proxy whose server does not answer. */
const NOBODY_THERE = [502, 503, 504];

const NOBODY: Elsewhere = {
  asks: ({ method }) => method === "GET",
  answer: () => Promise.resolve(null),
  seen: () => undefined,
};
let elsewhere = NOBODY;
let missedAt = -Infinity;
const listeners = new Set<() => void>();

/** Have somebody answer where the server does not. */
export function whereNotReached(how: Elsewhere | null) {
  elsewhere = how ?? NOBODY;
}

/** Whether the server was not reached when it was last tried. */
export const isAway = () => missedAt > -Infinity;

/** Be told when the server is reached or not reached any more. */
export function onReach(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function reached(there: boolean) {
  const was = isAway();
  missedAt = there ? -Infinity : performance.now();
  if (was !== isAway()) listeners.forEach((each) => each());
}

export async function reach(request: Request): Promise<Response> {
  const spare = request.clone();
  const asks = !isOwnWord(request) && elsewhere.asks(request);
  if (asks && isAway()) {
    const answer = await elsewhere.answer(spare.clone());
    if (answer) {
      if (performance.now() - missedAt > AWAY_MS) void lookAgain();
      return answer;
    }
  }
  const tried = tryServer(request);
  const first = await (asks ? soon(tried) : tried);
  if (first && !isNobody(first)) return first;
  reached(false);
  const answer = isOwnWord(request) ? null : await elsewhere.answer(spare);
  if (answer) return answer;
  const late = await tried;
  if (late) return late;
  throw new TypeError("the server cannot be reached");
}

/** An answer; null where none comes, or it is late and the server is not there. A line that is slow and alive is waited for. */
async function soon(tried: Promise<Response | null>): Promise<Response | null> {
  const first = await Promise.race([tried, after(PATIENCE_MS)]);
  if (first !== LATE) return first;
  const second = await Promise.race([tried, isThere()]);
  if (second === false) return null;
  return second === true ? tried : second;
}

/** Whether the server answers a word; it is asked once at a time. */
let word: Promise<boolean> | null = null;
function isThere(): Promise<boolean> {
  word ??= Promise.race([tryServer(new Request(new URL("/health", location.origin))), after(WORD_MS)])
    .then((found) => found !== null && found !== LATE && !isNobody(found))
    .finally(() => (word = null));
  return word;
}

/** Look, beside what is answered elsewhere, whether the server is there again. */
export async function lookAgain(): Promise<void> {
  if (isAway() && !(await isThere())) reached(false);
}

/** What `early.js` asked for while this script was on its way, by its address; null where the page has asked since. */
type Early = Map<string, Promise<Response | null> | null>;
const page = globalThis as { early?: Early };
/** For how long after the page was opened an answer that was asked for then is as good as one that is asked for now. */
const EARLY_MS = 8000;

/** An answer that was asked for before this script was there: once, while the page opens, and before anything is sent. */
async function askedEarly(request: Request): Promise<Response | null> {
  if (request.method !== "GET" || performance.now() > EARLY_MS) delete page.early;
  if (isOwnWord(request)) return null;
  const answer = page.early?.get(request.url);
  page.early?.set(request.url, null);
  return (await answer) ?? null;
}

async function tryServer(request: Request): Promise<Response | null> {
  try {
    const early = await askedEarly(request);
    const askedAt = Date.now();
    // looked up at every call, not once: a test puts a stand-in there
    const response = early ?? (await inTime(request, globalThis.fetch(request)));
    if (response && !isNobody(response)) {
      reached(true);
      elsewhere.seen(request, response, early ? null : askedAt);
    }
    return response;
  } catch {
    return null;
  }
}

/** Whether it must be the server's own word, as it stands now: such a thing is asked without a cache. */
const isOwnWord = (request: Request) => request.cache === "no-store";
const isNobody = (response: Response) => NOBODY_THERE.includes(response.status);
const LATE = "late";
const after = (ms: number) => new Promise<typeof LATE>((resolve) => setTimeout(() => resolve(LATE), ms));

/** An answer; null where what is only asked takes longer than anybody waits. What is sent has its own time. */
async function inTime(request: Request, answer: Promise<Response>): Promise<Response | null> {
  if (request.method !== "GET") return answer;
  const found = await Promise.race([answer, after(LONGEST_MS)]);
  return found === LATE ? null : found;
}
