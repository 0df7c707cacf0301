import { describe, expect, it } from "vitest";
import { bandsOf, heightOf, LEVEL, levelScale, onAlone, valueAt } from "./levelLine";

const coil = { id: "coil", title: "Coil", rest: -6, level: { unit: "°C", from: -30, to: 40 } };
const at = (value: number, side: "original" | "replacement" | "both") => ({
  level: "coil",
  at: value,
  original: side !== "replacement",
  replacement: side !== "original",
});
const shown = (...each: [at: number, ...on: string[]][]) => each.map(([at, ...on]) => ({ at, on, states: [] }));

describe("a level's scale", () => {
  const scale = levelScale(coil, [{ at: 5, set: { coil: 14 } }], [at(8, "original"), at(12, "replacement")]);

  it("has room beyond what is reached, within what the level can be", () => {
    expect([scale.low, scale.high]).toEqual([-10, 18]);
    const resting = levelScale(coil, [{ at: 5, set: { coil: -6 } }], []);
    expect([resting.low, resting.high]).toEqual([-9.5, -2.5]);
    const steps = [{ at: 5, set: { coil: 39 } }];
    expect(levelScale(coil, steps, []).high).toBe(40);
    expect(levelScale({ ...coil, rest: -29 }, steps, []).low).toBe(-30);
  });

  it("gives a height for every value, and the value of a height as finely as it is dragged", () => {
    expect(heightOf(scale, scale.low)).toBe(LEVEL - 10);
    expect(heightOf(scale, scale.high)).toBe(8);
    expect(valueAt(scale, heightOf(scale, 8))).toBe(8);
    expect(valueAt(scale, heightOf(scale, 8.04))).toBe(8);
    expect([valueAt(scale, -100), valueAt(scale, 500)]).toEqual([18, -10]);
  });
});

describe("the bands of a level", () => {
  const thresholds = [at(8, "original"), at(12, "replacement")];
  const compared = ["heater", "fan"];

  it("are known by when one board alone has something on", () => {
    const mine = shown([0], [10, "heater"], [30]);
    const its = shown([0], [20, "heater"], [40]);
    expect(onAlone(mine, its, compared, 60)).toEqual([
      { side: "original", from: 10, to: 20 },
      { side: "replacement", from: 30, to: 40 },
    ]);
    // each has something that the other has not
    expect(onAlone(shown([0, "heater"]), shown([0, "fan"]), compared, 60)).toEqual([]);
    // nothing is known past where a board goes round without end
    expect(onAlone(mine, its, compared, 15)).toEqual([{ side: "original", from: 10, to: 15 }]);
    // what is not compared does not count
    expect(onAlone(shown([0, "lamp"]), shown([0]), compared, 60)).toEqual([]);
  });

  it("are those in which the level stands then, in the ink of the board that is on", () => {
    const steps = [
      { at: 10, set: { coil: 9 } },
      { at: 25, set: { coil: 14 } },
    ];
    const alone = [{ side: "replacement" as const, from: 5, to: 30 }];
    expect(bandsOf(coil, steps, thresholds, alone, 60)).toEqual([
      { side: "replacement", from: 10, to: 25, low: 8, high: 12 },
    ]);
    expect(bandsOf({ ...coil, rest: false }, steps, thresholds, alone, 60)).toEqual([]);
  });
});
