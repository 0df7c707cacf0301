import { reach } from "./reach";
import createClient, { type Middleware } from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Fault = { place: string; expected: string };

/** Not signed in, no form token, no time, too early, too often. */
export const SAYS_NOTHING_OF_IT = [401, 403, 408, 425, 429];

/** A problem document (RFC 9457) from the server, or the lack of a connection. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly faults: Fault[] = [],
    /** What a change by somebody else is told with. */
    readonly told: { changes?: unknown; now?: unknown } = {},
  ) {
    super(detail);
  }

  get offline() {
    return this.status === 0;
  }

  /** Whether it says nothing of what was sent: that waits, and is sent again. Anything else refuses it. */
  get isForLater() {
    return this.offline || this.status >= 500 || SAYS_NOTHING_OF_IT.includes(this.status);
  }
}

let token: string | null = null;

type Kept = { tag: string; body: string };
const MOST_KEPT = 80;
const kept = new Map<string, Kept>();
/** The versions with which something is being asked. */
const asked = new Map<string, Kept>();

/** How long a form token may take: what it is wanted for waits, and is sent again. */
const TOKEN_MS = 10_000;

/** A form token; null where nobody can be asked for one. */
async function freshToken(): Promise<string | null> {
  try {
    const response = await fetch("/api/token", { credentials: "same-origin", signal: AbortSignal.timeout(TOKEN_MS) });
    return ((await response.json()) as { token: string }).token;
  } catch {
    return null;
  }
}

/** Forget the form token, and what was answered: both change when somebody signs in or out. */
export function forgetToken() {
  token = null;
  kept.clear();
}

const withToken: Middleware = {
  async onRequest({ request }) {
    if (request.method !== "GET") {
      token ??= await freshToken();
      if (token) request.headers.set("X-CSRFToken", token);
    }
    return request;
  },
};

/** What was answered with a version is asked for by it again: where it still stands, nothing is worked out and sent. */
const withVersions: Middleware = {
  onRequest({ request, id }) {
    const had = request.method === "GET" ? kept.get(request.url) : undefined;
    if (had) {
      request.headers.set("If-None-Match", had.tag);
      // it is held until it is answered: it may be crowded out of what is kept meanwhile
      asked.set(id, had);
    }
    return request;
  },
  onError({ id }) {
    asked.delete(id);
  },
  async onResponse({ request, response, id }) {
    if (request.method !== "GET") return undefined;
    const had = asked.get(id);
    asked.delete(id);
    if (response.status === 304 && had)
      return new Response(had.body, { headers: { "Content-Type": "application/json", ETag: had.tag } });
    const tag = response.headers.get("ETag");
    kept.delete(request.url);
    if (response.ok && tag) {
      kept.set(request.url, { tag, body: await response.clone().text() });
      const oldest = kept.keys().next().value;
      if (kept.size > MOST_KEPT && oldest !== undefined) kept.delete(oldest);
    }
    return undefined;
  },
};

export const api = createClient<paths>({
  baseUrl: location.origin,
  credentials: "same-origin",
  fetch: reach,
});
api.use(withToken, withVersions);

type Call<T> = Promise<{ data?: T; error?: unknown; response: Response }>;

/** The data of an answer; anything else is thrown as a Problem. */
export const answer = async <T>(call: Call<T>): Promise<T> => (await answered(call)).data as T;

/** An answer with its headers; anything else is thrown as a Problem. */
export async function answered<T>(call: Call<T>): Call<T> {
  let result;
  try {
    result = await call;
  } catch {
    throw new Problem(0, "No connection", "The depot's server cannot be reached. What you entered waits here.");
  }
  if (result.response.ok) return result;
  throw problemFrom(result.response.status, result.error);
}

function problemFrom(status: number, body: unknown): Problem {
  const known: Partial<Problem> = typeof body === "object" && body !== null ? body : {};
  if (status === 502 || status === 503 || status === 504)
    return new Problem(0, "No connection", "The depot's server does not answer just now.");
  const { title = "Something went wrong", detail = `Answer ${status}.`, faults, ...more } = known;
  const { changes, now } = more as { changes?: unknown; now?: unknown };
  return new Problem(status, title, detail, faults, changes === undefined ? {} : { changes, now });
}
