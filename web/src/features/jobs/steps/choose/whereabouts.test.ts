import { describe, expect, it } from "vitest";
import { thereWords, type There } from "./whereabouts";

const there = (name: string, more: Partial<There>): There => ({
  piece: "OFN-U3",
  van: name,
  name,
  count: 1,
  mine: false,
  minutes: null,
  ...more,
});

describe("where a board is", () => {
  it("says whose van has it, one's own first, and how far it is", () => {
    expect(thereWords(undefined)).toBeNull();
    expect(thereWords([there("Blue van", { mine: true }), there("Grey van", { minutes: 40 })])).toBe("in your van");
    expect(thereWords([there("Grey van", { minutes: 40 })])).toBe("in Grey van, 40 min away");
    expect(thereWords([there("Hill van", {})])).toBe("in Hill van");
  });
});
