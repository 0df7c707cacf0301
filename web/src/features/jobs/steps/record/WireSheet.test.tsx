import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { WireSheet } from "./WireSheet";

const signals = [{ id: "fan", title: "Fan" }] as Parameters<typeof WireSheet>[0]["signals"];

function shown(parts: Parameters<typeof jobSheet>[0] = {}, carries = true) {
  const calls = { put: vi.fn(), onClose: vi.fn(), onNext: vi.fn() };
  render(<WireSheet job={jobSheet(parts)} plug="J1" pin="3" signals={signals} carries={carries} {...calls} />);
  return calls;
}
const field = (name: string | RegExp) => screen.getByRole("textbox", { name });
const button = (name: string) => screen.getByRole<HTMLButtonElement>("button", { name });

describe("the wire on a pin", () => {
  it("is kept with what was said of it, and nothing that was not", async () => {
    const { put, onNext } = shown();
    await userEvent.type(field("Tag"), " 17 ");
    await userEvent.type(field(/^Size in mm²/), "0,75");
    await userEvent.selectOptions(screen.getByRole("combobox"), "fan");
    await userEvent.click(button("Keep, next pin"));
    const [change] = put.mock.calls[0] as [{ target: string; after: unknown }];
    expect(change.target).toMatch(/^wire\.[0-9a-f-]{36}$/);
    expect(change.after).toEqual({ connector: "J1", pin: "3", tag: "17", mm2: 0.75, signal: "fan" });
    expect(onNext).toHaveBeenCalledOnce();
  });

  it.each(["0", "-1", "thin"])("is not kept with a size of %s", async (size) => {
    shown();
    await userEvent.type(field(/^Size in mm²/), size);
    expect(button("Keep, next pin").disabled).toBe(true);
    expect(screen.getByText(/A number above 0, or a gauge/)).toBeTruthy();
  });

  it("is marked by its gauge as well as by its cross-section, with its length", async () => {
    const { put } = shown();
    await userEvent.type(field(/^Size in mm²/), "18 AWG");
    await userEvent.type(field(/^Length in m/), "12");
    await userEvent.click(button("Keep, next pin"));
    expect(put.mock.calls[0]?.[0].after).toEqual({ connector: "J1", pin: "3", awg: 18, length_m: 12 });
  });

  it("is changed where it was recorded, and can be taken out", async () => {
    const wire = { connector: "J1", pin: "3", tag: "17", colour: "brown" };
    const { put, onClose } = shown({ wires: { w9: { ...wire, n: 1 } } });
    await userEvent.clear(field("Tag"));
    await userEvent.type(field("Tag"), "18");
    await userEvent.click(button("Keep, next pin"));
    await userEvent.click(button("Take this wire out"));
    expect(put.mock.calls).toEqual([
      [{ target: "wire.w9", after: { ...wire, tag: "18" } }],
      [{ target: "wire.w9", after: null }],
    ]);
    expect(onClose).toHaveBeenCalledOnce();
  });

  it("that is missing against the diagram is said to be missing", async () => {
    const { put, onNext } = shown();
    await userEvent.click(button("No wire here, next pin"));
    expect(put.mock.calls).toEqual([[{ target: "settled.J1.3", after: { as: "no wire was there", note: "" } }]]);
    expect(onNext).toHaveBeenCalledOnce();
  });

  it("that nothing speaks of needs no saying", async () => {
    const { put, onNext } = shown({}, false);
    await userEvent.click(button("No wire here, next pin"));
    expect(put).not.toHaveBeenCalled();
    expect(onNext).toHaveBeenCalledOnce();
  });

  it("stays as it is in a closed job", () => {
    shown({ closed: true });
    expect(field("Tag")).toHaveProperty("disabled", true);
    expect(screen.queryByRole("button", { name: "Keep, next pin" })).toBeNull();
  });
});
