import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { act, renderHook } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { usePresses } from "./usePresses";

const line = (action: string, times: number): Schemas["PressLine"] =>
  ({ action, times, key: action, shows: "", hold_s: 0 }) as unknown as Schemas["PressLine"];
const panel = { count: 4, presses: [line("open", 1), line("up", 3), line("set", 1)] } as Schemas["PanelShown"];
const presses = (index = 0) =>
  renderHook(() => usePresses(jobSheet({ replacement: "TVH-2214-A" }), panel, index)).result;

describe("a series of presses", () => {
  it("goes on one press at a time, and back", () => {
    const found = presses();
    expect([found.current.next?.action, found.current.total]).toEqual(["open", 3]);
    act(() => found.current.seen());
    expect(found.current.next?.action).toBe("up");
    act(() => found.current.back());
    act(() => found.current.back());
    expect([found.current.next?.action, found.current.done]).toEqual(["open", 0]);
  });

  it("tells what was pressed so far: opening is none", () => {
    const found = presses();
    act(() => found.current.seen());
    expect(found.current.actions(false)).toEqual([]);
    expect(found.current.actions(true)).toEqual(["up", "up", "up"]);
  });

  it("goes on from what a slip led to", () => {
    const found = presses();
    act(() => found.current.goOn(["up", "up"], [line("down", 1)]));
    act(() => found.current.seen());
    expect(found.current.actions(false)).toEqual(["up", "up", "down"]);
    expect(found.current.next).toBeUndefined();
  });

  it("is where it was after the page was closed, panel by panel", () => {
    const first = presses();
    act(() => first.current.seen());
    expect(presses().current.done).toBe(1);
    expect(presses(1).current.done).toBe(0);
    act(() => first.current.restart());
    expect(presses().current.done).toBe(0);
  });
});
