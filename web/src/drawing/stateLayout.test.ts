import { describe, expect, it } from "vitest";
import type { Machine } from "./machine";
import { boxOf, layOut } from "./stateLayout";

const titles = { fan: "Combustion fan", valve: "Gas valve", spark: "Ignition spark", alarm: "Alarm" };
const state = (on: string[], ...to: string[]) => ({ on, go: to.map((each) => ({ to: each })) });
const machine: Machine = {
  start: "a",
  states: {
    a: state([], "b"),
    b: state(["fan"], "a", "c"),
    c: state(["fan", "valve", "spark", "alarm"], "a", "d", "c"),
    d: state(["alarm"], "a"),
    alone: state([]),
  },
};
const boxes = Object.fromEntries(
  Object.entries(machine.states).map(([name, each]) => [name, boxOf(name, each, titles)]),
);

describe("a state diagram’s layout", () => {
  it("writes what is on in a state whole, in as many lines as it takes", () => {
    expect(boxes.c?.lines.join(", ")).toBe("Combustion fan, Gas valve, Ignition spark, Alarm");
    expect(boxes.c?.lines.length).toBe(2);
    expect(boxes.a?.lines).toEqual(["nothing on"]);
  });

  it("lets no box lie on another, and keeps all of them in the frame", async () => {
    const { spots, width, height } = await layOut(machine, boxes);
    const placed = Object.entries(boxes).map(([name, box]) => ({ ...box, ...(spots[name] ?? { x: NaN, y: NaN }) }));
    expect(placed.length).toBe(5);
    for (const one of placed) {
      expect(one.x).toBeGreaterThanOrEqual(0);
      expect(one.x + one.width).toBeLessThanOrEqual(width);
      expect(one.y + one.height).toBeLessThanOrEqual(height);
      for (const other of placed)
        if (one !== other)
          expect(
            one.x + one.width <= other.x ||
              other.x + other.width <= one.x ||
              one.y + one.height <= other.y ||
              other.y + other.height <= one.y,
          ).toBe(true);
    }
  });

  it("draws an arrow for each pair of states once, also from a state to itself", async () => {
    const { arrows } = await layOut(machine, boxes);
    expect(arrows.map((each) => `${each.from}${each.to}`).sort()).toEqual(["ab", "ba", "bc", "ca", "cc", "cd", "da"]);
    expect(arrows.every((each) => each.path.startsWith("M"))).toBe(true);
  });
});
