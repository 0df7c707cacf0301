import { describe, expect, it } from "vitest";
import { clocksFrom, clocksText, countersFrom, countersText } from "./clockWords";

describe("clocks and counters in words", () => {
  it("are read as they are written, and written as they are read", () => {
    const clocks = [
      { id: "since_stop", starts: "expired" as const, runs_without_power: true as const },
      { id: "hold" },
      { id: "ran", runs_without_power: true as const, runs_while: "compressor" },
    ];
    expect(clocksText(clocks)).toBe("since_stop expired kept, hold, ran kept while compressor");
    expect(clocksFrom(" since_stop  kept expired , hold, ran while  compressor kept,")).toEqual(clocks);
    expect(clocksFrom("ran while")).toEqual([{ id: "ran" }]);
    const counters = [{ id: "n" }, { id: "starts", survives_power_loss: true as const }];
    expect(countersText(counters)).toBe("n, starts kept");
    expect(countersFrom("n, starts kept")).toEqual(counters);
    expect(countersFrom(" ")).toEqual([]);
  });
});
