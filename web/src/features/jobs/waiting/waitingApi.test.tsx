import { keep, refuse, waiting } from "@/api/outbox";
import { Problem } from "@/api/client";
import { entry } from "@/testing/jobs";
import { standInQueries } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { keepPicture, keptPicture } from "@/with_you/pictures";
import { render, renderHook, screen, waitFor } from "@testing-library/react";
import { Blob as NodeBlob } from "node:buffer";
import { act } from "react";
import { describe, expect, it, vi } from "vitest";
import { Collision } from "./Collision";
import { entriesFile, useWaitingActions, useWaitingJobs } from "./waitingApi";

const PICTURE = "33333333-3333-4333-8333-333333333333";

async function asFile(): Promise<string> {
  const { wrapper } = standInQueries();
  const { result } = renderHook(() => useWaitingJobs("wennick"), { wrapper });
  await waitFor(() => expect(result.current.data).toBeDefined());
  return entriesFile("wennick", result.current.data ?? []);
}

describe("what waits, as a file", () => {
  it("has the pictures that wait, and brings all of it onto another device", async () => {
    standInServer({});
    await keep("j", "wennick", entry("found.S1", "01"));
    await keep("j", "wennick", entry(`picture.${PICTURE}`, { caption: "plate" }));
    const bytes = new Uint8Array([0, 1, 128, 255]);
    await keepPicture("wennick", "j", PICTURE, new NodeBlob([bytes], { type: "image/png" }) as Blob);
    const text = await asFile();
    // another device
    globalThis.indexedDB = new IDBFactory();
    await (await import("@/api/outbox")).closeOutbox();
    expect(await waiting("wennick")).toEqual([]);
    const { result } = renderHook(() => useWaitingActions("wennick"), { wrapper: standInQueries().wrapper });
    await act(() => result.current.bringIn.mutateAsync(new File([text], "waiting.json")));
    expect((await waiting("wennick")).map((each) => each.entry.target)).toEqual(["found.S1", `picture.${PICTURE}`]);
    const kept = await keptPicture("wennick", "j", PICTURE);
    expect([kept?.waits, kept?.file.type]).toEqual([true, "image/png"]);
    expect([...new Uint8Array(await new Response(kept?.file).arrayBuffer())]).toEqual([...bytes]);
  });
});

describe("what waits", () => {
  it("names its machine, also where the job is not on this device", async () => {
    standInServer({ "GET /api/jobs/j": { body: { machine: "Deck oven 1" } }, "GET /api/jobs/k": "unreachable" });
    await keep("j", "wennick", entry("found.S1", "01"));
    await keep("k", "wennick", entry("found.S1", "01"));
    const { result } = renderHook(() => useWaitingJobs("wennick"), { wrapper: standInQueries().wrapper });
    await waitFor(() => expect(result.current.data?.map((each) => each.machine)).toEqual(["Deck oven 1", "A job"]));
  });
});

describe("an entry that collides", () => {
  it("shows what each said in full, in the words of the depot", async () => {
    standInServer({
      "POST /api/jobs/j/entries/words": (sent) => ({
        body: (sent.body as { changes: { after: { where: string } }[] }).changes.map(({ after }) => ({
          about: "Hold point: Isolate and lock off",
          before: "nothing",
          after: `at ${after.where}`,
        })),
      }),
    });
    await keep("j", "wennick", entry("hold.isolate", { where: "main switch", tag: "7" }));
    const [mine] = await waiting("wennick");
    if (!mine) throw new Error("nothing waits");
    const changes = [
      { target: "hold.isolate", after: { where: "sub-panel 4", tag: "19" }, by: "Corm", at: "2026-01-01T08:00:00Z" },
    ];
    await refuse(mine, new Problem(409, "Changed meanwhile", "Look again.", [], { changes, now: null }));
    const [each] = await waiting("wennick");
    if (!each) throw new Error("nothing waits");
    const { wrapper } = standInQueries();
    render(<Collision each={each} busy={false} onMine={vi.fn()} onTheirs={vi.fn()} />, { wrapper });
    // before the depot's words are there, and where they cannot be had, every part is said as well
    expect(screen.getByText(/main switch/).textContent).toContain("7");
    expect(await screen.findByRole("heading", { name: "Hold point: Isolate and lock off" })).toBeTruthy();
    expect([screen.getByText("at main switch"), screen.getByText("at sub-panel 4")]).toHaveLength(2);
  });
});
