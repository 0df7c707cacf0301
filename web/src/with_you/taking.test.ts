import { jobSheet } from "@/testing/jobs";
import { standInServer } from "@/testing/server";
import { entry } from "@/testing/jobs";
import { beforeEach, describe, expect, it, vi } from "vitest";
import * as core from "./core";
import { leaveOldBehind, STAYS_MS, takeAlong } from "./taking";
import { changeTaken, keptAnswer, noteSent, takenJob } from "./takings";

const JOB = jobSheet().id;
const document = (...entries: string[]) => ({
  as_of: `with ${entries.length}`,
  entries: entries.map((here) => ({ here })),
  sheets: {},
  families: { "7": { code: "deck-oven" } },
  state: { board: "1", boards: { "2": {} }, pictures: {} },
});

beforeEach(() => {
  vi.spyOn(core, "keepCore").mockResolvedValue();
  vi.spyOn(core, "loadCore").mockReturnValue();
});

describe("taking a job along", () => {
  it("keeps its pages, those of its further boards too, and tells how far it is", async () => {
    standInServer({
      [`/api/jobs/${JOB}/with-you`]: { body: document("a") },
      [`/api/jobs/${JOB}`]: { body: jobSheet() },
      [`/api/jobs/${JOB}.2`]: { body: jobSheet({ id: `${JOB}.2` }) },
    });
    const told: number[] = [];
    const taken = await takeAlong("wennick", `${JOB}.2`, true, ({ done, of }) => told.push(done / of));
    expect(taken).toMatchObject({ job: JOB, asOf: "with 1", entries: 1, asked: true });
    expect(told.at(-1)).toBe(1);
    expect(JSON.parse((await keptAnswer("wennick", `/api/jobs/${JOB}.2`))?.body ?? "")).toMatchObject({
      id: `${JOB}.2`,
    });
    // what is refused is kept as well: it is refused without a connection too
    expect((await keptAnswer("wennick", `/api/jobs/${JOB}/fitting`))?.status).toBe(404);
  });

  it("enters what was sent after it until the depot's own list has it", async () => {
    const paths = { [`/api/jobs/${JOB}/with-you`]: { body: document("a") } };
    const server = standInServer(paths);
    await takeAlong("wennick", JOB, false);
    await noteSent("wennick", JOB, [entry("found.S1", "01", { id: "b" })]);
    await noteSent("wennick", JOB, [entry("found.S1", "01", { id: "b" })]);
    await noteSent("wennick", JOB, [entry("found.S1", "11", { id: "c" })]);
    const since = async () => (await takenJob("wennick", JOB))?.since.map((each) => each.entry.id);
    expect(await since()).toEqual(["b", "c"]);
    server.paths[`/api/jobs/${JOB}/with-you`] = { body: document("a", "b") };
    await takeAlong("wennick", JOB, false);
    expect(await since()).toEqual(["c"]);
  });

  it("leaves behind what came along by itself and was not looked at for a week", async () => {
    standInServer({ [`/api/jobs/${JOB}/with-you`]: { body: document() } });
    vi.spyOn(core.core, "takeOut").mockResolvedValue(null);
    await takeAlong("wennick", JOB, false);
    await leaveOldBehind("wennick", Date.now() + STAYS_MS - 1000);
    expect(await takenJob("wennick", JOB)).toBeDefined();
    await changeTaken("wennick", JOB, (old) => old && { ...old, lookedAt: Date.now() - STAYS_MS - 1000 });
    await leaveOldBehind("wennick", Date.now());
    expect(await takenJob("wennick", JOB)).toBeUndefined();
  });
});
