import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen, waitForElementToBeRemoved, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { RunSheet } from "./RunSheet";

const line = (number: number, words: string, wires: string[], minded: string[] = []) => ({
  number,
  key: `move ${number}`,
  kind: "move",
  words,
  wires,
  done: false,
  minded,
});
const wiring = {
  steps: [line(1, "Move the fan wire.", ["w1"]), line(2, "Cut the valve wire.", ["w2"], ["two wires on one pin"])],
  wires: [
    { id: "w1", tag: "7", from_place: "J1.1", to_place: "K1.2", carries: "Fan", treatment: "" },
    { id: "w2", tag: "", from_place: "J1.2", to_place: null, carries: "Valve", treatment: "capped" },
  ],
};
const fitting = {
  no_plugs: [{ step: "move 2", look: "last C1", words: ["no adapter is known"] }],
} as unknown as Schemas["FittingShown"];

function shown(parts: Parameters<typeof jobSheet>[0] = {}, plan: unknown = wiring) {
  const board = { part_number: "NL-1", revision: 1 };
  const job = jobSheet({
    replacement: "NL-2",
    original_board: board,
    replacement_board: board,
    ...parts,
  } as typeof parts);
  standInServer({
    [`/api/jobs/${job.id}/wiring`]: { ...(plan === "unreachable" ? { status: 503 } : {}), body: plan },
    [`/api/jobs/${job.id}/boards/original`]: { body: { document: { size_mm: [100, 60] } } },
    [`/api/jobs/${job.id}/boards/replacement`]: { body: { document: { size_mm: [100, 60] } } },
  });
  const put = vi.fn();
  renderAsking(<RunSheet job={job} put={put} fitting={fitting} />);
  return put;
}
const next = () => screen.findByRole("region", { name: "Next wire" });
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>("button", { name });

describe("the wiring plan for one hand", () => {
  it("shows the next wire alone, and takes D for done", async () => {
    const put = shown();
    expect(within(await next()).getByText("Move the fan wire.")).toBeTruthy();
    expect(screen.queryByText("Cut the valve wire.")).toBeNull();
    expect(button("Back a step").disabled).toBe(true);
    await userEvent.keyboard("bd");
    expect(put.mock.calls).toEqual([[{ target: "ticked.move 1", after: true }]]);
  });

  it("draws where the wire comes from and where it goes", async () => {
    shown();
    expect(await screen.findByRole("img", { name: "From the old board: J1.1" })).toBeTruthy();
    expect(screen.getByRole("img", { name: "To the new board: K1.2" })).toBeTruthy();
  });

  it("cuts nothing before somebody looked for a plug that fits", async () => {
    const put = shown({ ticked: { "move 1": true } });
    expect(within(await next()).getByText("Mind: two wires on one pin")).toBeTruthy();
    expect(button("Done").disabled).toBe(true);
    await userEvent.keyboard("d");
    expect(put).not.toHaveBeenCalled();
    await userEvent.click(button("I looked: no plug fits"));
    await userEvent.keyboard("b");
    expect(put.mock.calls).toEqual([
      [{ target: "look.last C1", after: true }],
      [{ target: "ticked.move 1", after: null }],
    ]);
  });

  it("goes on after the look, and tells where each wire is by now", async () => {
    const put = shown({ ticked: { "move 1": true }, looks: { "last C1": true } });
    await next();
    await userEvent.click(button("Done"));
    expect(put.mock.calls).toEqual([[{ target: "ticked.move 2", after: true }]]);
    await userEvent.click(screen.getByText("What is where at this moment"));
    const rows = screen.getAllByRole("row").map((row) => row.textContent);
    expect(rows.slice(1)).toEqual(["7 Fanon K1.2, new board", "J1.2 Valveon J1.2, old board"]);
  });

  it.each([
    ["closed", { closed: true }],
    ["under power", { energised: { by: "Wennick Tarl", at: "2031-04-02T08:00:00Z" } }],
  ])("moves nothing while the job is %s", async (_, parts) => {
    const put = shown({ ticked: {}, ...parts } as Parameters<typeof jobSheet>[0]);
    await next();
    await userEvent.keyboard("db");
    expect(put).not.toHaveBeenCalled();
  });

  it("says when all is done, and when there is nothing to do", async () => {
    shown({ ticked: { "move 1": true, "move 2": true } });
    expect(await screen.findByText("Every wire, plug and link is where it belongs.")).toBeTruthy();
  });

  it("says nothing of a plan that could not be read", async () => {
    shown({}, "unreachable");
    await waitForElementToBeRemoved(() => screen.queryByText(/Reading the wiring plan/));
    expect(screen.queryByText("No wire is in the plan.")).toBeNull();
  });

  it("says that no wire is in an empty plan", async () => {
    shown({}, { steps: [], wires: [] });
    expect(await screen.findByText("No wire is in the plan.")).toBeTruthy();
  });
});
