import type { Schemas } from "@/api/client";
import { element, jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { LeafletPanel } from "./LeafletPanel";

/** Its bank hangs the other way round: place 1 is seen last. */
const board = {
  part_number: "TVH-2214-A",
  document: {},
  elements: [
    element({
      id: "S1",
      points: [1, 2, 3, 4].map((each) => `S1.${each}`),
      hanging: { axis: "across", backwards: true, on: "down", known: true },
    }),
  ],
};
const row = { chart: "Sheet 4", page: "11", row: 2, positions: { S1: "0110" }, use: ["adapter lead E"], notes: [] };
const nothing = { rows: [], sets: null, whole: false, clash: [], asks: [], possible: 0, tables: true, against: [] };

function shown(leaflet: Partial<Schemas["LeafletShown"]>, proposed = "functions", school: string | null = null) {
  const put = vi.fn();
  const job = jobSheet({ school } as Parameters<typeof jobSheet>[0]);
  render(<LeafletPanel job={job} put={put} board={board} leaflet={{ ...nothing, ...leaflet }} proposed={proposed} />);
  return put;
}

describe("the leaflet’s row", () => {
  it("is set all at once, with a reason where functions would say something", async () => {
    const put = shown({ rows: [row], sets: { S1: "0110" }, whole: true });
    expect(screen.getByText("Sheet 4, page 11, row 2 holds for this machine. With it: adapter lead E.")).toBeTruthy();
    expect(screen.getByText("S1 0110").parentElement?.textContent).toBe("S1 0110 left to right 4 to 1, on is down");
    const set = screen.getByRole<HTMLButtonElement>("button", { name: "Set by this row" });
    expect(set.disabled).toBe(true);
    await userEvent.type(screen.getByRole("textbox"), "the leaflet is newer");
    await userEvent.click(set);
    expect(put.mock.calls).toEqual([[{ target: "school", after: "table", reason: "the leaflet is newer" }]]);
  });

  it("is the plan already where it is proposed, and can be left again where it was chosen", async () => {
    shown({ rows: [row], sets: { S1: "0110" }, whole: true }, "table");
    expect(screen.getByText(/The plan is this row/)).toBeTruthy();
    expect(screen.queryByRole("button")).toBeNull();
    const put = shown({ rows: [row], sets: { S1: "0110" }, whole: true }, "functions", "table");
    await userEvent.click(screen.getByRole("button", { name: "Not by this row" }));
    expect(put.mock.calls).toEqual([[{ target: "school", after: null }]]);
  });

  it("asks for what would decide between rows, and takes none by half", async () => {
    const asks = [{ fact: "damper", words: "Damper fitted: no", wanted: false, unit: "" }];
    const put = shown({ asks, possible: 2 });
    expect(screen.getByText("2 rows could hold. Half a row is never taken: answer first.")).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Set by this row" })).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "yes" }));
    expect(put.mock.calls[0]?.[0]).toMatchObject({ target: "fact.damper", after: { value: true } });
  });

  it("stays where no row fits, with the facts of which one may be wrong", () => {
    // a defect: facts that no row has made the whole leaflet vanish
    shown({ against: ["Model P43", "Year made 2015"] });
    expect(screen.getByRole("status").textContent).toContain("No row fits this machine: Model P43, Year made 2015.");
  });

  it("says where its rows contradict each other", () => {
    shown({ rows: [row, { ...row, row: 3 }], clash: ["S1.2"] });
    expect(screen.getByRole("alert").textContent).toContain("contradict each other at S1.2");
  });
});
