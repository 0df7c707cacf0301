import { keptAnswer, putTaken } from "./takings";
import { drop, keep, waiting } from "@/api/outbox";
import type { Taken } from "@/api/database";
import { entry } from "@/testing/jobs";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { askAlong, enterAlong, forgetAlong } from "./along";
import { core, Interrupted, type Said } from "./core";

const taken: Taken = {
  person: "wennick",
  job: "j",
  asOf: "16:40",
  entries: 3,
  since: [],
  asked: true,
  bytes: 2,
  lookedAt: 0,
};
let calls: string[] = [];

beforeEach(async () => {
  calls = [];
  await putTaken({ person: taken.person, job: taken.job, text: "{}" }, () => taken);
  forgetAlong();
  const note = (call: string, answer: Said) => (calls.push(call), Promise.resolve(answer));
  vi.spyOn(core, "putIn").mockImplementation((document) => (calls.push(`in ${document}`), Promise.resolve("j")));
  vi.spyOn(core, "add").mockImplementation((sheet, given) => {
    const { target } = JSON.parse(given) as { target: string };
    return note(`add ${sheet} ${target}`, target === "found.S9" ? [422, '{"detail": "no such bank"}'] : [200, "{}"]);
  });
  vi.spyOn(core, "ask").mockImplementation((method, address) =>
    note(`${method} ${address}`, [200, `"${calls.length}"`]),
  );
});

describe("a job that is along", () => {
  it("is told to the core once, with each entry once and in its order, and a kept answer costs nothing", async () => {
    await keep("j", "wennick", entry("found.S1", "01"));
    const first = await askAlong(taken, "GET", "/api/jobs/j", "");
    await keep("j.2", "wennick", entry("found.R1", "2"));
    await askAlong(taken, "GET", "/api/jobs/j", "");
    expect(calls).toEqual(["in {}", "add j found.S1", "GET /api/jobs/j", "add j.2 found.R1", "GET /api/jobs/j"]);
    const again = await askAlong(taken, "GET", "/api/jobs/j", "");
    expect(calls).toHaveLength(5);
    expect(again[1]).not.toBe(first[1]);
    expect((await keptAnswer("wennick", "/api/jobs/j"))?.body).toBe(again[1]);
  });

  it("begins anew where an entry was withdrawn, and never keeps what hangs on the moment", async () => {
    await keep("j", "wennick", entry("found.S1", "01"));
    await askAlong(taken, "GET", "/api/jobs/j/make-safe", "");
    const [each] = await waiting("wennick", "j");
    if (each) await drop(each);
    await askAlong(taken, "GET", "/api/jobs/j/make-safe", "");
    expect(calls.filter((call) => call === "in {}")).toHaveLength(2);
    expect(await keptAnswer("wennick", "/api/jobs/j/make-safe")).toBeUndefined();
  });

  it("says what the core would not take, with its reason", async () => {
    const wrong = entry("found.S9", "1");
    await keep("j", "wennick", wrong);
    expect(await enterAlong(taken, wrong.id)).toEqual([422, '{"detail": "no such bank"}']);
    const right = entry("found.S1", "1");
    await keep("j", "wennick", right);
    expect(await enterAlong(taken, right.id)).toBeNull();
  });

  it("lets go of what is being asked when something is entered, and asks it again of the job as it stands then", async () => {
    let letGo: (why: Error) => void = () => undefined;
    vi.spyOn(core, "interrupt").mockImplementation(() => letGo(new Interrupted()));
    vi.mocked(core.ask).mockImplementationOnce(
      () => (calls.push("slow"), new Promise<Said>((_, reject) => (letGo = reject))),
    );
    const slow = askAlong(taken, "GET", "/api/jobs/j/comparison", "");
    await vi.waitFor(() => expect(calls).toContain("slow"));
    const made = entry("found.S1", "01");
    await keep("j", "wennick", made);
    expect(await enterAlong(taken, made.id)).toBeNull();
    await slow;
    expect(calls.slice(1)).toEqual(["slow", "add j found.S1", "GET /api/jobs/j/comparison"]);
  });
});
