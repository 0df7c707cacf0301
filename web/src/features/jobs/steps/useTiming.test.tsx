import { act, renderHook } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { useTiming } from "./useTiming";

/** A stream from a board's port that a test speaks for. */
class StandInStream {
  static last: StandInStream | null = null;
  onerror: (() => void) | null = null;
  closed = false;
  private heard = new Map<string, (event: { data: string }) => void>();
  constructor(readonly url: string) {
    StandInStream.last = this;
  }
  addEventListener(name: string, listen: (event: { data: string }) => void) {
    this.heard.set(name, listen);
  }
  tell(name: string, data: unknown) {
    act(() => this.heard.get(name)?.({ data: JSON.stringify(data) }));
  }
  breaks() {
    act(() => this.onerror?.());
  }
  close() {
    this.closed = true;
  }
}

function stream() {
  const found = StandInStream.last;
  if (!found) throw new Error("no stream was opened");
  return found;
}

/** The page's clock, stepped by the test, and a hook that times with it. */
function setUp() {
  let clock = 5_000;
  vi.spyOn(performance, "now").mockImplementation(() => clock);
  const { result, unmount } = renderHook(() => useTiming("job", "original"));
  return { result, unmount, pass: (seconds: number) => (clock += seconds * 1000) };
}

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal("EventSource", StandInStream);
  StandInStream.last = null;
});

describe("timing by taps", () => {
  it("stamps each tap from the beginning of the run, and puts what is typed in its order", () => {
    const { result, pass } = setUp();
    act(() => result.current.begin(false));
    pass(2.5);
    act(() => result.current.input("call", true));
    pass(1.25);
    act(() => result.current.output("fan", true));
    act(() => result.current.output("lamp", true, 0.2, 3));
    expect(result.current.timing.steps).toEqual([{ at: 2.5, set: { call: true } }]);
    expect(result.current.timing.seen).toEqual([
      { at: 3, output: "lamp", on: true, within_s: 0.2 },
      { at: 3.75, output: "fan", on: true, within_s: 0.5 },
    ]);
    pass(0.5);
    let until = 0;
    act(() => (until = result.current.end()));
    expect([until, result.current.running]).toEqual([6, false]);
    expect(StandInStream.last).toBeNull();
  });
});

describe("timing over the port", () => {
  const started = () => {
    const all = setUp();
    act(() => all.result.current.begin(true));
    stream().tell("now", { inputs: ["power"], outputs: [], at: 1000, within: 0.1 });
    return all;
  };

  it("takes how things stand first for no change, then stamps changes with the server's clock", () => {
    const { result, pass } = started();
    expect(stream().url).toContain("side=original");
    expect([result.current.watching, result.current.timing.seen]).toEqual([true, []]);
    pass(9); // the page's own clock does not matter
    stream().tell("now", { inputs: ["power", "call"], outputs: ["fan"], at: 1004.25, within: 0.1 });
    expect(result.current.timing.steps).toEqual([{ at: 4.25, set: { call: true } }]);
    expect(result.current.timing.seen).toEqual([{ at: 4.25, output: "fan", on: true, within_s: 0.2 }]);
  });

  it("says of a change seen after the stream broke off that it came at any time of the gap", () => {
    const { result } = started();
    stream().tell("here", { at: 1010 });
    stream().breaks();
    expect(result.current.lost).toBe("the connection is gone");
    stream().tell("here", { at: 1024 }); // the new connection's own beat says nothing of the time before
    stream().tell("now", { inputs: ["power"], outputs: ["fan"], at: 1025, within: 0 });
    expect(result.current.lost).toBe("");
    expect(result.current.timing.seen).toEqual([{ at: 25, output: "fan", on: true, within_s: 15.1 }]);
    stream().tell("now", { inputs: ["power"], outputs: [], at: 1026, within: 0.1 });
    expect(result.current.timing.seen[1]).toEqual({ at: 26, output: "fan", on: false, within_s: 0.2 });
  });

  it("says while the port is silent, and goes on by hand where somebody wants to", () => {
    const { result } = started();
    stream().tell("lost", { why: "no answer came in time" });
    expect(result.current.lost).toBe("no answer came in time");
    stream().tell("back", {});
    expect(result.current.lost).toBe("");
    const before = stream();
    act(() => result.current.byHand());
    expect([before.closed, result.current.running, result.current.overPort]).toEqual([true, true, false]);
  });

  it("lets go of the port when the page goes", () => {
    const { unmount } = started();
    unmount();
    expect(stream().closed).toBe(true);
  });
});
