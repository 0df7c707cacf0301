import { describe, expect, it } from "vitest";
import { changeTold, inputOf } from "./inputs";

const power = { id: "power", title: "Supply" };
const door = { id: "door" };
const chamber = { id: "temp", title: "Chamber", level: true, unit: "°C", from: -30, to: 60 };
const written = [power, door, chamber];

describe("the inputs of a family", () => {
  it("stand at rest as the family says, a level at its lowest where it says nothing", () => {
    expect(written.map(inputOf({})).map((each) => each.rest)).toEqual([true, false, -30]);
    expect(inputOf({ temp: 4 })(chamber).rest).toBe(4);
    expect(inputOf({})(door)).toEqual({ id: "door", title: "door", rest: false });
  });

  it("begin, end, or go to a value in their unit", () => {
    const inputs = written.map(inputOf({}));
    expect(changeTold(inputs, "power", false)).toBe("Supply ends");
    expect(changeTold(inputs, "temp", 31.5)).toBe("Chamber goes to 31.5 °C");
    expect(changeTold(inputs, "elsewhere", true)).toBe("elsewhere begins");
  });
});
