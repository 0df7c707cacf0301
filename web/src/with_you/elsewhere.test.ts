import { database } from "@/api/database";
import { reach } from "@/api/reach";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { clockOffset } from "./clock";
import { answerHere } from "./elsewhere";
import { personHere } from "@/api/kept";
import { setPersonHere } from "./person";
import { forgetPerson } from "./forgetting";
import { changeTaken, keptAnswer } from "./takings";

const get = (path: string) => reach(new Request(`http://127.0.0.1:8800${path}`));
const server = (body: string, headers: Record<string, string> = {}) =>
  vi.stubGlobal("fetch", () => Promise.resolve(new Response(body, { headers })));
const unplug = () => vi.stubGlobal("fetch", () => Promise.reject(new TypeError("unreachable")));

beforeEach(async () => {
  await setPersonHere(null);
  answerHere();
});

describe("without a connection", () => {
  it("who was signed in last is still known, and nobody is where nobody was", async () => {
    unplug();
    await expect(get("/api/session")).rejects.toThrow();
    server('{"username": "wennick", "name": "Wennick Tarl"}');
    await get("/api/session");
    await vi.waitFor(() => expect(personHere()).toBe("wennick"));
    unplug();
    await vi.waitFor(async () =>
      expect(await (await get("/api/session")).json()).toMatchObject({ name: "Wennick Tarl" }),
    );
  });

  it("a browser that was killed before it wrote down who works here still knows", async () => {
    server('{"username": "wennick", "name": "Wennick Tarl"}');
    await get("/api/session");
    await vi.waitFor(async () => expect(await keptAnswer("wennick", "/api/session")).toBeDefined());
    localStorage.clear();
    unplug();
    expect(await (await get("/api/session")).json()).toMatchObject({ name: "Wennick Tarl" });
    expect(personHere()).toBe("wennick");
  });

  it("whoever signed in last is who works here, also before anybody asked who that is", async () => {
    await setPersonHere("wennick");
    server('{"username": "corm", "name": "Corm Haddle"}');
    await reach(new Request("http://127.0.0.1:8800/api/session", { method: "POST", body: "{}" }));
    await vi.waitFor(() => expect(personHere()).toBe("corm"));
    unplug();
    await vi.waitFor(async () =>
      expect(await (await get("/api/session")).json()).toMatchObject({ name: "Corm Haddle" }),
    );
  });

  it("the list of jobs is that of those that are along, and none of somebody else's", async () => {
    await setPersonHere("wennick");
    const job = "eaa689b5-6515-5604-806a-683f32c07b3b";
    const taken = { document: "{}", asOf: "now", entries: 0, since: [], asked: true, bytes: 2, lookedAt: 1 };
    await changeTaken("wennick", job, () => ({ ...taken, person: "wennick", job }));
    await changeTaken("corm", "another", () => ({ ...taken, person: "corm", job: "another" }));
    await (
      await database()
    ).put("answers", {
      person: "wennick",
      address: `/api/jobs/${job}`,
      mark: "",
      status: 200,
      body: '{"code": "SQ-0003"}',
    });
    unplug();
    const list = (await (await get("/api/jobs?page=1")).json()) as { items: unknown[]; total: number };
    expect(list).toMatchObject({ items: [{ code: "SQ-0003" }], total: 1 });
    await forgetPerson("wennick", true);
    await expect(get("/api/jobs?page=1")).rejects.toThrow();
    expect(await (await database()).getAll("jobs")).toHaveLength(1);
  });

  it("the depot's clock is known from its answers, and a second that its words leave out is no difference", async () => {
    const told = (agoMs: number, more = {}) =>
      server("{}", { "Cache-Control": "no-store", Date: new Date(Date.now() - agoMs).toUTCString(), ...more });
    told(0);
    await get("/api/depot");
    expect(clockOffset()).toBe(0);
    told(7200_000);
    await get("/api/depot");
    expect(Math.round(clockOffset() / 60_000)).toBe(120);
    // a defect: what a cache may answer, such as a picture, is as old as it was kept
    told(86_400_000, { "Cache-Control": "private, max-age=86400" });
    await get("/api/jobs/j/pictures/p");
    expect(Math.round(clockOffset() / 60_000)).toBe(120);
  });
});
