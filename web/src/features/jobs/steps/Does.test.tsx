import type { Schemas } from "@/api/client";
import { act, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Does } from "./Does";

const line = (what: Schemas["DoesShown"]["what"], words: string, more: Partial<Schemas["DoesShown"]> = {}) => ({
  what,
  words,
  wait_s: 0,
  missing: false,
  ...more,
});

afterEach(() => vi.useRealTimers());

describe("what a test does", () => {
  it("is told line by line, and what this board does not have is said", () => {
    render(<Does does={[line("set", "Set S1.3 to on"), line("unplug", "Pull the plug of far", { missing: true })]} />);
    const lines = screen.getAllByRole("listitem").map((each) => each.textContent);
    expect(lines[0]).toBe("Set S1.3 to on");
    expect(lines[1]).toContain("this board names no such place");
  });

  it("has a clock for a wait, from the tap that starts it to its end", () => {
    vi.useFakeTimers();
    render(<Does does={[line("wait", "Wait 20 s", { wait_s: 20 })]} />);
    expect(screen.queryByRole("timer")).toBeNull();
    fireEvent.click(screen.getByRole("button", { name: "Start the wait of 20 s" }));
    expect(screen.getByRole("timer").textContent).toBe("0:20");
    act(() => void vi.advanceTimersByTime(21_000));
    expect(screen.getByRole("timer").textContent).toBe("over");
  });

  it("is nothing where a test has no such data", () => {
    expect(render(<Does does={[]} />).container.innerHTML).toBe("");
  });
});
