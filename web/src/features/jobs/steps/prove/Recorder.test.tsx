import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { render, screen, waitFor } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { Recorder } from "./Recorder";

const family = {
  inputs: [{ id: "power" }, { id: "call", title: "Call for heat" }, { id: "door", title: "Door" }],
  outputs: [
    { id: "fan", title: "Fan" },
    { id: "lamp", title: "Lamp", compare: false },
  ],
};
const run = {
  id: "bake",
  title: "A bake",
  steps: [{ at: 1, input: "call", title: "Call for heat", value: true }],
  due: [],
  original: [],
  replacement: [],
  until: 30,
} as unknown as Schemas["PlannedShown"];
const plan = { port: false, overrides: [] } as unknown as Schemas["ProvingShown"];
const button = (name: string | RegExp) => screen.getByRole("button", { name });

describe("recording a run", () => {
  it("keeps what was tapped, until what was waited for, with the plan that it follows", async () => {
    let clock = 0;
    vi.spyOn(performance, "now").mockImplementation(() => clock);
    const put = vi.fn();
    render(<Recorder job={jobSheet()} put={put} run={run} plan={plan} family={family} />);
    await userEvent.click(button("Run it, timed by tapping"));
    expect((button("End and keep this run") as HTMLButtonElement).disabled).toBe(true);
    expect(screen.queryByRole("button", { name: /Lamp/ })).toBeNull(); // what is not compared is not asked for
    clock = 2_000;
    await userEvent.click(button("Call for heat off"));
    clock = 4_500;
    await userEvent.click(button("Fan off"));
    expect(button("Fan on").getAttribute("aria-pressed")).toBe("true");
    clock = 6_200;
    // the run ends a second after what the page's clock showed last
    await waitFor(() => expect(screen.getByRole("timer").textContent).toBe("6.2 s"));
    await userEvent.click(button("End and keep this run"));
    const [change] = put.mock.calls[0] as [{ target: string; after: Schemas["RunSaid"] }];
    expect(change.target).toMatch(/^run\.[0-9a-f-]{36}$/);
    expect(change.after).toEqual({
      title: "A bake",
      plan: "bake",
      steps: [{ at: 2, set: { call: true } }],
      seen: [{ at: 4.5, output: "fan", on: true, within_s: 0.5 }],
      until: 8,
      timed: "by hand",
    });
  });

  it("throws a run away where somebody says so", async () => {
    const put = vi.fn();
    render(<Recorder job={jobSheet()} put={put} run={null} plan={plan} family={family} />);
    await userEvent.click(button("Time it by tapping"));
    await userEvent.click(button("Throw it away"));
    expect(button("Time it by tapping")).toBeTruthy();
    expect(put).not.toHaveBeenCalled();
  });
});
