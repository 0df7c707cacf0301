import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { Overrides } from "./Overrides";

const began = "2031-04-02T08:00:00Z";
const plan = {
  overrides: [
    { id: "defrost", what: "Defrost forced", how: "both keys", undo: "Both keys again.", time_out_s: 600, does: [] },
  ],
} as unknown as Schemas["ProvingShown"];
const forced = (more: Partial<Schemas["ForcedKept"]> = {}) =>
  ({ by: "Wennick Tarl", at: began, began, what: "Defrost forced", off: false, ...more }) as Schemas["ForcedKept"];

function shown(parts: Parameters<typeof jobSheet>[0] = {}) {
  const put = vi.fn();
  render(<Overrides job={jobSheet(parts)} put={put} plan={plan} />);
  return put;
}
const button = (name: string) => screen.getByRole<HTMLButtonElement>("button", { name });

describe("what is overridden for a test", () => {
  beforeEach(() => void vi.spyOn(Date, "now").mockReturnValue(Date.parse(began) + 100_000));

  it("is kept with the time after which it ends by itself", async () => {
    const put = shown();
    expect(screen.getByText("Nothing is overridden.")).toBeTruthy();
    await userEvent.click(button("Switched on: Defrost forced"));
    const [change] = put.mock.calls[0] as [{ target: string; after: unknown }];
    expect(change.target).toMatch(/^forced\.[0-9a-f-]{36}$/);
    expect(change.after).toEqual({ what: "Defrost forced", off: false, time_out_s: 600, of: "defrost" });
  });

  it("may be something that the plan does not know", async () => {
    const put = shown();
    expect(button("Switched on").disabled).toBe(true);
    await userEvent.type(screen.getByRole("textbox"), " link over the door ");
    await userEvent.click(button("Switched on"));
    const [change] = put.mock.calls[0] as [{ after: unknown }];
    expect(change.after).toEqual({ what: "link over the door", off: false });
  });

  it("says how it is undone and how long it lasts, until it is off again", async () => {
    const put = shown({ forced: { f1: forced({ time_out_s: 600, of: "defrost" }) } });
    expect(screen.getByText("ends by itself in 500 s")).toBeTruthy();
    expect(screen.getByText("Both keys again.")).toBeTruthy();
    await userEvent.click(button("It is off again"));
    expect(put.mock.calls).toEqual([
      [{ target: "forced.f1", after: { what: "Defrost forced", off: true, time_out_s: 600, of: "defrost" } }],
    ]);
  });

  it.each([
    [{ time_out_s: 60 }, "past its time: make sure that it is off"],
    [{}, "no time-out: switch it off by hand"],
  ])("is not believed to be off by itself (%o)", (more, words) => {
    shown({ forced: { f1: forced(more) } });
    expect(screen.getByText(words)).toBeTruthy();
  });

  it("is not shown once it is off", () => {
    shown({ forced: { f1: forced({ off: true }) }, closed: true });
    expect(screen.getByText("Nothing is overridden.")).toBeTruthy();
    expect(screen.queryByRole("button")).toBeNull();
  });
});
