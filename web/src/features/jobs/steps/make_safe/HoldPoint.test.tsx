import type { Schemas } from "@/api/client";
import { act, render, renderHook, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { HoldPoint } from "./HoldPoint";
import { minutes, useCountdown } from "./useCountdown";

function point(more: Partial<Schemas["HoldShown"]> = {}): Schemas["HoldShown"] {
  return {
    id: "stored",
    kind: "stored energy",
    title: "Stored energy has decayed",
    say: ["Measure at the link."],
    asks: ["instrument", "reading", "checked_before"],
    limit: 60,
    unit: "V",
    wait_s: 300,
    left_s: 0,
    energy_j: null,
    pairs: [],
    held: null,
    ...more,
  } as Schemas["HoldShown"];
}
const shown = (given: Partial<Parameters<typeof HoldPoint>[0]> = {}) => {
  const calls = { onHold: vi.fn(), onSkip: vi.fn(), onTakeBack: vi.fn(), onOpen: vi.fn() };
  render(
    <ul>
      <HoldPoint
        point={point()}
        readAt={performance.now()}
        lockedOffAt="2026-03-02T08:00:00Z"
        disabled={false}
        open
        {...calls}
        {...given}
      />
    </ul>,
  );
  return calls;
};

describe("a countdown", () => {
  let clock = 0;
  beforeEach(() => {
    vi.useFakeTimers();
    clock = 1_000;
    vi.spyOn(performance, "now").mockImplementation(() => clock);
  });

  it("goes on from what the server told, and ends at nothing", () => {
    const { result } = renderHook(() => useCountdown(90, 1_000));
    expect(result.current).toBe(90);
    clock += 30_500;
    act(() => void vi.advanceTimersByTime(250));
    expect(result.current).toBe(59.5);
    clock += 600_000;
    act(() => void vi.advanceTimersByTime(250));
    expect(result.current).toBe(0);
    expect(vi.getTimerCount()).toBe(0);
  });

  it.each([
    [0, "0:00"],
    [59.2, "1:00"],
    [61, "1:01"],
    [600, "10:00"],
  ])("tells %f s as %s", (seconds, words) => expect(minutes(seconds)).toBe(words));
});

describe("a hold point", () => {
  it("waits until the time is over, and then for a reading", async () => {
    shown({ point: point({ left_s: 120 }) });
    expect(screen.getByRole("timer").textContent).toContain("Wait 2:00 more");
    expect((screen.getByRole("button", { name: /confirmed$/ }) as HTMLButtonElement).disabled).toBe(true);
  });

  it("does not begin its wait before the supply is locked off", () => {
    shown({ lockedOffAt: null });
    expect(screen.getByRole("timer").textContent).toContain("starts when the supply is locked off");
    expect((screen.getByRole("button", { name: /confirmed$/ }) as HTMLButtonElement).disabled).toBe(true);
  });

  it("says what was seen, a reading as a number", async () => {
    const { onHold } = shown();
    expect(screen.getByRole("timer").textContent).toBe("Wait time is up. Now measure: only a reading ends the wait.");
    await userEvent.type(screen.getByLabelText(/^Instrument$/), "tester 4");
    await userEvent.type(screen.getByLabelText(/^Reading/), "3,5");
    await userEvent.click(screen.getByRole("checkbox"));
    await userEvent.click(screen.getByRole("button", { name: /confirmed$/ }));
    expect(onHold.mock.calls).toEqual([[{ instrument: "tester 4", reading: 3.5, checked_before: true }]]);
  });

  it("asks for a reading between every two terminals, and sends each as a number", async () => {
    const pairs = [
      { id: "m L-N", title: "Mains: L to N" },
      { id: "m L-PE", title: "Mains: L to PE" },
    ];
    const { onHold } = shown({
      point: point({ title: "Prove dead", asks: ["readings"], pairs, limit: 2.4, wait_s: 0 }),
    });
    expect(screen.getByRole("group").textContent).toContain("each below 2.4 V");
    await userEvent.type(screen.getByRole("textbox", { name: "Prove dead: Mains: L to N in V" }), "0");
    await userEvent.type(screen.getByRole("textbox", { name: "Prove dead: Mains: L to PE in V" }), "0,4");
    await userEvent.click(screen.getByRole("button", { name: /confirmed$/ }));
    expect(onHold.mock.calls).toEqual([[{ readings: { "m L-N": 0, "m L-PE": 0.4 } }]]);
  });

  it("is skipped only with a reason", async () => {
    const { onSkip } = shown();
    await userEvent.click(screen.getByRole("button", { name: "Skip this one" }));
    const skip = screen.getByRole("button", { name: "Skip with this reason" }) as HTMLButtonElement;
    expect(skip.disabled).toBe(true);
    await userEvent.type(screen.getByRole("textbox", { name: /^Why/ }), "measured by the owner");
    await userEvent.click(skip);
    expect(onSkip.mock.calls).toEqual([["measured by the owner"]]);
  });

  it("is told with who and what once it holds, and can be taken back", async () => {
    const held = { reading: 3.5, instrument: "tester 4", by: "Wennick Tarl", at: "2026-03-02T03:00:00.000+00:00" };
    const { onTakeBack } = shown({ point: point({ held }) });
    expect(screen.getByRole("listitem").textContent).toContain("instrument tester 4, reading 3.5 V");
    await userEvent.click(screen.getByRole("button", { name: "Take back: Stored energy has decayed" }));
    expect(onTakeBack).toHaveBeenCalledOnce();
  });
});
