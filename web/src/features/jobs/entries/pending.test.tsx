import { keep, waiting } from "@/api/outbox";
import { entry, jobSheet, wennick } from "@/testing/jobs";
import { standInQueries } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { act, renderHook, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { Job } from "../api";
import { useSheet } from "./pending";
import { useEntries } from "./useEntries";

const job = jobSheet();
const ENTRIES = `POST /api/jobs/${job.id}/entries`;

function setUp(answers: Parameters<typeof standInServer>[0] = {}) {
  const paths = { "GET /api/session": { body: wennick }, [`GET /api/jobs/${job.id}`]: { body: job }, ...answers };
  const server = standInServer(paths);
  const { queries, wrapper } = standInQueries();
  queries.setQueryData(["session"], wennick);
  const shown: (Job | undefined)[] = [];
  const sheet = renderHook(
    () => {
      const { data } = useSheet(job.id);
      shown.push(data);
      return data;
    },
    { wrapper },
  );
  const entries = renderHook(() => useEntries(job), { wrapper });
  return { server, queries, sheet, entries, shown };
}

describe("a job's sheet", () => {
  it("is what the depot said with what waits upon it, however often it is read anew", async () => {
    await keep(job.id, "wennick", entry("found.S1", "000"));
    await keep(job.id, "wennick", entry("found.R1", "2"));
    const { sheet, queries, shown } = setUp({ [ENTRIES]: { status: 500, body: {} } });
    await waitFor(() => expect(sheet.result.current?.found).toEqual({ S1: "000", R1: "2" }));
    await act(() => queries.invalidateQueries({ queryKey: ["job", job.id] }));
    await act(() => queries.resetQueries({ queryKey: ["job", job.id] }));
    await waitFor(() => expect(sheet.result.current?.found).toEqual({ S1: "000", R1: "2" }));
    // not for one moment without it
    expect(shown.filter((each) => each && each.found.S1 !== "000")).toEqual([]);
  });

  it("has the next entry follow the one that waits, also after a reload", async () => {
    const first = entry("found.S1", "000");
    await keep(job.id, "wennick", first);
    const { entries, sheet } = setUp({ [ENTRIES]: "unreachable" });
    await waitFor(() => expect(sheet.result.current?.found.S1).toBe("000"));
    await act(() => entries.result.current.put({ target: "found.S1", after: "010" }));
    const last = (await waiting("wennick", job.id)).at(-1)?.entry;
    expect(last).toMatchObject({ before: "000", after: "010", upon: first.id });
  });

  it("does not have what was refused, nor what another person made", async () => {
    await keep(job.id, "corm", entry("found.S1", "111"));
    const { entries, sheet } = setUp({ [ENTRIES]: { status: 422, body: { title: "No", detail: "No.", faults: [] } } });
    await waitFor(() => expect(sheet.result.current?.found).toEqual({}));
    expect(await act(() => entries.result.current.put({ target: "found.S1", after: "000" }))).toBe(false);
    await waitFor(() => expect(sheet.result.current?.found).toEqual({}));
    expect(entries.result.current.sending.refused).toHaveLength(1);
  });

  it("queues two quick taps in the order in which they were made", async () => {
    const { entries } = setUp({ [ENTRIES]: "unreachable" });
    await act(async () => {
      const first = entries.result.current.put({ target: "found.S1", after: "000" });
      const second = entries.result.current.put({ target: "found.S1", after: "001" });
      await Promise.all([first, second]);
    });
    const made = (await waiting("wennick", job.id)).map((each) => each.entry);
    expect(made.map((each) => [each.before, each.after])).toEqual([
      [null, "000"],
      ["000", "001"],
    ]);
    expect(made[1]?.upon).toBe(made[0]?.id);
  });
});
