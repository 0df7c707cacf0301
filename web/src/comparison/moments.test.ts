import { describe, expect, it } from "vitest";
import { momentsOf, nearest } from "./moments";

const shown = (at: number, on: string[], states: string[]) => ({ at, on, states });
const steps: { at: number; set: Record<string, boolean> }[] = [
  { at: 3, set: { call: true, door: false } },
  { at: 20, set: { call: false } },
];
const original = [shown(0, [], ["rest"]), shown(3, ["fan"], ["purge"]), shown(18, ["fan", "valve"], ["burn"])];
const replacement = [shown(0, [], ["rest"]), shown(3, ["fan"], ["purge"])];

describe("the moments of a scenario", () => {
  const moments = momentsOf(steps, original, replacement);

  it("are the instants at which an input or a board changes, each once and in order", () => {
    expect(moments.map((each) => each.at)).toEqual([0, 3, 18, 20]);
    expect(moments[1]?.changed).toEqual([
      { input: "call", value: true },
      { input: "door", value: false },
    ]);
  });

  it("carry what stands on both boards after them, also where only the other board changed", () => {
    expect(moments[2]).toMatchObject({
      original: { states: ["burn"], on: ["fan", "valve"] },
      replacement: { states: ["purge"], on: ["fan"] },
      changed: [],
    });
    expect(moments[3]?.original.states).toEqual(["burn"]);
  });

  it("know nothing of a board from when it goes round without end", () => {
    const lost = momentsOf(steps, original, replacement, [{ side: "replacement", at: 10, states: ["a", "b"] }]);
    expect(lost.map((each) => [each.at, each.original.known, each.replacement.known])).toEqual([
      [0, true, true],
      [3, true, true],
      [10, true, false],
      [18, true, false],
      [20, true, false],
    ]);
  });

  it("are found by a touch beside them", () => {
    expect([-5, 1, 2, 17.9, 99].map((at) => nearest(moments, at))).toEqual([0, 0, 1, 2, 3]);
    expect(nearest([], 4)).toBe(0);
  });
});
