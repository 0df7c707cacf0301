import createClient, { type Middleware } from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Fault = { place: string; expected: string };

/** A problem document (RFC 9457) from the server, or the lack of a connection. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly faults: Fault[] = [],
  ) {
    super(detail);
  }

  get offline() {
    return this.status === 0;
  }
}

let token: string | null = null;

async function freshToken(): Promise<string> {
  const response = await fetch("/api/token", { credentials: "same-origin" });
  const body = (await response.json()) as { token: string };
  return body.token;
}

/** Forget the form token: it changes when somebody signs in or out. */
export function forgetToken() {
  token = null;
}

const withToken: Middleware = {
  async onRequest({ request }) {
    if (request.method !== "GET") {
      token ??= await freshToken();
      request.headers.set("X-CSRFToken", token);
    }
    return request;
  },
};

export const api = createClient<paths>({
  baseUrl: window.location.origin,
  credentials: "same-origin",
  // looked up at every call, not once: a test puts a stand-in there
  fetch: (request) => globalThis.fetch(request),
});
api.use(withToken);

/** The data of an answer; anything else is thrown as a Problem. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result;
  try {
    result = await call;
  } catch {
    throw new Problem(0, "No connection", "The depot's server cannot be reached. What you entered waits here.");
  }
  if (result.response.ok) return result.data as T;
  throw problemFrom(result.response.status, result.error);
}

function problemFrom(status: number, body: unknown): Problem {
  const known = typeof body === "object" && body !== null ? (body as Partial<Problem>) : {};
  if (status === 502 || status === 503 || status === 504)
    return new Problem(0, "No connection", "The depot's server does not answer just now.");
  return new Problem(status, known.title ?? "Something went wrong", known.detail ?? `Answer ${status}.`, known.faults);
}
