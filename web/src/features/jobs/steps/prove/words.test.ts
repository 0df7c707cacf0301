import { describe, expect, it } from "vitest";
import { apartWords, inTime } from "./words";

const event = (seen_at: number | null, due_at: number | null) => ({ seen_at, due_at });

describe("events against what was due", () => {
  it("says by how much one came late or early, and nothing where one of the two is missing", () => {
    expect([event(12.44, 10), event(3, 4.5), event(null, 4), event(7, null)].map(apartWords)).toEqual([
      "2.4 s after it was due",
      "1.5 s before it was due",
      "",
      "",
    ]);
  });

  it("puts them in the order of time, the ones that never came where they were due", () => {
    const [late, missing, early] = [event(9, 8), event(null, 5), event(2, 3)];
    expect(inTime([late, missing, early])).toEqual([early, missing, late]);
  });
});
