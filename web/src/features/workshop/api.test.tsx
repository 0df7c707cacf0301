import { standInQueries } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { wennick } from "@/testing/jobs";
import { act, renderHook, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { useChange, type Draft } from "./api";
import type { Change } from "./change";
import { waiting } from "./kept";

const draft = { id: "12", version: 3, document: {} } as unknown as Draft;
const PLACE = "POST /api/drafts/12/place";
const edit: Change = { what: "place", body: { path: ["board", "title"], after: "Mixer" } };

function setUp(answers: Parameters<typeof standInServer>[0]) {
  const server = standInServer({ "GET /api/session": { body: wennick }, ...answers });
  const { queries, wrapper } = standInQueries();
  queries.setQueryData(["session"], wennick);
  const hook = renderHook(() => useChange(draft), { wrapper });
  return { server, queries, hook, made: () => server.sent.filter((each) => each.method === "POST") };
}

describe("a change to a draft", () => {
  it.each([429, 500, 503])("waits where the answer is %i, and is sent again until it is taken", async (status) => {
    const { server, hook, made } = setUp({ [PLACE]: { status, body: { title: "No", detail: "Later." } } });
    act(() => hook.result.current.change(edit));
    await waitFor(() => expect(made().length).toBeGreaterThan(0));
    expect(waiting("wennick", "12")).toHaveLength(1);
    server.paths[PLACE] = { body: { ...draft, version: 4 } };
    await waitFor(() => expect(waiting("wennick", "12")).toEqual([]), { timeout: 30_000 });
    // each time the very same change
    expect(new Set(made().map((each) => (each.body as { id: string }).id)).size).toBe(1);
  });

  it("waits for its maker where nobody is signed in any more, and is sent as nobody else's", async () => {
    const { hook, queries, made } = setUp({ [PLACE]: { status: 401, body: { title: "Not signed in", detail: "." } } });
    act(() => hook.result.current.change(edit));
    await waitFor(() => expect(hook.result.current.error).not.toBeNull());
    expect(waiting("wennick", "12")).toHaveLength(1);
    const before = made().length;
    queries.setQueryData(["session"], { ...wennick, username: "corm" });
    act(() => hook.result.current.change(edit));
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(made()).toHaveLength(before);
    expect(waiting("wennick", "12")).toHaveLength(2);
  });

  it("is let go of where it is refused, with the reason", async () => {
    const { hook } = setUp({ [PLACE]: { status: 422, body: { title: "No", detail: "Expected a text.", faults: [] } } });
    act(() => hook.result.current.change(edit));
    await waitFor(() => expect((hook.result.current.error as Error).message).toBe("Expected a text."));
    expect(waiting("wennick", "12")).toEqual([]);
  });
});
