/** A depot's server for tests: answers the paths that a test names, and keeps what was sent to it. */
import { vi } from "vitest";

type Sent = { method: string; path: string; body: unknown; token: string | null; had: string | null };
type Answer = { status?: number; body?: unknown; tag?: string; headers?: Record<string, string> } | "unreachable";
type Answering = Answer | ((sent: Sent) => Answer | Promise<Answer>);

export function standInServer(paths: Record<string, Answering>) {
  const sent: Sent[] = [];
  let tokens = 0;
  vi.stubGlobal("fetch", async (input: RequestInfo | URL, init?: RequestInit) => {
    const request = input instanceof Request ? input : new Request(new URL(String(input), location.href), init);
    const path = new URL(request.url).pathname;
    if (path === "/api/token") return json(200, { token: `token ${++tokens}` });
    const text = await request.text();
    const each: Sent = {
      method: request.method,
      path,
      body: isJson(request) && text ? (JSON.parse(text) as unknown) : null,
      token: request.headers.get("X-CSRFToken"),
      had: request.headers.get("If-None-Match"),
    };
    sent.push(each);
    const known = paths[`${request.method} ${path}`] ?? paths[path];
    if (known === undefined)
      return json(404, { title: "Not found", detail: `no answer for ${request.method} ${path}` });
    const answer = typeof known === "function" ? await known(each) : known;
    if (answer === "unreachable") throw new TypeError("unreachable");
    if (answer.status === 304) return new Response(null, { status: 304 });
    return json(answer.status ?? 200, answer.body ?? {}, answer.tag, answer.headers);
  });
  return { sent, paths };
}

const isJson = (request: Request) => request.headers.get("Content-Type") === "application/json";

function json(status: number, body: unknown, tag?: string, more: Record<string, string> = {}) {
  const headers = { ...more, "Content-Type": "application/json", ...(tag && { ETag: tag }) };
  return new Response(JSON.stringify(body), { status, headers });
}
