import { fireEvent, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { spans } from "./OutputBand";
import { TimeTracks, ticks } from "./TimeTracks";

const shown = (...each: [at: number, ...on: string[]][]) => each.map(([at, ...on]) => ({ at, on, states: [] }));

describe("when an output is on", () => {
  it("is told in spans, the last one open to the end", () => {
    const track = shown([0], [2, "fan"], [5, "fan", "lamp"], [6], [8, "fan"]);
    expect(spans(track, "fan", 10)).toEqual([
      [2, 6],
      [8, 10],
    ]);
    expect(spans(track, "lamp", 10)).toEqual([[5, 6]]);
    expect(spans(track, "valve", 10)).toEqual([]);
  });
});

describe("the marks of time", () => {
  it("stand at what people count in, never more than a few", () => {
    expect(ticks(6)).toEqual([0, 1, 2, 3, 4, 5, 6]);
    expect(ticks(240)).toEqual([0, 60, 120, 180, 240]);
    expect(ticks(21_600)).toEqual([0, 3600, 7200, 10_800, 14_400, 18_000, 21_600]);
    for (const until of [0.3, 7, 59, 61, 1234, 90_000, 10_000_000]) expect(ticks(until).length).toBeLessThan(9);
  });
});

describe("a level among the inputs", () => {
  it("is a line between its bounds, with the last value of each instant beside it", () => {
    const level = { id: "temp", title: "Chamber", rest: 0, level: { unit: "°C", from: 0, to: 100 } };
    const steps = [
      { at: 10, set: { temp: 40 } },
      { at: 10, set: { temp: 50 } },
      { at: 60, set: { temp: 100 } },
    ];
    const { container } = render(
      <TimeTracks inputs={[level]} outputs={[]} steps={steps} original={[]} replacement={[]} until={100} />,
    );
    expect([...container.querySelectorAll("text")].map((each) => each.textContent)).toEqual(
      expect.arrayContaining(["50", "100"]),
    );
    expect(container.textContent).not.toContain("40");
    const drawn = [...container.querySelectorAll("path")].map((each) => each.getAttribute("d") ?? "");
    const line = drawn.find((each) => each.split("V").length === 4) ?? "";
    const [, half = 0, top = 0] = [...line.matchAll(/V([0-9.]+)/g)].map((each) => Number(each[1]));
    expect(half - top).toBeCloseTo(18);
  });

  it("has the thresholds of both boards, in the ink of who reads them, apart however near they lie", () => {
    const level = { id: "temp", title: "Coil", rest: -6, level: { unit: "°C", from: -300, to: 400 } };
    const at = (value: number, original: boolean, replacement: boolean) => ({
      level: "temp",
      at: value,
      original,
      replacement,
    });
    const { container } = render(
      <TimeTracks
        inputs={[level]}
        outputs={[]}
        steps={[{ at: 10, set: { temp: 14 } }]}
        original={[]}
        replacement={[]}
        thresholds={[
          at(8, true, false),
          at(12, false, true),
          at(14, true, true),
          { ...at(9, true, true), level: "other" },
        ]}
        until={100}
      />,
    );
    const dashed = [...container.querySelectorAll("path[stroke-dasharray]")];
    expect(dashed.map((each) => each.getAttribute("stroke"))).toEqual([
      "var(--original)",
      "var(--replacement)",
      "var(--both)",
    ]);
    const heights = dashed.map((each) => Number(/ ([0-9.]+)H/.exec(each.getAttribute("d") ?? "")?.[1]));
    expect((heights[0] ?? 0) - (heights[1] ?? 0)).toBeGreaterThan(4);
  });
});

describe("time tracks", () => {
  const tracks = (more: Partial<Parameters<typeof TimeTracks>[0]> = {}) =>
    render(
      <TimeTracks
        inputs={[
          { id: "call", title: "Call for heat", rest: false },
          { id: "door", title: "Door", rest: false },
        ]}
        outputs={[{ id: "fan", title: "Fan" }]}
        steps={[{ at: 10, set: { call: true } }]}
        original={shown([0], [10, "fan"], [40])}
        replacement={shown([0], [20, "fan"], [50])}
        until={100}
        {...more}
      />,
    );
  const bars = (ink: string) => [...document.querySelectorAll(`rect[fill="var(--${ink})"]`)];
  const width = (bar: Element | undefined) => Number(bar?.getAttribute("width"));

  it("leave off where a board goes round without end", () => {
    tracks({ replacement: shown([0], [20, "fan"]), rounds: [{ side: "replacement", at: 30, states: [] }] });
    // 20 to 30 instead of 20 to 50, and the rest in dashes of its ink
    expect(width(bars("original")[0]) / width(bars("replacement")[0])).toBeCloseTo(3, 5);
    const dashed = document.querySelectorAll('path[stroke="var(--replacement)"][stroke-dasharray]');
    expect(dashed.length).toBe(1);
  });

  it("prints both inks over each other where both boards are on", () => {
    tracks();
    expect([bars("original").length, bars("replacement").length, bars("both").length]).toEqual([1, 1, 1]);
    // 10 to 40 and 20 to 50 of 100 s: 20 s are common
    expect(width(bars("both")[0]) / width(bars("original")[0])).toBeCloseTo(2 / 3, 5);
    expect(screen.queryByText("Door")).toBeNull(); // an input that does not change takes no line
  });

  it("marks where the boards part, and lays on what was measured as a dotted mark", () => {
    tracks({ parting: 10, measured: shown([0], [12, "fan"]), measuredUntil: 30 });
    expect(screen.getByText("they part here")).toBeTruthy();
    expect(document.querySelectorAll('path[stroke-dasharray="2 4"]').length).toBe(1);
  });

  it("moves a change by its grip, to half seconds and within the time shown", () => {
    const onMove = vi.fn();
    tracks({ onMove });
    const svg = document.querySelector("svg");
    if (!svg) throw new Error("nothing drawn");
    svg.getBoundingClientRect = () => ({ left: 0, width: 760 }) as DOMRect;
    const grip = document.querySelector("g.cursor-ew-resize");
    if (!grip) throw new Error("no grip");
    fireEvent.pointerMove(svg, { clientX: 448 });
    expect(onMove).not.toHaveBeenCalled();
    fireEvent.pointerDown(grip);
    fireEvent.pointerMove(svg, { clientX: 448 }); // the middle of the track: 148 + 600 / 2
    fireEvent.pointerMove(svg, { clientX: 5000 });
    fireEvent.pointerUp(svg);
    fireEvent.pointerMove(svg, { clientX: 300 });
    expect(onMove.mock.calls).toEqual([
      [0, 50],
      [0, 100],
    ]);
  });

  it("moves a level up and down too, on the scale that it had when it was taken", () => {
    const onMove = vi.fn();
    tracks({
      inputs: [{ id: "temp", title: "Coil", rest: 0, level: { unit: "°C", from: 0, to: 100 } }],
      outputs: [],
      steps: [{ at: 50, set: { temp: 100 } }],
      onMove,
    });
    const svg = document.querySelector("svg");
    const grip = document.querySelector("g.cursor-move");
    if (!svg || !grip) throw new Error("nothing drawn");
    const height = Number(svg.getAttribute("viewBox")?.split(" ")[3]);
    svg.getBoundingClientRect = () => ({ left: 0, top: 0, width: 760, height }) as DOMRect;
    fireEvent.pointerDown(grip);
    fireEvent.pointerMove(svg, { clientX: 448, clientY: 26 + 26 }); // half way between 8 and 44 of the line at 26
    expect(onMove.mock.calls).toEqual([[0, 50, 50]]);
  });
});
