import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Job } from "../../api";
import { RefitAtOnce } from "./RefitAtOnce";

const piece = (what: string, n: number) => ({ what, n, kind: "screw", count: 1, place: "", back: false });
const look = (key: string, group: string) => ({ key, group, words: `look ${key}`, detail: "", done: false });

describe("the refit on one screen", () => {
  it("goes in the order of the hands: board, wires, looks, then last off, first on", async () => {
    // names as storage sorts them, not as the pieces came off
    const removed = { aa: piece("cover", 1), b: piece("tray", 3), c: piece("panel", 2), d: piece("hose", 4) };
    const job = jobSheet({
      replacement: "QN7-0042",
      in_hand: { number: "QN7-0042" },
      removed,
    } as unknown as Partial<Job>);
    standInServer({
      [`/api/jobs/${job.id}/boards/replacement`]: { body: { elements: [], document: {} } },
      [`/api/jobs/${job.id}/wiring`]: { body: { steps: [{ key: "plug J1", words: "J1 goes on" }] } },
    });
    const fitting = {
      by_hand: [], differing: [], kit: [], moving: [], alike: [], planned: {},
      looks: [look("no lead pinched", "place"), look("mounted", "mount")],
    } as unknown as Schemas["FittingShown"]; // prettier-ignore
    const put = vi.fn().mockResolvedValue(true);
    renderAsking(<RefitAtOnce job={job} put={put} fitting={fitting} />);
    const list = within(await screen.findByRole("list", { name: "All of it" }));
    const told = list.getAllByRole("listitem").map((each) => each.textContent);
    expect(told.map((each) => each?.replace("Back on: ", ""))).toEqual([
      "look mounted", "J1 goes on", "look no lead pinched", "hose", "tray", "panel", "cover",
    ]); // prettier-ignore
    await userEvent.click(screen.getByRole("button", { name: "All of this is done" }));
    await vi.waitFor(() => expect(put).toHaveBeenCalledTimes(7));
    expect(put.mock.calls.map(([each]) => (each as { target: string }).target)).toEqual([
      "look.mounted", "ticked.plug J1", "look.no lead pinched", "removed.d", "removed.b", "removed.c", "removed.aa",
    ]); // prettier-ignore
  });
});
