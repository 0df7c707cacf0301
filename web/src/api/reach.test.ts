import { afterEach, describe, expect, it, vi } from "vitest";
import { isAway, lookAgain, onReach, reach, whereNotReached } from "./reach";

const request = (path: string, method = "GET") =>
  new Request(`http://127.0.0.1:8800${path}`, { method, body: method === "GET" ? undefined : "{}" });
const nothing = () => Promise.resolve(null);
const asks = ({ method, url }: Request) => method === "GET" || url.endsWith("/play");

afterEach(async () => {
  vi.stubGlobal("fetch", () => Promise.resolve(new Response("{}")));
  whereNotReached(null);
  await reach(request("/api/session"));
});

describe("where the server cannot be reached", () => {
  it("somebody else answers what they can, and the rest fails", async () => {
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("unreachable")));
    const answer = (asked: Request) => Promise.resolve(asked.url.endsWith("/known") ? new Response("from here") : null);
    whereNotReached({ asks, answer, seen: () => undefined });
    expect(await (await reach(request("/known"))).text()).toBe("from here");
    await expect(reach(request("/unknown"))).rejects.toThrow("cannot be reached");
    expect(isAway()).toBe(true);
  });

  it("a proxy without a server is nobody, and its words are handed on where nobody else answers", async () => {
    vi.stubGlobal("fetch", () => Promise.resolve(new Response("", { status: 502 })));
    whereNotReached({ asks, answer: nothing, seen: () => undefined });
    expect((await reach(request("/api/jobs"))).status).toBe(502);
    expect(isAway()).toBe(true);
  });

  it("whoever listens is told when it goes and when it comes back, once each", async () => {
    const told: boolean[] = [];
    const stop = onReach(() => told.push(isAway()));
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("unreachable")));
    await reach(request("/a", "POST")).catch(() => undefined);
    await reach(request("/b", "POST")).catch(() => undefined);
    vi.stubGlobal("fetch", () => Promise.resolve(new Response("{}")));
    await reach(request("/c", "POST"));
    stop();
    expect(told).toEqual([true, false]);
  });

  it("is tried now and then beside what is answered elsewhere, and whoever listens is told that it is there", async () => {
    vi.useFakeTimers({ toFake: ["performance", "setTimeout"] });
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("unreachable")));
    whereNotReached({ asks, answer: () => Promise.resolve(new Response("here")), seen: () => undefined });
    await reach(request("/a"));
    const told = vi.fn();
    const stop = onReach(told);
    const server = vi.fn(() => Promise.resolve(new Response("there")));
    vi.stubGlobal("fetch", server);
    expect(await (await reach(request("/play", "POST"))).text()).toBe("here");
    expect(server).not.toHaveBeenCalled();
    await vi.advanceTimersByTimeAsync(3001);
    expect(await (await reach(request("/b"))).text()).toBe("here");
    await vi.waitFor(() => expect(told).toHaveBeenCalledOnce());
    expect(await (await reach(request("/b"))).text()).toBe("there");
    expect(server).toHaveBeenCalledTimes(2);
    stop();
    vi.useRealTimers();
  });

  it("what was asked while the script was on its way is taken once, and nothing after something was sent", async () => {
    const page = globalThis as { early?: Map<string, Promise<Response>> };
    const ahead = () =>
      new Map(["/a", "/b"].map((each) => [request(each).url, Promise.resolve(new Response("early"))]));
    vi.stubGlobal("fetch", () => Promise.resolve(new Response("asked now")));
    page.early = ahead();
    expect(await (await reach(new Request(request("/a"), { cache: "no-store" }))).text()).toBe("asked now");
    expect(await (await reach(request("/a"))).text()).toBe("early");
    expect(await (await reach(request("/a"))).text()).toBe("asked now");
    await reach(request("/c", "POST"));
    expect(await (await reach(request("/b"))).text()).toBe("asked now");
  });

  it("what must be the server's own word is answered by nobody else", async () => {
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("unreachable")));
    whereNotReached({ asks, answer: () => Promise.resolve(new Response("here")), seen: () => undefined });
    expect(await (await reach(request("/a"))).text()).toBe("here");
    await expect(reach(new Request(request("/a"), { cache: "no-store" }))).rejects.toThrow("cannot be reached");
  });

  it("a line that is slow and alive is waited for: it is not away, and nobody is told that it went", async () => {
    vi.useFakeTimers();
    const told = vi.fn();
    const stop = onReach(told);
    vi.stubGlobal("fetch", (asked: Request) =>
      asked.url.endsWith("/health")
        ? Promise.resolve(new Response("{}"))
        : new Promise((resolve) => setTimeout(() => resolve(new Response("there")), 9000)),
    );
    whereNotReached({ asks, answer: () => Promise.resolve(new Response("here")), seen: () => undefined });
    const slow = reach(request("/slow"));
    await vi.advanceTimersByTimeAsync(9000);
    expect(await (await slow).text()).toBe("there");
    expect(told).not.toHaveBeenCalled();
    stop();
    vi.useRealTimers();
  });

  it("what is never answered ends, and one hung word does not stop the next", async () => {
    vi.useFakeTimers();
    vi.stubGlobal("fetch", (asked: Request) =>
      asked.url.endsWith("/health") ? Promise.resolve(new Response("{}")) : new Promise(() => undefined),
    );
    whereNotReached({ asks, answer: nothing, seen: () => undefined });
    const never = reach(request("/never")).catch((error: Error) => error.message);
    await vi.advanceTimersByTimeAsync(60_000);
    expect(await never).toContain("cannot be reached");
    vi.stubGlobal("fetch", () => new Promise(() => undefined));
    void lookAgain();
    await vi.advanceTimersByTimeAsync(2000);
    vi.stubGlobal("fetch", () => Promise.resolve(new Response("{}")));
    await lookAgain();
    expect(isAway()).toBe(false);
    vi.useRealTimers();
  });

  it("what hangs is answered by somebody else after a while, and by the server where nobody else can", async () => {
    vi.useFakeTimers();
    let come: (response: Response) => void = () => undefined;
    vi.stubGlobal("fetch", (asked: Request) =>
      asked.url.endsWith("/health")
        ? new Promise(() => undefined)
        : new Promise<Response>((resolve) => (come = resolve)),
    );
    whereNotReached({
      asks,
      answer: (asked) => Promise.resolve(asked.url.endsWith("/here") ? new Response("here") : null),
      seen: () => undefined,
    });
    const here = reach(request("/here"));
    await vi.advanceTimersByTimeAsync(4000);
    expect(await (await here).text()).toBe("here");
    const late = reach(request("/late"));
    await vi.advanceTimersByTimeAsync(4000);
    come(new Response("late"));
    expect(await (await late).text()).toBe("late");
    vi.useRealTimers();
  });
});
