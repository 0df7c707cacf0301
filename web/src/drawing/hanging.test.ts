import { element } from "@/testing/jobs";
import { describe, expect, it } from "vitest";
import { asSeen, hangingWords, inGroups, points, positionWords } from "./hanging";

const fromTheRight = { axis: "across", backwards: true, on: "down", known: true } as const;

describe("a bank that hangs its own way", () => {
  it("is written as the eye meets it, wherever it is read", () => {
    const bank = element({ hanging: fromTheRight });
    expect([asSeen(bank, "011"), positionWords(bank, "01?"), positionWords(bank, undefined)]).toEqual([
      "110",
      "?10",
      "not read",
    ]);
    expect(hangingWords(fromTheRight, 3)).toBe("left to right 3 to 1, on is down");
    expect(hangingWords({ ...fromTheRight, known: false }, 3)).toContain("nobody wrote down which way it hangs");
    expect(["0", "1", "?"].map((mark) => points(mark, fromTheRight))).toEqual(["up", "down", undefined]);
  });

  it("leaves alone what has one place, and groups only what is long", () => {
    const time = element({ id: "P1", kind: "parameter", unit: "s", points: ["P1"], hanging: fromTheRight });
    expect([asSeen(time, 120), positionWords(time, 120)]).toEqual(["120", "120 s"]);
    expect(["0110", "011010", "12.5"].map(inGroups)).toEqual(["0110", "0110 10", "12.5"]);
  });
});
