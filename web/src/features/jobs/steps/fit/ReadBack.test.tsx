import type { Schemas } from "@/api/client";
import { element, jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Job } from "../../api";
import { ReadBack } from "./ReadBack";

const layout = [{ ref: "S1", at: [10, 10], size: [22, 10] }];
const board = {
  elements: [
    element(),
    element({ id: "P1", kind: "parameter", unit: "s", points: ["P1"], range: { low: 0, high: 90, step: 30 } }),
  ],
  document: { size_mm: [100, 60], layout },
};

function shown(parts: Partial<Job>, fitting: Partial<Schemas["FittingShown"]>, names = ["S1", "P1"]) {
  const job = jobSheet({
    replacement: "TVH-2420-A",
    replacement_board: { part_number: "TVH-2420-A", revision: 1 },
    ...parts,
  } as Partial<Job>);
  standInServer({ [`/api/jobs/${job.id}/boards/replacement`]: { body: board } });
  const put = vi.fn();
  const told = {
    planned: { S1: "011", P1: 60 },
    learned: [],
    differing: [],
    ...fitting,
  } as unknown as Schemas["FittingShown"];
  renderAsking(<ReadBack job={job} put={put} fitting={told} names={names} drawn />);
  return put;
}

describe("settings in the hand", () => {
  it("are shown large, and read back without the plan in sight", async () => {
    const put = shown({}, {});
    expect(await screen.findByText("011")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Read it back, blind: S1" }));
    // neither the list nor the drawing behind the sheet says what is planned
    expect(screen.queryByText("011")).toBeNull();
    expect(screen.queryByLabelText(/S1 011/)).toBeNull();
    const sheet = within(screen.getByRole("dialog"));
    expect(sheet.getByRole<HTMLButtonElement>("button", { name: "Compare with the plan" }).disabled).toBe(true);
    await userEvent.type(sheet.getByLabelText("S1 typed"), "010");
    await userEvent.click(sheet.getByRole("button", { name: "Compare with the plan" }));
    expect(put).toHaveBeenCalledWith({ target: "readback.S1", after: { value: "010" }, read_how: "by eye" });
  });

  it("name the switch that is not as planned, and stay open until it is read again", async () => {
    const put = shown({}, {});
    await userEvent.click(await screen.findByRole("button", { name: "Read it back, blind: S1" }));
    const sheet = within(screen.getByRole("dialog"));
    await userEvent.type(sheet.getByLabelText("S1 typed"), "010");
    await userEvent.click(sheet.getByRole("button", { name: "Compare with the plan" }));
    expect(sheet.getByRole("alert").textContent).toContain("Not as planned: S1.3");
    await userEvent.clear(sheet.getByLabelText("S1 typed"));
    await userEvent.type(sheet.getByLabelText("S1 typed"), "011");
    await userEvent.click(sheet.getByRole("button", { name: "Compare with the plan" }));
    expect(screen.queryByRole("dialog")).toBeNull();
    expect(put.mock.calls.map(([each]) => (each as { after: unknown }).after)).toEqual([
      { value: "010" },
      { value: "011" },
    ]);
  });

  it("say whether they read as planned, and by whom it was read", async () => {
    const readbacks = {
      S1: { value: "010", by: "Wennick Tarl", how: "by eye" },
      P1: { value: 60, by: "Corm", how: "" },
    };
    shown({ readbacks } as never, { differing: ["S1"] });
    expect(await screen.findByText("reads 010: not as planned")).toBeTruthy();
    expect(screen.getByText(/reads as planned \(.*Corm\)/)).toBeTruthy();
  });

  it("say so where nothing is set by hand", () => {
    shown({}, {}, []);
    expect(screen.getByText("Nothing is set here.")).toBeTruthy();
  });
});
