/** Asking the depot's server; and whoever else can answer, where it cannot be reached. */

export type Elsewhere = {
  /** Answers in the server's place what it can; null where it cannot. */
  answer: (request: Request) => Promise<Response | null>;
  /** Is shown every answer of the server. */
  seen: (request: Request, response: Response) => void;
};

/** How long an answer may take before somebody else is asked. */
const PATIENCE_MS = 4000;
/** For how long after it was not reached the server is not tried first. */
const AWAY_MS = 3000;
/** Answers of a proxy whose server does not answer. */
const NOBODY_THERE = [502, 503, 504];

const NOBODY: Elsewhere = { answer: () => Promise.resolve(null), seen: () => undefined };
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
  const asks = request.method === "GET";
  if (asks && performance.now() - missedAt < AWAY_MS) {
    const answer = await elsewhere.answer(spare.clone());
    if (answer) return answer;
  }
  const tried = tryServer(request);
  const first = await (asks ? Promise.race([tried, after(PATIENCE_MS)]) : tried);
  if (first && !isNobody(first)) return first;
  reached(false);
  const answer = await elsewhere.answer(spare);
  if (answer) return answer;
  const late = await tried;
  if (late) return late;
  throw new TypeError("the server cannot be reached");
}

async function tryServer(request: Request): Promise<Response | null> {
  try {
    // looked up at every call, not once: a test puts a stand-in there
    const response = await globalThis.fetch(request);
    if (!isNobody(response)) {
      reached(true);
      elsewhere.seen(request, response);
    }
    return response;
  } catch {
    return null;
  }
}

const isNobody = (response: Response) => NOBODY_THERE.includes(response.status);
const after = (ms: number) => new Promise<null>((resolve) => setTimeout(() => resolve(null), ms));
