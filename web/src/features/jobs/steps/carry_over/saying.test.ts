import type { Schemas } from "@/api/client";
import { describe, expect, it } from "vitest";
import { functionName, saidWords, unsaidPoints, waysOf, type Meaning } from "./saying";

const element = (id: string, points: string[], values: string[]) =>
  ({ id, points, values, range: null }) as unknown as Schemas["ElementShown"];
const BANK = element("S1", ["S1.1", "S1.2", "S1.3"], ["off", "on"]);
const DIAL = element("R1", ["R1"], ["0", "1", "2"]);
const said: Meaning = {
  of: "K7",
  title: "Drain",
  type: "duration",
  points: ["S1.2"],
  values: [10, null],
  by: "Tarl",
  at: "",
};

describe("what positions mean, by somebody’s word", () => {
  it("is asked of places alone that no profile and nobody speaks of", () => {
    const functions = { a: { table: [{ when: { "S1.1": "on" }, value: 1 }] }, b: { from: "R1" }, c: { fixed: 2 } };
    expect(unsaidPoints([BANK, DIAL], functions, [said]).map((each) => each.id)).toEqual(["S1.3"]);
    const number = { ...DIAL, id: "P1", points: ["P1"], range: { low: 0, high: 9, step: 1 } };
    expect(unsaidPoints([number], {}, [])).toEqual([]);
  });

  it("takes a value for each way in which the places may stand, in the order of a leaflet", () => {
    const [one, two] = [
      { id: "S1.1", values: ["off", "on"] },
      { id: "R1", values: ["0", "1"] },
    ];
    expect(waysOf([one, two] as never)).toEqual([
      ["off", "0"],
      ["off", "1"],
      ["on", "0"],
      ["on", "1"],
    ]);
  });

  it("is read back in words, what nobody knows left out", () => {
    expect(saidWords(said, [BANK, DIAL])).toBe("S1.2 off: 10 s");
    expect(functionName("Post-purge (fan)")).toBe("post.purge.fan");
    expect(functionName("—")).toBe("function");
  });
});
