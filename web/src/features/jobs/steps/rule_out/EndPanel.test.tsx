import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { EndPanel, hasDraft } from "./EndPanel";

const causes = [{ id: "surge", title: "Surge" }];
function shown(conclusion: string, parts: Parameters<typeof jobSheet>[0] = {}) {
  const put = vi.fn();
  const job = jobSheet(parts);
  render(<EndPanel job={job} put={put} conclusion={conclusion} causes={causes} leading="The board" />);
  return { put };
}
const note = () => screen.getByRole<HTMLTextAreaElement>("textbox");
const button = (name: string) => screen.getByRole<HTMLButtonElement>("button", { name });
const confirmed = { id: "rule_out", state: "done", note: "the fuse is blown" };

describe("the end of ruling out", () => {
  it("clears the board, or goes on undecided, only with what was found", async () => {
    const { put } = shown("cleared");
    expect(screen.getByText(/The tests clear the board/).textContent).toContain("Leading: The board.");
    expect([button("It was not the board").disabled, button("Undecided, go on").disabled]).toEqual([true, true]);
    await userEvent.type(note(), " door switch ");
    await userEvent.click(button("It was not the board"));
    expect(put.mock.calls).toEqual([
      [{ target: "confirmed.rule_out", after: { note: "door switch", end: "cleared" } }],
    ]);
  });

  it("keeps a note on the device until it is sent", async () => {
    shown("open", { family: "oven", causes: { unknown: { note: "", cleared: false, blocks: false } } });
    expect(button("The board is the cause").disabled).toBe(true);
    await userEvent.type(note(), "half a note");
    expect(hasDraft()).toBe(true);
    await userEvent.click(button("The board is the cause"));
    expect(hasDraft()).toBe(false);
  });

  it("asks in the same place why the board died, and condemns it then", async () => {
    const { put } = shown("condemned");
    expect(button("The board is the cause").disabled).toBe(true);
    await userEvent.click(button("Surge"));
    expect(put.mock.calls).toEqual([[{ target: "cause.surge", after: { note: "", cleared: false } }]]);
  });

  it("needs no words where a cause was seen", () => {
    shown("open", { causes: { surge: { note: "", cleared: false, blocks: false } } });
    expect(button("The board is the cause").disabled).toBe(false);
  });

  it("gives the note back with the confirmation", async () => {
    const { put } = shown("condemned", { steps: [confirmed] } as unknown as Parameters<typeof jobSheet>[0]);
    expect([note().value, note().disabled]).toEqual(["the fuse is blown", true]);
    await userEvent.click(button("Take this confirmation back"));
    expect(put.mock.calls).toEqual([[{ target: "confirmed.rule_out", after: null }]]);
    expect(hasDraft()).toBe(true);
  });
});
