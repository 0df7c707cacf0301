/** Asking the depot's server; and whoever else can answer, where it cannot be reached. */

export type Elsewhere = {
  /** Whether a request only asks, so that it may be answered elsewhere while the server is tried. */
  asks: (request: Request) => boolean;
  /** Answers in the server's place what it can; null where it cannot. */
  answer: (request: Request) => Promise<Response | null>;
  /** Is shown every answer of the server. */
  seen: (request: Request, response: Response) => void;
};

/** How long an answer may take before somebody else is asked. */
const PATIENCE_MS = 4000;
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
  const first = await (asks ? Promise.race([tried, after(PATIENCE_MS)]) : tried);
  if (first && !isNobody(first)) return first;
  reached(false);
  const answer = isOwnWord(request) ? null : await elsewhere.answer(spare);
  if (answer) return answer;
  const late = await tried;
  if (late) return late;
  throw new TypeError("the server cannot be reached");
}

let looking = false;

/** Look, beside what is answered elsewhere, whether the server is there again. */
export async function lookAgain(): Promise<void> {
  if (looking || !isAway()) return;
  looking = true;
  const found = await tryServer(new Request(new URL("/health", location.origin)));
  if (!found || isNobody(found)) reached(false);
  looking = false;
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
    // looked up at every call, not once: a test puts a stand-in there
    const response = (await askedEarly(request)) ?? (await globalThis.fetch(request));
    if (!isNobody(response)) {
      reached(true);
      elsewhere.seen(request, response);
    }
    return response;
  } catch {
    return null;
  }
}

/** Whether it must be the server's own word, as it stands now: such a thing is asked without a cache. */
const isOwnWord = (request: Request) => request.cache === "no-store";
const isNobody = (response: Response) => NOBODY_THERE.includes(response.status);
const after = (ms: number) => new Promise<null>((resolve) => setTimeout(() => resolve(null), ms));
