import { describe, expect, it } from "vitest";
import { outlives, placeOf } from "./said";

const said = { where: "main switch", tag: "7", reading: "0", readings: { "L-N": "0" }, checked_before: true };

describe("what is typed of a hold point", () => {
  it("is kept of one locking off, and of none but for its words", () => {
    expect(outlives(said, "2026-03-02T08:00:00Z")).toEqual(said);
    expect(outlives(said, null)).toEqual({ where: "main switch", tag: "7" });
    const places = [null, "2026-03-02T08:00:00Z", "2026-03-03T08:00:00Z"].map((at) => placeOf("prove_dead", at));
    expect(new Set(places).size).toBe(3);
  });
});
