import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { TestSheet } from "./TestSheet";
import type { RuleOut, Test } from "./types";

const test = (more: Partial<Test> = {}) =>
  ({
    id: "fuse",
    title: "Is the fuse whole?",
    minutes: 2,
    risk: "dead",
    bits: 0.5,
    how: ["Take it out."],
    expected: "whole",
    events: [],
    reading: null,
    results: [
      { id: "whole", title: "Whole" },
      { id: "blown", title: "Blown" },
    ],
    does: [],
    as_found: "",
    undo: "",
    source: "common practice",
    ...more,
  }) as unknown as Test;
const probe = test({
  id: "probe",
  title: "Measure the probe",
  reading: { quantity: "resistance", unit: "kΩ", uncertainty: 0.1, curve: "Probe curve", points: [], low: 9, high: 11 },
} as unknown as Partial<Test>);

function shown(each: Test, parts: Parameters<typeof jobSheet>[0] = {}, dead = true) {
  const calls = { put: vi.fn(), onDone: vi.fn() };
  render(<TestSheet data={{ dead } as RuleOut} job={jobSheet(parts)} test={each} {...calls} />);
  return calls;
}
const field = (name: string | RegExp) => screen.getByRole("textbox", { name });
const button = (name: string) => screen.getByRole<HTMLButtonElement>("button", { name });

describe("one test", () => {
  it("keeps what was seen, and is done", async () => {
    const { put, onDone } = shown(test());
    await userEvent.click(button("Blown"));
    expect(put.mock.calls).toEqual([[{ target: "test.fuse", after: { result: "blown" } }]]);
    expect(onDone).toHaveBeenCalledOnce();
  });

  it("waits for a machine that is dead, and can be skipped meanwhile", async () => {
    const { put } = shown(test(), {}, false);
    expect(screen.getByText("This test needs the machine dead")).toBeTruthy();
    expect(button("Whole").disabled).toBe(true);
    await userEvent.click(button("Cannot do it"));
    expect(put.mock.calls).toEqual([[{ target: "test.fuse", after: { result: "cannot do" } }]]);
  });

  it("says what it costs to make it under power", () => {
    shown(test({ risk: "live" }));
    expect(screen.getByText("Live work")).toBeTruthy();
    expect(screen.getByText(/every hold point starts anew/)).toBeTruthy();
  });

  it("has how it stood written down first, and what was put back after", async () => {
    const { put } = shown(test({ as_found: "where the link sat", undo: "the link" }));
    expect(button("Whole").disabled).toBe(true);
    await userEvent.type(field(/First write down/), " on 2-3 ");
    await userEvent.click(screen.getByRole("checkbox", { name: "Put back: the link" }));
    await userEvent.click(button("Whole"));
    expect(put.mock.calls).toEqual([
      [{ target: "test.fuse", after: { result: "whole", as_found: "on 2-3", restored: true } }],
    ]);
  });

  it("takes a reading with the temperature that its curve needs", async () => {
    const { put } = shown(probe);
    const keep = () => button("Keep this reading");
    await userEvent.type(field(/Read: resistance/), "10,4");
    expect(keep().disabled).toBe(true);
    await userEvent.type(field(/Temperature at the sensor/), "warm");
    expect(keep().disabled).toBe(true);
    await userEvent.clear(field(/Temperature at the sensor/));
    await userEvent.type(field(/Temperature at the sensor/), "-5");
    await userEvent.click(keep());
    expect(put.mock.calls).toEqual([[{ target: "test.probe", after: { value: 10.4, at_c: -5 } }]]);
  });

  it("takes what a meter shows that is no number", async () => {
    const { put } = shown({ ...probe, reading: { ...probe.reading, curve: null } } as Test);
    await userEvent.click(button("The meter shows OL"));
    await userEvent.click(button("Keep this reading"));
    await userEvent.clear(field(/Read: resistance/));
    await userEvent.type(field(/Read: resistance/), ">2000");
    await userEvent.click(button("Keep this reading"));
    expect(put.mock.calls.map(([each]) => each.after)).toEqual([{ beyond: "above" }, { value: 2000, beyond: "above" }]);
  });

  it("shows what was kept, and takes it back", async () => {
    const tests = { probe: { value: 10.4, at_c: 20 } } as unknown as ReturnType<typeof jobSheet>["tests"];
    const { put } = shown(probe, { tests });
    expect(screen.getByDisplayValue("10.4")).toBeTruthy();
    await userEvent.click(button("Take the result back"));
    expect(put.mock.calls).toEqual([[{ target: "test.probe", after: null }]]);
  });
});
