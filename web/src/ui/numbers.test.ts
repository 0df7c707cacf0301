import { describe, expect, it } from "vitest";
import { numberFrom, timeWords } from "./numbers";

describe("a typed number", () => {
  it("is taken with comma or point, and with either minus", () => {
    expect(["231.5", "231,5", " 7 ", "-3", "−3,25", "0,125", "1,2000", "1234,567"].map(numberFrom)).toEqual([
      231.5, 231.5, 7, -3, -3.25, 0.125, 1.2, 1234.567,
    ]);
  });

  it("is none where it cannot be one", () => {
    for (const text of ["", "  ", "nine", "1.234,5", "1,2,3", "1,200", "-12,500"])
      expect(numberFrom(text), text).toBeNaN();
  });
});

describe("a time in words", () => {
  it("is said in seconds, then minutes, then hours, with nothing left out", () => {
    const said = [0, 31.5, 119, 120, 750, 7199, 7200, 21600, 22205, 0.1 + 0.2].map(timeWords);
    expect(said).toEqual([
      "0 s",
      "31.5 s",
      "119 s",
      "2 min",
      "12 min 30 s",
      "119 min 59 s",
      "2 h",
      "6 h",
      "6 h 10 min 5 s",
      "0.3 s",
    ]);
  });
});
